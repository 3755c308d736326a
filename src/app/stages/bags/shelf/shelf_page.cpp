#include "app/stages/bags/shelf/shelf_page.h"

#include "app/kit/ask.h"
#include "app/kit/cell_editing.h"
#include "app/kit/page_stack.h"
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
    {QT_TRANSLATE_NOOP("shelf", "peak, in bump"), Kind::pressure, &air::BagCard::peak_pressure},
    {QT_TRANSLATE_NOOP("shelf", "mass"), Kind::mass, &air::BagCard::mass},
    {QT_TRANSLATE_NOOP("shelf", "bolts"), Kind::plain, &air::BagCard::bolts},
    {QT_TRANSLATE_NOOP("shelf", "bolt circle"), Kind::length, &air::BagCard::bolt_circle},
    {QT_TRANSLATE_NOOP("shelf", "bolt hole"), Kind::length, &air::BagCard::bolt_hole},
    {QT_TRANSLATE_NOOP("shelf", "port hole"), Kind::length, &air::BagCard::port_hole},
    {QT_TRANSLATE_NOOP("shelf", "port from axis"), Kind::length, &air::BagCard::port_out},
    {QT_TRANSLATE_NOOP("shelf", "port turned"), Kind::angle, &air::BagCard::port_turn},
    {QT_TRANSLATE_NOOP("shelf", "flange across"), Kind::length, &air::BagCard::flange},
};
constexpr int keys_a_row = 7;

/// Beyond what the bag is and bears: its mass, its peak, and how it is screwed on.
bool need_not_be_stated(double air::BagCard::*what) {
  return std::any_of(std::begin(keys) + 6, std::end(keys), [&](const Key& key) { return key.what == what; });
}
bool is_left_out(const air::BagCard& card, double air::BagCard::*what) {
  return need_not_be_stated(what) && card.*what == 0;
}

} // namespace

ShelfPage::ShelfPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), list_(new QListWidget(this)), stack_(new PageStack(this)),
      drawing_(new CardDrawing(desk, this)), cells_(new CardCells(desk, this)), kind_(new QComboBox(this)),
      stop_(new QCheckBox(tr("stop inside"), this)), bench_(new BenchPanel(desk, this)) {
  setObjectName("shelf_page");
  const int u = desk_.look().unit();
  auto* both = row(wide_column(), 1);
  both->setContentsMargins(0, u / 2, 0, 0);
  auto* side = new QWidget(this);
  auto* left = new QVBoxLayout(side);
  left->setContentsMargins(0, 0, 0, 0);
  left->setSpacing(u / 2);
  list_->setObjectName("card_list");
  list_->setAccessibleName(tr("Bag cards"));
  dress(list_, TextSize::normal);
  left->addWidget(list_, 1);
  small_button(left, tr("Import cards…"), "card_import", [this] {
    import(QFileDialog::getOpenFileNames(this, tr("Bag cards"), {}, tr("Bag cards (*.csv);;All files (*)")));
  });
  small_button(left, tr("From a bench test"), "card_bench", [this] { stack_->setCurrentWidget(bench_); });
  side->setFixedWidth(desk_.look().px(170));
  both->addWidget(side);
  both->addWidget(stack_, 1);
  auto* page = new QWidget(stack_);
  auto* inside = new QVBoxLayout(page);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(u / 2);
  make_head(inside);
  inside->addWidget(drawing_, 6);
  verdict_ = small_words("card_verdict");
  inside->addWidget(verdict_);
  inside->addWidget(cells_, 5);
  make_foot(inside);
  stack_->addWidget(page);
  stack_->addWidget(bench_);
  connect(cells_, &CardCells::edited, this, &ShelfPage::change);
  connect(bench_, &BenchPanel::left, this, [this] { stack_->setCurrentIndex(0); });
  connect(bench_, &BenchPanel::made, this, [this](const air::BagCard& card) {
    stack_->setCurrentIndex(0);
    drafts_.add(card);
    show_edits();
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
  connect(&desk_, &Desk::restyled, this, [this] { show_draft(); });
}

QPushButton* ShelfPage::small_button(QBoxLayout* row, const QString& text, const char* name,
                                     std::function<void()> act) {
  QPushButton* made = button(row, text, name, std::move(act));
  dress(made, TextSize::small);
  return made;
}

void ShelfPage::make_head(QVBoxLayout* into) {
  auto* head = new QGridLayout;
  head->setHorizontalSpacing(desk_.look().unit() / 2);
  head->setVerticalSpacing(0);
  const auto captioned = [&](const QString& text, int at_row, int at_column, int span, QWidget* widget) {
    QLabel* label = quiet(text);
    label->setBuddy(widget);
    widget->setAccessibleName(text);
    head->addWidget(label, at_row, at_column, 1, span);
    head->addWidget(widget, at_row + 1, at_column, 1, span);
  };
  for (int i = 0; i < static_cast<int>(std::size(keys)); ++i) {
    auto* edit = new QLineEdit(this);
    edit->setObjectName(QString("card_key_%1").arg(i));
    dress(edit, TextSize::normal, true);
    connect(edit, &QLineEdit::editingFinished, this, [this, i] { key_edited(i); });
    // Name, kind and stop in the first pair of rows, the figures in the others.
    const int column = (i - 1) % keys_a_row;
    if (i == 0)
      captioned(tr(keys[i].caption), 0, 0, 3, edit);
    else
      captioned(tr(keys[i].caption), 2 + 2 * ((i - 1) / keys_a_row), column, 1, edit),
          head->setColumnStretch(column, 1);
    keys_.push_back(edit);
  }
  for (const auto kind : {air::BagKind::single_bellows, air::BagKind::double_bellows, air::BagKind::triple_bellows,
                          air::BagKind::sleeve, air::BagKind::slim_bellows})
    kind_->addItem(tr(air::bag_kind_name(kind)), static_cast<int>(kind));
  const auto with = [this](const std::function<void(air::BagCard&)>& set) {
    if (!drafts_.has_card()) return;
    air::BagCard card = drafts_.card();
    set(card);
    change(std::move(card));
  };
  connect(kind_, &QComboBox::activated, this, [this, with] {
    with([this](air::BagCard& card) { card.kind = static_cast<air::BagKind>(kind_->currentData().toInt()); });
  });
  connect(stop_, &QCheckBox::clicked, this,
          [with](bool on) { with([on](air::BagCard& card) { card.internal_stop = on; }); });
  for (QWidget* one : std::initializer_list<QWidget*>{kind_, stop_})
    dress(one, TextSize::small);
  captioned(tr("kind"), 0, 3, 2, kind_);
  head->addWidget(stop_, 1, 5);
  into->addLayout(head);
}

void ShelfPage::make_foot(QVBoxLayout* into) {
  auto* foot = row(into);
  small_button(foot, tr("Add row"), "card_add_row", [this] { cells_->add_row(); });
  small_button(foot, tr("Remove row"), "card_remove_row", [this] { cells_->remove_row(); });
  undo_ = small_button(foot, tr("Undo"), "card_undo", [this] { undo(); });
  redo_ = small_button(foot, tr("Redo"), "card_redo", [this] { redo(); });
  foot->addStretch(1);
  small_button(foot, tr("Duplicate"), "card_duplicate", [this] { duplicate(); });
  small_button(foot, tr("Export…"), "card_export", [this] {
    if (!drafts_.has_card()) return;
    const QString to = QFileDialog::getSaveFileName(
        this, tr("Bag card"), QString::fromStdString(shelf::card_file_name(drafts_.card())), tr("Bag cards (*.csv)"));
    if (!to.isEmpty()) export_to(to);
  });
  keep_ = small_button(foot, tr("Keep"), "card_keep", [this] { keep(); });
}

void ShelfPage::fill() {
  refresh_list();
  if (!drafts_.has_card() && !desk_.shelf().bags.empty()) {
    const auto& fitted = desk_.build().variant().fit[build::at(desk_.end())].bag;
    show_bag(desk_.shelf().find(fitted) ? fitted : desk_.shelf().bags.front().card.name);
  }
}

void ShelfPage::show_edits() {
  refresh_list();
  show_draft();
}

void ShelfPage::refresh_list() {
  const QSignalBlocker quiet(list_);
  const Tokens& t = desk_.look().tokens();
  const auto own = (desk_.cards().folder().empty() ? shelf::user_shelf_folder() : desk_.cards().folder()).string();
  list_->clear();
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
  settle_cells(*cells_); // what is half typed belongs to the card that was shown
  stack_->setCurrentIndex(0);
  drafts_.open(bag->card);
  show_edits();
}

std::optional<air::BagCard> ShelfPage::draft() const {
  return drafts_.has_card() ? std::optional(drafts_.card()) : std::nullopt;
}

void ShelfPage::change(air::BagCard card) {
  if (drafts_.has_card()) drafts_.change(std::move(card));
  show_edits();
}

void ShelfPage::undo() {
  settle_cells(*cells_);
  if (!drafts_.can_undo()) return;
  drafts_.undo();
  show_edits();
}

void ShelfPage::redo() {
  settle_cells(*cells_);
  if (!drafts_.can_redo()) return;
  drafts_.redo();
  show_edits();
}

void ShelfPage::show_draft() {
  const UnitPrefs& prefs = desk_.prefs();
  for (std::size_t i = 0; i < keys_.size(); ++i) {
    if (!drafts_.has_card())
      keys_[i]->clear();
    else if (!keys[i].what)
      keys_[i]->setText(QString::fromStdString(drafts_.card().name));
    else
      keys_[i]->setText(is_left_out(drafts_.card(), keys[i].what)
                            ? QString()
                            : QString::fromStdString(show_exact((drafts_.card()).*keys[i].what, keys[i].kind, prefs)));
    keys_[i]->setCursorPosition(0);
    keys_[i]->setEnabled(drafts_.has_card());
    keys_[i]->setProperty("wrong", false);
    keys_[i]->style()->polish(keys_[i]);
  }
  if (drafts_.has_card())
    kind_->setCurrentIndex(static_cast<int>(drafts_.card().kind)), stop_->setChecked(drafts_.card().internal_stop);
  undo_->setEnabled(drafts_.can_undo());
  redo_->setEnabled(drafts_.can_redo());
  emit edited();
  cells_->show_card(draft());
  check();
}

void ShelfPage::refuse(QLineEdit& line, const QString& why) {
  line.setModified(true); // what was typed stays, to be put right
  line.setProperty("wrong", true);
  line.style()->polish(&line);
  desk_.tell(why);
}

void ShelfPage::key_edited(int key) {
  if (!drafts_.has_card() || !keys_[static_cast<std::size_t>(key)]->isModified()) return;
  keys_[static_cast<std::size_t>(key)]->setModified(false);
  air::BagCard card = drafts_.card();
  const std::string text = keys_[static_cast<std::size_t>(key)]->text().trimmed().toStdString();
  if (!keys[key].what) {
    if (text.empty() || text.size() > 80)
      return refuse(*keys_[static_cast<std::size_t>(key)], tr("A bag needs a name of 1 to 80 letters."));
    card.name = text;
    return change(std::move(card));
  }
  if (text.empty() && need_not_be_stated(keys[key].what)) {
    card.*keys[key].what = 0;
    return change(std::move(card));
  }
  const auto value = parse_quantity(text, keys[key].kind, desk_.prefs());
  if (!value || (*value < 0 && keys[key].kind != Kind::angle))
    return refuse(*keys_[static_cast<std::size_t>(key)],
                  value ? tr("That is never below 0.") : desk_.words_of(value.error()));
  card.*keys[key].what = *value;
  change(std::move(card));
}

void ShelfPage::check() {
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
  settle_cells(*cells_);
  if (!drafts_.has_card()) return;
  air::BagCard card = drafts_.card();
  card.name += tr(" copy").toStdString();
  drafts_.add(std::move(card));
  show_edits();
  desk_.tell(tr("A copy, not on the shelf yet. Name it and keep it."));
}

bool ShelfPage::keep() {
  settle_cells(*cells_);
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
  show_edits();
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
  std::vector<std::string> names;
  for (const air::BagCard& card : cards)
    names.push_back(card.name);
  auto there = desk_.cards().own(names);
  const auto is_other = [&](std::size_t i) { return there[i] && !(*there[i] == cards[i]); };
  QStringList replaced;
  for (std::size_t i = 0; i < cards.size(); ++i)
    if (is_other(i)) replaced << QString::fromStdString(cards[i].name);
  const auto more = replaced.size() - 12;
  const bool replace = replaced.isEmpty() ||
                       ask(this, tr("Replace cards"),
                           tr("On your shelf already: %1%2. Replace them by those imported? Undo brings each back.")
                               .arg(replaced.mid(0, 12).join(", "), more > 0 ? tr(" and %1 more").arg(more) : ""),
                           tr("Replace them"));
  int left = 0;
  if (!replace)
    for (std::size_t i = cards.size(); i-- > 0;)
      if (is_other(i)) {
        ++left;
        const auto at = static_cast<std::ptrdiff_t>(i);
        cards.erase(cards.begin() + at), there.erase(there.begin() + at);
      }
  int kept = 0;
  const auto files_of_cards = desk_.cards().keep_all(cards);
  for (std::size_t i = 0; i < cards.size(); ++i) {
    if (!files_of_cards[i]) {
      wrong(QString::fromStdString(cards[i].name), desk_.words_of(files_of_cards[i].error()));
      continue;
    }
    ++kept;
    drafts_.open(there[i].value_or(cards[i]));
    drafts_.change(cards[i]);
    drafts_.kept(there[i]);
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
