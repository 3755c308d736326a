#include "assess/why/remedies.h"

#include "build/names.h"
#include "motion/wheel.h"

#include <fmt/format.h>

#include <cmath>

namespace mavrel::assess {

using build::at;

namespace {

constexpr double some = 0.010; // m, of trimming, stacks and the like
constexpr std::size_t most_bags = 12;

class Trials {
public:
  Trials(const WhyGiven& given, const AnsweredEnd& end, const std::optional<Stretch>& governing)
      : given_(given), end_(end), limit_(governing ? governing->limit : nullptr), governing_(governing),
        low_(given.edge == WhichEdge::low) {}

  std::vector<Trial> all() {
    obstacles();
    lip();
    tyre();
    stop();
    stacks();
    damper();
    mounting();
    loose_ends();
    bags();
    reserves();
    return std::move(out_);
  }

private:
  [[nodiscard]] const build::EndSurvey& survey() const { return given_.build.end(given_.end); }
  [[nodiscard]] const build::EndFit& fit() const { return given_.build.variant().fit[at(given_.end)]; }

  template <class Change>
  void attempt(Message what, const Change& change) {
    Trial trial{std::move(what), given_.build, false};
    change(trial.build.end(given_.end), trial.build.variant().fit[at(given_.end)]);
    if (!(trial.build == given_.build)) out_.push_back(std::move(trial));
  }

  /// What it meets, further away: trimmed, notched, moved.
  void obstacles() {
    if (!governing_ || governing_->near.empty()) return;
    const bool axle = limit_ == &limits::axle_near;
    for (std::size_t i = 0; i < survey().obstacles.size(); ++i) {
      const build::Obstacle& o = survey().obstacles[i];
      if (o.name != governing_->near) continue;
      const double by = axle ? 2.5 * some : some;
      Message what = axle ? Message{words("A notch {0} deep in the {1}"), {told_from(metres(by), 0), o.name}}
                          : Message{words("{0} trimmed off the {1}, or it moved away so much"),
                                    {told_from(metres(by), 0), o.name}};
      attempt(std::move(what), [&](build::EndSurvey& e, build::EndFit&) { away(e, i, by); });
      return;
    }
    // A gap of the cycle sheet alone: every reading of it so much wider.
    attempt({words("{0} more room at the {1}"), {told_from(metres(some), 0), governing_->near}},
            [&](build::EndSurvey& e, build::EndFit&) { widen_sheet(e, governing_->near, some); });
  }
  static void widen_sheet(build::EndSurvey& e, const std::string& name, double by) {
    auto& rows = e.cycle;
    for (std::size_t r = 0; r < rows.size(); ++r) {
      const auto& gaps = std::as_const(rows)[r].gaps;
      for (std::size_t g = 0; g < gaps.size(); ++g)
        if (gaps[g].name == name) rows[r].gaps[g].value += by;
    }
  }
  void away(build::EndSurvey& e, std::size_t i, double by) const {
    build::Obstacle& o = e.obstacles[i];
    if (o.shape == build::ObstacleShape::gap) {
      if (o.gap) *o.gap += by;
      widen_sheet(e, o.name, by);
      return;
    }
    const auto& space = end_.given().clearance->space;
    if (!space) return;
    // Away from what comes near it: a face along its own normal, anything else from the hub, a rail straight up.
    space::Point way{0, 0, 1};
    if (o.shape == build::ObstacleShape::plane)
      way = space::Point{o.x - o.to_x, o.y - o.to_y, o.z - o.to_z};
    else if (limit_ != &limits::axle_near)
      way = space::Point{o.x, o.y, o.z} - space->hub();
    const double l = space::length(way);
    if (l < 1e-6) return;
    way = (by / l) * way;
    o.x += way.x, o.y += way.y, o.z += way.z;
    o.to_x += way.x, o.to_y += way.y, o.to_z += way.z;
  }

  void lip() {
    if (!survey().arch.lip_outward || limit_ != &limits::tyre_near) return;
    attempt({words("The arch lip rolled {0} further out"), {told_from(metres(0.8 * some), 0)}},
            [](build::EndSurvey&, build::EndFit& f) { f.lip_rolled += 0.8 * some; });
  }

  void tyre() {
    if (limit_ != &limits::tyre_near && limit_ != &limits::bag_near) return;
    const std::string wheel = fit().wheel.empty() ? survey().wheel : fit().wheel;
    const auto code = motion::parse_wheel(wheel);
    if (!code) return;
    const auto written = [](const motion::WheelCode& c) {
      return fmt::format("{:.0f}/{:.0f}R{:g} {:g} ET{:.0f}", c.tyre_width * 1e3, c.aspect * 100,
                         c.rim_diameter / 0.0254, std::round(c.rim_width / 0.0254 * 100) / 100, c.offset * 1e3);
    };
    const auto fitted = [&](const motion::WheelCode& c, const char* what) {
      const std::string other = written(c);
      if (!motion::parse_wheel(other)) return;
      attempt({what, {other}}, [&](build::EndSurvey&, build::EndFit& f) {
        f.wheel = other;
        f.tyre_width.reset();
      });
    };
    motion::WheelCode narrow = *code; // one size down, as tall
    narrow.tyre_width -= 0.010;
    narrow.aspect = std::round(code->aspect * code->tyre_width / narrow.tyre_width * 20) / 20;
    fitted(narrow, words("A narrower tyre, {0}"));
    motion::WheelCode flat = *code;
    flat.aspect -= 0.05;
    fitted(flat, words("A lower tyre, {0}"));
    for (const double by : {0.005, -0.005}) {
      motion::WheelCode moved = *code;
      moved.offset += by;
      fitted(moved, by > 0 ? words("More offset, {0}") : words("Less offset, {0}"));
    }
  }

  void stop() {
    if (!low_ || survey().bump_stop_gap.values.empty()) return;
    attempt({words("{0} off the bump stop"), {told_from(metres(some), 0)}}, [](build::EndSurvey& e, build::EndFit&) {
      for (double& gap : e.bump_stop_gap.values)
        gap += some;
    });
  }

  void stacks() {
    const double sign = low_ ? -1 : 1;
    for (const bool upper : {true, false}) {
      const double now = upper ? fit().upper_stack : fit().lower_stack;
      const double by = low_ ? std::min(some, now - 0.003) : some;
      if (!(by > 0.0005)) continue;
      attempt({low_ ? (upper ? words("An upper plate {0} thinner") : words("A lower plate {0} thinner"))
                    : (upper ? words("{0} more upper stack") : words("{0} more lower stack")),
               {told_from(metres(by), 0)}},
              [&](build::EndSurvey&, build::EndFit& f) { (upper ? f.upper_stack : f.lower_stack) += sign * by; });
    }
  }

  void damper() {
    const auto& model = end_->fitted.model;
    if (!model.damper_open || !model.damper_shut) return;
    const double shift = fit().mounting.damper_longer + fit().mounting.mount_thicker;
    const double by = 1.5 * some;
    if (low_)
      attempt({words("A damper {0} shorter when shut"), {told_from(metres(by), 0)}},
              [&](build::EndSurvey&, build::EndFit& f) { f.damper_shut = *model.damper_shut - shift - by; });
    else
      attempt({words("A damper {0} longer when open"), {told_from(metres(by), 0)}},
              [&](build::EndSurvey&, build::EndFit& f) { f.damper_open = *model.damper_open - shift + by; });
    attempt({low_ ? words("The body screwed {0} shorter") : words("The body screwed {0} longer"),
             {told_from(metres(some), 0)}},
            [&](build::EndSurvey&, build::EndFit& f) { f.mounting.damper_longer += low_ ? -some : some; });
    if (low_ && survey().layout == build::Layout::strut)
      attempt({words("An upper mount {0} thinner"), {told_from(metres(some), 0)}},
              [](build::EndSurvey&, build::EndFit& f) { f.mounting.mount_thicker -= some; });
  }

  void mounting() {
    if (limit_ != &limits::bag_tilt && limit_ != &limits::bag_offset) return;
    const build::StraightAt other =
        fit().mounting.straight_at == build::StraightAt::road ? build::StraightAt::parked : build::StraightAt::road;
    attempt({words("Brackets that stand the bag straight {0}"),
             {other == build::StraightAt::parked ? words("aired out") : words("at road height")}},
            [&](build::EndSurvey&, build::EndFit& f) {
              f.mounting.straight_at = other;
              f.mounting.upper.across_angle.reset(), f.mounting.upper.along_angle.reset();
              f.mounting.lower.across_angle.reset(), f.mounting.lower.along_angle.reset();
            });
    attempt({words("Brackets turned to where they stand the bag straight"), {}},
            [](build::EndSurvey&, build::EndFit& f) {
              f.mounting.upper.across_angle.reset(), f.mounting.upper.along_angle.reset();
              f.mounting.lower.across_angle.reset(), f.mounting.lower.along_angle.reset();
            });
    for (const double by : {some, -some})
      attempt({by > 0 ? words("The lower seat {0} further out") : words("The lower seat {0} further in"),
               {told_from(metres(some), 0)}},
              [&](build::EndSurvey&, build::EndFit& f) { f.mounting.lower.outward += by; });
  }

  void loose_ends() {
    if (limit_ == &limits::brake_hose && survey().hose.length)
      attempt({words("A brake hose {0} longer"), {told_from(metres(2 * some), 0)}},
              [](build::EndSurvey& e, build::EndFit&) { *e.hose.length += 2 * some; });
    if (limit_ == &limits::bar_link && survey().bar_link.length)
      for (const double by : {some, -some})
        attempt(
            {by > 0 ? words("A bar link {0} longer") : words("A bar link {0} shorter"), {told_from(metres(some), 0)}},
            [&](build::EndSurvey& e, build::EndFit&) { *e.bar_link.length += by; });
    if (limit_ == &limits::shaft_plunge)
      attempt({words("A shaft with {0} more plunge"), {told_from(metres(some), 0)}},
              [](build::EndSurvey& e, build::EndFit&) {
                if (e.shaft.plunge_in) *e.shaft.plunge_in += some;
                if (e.shaft.plunge_out) *e.shaft.plunge_out += some;
              });
  }

  void bags() {
    std::size_t tried = 0;
    for (const shelf::ShelfBag& bag : given_.shelf.bags) {
      if (bag.card.name == fit().bag || tried == most_bags) continue;
      if (survey().bag_room &&
          bag.card.max_diameter + 2 * given_.build.variant().brief.bag_clearance > *survey().bag_room)
        continue;
      ++tried;
      const std::size_t before = out_.size();
      attempt({words("Another bag, {0}"), {bag.card.name}},
              [&](build::EndSurvey&, build::EndFit& f) { f.bag = bag.card.name; });
      if (out_.size() > before) out_.back().bag = true;
    }
  }

  void reserves() {
    if (given_.window != WhichWindow::road) return;
    Trial trial{low_ ? Message{words("{0} less bump travel kept"), {told_from(metres(some), 0)}}
                     : Message{words("{0} less rebound reserve"), {told_from(metres(some), 0)}},
                given_.build, false};
    double& kept = low_ ? trial.build.variant().brief.bump_travel : trial.build.variant().brief.rebound_reserve;
    if (kept < some) return;
    kept -= some;
    out_.push_back(std::move(trial));
  }

  const WhyGiven& given_;
  const AnsweredEnd& end_;
  const Limit* limit_;
  const std::optional<Stretch>& governing_;
  bool low_;
  std::vector<Trial> out_;
};

} // namespace

std::vector<Trial> trials_for(const WhyGiven& given, const AnsweredEnd& end, const std::optional<Stretch>& governing) {
  return Trials(given, end, governing).all();
}

} // namespace mavrel::assess
