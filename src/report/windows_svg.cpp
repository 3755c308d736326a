#include "report/build_sheet.h"

#include "build/names.h"
#include "quantity/quantity.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::report {

using namespace assess;

namespace {

// A strip 680 wide; height grows upward, as everywhere.
constexpr double width = 680, top = 22, bottom = 208;

struct Scale {
  double low, high;
  [[nodiscard]] double y(double H) const { return bottom - (H - low) / (high - low) * (bottom - top); }
};

std::string text_at(double x, double y, const std::string& text, const char* colour, const char* anchor = "start",
                    bool bold = false) {
  return fmt::format(
      "<text x='{:.1f}' y='{:.1f}' font-family='Mavrel Text' font-size='9.5' fill='{}' text-anchor='{}'{}>{}</text>", x,
      y, colour, anchor, bold ? " font-weight='bold'" : "", text);
}

std::string box(double x, double w, double y0, double y1, const char* style) {
  return fmt::format("<rect x='{:.1f}' y='{:.1f}' width='{:.1f}' height='{:.1f}' {}/>", x, std::min(y0, y1), w,
                     std::abs(y1 - y0), style);
}

/// Pushes labels apart so that no two are nearer than a line.
void spread(std::vector<std::pair<double, std::string>>& labels) {
  std::sort(labels.begin(), labels.end());
  for (std::size_t i = 1; i < labels.size(); ++i)
    labels[i].first = std::max(labels[i].first, labels[i - 1].first + 11);
}

std::string escaped(std::string text) {
  for (std::size_t i = 0; (i = text.find('&', i)) != std::string::npos; i += 5)
    text.replace(i, 1, "&amp;");
  for (std::size_t i = 0; (i = text.find('<', i)) != std::string::npos; i += 4)
    text.replace(i, 1, "&lt;");
  return text;
}

std::string post(const build::Build& build, const Assessment& a, End end, const Scale& scale, double x,
                 const UnitPrefs& prefs) {
  const EndAssessment& e = a.end(end);
  const char* colour = end == End::front ? "#0E6A75" : "#8C4A12";
  std::string out = text_at(x, 12, build::name_of(end), colour, "start", true);
  if (!e.has_domain()) return out + text_at(x, 60, words("readings are missing"), "#5B6663");
  constexpr double w = 26;
  out += box(x, w, scale.y(e.domain_low), scale.y(e.domain_high), "fill='#F3D9D6' stroke='none'");
  if (const auto& reach = e.windows.reach)
    out += box(x, w, scale.y(reach->low.height), scale.y(reach->high.height), "fill='#FFFFFF' stroke='none'");
  if (const auto& road = e.windows.road)
    out += box(x, w, scale.y(road->low.height), scale.y(road->high.height),
               fmt::format("fill='{}' fill-opacity='0.25' stroke='{}'", colour, colour).c_str());
  out += box(x, w, scale.y(e.domain_low), scale.y(e.domain_high), "fill='none' stroke='#5B6663'");
  std::vector<std::pair<double, std::string>> left, right;
  const auto edge = [&](const Edge& at, const char* which) {
    std::string label = fmt::format("{} {}", which, show(at.height, Kind::length, prefs));
    if (at.governing) label += fmt::format(": {}", at.governing->limit->name);
    left.emplace_back(scale.y(at.height) + 3, label);
  };
  if (e.windows.reach) edge(e.windows.reach->low, words("reach")), edge(e.windows.reach->high, words("reach"));
  if (e.windows.road) edge(e.windows.road->low, words("road")), edge(e.windows.road->high, words("road"));
  for (std::size_t i = 0; i < e.presets.size(); ++i)
    if (e.presets[i])
      right.emplace_back(
          scale.y(e.presets[i]->height) + 3,
          fmt::format("{} {}", build.variant().brief.presets[i].name, show(e.presets[i]->height, Kind::length, prefs)));
  spread(left);
  spread(right);
  for (const auto& [y, label] : left)
    out += text_at(x + w + 8, y, escaped(label), "#1C2426");
  for (const auto& [y, label] : right)
    out += text_at(x - 8, y, escaped(label), colour, "end", true);
  for (const auto& preset : e.presets)
    if (preset) {
      const double y = scale.y(preset->height);
      out += fmt::format("<path d='M{0:.1f} {1:.1f} l-6 -4 v8 z' fill='{2}'/>", x, y, colour);
    }
  return out;
}

} // namespace

std::string windows_svg(const build::Build& build, const Assessment& a, const UnitPrefs& prefs) {
  Scale scale{1e9, -1e9};
  for (const End end : build::both_ends)
    if (const EndAssessment& e = a.end(end); e.has_domain())
      scale = {std::min(scale.low, e.domain_low), std::max(scale.high, e.domain_high)};
  if (!(scale.high > scale.low)) scale = {0, 1};
  return fmt::format("<svg xmlns='http://www.w3.org/2000/svg' width='{0}' height='{1}' viewBox='0 0 {0} {1}'>", width,
                     bottom + 8) +
         post(build, a, End::front, scale, 90, prefs) + post(build, a, End::rear, scale, 430, prefs) + "</svg>";
}

} // namespace mavrel::report
