#include "assess/compare/compare.h"

#include "assess/assess.h"
#include "assess/assessment.h"
#include "assess/end/end_answer.h"
#include "assess/fit_up/routes.h"
#include "build/edit.h"
#include "build/fit_up.h"
#include "build/names.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::at;

bool ComparedFigure::differs() const {
  if (a.has_value() != b.has_value()) return true;
  return a && std::abs(*a - *b) > 1e-9 * std::max(std::abs(*a), std::abs(*b));
}

namespace {

/// Every field that either variant has, in the order of the document; its name and the wishes in words apart.
std::vector<std::string> compared_paths(const build::Variant& a, const build::Variant& b) {
  std::vector<std::string> out = build::field_paths(a);
  for (std::string& path : build::field_paths(b))
    if (std::find(out.begin(), out.end(), path) == out.end()) out.push_back(std::move(path));
  std::erase_if(out, [](const std::string& path) {
    // How far the work has got is no choice between designs.
    for (const char* list : {"fit_up.jobs.", "fit_up.checks.", "fit_up.parts.", "proving."})
      if (path.starts_with(list)) return true;
    return path == "name" || path == "brief.notes";
  });
  return out;
}

ChoiceAbout about_of(std::string_view path) {
  if (path.starts_with("air.") || path.starts_with("brief.air.")) return ChoiceAbout::air;
  if (path.starts_with("brief.")) return ChoiceAbout::heights;
  if (path.starts_with("leveling.")) return ChoiceAbout::control;
  if (path.starts_with("fit_up.")) return ChoiceAbout::fit_up;
  return ChoiceAbout::bags;
}

void compare_field(const build::Build& build, std::size_t a, std::size_t b, const std::string& path,
                   const UnitPrefs& prefs, std::vector<ComparedChoice>& out) {
  const auto in_a = build::look_up(build, fmt::format("variants.{}.{}", a, path), prefs);
  const auto in_b = build::look_up(build, fmt::format("variants.{}.{}", b, path), prefs);
  const std::string shown_a = in_a && in_a->filled ? in_a->shown : "",
                    shown_b = in_b && in_b->filled ? in_b->shown : "";
  if (shown_a == shown_b) return;
  out.push_back({path, in_a ? in_a->label : in_b->label, shown_a, shown_b, about_of(path), {}});
}

/// Routes by the line they lay: dozens of figures along a way are one difference to a person.
void compare_routes(const build::Variant& a, const build::Variant& b, std::vector<ComparedChoice>& out) {
  const std::vector<build::Route>&in_a = a.fit_up->routes, &in_b = b.fit_up->routes;
  const auto find = [](const std::vector<build::Route>& all, const std::string& line) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const build::Route& r) { return r.line == line; });
    return found == all.end() ? nullptr : &*found;
  };
  const auto add = [&](std::size_t place, const build::Route* one, const build::Route* other) {
    ComparedChoice choice{fmt::format("fit_up.routes.{}", place),
                          Message{words("route, {0}"), {line_name((one ? *one : *other).line)}},
                          {},
                          {},
                          ChoiceAbout::fit_up,
                          {}};
    if (one) choice.points[0] = one->points.size();
    if (other) choice.points[1] = other->points.size();
    out.push_back(std::move(choice));
  };
  for (std::size_t i = 0; i < in_a.size(); ++i)
    if (const build::Route* other = find(in_b, in_a[i].line); !other || !(*other == in_a[i])) add(i, &in_a[i], other);
  for (std::size_t i = 0; i < in_b.size(); ++i)
    if (!find(in_a, in_b[i].line)) add(i, nullptr, &in_b[i]);
}

std::vector<ComparedStop> stopped_of(const std::array<std::shared_ptr<const Assessment>, 2>& assessments) {
  std::vector<ComparedStop> out;
  for (std::size_t i = 0; i < 2; ++i)
    for (const Finding& f : assessments[i]->findings) {
      if (f.severity != Severity::stop) continue;
      auto there = std::find_if(out.begin(), out.end(), [&](const ComparedStop& s) { return s.title == f.title; });
      if (there == out.end()) there = out.insert(out.end(), {f.title, {}});
      there->stops[i] = true;
    }
  std::stable_partition(out.begin(), out.end(), [](const ComparedStop& s) { return s.stops[0] != s.stops[1]; });
  return out;
}

std::optional<double> edge_of(const std::optional<Window>& window, bool low) {
  if (!window) return std::nullopt;
  return low ? window->low.height : window->high.height;
}

const PresetAtEnd* preset_of(const build::Variant& variant, const EndAssessment& end, build::PresetUse use) {
  for (std::size_t i = 0; i < end.presets.size(); ++i)
    if (variant.brief.presets[i].use == use && end.presets[i]) return &*end.presets[i];
  return nullptr;
}

template <class Figure>
std::optional<double> at_preset(const build::Variant& variant, const EndAssessment& end, build::PresetUse use,
                                std::size_t c, Figure figure) {
  const PresetAtEnd* preset = preset_of(variant, end, use);
  if (!preset || c >= preset->cases.size() || !preset->cases[c]) return std::nullopt;
  return figure(*preset->cases[c]);
}

} // namespace

const char* name_of(ChoiceAbout about) {
  switch (about) {
  case ChoiceAbout::bags:
    return words("ends");
  case ChoiceAbout::heights:
    return words("heights");
  case ChoiceAbout::air:
    return words("air");
  case ChoiceAbout::control:
    return words("control");
  case ChoiceAbout::fit_up:
    return words("fit-up");
  }
  return "";
}

Comparison compare(const build::Build& build, const shelf::Shelf& shelf, std::size_t a, std::size_t b,
                   std::size_t load_case, const UnitPrefs& prefs, std::array<Assessor, 2>& assessors) {
  Comparison out;
  out.a = a;
  out.b = b;
  const std::array<std::size_t, 2> which = {a, b};
  for (std::size_t i = 0; i < 2; ++i) {
    build::Build copy = build; // cheap: what is in it is shared
    copy.active_variant = which[i];
    out.assessments[i] = assessors[i].assess(copy, shelf);
    const Findings& found = out.assessments[i]->findings;
    out.stops[i] = static_cast<std::size_t>(
        std::count_if(found.begin(), found.end(), [](const Finding& f) { return f.severity == Severity::stop; }));
  }
  for (const std::string& path : compared_paths(build.variants[a], build.variants[b]))
    if (!path.starts_with("fit_up.routes.")) compare_field(build, a, b, path, prefs, out.choices);
  compare_routes(build.variants[a], build.variants[b], out.choices);
  std::stable_sort(out.choices.begin(), out.choices.end(),
                   [](const ComparedChoice& one, const ComparedChoice& other) { return one.about < other.about; });
  out.stopped = stopped_of(out.assessments);

  for (const End end : build::both_ends) {
    const auto add = [&](Message what, Kind kind, auto figure) {
      std::array<std::optional<double>, 2> v;
      for (std::size_t i = 0; i < 2; ++i)
        v[i] = figure(build.variants[which[i]], out.assessments[i]->end(end));
      out.figures.push_back({std::move(what), end, kind, v[0], v[1], {}});
    };
    const auto add_pressure = [&](Message what, build::PresetUse use) {
      add(std::move(what), Kind::pressure, [&](const build::Variant& v, const EndAssessment& e) {
        return at_preset(v, e, use, load_case, [](const PoseState& s) { return std::optional(s.pressure); });
      });
      for (std::size_t i = 0; i < 2; ++i)
        if (const PresetAtEnd* preset = preset_of(build.variants[which[i]], out.assessments[i]->end(end), use);
            preset && load_case < preset->cases.size() && preset->cases[load_case])
          out.figures.back().beyond[i] = preset->cases[load_case]->beyond;
    };
    using V = const build::Variant&;
    using E = const EndAssessment&;
    add({words("reach from"), {}}, Kind::length, [](V, E e) { return edge_of(e.windows.reach, true); });
    add({words("reach to"), {}}, Kind::length, [](V, E e) { return edge_of(e.windows.reach, false); });
    add({words("road from"), {}}, Kind::length, [](V, E e) { return edge_of(e.windows.road, true); });
    add({words("road to"), {}}, Kind::length, [](V, E e) { return edge_of(e.windows.road, false); });
    add({words("ride frequency"), {}}, Kind::frequency, [&](V v, E e) {
      return at_preset(v, e, build::PresetUse::road, load_case, [](const PoseState& s) { return s.ride_frequency; });
    });
    add_pressure({words("road pressure"), {}}, build::PresetUse::road);
    add_pressure({words("ramp pressure"), {}}, build::PresetUse::ramp);
  }
  return out;
}

Comparison compare(const build::Build& build, const shelf::Shelf& shelf, std::size_t a, std::size_t b,
                   std::size_t load_case, const UnitPrefs& prefs) {
  std::array<Assessor, 2> assessors;
  return compare(build, shelf, a, b, load_case, prefs, assessors);
}

} // namespace mavrel::assess
