#include "report/drawing_files.h"

#include "quantity/quantity.h"
#include "report/html_table.h"

#include <fmt/format.h>

#include <cmath>
#include <numbers>

namespace mavrel::report {

using namespace assess;

namespace {

constexpr double margin = 0.005; // m round an SVG

/// DXF release 12, group by group.
class Dxf {
public:
  void group(int code, std::string_view value) { out_ += fmt::format("{:>3}\r\n{}\r\n", code, value); }
  void number(int code, double value) { group(code, fmt::format("{:.6f}", value)); }
  void whole(int code, int value) { group(code, fmt::format("{:>6}", value)); }
  void at(int code, double x, double y) {
    number(code, x);
    number(code + 10, y);
    number(code + 20, 0);
  }
  void entity(const char* kind, Layer layer) {
    group(0, kind);
    group(8, layer_name(layer));
  }
  [[nodiscard]] std::string take() { return std::move(out_); }

private:
  std::string out_;
};

void tables(Dxf& dxf) {
  dxf.group(0, "SECTION");
  dxf.group(2, "TABLES");
  dxf.group(0, "TABLE");
  dxf.group(2, "LTYPE");
  dxf.whole(70, 1);
  dxf.group(0, "LTYPE");
  dxf.group(2, "CONTINUOUS");
  dxf.whole(70, 64);
  dxf.group(3, "Solid line");
  dxf.whole(72, 65);
  dxf.whole(73, 0);
  dxf.number(40, 0);
  dxf.group(0, "ENDTAB");
  dxf.group(0, "TABLE");
  dxf.group(2, "LAYER");
  dxf.whole(70, 3);
  for (const auto& [layer, colour] :
       {std::pair(Layer::cut, 7), std::pair(Layer::etch, 3), std::pair(Layer::drill, 1)}) {
    dxf.group(0, "LAYER");
    dxf.group(2, layer_name(layer));
    dxf.whole(70, 64);
    dxf.whole(62, colour);
    dxf.group(6, "CONTINUOUS");
  }
  dxf.group(0, "ENDTAB");
  dxf.group(0, "ENDSEC");
}

/// Letters of release 12 are plain ones.
std::string plain(const std::string& text) {
  std::string out;
  for (const char c : text) {
    const auto u = static_cast<unsigned char>(c);
    if ((u & 0xC0) == 0x80) continue; // the rest of a letter that is one already
    out += u >= 0x20 && u < 0x7F ? c : '_';
  }
  return out;
}

} // namespace

std::vector<std::string> measures_of(const Template& drawing) {
  std::vector<std::string> out;
  for (const DrawnMeasure& m : drawing.measures)
    out.push_back(say(m.what) + " " + show(m.value, m.kind, {}, m.kind == Kind::length ? 1 : -1));
  return out;
}

std::string template_dxf(const Template& d) {
  const auto mm = [](double v) { return v * 1e3; };
  const auto x = [&](const Flat& p) { return mm(p.x - d.low.x); };
  const auto y = [&](const Flat& p) { return mm(p.y - d.low.y); };
  Dxf dxf;
  dxf.group(999, "millimetres, 1:1");
  for (std::string measure : measures_of(d)) {
    for (const auto& [ours, theirs] : {std::pair<std::string_view, std::string_view>("’", "'"), {"°", " deg"}})
      for (std::size_t at = 0; (at = measure.find(ours, at)) != std::string::npos;)
        measure.replace(at, ours.size(), theirs);
    dxf.group(999, plain(measure));
  }
  dxf.group(0, "SECTION");
  dxf.group(2, "HEADER");
  dxf.group(9, "$ACADVER");
  dxf.group(1, "AC1009");
  dxf.group(9, "$EXTMIN");
  dxf.at(10, 0, 0);
  dxf.group(9, "$EXTMAX");
  dxf.at(10, mm(d.width()), mm(d.height()));
  dxf.group(0, "ENDSEC");
  tables(dxf);
  dxf.group(0, "SECTION");
  dxf.group(2, "ENTITIES");
  const double degree = 180 / std::numbers::pi;
  for (const DrawnShape& s : d.shapes) {
    if (const auto* l = std::get_if<DrawnLine>(&s.what)) {
      dxf.entity("LINE", s.layer);
      dxf.at(10, x(l->from), y(l->from));
      dxf.at(11, x(l->to), y(l->to));
    } else if (const auto* c = std::get_if<DrawnCircle>(&s.what)) {
      dxf.entity("CIRCLE", s.layer);
      dxf.at(10, x(c->centre), y(c->centre));
      dxf.number(40, mm(c->radius));
    } else if (const auto* a = std::get_if<DrawnArc>(&s.what)) {
      dxf.entity("ARC", s.layer);
      dxf.at(10, x(a->centre), y(a->centre));
      dxf.number(40, mm(a->radius));
      dxf.number(50, a->from * degree);
      dxf.number(51, a->to * degree);
    }
  }
  for (const DrawnText& t : d.texts) {
    dxf.entity("TEXT", Layer::etch);
    dxf.at(10, x(t.at), y(t.at));
    dxf.number(40, mm(t.height));
    dxf.group(1, plain(t.text));
  }
  dxf.group(0, "ENDSEC");
  dxf.group(0, "EOF");
  return dxf.take();
}

std::string template_svg(const Template& d) {
  const double w = (d.width() + 2 * margin) * 1e3, h = (d.height() + 2 * margin) * 1e3;
  const auto x = [&](double v) { return (v - d.low.x + margin) * 1e3; };
  const auto y = [&](double v) { return h - (v - d.low.y + margin) * 1e3; };
  std::string out = fmt::format("<svg xmlns='http://www.w3.org/2000/svg' width='{0:.4f}mm' height='{1:.4f}mm' "
                                "viewBox='0 0 {0:.4f} {1:.4f}' fill='none' stroke-width='0.2'>\n<title>{2}</title>\n",
                                w, h, escaped(say(d.title)));
  std::string measures;
  for (const std::string& measure : measures_of(d))
    measures += (measures.empty() ? "" : "; ") + measure;
  out += "<desc>" + escaped(measures) + "</desc>\n";
  for (const Layer layer : {Layer::cut, Layer::etch, Layer::drill}) {
    const char* colour = layer == Layer::cut ? "#000000" : layer == Layer::etch ? "#2D6A3C" : "#A8281F";
    out += fmt::format("<g id='{}' stroke='{}'>\n", layer_name(layer), colour);
    for (const DrawnShape& s : d.shapes) {
      if (s.layer != layer) continue;
      if (const auto* l = std::get_if<DrawnLine>(&s.what)) {
        out += fmt::format("<line x1='{:.4f}' y1='{:.4f}' x2='{:.4f}' y2='{:.4f}'/>\n", x(l->from.x), y(l->from.y),
                           x(l->to.x), y(l->to.y));
      } else if (const auto* c = std::get_if<DrawnCircle>(&s.what)) {
        out += fmt::format("<circle cx='{:.4f}' cy='{:.4f}' r='{:.4f}'/>\n", x(c->centre.x), y(c->centre.y),
                           c->radius * 1e3);
      } else if (const auto* a = std::get_if<DrawnArc>(&s.what)) {
        const auto on = [&](double angle) {
          return Flat{a->centre.x + a->radius * std::cos(angle), a->centre.y + a->radius * std::sin(angle)};
        };
        const Flat from = on(a->from), to = on(a->to);
        out +=
            fmt::format("<path d='M {:.4f} {:.4f} A {:.4f} {:.4f} 0 {} 0 {:.4f} {:.4f}'/>\n", x(from.x), y(from.y),
                        a->radius * 1e3, a->radius * 1e3, a->to - a->from > std::numbers::pi ? 1 : 0, x(to.x), y(to.y));
      }
    }
    for (const DrawnText& t : d.texts)
      if (layer == Layer::etch)
        out += fmt::format("<text x='{:.4f}' y='{:.4f}' font-family='sans-serif' font-size='{:.4f}' fill='{}' "
                           "stroke='none'>{}</text>\n",
                           x(t.at.x), y(t.at.y), t.height * 1e3 / 0.72, colour, escaped(t.text));
    out += "</g>\n";
  }
  return out + "</svg>\n";
}

} // namespace mavrel::report
