#include "assess/swing/mounting.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using motion::Joint;

class Maker {
public:
  explicit Maker(const Answered<EndQuestion>& answer)
      : given_(answer.given()), end_(answer->fitted), model_(answer->fitted.model) {}

  Mounting make() {
    straightness();
    if (!model_.map) return std::move(out_);
    if (end_.road && model_.map->contains(*end_.road)) at_road(*end_.road);
    strut_top();
    copy();
    wanted();
    return std::move(out_);
  }

private:
  void straightness() {
    out_.alignment = model_.alignment;
    if (end_.bag) out_.bears = alignment_limits(end_.bag->card);
    if (!out_.alignment) return;
    for (std::size_t i = 0; i < end_.presets.size(); ++i) {
      if (!end_.presets[i]) continue;
      AlignedPreset p{i, out_.alignment->at(*end_.presets[i]), false, false};
      p.tilted = out_.bears && p.at.tilt > out_.bears->tilt;
      p.pushed = out_.bears && p.at.offset > out_.bears->offset;
      out_.presets.push_back(p);
    }
  }

  void at_road(double road) {
    const motion::MapPoint at = model_.map->at(road);
    out_.height_per_stack = 1 / at.motion_ratio;
    damper_share(road);
    inboard(road, at);
  }

  /// Where the damper's stroke is spent, and the body that spends it as the brief asks.
  void damper_share(double road) {
    if (!model_.map->has_damper() || !model_.damper_open || !model_.damper_shut) return;
    const auto shut = model_.map->height_for_damper(*model_.damper_shut);
    const auto open = model_.map->height_for_damper(*model_.damper_open);
    const auto here = model_.map->damper(road);
    // Beyond the map the ratio at road height goes on.
    const double low = shut.value_or(road - (here.value - *model_.damper_shut) / here.slope);
    const double high = open.value_or(road + (*model_.damper_open - here.value) / here.slope);
    out_.bump_left = road - low;
    out_.rebound_left = high - road;
    const double wanted = model_.brief.bump_travel + model_.brief.rebound_reserve;
    if (wanted <= 0) return;
    // A longer body moves both ends up: what is too much in bump goes to rebound.
    const double share = model_.brief.bump_travel / wanted, stroke = high - low;
    out_.body_longer = given_.fit.mounting.damper_longer + (*out_.bump_left - share * stroke) * here.slope;
  }

  /// A spring nearer to its arm's pivot: the ratio falls with its lever, the force rises to carry the same.
  void inboard(double road, const motion::MapPoint& at) {
    const EndMotion& motion = *given_.motion();
    if (!motion.joints || motion.poses.empty()) return;
    constexpr double nudge = 0.002; // m
    motion::Geometry moved = motion.joints->side[0];
    for (const Joint joint : {Joint::spring_body, Joint::spring_foot}) {
      if (!moved.at(joint)) return;
      moved.at(joint)->y -= nudge;
    }
    if (motion::mistake_in(moved)) return;
    const double dh = road - motion.surveyed_height;
    std::optional<motion::Strut> before, after;
    if (motion.axle) {
      const auto a = motion.axle->solve_level(dh), b = motion::AxleLinkage(moved).solve_level(dh);
      if (a) before = a->spring;
      if (b) after = b->spring;
    } else {
      const auto a = motion.corner->solve(dh), b = motion::CornerLinkage(moved).solve(dh);
      if (a) before = a->spring;
      if (b) after = b->spring;
    }
    if (!before || !after) return;
    MovedSpring out;
    out.ratio = (after->ratio - before->ratio) / nudge;
    if (!model_.loads.empty() && model_.loads[0]) {
      const double force = model_.spring_force(model_.loads[0]->sprung_mass, road, at);
      out.force = -force / at.motion_ratio * out.ratio;
    }
    out_.inboard = out;
  }

  /// Camber for the top of a strut moved outward: it turns about the lower ball joint.
  void strut_top() {
    const EndMotion& motion = *given_.motion();
    if (!motion.joints || motion.joints->side[0].shape != motion::Shape::strut) return;
    const motion::Geometry& g = motion.joints->side[0];
    const motion::Point way = *g.at(Joint::strut_top) - *g.at(Joint::lower_outer);
    out_.camber_per_outward = 1 / std::hypot(way.y, way.z);
  }

  void copy() {
    const EndMotion& motion = *given_.motion();
    if (!motion.joints) return;
    const motion::Geometry& g = motion.joints->side[0];
    if (!g.at(Joint::spring_body) || !g.at(Joint::spring_foot)) return;
    out_.between_plates = motion::length(*g.at(Joint::spring_body) - *g.at(Joint::spring_foot)) -
                          given_.fit.upper_stack - given_.fit.lower_stack;
  }

  void wanted() {
    PartsWanted out;
    bool any = false;
    for (const auto& H : end_.presets)
      if (H) {
        out.low = any ? std::min(out.low, *H) : *H;
        out.high = any ? std::max(out.high, *H) : *H;
        any = true;
      }
    if (!any || !model_.map->contains(out.low) || !model_.map->contains(out.high)) return;
    // On the road the reserves may reach further than any preset stands.
    if (end_.road) {
      out.low = std::min(out.low, std::max(model_.map->lowest(), *end_.road - model_.brief.bump_travel));
      out.high = std::max(out.high, std::min(model_.map->highest(), *end_.road + model_.brief.rebound_reserve));
    }
    if (model_.map->has_damper()) {
      out.shut = model_.map->damper(out.low).value;
      out.open = model_.map->damper(out.high).value;
      out.stroke = *out.open - *out.shut;
    }
    if (model_.surveyed_height && model_.stop_ratio)
      out.stop_gap = std::max(0.0, (given_.motion()->surveyed_height - out.low) * *model_.stop_ratio);
    if (end_.bag) {
      const BagOnEnd bag = end_.on();
      const double shift = model_.seat_shift;
      out.stack_most = model_.map->at(out.low).spring_length - bag.least_bag_height() - shift;
      out.stack_least = model_.map->at(out.high).spring_length - bag.card().max_height - shift;
    }
    out_.wanted = out;
  }

  const EndGiven& given_;
  const FittedEnd& end_;
  const EndModel& model_;
  Mounting out_;
};

} // namespace

Mounting mounting_of(const Answered<EndQuestion>& answer) {
  return Maker(answer).make();
}

} // namespace mavrel::assess
