#include "app/stages/clearance/near_page.h"

#include "app/desk/desk.h"
#include "app/kit/chips.h"
#include "app/stages/clearance/gap_sheet.h"
#include "app/stages/clearance/obstacles_panel.h"
#include "app/stages/clearance/rooms_panel.h"
#include "app/stages/clearance/section_view.h"
#include "app/stages/clearance/wheel_panel.h"

#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QStackedWidget>
#include <QTabBar>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

namespace {
constexpr int notches = 20; // of the steering slider, either way
} // namespace

NearPage::NearPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), views_(new Chips(desk, tr("Seen from"), 80, this)),
      wheel_(new QSlider(Qt::Horizontal, this)), wheel_about_(new QLabel(this)), sheet_about_(new QLabel(this)),
      view_(new SectionView(desk, steer_, this)), tabs_(new QTabBar(this)), panels_(new QStackedWidget(this)),
      obstacles_(new ObstaclesPanel(desk, steer_, this)), more_(new QPushButton(this)), worst_(new QPushButton(this)),
      sheet_(new GapSheet(desk, steer_, this)), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  for (QLabel* label : {wheel_about_, sheet_about_})
    label->setProperty("quiet", true);
  auto* upper = new QHBoxLayout;
  upper->setSpacing(u);
  upper->setContentsMargins(0, 0, u, 0);
  auto* drawing = new QVBoxLayout;
  drawing->setSpacing(u / 2);
  auto* seen = new QHBoxLayout;
  seen->setSpacing(u);
  seen->addWidget(views_);
  wheel_->setObjectName("steer");
  wheel_->setAccessibleName(tr("Steering"));
  wheel_->setRange(-notches, notches);
  wheel_->setPageStep(5);
  wheel_->setInvertedAppearance(true); // left lock at the left
  wheel_->setMaximumWidth(desk_.look().px(120));
  seen->addWidget(wheel_);
  seen->addWidget(wheel_about_, 1);
  drawing->addLayout(seen);
  drawing->addWidget(view_, 1);
  upper->addLayout(drawing, 5);
  auto* sheets = new QVBoxLayout;
  sheets->setSpacing(u / 2);
  tabs_->setObjectName("near_tabs");
  tabs_->setAccessibleName(tr("Sheets of this end"));
  tabs_->setExpanding(false);
  all_ = {obstacles_, new WheelPanel(desk, this), new RoomsPanel(desk, this)};
  for (const QString& name : {tr("Obstacles"), tr("Tyre and wheel"), tr("Room wanted")})
    tabs_->addTab(name);
  for (EndPanel* panel : all_)
    panels_->addWidget(panel);
  sheets->addWidget(tabs_);
  sheets->addWidget(panels_, 1);
  upper->addLayout(sheets, 6);
  layout->addLayout(upper, 11);
  auto* told = new QHBoxLayout;
  told->setContentsMargins(0, 0, u, 0);
  told->setSpacing(u);
  told->addWidget(sheet_about_, 1);
  worst_->setText(tr("Go to the worst"));
  worst_->setObjectName("go_to_worst");
  worst_->setToolTip(tr("Pose and steer where least is to spare"));
  connect(worst_, &QPushButton::clicked, sheet_, &GapSheet::go_to_worst);
  told->addWidget(worst_);
  more_->setToolTip(tr("The other gaps over height"));
  connect(more_, &QPushButton::clicked, this, &NearPage::turn_page);
  told->addWidget(more_);
  layout->addLayout(told);
  auto* foot = new QHBoxLayout;
  foot->setSpacing(0);
  foot->addWidget(sheet_, 1);
  foot->addWidget(beside_);
  layout->addLayout(foot, 10);

  connect(views_, &Chips::chosen, this, &NearPage::look_from);
  connect(tabs_, &QTabBar::currentChanged, panels_, &QStackedWidget::setCurrentIndex);
  connect(view_, &SectionView::chose, obstacles_, &ObstaclesPanel::hold);
  connect(obstacles_, &ObstaclesPanel::chose, view_, &SectionView::choose);
  connect(wheel_, &QSlider::valueChanged, this, [this](int notch) {
    const auto& space = desk_.answered(desk_.end()).given().clearance->space;
    if (space) steer_.set(space->lock() * notch / notches);
  });
  connect(sheet_, &HeightPlot::band_moved, this, &NearPage::band_moved);
  connect(sheet_, &HeightPlot::band_moved, this, &NearPage::refresh);
  connect(sheet_, &GapSheet::worked_out, this, &NearPage::refresh);
  connect(&steer_, &Steer::turned, this, &NearPage::refresh);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &NearPage::refresh);
  connect(&desk_, &Desk::looked_at, this, [this] { steer_.set(0); });
  look_from(0);
  refresh();
}

void NearPage::look_from(int from) {
  view_->look_from(static_cast<SectionView::From>(from));
  refresh();
}

void NearPage::refresh() {
  const Look& look = desk_.look();
  views_->show_choices({tr("Section"), tr("Front"), tr("Side"), tr("Above")}, static_cast<int>(view_->from()));
  for (QLabel* label : {wheel_about_, sheet_about_})
    label->setFont(look.font(TextSize::small));
  tabs_->setFont(look.font(TextSize::normal));
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
  worst_->setVisible(sheet_->map().has_value());
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

std::pair<int, int> NearPage::band() const {
  const auto [top, bottom] = sheet_->band();
  const int y = sheet_->mapTo(this, QPoint(0, 0)).y();
  return {y + top, y + bottom};
}

void NearPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
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
