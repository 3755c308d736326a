#include "app/stages/swing/edits.h"

#include "assess/end/end_answer.h"
#include "assess/motion/geometry_of.h"
#include "build/cycle_csv.h"
#include "build/end_survey.h"
#include "build/names.h"
#include "build/points_csv.h"
#include "file/csv.h"
#include "file/text_file.h"
#include "report/brackets_csv.h"

#include <QFileInfo>

#include <algorithm>

namespace mavrel::app {

using build::at;

namespace {

constexpr std::size_t file_limit = 256 * 1024; // bytes, far more than a sheet ever has

QString joint_name(const Desk& desk, End end, const QString& joint) {
  const auto known = motion::joint_from(joint.toStdString());
  if (!known) return joint;
  return Desk::tr(motion::name_of(assess::shape_of(desk.build().end(end).layout), *known));
}

bool within(double value, const build::NumberSpec& spec) {
  return value >= spec.least && value <= spec.most;
}

} // namespace

QString cycle_list(End end, bool right) {
  return QString("%1.%2").arg(build::key_of(end), right ? "cycle_right" : "cycle");
}
const List<build::CycleRow>& cycle_of(const Desk& desk, End end, bool right) {
  const build::EndSurvey& survey = desk.build().end(end);
  return right ? survey.cycle_right : survey.cycle;
}

bool move_joint(Desk& desk, End end, const QString& joint, const motion::Point& to, const QString& gesture) {
  build::Build build = desk.build();
  auto& left = build.end(end).points.own().left;
  for (std::size_t i = 0; i < left.size(); ++i) {
    if (left[i].name != joint.toStdString()) continue;
    if (!within(to.x, build::point_along) || !within(to.y, build::point_across) || !within(to.z, build::point_up)) {
      desk.tell(Desk::tr("%1 can't lie there: it is too far from the axle.").arg(joint_name(desk, end, joint)));
      return false;
    }
    left[i].x = to.x, left[i].y = to.y, left[i].z = to.z;
    desk.edit(Desk::tr("Move %1").arg(joint_name(desk, end, joint)), std::move(build), gesture);
    return true;
  }
  desk.tell(Desk::tr("%1 was not measured: start from usual places first.").arg(joint_name(desk, end, joint)));
  return false;
}

void start_from_usual_joints(Desk& desk, End end) {
  build::Build build = desk.build();
  build::EndSurvey& survey = build.end(end);
  std::optional<double> radius;
  if (const auto& r = desk.assessment().end(end).tyre_radius) radius = *r;
  List<build::HardPoint> left;
  for (build::HardPoint& p : assess::usual_points(survey.layout, survey.track, radius))
    left.push_back(std::move(p));
  survey.points.own().left = std::move(left);
  survey.points.own().right = {};
  desk.edit(Desk::tr("Start from usual joints"), std::move(build));
}

void measure_right_side(Desk& desk, End end, bool by_itself) {
  build::Build build = desk.build();
  build::HardPoints& points = build.end(end).points.own();
  List<build::HardPoint> right;
  if (by_itself)
    for (const build::HardPoint& p : std::as_const(points).left)
      if (!p.name.starts_with("bar_")) { // a lateral bar has no other side
        build::HardPoint q = p;
        q.y = -q.y;
        right.push_back(std::move(q));
      }
  points.right = std::move(right);
  desk.edit(by_itself ? Desk::tr("Measure the right side by itself") : Desk::tr("Right side as the left"),
            std::move(build));
}

namespace {

bool has_column(const std::string& text, std::string_view name) {
  const auto table = read_csv(text);
  return table &&
         std::any_of(table->head.begin(), table->head.end(), [&](const CsvCell& head) { return head.text == name; });
}

} // namespace

MotionFile kind_of_motion_file(const QString& file) {
  const auto text = read_text(file.toStdString(), file_limit);
  if (!text) return MotionFile::other;
  if (text->starts_with("# mavrel bag card")) return MotionFile::card;
  if (has_column(*text, "joint")) return MotionFile::joints;
  return has_column(*text, "height_mm") || has_column(*text, "height_in") ? MotionFile::cycle : MotionFile::other;
}

bool read_motion_file(Desk& desk, End end, const QString& file, bool right) {
  const QString shown = QFileInfo(file).fileName();
  const auto text = read_text(file.toStdString(), file_limit);
  if (!text) {
    desk.tell(desk.words_of(text.error()));
    return false;
  }
  build::Build build = desk.build();
  build::EndSurvey& survey = build.end(end);
  if (has_column(*text, "joint")) {
    auto points = build::read_points_csv(*text);
    if (!points) {
      desk.tell(Desk::tr("%1: %2").arg(shown, desk.words_of(points.error())));
      return false;
    }
    const auto list_of_points = [](std::vector<build::HardPoint>& from) {
      List<build::HardPoint> out;
      for (build::HardPoint& p : from)
        out.push_back(std::move(p));
      return out;
    };
    survey.points.own().left = list_of_points(points->left);
    survey.points.own().right = list_of_points(points->right);
    desk.edit(Desk::tr("Read joints from %1").arg(shown), std::move(build));
    return true;
  }
  auto rows = build::read_cycle_csv(*text);
  if (!rows) {
    desk.tell(Desk::tr("%1: %2").arg(shown, desk.words_of(rows.error())));
    return false;
  }
  List<build::CycleRow> cycle;
  for (auto& row : *rows)
    cycle.push_back(std::move(row));
  (right ? survey.cycle_right : survey.cycle) = std::move(cycle);
  desk.edit(Desk::tr("Read cycle sheet from %1").arg(shown), std::move(build));
  return true;
}

namespace {

bool write_sheet(Desk& desk, const QString& file, const std::string& text) {
  const std::filesystem::path path = file.toStdString();
  if (desk.refuses_to_write(path)) return false;
  const auto written = write_atomically(path, text);
  if (!written) {
    desk.tell(desk.words_of(written.error()));
    return false;
  }
  desk.tell(Desk::tr("Written to %1.").arg(QFileInfo(file).fileName()));
  return true;
}

} // namespace

bool write_joints(Desk& desk, End end, const QString& file) {
  return write_sheet(desk, file, build::points_csv(*desk.build().end(end).points));
}

bool write_brackets(Desk& desk, const QString& file) {
  return write_sheet(desk, file, report::brackets_csv(desk.build(), desk.assessment()));
}

bool write_cycle(Desk& desk, End end, const QString& file, bool right) {
  return write_sheet(desk, file, build::cycle_csv(cycle_of(desk, end, right)));
}

std::optional<std::size_t> add_cycle_row(Desk& desk, End end, double height, bool right) {
  build::CycleRow row;
  row.height = height;
  if (!desk.add_entry(Desk::tr("Add a cycle reading"), cycle_list(end, right), row)) return std::nullopt;
  return cycle_of(desk, end, right).size() - 1;
}

void remove_cycle_row(Desk& desk, End end, std::size_t row, bool right) {
  desk.remove_entry(Desk::tr("Drop a cycle reading"), QString("%1.%2").arg(cycle_list(end, right)).arg(row));
}

} // namespace mavrel::app
