#include "app/stages/swing/runs_panel.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/plain.h"
#include "assess/end/end_answer.h"
#include "assess/end/limits.h"
#include "assess/motion/travel_ends.h"
#include "build/names.h"

#include <QGridLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

RunsPanel::RunsPanel(Desk& desk, QWidget* parent)
    : SwingPanel(desk, parent), said_(new PlainLabel(this)), shaft_(new PlainLabel(this)) {
  auto* page = scrolled_page();
  auto* grid = new QGridLayout;
  page->addLayout(grid);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setSpacing(desk_.look().px(4));
  int row = 0;
  const auto heading = [&](QLabel* label) {
    set_small(label, desk_.look());
    grid->addWidget(label, row++, 0, 1, 5);
  };
  const auto put = [&](std::initializer_list<std::pair<const char*, QString>> items) {
    int column = 0;
    for (const auto& [key, caption] : items)
      grid->addWidget(field(QString("%.") + key, caption), row, column++);
    ++row;
  };
  heading(new PlainLabel(tr("Bar link"), this));
  put({{"bar_link.arm_m", tr("bar's arm")},
       {"bar_link.arm_angle_rad", tr("arm's angle")},
       {"bar_link.length_m", tr("link")},
       {"bar_link.pickup_ratio", tr("ratio")},
       {"bar_link.turn_allowed_rad", tr("bears ±")}});
  heading(new PlainLabel(tr("Brake hose"), this));
  put({{"hose.length_m", tr("free length")},
       {"hose.across_m", tr("ends apart, level")},
       {"hose.down_m", tr("wheel end below")},
       {"hose.lock_adds_m", tr("more at full lock")}});
  heading(shaft_);
  put({{"shaft.across_m", tr("joints apart, level")},
       {"shaft.down_m", tr("outer one below")},
       {"shaft.turn_allowed_rad", tr("bears")},
       {"shaft.plunge_in_m", tr("plunge in")},
       {"shaft.plunge_out_m", tr("plunge out")}});
  put({{"shaft.flange_angle_rad", tr("pinion, nose up")}, {"shaft.inner_angle_rad", tr("gearbox, nose up")}});
  said_->setWordWrap(true);
  said_->setObjectName("runs_out");
  grid->addWidget(said_, row, 0, 1, 5, Qt::AlignTop);
  grid->setRowStretch(row, 1);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &RunsPanel::refresh);
  refresh();
}

void RunsPanel::refresh() {
  const auto& answered = desk_.answered(desk_.end());
  const auto& survey = answered.given().survey().given().survey;
  shaft_->setText(assess::is_solid_axle(survey.layout) ? tr("Propeller shaft") : tr("Drive shaft"));
  said_->setFont(desk_.look().font(TextSize::small));
  QStringList lines;
  auto runs = answered->fitted.model.travel_ends;
  std::sort(runs.begin(), runs.end(), [](const auto& a, const auto& b) { return a.height < b.height; });
  for (const assess::TravelEnd& r : runs) {
    QString line = tr("%1 %2: %3")
                       .arg(r.below ? tr("below") : tr("above"), desk_.shown(r.height, Kind::length),
                            tr(assess::limit_of(r.what).name));
    if (r.part) line += QString(", %1").arg(tr(r.part));
    if (r.gain) line += tr("; a millimetre more there buys %1 mm of height").arg(*r.gain, 0, 'f', 2);
    lines << line;
  }
  const auto& road = answered->fitted.road;
  if (road && answered.given().survey()->height)
    if (const auto square = assess::centred_link(survey.bar_link, *road - answered.given().motion()->surveyed_height))
      lines << tr("A bar link of %1 stands square at road height.").arg(desk_.shown(*square, Kind::length));
  said_->setText(lines.isEmpty() ? tr("Nothing of it was measured. Each is a limit in the windows once it is.")
                                 : lines.join("\n"));
}

} // namespace mavrel::app
