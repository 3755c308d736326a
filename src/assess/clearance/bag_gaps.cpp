// Gaps of the bag that a design has chosen.
#include "assess/clearance/gaps_over_height.h"
#include "assess/clearance/taped.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using space::Point;
using Figure = std::optional<double>;

/// What was taped from a bag at one height: it closes as the bag swells, and from the tyre as that comes nearer.
class TapedFromBag {
public:
  TapedFromBag(const ClearanceGiven& given, const Clearances& clear, const BagBody& bag, const build::Obstacle& o)
      : bag_(bag), o_(o) {
    const build::EndSurvey& survey = given.motion.given().survey.given().survey;
    around_ = survey.spring_place == build::SpringPlace::around_damper;
    H0_ = o.gap_height ? *o.gap_height - given.motion.given().drop_spindle : clear.space->surveyed_height();
    then_ = *o.gap;
    if (o.gap_from == build::GapFrom::tyre_to_bag) then_ -= OtherWheel(survey, given, clear.wheel).closes(o.gap_way);
    for (const Lock lock : all_locks)
      from_[static_cast<std::size_t>(lock)] = clear.space->at(H0_, lock).wheel.centre;
    across_ = across_at(clear.space->at(H0_));
  }
  [[nodiscard]] double taped_at() const { return H0_; }
  [[nodiscard]] Figure at(const Stand& stand) const {
    const Figure across = across_at(stand);
    if (!across || !across_) return std::nullopt;
    double gap = then_;
    if (o_.gap_way != build::GapWay::above) gap -= (*across - *across_) / 2;
    if (o_.gap_from == build::GapFrom::tyre_to_bag) {
      // Of a bag around its damper the lower end goes with the wheel; of any other the middle goes half as far.
      const Point moved = stand.wheel.centre - from_[static_cast<std::size_t>(stand.lock)];
      gap -= (around_ ? 0.0 : 0.5) * towards(o_.gap_way, moved);
    }
    return std::max(0.0, gap);
  }

private:
  [[nodiscard]] Figure across_at(const Stand& stand) const {
    double height = 0;
    if (stand.seats)
      height = space::length((*stand.seats)[0] - (*stand.seats)[1]) - bag_.upper_stack - bag_.lower_stack;
    else if (bag_.map && bag_.map->contains(stand.H))
      height = bag_.map->at(stand.H).spring_length - bag_.upper_stack - bag_.lower_stack;
    else
      return std::nullopt;
    return bag_.curve->diameter(std::clamp(height, bag_.curve->lowest(), bag_.curve->highest()));
  }

  const BagBody& bag_;
  const build::Obstacle& o_;
  bool around_ = false;
  double H0_ = 0, then_ = 0;
  std::array<Point, 3> from_;
  Figure across_;
};

} // namespace

void add_bag_gaps(const ClearanceGiven& given, const Clearances& clear, const BagBody& bag, std::vector<GapCurve>& gaps,
                  std::vector<Block>& blocks) {
  if (!clear.space || !bag.curve) return;
  const SurveyedEnd& read = *given.motion.given().survey;
  const build::EndSurvey& survey = given.motion.given().survey.given().survey;
  GapsOverHeight over(gaps, blocks);
  const auto add = [&](Near near, const auto& gap_at) {
    const EndSpace& space = clear.space_of(near);
    const auto at = [&](const Stand& stand, double thinner) {
      return gap_at(stand, GapIn{clear, space, &bag, thinner});
    };
    const Stand surveyed = space.at(space.surveyed_height());
    if (!at(surveyed, 0)) return;
    GapCurve gap{Mover::bag, std::move(near), GapSource::solid, {}, {}, {}, {}, {}};
    gap.as_surveyed = overlap_of([&](double thinner) { return at(surveyed, thinner); },
                                 half_thickness(Mover::bag, surveyed, clear, &bag), false); // a bag never was there
    over.add(space, std::move(gap), [&](const Stand& stand) { return at(stand, 0); });
  };
  for (std::size_t i = 0; i < survey.obstacles.size(); ++i) {
    const build::Obstacle& o = survey.obstacles[i];
    const double room = o.room.value_or(room_for(Mover::bag, o.kind, given.rooms, given.bag_room));
    if (o.shape == build::ObstacleShape::gap && o.gap && o.gap_from != build::GapFrom::tyre) {
      const bool sheet =
          std::any_of(read.gap_fits.begin(), read.gap_fits.end(), [&](const auto& gap) { return gap.name == o.name; });
      if (sheet) continue;
      const TapedFromBag taped(given, clear, bag, o);
      const bool locked = o.gap_at == build::GapAt::lock;
      over.add(
          *clear.space,
          {Mover::bag, {o.name, OwnPart::none, i, room}, GapSource::taped, taped.taped_at(), {}, {}, {}, {}},
          [&](const Stand& stand) { return taped.at(stand); }, !locked, locked);
    }
    for (const bool right : rights_of(o, clear.right.has_value())) {
      const auto near = placement_of(o, right);
      if (!near) continue;
      add({o.name, OwnPart::none, i, room, right}, [&](const Stand& stand, const GapIn& in) -> Figure {
        const auto g = gap_to(Mover::bag, *near, stand, in);
        return g ? Figure(g->apart) : std::nullopt;
      });
    }
  }
  for (const bool right : {false, true}) {
    if (right && !clear.right) continue;
    for (const OwnPart part : own_parts(Mover::bag, right ? *clear.right : *clear.space, survey))
      add({"", part, not_listed, given.bag_room, right}, [&](const Stand& stand, const GapIn& in) -> Figure {
        const auto g = gap_to_own(Mover::bag, part, stand, in);
        return g ? Figure(g->gap.apart) : std::nullopt;
      });
  }
}

} // namespace mavrel::assess
