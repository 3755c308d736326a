#include "assess/end/motion_tracks.h"

#include "assess/motion/travel_ends.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace tracks {
constinit const TrackRow motion_ratio{"motion_ratio", words("motion ratio"), Kind::plain};
constinit const TrackRow motion_ratio_doubt{"motion_ratio_doubt", words("doubt of the motion ratio"), Kind::plain};
constinit const TrackRow bag_tilt{"tilt", words("bag tilt"), Kind::angle};
constinit const TrackRow bag_offset{"offset", words("bag offset"), Kind::length};
constinit const TrackRow camber{"camber", words("camber"), Kind::angle};
constinit const TrackRow toe{"toe", words("toe"), Kind::angle};
constinit const TrackRow caster{"caster", words("caster"), Kind::angle};
constinit const TrackRow kingpin{"kingpin", words("kingpin"), Kind::angle};
constinit const TrackRow wheel_forward{"wheel_forward", words("wheel forward"), Kind::length};
constinit const TrackRow wheel_outward{"wheel_outward", words("wheel outward"), Kind::length};
constinit const TrackRow poke{"poke", words("arch poke"), Kind::length};
constinit const TrackRow pinion{"pinion", words("pinion"), Kind::angle};
constinit const TrackRow axle_roll{"axle_roll", words("axle roll"), Kind::angle};
constinit const TrackRow hose_slack{"hose_slack", words("hose slack"), Kind::length};
constinit const TrackRow shaft_angle{"shaft_bend", words("shaft angle"), Kind::angle};
constinit const TrackRow shaft_plunge{"plunge", words("shaft plunge"), Kind::length};
constinit const TrackRow bar_link_angle{"bar_link_angle", words("bar link off square"), Kind::angle};
} // namespace tracks

namespace {
constexpr const TrackRow* motion_rows[] = {
    &tracks::motion_ratio,   &tracks::motion_ratio_doubt,
    &tracks::bag_tilt,       &tracks::bag_offset,
    &tracks::camber,         &tracks::toe,
    &tracks::caster,         &tracks::kingpin,
    &tracks::wheel_forward,  &tracks::wheel_outward,
    &tracks::poke,           &tracks::pinion,
    &tracks::axle_roll,      &tracks::hose_slack,
    &tracks::shaft_angle,    &tracks::shaft_plunge,
    &tracks::bar_link_angle,
};

constexpr double motion_step = 0.001; // m, at most

using Figure = std::optional<double>;

/// One figure of the poses at a height, linear between them.
Figure read(const std::vector<EndPose>& poses, double H, const auto& figure) {
  if (poses.size() < 2 || H < poses.front().H - 1e-9 || H > poses.back().H + 1e-9) return std::nullopt;
  const double apart = poses[1].H - poses[0].H;
  const auto i = std::min(static_cast<std::size_t>(std::max(0.0, (H - poses.front().H) / apart)), poses.size() - 2);
  const Figure a = figure(poses[i]), b = figure(poses[i + 1]);
  if (!a || !b) return std::nullopt;
  return std::lerp(*a, *b, std::clamp((H - poses[i].H) / apart, 0.0, 1.0));
}

/// What else runs out: worked out every centimetre, linear between.
void add_running(const build::EndSurvey& survey, const EndMotion& motion, double H0, const Heights& heights,
                 std::vector<Track>& out) {
  const std::pair<const TrackRow*, Figure RunningOut::*> all[] = {{&tracks::hose_slack, &RunningOut::hose_slack},
                                                                  {&tracks::shaft_angle, &RunningOut::shaft_angle},
                                                                  {&tracks::shaft_plunge, &RunningOut::plunge},
                                                                  {&tracks::bar_link_angle, &RunningOut::link_angle}};
  const RunningOut now = running_out(survey, 0, nullptr);
  if (heights.count == 0 ||
      std::none_of(std::begin(all), std::end(all), [&](const auto& a) { return now.*(a.second); }))
    return;
  const Heights coarse = Heights::over(heights.low, heights.high, 0.010);
  std::vector<RunningOut> at;
  for (std::size_t i = 0; i < coarse.count; ++i) {
    const double H = coarse.H(i);
    at.push_back(running_out(survey, H - H0, motion.poses.empty() ? nullptr : &motion.nearest(H)));
  }
  for (const auto& [what, figure] : all) {
    if (!(now.*figure)) continue;
    Track track = track_of(*what, heights, [&, figure = figure](std::size_t k) -> Figure {
      const double place = (heights.H(k) - coarse.low) / coarse.step;
      const auto i = std::min(static_cast<std::size_t>(std::max(0.0, place)), coarse.count - 2);
      const Figure a = at[i].*figure, b = at[i + 1].*figure;
      if (!a || !b) return std::nullopt;
      return std::lerp(*a, *b, std::clamp(place - static_cast<double>(i), 0.0, 1.0));
    });
    if (!track.pieces.empty()) out.push_back(std::move(track));
  }
}

} // namespace

const std::span<const TrackRow* const> motion_tracks = motion_rows;

void add_motion_tracks(const EndGiven& given, const EndModel& model, double low, double high, std::vector<Track>& out) {
  const EndMotion& motion = *given.motion();
  const SurveyedEnd& read_end = *given.survey();
  const double drop = given.motion().given().drop_spindle; // what was read stands so much lower in the design
  const build::EndSurvey& survey = given.survey().given().survey;
  const motion::TravelMap& map = *model.map;
  const Heights heights = Heights::over(std::max(low, map.lowest()), std::min(high, map.highest()), motion_step);
  const auto add = [&](const TrackRow& what, const auto& value) {
    Track track = track_of(what, heights, [&](std::size_t i) -> Figure { return value(heights.H(i)); });
    if (!track.pieces.empty()) out.push_back(std::move(track));
  };
  const auto add_pose = [&](const TrackRow& what, const auto& figure) {
    if (!motion.poses.empty()) add(what, [&](double H) { return read(motion.poses, H, figure); });
  };
  if (model.spring_from != MapSource::single_reading)
    add(tracks::motion_ratio, [&](double H) -> Figure { return map.at(H).motion_ratio; });
  if (read_end.spring_fit)
    add(tracks::motion_ratio_doubt, [&](double H) { return read_end.spring_fit->slope_sd(H + drop); });
  if (model.alignment) {
    add(tracks::bag_tilt, [&](double H) -> Figure { return model.alignment->at(H).tilt; });
    add(tracks::bag_offset, [&](double H) -> Figure { return model.alignment->at(H).offset; });
  }
  // What a gauge has read on the car goes before what its joints say.
  const auto add_angle = [&](const TrackRow& what, const std::optional<motion::CycleFit>& fit,
                             Figure EndPose::*figure) {
    if (fit)
      add(what, [&](double H) -> Figure {
        return H + drop >= fit->lowest - 1e-9 && H + drop <= fit->highest + 1e-9
                   ? Figure(fit->length.read(H + drop).value)
                   : std::nullopt;
      });
    else
      add_pose(what, [&](const EndPose& pose) { return pose.*figure; });
  };
  add_angle(tracks::camber, read_end.camber_fit, &EndPose::camber);
  add_angle(tracks::toe, read_end.toe_fit, &EndPose::toe);
  add_pose(tracks::caster, [](const EndPose& pose) { return pose.caster; });
  add_pose(tracks::kingpin, [](const EndPose& pose) { return pose.kingpin; });
  add_pose(tracks::wheel_forward, [](const EndPose& pose) -> Figure { return pose.wheel_forward; });
  add_pose(tracks::wheel_outward, [](const EndPose& pose) -> Figure { return pose.wheel_outward; });
  add_pose(tracks::pinion, [](const EndPose& pose) { return pose.pinion; });
  add_pose(tracks::axle_roll, [](const EndPose& pose) { return pose.roll; });
  if (given.clearance->lip) {
    // It changes slowly: worked out every 5 mm, linear between.
    const Heights coarse = Heights::over(heights.low, heights.high, 0.005);
    std::vector<Figure> at;
    for (std::size_t i = 0; i < coarse.count; ++i)
      at.push_back(poke_at(*given.clearance, coarse.H(i)));
    add(tracks::poke, [&](double H) -> Figure {
      if (coarse.count < 2) return std::nullopt;
      const double place = std::max(0.0, (H - coarse.low) / coarse.step);
      const auto i = std::min(static_cast<std::size_t>(place), coarse.count - 2);
      if (!at[i] || !at[i + 1]) return std::nullopt;
      return std::lerp(*at[i], *at[i + 1], std::min(1.0, place - static_cast<double>(i)));
    });
  }
  add_running(survey, motion, motion.surveyed_height, heights, out);
}

} // namespace mavrel::assess
