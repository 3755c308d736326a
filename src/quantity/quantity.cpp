#include "quantity/quantity.h"

#include "quantity/text.h"

#include "quantity/units.h"

#include <fmt/format.h>

#include <array>
#include <charconv>
#include <cmath>
#include <utility>

namespace mavrel {

namespace {

/// Typed text with look-alikes replaced by what the reader below understands.
std::string plain_text(std::string_view text) {
  static constexpr auto swaps = std::to_array<std::pair<std::string_view, std::string_view>>({
      {"\u2212", "-"},
      {"\u2013", "-"},
      {"\u00a0", " "},
      {"\u202f", " "},
      {"\u2009", " "},
      {"\t", " "},
      {"½", " 1/2"},
      {"¼", " 1/4"},
      {"¾", " 3/4"},
      {"⅛", " 1/8"},
      {"⅜", " 3/8"},
      {"⅝", " 5/8"},
      {"⅞", " 7/8"},
      {"⁄", "/"},
  });
  std::string out(text);
  for (const auto& [from, to] : swaps)
    for (std::size_t at = out.find(from); at != std::string::npos; at = out.find(from, at + to.size()))
      out.replace(at, from.size(), to);
  return out;
}

bool is_digit(char c) {
  return c >= '0' && c <= '9';
}

/// Walks through `2 3/16 in`, a piece at a time.
class Reader {
public:
  explicit Reader(std::string_view text) : rest_(text) {}

  void skip_spaces() {
    while (!rest_.empty() && rest_.front() == ' ')
      rest_.remove_prefix(1);
  }
  [[nodiscard]] bool done() const { return rest_.empty(); }

  /// A sign, if one stands here: -1 or +1.
  double sign() {
    skip_spaces();
    if (rest_.empty() || (rest_.front() != '-' && rest_.front() != '+')) return 1;
    const double s = rest_.front() == '-' ? -1 : 1;
    rest_.remove_prefix(1);
    return s;
  }

  /// `7`, `7.5`, `7,5`, `1e-3`, `5/8` or `2 3/16`; none if no number starts here.
  std::optional<double> number() {
    skip_spaces();
    const auto first = decimal();
    if (!first) return std::nullopt;
    if (!rest_.empty() && rest_.front() == '/' && rest_.size() > 1 && is_digit(rest_[1])) {
      rest_.remove_prefix(1);
      return divided(*first);
    }
    const std::string_view before = rest_;
    skip_spaces();
    const auto over = decimal();
    if (over && !rest_.empty() && rest_.front() == '/' && rest_.size() > 1 && is_digit(rest_[1])) {
      rest_.remove_prefix(1);
      if (const auto part = divided(*over)) return *first + *part;
      return std::nullopt;
    }
    rest_ = before;
    return first;
  }

  /// The letters and signs up to the next number.
  std::string unit() {
    skip_spaces();
    std::size_t n = 0;
    while (n < rest_.size()) {
      const bool exponent = is_digit(rest_[n]) && n > 0 && rest_[n - 1] != ' '; // cm3, in3
      if ((is_digit(rest_[n]) && !exponent) || rest_[n] == '+' || rest_[n] == '-') break;
      ++n;
    }
    const std::string out(trimmed(rest_.substr(0, n)));
    rest_.remove_prefix(n);
    return out;
  }

private:
  std::optional<double> divided(double over) {
    const auto under = decimal();
    if (!under || *under == 0) return std::nullopt;
    return over / *under;
  }

  std::optional<double> decimal() {
    if (rest_.empty() || (!is_digit(rest_.front()) && rest_.front() != '.' && rest_.front() != ','))
      return std::nullopt;
    std::string digits;
    bool point = false;
    std::size_t n = 0;
    for (; n < rest_.size(); ++n) {
      const char c = rest_[n];
      const bool is_point = (c == '.' || c == ',') && !point && n + 1 < rest_.size() && is_digit(rest_[n + 1]);
      if (!is_digit(c) && !is_point) break;
      point = point || is_point;
      digits += is_point ? '.' : c;
    }
    // An exponent only where digits follow it, so that `3 e` is not one.
    if (n + 1 < rest_.size() && (rest_[n] == 'e' || rest_[n] == 'E')) {
      const std::size_t after = n + (rest_[n + 1] == '-' || rest_[n + 1] == '+' ? 2 : 1);
      if (after < rest_.size() && is_digit(rest_[after])) {
        digits += 'e';
        if (after == n + 2 && rest_[n + 1] == '-') digits += '-';
        for (n = after; n < rest_.size() && is_digit(rest_[n]); ++n)
          digits += rest_[n];
      }
    }
    double value = 0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
    if (error != std::errc() || end != digits.data() + digits.size()) return std::nullopt;
    rest_.remove_prefix(n);
    return value;
  }

  std::string_view rest_;
};

constexpr std::size_t most_typed = 80; // bytes: more is no number
constexpr double out_of_reason = 1e12; // SI: nothing on a car comes near

std::string typed_text(std::string_view text) {
  return excerpt(trimmed(text), 40);
}

Message not_a_quantity(std::string_view text, Kind kind) {
  return {words("“{0}” is not {1}. Type a number with its unit, for example {2}."),
          {typed_text(text), kind_name(kind), example_of(kind)}};
}

/// `5 ft 3 in`, `2 h 30 min`: a finer unit behind a coarser one. Two numbers of one unit are two numbers, not one.
bool goes_on(const Unit& coarser, const Unit& finer) {
  return coarser.kind == finer.kind && coarser.offset == 0 && finer.factor < coarser.factor;
}

bool is_of_time(Kind kind) {
  return kind == Kind::hours || kind == Kind::minutes || kind == Kind::time;
}

/// s of `7:30`, `4 h 30`, `4h30` or `3 min 20`, the finer part bare and below 60; none where it is not written so.
std::optional<double> written_as_a_clock(std::string_view text, Kind kind) {
  if (!is_of_time(kind)) return std::nullopt;
  const auto digits = [&](std::size_t most) -> std::optional<double> {
    std::size_t n = 0;
    double out = 0;
    for (; n < text.size() && is_digit(text[n]); ++n)
      out = 10 * out + (text[n] - '0');
    text.remove_prefix(n);
    text = trimmed(text);
    return n == 0 || n > most ? std::nullopt : std::optional(out);
  };
  text = trimmed(text);
  const auto coarse = digits(4);
  if (!coarse) return std::nullopt;
  double step = 0; // s, of the coarse part
  for (const auto& [mark, seconds] :
       {std::pair<std::string_view, double>{":", kind == Kind::hours ? 3600 : 60}, {"h", 3600}, {"min", 60}})
    if (step == 0 && text.starts_with(mark)) step = seconds, text.remove_prefix(mark.size());
  if (step == 0) return std::nullopt;
  text = trimmed(text);
  const auto fine = digits(2);
  if (!fine || *fine >= 60) return std::nullopt;
  const bool ends = text.empty() || (step == 3600 && text == "h");
  return ends ? std::optional(step * (*coarse + *fine / 60)) : std::nullopt;
}

} // namespace

Expected<double> parse_quantity(std::string_view typed, Kind kind, const UnitPrefs& prefs, std::string_view bare_unit) {
  const std::string text = plain_text(typed);
  if (trimmed(text).empty())
    return refuse(words("Nothing is typed. {0} is wanted, for example {1}."), {kind_name(kind), example_of(kind)});
  if (text.size() > most_typed)
    return refuse(words("That is too long for a number. Type for example {0}."), {example_of(kind)});

  if (const auto seconds = written_as_a_clock(text, kind)) return *seconds;
  Reader reader(trimmed(text));
  const double sign = reader.sign();
  double sum = 0;
  std::optional<Unit> before;
  for (bool first = true; first || !reader.done(); first = false) {
    const auto value = reader.number();
    if (!value) return refuse(not_a_quantity(typed, kind));
    const std::string name = reader.unit();
    Unit unit = shown_unit(kind, prefs).unit;
    if (name.empty()) {
      if (!first) return refuse(not_a_quantity(typed, kind)); // `300 200`: two numbers, not one
      if (!bare_unit.empty()) unit = find_unit(bare_unit, prefs).value_or(unit);
    } else {
      const auto found = find_unit(name, prefs);
      if (!found)
        return refuse(words("“{0}” is not a unit known here. {1} is wanted, for example {2}."),
                      {excerpt(name, 20), kind_name(kind), example_of(kind)});
      unit = *found;
    }
    if (before && !goes_on(*before, unit)) return refuse(not_a_quantity(typed, kind));
    before = unit;
    if (unit.kind != kind) {
      const auto factor = related_factor(unit.kind, kind);
      if (!factor)
        return refuse(words("“{0}” is {1}; {2} is wanted here, for example {3}."),
                      {typed_text(typed), kind_name(unit.kind), kind_name(kind), example_of(kind)});
      unit.factor *= *factor;
      unit.offset = 0; // a step of 15 °C is one of 15 K
    }
    if (unit.offset != 0) {
      if (!first || (reader.skip_spaces(), !reader.done())) return refuse(not_a_quantity(typed, kind));
      sum = sign * unit.offset + *value * unit.factor;
      break;
    }
    sum += *value * unit.factor;
    reader.skip_spaces();
  }
  const double result = sign * sum;
  if (!std::isfinite(result)) return refuse(not_a_quantity(typed, kind));
  if (std::abs(result) > out_of_reason)
    return refuse(words("“{0}” is out of all reason. Type for example {1}."), {typed_text(typed), example_of(kind)});
  return result;
}

Expected<std::vector<double>> parse_readings(std::string_view text, Kind kind, const UnitPrefs& prefs) {
  std::vector<double> out;
  std::size_t start = 0;
  for (std::size_t i = 0; i <= text.size(); ++i) {
    const bool end = i == text.size();
    const bool comma = !end && text[i] == ',' && i + 1 < text.size() && text[i + 1] == ' ';
    if (!end && text[i] != ';' && text[i] != '\n' && !comma) continue;
    const std::string_view piece = trimmed(text.substr(start, i - start));
    start = i + 1;
    if (piece.empty()) continue;
    const auto value = parse_quantity(piece, kind, prefs);
    if (!value) return refuse(value.error());
    out.push_back(*value);
  }
  return out;
}

namespace {

std::string without_trailing_zeros(std::string digits) {
  if (digits.find('.') == std::string::npos) return digits;
  while (digits.back() == '0')
    digits.pop_back();
  if (digits.back() == '.') digits.pop_back();
  return digits;
}

/// 13 9/16; whole fractions of an inch.
std::string as_fraction(double value, int parts) {
  const double magnitude = std::abs(value);
  auto pieces = static_cast<long long>(std::llround(magnitude * parts));
  const bool negative = value < 0 && pieces != 0;
  const long long whole = pieces / parts;
  long long over = pieces % parts;
  long long under = parts;
  while (over != 0 && over % 2 == 0) {
    over /= 2;
    under /= 2;
  }
  std::string out = negative ? "-" : "";
  if (over == 0) return out + fmt::format("{}", whole);
  if (whole != 0) out += fmt::format("{} ", whole);
  return out + fmt::format("{}/{}", over, under);
}

std::string as_decimal(double value, int decimals) {
  std::string out = fmt::format("{:.{}f}", value, decimals);
  if (out.find_first_not_of("-0.") == std::string::npos && out.front() == '-') out.erase(0, 1); // no "-0"
  return out;
}

/// Digits that keep a typed value: a hundredth of what is usually shown, trailing zeros dropped.
std::string as_exact(double value, int usual) {
  return without_trailing_zeros(as_decimal(value, usual + 3));
}

} // namespace

Shown show_parts(double value, Kind kind, const UnitPrefs& prefs, int decimals) {
  const ShownUnit shown = shown_unit(kind, prefs);
  const double number = in_shown_unit(value, kind, prefs);
  if (!std::isfinite(number) || std::abs(number) > 1e12) return {"?", shown.name};
  if (shown.sixteenths != 0 && decimals < 0 && std::abs(number) < 1e6) {
    const double grid = std::round(number * shown.sixteenths) / shown.sixteenths;
    if (decimals == -1 || std::abs(number - grid) < 1e-9) return {as_fraction(number, shown.sixteenths), shown.name};
    return {as_exact(number, 2), shown.name};
  }
  if (shown.sixteenths != 0 && decimals >= 0) decimals += 2; // asked for in millimetres' digits
  if (decimals == -2) return {as_exact(number, shown.decimals), shown.name};
  return {as_decimal(number, decimals < 0 ? shown.decimals : decimals), shown.name};
}

std::string show(double value, Kind kind, const UnitPrefs& prefs, int decimals) {
  const Shown parts = show_parts(value, kind, prefs, decimals);
  if (parts.unit.empty()) return parts.number;
  const bool joined = shown_unit(kind, prefs).joined;
  return parts.number + (joined ? "" : " ") + parts.unit;
}

double shown_step(Kind kind, const UnitPrefs& prefs, int decimals) {
  const ShownUnit shown = shown_unit(kind, prefs);
  if (shown.sixteenths != 0 && decimals == -1) return shown.unit.factor / shown.sixteenths;
  const int exact_base = shown.sixteenths != 0 ? 2 : shown.decimals;
  const int digits = decimals == -2 ? exact_base + 3 : (decimals < 0 ? shown.decimals : decimals);
  return shown.unit.factor * std::pow(10.0, -digits);
}

std::string unit_name(Kind kind, const UnitPrefs& prefs) {
  return shown_unit(kind, prefs).name;
}

double in_shown_unit(double value, Kind kind, const UnitPrefs& prefs) {
  const Unit unit = shown_unit(kind, prefs).unit;
  return (value - unit.offset) / unit.factor;
}

double from_shown_unit(double value, Kind kind, const UnitPrefs& prefs) {
  const Unit unit = shown_unit(kind, prefs).unit;
  return unit.offset + value * unit.factor;
}

const char* kind_name(Kind kind) {
  switch (kind) {
  case Kind::length:
    return words("a length");
  case Kind::mass:
    return words("a mass");
  case Kind::force:
    return words("a force");
  case Kind::pressure:
    return words("a pressure");
  case Kind::volume:
    return words("a volume");
  case Kind::temperature:
    return words("a temperature");
  case Kind::temperature_step:
    return words("a difference of temperature");
  case Kind::frequency:
    return words("a frequency");
  case Kind::angle:
    return words("an angle");
  case Kind::stiffness:
    return words("a spring rate");
  case Kind::time:
    return words("a time");
  case Kind::altitude:
    return words("an altitude");
  case Kind::speed:
  case Kind::road_speed:
    return words("a speed");
  case Kind::turning:
    return words("a turning stiffness");
  case Kind::minutes:
  case Kind::hours:
  case Kind::days:
    return words("a time");
  case Kind::distance:
    return words("a distance");
  case Kind::current:
    return words("a current");
  case Kind::voltage:
    return words("a voltage");
  case Kind::charge:
    return words("a charge");
  case Kind::section:
    return words("a cable's section");
  case Kind::air_flow:
    return words("a flow of air");
  case Kind::conductance:
    return words("a sonic conductance");
  case Kind::heat_flow:
    return words("heat a degree");
  case Kind::sound:
    return words("a sound level");
  case Kind::acceleration:
    return words("an acceleration");
  case Kind::burst_gain:
    return words("open valve for a millimetre");
  case Kind::pressure_gain:
    return words("open valve for a pressure");
  case Kind::share:
    return words("a percentage");
  case Kind::plain:
    break;
  }
  return words("a number");
}

Amount example_of(Kind kind) {
  const auto of = [&](double value) { return Amount{value, kind, -1, {}}; };
  switch (kind) {
  case Kind::length:
    return of(0.320);
  case Kind::mass:
    return of(410);
  case Kind::force:
    return of(4200);
  case Kind::pressure:
    return of(2.6e5);
  case Kind::volume:
    return of(2e-3);
  case Kind::temperature:
    return of(293.15);
  case Kind::temperature_step:
    return of(15);
  case Kind::frequency:
    return of(1.2);
  case Kind::angle:
    return of(0.035);
  case Kind::stiffness:
    return of(25000);
  case Kind::time:
    return of(30);
  case Kind::altitude:
    return of(850);
  case Kind::speed:
    return of(0.13);
  case Kind::road_speed:
    return of(25);
  case Kind::turning:
    return of(20000);
  case Kind::minutes:
    return of(600);
  case Kind::hours:
    return of(9000);
  case Kind::days:
    return of(1209600);
  case Kind::distance:
    return of(8e6);
  case Kind::current:
    return of(28);
  case Kind::voltage:
    return of(12);
  case Kind::charge:
    return of(216000);
  case Kind::section:
    return of(6e-6);
  case Kind::air_flow:
    return of(6e-4);
  case Kind::conductance:
    return of(1.5e-8);
  case Kind::heat_flow:
    return of(1.8);
  case Kind::sound:
    return of(68);
  case Kind::acceleration:
    return of(1.5);
  case Kind::burst_gain:
    return of(8);
  case Kind::pressure_gain:
    return of(6e-6);
  case Kind::share:
    return of(0.7);
  case Kind::plain:
    break;
  }
  return of(0.85);
}

} // namespace mavrel
