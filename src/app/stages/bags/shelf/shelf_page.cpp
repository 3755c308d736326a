#include "app/stages/bags/shelf/shelf_page.h"

#include "app/desk/desk.h"
#include "app/kit/ask.h"
#include "app/stages/bags/shelf/bench_panel.h"
#include "app/stages/bags/shelf/card_cells.h"
#include "app/stages/bags/shelf/card_drawing.h"
#include "file/text_file.h"
#include "quantity/quantity.h"
#include "shelf/card_write.h"
#include "shelf/places.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QStackedWidget>

#include <algorithm>

namespace mavrel::app {

namespace {

/// A figure in the card's head.
struct Key {
  const char* caption;
  Kind kind;
  double air::BagCard::*what; // none for the name
};
constexpr Key keys[] = {
    {QT_TRANSLATE_NOOP("shelf", "name"), Kind::plain, nullptr},
    {QT_TRANSLATE_NOOP("shelf", "collapsed"), Kind::length, &air::BagCard::collapsed_height},
    {QT_TRANSLATE_NOOP("shelf", "full height"), Kind::length, &air::BagCard::max_height},
    {QT_TRANSLATE_NOOP("shelf", "over all"), Kind::length, &air::BagCard::max_diameter},
    {QT_TRANSLATE_NOOP("shelf", "least pressure"), Kind::pressure, &air::BagCard::min_pressure},
    {QT_TRANSLATE_NOOP("shelf", "most pressure"), Kind::pressure, &air::BagCard::max_pressure},
    {QT_TRANSLATE_NOOP("shelf", "mass"), Kind::mass, &air::BagCard::mass},
};

} // namespace

ShelfPage::ShelfPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), list_(new QListWidget(this)), stack_(new QStackedWidget(this)),
      drawing_(new CardDrawing(desk, this)), cells_(new CardCells(desk, this)), kind_(new QComboBox(this)),
      stop_(new QCheckBox(tr("stop inside"), this)), verdict_(new QLabel(this)),
      keep_(new QPushButton(tr("Keep"), this)), undo_(new QPushButton(tr("Undo"), this)),
      redo_(new QPushButton(tr("Redo"), this)), bench_(new BenchPanel(desk, this)) {
  setObjectName("shelf_page");
  const int u = desk_.look().unit();
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, u / 2, 0, 0);
  row->setSpacing(u);
  auto* left = new QVBoxLayout;
  left->setSpacing(u / 2);
  list_->setObjectName("card_list");
  list_->setAccessibleName(tr("Bag cards"));
  left->addWidget(list_, 1);
  const auto button = [&](const QString& name, const QString& object, auto act) {
    auto* made = new QPushButton(name, this);
    made->setObjectName(object);
    set_small(made, desk_.look());
    connect(made, &QPushButton::clicked, this, act);
    return made;
  };
  left->addWidget(button(tr("Import cards…"), "card_import", [this] {
    import(QFileDialog::getOpenFileNames(this, tr("Bag cards"), {}, tr("Bag cards (*.csv);;All files (*)")));
  }));
  left->addWidget(button(tr("From a bench test"), "card_bench", [this] { stack_->setCurrentWidget(bench_); }));
  auto* side = new QWidget(this);
  side->setLayout(left);
  left->setContentsMargins(0, 0, 0, 0);
  side->setFixedWidth(desk_.look().px(170));
  row->addWidget(side);
  row->addWidget(stack_, 1);

  auto* page = new QWidget(stack_);
  auto* column = new QVBoxLayout(page);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(u / 2);
  auto* head = new QGridLayout;
  head->setHorizontalSpacing(u / 2);
  head->setVerticalSpacing(0);
  const auto caption = [&](const QString& text, int at_row, int at_column, int span, QWidget* widget) {
    auto* label = new QLabel(text, page);
    label->setProperty("quiet", true);
    set_small(label, desk_.look());
    label->setBuddy(widget);
    widget->setAccessibleName(text);
    head->addWidget(label, at_row, at_column, 1, span);
    head->addWidget(widget, at_row + 1, at_column, 1, span);
  };
  for (int i = 0; i < static_cast<int>(std::size(keys)); ++i) {
    auto* edit = new QLineEdit(page);
    edit->setObjectName(QString("card_key_%1").arg(i));
    connect(edit, &QLineEdit::editingFinished, this, [this, i] { key_edited(i); });
    // Name, kind and stop in the first pair of rows, the figures in the second.
    if (i == 0)
      caption(tr(keys[i].caption), 0, 0, 3, edit);
    else
      caption(tr(keys[i].caption), 2, i - 1, 1, edit), head->setColumnStretch(i - 1, 1);
    keys_.push_back(edit);
  }
  for (const auto kind : {air::BagKind::single_bellows, air::BagKind::double_bellows, air::BagKind::triple_bellows,
                          air::BagKind::sleeve, air::BagKind::slim_bellows})
    kind_->addItem(tr(air::bag_kind_name(kind)), static_cast<int>(kind));
  connect(kind_, &QComboBox::activated, this, [this] {
    if (!drafts_.has_card()) return;
    air::BagCard card = drafts_.card();
    card.kind = static_cast<air::BagKind>(kind_->currentData().toInt());
    change(std::move(card));
  });
  caption(tr("kind"), 0, 3, 2, kind_);
  connect(stop_, &QCheckBox::clicked, this, [this](bool on) {
    if (!drafts_.has_card()) return;
    air::BagCard card = drafts_.card();
    card.internal_stop = on;
    change(std::move(card));
  });
  head->addWidget(stop_, 1, 5);
  column->addLayout(head);
  column->addWidget(drawing_, 6);
  verdict_->setWordWrap(true);
  column->addWidget(verdict_);
  connect(cells_, &CardCells::edited, this, &ShelfPage::change);
  column->addWidget(cells_, 5);
  auto* foot = new QHBoxLayout;
  foot->setSpacing(u / 2);
  foot->addWidget(button(tr("Add row"), "card_add_row", [this] { cells_->add_row(); }));
  foot->addWidget(button(tr("Remove row"), "card_remove_row", [this] { cells_->remove_row(); }));
  set_small(undo_, desk_.look());
  undo_->setObjectName("card_undo");
  connect(undo_, &QPushButton::clicked, this, &ShelfPage::undo);
  foot->addWidget(undo_);
  set_small(redo_, desk_.look());
  connect(redo_, &QPushButton::clicked, this, &ShelfPage::redo);
  foot->addWidget(redo_);
  foot->addStretch(1);
  foot->addWidget(button(tr("Duplicate"), "card_duplicate", [this] { duplicate(); }));
  foot->addWidget(button(tr("Export…"), "card_export", [this] {
    const QString to = drafts_.has_card()
                           ? QFileDialog::getSaveFileName(this, tr("Bag card"),
                                                          QString::fromStdString(shelf::card_file_name(drafts_.card())),
                                                          tr("Bag cards (*.csv)"))
                           : QString();
    if (!to.isEmpty()) export_to(to);
  }));
  set_small(keep_, desk_.look());
  keep_->setObjectName("card_keep");
  connect(keep_, &QPushButton::clicked, this, &ShelfPage::keep);
  foot->addWidget(keep_);
  column->addLayout(foot);
  stack_->addWidget(page);
  stack_->addWidget(bench_);
  connect(bench_, &BenchPanel::left, this, [this] { stack_->setCurrentIndex(0); });
  connect(bench_, &BenchPanel::made, this, [this](const air::BagCard& card) {
    stack_->setCurrentIndex(0);
    drafts_.add(card);
    refresh_list();
    show_draft();
  });
  connect(list_, &QListWidget::currentRowChanged, this, [this](int held) {
    const auto& bags = desk_.shelf().bags;
    if (held < 0) return;
    stack_->setCurrentIndex(0);
    const auto i = static_cast<std::size_t>(held);
    if (i < bags.size())
      drafts_.open(bags[i].card);
    else
      drafts_.open_new(i - bags.size());
    show_draft();
  });
  connect(&desk_, &Desk::changed, this, [this] {
    if (isVisible()) refresh_list();
  });
  connect(&desk_, &Desk::restyled, this, [this] { show_draft(); });
}

void ShelfPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh_list();
  if (!drafts_.has_card() && !desk_.shelf().bags.empty()) {
    const auto& fitted = desk_.build().variant().fit[build::at(desk_.end())].bag;
    show_bag(desk_.shelf().find(fitted) ? fitted : desk_.shelf().bags.front().card.name);
  }
}

void ShelfPage::refresh_list() {
  const QSignalBlocker quiet(list_);
  const Tokens& t = desk_.look().tokens();
  const auto own = (desk_.cards().folder().empty() ? shelf::user_shelf_folder() : desk_.cards().folder()).string();
  list_->clear();
  list_->setFont(desk_.look().font(TextSize::normal));
  for (const auto& bag : desk_.shelf().bags) {
    const bool mine = bag.file.string().starts_with(own);
    const bool changed = drafts_.is_edited(bag.card.name);
    auto* item = new QListWidgetItem(QString::fromStdString(bag.card.name) +
                                         (changed ? tr("  · edited")
                                          : mine  ? tr("  · yours")
                                                  : QString()) +
                                         (bag.doubts.empty() ? "" : "  △"),
                                     list_);
    if (!bag.doubts.empty()) item->setForeground(t.caution), item->setToolTip(desk_.words_of(bag.doubts.front().what));
    if (drafts_.has_card() && !drafts_.shown_new() && drafts_.shelf_name() == bag.card.name)
      list_->setCurrentItem(item);
  }
  for (const std::string& name : drafts_.new_names())
    new QListWidgetItem(QString::fromStdString(name) + tr("  · not kept"), list_);
  if (const auto shown = drafts_.shown_new())
    list_->setCurrentRow(static_cast<int>(desk_.shelf().bags.size() + *shown));
}

void ShelfPage::show_bag(const std::string& name) {
  const shelf::ShelfBag* bag = desk_.shelf().find(name);
  if (!bag) return;
  stack_->setCurrentIndex(0);
  drafts_.open(bag->card);
  refresh_list();
  show_draft();
}

std::optional<air::BagCard> ShelfPage::draft() const {
  return drafts_.has_card() ? std::optional(drafts_.card()) : std::nullopt;
}

void ShelfPage::change(air::BagCard card) {
  if (drafts_.has_card()) drafts_.change(std::move(card));
  refresh_list();
  show_draft();
}

void ShelfPage::undo() {
  if (!drafts_.can_undo()) return;
  drafts_.undo();
  refresh_list();
  show_draft();
}

void ShelfPage::redo() {
  if (!drafts_.can_redo()) return;
  drafts_.redo();
  refresh_list();
  show_draft();
}

void ShelfPage::show_draft() {
  const UnitPrefs& prefs = desk_.prefs();
  for (std::size_t i = 0; i < keys_.size(); ++i) {
    keys_[i]->setFont(desk_.look().font(TextSize::normal, true));
    if (!drafts_.has_card())
      keys_[i]->clear();
    else if (!keys[i].what)
      keys_[i]->setText(QString::fromStdString(drafts_.card().name));
    else
      keys_[i]->setText(keys[i].kind == Kind::mass && drafts_.card().mass == 0
                            ? QString()
                            : QString::fromStdString(show_exact((drafts_.card()).*keys[i].what, keys[i].kind, prefs)));
    keys_[i]->setCursorPosition(0);
    keys_[i]->setEnabled(drafts_.has_card());
  }
  if (drafts_.has_card())
    kind_->setCurrentIndex(static_cast<int>(drafts_.card().kind)), stop_->setChecked(drafts_.card().internal_stop);
  kind_->setFont(desk_.look().font(TextSize::small));
  stop_->setFont(desk_.look().font(TextSize::small));
  undo_->setEnabled(drafts_.can_undo());
  redo_->setEnabled(drafts_.can_redo());
  emit edited();
  cells_->show_card(draft());
  check();
}

void ShelfPage::key_edited(int key) {
  if (!drafts_.has_card() || !keys_[static_cast<std::size_t>(key)]->isModified()) return;
  keys_[static_cast<std::size_t>(key)]->setModified(false);
  air::BagCard card = drafts_.card();
  const std::string text = keys_[static_cast<std::size_t>(key)]->text().trimmed().toStdString();
  if (!keys[key].what) {
    if (text.empty() || text.size() > 80) {
      desk_.tell(tr("A bag needs a name of 1 to 80 letters."));
      return show_draft();
    }
    card.name = text;
    return change(std::move(card));
  }
  const auto value = parse_quantity(text, keys[key].kind, desk_.prefs());
  if (!value || *value < 0) {
    desk_.tell(value ? tr("That is never below 0.") : desk_.words_of(value.error()));
    return show_draft();
  }
  card.*keys[key].what = *value;
  change(std::move(card));
}

void ShelfPage::check() {
  verdict_->setFont(desk_.look().font(TextSize::small));
  keep_->setEnabled(false);
  if (!drafts_.has_card()) {
    drawing_->show_card(std::nullopt);
    verdict_->clear();
    return;
  }
  const shelf::CardReading reading = shelf::read_card(shelf::card_text(drafts_.card()));
  drawing_->show_card(reading.card);
  keep_->setEnabled(reading.card.has_value());
  verdict_->setProperty("wrong", !reading.mistakes.empty());
  if (!reading.mistakes.empty())
    verdict_->setText("■ " + desk_.words_of(reading.mistakes.front().what));
  else if (!reading.doubts.empty())
    verdict_->setText("△ " + desk_.words_of(reading.doubts.front().what));
  else
    verdict_->setText(tr("○ Sound: the volume grows as the loads say it should, and every load has one pressure."));
  verdict_->style()->polish(verdict_);
}

void ShelfPage::duplicate() {
  if (!drafts_.has_card()) return;
  air::BagCard card = drafts_.card();
  card.name += tr(" copy").toStdString();
  drafts_.add(std::move(card));
  refresh_list();
  show_draft();
  desk_.tell(tr("A copy, not on the shelf yet. Name it and keep it."));
}

bool ShelfPage::keep() {
  if (!drafts_.has_card()) return false;
  const std::string name = drafts_.card().name;
  const auto there = desk_.cards().own(name);
  if (there && !(*there == drafts_.card()) &&
      !ask(this, tr("Replace a card"),
           tr("A card of “%1” is on your shelf already. Replace it? Undo brings it back.")
               .arg(QString::fromStdString(name)),
           tr("Replace it")))
    return false;
  const auto file = desk_.cards().keep(drafts_.card());
  if (!file) {
    desk_.tell(desk_.words_of(file.error()));
    return false;
  }
  drafts_.kept(there);
  refresh_list();
  show_draft();
  desk_.tell(tr("Kept as %1").arg(QString::fromStdString(shown_path(*file))));
  return true;
}

bool ShelfPage::export_to(const QString& file) {
  if (!drafts_.has_card()) return false;
  if (desk_.refuses_to_write(file.toStdString())) return false;
  const auto done = write_atomically(file.toStdString(), shelf::card_text(drafts_.card()));
  desk_.tell(done ? tr("Card written: %1").arg(file) : desk_.words_of(done.error()));
  return done.has_value();
}

int ShelfPage::import(const QStringList& files) {
  std::vector<air::BagCard> cards;
  int refused = 0;
  QString first_wrong;
  const auto wrong = [&](const QString& file, const QString& what) {
    ++refused;
    if (first_wrong.isEmpty()) first_wrong = QString("%1, %2").arg(QFileInfo(file).fileName(), what);
  };
  for (const QString& file : files) {
    const auto text = read_text(file.toStdString(), shelf::card_limit * 20);
    if (!text) {
      wrong(file, desk_.words_of(text.error()));
      continue;
    }
    for (auto& reading : shelf::read_cards(*text)) {
      if (reading.card)
        cards.push_back(std::move(*reading.card));
      else
        wrong(file, desk_.words_of(shelf::with_place(reading.mistakes.front())));
    }
  }
  // What would take another's place is asked about once, before anything is written.
  QStringList replaced;
  for (const air::BagCard& card : cards)
    if (const auto there = desk_.cards().own(card.name); there && !(*there == card))
      replaced << QString::fromStdString(card.name);
  const bool replace =
      replaced.isEmpty() || ask(this, tr("Replace cards"),
                                tr("On your shelf already: %1. Replace them by those imported? Undo brings each back.")
                                    .arg(replaced.join(", ")),
                                tr("Replace them"));
  int kept = 0, left = 0;
  for (const air::BagCard& card : cards) {
    const auto there = desk_.cards().own(card.name);
    if (there && !(*there == card) && !replace) {
      ++left;
      continue;
    }
    if (const auto done = desk_.cards().keep(card); !done) {
      wrong(QString::fromStdString(card.name), desk_.words_of(done.error()));
      continue;
    }
    ++kept;
    drafts_.open(there.value_or(card));
    drafts_.change(card);
    drafts_.kept(there);
  }
  if (kept > 0) {
    refresh_list();
    stack_->setCurrentIndex(0);
    show_draft();
  }
  QString said = tr("%1 cards kept on your shelf.").arg(kept);
  if (left > 0) said += " " + tr("%1 stayed as they were.").arg(left);
  if (refused > 0) said = tr("%1 cards kept, %2 not: %3").arg(kept).arg(refused).arg(first_wrong);
  if (kept + left + refused > 0) desk_.tell(said);
  return kept;
}

} // namespace mavrel::app
