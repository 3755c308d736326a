#include "app/stages/swing/sums_panel.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/plain.h"
#include "assess/swing/bench_sums.h"

#include <QGridLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace mavrel::app {

using build::at;

SumsPanel::SumsPanel(Desk& desk, QWidget* parent) : SwingPanel(desk, parent), said_(new PlainLabel(this)) {
  auto* layout = scrolled_page();
  said_->setWordWrap(true);
  said_->setObjectName("bench_sums");
  said_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  layout->addWidget(said_);
  auto* grid = new QGridLayout;
  grid->setSpacing(desk.look().px(4));
  struct Item {
    const char* key;
    QString caption;
  };
  const Item items[] = {{"caster_rad", tr("caster wanted")},
                        {"camber_rad", tr("camber, shims")},
                        {"shims", tr("shims an arm")},
                        {"shim_thickness_m", tr("one shim")},
                        {"pins_m", tr("pins apart")},
                        {"arms_offset_m", tr("arms' offset")},
                        {"wedge_rad", tr("flange turned")},
                        {"bolt_circle_m", tr("bolt circle")},
                        {"left_right_m", tr("diagonal L to R")},
                        {"right_left_m", tr("diagonal R to L")},
                        {"frame_width_m", tr("frame points")},
                        {"axle_width_m", tr("axle ends")},
                        {"rail_gap_m", tr("tube to rail")},
                        {"rail_reserve_m", tr("kept free")},
                        {"link_length_m", tr("link, centres")},
                        {"end_a_m", tr("one end")},
                        {"end_b_m", tr("other end")},
                        {"thread_length_m", tr("thread")},
                        {"thread_diameter_m", tr("its diameter")}};
  int k = 0;
  for (const Item& item : items) {
    Field* made = field(QString("@.%.workshop.") + item.key, item.caption);
    made->set_placeholder(tr("–"));
    grid->addWidget(made, k / 5, k % 5);
    ++k;
  }
  layout->addLayout(grid);
  layout->addStretch(1);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &SumsPanel::refresh);
  refresh();
}

void SumsPanel::refresh() {
  said_->setFont(desk_.look().font(TextSize::small));
  QStringList lines;
  for (const assess::BenchSum& sum :
       assess::bench_sums(desk_.answered(desk_.end()), desk_.build().variant().fit[at(desk_.end())].workshop))
    lines << (sum.wrong ? "△ " : "") + desk_.words_of(sum.said);
  said_->setText(lines.isEmpty()
                     ? tr("Caster, shims, wedges, squareness, links and notches: type what is wanted and what the tape "
                          "says, and the answer stands here.")
                     : lines.join("\n"));
}

} // namespace mavrel::app
