#include "build/edit.h"

#include "build/names.h"
#include "curve/readings.h"
#include "quantity/text.h"

#include <fmt/format.h>

namespace mavrel::build {

namespace {

/// What is seen of a field that was found.
FieldView view_of(const FoundField& found, const UnitPrefs& prefs) {
  const auto& [field, in, label] = found;
  FieldView out;
  out.label = label;
  switch (field->type) {
  case FieldType::text:
    out.is_text = true;
    out.filled = !field->text(in).empty();
    out.shown = out.editable = field->text(in);
    break;
  case FieldType::choice:
    out.is_text = out.filled = true;
    if (const auto* row = field->choice(in)) out.shown = out.editable = row->name;
    break;
  case FieldType::number:
  case FieldType::maybe_number: {
    const auto value = field->number(in);
    out.kind = field->spec.kind;
    out.filled = value.has_value();
    if (value) out.shown = out.editable = show_exact(*value, out.kind, prefs);
    break;
  }
  case FieldType::readings: {
    const auto& values = field->readings(in).values;
    out.kind = field->spec.kind;
    out.readings = values.size();
    out.spread = curve::spread(values);
    out.filled = out.readings > 0;
    for (const double reading : values)
      out.editable += (out.editable.empty() ? "" : "; ") + show_exact(reading, out.kind, prefs);
    // A mean deserves one digit more than its readings are usually shown with.
    const int decimals = out.kind == Kind::length && prefs.length == LengthUnit::mm ? 1
                         : out.kind == Kind::plain                                  ? 3
                                                                                    : -1;
    if (const auto mean = curve::mean(values))
      out.shown = out.readings == 1 ? show_exact(*mean, out.kind, prefs) : show(*mean, out.kind, prefs, decimals);
    break;
  }
  case FieldType::wish: {
    const auto& wish = field->wish(in);
    out.kind = Kind::length;
    out.is_wish = true;
    out.filled = wish.has_value();
    if (wish) out.shown = out.editable = show_wish(*wish, prefs);
    break;
  }
  case FieldType::index:
  case FieldType::object:
  case FieldType::list:
  case FieldType::extra:
    break;
  }
  return out;
}

/// Types a text into a field that was found.
struct Typing {
  std::string_view typed;
  const UnitPrefs& prefs;
  const Message& label;
  std::optional<Message> mistake;

  bool in_range(double value, const NumberSpec& spec) {
    if (value >= spec.least && value <= spec.most) return true;
    mistake = Message{words("{0}: {1} is out of reason; {2} to {3} is believable."),
                      {label, told_from({value, spec.kind, -2, {}}, value < spec.least ? spec.least : spec.most),
                       Amount{spec.least, spec.kind, -2, {}}, Amount{spec.most, spec.kind, -2, {}}}};
    return false;
  }
  void text(std::string& value, std::size_t most) {
    mistake = mistake_in_text(typed, label, most);
    if (!mistake) value = typed;
  }
  void number(const Field& field, void* in) {
    if (field.type == FieldType::maybe_number && trimmed(typed).empty()) return field.set_number(in, std::nullopt);
    const auto read = parse_quantity(typed, field.spec.kind, prefs);
    if (!read)
      mistake = read.error();
    else if (in_range(*read, field.spec))
      field.set_number(in, *read);
  }
  void readings(Readings& value, const NumberSpec& spec) {
    const bool add = trimmed(typed).starts_with('+');
    const auto read = parse_readings(add ? trimmed(typed).substr(1) : typed, spec.kind, prefs);
    if (!read) {
      mistake = read.error();
      return;
    }
    Readings out = add ? value : Readings{};
    for (const double reading : *read) {
      if (!in_range(reading, spec)) return;
      out.values.push_back(reading);
    }
    if (out.values.size() > most_readings)
      mistake = Message{words("{0}: up to {1} readings are kept."), {label, fmt::to_string(most_readings)}};
    else
      value = std::move(out);
  }
  void choice(const Field& field, void* in) {
    const auto& rows = field.choices->rows;
    for (std::size_t i = 0; i < rows.size(); ++i)
      if (typed == rows[i].key || typed == rows[i].name) return field.choices->set(field.at(in), i);
    mistake = Message{words("{0}: “{1}” is not one of the choices."), {label, excerpt(typed, 40)}};
  }
  void wish(std::optional<HeightWish>& value) {
    if (trimmed(typed).empty()) {
      value.reset();
      return;
    }
    auto read = parse_wish(typed, prefs);
    if (!read) {
      mistake = read.error();
      return;
    }
    if (!in_range(read->value, {Kind::length, -0.5, 1.5, ""})) return;
    if (value) read->extra = value->extra;
    value = *read;
  }
};

std::optional<Message> type_into(const FoundField& found, std::string_view text, const UnitPrefs& prefs) {
  Typing typing{text, prefs, found.label, {}};
  const Field& field = *found.field;
  void* in = found.own();
  switch (field.type) {
  case FieldType::text:
    typing.text(field.get<std::string>(in), field.most);
    break;
  case FieldType::number:
  case FieldType::maybe_number:
    typing.number(field, in);
    break;
  case FieldType::readings:
    typing.readings(field.get<Readings>(in), field.spec);
    break;
  case FieldType::choice:
    typing.choice(field, in);
    break;
  case FieldType::wish:
    typing.wish(field.get<std::optional<HeightWish>>(in));
    break;
  case FieldType::index:
  case FieldType::object:
  case FieldType::list:
  case FieldType::extra:
    break;
  }
  return typing.mistake;
}

void list_paths(const Table& table, const void* of, const std::string& prefix, std::vector<std::string>& out) {
  for (const Field& field : table.fields) {
    if (field.type == FieldType::object)
      list_paths(field.of(), field.opened(field.at(of)), prefix + field.key + ".", out);
    else if (field.type == FieldType::list)
      for (std::size_t i = 0; i < field.size(of); ++i)
        list_paths(field.list->of(), field.entry(of, i), fmt::format("{}{}.{}.", prefix, field.key, i), out);
    else if (field.type != FieldType::index && field.type != FieldType::extra)
      out.push_back(prefix + field.key);
  }
}

tl::unexpected<Message> no_such(std::string_view path) {
  return refuse(words("There is no field “{0}”."), {excerpt(path, 80)});
}

} // namespace

Expected<FieldView> look_up(const Build& build, std::string_view path, const UnitPrefs& prefs) {
  const auto found = find_field(table_of<Build>(), &build, path);
  if (!found || found->field->type == FieldType::list) return no_such(path);
  return view_of(*found, prefs);
}

std::vector<std::string> field_paths(const Variant& variant) {
  std::vector<std::string> out;
  list_paths(table_of<Variant>(), &variant, "", out);
  return out;
}

Expected<Build> with_text(const Build& build, std::string_view path, std::string_view text, const UnitPrefs& prefs) {
  Build out = build;
  const auto found = find_field_to_change(table_of<Build>(), &out, path);
  if (!found || found->field->type == FieldType::list) return no_such(path);
  if (const auto mistake = type_into(*found, text, prefs)) return refuse(*mistake);
  return out;
}

Expected<Build> with_choice(const Build& build, std::string_view path, std::string_view key) {
  return with_text(build, path, key, {});
}

Expected<HeightWish> parse_wish(std::string_view typed, const UnitPrefs& prefs) {
  std::string text(trimmed(typed));
  HeightWish wish;
  const auto taken = [&](std::string_view word) {
    const std::size_t at = text.find(word);
    if (at == std::string::npos) return false;
    text.erase(at, word.size());
    return true;
  };
  if (taken("gap"))
    wish.as = HeightWish::As::gap;
  else if (taken("drop"))
    wish.as = HeightWish::As::drop;
  else if (taken("height"))
    wish.as = HeightWish::As::height;
  else if (trimmed(text).ends_with('f') || text.find("finger") != std::string::npos)
    wish.as = HeightWish::As::gap;
  const auto value = parse_quantity(text, Kind::length, prefs);
  if (!value) return refuse(value.error());
  wish.value = *value;
  return wish;
}

std::string show_wish(const HeightWish& wish, const UnitPrefs& prefs, int decimals) {
  const std::string value = show(wish.value, Kind::length, prefs, decimals);
  if (wish.as == HeightWish::As::height) return value;
  return fmt::format("{} {}", name_of(wish.as), value);
}

} // namespace mavrel::build
