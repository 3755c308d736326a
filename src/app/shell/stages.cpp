#include "app/shell/stages.h"

#include "app/stages/air/air.h"
#include "app/stages/bags/bags.h"
#include "app/stages/book/book_page.h"
#include "app/stages/car_in/car_in.h"
#include "app/stages/care/care.h"
#include "app/stages/clearance/clearance.h"
#include "app/stages/compare/compare_page.h"
#include "app/stages/doubt/doubt_page.h"
#include "app/stages/faults/faults.h"
#include "app/stages/fit_up/fit_up.h"
#include "app/stages/leveling/leveling.h"
#include "app/stages/proving/proving.h"
#include "app/stages/swing/swing.h"

#include <QCoreApplication>

namespace mavrel::app {

namespace {

template <class Page>
StagePage* page_of(Desk& desk, QWidget* parent) {
  return new Page(desk, parent);
}
QString always_open(const Desk&) {
  return {};
}
QString closed_alone(const Desk& desk) {
  if (desk.build().variants.size() > 1) return {};
  return QCoreApplication::translate(
      "stages", "There is one variant. Keep it and go on with a copy (Ctrl+D) to have something to compare.");
}

const StageEntry entries[] = {
    {&assess::stages::car_in, "car_in", QT_TRANSLATE_NOOP("stages", "Car in"), "Ctrl+1", page_of<CarInStage>,
     always_open},
    {&assess::stages::bags, "bags", QT_TRANSLATE_NOOP("stages", "Bags"), "Ctrl+2", page_of<BagsStage>, always_open},
    {&assess::stages::swing, "swing", QT_TRANSLATE_NOOP("stages", "Swing"), "Ctrl+3", page_of<SwingStage>, always_open},
    {&assess::stages::clearance, "clearance", QT_TRANSLATE_NOOP("stages", "Clearance"), "Ctrl+4",
     page_of<ClearanceStage>, always_open},
    {&assess::stages::air, "air", QT_TRANSLATE_NOOP("stages", "Air"), "Ctrl+5", page_of<AirStage>, always_open},
    {&assess::stages::leveling, "leveling", QT_TRANSLATE_NOOP("stages", "Leveling"), "Ctrl+6", page_of<LevelingStage>,
     always_open},
    {&assess::stages::fit_up, "fit_up", QT_TRANSLATE_NOOP("stages", "Fit-up"), "Ctrl+7", page_of<FitUpStage>,
     always_open},
    {&assess::stages::proving, "proving", QT_TRANSLATE_NOOP("stages", "Proving"), "Ctrl+8", page_of<ProvingStage>,
     always_open},
    {&assess::stages::care, "care", QT_TRANSLATE_NOOP("stages", "Care"), "Ctrl+9", page_of<CareStage>, always_open},
    {&assess::stages::faults, "faults", QT_TRANSLATE_NOOP("stages", "Faults"), "Ctrl+Shift+F", page_of<FaultsStage>,
     always_open},
    {nullptr, "compare", QT_TRANSLATE_NOOP("stages", "Compare"), "Ctrl+0", page_of<ComparePage>, closed_alone},
    {nullptr, "doubt", QT_TRANSLATE_NOOP("stages", "How sure"), "Ctrl+Shift+H", page_of<DoubtPage>, always_open},
    {nullptr, "book", QT_TRANSLATE_NOOP("stages", "Book"), "Ctrl+Shift+B", page_of<BookPage>, always_open},
};

} // namespace

std::span<const StageEntry> stage_entries() {
  return entries;
}

} // namespace mavrel::app
