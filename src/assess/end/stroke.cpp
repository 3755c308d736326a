#include "assess/end/stroke.h"

#include "build/names.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr double quick_frequency = 3; // Hz, of a stroke over a bump: quicker than the body, slower than wheel hop
constexpr double stroke_step = 0.001; // m

/// A stroke one way, ready to be asked: the side that is judged, and what of the added volume breathes with it.
class OneWay {
public:
  OneWay(const BagOnEnd& bag, const BagOnEnd::Place& from, double mass, double to)
      : bag_(bag), from_(from), setting_(bag.model().setting) {
    const auto p = bag.pressure(from, mass);
    if (!p) return;
    pressure_ = *p;
    answers_ = true;
    const double swing = std::abs(to - from.H);
    if (setting_.added_volume > 0 && swing > 0)
      taking_part_ = volume_taking_part(bag.softened(from, *p, quick_frequency, swing), setting_, from.section.volume,
                                        quick_frequency);
  }

  [[nodiscard]] bool answers() const { return answers_; }
  [[nodiscard]] double taking_part() const { return taking_part_; }

  /// @returns the sealed bag there; none off the card
  [[nodiscard]] std::optional<air::StrokePoint> quick(double H) const {
    air::BagSetting quick = setting_;
    quick.added_volume = taking_part_;
    return at(H, quick.n, quick);
  }
  [[nodiscard]] std::optional<air::StrokePoint> slow(double H) const { return at(H, 1, setting_); }

private:
  [[nodiscard]] std::optional<air::StrokePoint> at(double H, double n, const air::BagSetting& setting) const {
    const air::BagCurve& curve = bag_.bag().curve;
    constexpr double rounding = 1e-9; // the ends of the card, found by a root, may miss by a digit
    double to = bag_.bag_height(H);
    if (std::abs(to - curve.lowest()) < rounding) to = curve.lowest();
    if (std::abs(to - curve.highest()) < rounding) to = curve.highest();
    const double from = std::clamp(bag_.bag_height(from_.H), curve.lowest(), curve.highest());
    const auto point = air::sealed_stroke(curve, from, pressure_, to, n, setting);
    if (!point) return std::nullopt;
    return *point;
  }

  const BagOnEnd& bag_;
  const BagOnEnd::Place& from_;
  const air::BagSetting& setting_;
  double pressure_ = 0, taking_part_ = 0;
  bool answers_ = false;
};

StrokeEnd end_of(const BagOnEnd& bag, const OneWay& way, double H, const Limit& by) {
  StrokeEnd out;
  out.height = H;
  out.by = &by;
  out.added_taking_part = way.taking_part();
  if (const auto point = way.quick(H)) {
    out.pressure = point->gauge_pressure;
    out.beyond = air::beyond(bag.card(), *out.pressure);
  }
  return out;
}

std::vector<BumpEnd> bump_ends(const BagOnEnd& bag) {
  const EndModel& model = bag.model();
  std::vector<BumpEnd> out;
  const auto add = [&](BumpEnd::What what, const std::optional<double>& H) {
    if (H) out.push_back({what, *H});
  };
  add(BumpEnd::What::bump_stop, model.stop_height);
  if (model.stop_height && model.stop_give > 0)
    add(BumpEnd::What::bump_stop_solid, *model.stop_height - model.stop_give);
  add(BumpEnd::What::bag_collapsed, bag.height_for_bag(bag.card().collapsed_height));
  if (!bag.card().internal_stop) add(BumpEnd::What::bag_margin, height_of_bag_margin(bag));
  if (model.damper_shut && model.map->has_damper())
    add(BumpEnd::What::damper_shut, model.map->height_for_damper(*model.damper_shut));
  std::stable_sort(out.begin(), out.end(), [](const BumpEnd& a, const BumpEnd& b) { return a.H > b.H; });
  return out;
}

} // namespace

const char* bump_end_name(BumpEnd::What what) {
  switch (what) {
  case BumpEnd::What::bump_stop:
    return words("Bump stop");
  case BumpEnd::What::bump_stop_solid:
    return words("Bump stop squeezed");
  case BumpEnd::What::bag_margin:
    return words("Bag down to its margin");
  case BumpEnd::What::bag_collapsed:
    return words("Bag collapsed");
  case BumpEnd::What::damper_shut:
    return words("Damper shut");
  }
  return "";
}

double volume_taking_part(const air::SoftenedBag& bag, const air::BagSetting& setting, double volume,
                          double frequency) {
  if (setting.added_volume == 0) return 0;
  const double trapped = bag.stiffness(frequency).real() + bag.per_height; // what the air alone resists with
  const double whole = bag.drive / trapped * setting.n * air::pressure_work(setting.ambient.temperature);
  return std::clamp(whole - volume, 0.0, setting.added_volume); // rounding may step over either end
}

std::optional<StrokeEnds> stroke_ends(const BagOnEnd& bag, const EndLoad& load, const BagOnEnd::Place& from,
                                      const Travel& travel) {
  if (!travel.contains(from.H)) return std::nullopt;
  const auto masses = bag.model().bag_masses(load);
  const OneWay bump(bag, from, std::max(masses[0], masses[1]), travel.low);
  const OneWay rebound(bag, from, std::min(masses[0], masses[1]), travel.high);
  if (!bump.answers() || !rebound.answers()) return std::nullopt;
  return StrokeEnds{end_of(bag, bump, travel.low, *travel.low_by), end_of(bag, rebound, travel.high, *travel.high_by)};
}

Expected<Stroke> stroke_through(const FittedEnd& end, double from, std::size_t load_case) {
  const auto start = posed_end(end, from, load_case);
  if (!start) return refuse(start.error());
  const BagOnEnd bag = end.on();
  const auto travel = free_travel(bag, Meeting::hit);
  if (!travel) return refuse(words("No stroke is left between the limits."));
  if (!travel->contains(from))
    return refuse(words("{0} at {1} lies outside its travel, {2} to {3}."),
                  {build::name_of(end.model.end),
                   told_from(metres(from), from < travel->low ? travel->low : travel->high),
                   told_from(metres(travel->low), from), told_from(metres(travel->high), from)});
  const auto masses = end.model.bag_masses(start->load);
  const OneWay bump(bag, start->place, std::max(masses[0], masses[1]), travel->low);
  const OneWay rebound(bag, start->place, std::min(masses[0], masses[1]), travel->high);
  if (!bump.answers() || !rebound.answers())
    return refuse(words("{0} at {1}: one side carries nothing."), {build::name_of(end.model.end), metres(from)});

  Stroke out;
  out.from = from;
  out.ends = {end_of(bag, bump, travel->low, *travel->low_by), end_of(bag, rebound, travel->high, *travel->high_by)};
  const double least_allowed = bag.card().min_pressure, most_allowed = bag.card().max_pressure;
  const auto steps = std::max(1, static_cast<int>(std::ceil((travel->high - travel->low) / stroke_step)));
  for (int i = 0; i <= steps; ++i) {
    const double H = std::min(travel->low + (travel->high - travel->low) / steps * i, travel->high);
    const OneWay& way = H < from ? bump : rebound;
    const auto slowly = way.slow(H), quickly = way.quick(H);
    if (!slowly || !quickly) continue;
    out.points.push_back({H, slowly->gauge_pressure, quickly->gauge_pressure, slowly->force, quickly->force});
    if (quickly->gauge_pressure > most_allowed) out.over_maximum = H;
    const bool slack = std::min(slowly->gauge_pressure, quickly->gauge_pressure) < least_allowed;
    if (slack && H > from && !out.under_minimum) out.under_minimum = H;
  }
  if (out.points.empty()) return refuse(words("The bag's card has no answer over this stroke."));
  out.order = bump_ends(bag);
  out.stop_before_bag =
      bag.card().internal_stop || (!out.order.empty() && out.order.front().what != BumpEnd::What::bag_margin &&
                                   out.order.front().what != BumpEnd::What::bag_collapsed);
  return out;
}

} // namespace mavrel::assess
