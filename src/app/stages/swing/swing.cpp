#include "app/stages/swing/swing.h"

#include "app/desk/desk.h"
#include "app/kit/chips.h"
#include "app/kit/field.h"
#include "app/kit/page_stack.h"
#include "app/kit/plain.h"
#include "app/stages/swing/cycle_tape.h"
#include "app/stages/swing/edits.h"
#include "app/stages/swing/end_view.h"
#include "app/stages/swing/motion_sheet.h"
#include "build/names.h"

#include <QCoreApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QTabBar>
#include <QVBoxLayout>

namespace mavrel::app {

using build::at;

namespace {
QString words_of(const char* text) {
  return QCoreApplication::translate("swing", text);
}
} // namespace

SwingStage::SwingStage(Desk& desk, QWidget* parent)
    : StagePage(desk, parent), stack_(new PageStack(this)), page_(new QWidget(this)), tape_(new CycleTape(desk, this)),
      title_(new PlainLabel(page_)), about_(new CutLabel(page_)), sheet_about_(new PlainLabel(page_)),
      more_(new QPushButton(page_)), ends_(new Chips(desk, tr("End"), 80, page_)),
      views_(new Chips(desk, tr("Seen from"), 80, page_)), view_(new EndView(desk, page_)), tabs_(new QTabBar(page_)),
      panels_(new PageStack(page_)), sheet_(new MotionSheet(desk, page_)), beside_(new QWidget(page_)) {
  const int u = desk_.look().unit();
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->addWidget(stack_);
  stack_->addWidget(page_);
  stack_->addWidget(tape_);
  for (QLabel* label : {about_, sheet_about_})
    label->setProperty("quiet", true);
  auto* layout = new QVBoxLayout(page_);
  layout->setContentsMargins(2 * u, u, 0, u);
  layout->setSpacing(u / 2);
  auto* head = new QHBoxLayout;
  head->setSpacing(u);
  head->setContentsMargins(0, 0, u, 0);
  head->addWidget(ends_);
  head->addWidget(title_);
  head->addWidget(about_, 1);
  layout->addLayout(head);

  auto* upper = new QHBoxLayout;
  upper->setSpacing(u);
  upper->setContentsMargins(0, 0, u, 0);
  auto* drawing = new QVBoxLayout;
  drawing->setSpacing(u / 2);
  auto* seen = new QHBoxLayout;
  seen->addWidget(views_);
  seen->addStretch(1);
  drawing->addLayout(seen);
  drawing->addWidget(view_, 1);
  upper->addLayout(drawing, 5);
  auto* sheets = new QVBoxLayout;
  sheets->setSpacing(u / 2);
  tabs_->setObjectName("swing_tabs");
  tabs_->setAccessibleName(tr("Sheets of this end"));
  tabs_->setExpanding(false);
  sheets->addWidget(tabs_);
  sheets->addWidget(panels_, 1);
  upper->addLayout(sheets, 6);
  layout->addLayout(upper, 11);
  for (const PanelEntry& entry : panel_entries()) {
    tabs_->addTab(words_of(entry.tab));
    panels_->addWidget(new QWidget(panels_)); // until somebody asks
    made_.push_back(nullptr);
  }

  auto* told = new QHBoxLayout;
  told->setContentsMargins(0, 0, u, 0);
  told->addWidget(sheet_about_, 1);
  more_->setToolTip(tr("The other tracks over height (Ctrl+M)"));
  connect(more_, &QPushButton::clicked, this, [this] {
    sheet_->turn_page();
    refresh();
  });
  told->addWidget(more_);
  layout->addLayout(told);
  auto* foot = new QHBoxLayout;
  foot->setSpacing(0);
  foot->addWidget(sheet_, 1);
  foot->addWidget(beside_);
  layout->addLayout(foot, 10);

  connect(ends_, &Chips::chosen, this, [this](int i) { desk_.set_end(static_cast<End>(i)); });
  connect(views_, &Chips::chosen, this, &SwingStage::look_from);
  connect(tabs_, &QTabBar::currentChanged, this, [this](int i) {
    panel(static_cast<std::size_t>(i));
    panels_->setCurrentIndex(i);
  });
  connect(view_, &EndView::chose, this, [this](const QString& joint) {
    for (SwingPanel* made : made_)
      if (made) made->hold_joint(joint);
  });
  connect(sheet_, &HeightPlot::band_moved, this, &StagePage::band_moved);
  connect(sheet_, &HeightPlot::band_moved, this, &SwingStage::refresh); // how many tracks fit
  connect(tape_->sheet(), &HeightPlot::band_moved, this, &StagePage::band_moved);
  connect(tape_, &CycleTape::left, this, &SwingStage::leave_tape);
  panel(0);
  panels_->setCurrentIndex(0);
  look_from(0);
}

SwingPanel* SwingStage::panel(std::size_t index) {
  SwingPanel*& made = made_[index];
  if (made) return made;
  made = panel_entries()[index].make(desk_, panels_);
  QWidget* stood = panels_->widget(static_cast<int>(index));
  panels_->insertWidget(static_cast<int>(index), made);
  panels_->removeWidget(stood);
  delete stood;
  connect(made, &SwingPanel::held_joint, view_, &EndView::choose);
  connect(made, &SwingPanel::wants_tape, this, &SwingStage::begin_tape);
  return made;
}

void SwingStage::look_from(int from) {
  view_->look_from(static_cast<EndView::From>(from));
  views_->show_choices({tr("Front"), tr("Side"), tr("Above")}, from);
}

void SwingStage::fill() {
  const Look& look = desk_.look();
  const End end = desk_.end();
  ends_->show_choices({tr("Front"), tr("Rear")}, static_cast<int>(at(end)));
  views_->show_choices({tr("Front"), tr("Side"), tr("Above")}, static_cast<int>(view_->from()));
  title_->setFont(look.font(TextSize::large, true));
  title_->setText(end == End::front ? tr("Front swing") : tr("Rear swing"));
  for (QLabel* label : {about_, sheet_about_})
    label->setFont(look.font(TextSize::small));
  tabs_->setFont(look.font(TextSize::normal));
  const auto& e = desk_.assessment().end(end);
  QString about = tr(build::name_of(desk_.build().end(end).layout));
  if (e.motion_ratio) about += tr(", motion ratio %1 as it stands").arg(desk_.shown(*e.motion_ratio, Kind::plain, 3));
  about_->setText(about);
  sheet_about_->setText(sheet_->summary());
  const auto [page, pages] = sheet_->page();
  more_->setVisible(pages > 1);
  more_->setText(tr("More tracks, %1 of %2").arg(page + 1).arg(pages));
}

void SwingStage::reserve_right(int px) {
  beside_->setFixedWidth(px);
  tape_->reserve_right(px);
}

std::optional<std::pair<int, int>> SwingStage::band() const {
  const MotionSheet* sheet = takes_arrows() && stack_->currentWidget() == tape_ ? tape_->sheet() : sheet_;
  const auto [top, bottom] = sheet->band();
  const int y = sheet->mapTo(this, QPoint(0, 0)).y();
  return std::pair{y + top, y + bottom};
}

bool SwingStage::takes_arrows() const {
  return stack_->currentWidget() == tape_ || (view_->hasFocus() && !view_->chosen().isEmpty());
}

void SwingStage::begin_tape(bool right) {
  emit called();
  stack_->setCurrentWidget(tape_);
  tape_->begin(right);
  emit band_moved();
}

void SwingStage::leave_tape() {
  if (stack_->currentWidget() != tape_) return;
  stack_->setCurrentWidget(page_);
  emit band_moved();
}

void SwingStage::show_panel(const QString& key) {
  emit called();
  leave_tape();
  for (std::size_t i = 0; i < panel_entries().size(); ++i)
    if (key == panel_entries()[i].key) tabs_->setCurrentIndex(static_cast<int>(i));
}

std::vector<Command> SwingStage::commands() {
  std::vector<Command> out;
  for (const PanelEntry& entry : panel_entries())
    out.push_back({Command::Menu::view, words_of(entry.name), {}, [this, key = entry.key] { show_panel(key); }});
  out.push_back({Command::Menu::view, tr("Swing: more tracks"), QKeySequence("Ctrl+M"), [this] {
                   emit called();
                   sheet_->turn_page();
                   refresh();
                 }});
  out.push_back({Command::Menu::view, tr("Jack it through"), QKeySequence("Ctrl+J"), [this] { begin_tape(); }});
  return out;
}

std::vector<Findable> SwingStage::findables() {
  std::vector<Findable> out;
  for (std::size_t i = 1; i < panel_entries().size(); ++i)
    for (Field* field : panel(i)->findChildren<Field*>())
      out.push_back({field->edit()->accessibleName(), tr("swing"),
                     [this, path = desk_.resolve(field->path())] { emit desk_.went_to("swing", path); }});
  return out;
}

bool SwingStage::owns(const QString& path) const {
  for (const char* part : {".cycle", ".points", ".bar_link", ".hose", ".shaft", ".mounting", ".workshop"})
    if (path.contains(part)) return true;
  return false;
}

bool SwingStage::go_to(const QString& path) {
  leave_tape();
  // The end it is about goes in front.
  for (const End end : build::both_ends)
    if (path.startsWith(QString(build::key_of(end)) + ".") || path.contains(QString(".%1.").arg(build::key_of(end))))
      desk_.set_end(end);
  for (std::size_t i = 0; i < panel_entries().size(); ++i)
    if (panel(i)->go_to(path)) {
      tabs_->setCurrentIndex(static_cast<int>(i));
      panel(i)->go_to(path); // seen now, it can hold the focus
      return true;
    }
  if (path.contains(".points")) {
    show_panel("joints");
    return true;
  }
  return false;
}

QStringList SwingStage::take_files(const QStringList& files) {
  QStringList taken;
  for (const QString& file : files) {
    if (!file.endsWith(".csv", Qt::CaseInsensitive)) continue;
    const MotionFile kind = kind_of_motion_file(file);
    // Bag cards go to the shelf; what nobody can read is told where it was dropped.
    if (kind == MotionFile::card || (kind == MotionFile::other && !isVisible())) continue;
    emit called();
    read_motion_file(desk_, desk_.end(), file);
    taken << file;
  }
  return taken;
}

} // namespace mavrel::app
