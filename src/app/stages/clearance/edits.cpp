#include "app/stages/clearance/edits.h"

#include "app/desk/edits.h"
#include "assess/end/end_answer.h"
#include "build/names.h"
#include "build/profile_csv.h"
#include "file/text_file.h"

#include <QCoreApplication>
#include <QFileInfo>

namespace mavrel::app {

using build::at;

namespace {
QString tr(const char* text) {
  return QCoreApplication::translate("clearance", text);
}
QString list_of(End end) {
  return QString("%1.obstacles").arg(build::key_of(end));
}
} // namespace

std::optional<std::size_t> add_obstacle(Desk& desk, End end, build::ObstacleShape shape) {
  const build::EndSurvey& survey = desk.build().end(end);
  build::Obstacle o;
  o.shape = shape;
  const auto count = survey.obstacles.size();
  o.name = tr("obstacle %1").arg(count + 1).toStdString();
  // Beside the wheel, clear of it, where it is seen and can be dragged.
  const double hub = survey.track ? *survey.track / 2 : 0.75;
  const double radius = desk.assessment().end(end).tyre_radius.value_or(0.32);
  o.x = 0, o.y = hub - 0.30, o.z = radius + 0.10;
  o.to_x = 0, o.to_y = o.y + 0.10, o.to_z = o.z;
  if (shape == build::ObstacleShape::rod || shape == build::ObstacleShape::edge) o.to_x = 0.15, o.to_y = o.y;
  if (shape == build::ObstacleShape::gap) o.gap = 0.020;
  // Once a design stands there, what is entered comes with it rather than with the car.
  const build::EndFit& fit = desk.build().variant().fit[at(end)];
  if (!fit.bag.empty() || !fit.wheel.empty()) o.on_car = build::OnCar::since;
  if (!desk.add_entry(tr("Add an obstacle"), list_of(end), o)) return std::nullopt;
  return count;
}

void remove_obstacle(Desk& desk, End end, std::size_t obstacle) {
  desk.remove_entry(tr("Remove an obstacle"), QString("%1.%2").arg(list_of(end)).arg(obstacle));
}

void move_obstacle(Desk& desk, End end, std::size_t obstacle, const space::Point& to, const QString& gesture) {
  build::Build build = desk.build();
  auto& list = build.end(end).obstacles;
  if (obstacle >= list.size()) return;
  build::Obstacle& o = list[obstacle];
  const auto within = [](double v, double least, double most) { return std::min(std::max(v, least), most); };
  const double x = within(to.x, -2.4, 2.4), y = within(to.y, -1.4, 1.4), z = within(to.z, -0.2, 1.7);
  o.to_x = within(o.to_x + x - o.x, -2.5, 2.5);
  o.to_y = within(o.to_y + y - o.y, -1.5, 1.5);
  o.to_z = within(o.to_z + z - o.z, -0.3, 1.8);
  o.x = x, o.y = y, o.z = z;
  desk.edit(tr("Move an obstacle"), std::move(build), gesture);
}

void try_wheel(Desk& desk, End end, const QString& code) {
  build::Variant copy = desk.build().variant();
  build::EndFit& fit = copy.fit[at(end)];
  fit.wheel = code.toStdString() == desk.build().end(end).wheel ? std::string() : code.toStdString();
  fit.tyre_width.reset();
  copy.name = QString("%1, %2").arg(free_letter(desk), code.section(' ', 1)).left(40).toStdString();
  take_variant(desk, std::move(copy));
}

void add_ground(Desk& desk, build::Ground ground) {
  desk.add_entry(tr("Add something on the ground"), desk.resolve("@.brief.grounds"), std::move(ground));
}

std::optional<QString> read_ground(Desk& desk, const QString& file) {
  const QString name = QFileInfo(file).fileName();
  const auto text = read_text(file.toStdString(), 1024 * 1024);
  if (!text) return desk.words_of(text.error());
  auto points = build::read_profile_csv(*text);
  if (!points) return QString("%1: %2").arg(name, desk.words_of(points.error()));
  build::Ground ground;
  ground.name = QFileInfo(file).completeBaseName().left(40).toStdString();
  ground.points = std::move(*points);
  add_ground(desk, std::move(ground));
  return std::nullopt;
}

void tick_check(Desk& desk, End end, const QString& what, const QString& digest, double figure) {
  build::Build build = desk.build();
  auto& checks = build.variant().fit[at(end)].checks;
  const auto same = [&](const build::Check& c) { return c.what == what.toStdString(); };
  const auto found = std::find_if(checks.begin(), checks.end(), same);
  const bool fresh = found != checks.end() && found->digest == digest.toStdString();
  std::erase_if(checks, same);
  if (!fresh) checks.push_back({what.toStdString(), digest.toStdString(), figure, {}});
  desk.edit(fresh ? tr("Take a tick away") : tr("Tick a clearance"), std::move(build));
}

} // namespace mavrel::app
