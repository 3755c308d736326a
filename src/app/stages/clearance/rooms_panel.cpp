#include "app/stages/clearance/rooms_panel.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/plain.h"

#include <QGridLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace mavrel::app {

RoomsPanel::RoomsPanel(Desk& desk, QWidget* parent) : EndPanel(desk, parent) {
  auto* layout = scrolled_page();
  const auto words = [&](const QString& text) {
    auto* label = new PlainLabel(text, this);
    label->setProperty("quiet", true);
    label->setWordWrap(true);
    set_small(label, desk_.look());
    layout->addWidget(label);
  };
  const auto group = [&](std::initializer_list<std::pair<const char*, QString>> fields) {
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(desk_.look().unit());
    int i = 0;
    for (const auto& [path, caption] : fields) {
      grid->addWidget(field(path, caption), i / 4, i % 4);
      ++i;
    }
    for (int c = 0; c < 4; ++c)
      grid->setColumnStretch(c, 1);
    layout->addLayout(grid);
  };
  words(tr(
      "Room wanted, of this design: the larger of what moves and what it comes near. An obstacle may want its own."));
  group({{"@.brief.bag_clearance_m", tr("round the bag")},
         {"@.brief.rooms.tyre_m", tr("round the tyre")},
         {"@.brief.rooms.metal_m", tr("metal to metal")},
         {"@.brief.rooms.hose_m", tr("to a hose")},
         {"@.brief.rooms.brake_line_m", tr("to a brake line")},
         {"@.brief.rooms.exhaust_m", tr("to a bare exhaust")},
         {"@.brief.rooms.shielded_exhaust_m", tr("to a shielded one")},
         {"@.brief.rooms.tyre_growth_m", tr("tyre grows by")}});
  words(tr("How thick the parts are that the joints are the middle of."));
  group({{"%.thickness.damper_m", tr("damper across")},
         {"%.thickness.arms_m", tr("arms, links across")},
         {"%.thickness.axle_m", tr("axle tube across")}});
  words(tr("Lamps, plates and the law may not let it be driven as low as it goes: ask the local inspection."));
  group({{"%.legal_height_m", tr("legal least height")}});
  layout->addStretch(1);
}

} // namespace mavrel::app
