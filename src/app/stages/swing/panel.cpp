#include "app/stages/swing/panel.h"

#include "app/stages/swing/cycle_panel.h"
#include "app/stages/swing/joints_panel.h"
#include "app/stages/swing/mounting_panel.h"
#include "app/stages/swing/runs_panel.h"
#include "app/stages/swing/sums_panel.h"

#include <QCoreApplication>

namespace mavrel::app {

namespace {

template <class Panel>
SwingPanel* panel_of(Desk& desk, QWidget* parent) {
  return new Panel(desk, parent);
}

const PanelEntry entries[] = {
    {"cycle", QT_TRANSLATE_NOOP("swing", "Cycle sheet"), QT_TRANSLATE_NOOP("swing", "Swing: cycle sheet"),
     panel_of<CyclePanel>},
    {"joints", QT_TRANSLATE_NOOP("swing", "Joints"), QT_TRANSLATE_NOOP("swing", "Swing: joints"),
     panel_of<JointsPanel>},
    {"mounting", QT_TRANSLATE_NOOP("swing", "Mounting"), QT_TRANSLATE_NOOP("swing", "Swing: mounting of the bag"),
     panel_of<MountingPanel>},
    {"runs", QT_TRANSLATE_NOOP("swing", "Runs out"), QT_TRANSLATE_NOOP("swing", "Swing: what else runs out"),
     panel_of<RunsPanel>},
    {"sums", QT_TRANSLATE_NOOP("swing", "Bench sums"), QT_TRANSLATE_NOOP("swing", "Swing: sums of the bench"),
     panel_of<SumsPanel>},
};

} // namespace

std::span<const PanelEntry> panel_entries() {
  return entries;
}

} // namespace mavrel::app
