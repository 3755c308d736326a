#include "assess/doubt/inputs.h"

#include "build/fields.h"

#include <boost/math/distributions/students_t.hpp>

#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>
#include <string_view>

namespace mavrel::assess {

namespace {

constexpr struct {
  Tool tool;
  const char *key, *name;
  double minutes;
} tool_rows[] = {
    {Tool::tape, "tape", words("tape"), 2},          {Tool::point, "point", words("tape, to a joint"), 6},
    {Tool::scale, "scale", words("scale"), 8},       {Tool::level, "level", words("level"), 4},
    {Tool::angle, "angle", words("angle gauge"), 3}, {Tool::ratio, "ratio", words("jack and tape"), 10},
    {Tool::card, "card", words("bag card"), 90},     {Tool::estimate, "estimate", words("estimate"), 20},
};

/// A field of a survey that is read: where it stands and what with. `in` is the field or list it lies in; null: the end
/// itself.
struct ReadField {
  std::string_view key, in;
  Tool tool;
};
constexpr ReadField read_fields[] = {
    {"mass_kg", "left", Tool::scale},
    {"mass_kg", "right", Tool::scale},
    {"height_m", "left", Tool::tape},
    {"height_m", "right", Tool::tape},
    {"floor_m", "left", Tool::level},
    {"floor_m", "right", Tool::level},
    {"unsprung_kg", "", Tool::estimate},
    {"track_m", "", Tool::tape},
    {"motion_ratio", "", Tool::ratio},
    {"damper_ratio", "", Tool::ratio},
    {"spring_length_m", "", Tool::tape},
    {"damper_length_m", "", Tool::tape},
    {"damper_open_m", "", Tool::tape},
    {"damper_shut_m", "", Tool::tape},
    {"bump_stop_gap_m", "", Tool::tape},
    {"bump_stop_give_m", "", Tool::tape},
    {"bag_room_m", "", Tool::tape},
    {"tyre_rate_n_per_m", "", Tool::estimate},
    {"friction_n", "", Tool::estimate},
    {"bar_rate_n_m_per_rad", "", Tool::estimate},
    {"spring_base_m", "", Tool::tape},
    {"tyre_width_m", "", Tool::tape},
    {"lip_outward_m", "arch", Tool::tape},
    {"height_m", "cycle", Tool::tape},
    {"spring_m", "cycle", Tool::tape},
    {"damper_m", "cycle", Tool::tape},
    {"camber_rad", "cycle", Tool::angle},
    {"height_m", "cycle_right", Tool::tape},
    {"spring_m", "cycle_right", Tool::tape},
    {"damper_m", "cycle_right", Tool::tape},
    {"value_m", "gaps", Tool::tape},
    {"gap_m", "obstacles", Tool::tape},
    {"x_m", "left", Tool::point},
    {"y_m", "left", Tool::point},
    {"z_m", "left", Tool::point},
    {"x_m", "right", Tool::point},
    {"y_m", "right", Tool::point},
    {"z_m", "right", Tool::point},
    {"length_m", "bar_link", Tool::tape},
    {"length_m", "hose", Tool::tape},
    {"mass_kg", "masses", Tool::estimate},
};

const ReadField* read_field(std::string_view key, std::string_view in) {
  for (const ReadField& row : read_fields)
    if (row.key == key && row.in == in) return &row;
  return nullptr;
}

/// A value that is read: one number, or readings of one quantity.
struct Read {
  const ReadField* field = nullptr;
  double* number = nullptr;
  std::vector<double>* readings = nullptr;
};

/// Walks the fields that are read in the document's order.
class ReadFields {
public:
  using NumberSpec = build::NumberSpec;
  using Act = std::function<void(const Read&, const NumberSpec&, const std::string& path, const Message& label)>;
  /// @param paths  wanted? Putting them together costs more than all the rest
  ReadFields(const Act& act, bool paths, std::string path, Message label, std::string_view in)
      : act_(act), paths_(paths), path_(std::move(path)), label_(std::move(label)), in_(in) {}

  void text(const char*, auto&, const char*, std::size_t) {}
  template <class Enum>
  void choice(const char*, Enum&, const char*) {}
  void wish(const char*, auto&, const char*) {}
  void index(const char*, auto&, std::size_t) {}
  void extra(auto&) {}
  void number(const char* key, double& value, const build::NumberSpec& spec) {
    if (const ReadField* field = read_field(key, in_)) say({field, &value, nullptr}, spec, key);
  }
  void number(const char* key, std::optional<double>& value, const build::NumberSpec& spec) {
    if (!value) return;
    if (const ReadField* field = read_field(key, in_)) say({field, &*value, nullptr}, spec, key);
  }
  void readings(const char* key, build::Readings& value, const build::NumberSpec& spec) {
    if (value.values.empty()) return;
    if (const ReadField* field = read_field(key, in_)) say({field, nullptr, &value.values}, spec, key);
  }
  void object(const char* key, auto& value, const char* label) {
    ReadFields inner(act_, paths_, under(key), named(label), key);
    fields(inner, opened(value));
  }
  void list(const char* key, auto& values, const char* label, std::size_t, std::size_t) {
    for (std::size_t i = 0; i < values.size(); ++i) {
      Message name{label, {}};
      if (paths_) {
        if constexpr (requires { values[i].name; })
          if (!std::as_const(values)[i].name.empty()) name = {"{0}", {std::as_const(values)[i].name}};
        if (name.text == label) name = {words("{0} {1}"), {label, std::to_string(i + 1)}};
      }
      ReadFields inner(act_, paths_, paths_ ? under(key) + "." + std::to_string(i) : std::string(), named(name), key);
      fields(inner, values[i]);
    }
  }

private:
  void say(const Read& read, const NumberSpec& spec, const char* key) {
    act_(read, spec, under(key), paths_ ? named(Message{spec.label, {}}) : Message{});
  }
  [[nodiscard]] std::string under(const char* key) const { return paths_ ? path_ + "." + key : std::string(); }
  [[nodiscard]] Message named(const char* label) const { return named(Message{label, {}}); }
  [[nodiscard]] Message named(const Message& last) const {
    if (!paths_ || last.empty()) return label_;
    return {words("{0} {1}"), {label_, last}};
  }

  const Act& act_;
  bool paths_;
  std::string path_;
  Message label_;
  std::string_view in_;
};

void walk(build::Build& build, bool paths, const ReadFields::Act& act) {
  for (const build::End end : build::both_ends) {
    ReadFields fields_of(act, paths, build::key_of(end), {build::name_of(end), {}}, "");
    fields(fields_of, build.end(end));
  }
  for (std::size_t i = 0; i < build.load_cases.size(); ++i) {
    ReadFields fields_of(act, paths, "load_cases." + std::to_string(i),
                         {"{0}", {std::as_const(build).load_cases[i].name}}, "");
    fields(fields_of, build.load_cases[i]);
  }
}

double mean_of(const std::vector<double>& values) {
  return std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
}

double one_reading(const build::Doubts& d, Tool tool, double value) {
  switch (tool) {
  case Tool::tape:
    return d.tape;
  case Tool::point:
    return d.point;
  case Tool::scale:
    return d.scale;
  case Tool::level:
    return d.level;
  case Tool::angle:
    return d.angle;
  case Tool::ratio:
    return d.ratio * std::abs(value);
  case Tool::card:
    return d.card;
  case Tool::estimate:
    return d.estimate * std::abs(value);
  }
  return 0;
}

} // namespace

const char* tool_key(Tool tool) {
  return tool_rows[static_cast<std::size_t>(tool)].key;
}
const char* tool_name(Tool tool) {
  return tool_rows[static_cast<std::size_t>(tool)].name;
}
double minutes_of(Tool tool) {
  return tool_rows[static_cast<std::size_t>(tool)].minutes;
}

double DoubtInput::sd() const {
  return std::hypot(own, shared);
}

double doubt_of_mean(const std::vector<double>& readings, double tool) {
  const auto n = static_cast<double>(readings.size());
  if (readings.size() < 2) return tool;
  const double middle = mean_of(readings);
  double sum = 0;
  for (const double r : readings)
    sum += (r - middle) * (r - middle);
  const double s = std::sqrt(sum / (n - 1));
  // A few readings that happen to agree say less than many: Student's factor, as wide as one sigma of the normal.
  constexpr double one_sigma = 0.8413447460685429;
  const double t = boost::math::quantile(boost::math::students_t(n - 1), one_sigma);
  // Nobody reads finer than a fifth of what the tool is usually good for, however alike the readings.
  return std::max(t * s, tool / 5) / std::sqrt(n);
}

std::vector<DoubtInput> doubt_inputs(const build::Build& build) {
  std::vector<DoubtInput> out;
  build::Build copy = build;
  const build::Doubts& d = build.doubts;
  walk(copy, true, [&](const Read& read, const build::NumberSpec& spec, const std::string& path, const Message& label) {
    DoubtInput in;
    in.path = path, in.name = label, in.kind = spec.kind, in.tool = read.field->tool;
    const std::vector<double> readings = read.readings ? *read.readings : std::vector<double>{*read.number};
    in.count = readings.size();
    in.value = mean_of(readings);
    in.own = doubt_of_mean(readings, one_reading(d, in.tool, in.value));
    for (const build::Taken& taken : build.origin->taken)
      if (path.starts_with(taken.path)) in.another_car = true;
    if (in.another_car) in.own *= d.other_car;
    if (in.tool == Tool::scale) in.shared = d.scale_shared * in.value, in.shared_with = "scale";
    if (in.tool == Tool::level) {
      // A level that is off tips the floor: one side up, the other down.
      in.shared = (read.field->in == "left" ? 1 : -1) * d.level_shared, in.shared_with = "level";
    }
    out.push_back(std::move(in));
  });
  for (const build::End end : build::both_ends) {
    const std::string& bag = build.variant().fit[build::at(end)].bag;
    if (bag.empty()) continue;
    DoubtInput in;
    in.path = std::string(build::key_of(end)) + ".bag_card";
    in.name = {words("{0} bag's card: {1}"), {build::name_of(end), bag}};
    in.kind = Kind::share, in.tool = Tool::card, in.value = 1;
    // The same card at both ends is off alike.
    if (build.variant().fit[0].bag == build.variant().fit[1].bag)
      in.shared = d.card, in.shared_with = "card";
    else
      in.own = d.card;
    out.push_back(std::move(in));
  }
  return out;
}

namespace {

/// What can't be is as far inside as it lay outside: a gap taped as nothing is none, or a little, never less.
double folded(double value, const build::NumberSpec& spec) {
  for (int i = 0; i < 64 && !(value >= spec.least && value <= spec.most); ++i)
    value = value < spec.least ? 2 * spec.least - value : 2 * spec.most - value;
  return std::clamp(value, spec.least, spec.most);
}

} // namespace

build::Build moved(const build::Build& build, const std::vector<double>& off) {
  build::Build out = build;
  std::size_t i = 0;
  walk(out, false, [&](const Read& read, const build::NumberSpec& spec, const std::string&, const Message&) {
    const double by = off[i++];
    if (by == 0) return;
    if (read.number) *read.number = folded(*read.number + by, spec);
    if (read.readings)
      for (double& r : *read.readings)
        r = folded(r + by, spec);
  });
  return out;
}

} // namespace mavrel::assess
