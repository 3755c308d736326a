#include "assess/fit_up/checks.h"

#include "air/leak.h"
#include "assess/fit_up/asking.h"
#include "assess/fit_up/check_figures.h"
#include "build/names.h"
#include "build/names_fit_up.h"
#include "shelf/part_names.h"

#include <algorithm>

namespace mavrel::assess {

namespace {

constexpr CheckRow check_table[] = {
    {"seat_height", words("Seats equal on both sides"), true, Reads::end | Reads::mounting, 1,
     words("From plate to plate with the strut hanging straight, both sides.")},
    {"port", words("Port towards its line"), true, Reads::plates | Reads::air, 1,
     words("On the bench with the strut in its mount: the port low and near the axis, slack for both locks.")},
    {"mount", words("Upper mount as drawn"), true, Reads::mounting | Reads::plates, 1,
     words("The bearing's middle from the studs' middle, both sides.")},
    {"links", words("Links alike"), true, Reads::workshop | Reads::plates, 1,
     words("From joint to joint, and the thread that is in.")},
    {"notch", words("Notch deep enough"), true, Reads::workshop | Reads::motion | Reads::presets, 1,
     words("From the rail's underside up into the notch.")},
    {"heat", words("Heat away from bags"), true, 0, 1, words("Before a torch or welder is lit.")},
    {"offset", words("Bag centred between its plates"), true,
     Reads::motion | Reads::mounting | Reads::presets | Reads::end, 1,
     words("At road height: plumb from the upper plate's middle to the lower's.")},
    {"still", words("Nothing loose on a tacked axle"), true, static_cast<unsigned>(Reads::workshop), 1,
     words("Diagonals from the frame to the axle's ends; a hand on every clamp.")},
    {"angles", words("Angles equal on both sides"), true, Reads::motion | Reads::mounting | Reads::presets, 1,
     words("A gauge laid on each plate with the car at the height it was surveyed at; outer edge up and front edge up "
           "are positive.")},
    {"gaps", words("Gaps at the worst pose"), true, static_cast<unsigned>(Reads::end), 1,
     words("At the height and lock where each is least, with a feeler or the tape.")},
    {"stop_first", words("Stop meets before the bag"), true, static_cast<unsigned>(Reads::end), 1,
     words("Jacked until the bump stop meets."), CheckStage::both},
    {"vented", words("Bags vented and plugged"), true, 0, 1, words("Before a bag is pushed down.")},
    {"sensor", words("Sensor's lever clear of in line"), true, static_cast<unsigned>(Reads::sensors), 1,
     words("Lever against rod at the lowest and the highest height.")},
    {"lines", words("Lines as they were drawn"), false, Reads::air | Reads::motion, 1,
     words("Along every line, from end to end.")},
    {"fill", words("First fill"), false, static_cast<unsigned>(Reads::air), 1,
     words("From the shop’s line with every valve shut: slowly, listening, soap on every fitting. Then the car’s own "
           "compressor, from where it starts to where it stops."),
     CheckStage::proving, "lines"},
    {"leak_minutes", words("Pressure held for a while"), false, Reads::end | Reads::air | Reads::gauge, 1,
     words("Valves shut, compressor off, nobody leans on it: every gauge at once and again, with the thermometer."),
     CheckStage::proving, "fill"},
    {"leak_hold", words("Pressure held overnight"), false, Reads::end | Reads::air, 2,
     words("Gauge and thermometer at night and in the morning, once more in between where somebody is up: the "
           "temperature is taken out."),
     CheckStage::proving, "leak_minutes"},
    {"times", words("Fill and vent times"), false, Reads::end | Reads::air | Reads::presets | Reads::dampers, 1,
     words("Tank full, level floor, nobody aboard. One corner alone by its own valve, then all together; a watch, or "
           "the bench link, which times it itself."),
     CheckStage::proving, "leak_minutes"},
    {"pressures", words("Pressures at road height"), false, Reads::end | Reads::presets | Reads::gauge, 1,
     words("Each corner brought to road height slowly from below, then slowly from above: half of the difference is "
           "friction."),
     CheckStage::proving, "leak_minutes"},
    {"heights", words("Heights at the presets"), false, Reads::motion | Reads::presets, 2,
     words("Hub centre to arch lip on a level floor, each preset called up and left to settle."), CheckStage::proving,
     "fill"},
    {"calibrated", words("Controller taught"), false, Reads::sensors | Reads::controller | Reads::presets, 1,
     words("In the order that Leveling lists; every height called up again from above and from below."),
     CheckStage::proving, "heights leak_hold"},
    {"lock_gaps", words("Clear at full lock at every height"), true, Reads::end | Reads::presets, 1,
     words("Both locks at each preset, straight ahead at the rear, with a feeler or the tape. Hands out while it "
           "moves."),
     CheckStage::proving, "fill"},
    {"top_out", words("Does not top out"), true, Reads::end | Reads::presets, 1,
     words("Raised all the way on its own air, then on the lift with the wheels hanging."), CheckStage::proving,
     "fill"},
    {"road_test", words("Road test"), false, Reads::end | Reads::air | Reads::controller | Reads::presets, 1,
     words("Inside the road window: a smooth road first, then what the brief asks for, at last laden."),
     CheckStage::proving, "lock_gaps top_out stop_first leak_hold"},
    {"camber", words("Wheels aligned at road height"), false, Reads::end | Reads::presets, 2,
     words("On the aligner, at the height it is driven at, bounced and left to settle."), CheckStage::proving,
     "heights"},
    {"lamps", words("Lamps aimed"), false, Reads::motion | Reads::presets, 1,
     words("On a level floor at road height; the local inspection decides what is right."), CheckStage::proving,
     "camber"},
};

/// Without what the car has taught: a figure that was measured on it stays measured when predictions learn from it.
EndGiven as_designed(EndGiven end) {
  end.fit.learned_ratio.reset(), end.fit.learned_area.reset(), end.fit.learned_friction.reset();
  return end;
}
build::AirKit as_designed(build::AirKit kit) {
  kit.learned_flow = {};
  return kit;
}

/// The pieces of a design that checks read, each with its digest, made once where several read it.
class Pieces {
public:
  explicit Pieces(const FitUpGiven& given) : given_(given) {}

  Digest of(const CheckRow& row, std::optional<End> end) {
    Digester out;
    out.add(std::string_view(row.key));
    for (const End e : build::both_ends) {
      if (end && *end != e) continue;
      for (unsigned piece = 1; piece <= static_cast<unsigned>(Reads::dampers); piece *= 2)
        if (row.reads & piece) {
          const Digest d = piece_of(static_cast<Reads>(piece), e);
          out.add(d.high);
          out.add(d.low);
        }
    }
    return out.digest();
  }

private:
  struct Made {
    Reads what;
    End end;
    Digest digest;
  };
  Digest piece_of(Reads what, End end) {
    for (const Made& one : made_)
      if (one.what == what && one.end == end) return one.digest;
    made_.push_back({what, end, make(what, end)});
    return made_.back().digest;
  }
  /// What was entered, and what of the bag's card stands in for what was not.
  [[nodiscard]] Digest digest_of_plates(End end) const {
    const build::PlateFit& p = given_.plates(end);
    const auto& bag = given_.end(end)->fitted.bag;
    const air::BagCard card = bag ? bag->card : air::BagCard{};
    const auto by_card = [](const std::optional<double>& entered, double stated) {
      return air::WhereStated{entered ? 0 : stated};
    };
    return digest_of(std::tuple(p, by_card(p.bolts, card.bolts), by_card(p.bolt_circle, card.bolt_circle),
                                by_card(p.bolt_hole, card.bolt_hole), by_card(p.port_hole, card.port_hole),
                                by_card(p.port_out, card.port_out), by_card(p.port_turn, card.port_turn),
                                by_card(p.diameter, card.flange)));
  }
  [[nodiscard]] Digest make(Reads what, End end) const {
    const EndGiven& e = given_.end(end).given();
    const build::EndFit& fit = given_.fit(end);
    switch (what) {
    case Reads::motion:
      return digest_of(e.motion());
    case Reads::mounting:
      return digest_of(fit.mounting);
    case Reads::presets: {
      std::vector<std::pair<build::PresetUse, std::optional<build::HeightWish>>> wishes;
      for (const build::Preset& p : e.brief.presets)
        wishes.emplace_back(p.use, p.wish[build::at(end)]);
      return digest_of(std::tuple(wishes, e.clearance.given().wheel, given_.survey(end).wheel));
    }
    case Reads::end:
      return digest_of(as_designed(e));
    case Reads::plates:
      return digest_of_plates(end);
    case Reads::workshop:
      return digest_of(fit.workshop);
    case Reads::air: {
      const AirGiven& air = given_.air();
      const build::FitUp& fit_up = *given_.fit_up;
      return digest_of(std::tuple(as_designed(air.kit), air.parts, air.routes, given_.room.hot, given_.room.rooms,
                                  air.wheelbase, air.track, fit_up.handset, fit_up.controller_at, fit_up.handset_at));
    }
    case Reads::sensors:
      return digest_of(std::tuple(as_designed(e), given_.sensors.given().fits[build::at(end)]));
    case Reads::controller:
      return digest_of(given_.leveling.set_up());
    case Reads::gauge:
      return digest_of(std::tuple(given_.gauge_error, given_.load_doubt));
    case Reads::dampers:
      return digest_of(std::tuple(fit.damper_curve, given_.survey(end).bar_rate));
    }
    return {};
  }

  const FitUpGiven& given_;
  std::vector<Made> made_;
};

/// Pa of a figure that readings over time give; none where there are none, or too few.
std::optional<double> drop_read(const HoldPoint& point, std::size_t figure,
                                const std::vector<build::ProofSeries>& series) {
  const AskedFigure& f = point.figures[figure];
  if (f.read != ReadBy::drop) return std::nullopt;
  for (const build::ProofSeries& one : series)
    if (one.check == point.id && one.gauge == f.key)
      if (const auto drop = drop_of(one.readings, f.hold)) return drop->pressure;
  return std::nullopt;
}

/// What of a note was measured, what of it is wrong, and whether what was signed still stands.
/// @param series  readings over time, which stand for the figures they give
void read_note(const build::HoldCheck& note, const std::vector<build::ProofSeries>& series, HoldPoint& point) {
  bool any = false;
  for (std::size_t i = 0; i < point.figures.size(); ++i)
    for (const build::CheckFigure& f : note.figures)
      if (f.what == point.figures[i].key) {
        point.measured[i] = measured_of(f, point.figures[i].kind);
        any = any || point.measured[i].has_value();
      }
  if (note.result == build::CheckResult::open)
    for (std::size_t i = 0; i < point.figures.size(); ++i)
      if (const auto read = drop_read(point, i, series)) point.measured[i] = *read, any = true;
  for (std::size_t i = 0; i < point.figures.size(); ++i) {
    if (!point.measured[i]) continue;
    const AskedFigure& f = point.figures[i];
    const bool unlike = f.twin && f.alike > 0 && point.measured[*f.twin] &&
                        std::abs(*point.measured[i] - *point.measured[*f.twin]) > f.alike;
    if (!f.right(*point.measured[i]) || unlike) point.wrong.push_back(i);
  }
  if (note.result == build::CheckResult::open) {
    point.state = any ? CheckState::begun : CheckState::open;
    return;
  }
  const bool of_this = note.digest == point.digest.text() && note.formula == point.row->formula;
  // Signed as failed, and right by now: what it was held against has followed the car. It is signed again.
  bool whole = point.wrong.empty();
  for (std::size_t i = 0; i < point.figures.size(); ++i)
    whole = whole && !point.figures[i].awaited && (point.measured[i] || point.figures[i].optional);
  const bool followed = of_this && note.result == build::CheckResult::failed && whole;
  if (of_this && !followed) {
    point.state = note.result == build::CheckResult::passed ? CheckState::passed : CheckState::failed;
    return;
  }
  point.state = CheckState::stale;
  const auto same = [](const std::optional<double>& a, const std::optional<double>& b) {
    return a.has_value() == b.has_value() && (!a || std::abs(*a - *b) <= 1e-6 * std::max(1.0, std::abs(*a)));
  };
  for (std::size_t i = 0; i < point.figures.size(); ++i) {
    const AskedFigure& f = point.figures[i];
    const build::CheckFigure* old = nullptr;
    for (const build::CheckFigure& one : note.figures)
      if (one.what == f.key) old = &one;
    const auto look = [&](MovedFigure::What what, const std::optional<double>& was, const std::optional<double>& is) {
      if (same(was, is)) return false;
      point.moved.push_back({i, what, was, is});
      return true;
    };
    const build::CheckFigure none;
    if (!old) old = &none;
    if (f.awaited) continue; // nobody knows yet whether it moved
    // Limits that lie round the design move with it: said once.
    if (look(MovedFigure::What::designed, designed_of(*old, f.kind), f.designed) || f.yes_no) continue;
    look(MovedFigure::What::least, old->was_least, f.least);
    look(MovedFigure::What::most, old->was_most, f.most);
  }
}

} // namespace

Expected<Drop> drop_of(const std::vector<build::ProofReading>& readings, double hold) {
  std::vector<air::LeakReading> read;
  std::optional<double> warm; // what was not read is taken from the reading before
  for (const build::ProofReading& r : readings) {
    if (r.temperature) warm = r.temperature;
    if (r.pressure) read.push_back({r.time, *r.pressure, warm.value_or(usual_air)});
  }
  const auto leak = air::find_leak(read, 1e-3);
  if (!leak) return refuse(leak.error());
  const double p_abs = read.front().gauge_pressure + air::Ambient{}.pressure();
  return Drop{leak->loss / leak->mass * hold * p_abs, 2 * leak->loss_sd / leak->mass * hold * p_abs,
              read.front().gauge_pressure - read.back().gauge_pressure};
}

std::span<const CheckRow> check_rows() {
  return check_table;
}
const CheckRow* check_row(std::string_view key) {
  const auto found =
      std::find_if(std::begin(check_table), std::end(check_table), [&](const CheckRow& r) { return key == r.key; });
  return found == std::end(check_table) ? nullptr : found;
}

std::pair<const CheckRow*, std::optional<End>> row_of_check(std::string_view id) {
  for (const End end : build::both_ends) {
    const std::string front = std::string(build::key_of(end)) + ".";
    if (!id.starts_with(front)) continue;
    const CheckRow* row = check_row(id.substr(front.size()));
    return {row && row->of_end ? row : nullptr, end};
  }
  const CheckRow* row = check_row(id);
  return {row && !row->of_end ? row : nullptr, std::nullopt};
}

Message check_name(const std::string& id) {
  const auto [row, end] = row_of_check(id);
  if (!row) return {words("{0}"), {id}};
  if (!end) return {row->name, {}};
  return {words("{0}: {1}"), {build::name_of(*end), row->name}};
}

Message name_of_moved(const AskedFigure& figure, MovedFigure::What what) {
  switch (what) {
  case MovedFigure::What::designed:
    break;
  case MovedFigure::What::least:
    return {words("at least, {0}"), {figure.name}};
  case MovedFigure::What::most:
    return {words("at most, {0}"), {figure.name}};
  }
  return figure.name;
}

const char* name_of(CheckState state) {
  switch (state) {
  case CheckState::open:
    return words("open");
  case CheckState::begun:
    return words("begun");
  case CheckState::passed:
    return words("passed");
  case CheckState::failed:
    return words("failed");
  case CheckState::stale:
    return words("stale");
  }
  return "";
}

std::vector<std::string> check_ids(const FitUpGiven& given, const std::array<FeatureSet, 2>& features,
                                   const std::string& key, std::optional<End> end) {
  const CheckRow* row = check_row(key);
  if (!row) return {};
  if (!row->of_end) return {key};
  std::vector<std::string> out;
  for (const End e : build::both_ends) {
    if (end && *end != e) continue;
    if (!end && (features[build::at(e)] & bit(build::Feature::bag)) == 0) continue;
    if (!asked_figures(given, *row, e).empty()) out.push_back(std::string(build::key_of(e)) + "." + key);
  }
  return out;
}

std::optional<double> measured_of(const build::CheckFigure& f, Kind kind) {
  switch (kind) {
  case Kind::length:
    return f.length;
  case Kind::angle:
    return f.angle;
  case Kind::pressure:
    return f.pressure;
  case Kind::time:
    return f.time;
  default:
    return f.number;
  }
}

const char* measured_field(Kind kind) {
  switch (kind) {
  case Kind::length:
    return "length_m";
  case Kind::angle:
    return "angle_rad";
  case Kind::pressure:
    return "pressure_pa";
  case Kind::time:
    return "time_s";
  default:
    return "number";
  }
}

bool is_proof(const HoldPoint& point) {
  return point.row->stage != CheckStage::fit_up;
}

std::vector<HoldPoint> hold_points(const FitUpGiven& given, const Predictions* predicted) {
  std::vector<HoldPoint> out;
  const auto features = features_of(given);
  Pieces pieces(given);
  const auto& notes = given.fit_up->checks;
  const auto add = [&](const CheckRow& row, std::optional<End> end) {
    HoldPoint point;
    point.figures = asked_figures(given, row, end);
    if (point.figures.empty()) return;
    point.row = &row;
    point.end = end;
    point.id = end ? std::string(build::key_of(*end)) + "." + row.key : std::string(row.key);
    point.name = check_name(point.id);
    point.digest = pieces.of(row, end);
    for (AskedFigure& f : point.figures)
      if (f.awaited && predicted)
        if (const auto said = predicted->find(point.id + "/" + f.key); said != predicted->end())
          judge_predicted(f, said->second);
    point.measured.resize(point.figures.size());
    for (std::size_t i = 0; i < notes.size() && !point.note; ++i)
      if (notes[i].check == point.id) point.note = i;
    if (point.note) read_note(notes[*point.note], given.proving->series, point);
    out.push_back(std::move(point));
  };
  for (const CheckRow& row : check_table) {
    if (!row.of_end)
      add(row, std::nullopt);
    else
      for (const End end : build::both_ends)
        if (asked_for(row, features[build::at(end)])) add(row, end);
  }
  for (HoldPoint& point : out)
    for (const std::string& key : ids_in(point.row->before))
      for (const HoldPoint& first : out)
        if (key == first.row->key && first.state != CheckState::passed &&
            (!point.end || !first.end || point.end == first.end))
          point.before.push_back(first.id);
  return out;
}

Expected<build::HoldCheck> signed_check(const HoldPoint& point, build::HoldCheck note,
                                        const std::vector<build::ProofSeries>& series, const std::string& by,
                                        const std::string& day) {
  if (by.empty()) return refuse(words("{0}: nobody’s name is under it. Say who signs."), {point.name});
  if (!point.before.empty())
    return refuse(words("{0}: “{1}” comes first and has not passed."), {point.name, check_name(point.before.front())});
  HoldPoint now = point;
  now.measured.assign(point.figures.size(), std::nullopt);
  now.wrong.clear();
  note.result = build::CheckResult::open;
  read_note(note, series, now);
  for (std::size_t i = 0; i < point.figures.size(); ++i) {
    const AskedFigure& f = point.figures[i];
    if (!now.measured[i] && !f.optional)
      return refuse(words("{0}: “{1}” is still to be measured."), {point.name, f.name});
    if (now.measured[i] && f.awaited)
      return refuse(words("{0}: what “{1}” should come to is still being worked out."), {point.name, f.name});
  }
  build::HoldCheck out;
  out.check = point.id;
  out.result = now.wrong.empty() ? build::CheckResult::passed : build::CheckResult::failed;
  out.by = by;
  out.day = day;
  out.digest = point.digest.text();
  out.formula = point.row->formula;
  out.notes = note.notes;
  out.extra = note.extra;
  for (std::size_t i = 0; i < point.figures.size(); ++i)
    out.figures.push_back(figure_of(point.figures[i], now.measured[i]));
  return out;
}

} // namespace mavrel::assess
