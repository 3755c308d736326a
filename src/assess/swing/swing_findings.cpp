#include "assess/swing/swing_findings.h"

#include "assess/motion/agreement.h"
#include "assess/motion/alignment.h"
#include "assess/motion/travel_ends.h"
#include "build/names.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::at;
using build::key_of;
using build::name_of;
using motion::Joint;
using motion::Part;

namespace {

constexpr FindingRow rows[] = {
    {"joints_unusable", &stages::swing},      {"joint_of_another_layout", &stages::swing},
    {"sheet_against_joints", &stages::swing}, {"joints_against_tape", &stages::swing},
    {"spring_lifts_nothing", &stages::swing}, {"spring_on_upper_arm", &stages::swing},
    {"tilted_in_bump", &stages::swing},       {"sides_move_differently", &stages::swing},
    {"loose_end_leaves", &stages::swing},     {"bar_link_off_square", &stages::swing},
    {"links_bind_in_roll", &stages::swing},   {"crooked_in_stroke", &stages::swing},
    {"steers_over_bumps", &stages::swing},    {"tilted_in_roll", &stages::swing},
    {"crooked_at_lock", &stages::swing},
};
consteval const FindingRow& row(std::string_view code) {
  return row_in(rows, code);
}

constexpr double against_tape = 0.005; // m that joints' lengths may lie from what was taped as the car stood
constexpr double ratio_apart = 0.03;   // of the motion ratio that sides may lie apart
constexpr double link_off = 0.006;     // m that a bar link may be off the length that stands square
constexpr double roll_tried = 0.07;    // rad, about 4°: a hard bend on soft bags
constexpr double steers = 0.0087;      // rad, half a degree: toe that a wheel may change by within the stroke kept
constexpr double bind = 0.004;         // m that rubber gives without complaint

class SwingFindings {
public:
  SwingFindings(const SwingFindingsGiven& given, Findings& out)
      : given_(given), end_given_(given.end.given()), motion_(*end_given_.motion()), read_(*end_given_.survey()),
        survey_(end_given_.survey().given().survey), fitted_(given.end->fitted), end_(fitted_.model.end), out_(out) {}

  void find() {
    unusable();
    other_layouts();
    agreement();
    pushes();
    straight();
    in_stroke();
    at_lock();
    steering();
    one_wheel();
    loose_end();
    sides();
    link();
    roll();
  }

private:
  std::string point_path(std::string_view joint, Side side = Side::left) const {
    const auto& list = side == Side::left ? survey_.points->left : survey_.points->right;
    for (std::size_t i = 0; i < list.size(); ++i)
      if (list[i].name == joint) return fmt::format("{}.points.{}.{}.y_m", key_of(end_), key_of(side), i);
    return fmt::format("{}.points", key_of(end_));
  }
  std::string row_path(std::size_t i, const char* field) const {
    return fmt::format("{}.cycle.{}.{}", key_of(end_), i, field);
  }
  const char* joint_name(Joint joint) const { return motion::name_of(shape_of(survey_.layout), joint); }

  Finding& add(const FindingRow& what, Severity severity, std::string place, Message title, Message reason,
               Message way_out) {
    return add_finding(out_, what, severity, end_, std::move(place), std::move(title), std::move(reason),
                       std::move(way_out));
  }

  void unusable() {
    if (!motion_.trouble) return;
    add(row("joints_unusable"), Severity::caution, point_path(motion_.trouble->joint, motion_.trouble->side),
        {words("{0} joints can't be solved"), {name_of(end_)}}, motion_.trouble->what,
        {words("Until they can, the cycle sheet or one reading and its ratio stand for the travel."), {}});
  }

  void other_layouts() {
    const auto rows_here = motion::joints_of(shape_of(survey_.layout));
    for (const Side side : build::both_sides)
      for (const build::HardPoint& p : side == Side::left ? survey_.points->left : survey_.points->right) {
        const bool known = std::any_of(rows_here.begin(), rows_here.end(),
                                       [&](const motion::JointRow& r) { return p.name == motion::key_of(r.joint); });
        if (known) continue;
        add(row("joint_of_another_layout"), Severity::note, point_path(p.name, side),
            {words("{0}: “{1}” is no joint of this suspension"), {name_of(end_), p.name}},
            {words("A {0} has none of that name; it is kept and not used."), {name_of(survey_.layout)}},
            {words("Remove it, or choose the suspension it belongs to."), {}});
        return; // one is enough to say that a list is another layout's
      }
  }

  /// The tape against the joints: row by row through the travel, else as the car stood.
  void agreement() {
    for (const Disagreement& d : disagreements(read_, survey_))
      disagreement(d);
    if (!motion_.joints || !survey_.cycle.empty() || motion_.poses.empty()) return;
    const EndPose& now = motion_.nearest(motion_.surveyed_height);
    const auto compare = [&](const build::Readings& readings, const std::optional<double>& apart, Joint foot,
                             const char* field, const char* what, bool combined) {
      if (readings.values.empty() || !apart) return;
      double taped = 0;
      for (const double v : readings.values)
        taped += v / static_cast<double>(readings.values.size());
      if (std::abs(taped - *apart) <= against_tape) return;
      auto& f = add(row("joints_against_tape"), Severity::caution, fmt::format("{}.{}", key_of(end_), field),
                    {words("{0} {1}: tape and joints disagree"), {name_of(end_), what}},
                    {words("The tape has {0}, its two joints lie {1} apart."),
                     {told_from(metres(taped), *apart), told_from(metres(*apart), taped)}},
                    {combined ? words("Measure the {0} again; until then each counts by how sure it is.")
                              : words("Measure the {0} again; the joints are believed until then."),
                     {joint_name(foot)}});
      f.number = metres(taped);
      f.limit = metres(*apart);
    };
    // A design that moved the seats is no disagreement.
    const MotionGiven& moved = end_given_.motion().given();
    if (moved.upper == SeatShift{} && moved.lower == SeatShift{} && moved.mount_outward == 0)
      compare(survey_.spring_length, motion_.seats_by_joints, Joint::spring_foot, "spring_length_m",
              words("spring seats"), motion_.seats_combined);
    compare(survey_.damper_length, now.damper ? std::optional(now.damper->length) : std::nullopt, Joint::damper_foot,
            "damper_length_m", words("damper"), false);
  }

  void disagreement(const Disagreement& d) {
    const char* what = d.damper ? words("damper") : words("spring seats");
    const char* field = d.damper ? "damper_m" : "spring_m";
    Message way_out{words("No single reading or joint explains it: measure the joints of both ends again."), {}};
    std::string place = row_path(d.worst_row, field);
    if (d.doubtful_row) {
      way_out = {words("Row {0} alone disagrees: read it again."), {std::to_string(*d.doubtful_row + 1)}};
      place = row_path(*d.doubtful_row, field);
    } else if (d.doubtful_joint) {
      const bool more = d.shift > 0;
      const char* way = d.axis == 'x'   ? (more ? words("further forward") : words("further back"))
                        : d.axis == 'y' ? (more ? words("further out") : words("further in"))
                                        : (more ? words("higher") : words("lower"));
      way_out = {words("The {0} lying {1} {2} would explain it: measure it again."),
                 {joint_name(*d.doubtful_joint), metres(std::abs(d.shift), 0), way}};
      place = point_path(motion::key_of(*d.doubtful_joint));
    }
    auto& f = add(row("sheet_against_joints"), Severity::caution, std::move(place),
                  {words("{0} {1}: cycle sheet and joints disagree"), {name_of(end_), what}},
                  {words("By {0} in row {1}, where a tape is good to {2}. The sheet is believed until then."),
                   {metres(std::abs(d.worst), 1), std::to_string(d.worst_row + 1), metres(tape_error, 1)}},
                  std::move(way_out));
    f.number = metres(d.worst, 1);
    f.limit = metres(tape_error, 1);
  }

  /// Between which parts the spring stands.
  void pushes() {
    if (!motion_.joints || motion_.poses.empty()) return;
    const motion::Geometry& g = motion_.joints->side[0];
    const auto& spring = motion_.nearest(motion_.surveyed_height).spring;
    if (!spring) return;
    if (g.spring_top != Part::body) {
      auto& f =
          add(row("spring_lifts_nothing"), Severity::stop, fmt::format("{}.points.spring_top", key_of(end_)),
              {words("{0} spring lifts nothing"), {name_of(end_)}},
              {words("It stands between the {0} and the {1}, which both move with the wheel: it would only strain "
                     "them, its length changing by {2} for each of the wheel's."),
               {motion::name_of(g.spring_top), motion::name_of(g.spring_foot), number(spring->ratio, 2)}},
              {words("Stand one of its seats on the body before anybody welds."), {}});
      f.number = number(spring->ratio, 2);
      return;
    }
    if (spring->ratio <= 0.05) {
      auto& f = add(row("spring_lifts_nothing"), Severity::stop, point_path(motion::key_of(Joint::spring_foot)),
                    {words("{0} spring lifts nothing"), {name_of(end_)}},
                    {words("Its length changes by {0} for each of the wheel's."), {number(spring->ratio, 2)}},
                    {words("Measure both seats again: they may be swapped, or it stands across the motion."), {}});
      f.number = number(spring->ratio, 2);
      return;
    }
    if (g.spring_foot == Part::upper_arm) {
      auto& f = add(row("spring_on_upper_arm"), Severity::note, point_path(motion::key_of(Joint::spring_foot)),
                    {words("{0} spring works over the upper arm"), {name_of(end_)}},
                    {words("It goes by that arm's ratio, {0}: what it carries goes through the upper joint."),
                     {number(spring->ratio, 2)}},
                    {words("See that the upper joint is one that may carry the car."), {}});
      f.number = number(spring->ratio, 2);
    }
  }

  /// Crooked within the bump that the brief keeps below road height.
  void straight() {
    const auto& alignment = fitted_.model.alignment;
    if (!alignment || !fitted_.bag || !fitted_.road) return;
    const AlignmentLimits bears = alignment_limits(fitted_.bag->card);
    const double full = *fitted_.road - fitted_.model.brief.bump_travel;
    const AlignedAt down = alignment->at(full), road = alignment->at(*fitted_.road);
    if (down.tilt <= bears.tilt || road.tilt > bears.tilt) return; // where it is driven the window says it
    auto& f = add(row("tilted_in_bump"), Severity::caution,
                  fmt::format("variants.{}.{}.mounting.lower.across_angle_rad", given_.variant, key_of(end_)),
                  {words("{0} bag tilts too far in bump"), {name_of(end_)}},
                  {words("{0} at {1}, the end of the bump kept; it bears {2}."),
                   {Amount{down.tilt, Kind::angle, 1, {}}, metres(full), Amount{bears.tilt, Kind::angle, 1, {}}}},
                  {words("Turn a bracket so that it stands straight lower down."), {}});
    f.number = Amount{down.tilt, Kind::angle, 1, {}};
    f.limit = Amount{bears.tilt, Kind::angle, 1, {}};
  }

  /// Crooked or beside its seat where bump and rebound that are kept take it, and not where it is driven.
  void in_stroke() {
    const auto& alignment = fitted_.model.alignment;
    if (!alignment || !fitted_.bag || !fitted_.road) return;
    const AlignmentLimits bears = alignment_limits(fitted_.bag->card);
    const build::Brief& brief = fitted_.model.brief;
    const AlignedAt road = alignment->at(*fitted_.road);
    const std::pair<double AlignedAt::*, double> judged[] = {{&AlignedAt::tilt, bears.tilt},
                                                             {&AlignedAt::offset, bears.offset}};
    for (const double H : {*fitted_.road + brief.rebound_reserve, *fitted_.road - brief.bump_travel})
      for (const auto& [figure, most] : judged) {
        const bool up = H > *fitted_.road, tilt = figure == &AlignedAt::tilt;
        if (!up && tilt) continue; // `tilted_in_bump`
        const AlignedAt there = alignment->at(H);
        if (there.*figure <= most || road.*figure > most) continue;
        const auto shown = [&](double v) { return tilt ? Amount{v, Kind::angle, 1, {}} : metres(v); };
        auto& f = add(row("crooked_in_stroke"), Severity::caution,
                      fmt::format("variants.{}.{}.mounting.lower.{}", given_.variant, key_of(end_),
                                  tilt ? "across_angle_rad" : "outward_m"),
                      {tilt ? words("{0} bag tilts too far in rebound")
                       : up ? words("{0} bag goes too far off its seat in rebound")
                            : words("{0} bag goes too far off its seat in bump"),
                       {name_of(end_)}},
                      {up ? words("{0} at {1}, the end of the rebound kept; it bears {2}.")
                          : words("{0} at {1}, the end of the bump kept; it bears {2}."),
                       {shown(there.*figure), metres(H), shown(most)}},
                      {tilt ? words("Turn a bracket so that it stands straight higher up.")
                            : words("Move a seat so that its middle is passed at road height."),
                       {}});
        f.number = shown(there.*figure);
        f.limit = shown(most);
        return;
      }
  }

  /// A bag on the upright, with the wheels steered fully at road height.
  void at_lock() {
    const auto& alignment = fitted_.model.alignment;
    if (!alignment || !fitted_.bag || !fitted_.road) return;
    const auto locked = aligned_at_lock(motion_, *alignment, *fitted_.road);
    if (!locked) return;
    const AlignmentLimits bears = alignment_limits(fitted_.bag->card);
    const AlignedAt road = alignment->at(*fitted_.road);
    const std::pair<double AlignedAt::*, double> judged[] = {{&AlignedAt::tilt, bears.tilt},
                                                             {&AlignedAt::offset, bears.offset}};
    for (const auto& [figure, most] : judged) {
      if (*locked.*figure <= most || road.*figure > most) continue;
      const bool tilt = figure == &AlignedAt::tilt;
      const auto shown = [&](double v) { return tilt ? Amount{v, Kind::angle, 1, {}} : metres(v); };
      auto& f = add(
          row("crooked_at_lock"), Severity::caution,
          fmt::format("variants.{}.{}.mounting.lower.{}", given_.variant, key_of(end_),
                      tilt ? "across_angle_rad" : "outward_m"),
          {tilt ? words("{0} bag tilts too far at full lock") : words("{0} bag goes too far off its seat at full lock"),
           {name_of(end_)}},
          {words("Its foot steers with the upright: {0} at {1}; it bears {2}."),
           {shown(*locked.*figure), metres(*fitted_.road), shown(most)}},
          {words("Move its foot towards the line the wheel steers about, or stand it on an arm."), {}});
      f.number = shown(*locked.*figure);
      f.limit = shown(most);
      return;
    }
  }

  /// Toe that a bump takes and a rebound gives.
  void steering() {
    if (!fitted_.road) return;
    const build::Brief& brief = fitted_.model.brief;
    const double from = *fitted_.road - brief.bump_travel, to = *fitted_.road + brief.rebound_reserve;
    std::optional<double> least, most;
    for (const EndPose& pose : motion_.poses)
      if (pose.toe && pose.H >= from && pose.H <= to)
        least = std::fmin(least.value_or(*pose.toe), *pose.toe), most = std::fmax(most.value_or(*pose.toe), *pose.toe);
    if (!least || *most - *least <= steers) return;
    const Amount by{*most - *least, Kind::angle, 2, {}};
    auto& f = add(
        row("steers_over_bumps"), Severity::caution, fmt::format("{}.points", key_of(end_)),
        {words("{0} wheels steer over bumps"), {name_of(end_)}},
        {words("Between {0} and {1} their toe changes by {2}; half a degree is felt."), {metres(from), metres(to), by}},
        {words("Raise or lower the track rod’s outer joint, or ride where it changes least."), {}});
    f.number = by;
    f.limit = Amount{steers, Kind::angle, 2, {}};
  }

  /// One wheel of a solid axle on a bump turns the axle under its bags.
  void one_wheel() {
    const auto& alignment = fitted_.model.alignment;
    if (!is_solid_axle(fitted_.model.layout) || !alignment || !fitted_.bag || !fitted_.road || !fitted_.model.track)
      return;
    const AlignmentLimits bears = alignment_limits(fitted_.bag->card);
    const double turns = std::atan2(fitted_.model.brief.bump_travel, *fitted_.model.track);
    // Half of it at the axle's middle, where the bags' mean height is.
    const AlignedAt there = alignment->at(*fitted_.road - fitted_.model.brief.bump_travel / 2);
    const double tilt = there.tilt + turns;
    if (tilt <= bears.tilt || there.tilt > bears.tilt) return;
    auto& f =
        add(row("tilted_in_roll"), Severity::caution,
            fmt::format("variants.{}.{}.mounting.lower.across_angle_rad", given_.variant, key_of(end_)),
            {words("{0} bags tilt too far with one wheel on a bump"), {name_of(end_)}},
            {words("A bump of {0} under one wheel turns the axle by {1}, the plates then stand {2} apart; the bag "
                   "bears {3}."),
             {metres(fitted_.model.brief.bump_travel), Amount{turns, Kind::angle, 1, {}},
              Amount{tilt, Kind::angle, 1, {}}, Amount{bears.tilt, Kind::angle, 1, {}}}},
            {words("Brackets that stand straight there, a bag that bears more, or less bump."), {}});
    f.number = Amount{tilt, Kind::angle, 1, {}};
    f.limit = Amount{bears.tilt, Kind::angle, 1, {}};
  }

  /// A wheel that hangs pulls the seats further apart than a bag that is held at one end reaches.
  void loose_end() {
    const build::Held held = end_given_.fit.mounting.held;
    if (held == build::Held::both || !fitted_.bag || !fitted_.model.map || !fitted_.model.damper_open) return;
    const motion::TravelMap& map = *fitted_.model.map;
    if (!map.has_damper()) return;
    const double droop = map.height_for_damper(*fitted_.model.damper_open).value_or(map.highest());
    const double reaches = fitted_.bag->card.max_height, seats = fitted_.on().bag_height(droop);
    if (seats <= reaches) return;
    auto& f = add(row("loose_end_leaves"), Severity::caution,
                  fmt::format("variants.{}.{}.mounting.held", given_.variant, key_of(end_)),
                  {words("{0} bag's loose end leaves its seat"), {name_of(end_)}},
                  {words("With the wheel hanging at {0} the plates are {1} apart; the bag reaches {2}."),
                   {metres(droop), told_from(metres(seats), reaches), told_from(metres(reaches), seats)}},
                  {words("Guide the loose end so that it comes home straight, hold both, or limit the droop by {0}."),
                   {metres((seats - reaches) / map.at(droop).motion_ratio)}});
    f.number = metres(seats);
    f.limit = metres(reaches);
  }

  void sides() {
    if (!read_.height) return;
    std::optional<double> left, right;
    if (!motion_.right_poses.empty() && !motion_.poses.empty()) {
      const auto ratio_in = [&](const std::vector<EndPose>& poses) -> std::optional<double> {
        for (const EndPose& p : poses)
          if (std::abs(p.H - motion_.surveyed_height) < 1e-9 && p.spring) return p.spring->ratio;
        return std::nullopt;
      };
      left = ratio_in(motion_.poses);
      right = ratio_in(motion_.right_poses);
    } else if (read_.spring_fit && read_.right_spring_fit) {
      left = read_.spring_fit->length.read(*read_.height).slope;
      right = read_.right_spring_fit->length.read(*read_.height).slope;
      // What either sheet does not know is no difference.
      const double doubt = std::hypot(read_.spring_fit->slope_sd(*read_.height).value_or(1),
                                      read_.right_spring_fit->slope_sd(*read_.height).value_or(1));
      if (std::abs(*left - *right) <= 2 * doubt) return;
    }
    if (!left || !right || std::abs(*left - *right) <= ratio_apart * std::abs(*left)) return;
    auto& f = add(row("sides_move_differently"), Severity::caution, fmt::format("{}.points", key_of(end_)),
                  {words("{0}: left and right move differently"), {name_of(end_)}},
                  {words("Motion ratio {0} on the left and {1} on the right."), {number(*left, 3), number(*right, 3)}},
                  {words("Measure the seats of both sides again; built so, the bags need different pressures."), {}});
    f.number = number(*left, 3);
    f.limit = number(*right, 3);
  }

  void link() {
    if (!fitted_.road || !read_.height || !survey_.bar_link.length) return;
    const auto square = centred_link(survey_.bar_link, *fitted_.road - motion_.surveyed_height);
    if (!square || std::abs(*square - *survey_.bar_link.length) <= link_off) return;
    auto& f = add(
        row("bar_link_off_square"), Severity::note, fmt::format("{}.bar_link.length_m", key_of(end_)),
        {words("{0} bar link does not stand square at road height"), {name_of(end_)}},
        {words("It is {0} long; {1} stands square there."),
         {told_from(metres(*survey_.bar_link.length), *square), told_from(metres(*square), *survey_.bar_link.length)}},
        {words("An adjustable link of {0}."), {metres(*square)}});
    f.number = metres(*survey_.bar_link.length);
    f.limit = metres(*square);
  }

  void roll() {
    if (!motion_.axle) return;
    const auto rolled = motion_.axle->solve_rolled(0, roll_tried);
    if (!rolled || rolled->misfit <= bind) return;
    auto& f = add(row("links_bind_in_roll"), Severity::note, point_path(motion::key_of(Joint::upper_axle)),
                  {words("{0} links bind as the axle rolls"), {name_of(end_)}},
                  {words("Rolled by {0}, a link would have to give {1}: rubber joints take it, stiff ones do not."),
                   {Amount{roll_tried, Kind::angle, 0, {}}, metres(rolled->misfit, 1)}},
                  {words("Links nearer to one length and one height at the axle, or soft joints at one end."), {}});
    f.number = metres(rolled->misfit, 1);
    f.limit = metres(bind, 1);
  }

  const SwingFindingsGiven& given_;
  const EndGiven& end_given_;
  const EndMotion& motion_;
  const SurveyedEnd& read_;
  const build::EndSurvey& survey_;
  const FittedEnd& fitted_;
  End end_;
  Findings& out_;
};

} // namespace

const std::span<const FindingRow> swing_finding_rows = rows;

SwingFindingsGiven swing_findings_given(const build::Build& build, Answered<EndQuestion> end) {
  return {std::move(end), build.active_variant};
}

Findings find_in_swing(const SwingFindingsGiven& given) {
  Findings out;
  SwingFindings(given, out).find();
  return out;
}

} // namespace mavrel::assess
