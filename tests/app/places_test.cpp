// Every field of the document has a place on screen, or stands on a short list with the reason why not.
#include "app/every_page.h"
#include "app/kit/choice_box.h"
#include "app/kit/path_table.h"
#include "build/build.h"
#include "build/table.h"

#include <QTableWidget>

namespace mavrel::app {
namespace {

struct Placeless {
  const char* begins; // the path, list places left out: `care.log`
  const char* why;
};
constexpr Placeless placeless[] = {
    {"active_variant", "chosen in the strip"},
    {"care.intervals.task", "what its row is of"},
    {"care.lessons.day", "the day it was written down"},
    {"care.log", "an entry is written in the form over the log, and struck out, never changed"},
    {"drive.events.altitude_m", "of an event that changes the height above the sea"},
    {"faults.findings", "entered and struck out on Find"},
    {"faults.nothing_else", "ticked on Find"},
    {"front.cycle.gaps.name", "the head of its column"},
    {"rear.cycle.gaps.name", "the head of its column"},
    {"front.obstacles.radius_m", "of shapes that the demo cars have not at that end"},
    {"rear.obstacles.radius_m", "of shapes that the demo cars have not at that end"},
    {"front.obstacles.to_x_m", "of shapes that the demo cars have not at that end"},
    {"front.obstacles.to_y_m", "of shapes that the demo cars have not at that end"},
    {"front.obstacles.to_z_m", "of shapes that the demo cars have not at that end"},
    {"rear.obstacles.to_x_m", "of shapes that the demo cars have not at that end"},
    {"rear.obstacles.to_y_m", "of shapes that the demo cars have not at that end"},
    {"rear.obstacles.to_z_m", "of shapes that the demo cars have not at that end"},
    {"front.points.left.name", "what its row is of"},
    {"rear.points.left.name", "what its row is of"},
    {"job.put_off", "put off in the line that says what is next, taken up in the Edit menu"},
    {"origin", "told on Use, where its figures are confirmed"},
    {"variants.air.battery_at.held", "a battery is held as its car's maker did"},
    {"variants.air.battery_at.lies", "a battery lies as its car's maker put it"},
    {"variants.air.battery_at.room", "cables are counted from where it is alone"},
    {"variants.air.battery_at.z_m", "cables are counted along and across the car"},
    {"variants.air.learned_flow_fl", "taken over on Learn"},
    {"variants.air.learned_flow_fr", "taken over on Learn"},
    {"variants.air.learned_flow_rl", "taken over on Learn"},
    {"variants.air.learned_flow_rr", "taken over on Learn"},
    {"variants.fit_up.checks", "measured and signed on Checks and Prove, by the kind of each figure"},
    {"variants.fit_up.jobs.id", "what the job is"},
    {"variants.fit_up.jobs.name", "of a job of the shop's own"},
    {"variants.fit_up.jobs.state", "begun, done and skipped by its buttons"},
    {"variants.fit_up.jobs.taken_by", "asked when it is begun"},
    {"variants.fit_up.jobs.taken_why", "asked when it is begun"},
    {"variants.fit_up.order", "taken on Schools"},
    {"variants.fit_up.parts.part", "what its row is of"},
    {"variants.fit_up.routes.line", "what the route is of"},
    {"variants.fit_up.routes.points.kind", "chosen beside its points"},
    {"variants.front.bag", "chosen in the table of bags"},
    {"variants.rear.bag", "chosen in the table of bags"},
    {"variants.front.learned_area", "taken over on Learn"},
    {"variants.front.learned_friction_n", "taken over on Learn"},
    {"variants.front.learned_ratio", "taken over on Learn"},
    {"variants.rear.learned_area", "taken over on Learn"},
    {"variants.rear.learned_friction_n", "taken over on Learn"},
    {"variants.rear.learned_ratio", "taken over on Learn"},
    {"variants.leveling.set_ups.fitted", "the car gets one of them by its button"},
    {"variants.name", "asked by “Name this variant”"},
    {"variants.proving.series", "readings over time, entered on Prove"},
};

/// Paths of all fields there are in a build, set or not, of the first entry of each list alone.
void walk(const build::Table& table, const void* in, const std::string& at, std::set<std::string>& out) {
  for (const build::Field& field : table.fields) {
    const std::string path = at.empty() ? field.key : at + "." + field.key;
    if (field.type == build::FieldType::object)
      walk(field.of(), field.opened(field.at(in)), path, out);
    else if (field.type == build::FieldType::list && field.size(in) > 0)
      walk(field.list->of(), field.entry(in, 0), path + ".0", out);
    else if (field.type != build::FieldType::list && field.type != build::FieldType::extra)
      out.insert(path);
  }
}
std::string without_places(const std::string& path) {
  std::string out;
  std::stringstream steps(path);
  for (std::string step; std::getline(steps, step, '.');)
    if (step.find_first_not_of("0123456789") != std::string::npos) out += (out.empty() ? "" : ".") + step;
  return out;
}

/// Editors that say which field they are of.
std::set<std::string> edited_on(const Desk& desk, const QWidget* page) {
  std::set<std::string> out;
  const auto add = [&](const QString& path) {
    if (!path.isEmpty()) out.insert(without_places(desk.resolve(path).toStdString()));
  };
  for (const QWidget* one : page->findChildren<QWidget*>()) {
    if (!one->isVisible()) continue;
    if (const auto* field = qobject_cast<const Field*>(one)) add(field->path());
    if (const auto* box = qobject_cast<const ChoiceBox*>(one)) add(box->path());
    if (const auto* table = qobject_cast<const PathTable*>(one))
      for (const QString& path : table->paths())
        add(path);
    add(one->property("path").toString());
    add(one->property("path_too").toString());
  }
  return out;
}

class PlacesTest : public WindowTest {};

TEST_F(PlacesTest, EveryFieldOfTheDocumentHasAPlaceOrAReasonWhyNot) {
  std::set<std::string> all, there;
  for (const char* car : {"sorrel-wayfare.mavrel", "hollin-tarnway.mavrel", "shop/w-14.mavrel", "shop/t-03.mavrel"}) {
    const auto file = folder_ / std::filesystem::path(car).filename();
    std::filesystem::copy_file(std::filesystem::path(MAVREL_DEMO) / car, file,
                               std::filesystem::copy_options::overwrite_existing);
    ASSERT_TRUE(window_->open_file(QString::fromStdString(file.string())));
    settle_events();
    std::set<std::string> paths;
    walk(build::table_of<build::Build>(), &build(), "", paths);
    for (const std::string& path : paths)
      all.insert(without_places(path));
    for (const End end : build::both_ends)
      on_every_page(*window_, [&](const QString&) {
        desk().set_end(end);
        settle_events();
        there.merge(edited_on(desk(), window_.get()));
        // Where parts lie is entered for the one that is held.
        if (auto* list = window_->findChild<QTableWidget*>("places"); list && list->isVisible())
          for (int r = 0; r < list->rowCount(); ++r) {
            list->setCurrentCell(r, 0);
            settle_events();
            there.merge(edited_on(desk(), window_.get()));
          }
      });
  }
  EXPECT_GT(all.size(), 250U);
  for (const std::string& kind : all) {
    const auto* reason = std::find_if(std::begin(placeless), std::end(placeless), [&](const Placeless& p) {
      return kind == p.begins || kind.starts_with(std::string(p.begins) + ".");
    });
    const bool excused = reason != std::end(placeless);
    EXPECT_TRUE(there.contains(kind) || excused) << kind << " has no place on screen";
    EXPECT_FALSE(there.contains(kind) && excused && kind == reason->begins) << kind << " has one: no reason is needed";
  }
}

} // namespace
} // namespace mavrel::app
