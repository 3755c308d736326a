// Drawings as files: read back by another's reader, and true to scale.
#include "report/drawing_files.h"

#include "assess/fit_up/cars.h"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <map>
#include <regex>

namespace mavrel::report {
namespace {

using namespace assess;

/// What the other reader finds.
struct Found : DL_CreationAdapter {
  std::map<std::string, int> on_layer;
  std::vector<std::array<double, 4>> lines;
  std::vector<std::array<double, 3>> circles;
  std::vector<std::array<double, 5>> arcs;
  std::vector<std::string> texts, layers;
  void addLayer(const DL_LayerData& d) override { layers.push_back(d.name); }
  void addLine(const DL_LineData& d) override {
    ++on_layer[attributes.getLayer()];
    lines.push_back({d.x1, d.y1, d.x2, d.y2});
  }
  void addCircle(const DL_CircleData& d) override {
    ++on_layer[attributes.getLayer()];
    circles.push_back({d.cx, d.cy, d.radius});
  }
  void addArc(const DL_ArcData& d) override {
    ++on_layer[attributes.getLayer()];
    arcs.push_back({d.cx, d.cy, d.radius, d.angle1, d.angle2});
  }
  void addText(const DL_TextData& d) override {
    ++on_layer[attributes.getLayer()];
    texts.push_back(d.text);
  }
};

Found read(const std::string& dxf) {
  const test::Folder folder;
  const auto file = folder / "drawing.dxf";
  test::write(file, dxf);
  Found out;
  DL_Dxf reader;
  EXPECT_TRUE(reader.in(file.string(), &out));
  return out;
}

Build with_all_of_it() {
  Build b = fresh_half_ton();
  b.variant().fit[0].mounting.mount_thicker = -0.014;
  b.variant().fit[0].mounting.mount_outward = 0.004;
  b.variant().fit[1].workshop.rail_gap = 0.06;
  b.variant().fit_up.own().plates[1].rail_height = 0.2;
  b.job.number = "042–3 ä";
  return b;
}

TEST(DrawingFiles, AnotherReaderFindsEveryShapeWhereItIs) {
  const Templates all = templates_of(fit_up_of(with_all_of_it()));
  EXPECT_TRUE(all.refused.empty());
  EXPECT_GT(all.made.size(), 8U);
  for (const Template& t : all.made) {
    const Found found = read(template_dxf(t));
    EXPECT_EQ(found.layers, (std::vector<std::string>{"CUT", "ETCH", "DRILL"})) << t.key;
    std::map<std::string, int> wanted;
    std::size_t lines = 0, circles = 0, arcs = 0;
    const auto x = [&](const Flat& p) { return (p.x - t.low.x) * 1e3; };
    const auto y = [&](const Flat& p) { return (p.y - t.low.y) * 1e3; };
    for (const DrawnShape& s : t.shapes) {
      ++wanted[layer_name(s.layer)];
      if (const auto* l = std::get_if<DrawnLine>(&s.what)) {
        ASSERT_LT(lines, found.lines.size()) << t.key;
        const auto& f = found.lines[lines++];
        EXPECT_NEAR(f[0], x(l->from), 1e-5);
        EXPECT_NEAR(f[1], y(l->from), 1e-5);
        EXPECT_NEAR(f[2], x(l->to), 1e-5);
        EXPECT_NEAR(f[3], y(l->to), 1e-5);
      } else if (const auto* c = std::get_if<DrawnCircle>(&s.what)) {
        ASSERT_LT(circles, found.circles.size()) << t.key;
        const auto& f = found.circles[circles++];
        EXPECT_NEAR(f[0], x(c->centre), 1e-5);
        EXPECT_NEAR(f[1], y(c->centre), 1e-5);
        EXPECT_NEAR(f[2], c->radius * 1e3, 1e-5);
      } else if (const auto* a = std::get_if<DrawnArc>(&s.what)) {
        ASSERT_LT(arcs, found.arcs.size()) << t.key;
        const auto& f = found.arcs[arcs++];
        EXPECT_NEAR(f[2], a->radius * 1e3, 1e-5);
        EXPECT_NEAR(f[3], a->from * 57.29577951308232, 1e-4);
        EXPECT_NEAR(f[4], a->to * 57.29577951308232, 1e-4);
      }
    }
    wanted["ETCH"] += static_cast<int>(t.texts.size());
    EXPECT_EQ(found.on_layer, wanted) << t.key;
    // Nothing lies left of, or below, its corner.
    for (const auto& c : found.circles)
      EXPECT_GE(c[0] - c[2], -1e-4);
  }
}

TEST(DrawingFiles, WhatIsCutIsAsWideAsTheDesignSaysToATenthOfAMillimetre) {
  for (const Template& t : templates_of(fit_up_of(with_all_of_it())).made) {
    const Found found = read(template_dxf(t));
    double right = 0, top = 0;
    for (const auto& l : found.lines)
      right = std::max({right, l[0], l[2]}), top = std::max({top, l[1], l[3]});
    for (const auto& c : found.circles)
      right = std::max(right, c[0] + c[2]), top = std::max(top, c[1] + c[2]);
    EXPECT_NEAR(right, t.width() * 1e3, 0.1) << t.key;
    EXPECT_NEAR(top, t.height() * 1e3, 0.1) << t.key;
  }
}

TEST(DrawingFiles, LettersOfAnyScriptStayPlainOnes) {
  for (const Template& t : templates_of(fit_up_of(with_all_of_it())).made)
    for (const unsigned char c : template_dxf(t))
      EXPECT_TRUE(c == '\r' || c == '\n' || (c >= 0x20 && c < 0x7F)) << t.key;
}

TEST(DrawingFiles, SvgIsInMillimetresWithAGroupALayer) {
  for (const Template& t : templates_of(fit_up_of(with_all_of_it())).made) {
    const std::string svg = template_svg(t);
    std::smatch size;
    ASSERT_TRUE(std::regex_search(
        svg, size, std::regex("width='([0-9.]+)mm' height='([0-9.]+)mm' viewBox='0 0 ([0-9.]+) ([0-9.]+)'")));
    EXPECT_EQ(size[1], size[3]); // one unit is one millimetre
    EXPECT_EQ(size[2], size[4]);
    // A point, whatever the locale says.
    EXPECT_NEAR(std::strtod(size[1].str().substr(0, size[1].str().find('.')).c_str(), nullptr),
                std::floor(t.width() * 1e3 + 10), 1);
    for (const char* layer : {"id='CUT'", "id='ETCH'", "id='DRILL'"})
      EXPECT_NE(svg.find(layer), std::string::npos);
    EXPECT_EQ(svg.find("nan"), std::string::npos);
  }
}

} // namespace
} // namespace mavrel::report
