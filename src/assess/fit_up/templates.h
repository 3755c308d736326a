// Plates, brackets and feet as flat drawings, true to scale: what is cut, etched and drilled. Drawn from the numbers of
// the design alone.
#pragma once

#include "assess/fit_up/features.h"

#include <variant>

namespace mavrel::assess {

/// A place on a drawing, m: x outboard as it lies on the car's left side, y to the front; seen from above.
struct Flat {
  double x = 0, y = 0;
  friend bool operator==(const Flat&, const Flat&) = default;
};
enum class Layer { cut, etch, drill };
[[nodiscard]] const char* layer_name(Layer layer); // `CUT`, as drawing files call it

struct DrawnLine {
  Flat from, to;
};
struct DrawnCircle {
  Flat centre;
  double radius = 0;
};
/// Counter-clockwise from one angle to the other, rad from x.
struct DrawnArc {
  Flat centre;
  double radius = 0, from = 0, to = 0;
};
/// Always etched.
struct DrawnText {
  Flat at; // its lower left end
  double height = 0.004;
  std::string text;
};
struct DrawnShape {
  Layer layer = Layer::cut;
  std::variant<DrawnLine, DrawnCircle, DrawnArc> what;
};

/// A distance that the drawing must have, for who checks a print.
struct DrawnMeasure {
  Message what;
  double value = 0;
  Kind kind = Kind::length;
};

struct Template {
  std::string key; // `rear.lower_plate`, `rear.lower_plate.right`
  Message title;
  std::optional<End> end;
  std::optional<Side> side; // only this one; none: both alike
  double thickness = 0;     // m
  int count = 1;            // to be made by it
  std::vector<DrawnShape> shapes;
  std::vector<DrawnText> texts;
  Flat low, high; // m, bounds of what is cut
  std::vector<DrawnMeasure> measures;
  std::optional<double> drawn_for; // m, H
  std::string stamp;               // what is etched: build, part, side, height
  [[nodiscard]] double width() const { return high.x - low.x; }
  [[nodiscard]] double height() const { return high.y - low.y; }
};

/// A drawing that can't be made as the numbers are.
struct RefusedTemplate {
  std::string key;
  Message title, why;
};
struct Templates {
  std::vector<Template> made;
  std::vector<RefusedTemplate> refused;
};
/// Those that the design asks for.
/// Source: docs/models.md, "Templates".
[[nodiscard]] Templates templates_of(const FitUpGiven& given);

/// How a bag is screwed to its plates: by what was entered for the end, else by the bag's card.
struct PlateHoles {
  double bolts = 0, bolt_circle = 0, bolt_hole = 0; // how many, m, m
  double port_hole = 0, port_out = 0;               // m; hole 0: none, or not of this plate
  double port_turn = 0;                             // rad from outboard to the front
};
/// @param port  the plate that the air goes through
/// @returns why there is no drawing without it, where neither says: nothing is made up that is then drilled
[[nodiscard]] Expected<PlateHoles> plate_holes(const build::PlateFit& plates, const air::BagCard& card, bool port);

/// m of the round plate under or over a bag, where nobody said: what its bolts and a bead ask for.
[[nodiscard]] double usual_plate_diameter(const PlateHoles& holes, const air::BagCard& card);
/// m of flat for a fold. @param angle  rad turned through; radius  m inside
[[nodiscard]] double bend_allowance(double angle, double radius, double thickness);

} // namespace mavrel::assess
