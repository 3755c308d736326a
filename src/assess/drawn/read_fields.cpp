#include "assess/drawn/read_fields.h"

#include "build/fields.h"

#include <algorithm>

namespace mavrel::assess {

namespace {

constexpr ReadField read_fields[] = {
    {"wheelbase_m", "body", Tool::tape},
    {"front_overhang_m", "body", Tool::tape},
    {"rear_overhang_m", "body", Tool::tape},
    {"gravity_height_m", "body", Tool::estimate},
    {"x_m", "underside", Tool::tape},
    {"z_m", "underside", Tool::tape},
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
    {"gap_height_m", "obstacles", Tool::tape},
    {"x_m", "obstacles", Tool::point},
    {"y_m", "obstacles", Tool::point},
    {"z_m", "obstacles", Tool::point},
    {"to_x_m", "obstacles", Tool::point},
    {"to_y_m", "obstacles", Tool::point},
    {"to_z_m", "obstacles", Tool::point},
    {"size_x_m", "obstacles", Tool::tape},
    {"size_y_m", "obstacles", Tool::tape},
    {"size_z_m", "obstacles", Tool::tape},
    {"turn_rad", "obstacles", Tool::angle},
    {"radius_m", "obstacles", Tool::calliper},
    {"damper_m", "thickness", Tool::calliper},
    {"arms_m", "thickness", Tool::calliper},
    {"axle_m", "thickness", Tool::calliper},
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

/// Walks the fields that are read in the document's order.
class ReadFields {
public:
  using NumberSpec = build::NumberSpec;
  ReadFields(const ReadAct& act, bool paths, std::string path, Message label, std::string_view in)
      : act_(act), paths_(paths), path_(std::move(path)), label_(std::move(label)), in_(in) {}

  void text(const char*, auto&, const char*, std::size_t) {}
  template <class Enum>
  void choice(const char*, Enum& value, const char*) {
    if constexpr (std::is_same_v<std::remove_const_t<Enum>, build::ObstacleShape>) shape_ = value;
  }
  void wish(const char*, auto&, const char*) {}
  void index(const char*, auto&, std::size_t) {}
  void extra(auto&) {}
  void number(const char* key, double& value, const build::NumberSpec& spec) {
    if (!is_of_shape(key)) return;
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
  /// Of an obstacle's numbers only those of its shape were read. A plane lies where its place was read; which way it
  /// faces is taken as given.
  [[nodiscard]] bool is_of_shape(std::string_view key) const {
    if (!shape_) return true;
    const bool other_end = key.starts_with("to_"), size = key.starts_with("size_") || key == "turn_rad";
    switch (*shape_) {
    case build::ObstacleShape::gap:
      return false; // what is read of it is optional
    case build::ObstacleShape::plane:
      return !other_end && !size && key != "radius_m";
    case build::ObstacleShape::box:
      return !other_end && key != "radius_m";
    case build::ObstacleShape::rod:
      return !size;
    case build::ObstacleShape::edge:
      return !size && key != "radius_m";
    }
    return true;
  }
  void say(const Read& read, const NumberSpec& spec, const char* key) {
    act_(read, spec, under(key), paths_ ? named(Message{spec.label, {}}) : Message{});
  }
  [[nodiscard]] std::string under(const char* key) const { return paths_ ? path_ + "." + key : std::string(); }
  [[nodiscard]] Message named(const char* label) const { return named(Message{label, {}}); }
  [[nodiscard]] Message named(const Message& last) const {
    if (!paths_ || last.empty()) return label_;
    return {words("{0} {1}"), {label_, last}};
  }

  const ReadAct& act_;
  bool paths_;
  std::string path_;
  Message label_;
  std::string_view in_;
  std::optional<build::ObstacleShape> shape_; // of the obstacle that is walked
};

} // namespace

void walk_readings(build::Build& build, bool paths, const ReadAct& act) {
  ReadFields of_body(act, paths, "body", {words("Car"), {}}, "body");
  fields(of_body, build.body);
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
  walk_readings(out, false, [&](const Read& read, const build::NumberSpec& spec, const std::string&, const Message&) {
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
