#include "build/edit.h"

#include "build/finder.h"
#include "curve/readings.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <functional>

namespace mavrel::build {

namespace {

struct Looking {
  const UnitPrefs& prefs;
  FieldView out;

  void text(const std::string& value, Message label, std::size_t) {
    out = {std::move(label), Kind::plain, true, false, !value.empty(), value, value, 0, 0};
  }
  void number(const std::optional<double>& value, Message label, const NumberSpec& spec) {
    out.label = std::move(label);
    out.kind = spec.kind;
    out.filled = value.has_value();
    if (value) out.shown = out.editable = show_exact(*value, spec.kind, prefs);
  }
  void readings(const Readings& value, Message label, const NumberSpec& spec) {
    out.label = std::move(label);
    out.kind = spec.kind;
    out.readings = value.values.size();
    out.spread = curve::spread(value.values);
    out.filled = out.readings > 0;
    for (const double reading : value.values)
      out.editable += (out.editable.empty() ? "" : "; ") + show_exact(reading, spec.kind, prefs);
    // A mean deserves one digit more than its readings are usually shown with.
    const int decimals = spec.kind == Kind::length && prefs.length == LengthUnit::mm ? 1
                         : spec.kind == Kind::plain                                  ? 3
                                                                                     : -1;
    if (const auto mean = curve::mean(value.values))
      out.shown = out.readings == 1 ? show_exact(*mean, spec.kind, prefs) : show(*mean, spec.kind, prefs, decimals);
  }
  template <class Enum>
  void choice(Enum value, Message label) {
    out = {std::move(label), Kind::plain, true, false, true, name_of(value), name_of(value), 0, 0};
  }
  void wish(const std::optional<HeightWish>& value, Message label) {
    out.label = std::move(label);
    out.kind = Kind::length;
    out.is_wish = true;
    out.filled = value.has_value();
    if (value) out.shown = out.editable = show_wish(*value, prefs);
  }
};

struct Typing {
  std::string_view typed;
  const UnitPrefs& prefs;
  std::optional<Message> mistake;

  bool in_range(double value, const Message& label, const NumberSpec& spec) {
    if (value >= spec.least && value <= spec.most) return true;
    mistake = Message{words("{0}: {1} is out of reason; {2} to {3} is believable."),
                      {label, told_from({value, spec.kind, -2, {}}, value < spec.least ? spec.least : spec.most),
                       Amount{spec.least, spec.kind, -2, {}}, Amount{spec.most, spec.kind, -2, {}}}};
    return false;
  }
  void text(std::string& value, const Message& label, std::size_t most) {
    mistake = mistake_in_text(typed, label, most);
    if (!mistake) value = typed;
  }
  void number(double& value, const Message& label, const NumberSpec& spec) {
    const auto read = parse_quantity(typed, spec.kind, prefs);
    if (!read)
      mistake = read.error();
    else if (in_range(*read, label, spec))
      value = *read;
  }
  void number(std::optional<double>& value, const Message& label, const NumberSpec& spec) {
    if (trimmed(typed).empty()) {
      value.reset();
      return;
    }
    double read = 0;
    number(read, label, spec);
    if (!mistake) value = read;
  }
  void readings(Readings& value, const Message& label, const NumberSpec& spec) {
    const bool add = trimmed(typed).starts_with('+');
    const auto read = parse_readings(add ? trimmed(typed).substr(1) : typed, spec.kind, prefs);
    if (!read) {
      mistake = read.error();
      return;
    }
    Readings out = add ? value : Readings{};
    for (const double reading : *read) {
      if (!in_range(reading, label, spec)) return;
      out.values.push_back(reading);
    }
    if (out.values.size() > most_readings)
      mistake = Message{words("{0}: up to {1} readings are kept."), {label, fmt::to_string(most_readings)}};
    else
      value = std::move(out);
  }
  template <class Enum>
  void choice(Enum& value, const Message& label) {
    for (const auto& row : names_of(Enum{}))
      if (typed == row.key || typed == row.name) {
        value = row.value;
        return;
      }
    mistake = Message{words("{0}: “{1}” is not one of the choices."), {label, excerpt(typed, 40)}};
  }
  void wish(std::optional<HeightWish>& value, const Message& label) {
    if (trimmed(typed).empty()) {
      value.reset();
      return;
    }
    auto read = parse_wish(typed, prefs);
    if (!read) {
      mistake = read.error();
      return;
    }
    if (!in_range(read->value, label, {Kind::length, -0.5, 1.5, ""})) return;
    if (value) read->extra = value->extra;
    value = *read;
  }
};

/// Writes down the path of every field it is shown.
class Lister {
public:
  Lister(std::string prefix, std::vector<std::string>& out) : prefix_(std::move(prefix)), out_(out) {}

  void text(const char* key, const auto&, const char*, std::size_t) { out_.push_back(prefix_ + key); }
  void number(const char* key, const auto&, const NumberSpec&) { out_.push_back(prefix_ + key); }
  void readings(const char* key, const auto&, const NumberSpec&) { out_.push_back(prefix_ + key); }
  void choice(const char* key, const auto&, const char*) { out_.push_back(prefix_ + key); }
  void wish(const char* key, const auto&, const char*) { out_.push_back(prefix_ + key); }
  void index(const char*, const auto&, std::size_t) {}
  void object(const char* key, const auto& value, const char*) {
    Lister inner(prefix_ + key + ".", out_);
    fields(inner, opened(value));
  }
  void list(const char* key, const auto& values, const char*, std::size_t, std::size_t) {
    for (std::size_t i = 0; i < values.size(); ++i) {
      Lister inner(fmt::format("{}{}.{}.", prefix_, key, i), out_);
      fields(inner, values[i]);
    }
  }
  void extra(const auto&) {}

private:
  std::string prefix_;
  std::vector<std::string>& out_;
};

tl::unexpected<Message> no_such(std::string_view path) {
  return refuse(words("There is no field “{0}”."), {excerpt(path, 80)});
}

} // namespace

Expected<FieldView> look_up(const Build& build, std::string_view path, const UnitPrefs& prefs) {
  Looking looking{prefs, {}};
  Finder finder(path, looking);
  fields(finder, build);
  if (!finder.found()) return no_such(path);
  return looking.out;
}

std::vector<std::string> field_paths(const Variant& variant) {
  std::vector<std::string> out;
  Lister lister("", out);
  fields(lister, variant);
  return out;
}

Expected<Build> with_text(const Build& build, std::string_view path, std::string_view text, const UnitPrefs& prefs) {
  Build out = build;
  Typing typing{text, prefs, {}};
  Finder finder(path, typing);
  fields(finder, out);
  if (!finder.found()) return no_such(path);
  if (typing.mistake) return refuse(*typing.mistake);
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
