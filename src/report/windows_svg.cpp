#include "assess/end/end_answer.h"
#include "build/names.h"
#include "quantity/quantity.h"
#include "report/build_sheet.h"
#include "report/spread.h"
#include "report/sure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::report {

using namespace assess;

namespace {

constexpr const char *ink = "#1C2426", *second = "#5B6663", *rule = "#C8CDC4", *stop_red = "#A8281F",
                     *amber = "#B0761A";

std::string escaped(std::string text) {
  for (std::size_t i = 0; (i = text.find('&', i)) != std::string::npos; i += 5)
    text.replace(i, 1, "&amp;");
  for (std::size_t i = 0; (i = text.find('<', i)) != std::string::npos; i += 4)
    text.replace(i, 1, "&lt;");
  return text;
}

struct Type {
  double size = 12; // points
  const char* colour = ink;
  const char* anchor = "start";
  bool bold = false;
};

std::string words_at(double x, double y, const std::string& text, const Type& type) {
  return fmt::format("<text x='{:.1f}' y='{:.1f}' font-family='Mavrel Text' font-size='{:.1f}' fill='{}' "
                     "text-anchor='{}'{}>{}</text>",
                     x, y, type.size, type.colour, type.anchor, type.bold ? " font-weight='bold'" : "", escaped(text));
}

std::string line(double x0, double y0, double x1, double y1, const char* colour, double weight) {
  return fmt::format("<line x1='{:.1f}' y1='{:.1f}' x2='{:.1f}' y2='{:.1f}' stroke='{}' stroke-width='{:.1f}'/>", x0,
                     y0, x1, y1, colour, weight);
}

/// Up to so many letters: a name somebody typed must not run over the post.
std::string shortened(const std::string& text, std::size_t most) {
  std::string out;
  std::size_t letters = 0;
  for (const char c : text) {
    const bool begins = (static_cast<unsigned char>(c) & 0xC0) != 0x80;
    if (begins && ++letters > most) return out + "…";
    out += c;
  }
  return out;
}

/// One end's post with what stands beside it.
class Post {
public:
  Post(const build::Build& build, const Assessment& a, End end, const UnitPrefs& prefs, const Doubt* doubt)
      : build_(build), a_(a), end_(end), e_(a.end(end)), prefs_(prefs), doubt_(doubt),
        colour_(end == End::front ? "#0E6A75" : "#8C4A12") {}

  /// @param x, width  of the room there is; heights from `low` at `bottom` to `high` at `top`
  std::string draw(double x, double width, double top, double bottom, double low, double high) {
    left_ = x + width * 0.46;
    wide_ = width * 0.17;
    top_ = top;
    bottom_ = bottom;
    low_ = low;
    high_ = high;
    std::string out = words_at(left_ + wide_ / 2, top - 26, build::name_of(end_), {22, colour_, "middle", true});
    if (!e_.has_domain())
      return out + words_at(left_ + wide_ / 2, top + 40, words("the height is missing"), {13, second, "middle"});
    if (e_.rough())
      out += words_at(left_ + wide_ / 2, top - 10, words("≈ rough: usual figures stand in"), {10, amber, "middle"});
    return out + body() + bands() + limits() + flags(x);
  }

private:
  [[nodiscard]] double y(double H) const {
    return std::clamp(bottom_ - (H - low_) / (high_ - low_) * (bottom_ - top_), top_, bottom_);
  }
  [[nodiscard]] std::string number(double H) const { return (e_.rough() ? "≈" : "") + show(H, Kind::length, prefs_); }

  [[nodiscard]] std::string box(double y0, double y1, const std::string& style) const {
    return fmt::format("<rect x='{:.1f}' y='{:.1f}' width='{:.1f}' height='{:.1f}' {}/>", left_, std::min(y0, y1),
                       wide_, std::abs(y1 - y0), style);
  }

  /// Diagonal lines over a stretch, each cut where it leaves the post.
  [[nodiscard]] std::string hatched(double y0, double y1, const char* colour) const {
    std::string out;
    for (double from = y0 - wide_; from < y1; from += 9) {
      const double a = std::max(from, y0), b = std::min(from + wide_, y1); // falls from left to right
      if (b > a) out += line(left_ + (a - from), a, left_ + (b - from), b, colour, 0.8);
    }
    return out;
  }

  [[nodiscard]] std::string body() const {
    std::string out = box(top_, bottom_, "fill='#FFFFFF' stroke='none'");
    double free_top = bottom_, free_bottom = bottom_;
    if (const auto& reach = e_.windows.reach) free_top = y(reach->high.height), free_bottom = y(reach->low.height);
    out += hatched(top_, free_top, stop_red);
    if (e_.windows.reach) out += hatched(free_bottom, bottom_, stop_red);
    if (const auto& road = e_.windows.road)
      out += box(y(road->low.height), y(road->high.height),
                 fmt::format("fill='{0}' fill-opacity='0.28' stroke='{0}' stroke-width='1.5'", colour_));
    if (const auto& reach = e_.windows.reach)
      for (const double H : {reach->low.height, reach->high.height})
        out += line(left_, y(H), left_ + wide_, y(H), stop_red, 2.5);
    return out + box(top_, bottom_, fmt::format("fill='none' stroke='{}' stroke-width='1'", second));
  }

  /// Where the windows' edges lie in nine cases of ten: bars on the post's edges, a foot at either end.
  [[nodiscard]] std::string bands() const {
    std::string out;
    if (!doubt_) return out;
    for (const auto& [road, low, high] : edge_bands(*doubt_, end_)) {
      const char* colour = road ? colour_ : stop_red;
      const double w = 7, x = road ? left_ + wide_ - w : left_, from = y(high), to = y(low);
      out += fmt::format("<rect x='{:.1f}' y='{:.1f}' width='{:.1f}' height='{:.1f}' fill='{}' fill-opacity='0.6'/>", x,
                         from, w, std::max(1.0, to - from), colour);
      for (const double foot : {from, to})
        out += line(x - 1.5, foot, x + w + 1.5, foot, colour, 1);
    }
    return out;
  }

  /// Right of the post: where its windows end, and by what.
  [[nodiscard]] std::string limits() const {
    struct Label {
      double H;
      const char *name, *colour;
      std::string number;
    };
    std::vector<Label> labels;
    const auto add = [&](const Edge& edge, const char* colour, const char* answer) {
      const DoubtAnswer* a = doubt_of(doubt_, std::string(build::key_of(end_)) + answer, edge.height);
      labels.push_back(
          {edge.height, short_name(edge), colour,
           a ? (e_.rough() ? "≈" : "") + with_doubt(edge.height, a->sd, Kind::length, prefs_) : number(edge.height)});
    };
    if (const auto& reach = e_.windows.reach)
      add(reach->high, stop_red, ".reach.high"), add(reach->low, stop_red, ".reach.low");
    if (const auto& road = e_.windows.road)
      add(road->high, colour_, ".road.high"), add(road->low, colour_, ".road.low");
    std::vector<double> wanted;
    for (const Label& label : labels)
      wanted.push_back(y(label.H));
    const auto at = spread_apart(wanted, 36, top_ + 14, bottom_ - 20);
    const double x = left_ + wide_ + 14;
    std::string out;
    for (std::size_t i = 0; i < labels.size(); ++i) {
      out += line(left_ + wide_ + 1, wanted[i], x - 3, at[i], rule, 1);
      out += words_at(x, at[i] + 2, labels[i].number, {17, labels[i].colour, "start", true});
      out += words_at(x, at[i] + 15, labels[i].name, {11, labels[i].colour});
    }
    if (!e_.windows.reach) out += words_at(x, (top_ + bottom_) / 2, words("no height is left"), {15, stop_red});
    return out;
  }

  /// Pressures of a preset in the first load case, left and right where they differ.
  [[nodiscard]] std::string pressures(const PresetAtEnd& preset) const {
    if (preset.cases.empty() || !preset.cases[0]) return "";
    const auto& p = preset.cases[0]->side_pressure;
    const Shown l = show_parts(p[0], Kind::pressure, prefs_), r = show_parts(p[1], Kind::pressure, prefs_);
    if (l.number == r.number) return fmt::format("{} {}", l.number, l.unit);
    return fmt::format("{} / {} {}", l.number, r.number, l.unit);
  }

  /// Left of the post: a flag a preset, with its height as large as there is room for.
  [[nodiscard]] std::string flags(double room_from) const {
    std::vector<std::size_t> shown;
    std::vector<double> wanted;
    for (std::size_t i = 0; i < e_.presets.size(); ++i)
      if (e_.presets[i]) shown.push_back(i), wanted.push_back(y(e_.presets[i]->height));
    if (shown.empty()) return "";
    const double each = (bottom_ - top_) / static_cast<double>(shown.size());
    const double scale = std::clamp(each / 62, 0.3, 1.0); // many presets are written smaller
    const auto at = spread_apart(wanted, 60 * scale, top_ + 22 * scale, bottom_ - 28 * scale);
    std::string out;
    const double tip = left_ - 2, text_x = tip - 24;
    for (std::size_t k = 0; k < shown.size(); ++k) {
      const PresetAtEnd& preset = *e_.presets[shown[k]];
      const auto& wished = build_.variant().brief.presets[shown[k]];
      const bool fine = preset.stands(wished.use);
      out += fmt::format("<path d='M{0:.1f} {1:.1f} l-8 -7 h-9 v14 h9 z' fill='{2}' stroke='{3}' stroke-width='1.5'/>",
                         tip, wanted[k], fine ? colour_ : "#FFFFFF", fine ? colour_ : stop_red);
      if (std::abs(at[k] - wanted[k]) > 4) out += line(tip - 17, wanted[k], text_x + 3, at[k], rule, 1);
      const auto letters = static_cast<std::size_t>((text_x - room_from) / (7.6 * scale));
      out += words_at(text_x, at[k] - 12 * scale, shortened(wished.name, letters), {14 * scale, ink, "end"});
      out += words_at(text_x, at[k] + 10 * scale, number(preset.height),
                      {23 * scale, fine ? colour_ : stop_red, "end", true});
      const std::string below = fine ? pressures(preset) : words("outside its window");
      out += words_at(text_x, at[k] + 24 * scale, below, {11 * scale, fine ? second : stop_red, "end"});
    }
    return out;
  }

  const build::Build& build_;
  const Assessment& a_;
  End end_;
  const EndAssessment& e_;
  const UnitPrefs& prefs_;
  const Doubt* doubt_; // may be null
  const char* colour_;
  double left_ = 0, wide_ = 0, top_ = 0, bottom_ = 0, low_ = 0, high_ = 1;
};

} // namespace

std::string windows_svg(const build::Build& build, const Assessment& a, const UnitPrefs& prefs, double width,
                        double height, const Doubt* doubt) {
  double low = 1e9, high = -1e9;
  for (const End end : build::both_ends) {
    const EndAssessment& e = a.end(end);
    if (!e.has_domain()) continue;
    const auto& reach = e.windows.reach;
    constexpr double beyond = 0.02; // m: what is hatched need not be seen whole
    low = std::min(low, reach ? std::max(e.domain_low, reach->low.height - beyond) : e.domain_low);
    high = std::max(high, reach ? std::min(e.domain_high, reach->high.height + beyond) : e.domain_high);
    for (const auto& preset : e.presets)
      if (preset) low = std::min(low, preset->height - 0.006), high = std::max(high, preset->height + 0.006);
  }
  if (!(high > low)) low = 0, high = 1;
  std::string out = fmt::format(
      "<svg xmlns='http://www.w3.org/2000/svg' width='{0:.0f}' height='{1:.0f}' viewBox='0 0 {0:.0f} {1:.0f}'>", width,
      height);
  const double top = 52, bottom = height - 24;
  out += words_at(0, height - 4,
                  fmt::format("{} {}{}", words("Gauge pressures left / right with the load case"), a.loads[0].name,
                              doubt ? words("; bars: where an edge lies in nine cases of ten") : ""),
                  {10, second});
  for (const End end : build::both_ends)
    out += Post(build, a, end, prefs, doubt).draw(end == End::front ? 0 : width / 2, width / 2, top, bottom, low, high);
  return out + "</svg>";
}

} // namespace mavrel::report
