#include "assess/sampling/read_fields.h"

#include "build/names.h"

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
    {"across_m", "hose", Tool::tape},
    {"down_m", "hose", Tool::tape},
    {"across_m", "shaft", Tool::tape},
    {"down_m", "shaft", Tool::tape},
    {"plunge_in_m", "shaft", Tool::tape},
    {"plunge_out_m", "shaft", Tool::tape},
    {"lock_rad", "points", Tool::angle},
    {"other_spring_rate_n_per_m", "", Tool::estimate},
    {"other_spring_slack_m", "", Tool::tape},
    {"upper_stack_m", "fit", Tool::calliper},
    {"lower_stack_m", "fit", Tool::calliper},
    {"mass_kg", "masses", Tool::estimate},
};

const ReadField* read_field(std::string_view key, std::string_view in) {
  for (const ReadField& row : read_fields)
    if (row.key == key && row.in == in) return &row;
  return nullptr;
}

/// Of an obstacle's numbers only those of its shape were read. A plane lies where its place was read; which way it
/// faces is taken as given.
bool is_of_shape(const build::ObstacleShape shape, std::string_view key) {
  const bool other_end = key.starts_with("to_"), size = key.starts_with("size_") || key == "turn_rad";
  switch (shape) {
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

/// Walks the fields that are read in the document's order.
class ReadFields {
public:
  ReadFields(const ReadAct& act, bool paths) : act_(act), paths_(paths) {}

  /// @param in_key  the field that the struct at `in` stands in
  void walk(const build::Table& table, void* in, const std::string& path, const Message& label,
            std::string_view in_key) const {
    using enum build::FieldType;
    const auto* obstacle = &table == &obstacles_ ? static_cast<const build::Obstacle*>(in) : nullptr;
    for (const build::Field& field : table.fields) {
      switch (field.type) {
      case number:
        if (!obstacle || is_of_shape(obstacle->shape, field.key)) read_number(field, in, path, label, in_key);
        break;
      case maybe_number:
        read_number(field, in, path, label, in_key);
        break;
      case readings:
        if (auto& values = field.get<build::Readings>(in).values; !values.empty())
          if (const ReadField* row = read_field(field.key, in_key)) say({row, nullptr, &values}, field, path, label);
        break;
      case object:
        walk(field.of(), field.own(field.at(in)), under(path, field.key), named(label, {field.label, {}}), field.key);
        break;
      case list:
        for (std::size_t i = 0; i < field.size(in); ++i)
          walk(field.list->of(), field.list->own(field.at(in), i),
               paths_ ? under(path, field.key) + "." + std::to_string(i) : std::string(),
               named(label, name_of(field, in, i)), field.key);
        break;
      default:
        break;
      }
    }
  }

private:
  void read_number(const build::Field& field, void* in, const std::string& path, const Message& label,
                   std::string_view in_key) const {
    double* value = field.number_to_change(in);
    if (!value) return;
    if (const ReadField* row = read_field(field.key, in_key)) say({row, value, nullptr}, field, path, label);
  }
  [[nodiscard]] Message name_of(const build::Field& list, const void* in, std::size_t i) const {
    if (!paths_) return {};
    if (const build::Field* name = list.list->of().name)
      if (const std::string& text = name->text(list.entry(in, i)); !text.empty()) return {"{0}", {text}};
    return {words("{0} {1}"), {list.label, std::to_string(i + 1)}};
  }
  void say(const Read& read, const build::Field& field, const std::string& path, const Message& label) const {
    act_(read, field.spec, under(path, field.key), paths_ ? named(label, Message{field.label, {}}) : Message{});
  }
  [[nodiscard]] std::string under(const std::string& path, const char* key) const {
    return paths_ ? path + "." + key : std::string();
  }
  [[nodiscard]] Message named(const Message& label, const Message& last) const {
    if (!paths_ || last.empty()) return label;
    return {words("{0} {1}"), {label, last}};
  }

  const ReadAct& act_;
  bool paths_;
  const build::Table& obstacles_ = build::table_of<build::Obstacle>();
};

} // namespace

void walk_readings(build::Build& build, bool paths, const ReadAct& act) {
  const ReadFields fields(act, paths);
  fields.walk(build::table_of<build::Body>(), &build.body, "body", {words("Car"), {}}, "body");
  for (const build::End end : build::both_ends)
    fields.walk(build::table_of<build::EndSurvey>(), &build.end(end), build::key_of(end), {build::name_of(end), {}},
                "");
  for (const build::End end : build::both_ends)
    fields.walk(build::table_of<build::EndFit>(), &build.variant().fit[build::at(end)],
                paths ? "variants." + std::to_string(build.active_variant) + "." + build::key_of(end) : std::string(),
                {build::name_of(end), {}}, "fit");
  for (std::size_t i = 0; i < build.load_cases.size(); ++i)
    fields.walk(build::table_of<build::LoadCase>(), &build.load_cases[i], "load_cases." + std::to_string(i),
                {"{0}", {std::as_const(build).load_cases[i].name}}, "");
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
