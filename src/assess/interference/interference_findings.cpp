#include "assess/interference/interference_findings.h"

#include "assess/end/misfit.h"
#include "assess/interference/near_at.h"
#include "build/names.h"
#include "motion/wheel.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::key_of;
using build::name_of;

namespace {

constexpr FindingRow rows[] = {
    {"too_near_at_preset", &stages::clearance},    {"touches_as_measured", &stages::clearance},
    {"obstacle_without_size", &stages::clearance}, {"place_of_wheel_unknown", &stages::clearance},
    {"taped_far_away", &stages::clearance},        {"design_wheel_unreadable", &stages::clearance},
    {"obstacle_under_floor", &stages::clearance},  {"wheel_larger_than_arch", &stages::clearance},
    {"tyre_to_bag_unknown", &stages::clearance},   {"room_of_bag_unknown", &stages::clearance},
    {"touches_one_wheel_up", &stages::clearance},
};
consteval const FindingRow& row(std::string_view code) {
  return row_in(rows, code);
}

constexpr double far_from_tape = 0.040; // m of height over which a taped gap is a guess

class TouchFindings {
public:
  TouchFindings(const TouchFindingsGiven& given, Findings& out)
      : given_(given), end_given_(given.end.given()), clear_(*end_given_.clearance),
        survey_(end_given_.survey().given().survey), here_(given.end->assessment), end_(given.end->fitted.model.end),
        out_(out) {}

  void find() {
    wheel();
    obstacles();
    presets();
    one_wheel_up();
  }

private:
  [[nodiscard]] std::string obstacle_path(std::size_t i, const char* field) const {
    return fmt::format("{}.obstacles.{}.{}", key_of(end_), i, field);
  }
  [[nodiscard]] std::string fit_path(const char* field) const {
    return fmt::format("variants.{}.{}.{}", given_.variant, key_of(end_), field);
  }
  [[nodiscard]] std::string path_of(const Near& near) const {
    if (near.obstacle != not_listed) return obstacle_path(near.obstacle, "name");
    return fit_path("wheel");
  }
  Finding& add(const FindingRow& what, Severity severity, std::string place, Message title, Message reason,
               Message way_out) {
    return add_finding(out_, what, severity, end_, std::move(place), std::move(title), std::move(reason),
                       std::move(way_out));
  }

  void wheel() {
    const std::string& code = end_given_.fit.wheel;
    if (code.empty() || clear_.wheel) return;
    const auto why = motion::parse_wheel(code);
    if (!why)
      add(row("design_wheel_unreadable"), Severity::caution, fit_path("wheel"),
          {words("{0}: the design's wheel can't be read"), {name_of(end_)}}, why.error(),
          {words("Until it can, no clearance of its tyre is known."), {}});
  }

  void obstacles() {
    bool solid = survey_.arch.lip_outward.has_value();
    for (std::size_t i = 0; i < survey_.obstacles.size(); ++i) {
      const build::Obstacle& o = survey_.obstacles[i];
      if (o.shape == build::ObstacleShape::gap) {
        taped(o, i);
        continue;
      }
      solid = true;
      size(o, i);
    }
    if (solid && !clear_.space && here_.surveyed_height)
      add(row("place_of_wheel_unknown"), Severity::caution, fmt::format("{}.track_m", key_of(end_)),
          {words("{0}: nobody knows where the wheel stands"), {name_of(end_)}},
          {words("Solids have their places from the middle of the car; without track and tyre, or joints, the wheel "
                 "has none."),
           {}},
          {words("Measure the track, and enter the tyre."), {}});
    for (const GapCurve& gap : here_.gaps)
      if (gap.as_surveyed) as_surveyed(gap);
    larger_than_arch();
    beside_bag();
  }

  /// What moves beside a bag has its place from the joints alone: without them, or a tape, its room is not looked at.
  void beside_bag() {
    const FittedEnd& fitted = given_.end->fitted;
    if (!fitted.bag || !here_.has_domain() || !clear_.wheel || (clear_.space && clear_.space->solved())) return;
    const bool strut = survey_.spring_place == build::SpringPlace::around_damper;
    for (const build::Obstacle& o : survey_.obstacles)
      if (o.shape == build::ObstacleShape::gap && o.gap &&
          o.gap_from == (strut ? build::GapFrom::tyre_to_bag : build::GapFrom::bag))
        return;
    const auto note = [&](const FindingRow& what, const char* title, const char* reason, const char* way_out) {
      add(what, Severity::note, fmt::format("{}.obstacles", key_of(end_)), {title, {name_of(end_)}}, {reason, {}},
          {way_out, {}});
    };
    if (strut)
      note(row("tyre_to_bag_unknown"), words("{0}: how near the tyre is to the bag was not measured"),
           words(
               "The bag stands around the damper, beside the tyre. Its joints were not measured and no gap was taped."),
           words("Tape it with the bag in place: a gap from the tyre to the bag, straight ahead and at full lock."));
    else
      note(
          row("room_of_bag_unknown"), words("{0}: how near arms and damper come to the bag was not measured"),
          words("Its joints were not measured and no gap was taped from the bag, so the room between bag, arms, damper "
                "and tyre limits no height here."),
          words("Enter the joints, or jack it through its travel with the bag in place and tape the nearest gap."));
  }

  /// A tyre that meets the arch's lip at every height there is.
  void larger_than_arch() {
    for (const GapCurve& gap : here_.gaps) {
      if (gap.near.own != OwnPart::lip || !gap.straight || !here_.has_domain()) continue;
      const double low = std::max(gap.straight->from, here_.domain_low),
                   high = std::min(gap.straight->to(), here_.domain_high);
      bool meets = high > low;
      for (int i = 0; meets && i <= 20; ++i)
        meets = gap.at(std::lerp(low, high, i / 20.0), false).value_or(1) <= 0;
      if (!meets) return;
      add(row("wheel_larger_than_arch"), Severity::caution, fmt::format("{}.arch.lip_outward_m", key_of(end_)),
          {words("{0}: the wheel is larger than its arch"), {name_of(end_)}},
          {words("From {0} to {1} the tyre meets the arch lip."), {metres(low), metres(high)}},
          {words("Measure the lip's place again, or fit a narrower wheel or one with more offset."), {}});
      return;
    }
  }

  /// What overlaps with the car as it was surveyed: excused where both were on it, and told in any case.
  void as_surveyed(const GapCurve& gap) {
    const Overlap& overlap = *gap.as_surveyed;
    const Amount depth = metres(overlap.depth, overlap.depth < 0.010 ? 1 : 0);
    const bool excused = overlap.was_on_car && !overlap.everywhere;
    const Message by{overlap.at_lock    ? words("By their measures they overlap by {0} at full lock as the car stood.")
                     : overlap.at_least ? words("By their measures they overlap by {0} and more as the car stood.")
                                        : words("By their measures they overlap by {0} as the car stood."),
                     {depth}};
    const bool listed = gap.near.obstacle != not_listed;
    const Message why =
        excused ? Message{words("Both were on it, so where it stood is excused; what is worse is not."), {}}
        : overlap.was_on_car ? Message{words("No height the wheel gets to frees them, so nothing is excused."), {}}
        : gap.mover == Mover::bag
            ? Message{words("The bag was not on the car then: no height where they overlap can be used."), {}}
            : Message{words("One of them was not on the car then: no height where they overlap can be used."), {}};
    const Message way_out =
        gap.mover == Mover::bag ? Message{words("Another bag, its seats elsewhere, or the part in its way moved."), {}}
        : listed && gap.mover == Mover::tyre ? Message{words("Measure its place again, or move it."), {}}
        : listed ? Message{words("Measure its place again, or say what it is bolted to."), {}}
                 : Message{words("Measure the joints and how thick the parts are again."), {}};
    auto& f = add(row("touches_as_measured"), Severity::caution, path_of(gap.near),
                  {words("{0}: {1} and {2} overlap as surveyed"), {name_of(end_), name_of(gap.mover), gap.near.told()}},
                  {words("{0} {1}"), {by, why}}, way_out);
    f.number = metres(overlap.depth);
  }

  void size(const build::Obstacle& o, std::size_t i) {
    const auto none = [&](const char* field, const char* why) {
      add(row("obstacle_without_size"), Severity::caution, obstacle_path(i, field),
          {words("{0}: “{1}” has no size"), {name_of(end_), o.name}}, {why, {}},
          {words("Measure it, or say that it is an edge."), {}});
    };
    const double apart = std::hypot(o.to_x - o.x, o.to_y - o.y, o.to_z - o.z);
    if (o.shape == build::ObstacleShape::plane && apart <= 1e-6)
      none("to_x_m", words("The place in free space lies on the face itself: nobody knows which side is free."));
    else if (o.shape == build::ObstacleShape::rod && apart <= 1e-6 && o.radius <= 0)
      none("to_x_m", words("Both its ends are one place, and it is not thick."));
    else if (o.shape == build::ObstacleShape::edge && apart <= 1e-6)
      none("to_x_m", words("Both its ends are one place."));
    else if (o.shape == build::ObstacleShape::box && o.size_x <= 0 && o.size_y <= 0 && o.size_z <= 0)
      none("size_x_m", words("None of its sides is longer than nothing."));
    if (o.z < 0 && o.shape != build::ObstacleShape::plane)
      add(row("obstacle_under_floor"), Severity::caution, obstacle_path(i, "z_m"),
          {words("{0}: “{1}” lies under the floor"), {name_of(end_), o.name}},
          {words("Heights are above the ground the car stood on; it stands at {0}."), {metres(o.z)}},
          {words("Measure it again, up from the floor."), {}});
  }

  /// A gap read at one height says little of another.
  void taped(const build::Obstacle& o, std::size_t i) {
    for (const GapCurve& gap : here_.gaps) {
      if (gap.near.obstacle != i || gap.source != GapSource::taped || !gap.taped_at) continue;
      const PresetAtEnd* farthest = nullptr;
      for (const auto& preset : here_.presets)
        if (preset &&
            (!farthest || std::abs(preset->height - *gap.taped_at) > std::abs(farthest->height - *gap.taped_at)))
          farthest = &*preset;
      if (!farthest || std::abs(farthest->height - *gap.taped_at) <= far_from_tape) return;
      const auto there = gap.at(farthest->height, true);
      if (!there || *there > gap.near.room + far_from_tape) return; // so much that it does not matter
      auto& f = add(row("taped_far_away"), Severity::note, obstacle_path(i, "gap_height_m"),
                    {words("{0}: “{1}” was taped {2} from where it matters"),
                     {name_of(end_), o.name, metres(std::abs(farthest->height - *gap.taped_at))}},
                    {words("It was taped at {0}; at {1} it is taken to open just as the wheel goes."),
                     {metres(*gap.taped_at), metres(farthest->height)}},
                    {words("Tape it there, or on a cycle sheet."), {}});
      f.number = metres(*gap.taped_at);
      return;
    }
  }

  /// What a preset outside the road window does not say: what is near while it stands there.
  void presets() {
    for (std::size_t p = 0; p < here_.presets.size(); ++p) {
      const auto& preset = here_.presets[p];
      if (!preset || p >= end_given_.brief.presets.size()) continue;
      const build::PresetUse use = end_given_.brief.presets[p].use;
      if (use == build::PresetUse::road) continue; // its window says it
      const GapCurve* least = nullptr;
      double spare = 0, gap_there = 0;
      bool locked = false;
      for (const GapCurve& gap : here_.gaps) {
        // What the car had less of as it came is asked for no more; its windows say where that gets worse.
        if (gap.had && gap.had->least < gap.near.room) continue;
        for (const bool lock : {false, true}) {
          const auto at = gap.at(preset->height, lock);
          if (!at || (!lock && *at <= 0)) continue; // meets straight ahead: no height to stand at, its window says so
          if (*at - gap.near.room < std::min(spare, -1e-4)) {
            spare = *at - gap.near.room;
            gap_there = std::max(0.0, *at);
            least = &gap;
            locked = lock && gap.at(preset->height, false).value_or(1) > gap_there + 1e-4;
          }
        }
      }
      if (!least || !preset->in_reach) continue;
      const Message reason = gap_there <= 0
                                 ? Message{words("At {0}, {1}, they touch."),
                                           {metres(preset->height),
                                            locked ? words("with the wheels at full lock") : words("straight ahead")}}
                                 : Message{words("At {0}, {1}, {2} is left of the {3} wanted."),
                                           {metres(preset->height),
                                            locked ? words("with the wheels at full lock") : words("straight ahead"),
                                            told_from(metres(gap_there, gap_there < 0.002 ? 1 : -1), least->near.room),
                                            told_from(metres(least->near.room), gap_there)}};
      auto& f = add(row("too_near_at_preset"), Severity::caution, path_of(least->near),
                    {words("{0} {1}: {2} against {3}"),
                     {name_of(end_), given_.presets[p], name_of(least->mover), least->near.told()}},
                    reason,
                    locked ? Message{words("Do not steer while it stands there, trim it, or park higher."), {}}
                           : Message{words("Trim it, or park higher."), {}});
      f.number = metres(gap_there);
      f.limit = metres(least->near.room);
    }
  }

  /// One wheel of a solid axle on a bump: the axle turns, and what both wheels clear together one may meet.
  void one_wheel_up() {
    const FittedEnd& fitted = given_.end->fitted;
    if (!is_solid_axle(fitted.model.layout) || !fitted.road || !fitted.bag) return;
    const double road = *fitted.road, full = road - fitted.model.brief.bump_travel;
    // Where nobody knows how both stand up there, nobody can say that they clear.
    if (!clear_.space || full < clear_.space->lowest() || road > clear_.space->highest()) return;
    const auto touching = [](const std::vector<NearAt>& gaps, const NearAt& gap) {
      return std::any_of(gaps.begin(), gaps.end(), [&](const NearAt& other) {
        return other.mover == gap.mover && other.near == gap.near && other.gap.apart <= 0;
      });
    };
    const auto standing = near_uneven(given_.end, road, road), both = near_uneven(given_.end, full, full);
    for (const auto& [left, right] : {std::pair(full, road), std::pair(road, full)})
      for (const NearAt& gap : near_uneven(given_.end, left, right)) {
        if (gap.gap.apart > 0 || touching(standing, gap) || touching(both, gap)) continue; // windows say those
        auto& f = add(
            row("touches_one_wheel_up"), Severity::caution, path_of(gap.near),
            {words("{0}, one wheel on a bump: {1} against {2}"), {name_of(end_), name_of(gap.mover), gap.near.told()}},
            {words("With one wheel {0} up and the other at road height the axle turns and they meet; with both "
                   "up they do not."),
             {metres(fitted.model.brief.bump_travel)}},
            {words("Trim what is near, a bump stop that meets sooner, or more height on the road."), {}});
        f.number = metres(0);
        f.limit = metres(gap.near.room);
        return;
      }
  }

  const TouchFindingsGiven& given_;
  const EndGiven& end_given_;
  const Clearances& clear_;
  const build::EndSurvey& survey_;
  const EndAssessment& here_;
  End end_;
  Findings& out_;
};

} // namespace

const std::span<const FindingRow> touch_finding_rows = rows;

TouchFindingsGiven touch_findings_given(const build::Build& build, Answered<EndQuestion> end) {
  return {std::move(end), build.active_variant, preset_names(build)};
}

Findings find_touching(const TouchFindingsGiven& given) {
  Findings out;
  TouchFindings(given, out).find();
  return out;
}

bool leaves_room_unknown(const Finding& finding) {
  return finding.code == row("tyre_to_bag_unknown").code || finding.code == row("room_of_bag_unknown").code;
}

} // namespace mavrel::assess
