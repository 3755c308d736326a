#include "app/stages/clearance/near_page.h"

#include "app/desk/desk.h"
#include "app/kit/chips.h"
#include "app/kit/page_stack.h"
#include "app/stages/clearance/gap_sheet.h"
#include "app/stages/clearance/obstacles_panel.h"
#include "app/stages/clearance/rooms_panel.h"
#include "app/stages/clearance/section_view.h"
#include "app/stages/clearance/wheel_panel.h"

#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QTabBar>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

namespace {
constexpr int notches = 20; // of the steering slider, either way
} // namespace

NearPage::NearPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), views_(new Chips(desk, tr("Seen from"), 80, this)), wheel_(new QSlider(Qt::Horizontal, this)),
      view_(new SectionView(desk, steer_, this)), tabs_(new QTabBar(this)), panels_(new PageStack(this)),
      obstacles_(new ObstaclesPanel(desk, steer_, this)), sheet_(new GapSheet(desk, steer_, this)) {
  const int u = desk_.look().unit();
  set_plot(sheet_);
  auto* upper = row(wide_column(), 11);
  upper->setContentsMargins(0, 0, u, 0);
  auto* drawing = new QVBoxLayout;
  drawing->setSpacing(u / 2);
  auto* seen = row(drawing);
  seen->addWidget(views_);
  wheel_->setObjectName("steer");
  wheel_->setAccessibleName(tr("Steering"));
  wheel_->setRange(-notches, notches);
  wheel_->setPageStep(5);
  wheel_->setInvertedAppearance(true); // left lock at the left
  wheel_->setMaximumWidth(desk_.look().px(120));
  seen->addWidget(wheel_);
  wheel_about_ = quiet();
  wheel_about_->setWordWrap(false);
  seen->addWidget(wheel_about_, 1);
  drawing->addWidget(view_, 1);
  upper->addLayout(drawing, 5);
  auto* sheets = new QVBoxLayout;
  sheets->setSpacing(u / 2);
  tabs_->setObjectName("near_tabs");
  tabs_->setAccessibleName(tr("Sheets of this end"));
  tabs_->setExpanding(false);
  dress(tabs_, TextSize::normal);
  all_ = {obstacles_, new WheelPanel(desk, this), new RoomsPanel(desk, this)};
  for (const QString& name : {tr("Obstacles"), tr("Tyre and wheel"), tr("Room wanted")})
    tabs_->addTab(name);
  for (EndPanel* panel : all_)
    panels_->addWidget(panel);
  sheets->addWidget(tabs_);
  sheets->addWidget(panels_, 1);
  upper->addLayout(sheets, 6);
  auto* told = row(wide_column());
  told->setContentsMargins(0, 0, u, 0);
  sheet_about_ = quiet();
  sheet_about_->setWordWrap(false); // a row that may grow higher takes its room from the band below
  told->addWidget(sheet_about_, 1);
  worst_ = button(told, tr("Go to the worst"), "go_to_worst", [this] { sheet_->go_to_worst(); });
  worst_->setToolTip(tr("Pose and steer where least is to spare"));
  more_ = button(told, {}, "more_gaps", [this] { turn_page(); });
  more_->setToolTip(tr("The other gaps over height"));
  beside_posts(10)->addWidget(sheet_, 1);
  connect(views_, &Chips::chosen, this, &NearPage::look_from);
  connect(tabs_, &QTabBar::currentChanged, panels_, &QStackedWidget::setCurrentIndex);
  connect(view_, &SectionView::chose, obstacles_, &ObstaclesPanel::hold);
  connect(obstacles_, &ObstaclesPanel::chose, view_, &SectionView::choose);
  connect(wheel_, &QSlider::valueChanged, this, [this](int notch) {
    const auto& space = desk_.answered(desk_.end()).given().clearance->space;
    if (space) steer_.set(space->lock() * notch / notches);
  });
  connect(sheet_, &HeightPlot::band_moved, this, &NearPage::refresh);
  connect(sheet_, &GapSheet::worked_out, this, &NearPage::refresh);
  connect(&steer_, &Steer::turned, this, &NearPage::refresh);
  connect(&desk_, &Desk::looked_at, this, [this] { steer_.set(0); });
  look_from(0);
}

void NearPage::look_from(int from) {
  view_->look_from(static_cast<SectionView::From>(from));
  refresh();
}

void NearPage::fill() {
  views_->show_choices({tr("Section"), tr("Front"), tr("Side"), tr("Above")}, static_cast<int>(view_->from()));
  const auto& space = desk_.answered(desk_.end()).given().clearance->space;
  const bool steers = space && space->steers();
  wheel_->setEnabled(steers);
  wheel_->setVisible(steers);
  if (steers) {
    const QSignalBlocker quiet(wheel_);
    wheel_->setValue(static_cast<int>(std::lround(steer_.angle() / space->lock() * notches)));
  }
  wheel_about_->setText(!steers ? QString()
                        : std::abs(steer_.angle()) < 1e-9
                            ? tr("straight")
                            : tr("%1 %2").arg(desk_.shown(std::abs(steer_.angle()), Kind::angle, 0),
                                              steer_.angle() > 0 ? tr("left") : tr("right")));
  sheet_about_->setText(sheet_->summary());
  worst_->setVisible(sheet_->map() != nullptr);
  const auto [page, pages] = sheet_->page();
  more_->setVisible(pages > 1);
  more_->setText(tr("More gaps, %1 of %2").arg(page + 1).arg(pages));
}

void NearPage::turn_page() {
  sheet_->turn_page();
  refresh();
}

void NearPage::steer_by(double share) {
  const auto& space = desk_.answered(desk_.end()).given().clearance->space;
  if (!space || !space->steers()) return;
  const double lock = space->lock();
  steer_.set(std::clamp(steer_.angle() + share * lock, -lock, lock));
}

bool NearPage::takes_arrows() const {
  return (view_->hasFocus() && view_->chosen() && view_->from() != SectionView::From::section) || wheel_->hasFocus();
}

void NearPage::show_panel(int index) {
  tabs_->setCurrentIndex(index);
}

bool NearPage::go_to(const QString& path) {
  for (std::size_t i = 0; i < all_.size(); ++i)
    if (all_[i]->go_to(path)) {
      tabs_->setCurrentIndex(static_cast<int>(i));
      all_[i]->go_to(path); // seen now, it can hold the focus
      return true;
    }
  return false;
}

} // namespace mavrel::app
