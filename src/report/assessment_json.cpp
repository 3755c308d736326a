#include "report/assessment_json.h"

#include "quantity/units.h"
#include "report/file_units.h"

#include "assess/end/end_answer.h"
#include "assess/ground/ground.h"
#include "build/names.h"
#include "report/json_tree.h"

#include <algorithm>

namespace mavrel::report {

namespace {

using namespace assess;

Json of(const std::optional<double>& value) {
  return value ? Json(*value) : Json(nullptr);
}

Json of(air::Beyond beyond) {
  return beyond == air::Beyond::nothing ? Json(nullptr) : Json(air::beyond_key(beyond));
}

Json of(const Stretch& s, const Assessment& a) {
  Json out = {{"limit", s.limit->key}, {"from_m", s.from}, {"to_m", s.to}};
  if (s.load_case) out["load_case"] = a.loads[*s.load_case].name;
  if (s.reserve > 0) out["reserve_m"] = s.reserve;
  if (s.part) out["part"] = s.part;
  if (!s.near.empty()) out["near"] = s.near;
  return out;
}

Json of(const Edge& edge, const Assessment& a) {
  Json out = {{"height_m", edge.height}};
  out["governing"] = edge.governing ? of(*edge.governing, a) : Json(nullptr);
  out["next"] = edge.next ? of(*edge.next, a) : Json(nullptr);
  if (edge.next) out["next_height_m"] = edge.next_height;
  if (edge.height_per_metre) out["height_per_part"] = *edge.height_per_metre;
  return out;
}

Json of(const std::optional<Window>& window, const Assessment& a) {
  if (!window) return nullptr;
  return {{"low", of(window->low, a)}, {"high", of(window->high, a)}};
}

std::string key_of(const TrackRow& row) {
  const std::string unit = file_unit(row.kind).si;
  return unit.empty() ? row.key : row.key + ("_" + unit);
}

Json of(const Track& track) {
  Json heights = Json::array(), values = Json::array();
  for (const TrackPiece& piece : track.pieces)
    for (std::size_t i = 0; i < piece.values.size(); ++i) {
      heights.push_back(piece.from + piece.step * static_cast<double>(i));
      values.push_back(piece.values[i]);
    }
  Json out = {{"height_m", heights}, {key_of(*track.what), values}};
  if (!track.beyond.empty()) {
    out["beyond"] = Json::array();
    for (const BeyondStretch& s : track.beyond)
      out["beyond"].push_back({{"from_m", s.from}, {"to_m", s.to}, {"what", air::beyond_key(s.what)}});
  }
  return out;
}

Json of(const PoseState& s) {
  return {{"gauge_pressure_pa", s.pressure},
          {"left_gauge_pressure_pa", s.side_pressure[0]},
          {"right_gauge_pressure_pa", s.side_pressure[1]},
          {"bag_height_m", s.bag_height},
          {"wheel_rate_n_per_m", s.wheel_rate},
          {"body_frequency_hz", of(s.frequency)},
          {"ride_frequency_hz", of(s.ride_frequency)},
          {"beyond", of(s.beyond)}};
}

/// @param solid  between bodies: what overlaps is nothing apart
Json of(const TrackPiece& piece, bool solid) {
  Json heights = Json::array(), values = Json::array();
  for (std::size_t i = 0; i < piece.values.size(); ++i) {
    heights.push_back(piece.from + piece.step * static_cast<double>(i));
    values.push_back(solid ? std::max(0.0, piece.values[i]) : piece.values[i]);
  }
  return {{"height_m", heights}, {"gap_m", values}};
}

Json of(const GapCurve& gap) {
  constexpr const char* sources[] = {"solid", "sheet", "taped"};
  Json out = {{"of", key_of(gap.mover)},
              {"to", say(gap.near.told())},
              {"room_m", gap.near.room},
              {"source", sources[static_cast<std::size_t>(gap.source)]}};
  if (gap.near.right) out["side"] = "right";
  if (const auto& overlap = gap.as_surveyed)
    out["overlaps_as_surveyed"] = {{"depth_m", overlap->depth},
                                   {"at_least", overlap->at_least},
                                   {"excused", overlap->was_on_car && !overlap->everywhere}};
  if (gap.taped_at) out["taped_at_m"] = *gap.taped_at;
  out["straight"] = gap.straight ? of(*gap.straight, gap.source == GapSource::solid) : Json(nullptr);
  out["least_over_steer"] = gap.least ? of(*gap.least, gap.source == GapSource::solid) : Json(nullptr);
  return out;
}

Json of(const GroundAnswer& ground, const GroundGiven& given, const build::Build& build) {
  Json out = {{"known", ground.known}, {"crossings", Json::array()}, {"angles", Json::array()}};
  const auto& presets = build.variant().brief.presets;
  for (const Crossing& c : ground.crossings) {
    Json one = {{"over", given.grounds[c.ground].name},
                {"preset", presets[c.preset].name},
                {"front_m", c.front},
                {"rear_m", c.rear},
                {"margin_m", given.grounds[c.ground].margin}};
    one["least_gap_m"] = c.gap ? Json(c.gap->gap) : Json(nullptr);
    if (c.gap) {
      one["front_axle_at_m"] = c.gap->front_at;
      one["point"] = c.point;
    }
    out["crossings"].push_back(std::move(one));
  }
  for (std::size_t i = 0; i < ground.angles.size(); ++i)
    if (const auto& a = ground.angles[i])
      out["angles"].push_back({{"preset", presets[i].name},
                               {"approach_rad", of(a->approach)},
                               {"departure_rad", of(a->departure)},
                               {"breakover_rad", of(a->breakover)}});
  return out;
}

Json of(const EndAssessment& end, const build::Build& build, const Assessment& a) {
  Json out = {{"surveyed_height_m", of(end.surveyed_height)},
              {"tyre_radius_m", of(end.tyre_radius)},
              {"unsprung_kg", end.unsprung_mass},
              {"unsprung_estimated", end.unsprung_estimated},
              {"domain_m", {end.domain_low, end.domain_high}}};
  if (end.rough()) {
    out["estimated"] = Json::array();
    for (const Estimate& estimate : end.estimated)
      out["estimated"].push_back({{"reading", estimate.field},
                                  {"value", estimate.usual.value},
                                  {"doubt", estimate.usual.doubt},
                                  {"from_now", estimate.from_now}});
  }
  out["reach_window"] = of(end.windows.reach, a);
  out["road_window"] = of(end.windows.road, a);
  for (const auto& [key, blocked] :
       {std::pair{"reach_blocked", &end.windows.reach_blocked}, std::pair{"road_blocked", &end.windows.road_blocked}}) {
    out[key] = Json::array();
    for (const Stretch& s : *blocked)
      out[key].push_back(of(s, a));
  }
  out["presets"] = Json::array();
  for (std::size_t i = 0; i < end.presets.size(); ++i) {
    Json preset = {{"name", build.variant().brief.presets[i].name}};
    if (const auto& p = end.presets[i]) {
      preset["height_m"] = p->height;
      preset["in_reach"] = p->in_reach;
      preset["in_road"] = p->in_road;
      preset["cases"] = Json::array();
      for (std::size_t c = 0; c < p->cases.size(); ++c) {
        Json state = p->cases[c] ? of(*p->cases[c]) : Json::object();
        state["load_case"] = a.loads[c].name;
        preset["cases"].push_back(std::move(state));
      }
    } else {
      preset["height_m"] = nullptr;
    }
    out["presets"].push_back(std::move(preset));
  }
  out["stroke"] = Json::array();
  for (std::size_t c = 0; c < end.strokes.size(); ++c)
    if (const auto& s = end.strokes[c])
      out["stroke"].push_back({{"load_case", a.loads[c].name},
                               {"bump_height_m", s->bump.height},
                               {"bump_ended_by", s->bump.by->key},
                               {"bump_gauge_pressure_pa", of(s->bump.pressure)},
                               {"bump_beyond", of(s->bump.beyond)},
                               {"rebound_height_m", s->rebound.height},
                               {"rebound_ended_by", s->rebound.by->key},
                               {"rebound_gauge_pressure_pa", of(s->rebound.pressure)},
                               {"rebound_beyond", of(s->rebound.beyond)}});
  out["gaps"] = Json::array();
  for (const GapCurve& gap : end.gaps)
    out["gaps"].push_back(of(gap));
  Json tracks = Json::object();
  for (const Track& track : end.tracks)
    tracks[key_of(*track.what)] = of(track);
  tracks["cases"] = Json::array();
  for (std::size_t c = 0; c < end.cases.size(); ++c) {
    Json one = {{"load_case", a.loads[c].name}};
    for (const Track& track : end.cases[c])
      one[key_of(*track.what)] = of(track);
    tracks["cases"].push_back(std::move(one));
  }
  out["tracks"] = std::move(tracks);
  return out;
}

Json of(const Amount& amount) {
  return {{"value", amount.value}, {"unit", si_unit_name(amount.kind)}};
}

Json of(const Finding& f) {
  Json out = {{"code", f.code}, {"severity", severity_key(f.severity)}, {"stage", f.stage->key}};
  out["end"] = f.end ? Json(build::key_of(*f.end)) : Json(nullptr);
  out["place"] = f.place;
  out["number"] = f.number ? of(*f.number) : Json(nullptr);
  out["limit"] = f.limit ? of(*f.limit) : Json(nullptr);
  out["title"] = say(f.title);
  out["reason"] = say(f.reason);
  out["way_out"] = say(f.way_out);
  return out;
}

} // namespace

std::string assessment_json(const build::Build& build, const Assessment& a) {
  Json out = {{"car", build.job.car}, {"variant", build.variant().name}};
  out["cross_weight"] = of(a.cross_weight);
  out["floor_twist_m"] = of(a.floor_twist);
  out["load_cases"] = Json::array();
  for (const CaseLoad& load : a.loads) {
    Json one = {{"name", load.name}, {"total_kg", of(load.total_mass)}};
    if (load.standing_lean) one["standing_lean_rad"] = *load.standing_lean;
    for (const build::End end : build::both_ends)
      if (const auto& l = load.ends[build::at(end)])
        one[build::key_of(end)] = {{"axle_kg", l->axle_mass},
                                   {"sprung_corner_kg", l->sprung_mass},
                                   {"left_sprung_kg", l->side_mass[0]},
                                   {"right_sprung_kg", l->side_mass[1]}};
    out["load_cases"].push_back(std::move(one));
  }
  for (const build::End end : build::both_ends)
    out[build::key_of(end)] = of(a.end(end), build, a);
  out["ground"] = of(*a.ground, a.ground.given(), build);
  out["findings"] = Json::array();
  for (const Finding& f : a.findings)
    out["findings"].push_back(of(f));
  return printed(out);
}

} // namespace mavrel::report
