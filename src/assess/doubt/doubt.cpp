#include "assess/doubt/doubt.h"

#include "assess/doubt/air_times.h"
#include "assess/end/end_answer.h"
#include "assess/ground/ground.h"
#include "assess/interference/interference_findings.h"
#include "build/names.h"
#include "parallel/in_parallel.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <mutex>
#include <stop_token>

namespace mavrel::assess {

namespace {

/// One limit of an end, whatever car it is drawn of: which it is, and on which side of the free heights.
struct LimitThere {
  const Limit* limit = nullptr;
  std::string near;
  const char* part = nullptr;
  std::optional<std::size_t> load_case;
  bool below = false;
  Message name;

  /// Which side of the free heights a stretch lies on; none in their midst.
  static std::optional<bool> is_below(const Stretch& s, const EndAssessment& e) {
    const bool low = s.from <= e.domain_low + 1e-9, high = s.to >= e.domain_high - 1e-9;
    return low == high ? std::nullopt : std::optional(low);
  }
  [[nodiscard]] bool is(const Stretch& s) const {
    return s.limit == limit && s.near == near && s.part == part && s.load_case == load_case;
  }
  [[nodiscard]] std::optional<double> height(const EndAssessment& e) const {
    std::optional<double> out;
    for (const Stretch& s : e.windows.reach_blocked)
      if (is(s) && is_below(s, e) == std::optional(below)) {
        const double H = below ? s.to : s.from;
        out = !out ? H : below ? std::max(*out, H) : std::min(*out, H);
      }
    return out;
  }
  [[nodiscard]] std::string key() const {
    std::string out = limit->key;
    for (const std::string& more : {near, std::string(part ? part : "")})
      if (!more.empty()) out += "." + more;
    if (load_case) out += ".case" + std::to_string(*load_case);
    return out + (below ? ".below" : ".above");
  }
};
using LimitsThere = std::array<std::vector<LimitThere>, 2>;

LimitsThere limits_there(const AnsweredEnds& ends) {
  LimitsThere out;
  for (const std::size_t e : {0U, 1U}) {
    const EndAssessment& here = ends[e]->assessment;
    for (const Stretch& s : here.windows.reach_blocked) {
      const auto below = LimitThere::is_below(s, here);
      if (!below || s.limit->unknown) continue;
      const bool had = std::any_of(out[e].begin(), out[e].end(),
                                   [&](const LimitThere& one) { return one.is(s) && one.below == *below; });
      if (!had) out[e].push_back({s.limit, s.near, s.part, s.load_case, *below, name_of(s)});
    }
  }
  return out;
}

/// The figures that are looked at in one draw, in a fixed order.
class Looked {
public:
  /// As the readings are, with names and words.
  static std::vector<DoubtAnswer> named(const build::Build& build, const shelf::Shelf& shelf,
                                        const std::stop_token& stop, const LimitsThere& limits) {
    Looked look;
    look.names_ = true;
    DrawnCar car;
    car.build = build;
    (void)look.at(car, shelf, false, stop, limits);
    const char* rows[air_times] = {words("Air: from parked to road"), words("Air: left in the tank by that"),
                                   words("Air: until the tank is full again"), words("Air: tank filled from empty")};
    const char* keys[air_times] = {"air.rise", "air.tank_after", "air.ready", "air.fill"};
    // Only of a car that makes such a lift: a kit that is not there yet has no times to be unsure of.
    if (!look.air_.goes_by.empty())
      for (std::size_t i = 0; i < air_times; ++i)
        look.add(i == 1 ? Kind::pressure : Kind::time, look.air_.times[i], [&] {
          return Named{keys[i], {rows[i], {}}};
        });
    const build::AirWishes& wishes = build.variant().brief.air;
    for (DoubtAnswer& a : look.answers_) {
      if (a.name == "air.rise") a.wanted_most = wishes.rise;
      if (a.name == "air.ready") a.wanted_most = wishes.ready;
    }
    return std::move(look.answers_);
  }
  /// @param simulate  the air too? Else only what its times go by
  [[nodiscard]] std::vector<std::optional<double>> at(const DrawnCar& car, const shelf::Shelf& shelf, bool simulate,
                                                      const std::stop_token& stop, const LimitsThere& limits) {
    const build::Build& build = car.build;
    const AnsweredEnds ends = ask_ends(build, shelf);
    const build::Brief& brief = build.variant().brief;
    for (const build::End end : build::both_ends) {
      const EndAssessment& here = ends[build::at(end)]->assessment;
      const char *key = build::key_of(end), *name = build::name_of(end);
      const auto edges = [&](const char* what, const char* low, const char* high, const std::optional<Window>& window) {
        add(Kind::length, window ? std::optional(window->low.height) : std::nullopt, [&] {
          return Named{fmt::format("{}.{}.low", key, what), {words("{0}: {1}"), {name, low}}};
        });
        add(Kind::length, window ? std::optional(window->high.height) : std::nullopt, [&] {
          return Named{fmt::format("{}.{}.high", key, what), {words("{0}: {1}"), {name, high}}};
        });
      };
      edges("reach", words("lowest it reaches"), words("highest it reaches"), here.windows.reach);
      edges("road", words("lowest on the road"), words("highest on the road"), here.windows.road);
      for (std::size_t p = 0; p < brief.presets.size(); ++p) {
        const auto& preset = p < here.presets.size() ? here.presets[p] : std::nullopt;
        const PoseState* pose =
            preset && !preset->cases.empty() && preset->cases.front() ? &*preset->cases.front() : nullptr;
        const auto named = [&](const char* what, const char* said) {
          return [&, what, said] {
            return Named{fmt::format("{}.preset.{}.{}", key, p, what),
                         {words("{0} at {1}: {2}"), {name, brief.presets[p].name, said}}};
          };
        };
        add(Kind::length, preset ? std::optional(preset->height) : std::nullopt, named("height", words("height")));
        if (names_) answers_.back().odds_inside = 0;
        stands_.push_back(preset ? std::optional(preset->stands(brief.presets[p].use)) : std::nullopt);
        add(Kind::pressure, pose ? std::optional(pose->pressure) : std::nullopt, named("pressure", words("pressure")));
        add(Kind::frequency, pose ? pose->ride_frequency : std::nullopt, named("frequency", words("frequency")));
        add(Kind::length, preset ? least_gap(here, preset->height) : std::nullopt,
            named("clearance", words("least gap")));
        if (names_) answers_.back().wanted_least = 0;
      }
    }
    const GroundAnswer ground = cross_ground(ground_given(build, ends));
    for (std::size_t g = 0; g < brief.grounds.size(); ++g)
      for (std::size_t p = 0; p < brief.presets.size(); ++p) {
        if (brief.presets[p].use != brief.grounds[g].over) continue;
        std::optional<double> room;
        for (const Crossing& c : ground.crossings)
          if (c.ground == g && c.preset == p && c.gap) room = c.gap->gap;
        add(Kind::length, room, [&] {
          return Named{fmt::format("ground.{}.preset.{}", g, p),
                       {words("{0} at {1}: room under the car"), {brief.grounds[g].name, brief.presets[p].name}}};
        });
        if (names_) answers_.back().wanted_least = 0;
      }
    for (const build::End end : build::both_ends)
      for (const LimitThere& one : limits[build::at(end)])
        add(Kind::length, one.height(ends[build::at(end)]->assessment), [&] {
          return Named{
              fmt::format("{}.limit.{}", build::key_of(end), one.key()),
              {one.below ? words("{0}: {1}, below") : words("{0}: {1}, above"), {build::name_of(end), one.name}}};
        });
    air_ = air_of(car, shelf, ends, names_ ? AirLook::as_read : simulate ? AirLook::simulated : AirLook::goes_by, stop);
    return std::move(values_);
  }
  [[nodiscard]] AirDrawn& air() { return air_; }
  /// Of each preset's height in the order they were added: does it stand?
  [[nodiscard]] const std::vector<std::optional<bool>>& stands() const { return stands_; }

private:
  static std::optional<double> least_gap(const EndAssessment& here, double H) {
    std::optional<double> out;
    for (const GapCurve& gap : here.gaps)
      if (const auto at = gap.at(H, true); at && (!out || *at < *out)) out = at;
    return out;
  }
  struct Named {
    std::string name;
    Message words;
  };
  /// @param named  gives what it is called; not asked in a draw, of which there are hundreds
  template <class Namer>
  void add(Kind kind, std::optional<double> value, const Namer& named) {
    values_.push_back(value);
    if (!names_) return;
    DoubtAnswer answer;
    Named said = named();
    answer.name = std::move(said.name), answer.words = std::move(said.words);
    answer.kind = kind, answer.value = value;
    answers_.push_back(std::move(answer));
  }

  bool names_ = false;
  std::vector<std::optional<double>> values_;
  std::vector<std::optional<bool>> stands_;
  AirDrawn air_;
  std::vector<DoubtAnswer> answers_;
};

} // namespace

const DoubtAnswer* Doubt::find(std::string_view name) const {
  for (const DoubtAnswer& answer : answers)
    if (answer.name == name) return &answer;
  return nullptr;
}

std::optional<double> Doubt::odds_of_preset(build::End end, std::size_t preset) const {
  const DoubtAnswer* answer = find(fmt::format("{}.preset.{}.height", build::key_of(end), preset));
  return answer && answer->value ? answer->odds_inside : std::nullopt;
}

std::vector<EdgeBand> edge_bands(const Doubt& doubt, build::End end) {
  std::vector<EdgeBand> out;
  for (const auto& [window, road] : {std::pair{"reach", false}, std::pair{"road", true}})
    for (const char* side : {"low", "high"}) {
      const DoubtAnswer* a = doubt.find(fmt::format("{}.{}.{}", build::key_of(end), window, side));
      if (a && a->value && a->sd > 0) out.push_back({road, a->p05, a->p95});
    }
  return out;
}

std::optional<Doubt> doubt(const DoubtGiven& given, const DoubtControl& control) {
  Doubt out;
  out.inputs = doubt_inputs(given.build, given.shelf);
  out.draws = given.draws, out.seed = given.seed;
  const build::Variant& design = given.build.variant();
  const shelf::Shelf as_cards_say = shelf_of(design, given.shelf, {});
  const AnsweredEnds as_read = ask_ends(given.build, as_cards_say);
  const LimitsThere limits = limits_there(as_read);
  out.answers = Looked::named(given.build, as_cards_say, control.stop, limits);
  const DoubtDraws draws(out.inputs, given.draws, given.seed);
  std::vector<std::vector<std::optional<double>>> values(given.draws);
  std::vector<std::vector<std::optional<bool>>> stands(given.draws);
  std::vector<AirDrawn> air(given.draws);
  const bool with_air = !out.answers.empty() && out.answers.back().name.starts_with("air.");
  std::mutex lock;
  std::size_t done = 0;
  in_parallel(given.draws, {std::max(1U, control.threads), control.stop, control.begin_thread}, [&](std::size_t i) {
    const DrawnCar car = drawn_car(given.build, out.inputs, draws.off(i));
    Looked look;
    values[i] =
        look.at(car, shelf_of(design, given.shelf, car.card), with_air && i < simulated_cars, control.stop, limits);
    values[i].resize(out.answers.size());
    stands[i] = look.stands();
    air[i] = std::move(look.air());
    if (!control.progress) return;
    const std::scoped_lock held(lock);
    control.progress(static_cast<double>(++done) / static_cast<double>(given.draws));
  });
  // The last of the simulations may have been broken off too.
  if (control.stop.stop_requested()) return std::nullopt;
  std::vector<AirTime> not_held;
  if (with_air) {
    not_held = carry_times(air);
    for (std::size_t i = 0; i < given.draws; ++i)
      for (std::size_t k = 0; k < air_times; ++k)
        values[i][out.answers.size() - air_times + k] = air[i].times[k];
  }
  look_at_draws(values, draws, out.inputs, out.answers);
  // Odds that a preset stands, over the draws that know.
  std::size_t p = 0;
  for (DoubtAnswer& answer : out.answers) {
    if (!answer.odds_inside) continue;
    double in = 0, known = 0;
    for (const auto& one : stands)
      if (p < one.size() && one[p]) known += 1, in += *one[p];
    answer.odds_inside = known > 0 ? std::optional(in / known) : std::nullopt;
    ++p;
  }
  // Odds that what is wanted of an answer is so.
  for (std::size_t a = 0; a < out.answers.size(); ++a) {
    DoubtAnswer& answer = out.answers[a];
    if (!answer.wanted_least && !answer.wanted_most) continue;
    double met = 0, known = 0;
    for (const auto& one : values) {
      if (!one[a] && !answer.wanted_most) continue; // nothing is near there
      known += 1;
      // What touches is no gap: nothing left is not clear.
      met += one[a] && (!answer.wanted_least || *one[a] > *answer.wanted_least + 1e-9) &&
             (!answer.wanted_most || *one[a] <= *answer.wanted_most);
    }
    if (known > 0) answer.odds_met = met / known;
  }
  // What is to be said of it plainly.
  for (Message& m : wrong_tools(given.build.doubts, out.inputs))
    out.trouble.push_back(std::move(m));
  if (!out.inputs.empty() &&
      std::all_of(out.inputs.begin(), out.inputs.end(), [](const DoubtInput& in) { return !(in.sd() > 0); }))
    out.trouble.push_back({words("Every tool is set to read without doubt, so no answer has any."), {}});
  for (const AnsweredEnd& end : as_read)
    for (const Finding& f : find_touching(touch_findings_given(given.build, end)))
      if (leaves_room_unknown(f))
        out.trouble.push_back({words("{0}. What it reaches may end before these bands say."), {f.title}});
  for (const AirTime which : not_held)
    out.trouble.push_back({words("{0}: by {1} simulated cars alone; it turns too sharply to be carried to all draws."),
                           {out.answers[out.answers.size() - air_times + static_cast<std::size_t>(which)].words,
                            std::to_string(std::min(simulated_cars, given.draws))}});
  for (const DoubtInput& in : out.inputs)
    if (in.value != 0 && in.what == Doubted::reading && in.sd() > std::abs(in.value) && in.kind != Kind::angle)
      out.trouble.push_back({words("{0}: its doubt is larger than what was read."), {in.name}});
  for (const DoubtAnswer& answer : out.answers)
    // A limit that lies beyond what is known in some of them limits nothing there.
    if (answer.vanished >= 0.005 && answer.vanished < 1 && answer.value &&
        answer.name.find(".limit.") == std::string::npos)
      out.trouble.push_back({words("{0}: in {1} of the draws there is none."), {answer.words, share(answer.vanished)}});
  if (std::none_of(out.answers.begin(), out.answers.end(), [](const DoubtAnswer& a) { return a.value.has_value(); }))
    out.trouble.push_back({words("Too little was read yet for an answer, so there is none to be unsure of."), {}});
  return out;
}

} // namespace mavrel::assess
