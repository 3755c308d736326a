#include "assess/interference/near_at.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

std::optional<BagBody> body_of(const AnsweredEnd& end) {
  const FittedEnd& fitted = end->fitted;
  if (!fitted.bag || !fitted.model.map) return std::nullopt;
  return bag_body(fitted.on());
}

/// The solid where its part has carried it; a box may be carried only by what does not turn it about level axes.
std::optional<space::Solid> standing(const Placement& near, const Stand& stand) {
  if (near.on == motion::Part::body) return near.solid;
  const space::Placed& by = stand.parts[static_cast<std::size_t>(near.on)];
  if (const auto* rod = std::get_if<space::Rod>(&near.solid)) return space::moved(*rod, by);
  if (const auto* plane = std::get_if<space::Plane>(&near.solid))
    return space::Plane{by.place(plane->at), by.turned(plane->normal)};
  auto box = std::get<space::Box>(near.solid);
  box.centre = by.place(box.centre);
  return box;
}

/// The gap at a stand, with its places. @returns false where it has none
bool place_gap(NearAt& here, const Stand& stand, const GapIn& in, const build::EndSurvey& survey) {
  std::optional<space::Gap> gap;
  if (here.near.obstacle != not_listed) {
    const auto placed = placement_of(survey.obstacles[here.near.obstacle], here.near.right);
    if (!placed) return false;
    gap = gap_to(here.mover, *placed, stand, in);
    here.solid = standing(*placed, stand);
  } else if (const auto own = gap_to_own(here.mover, here.near.own, stand, in)) {
    gap = own->gap;
    if (own->solid) here.solid = *own->solid;
  }
  if (!gap) return false;
  here.gap = *gap;
  here.placed = true;
  return true;
}

void least_first(std::vector<NearAt>& gaps) {
  std::stable_sort(gaps.begin(), gaps.end(), [](const NearAt& a, const NearAt& b) { return a.spare() < b.spare(); });
}

} // namespace

std::optional<PosedParts> parts_at(const AnsweredEnd& end, double H, double angle) {
  const auto& space = end.given().clearance->space;
  if (!space) return std::nullopt;
  auto stand = space->steered(H, angle);
  if (!stand) return std::nullopt;
  PosedParts out{std::move(*stand), {}};
  if (const auto body = body_of(end)) out.bag = bag_at(*body, out.stand);
  return out;
}

std::vector<NearAt> near_at(const AnsweredEnd& end, double H, double angle) {
  std::vector<NearAt> out;
  const Clearances& clear = *end.given().clearance;
  const build::EndSurvey& survey = end.given().survey().given().survey;
  const auto posed = parts_at(end, H, angle);
  const auto body = body_of(end);
  const double lock = clear.space ? clear.space->lock() : 0;
  const std::optional<Stand> right =
      clear.space && clear.right ? clear.right->steered(H, -angle) : std::nullopt; // seen in a mirror
  const std::optional<Stand> mirrored = clear.space ? clear.space->steered(H, -angle) : std::nullopt;
  for (const GapCurve& curve : end->assessment.gaps) {
    NearAt here{curve.mover, curve.near, curve.source, {}, false, false, {}};
    if (curve.source != GapSource::solid) {
      const bool locked = lock > 0 && std::abs(angle) > lock / 2;
      auto gap = curve.at(H, locked);
      if (!gap && !locked && !curve.straight) continue; // taped at lock only
      if (!gap) continue;
      here.gap.apart = std::max(0.0, *gap);
      here.gap.overlap = *gap <= 0;
      out.push_back(std::move(here));
      continue;
    }
    if (!posed) continue;
    const Stand* stand = !curve.near.right ? &posed->stand
                         : clear.right     ? (right ? &*right : nullptr)
                                           : (mirrored ? &*mirrored : nullptr);
    if (!stand) continue;
    if (place_gap(here, *stand, {clear, clear.space_of(curve.near), body ? &*body : nullptr}, survey))
      out.push_back(std::move(here));
  }
  least_first(out);
  return out;
}

std::vector<NearAt> near_uneven(const AnsweredEnd& end, double left, double right) {
  std::vector<NearAt> out;
  const Clearances& clear = *end.given().clearance;
  const build::EndSurvey& survey = end.given().survey().given().survey;
  const auto body = body_of(end);
  if (!clear.space) return out;
  // What lies left of the middle stands for both sides: the right wheel then is the left one seen in a mirror.
  const auto at_left = clear.space->uneven(left, right), in_mirror = clear.space->uneven(right, left);
  const auto at_right = clear.right ? clear.right->uneven(right, left) : in_mirror;
  for (const GapCurve& curve : end->assessment.gaps) {
    std::optional<NearAt> least;
    const auto take = [&](const std::optional<Stand>& stand, double H, bool other_side) {
      NearAt here{curve.mover, curve.near, curve.source, {}, false, other_side, {}};
      if (curve.source != GapSource::solid) {
        const auto gap = curve.at(H, false);
        if (!gap) return;
        here.gap.apart = std::max(0.0, *gap);
        here.gap.overlap = *gap <= 0;
      } else if (!stand ||
                 !place_gap(here, *stand, {clear, clear.space_of(curve.near), body ? &*body : nullptr}, survey)) {
        return;
      }
      if (!least || here.gap.apart < least->gap.apart) least = std::move(here);
    };
    const bool listed = curve.source == GapSource::solid && curve.near.obstacle != not_listed;
    const bool for_both =
        !clear.right && (!listed || rights_of(survey.obstacles[curve.near.obstacle], false) == std::vector{false});
    if (!curve.near.right) take(at_left, left, false);
    if (curve.near.right)
      take(at_right, right, true);
    else if (for_both)
      take(in_mirror, right, true);
    if (least) out.push_back(std::move(*least));
  }
  least_first(out);
  return out;
}

std::optional<double> poke_at(const AnsweredEnd& end, double H) {
  return poke_at(*end.given().clearance, H);
}

} // namespace mavrel::assess
