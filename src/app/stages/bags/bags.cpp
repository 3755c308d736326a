#include "app/stages/bags/bags.h"

#include "app/desk/desk.h"
#include "app/kit/chips.h"
#include "app/kit/field.h"
#include "app/kit/page_stack.h"
#include "app/kit/plain.h"
#include "app/stages/bags/bag_table.h"
#include "app/stages/bags/edits.h"
#include "app/stages/bags/search/search_page.h"
#include "app/stages/bags/shelf/shelf_page.h"
#include "build/names.h"

#include <QCoreApplication>
#include <QFile>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QTabBar>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

using build::at;

namespace {
constexpr const char* side_keys[] = {"corner", "search", "shelf"};

/// Takes the place of what stands there for it.
void put_in(QStackedWidget* stack, int index, QWidget* widget) {
  QWidget* stood = stack->widget(index);
  const bool shown = stack->currentIndex() == index;
  stack->insertWidget(index, widget);
  stack->removeWidget(stood);
  delete stood;
  if (shown) stack->setCurrentIndex(index);
}
} // namespace

void BagsStage::add_view(const QuestionEntry& entry) {
  View& view = views_.emplace_back();
  view.entry = &entry;
  views_stack_->addWidget(new QWidget(views_stack_)); // until somebody asks
  tabs_->addTab(QCoreApplication::translate("questions", entry.tab));
}

BagsStage::View& BagsStage::view(std::size_t index) {
  View& view = views_[index];
  if (view.widget) return view;
  static_cast<QuestionView&>(view) = view.entry->make(desk_, views_stack_);
  if (view.plot) connect(view.plot, &HeightPlot::band_moved, this, &StagePage::band_moved);
  put_in(views_stack_, static_cast<int>(index), view.widget);
  for (const QuestionField& field : view.entry->fields)
    view.fields.push_back(fit_field(field));
  return view;
}

BagsStage::View& BagsStage::shown_view() {
  return view(static_cast<std::size_t>(std::max(0, tabs_->currentIndex())));
}

SearchPage* BagsStage::search_page() {
  if (!search_) {
    search_ = new SearchPage(desk_, this);
    put_in(stack_, 1, search_);
    connect(search_, &SearchPage::taken, this, [this] { show_side("corner"); });
  }
  return search_;
}

ShelfPage* BagsStage::shelf_page() {
  if (!shelf_) {
    shelf_ = new ShelfPage(desk_, this);
    put_in(stack_, 2, shelf_);
    connect(shelf_, &ShelfPage::edited, this, &StagePage::undo_changed);
  }
  return shelf_;
}

Field* BagsStage::fit_field(const QuestionField& field) {
  for (const auto& [path, there] : fit_fields_)
    if (path == field.path) return there;
  const auto words = [](const char* text) { return QCoreApplication::translate("questions", text); };
  auto* made = new Field(desk_, QString(field.path).replace("#", "front"), words(field.caption), this);
  if (field.empty) made->set_placeholder(words(field.empty));
  fit_fields_.emplace_back(field.path, made);
  fit_row_->addWidget(made);
  return made;
}

BagsStage::BagsStage(Desk& desk, QWidget* parent)
    : StagePage(desk, parent), title_(new PlainLabel(this)), about_(new CutLabel(this)),
      sheet_title_(new PlainLabel(this)), sheet_about_(new PlainLabel(this)),
      ends_(new Chips(desk, tr("End"), 80, this)), pages_(new Chips(desk, tr("Part of the stage"), 130, this)),
      stack_(new PageStack(this)), table_(new BagTable(desk, this)), tabs_(new QTabBar(this)),
      views_stack_(new PageStack(this)), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  for (QLabel* label : {about_, sheet_about_})
    label->setProperty("quiet", true);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(2 * u, u, 0, u);
  layout->setSpacing(u / 2);
  auto* head = new QHBoxLayout;
  head->setSpacing(u);
  head->addWidget(ends_);
  head->addWidget(title_);
  head->addWidget(about_, 1);
  head->addWidget(pages_);
  head->setContentsMargins(0, 0, u, 0);
  layout->addLayout(head);
  layout->addWidget(stack_, 1);
  corner_ = make_corner();
  stack_->addWidget(corner_);
  stack_->addWidget(new QWidget(stack_)); // the search and the shelf, once they are gone to
  stack_->addWidget(new QWidget(stack_));
  connect(ends_, &Chips::chosen, this, [this](int i) { desk_.set_end(static_cast<End>(i)); });
  connect(pages_, &Chips::chosen, this, [this](int i) { show_side(side_keys[i]); });
  connect(&desk_, &Desk::posed, this, &BagsStage::refresh_summary);
}

QWidget* BagsStage::make_corner() {
  const int u = desk_.look().unit();
  auto* corner = new QWidget(stack_);
  auto* layout = new QVBoxLayout(corner);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  layout->addWidget(table_);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  row->setContentsMargins(0, 0, u, 0);
  row->addWidget(sheet_title_, 1);
  fit_row_ = row;
  layout->addLayout(row);
  tabs_->setObjectName("bag_views");
  tabs_->setAccessibleName(tr("Questions about the bag"));
  tabs_->setExpanding(false);
  for (const QuestionEntry& entry : question_entries())
    add_view(entry);
  layout->addWidget(tabs_);
  sheet_about_->setWordWrap(true);
  sheet_about_->setContentsMargins(0, 0, u, 0);
  sheet_about_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
  auto* foot = new QHBoxLayout;
  foot->setSpacing(0);
  auto* views = new QVBoxLayout;
  views->setSpacing(0);
  views->addWidget(sheet_about_);
  views->addWidget(views_stack_, 1);
  foot->addLayout(views, 1);
  foot->addWidget(beside_);
  layout->addLayout(foot, 1);
  connect(tabs_, &QTabBar::currentChanged, this, [this](int i) {
    view(static_cast<std::size_t>(i)); // made now, if it was never asked
    views_stack_->setCurrentIndex(i);
    refresh();
    emit band_moved();
  });
  return corner;
}

std::vector<Command> BagsStage::commands() {
  std::vector<Command> out;
  int digit = 0;
  for (const QuestionEntry& entry : question_entries())
    out.push_back({Command::Menu::view, QCoreApplication::translate("questions", entry.name),
                   QKeySequence(QString("Alt+%1").arg(++digit)), [this, key = entry.key] { show_view(key); }});
  out.push_back({Command::Menu::view, tr("Find what fits"), QKeySequence("Ctrl+G"), [this] { show_side("search"); }});
  out.push_back({Command::Menu::view, tr("The shelf"), QKeySequence("Ctrl+B"), [this] { show_side("shelf"); }});
  out.push_back(
      {Command::Menu::file, tr("Import bag cards…"), {}, [this] {
         import_cards(QFileDialog::getOpenFileNames(this, tr("Bag cards"), {}, tr("Bag cards (*.csv);;All files (*)")));
       }});
  return out;
}

std::vector<Findable> BagsStage::findables() {
  std::vector<Findable> out;
  for (const auto& bag : desk_.shelf().bags)
    out.push_back({QString::fromStdString(bag.card.name), tr("bag"), [this, name = bag.card.name] {
                     show_side("corner");
                     choose_bag(desk_, desk_.end(), name);
                   }});
  return out;
}

std::optional<OwnUndo> BagsStage::own_undo() {
  if (!shelf_ || !shelf_->isVisible()) return std::nullopt;
  const CardDrafts& drafts = shelf_->drafts();
  return OwnUndo{tr("edit of the card"), drafts.can_undo(), drafts.can_redo(),
                 [this] {
                   // A cell takes what is typed in it as it is left.
                   if (auto* line = qobject_cast<QLineEdit*>(window()->focusWidget())) line->clearFocus();
                   shelf_->undo();
                 },
                 [this] { shelf_->redo(); }};
}

QStringList BagsStage::take_files(const QStringList& files) {
  QStringList cards;
  for (const QString& file : files) {
    if (!file.endsWith(".csv", Qt::CaseInsensitive)) continue;
    // Elsewhere only what says of itself that it is a card; here whatever was dropped is told what it lacks.
    QFile opened(file);
    if (isVisible() || (opened.open(QIODevice::ReadOnly) && opened.peek(32).startsWith("# mavrel bag card")))
      cards << file;
  }
  if (!cards.isEmpty()) import_cards(cards);
  return cards;
}

int BagsStage::import_cards(const QStringList& files) {
  if (files.isEmpty()) return 0;
  show_side("shelf");
  return shelf_page()->import(files);
}

QString BagsStage::unkept() const {
  return shelf_ && shelf_->drafts().any_unkept() ? tr("Bag cards were edited and not kept on your shelf.") : QString();
}

void BagsStage::show_view(const QString& key) {
  show_side("corner");
  for (std::size_t i = 0; i < views_.size(); ++i)
    if (views_[i].entry->key == key) tabs_->setCurrentIndex(static_cast<int>(i));
}

void BagsStage::show_side(const QString& key) {
  emit called();
  for (int i = 0; i < 3; ++i)
    if (key == side_keys[i]) {
      if (i == 1) search_page();
      if (i == 2) shelf_page();
      stack_->setCurrentIndex(i);
    }
  reserve_right(reserved_);
  refresh();
  emit band_moved();
}

void BagsStage::fill() {
  const Look& look = desk_.look();
  const End end = desk_.end();
  const QString key = build::key_of(end);
  const int side = stack_->currentIndex();
  ends_->show_choices({tr("Front"), tr("Rear")}, static_cast<int>(at(end)));
  ends_->setVisible(side == 0);
  pages_->show_choices({tr("On this corner"), tr("Find what fits"), tr("The shelf")}, side);
  title_->setFont(look.font(TextSize::large, true));
  title_->setText(side == 1           ? tr("Find what fits")
                  : side == 2         ? tr("The shelf")
                  : end == End::front ? tr("Front bag")
                                      : tr("Rear bag"));
  for (QLabel* label : {about_, sheet_about_})
    label->setFont(look.font(TextSize::small));
  tabs_->setFont(look.font(TextSize::normal));
  fit_table();
  const auto& a = desk_.assessment();
  const QString load = QString::fromStdString(a.loads[desk_.load_case()].name);
  const auto& l = a.loads[desk_.load_case()].ends[at(end)];
  if (side == 1)
    about_->setText(tr("both ends, every load case"));
  else if (side == 2)
    about_->setText(tr("%1 bags").arg(desk_.shelf().bags.size()));
  else if (table_->model()->rowCount() == 0)
    about_->setText(desk_.shelf().bags.empty() ? tr("the shelf is empty")
                                               : tr("needs height, motion ratio and spring seat from Car in"));
  else
    about_->setText(l ? tr("the shelf on this corner, %1, %2 sprung").arg(load, desk_.shown(l->sprung_mass, Kind::mass))
                      : tr("weights are missing"));
  const auto& bag = desk_.build().variant().fit[at(end)].bag;
  sheet_title_->setFont(look.font(TextSize::large, true));
  sheet_title_->setText(
      bag.empty() ? tr("No bag chosen")
                  : tr("%1, %2, %3").arg(QString::fromStdString(bag), tr(build::name_of(end)).toLower(), load));
  const View& shown = shown_view();
  for (const auto& [path, field] : fit_fields_) {
    field->bind(QString(path).replace("#", key));
    field->setFixedWidth(look.px(112));
    field->setVisible(std::find(shown.fields.begin(), shown.fields.end(), field) != shown.fields.end());
  }
  sheet_about_->setFixedHeight(look.px(30)); // two lines: the plots must not jump as its words change
  refresh_summary();
}

void BagsStage::refresh_summary() {
  if (!isVisible() || stack_->currentIndex() != 0) return;
  const QString text = shown_view().summary();
  sheet_about_->setText(text);
  sheet_about_->setToolTip(text);
}

void BagsStage::reserve_right(int px) {
  reserved_ = px;
  beside_->setFixedWidth(px);
  const int u = desk_.look().unit();
  // The search and the shelf have no height scale of their own: the posts stand beside the whole page.
  layout()->setContentsMargins(2 * u, u, stack_->currentIndex() == 0 ? 0 : px, u);
}

std::optional<std::pair<int, int>> BagsStage::band() const {
  if (stack_->currentIndex() != 0) return std::nullopt;
  // Every view keeps the band of a height plot, so that the posts stay where they are.
  const int top = views_stack_->mapTo(this, QPoint(0, 0)).y(), bottom = top + views_stack_->height();
  return std::pair{top + desk_.look().px(HeightPlot::head_room), bottom - desk_.look().px(HeightPlot::foot_room)};
}

bool BagsStage::reads_across() const {
  const View& shown = views_[static_cast<std::size_t>(std::max(0, tabs_->currentIndex()))];
  return stack_->currentIndex() == 0 && shown.plot;
}

void BagsStage::resizeEvent(QResizeEvent* event) {
  StagePage::resizeEvent(event);
  fit_table();
}

void BagsStage::fit_table() {
  // Whole rows only, about a third of the page.
  const Look& look = desk_.look();
  const int row = look.px(23), rows = std::max(4, (height() * 30 / 100 - look.px(22)) / row);
  table_->setFixedHeight(look.px(22) + rows * row + 2);
}

bool BagsStage::go_to(const QString& path) {
  const auto focus = [&](Field* field) {
    field->edit()->setFocus(Qt::OtherFocusReason);
    return true;
  };
  if (path.endsWith(".bag")) {
    show_side("corner");
    table_->setFocus(Qt::OtherFocusReason);
    return true;
  }
  if (path.endsWith(".sides")) {
    show_view("lean");
    return true;
  }
  for (std::size_t i = 0; i < views_.size(); ++i)
    for (Field* field : view(i).fields)
      if (desk_.resolve(field->path()) == path) {
        show_view(views_[i].entry->key);
        return focus(field);
      }
  for (std::size_t i = 0; i < views_.size(); ++i)
    for (Field* field : views_[i].widget->findChildren<Field*>())
      if (desk_.resolve(field->path()) == path) {
        show_view(views_[i].entry->key);
        return focus(field);
      }
  return false;
}

} // namespace mavrel::app
