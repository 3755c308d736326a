#include "motion/wheel.h"

#include "quantity/text.h"

#include <charconv>
#include <cmath>

#include <regex>
#include <string>

namespace mavrel::motion {

namespace {

constexpr double inch = 0.0254;

double measuring_ratio(double aspect_percent) {
  if (aspect_percent >= 75) return 0.70;
  if (aspect_percent >= 60) return 0.75;
  if (aspect_percent >= 50) return 0.80;
  if (aspect_percent > 40) return 0.85;
  return 0.90;
}

Message bad_code(std::string_view text) {
  return {words("“{0}” is not a tyre and wheel code. Type tyre, rim width and offset, for example 205/55R16 6.5 ET45."),
          {excerpt(text, 60)}};
}

} // namespace

Expected<WheelCode> parse_wheel(std::string_view text) {
  static const std::regex form(
      R"(^\s*(\d{3})\s*/\s*(\d{2,3})\s*Z?R?F?\s*(\d{2}(?:\.\d)?)\s*[,;xX ]?\s*(\d{1,2}(?:[.,]\d{1,2})?)\s*[Jj]?\s*(?:ET)\s*([-+]?\d{1,3}(?:[.,]\d)?)\s*$)",
      std::regex::icase);
  if (text.size() > 60) return refuse(bad_code(text));
  std::string typed(text);
  for (std::size_t at = typed.find("\u2212"); at != std::string::npos; at = typed.find("\u2212"))
    typed.replace(at, 3, "-");
  std::smatch part;
  if (!std::regex_match(typed, part, form)) return refuse(bad_code(text));
  const auto figure = [&](std::size_t i) {
    std::string digits = part[i].str();
    for (char& c : digits)
      if (c == ',') c = '.';
    // Not std::stod: it would read 7.5 as 7 where the process's locale writes a comma.
    double value = 0;
    const char* begin = digits.data() + (digits.front() == '+' ? 1 : 0);
    std::from_chars(begin, digits.data() + digits.size(), value);
    return value;
  };
  const WheelCode code{figure(1) * 1e-3, figure(2) / 100, figure(3) * inch, figure(4) * inch, figure(5) * 1e-3};
  if (code.tyre_width < 0.125 || code.aspect < 0.2 || code.aspect > 1 || code.rim_diameter < 10 * inch ||
      code.rim_diameter > 30 * inch || code.rim_width < 3 * inch || code.rim_width > 16 * inch)
    return refuse(words("“{0}” is no size a car wears. Tyres run from 125 wide, aspect 20 to 100, rims 10 to 30 in "
                        "across and 3 to 16 in wide, for example 205/55R16 6.5 ET45."),
                  {excerpt(text, 60)});
  return code;
}

WheelSpace wheel_space(const WheelCode& code, std::optional<double> measured_width) {
  WheelSpace out;
  const double K = measuring_ratio(std::round(code.aspect * 100));
  out.measuring_rim = std::round(K * code.tyre_width / inch * 2) / 2 * inch;
  out.section_width = measured_width.value_or(code.tyre_width + wider_per_rim * (code.rim_width - out.measuring_rim));
  out.widest = std::max(out.section_width, code.rim_width + 0.025);
  out.diameter = code.rim_diameter + 2 * code.tyre_width * code.aspect;
  out.inner_face = out.widest / 2 + code.offset;
  out.outer_face = out.widest / 2 - code.offset;
  return out;
}

space::WheelSolid wheel_solid(const WheelCode& code, std::optional<double> measured_width, double grow) {
  constexpr double under_the_bead = 0.012; // m that the rim's barrel lies below its nominal radius
  constexpr double rounding = 0.35;        // of the side wall's height, at the tread's corners
  const WheelSpace space = wheel_space(code, measured_width);
  return {space.diameter / 2, code.rim_diameter / 2 - under_the_bead,   space.widest,
          code.offset,        rounding * code.tyre_width * code.aspect, grow};
}

WheelChange wheel_change(const WheelSpace& from, const WheelSpace& to) {
  return {to.inner_face - from.inner_face, to.outer_face - from.outer_face, (to.diameter - from.diameter) / 2,
          100 * (from.diameter / to.diameter - 1)};
}

} // namespace mavrel::motion
