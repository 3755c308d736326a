#include "assess/swing/bench_sums.h"

#include "motion/workshop.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr double least_rod_gap = 0.010; // m between the rod's and the damper's skins
constexpr double usual_skins = 0.034;   // m, half a rod and half a damper body together

Amount angle(double rad, int decimals = 2) {
  return {rad, Kind::angle, decimals, {}};
}

class Sums {
public:
  Sums(const Answered<EndQuestion>& answer, const build::Workshop& w)
      : lock_(answer.given().survey().given().survey.points->lock.value_or(0)), motion_(*answer.given().motion()),
        end_(answer->fitted), w_(w) {}

  std::vector<BenchSum> make() {
    caster();
    shims();
    wedge();
    square();
    link();
    notch();
    bar();
    rod();
    return std::move(out_);
  }

private:
  template <class T, class Say>
  void add(const char* key, const Expected<T>& answer, const Say& say_it) {
    if (answer)
      out_.push_back({key, say_it(*answer), false});
    else
      out_.push_back({key, answer.error(), true});
  }
  [[nodiscard]] const motion::Geometry* geometry() const { return motion_.joints ? &motion_.joints->side[0] : nullptr; }
  /// Heights between the lowest and the highest preset, dh; none while the brief has no two.
  [[nodiscard]] std::optional<std::pair<double, double>> presets() const {
    std::optional<std::pair<double, double>> out;
    for (const auto& H : end_.presets) {
      if (!H) continue;
      const double dh = *H - motion_.surveyed_height;
      out = out ? std::pair{std::min(out->first, dh), std::max(out->second, dh)} : std::pair{dh, dh};
    }
    return out && out->second - out->first > 1e-3 ? out : std::nullopt;
  }

  void caster() {
    if (!w_.caster || !geometry()) return;
    add("caster", motion::shift_for_caster(*geometry(), *w_.caster), [&](const motion::CasterShift& s) -> Message {
      return {words("Caster {0}: the upper joint {1} {2}; the wheel goes {3} {4}. All arms as much the other way put "
                    "it back in "
                    "the middle of its arch."),
              {angle(*w_.caster, 1), metres(std::abs(s.upper), 1), s.upper >= 0 ? words("rearward") : words("forward"),
               metres(std::abs(s.wheel), 1), s.wheel >= 0 ? words("rearward") : words("forward")}};
    });
  }

  void shims() {
    if (!w_.shims || !w_.shim_thickness || !w_.pins || !w_.camber) return;
    const int count = static_cast<int>(std::lround(*w_.shims));
    add("shims", motion::split_shims(count, *w_.shim_thickness, w_.arms_offset.value_or(0), *w_.pins, *w_.camber),
        [&](const motion::ShimSplit& s) -> Message {
          return {
              words("Of {0} shims at each arm {1} inside the upper and {2} inside the lower give {3}; {4} is left."),
              {std::to_string(count), std::to_string(s.upper), std::to_string(s.lower), angle(s.change),
               angle(s.left)}};
        });
  }

  void wedge() {
    if (!w_.wedge || !w_.bolt_circle) return;
    out_.push_back({"wedge",
                    {words("A wedge shim of {0}: {1} thick at one edge of the bolts' circle, nothing at the other."),
                     {angle(*w_.wedge), metres(motion::wedge_edge(*w_.wedge, *w_.bolt_circle), 2)}},
                    false});
  }

  void square() {
    if (!w_.left_right || !w_.right_left || !w_.frame_width || !w_.axle_width) return;
    add("square", motion::squareness(*w_.left_right, *w_.right_left, *w_.frame_width, *w_.axle_width),
        [](const motion::Squareness& s) -> Message {
          if (std::abs(s.shift) < 0.0005) return {words("The axle stands square."), {}};
          return {words("The axle is out of square by {0}: the left links' bracket {1} {2} squares it."),
                  {angle(std::abs(s.yaw)), metres(std::abs(s.shift), 1),
                   s.shift > 0 ? words("further back") : words("further forward")}};
        });
  }

  void link() {
    if (!w_.link_length || !w_.end_a || !w_.end_b || !w_.thread_length || !w_.thread_diameter) return;
    add("link", motion::cut_link(*w_.link_length, *w_.end_a, *w_.end_b, *w_.thread_length, *w_.thread_diameter),
        [](const motion::LinkCut& c) -> Message {
          return {words("Cut the tube to {0}, one end with a right, one with a left thread: it turns {1} shorter and "
                        "{2} longer, "
                        "one and a half diameters of thread kept in."),
                  {metres(c.tube, 1), metres(c.shorter, 1), metres(c.longer, 1)}};
        });
  }

  void notch() {
    if (!w_.rail_gap || !end_.parked || motion_.surveyed_height == 0) return;
    const auto n =
        motion::notch_for(*w_.rail_gap, w_.rail_reserve.value_or(0.010), motion_.surveyed_height, *end_.parked);
    out_.push_back({"notch",
                    n.deep > 0
                        ? Message{words("Parked at {0} asks for a notch {1} deep over the tube; without one {2} is the "
                                        "lowest. Cutting a frame is for those licensed to."),
                                  {metres(*end_.parked), metres(n.deep), metres(n.lowest)}}
                        : Message{words("No notch is needed down to {0}."), {metres(n.lowest)}},
                    false});
  }

  void bar() {
    const auto range = presets();
    if (!geometry() || geometry()->shape != motion::Shape::solid_axle || !geometry()->at(motion::Joint::bar_body) ||
        !range)
      return;
    add("bar", motion::level_bar(*geometry(), range->first, range->second), [](const motion::LevelBar& b) -> Message {
      if (std::abs(b.raise) < 0.001)
        return {
            words(
                "From the lowest to the highest preset the axle goes {0} either way; the bar lies as well as it can."),
            {metres(b.before, 1)}};
      return {words("From the lowest to the highest preset the axle goes {0} either way; the bar's body end {1} {2} "
                    "makes it {3}."),
              {metres(b.before, 1), metres(std::abs(b.raise), 0), b.raise > 0 ? words("higher") : words("lower"),
               metres(b.after, 1)}};
    });
  }

  void rod() {
    const auto range = presets();
    if (!geometry() || !range || geometry()->shape == motion::Shape::solid_axle ||
        !geometry()->at(motion::Joint::rod_inner) || !geometry()->at(motion::Joint::damper_foot))
      return;
    add("rod", motion::rod_to_damper(*geometry(), range->first, range->second, lock_),
        [&](const motion::RodGap& r) -> Message {
          const double H = motion_.surveyed_height + r.dh, skins = r.gap - usual_skins;
          if (skins >= least_rod_gap)
            return {words("The track rod keeps {0} from the damper's middle line, nearest at {1}."),
                    {metres(r.gap), metres(H)}};
          return {
              words(
                  "The track rod comes to {0} from the damper's middle line at {1}: a rod end raised or a damper moved "
                  "makes room."),
              {metres(r.gap), metres(H)}};
        });
  }

  double lock_; // rad either way
  const EndMotion& motion_;
  const FittedEnd& end_;
  const build::Workshop& w_;
  std::vector<BenchSum> out_;
};

} // namespace

std::vector<BenchSum> bench_sums(const Answered<EndQuestion>& answer, const build::Workshop& workshop) {
  return Sums(answer, workshop).make();
}

} // namespace mavrel::assess
