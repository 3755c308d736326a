#include "assess/fit_up/templates.h"

#include "assess/swing/mounting.h"
#include "build/names.h"
#include "build/names_fit_up.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

namespace {

using build::Feature;
using build::Side;
constexpr double pi = std::numbers::pi;
constexpr double land = 0.010; // m, left round what is cut out and not drilled

Flat polar(double radius, double angle) {
  return {radius * std::cos(angle), radius * std::sin(angle)};
}
double apart(const Flat& a, const Flat& b) {
  return std::hypot(a.x - b.x, a.y - b.y);
}

/// A drawing in the making. Refused once something in it can't be.
class Sheet {
public:
  Sheet(std::string key, Message title) : key_(std::move(key)), title_(std::move(title)) {}

  Template made;
  std::optional<Message> refused;

  void line(Layer layer, Flat from, Flat to) { made.shapes.push_back({layer, DrawnLine{from, to}}); }
  void circle(Layer layer, Flat centre, double radius) { made.shapes.push_back({layer, DrawnCircle{centre, radius}}); }
  void arc(Layer layer, Flat centre, double radius, double from, double to) {
    made.shapes.push_back({layer, DrawnArc{centre, radius, from, to}});
  }
  void outline(const std::vector<Flat>& corners) {
    for (std::size_t i = 0; i < corners.size(); ++i)
      line(Layer::cut, corners[i], corners[(i + 1) % corners.size()]);
  }
  void text(Flat at, double height, std::string words) { made.texts.push_back({at, height, std::move(words)}); }
  void cross(Flat at, double half) {
    line(Layer::etch, {at.x - half, at.y}, {at.x + half, at.y});
    line(Layer::etch, {at.x, at.y - half}, {at.x, at.y + half});
  }
  void measure(const char* what, double value, Kind kind = Kind::length) {
    made.measures.push_back({{what, {}}, value, kind});
  }
  /// A hole with so much to the nearest edge: never less than its own diameter.
  void hole(Flat at, double diameter, double to_edge) {
    circle(Layer::drill, at, diameter / 2);
    for (const auto& [other, d] : holes_)
      if (apart(at, other) - (d + diameter) / 2 < std::min(d, diameter) / 2)
        refuse({words("Two holes of {0} and {1} are {2} from middle to middle: they meet. A larger circle, fewer or "
                      "smaller holes."),
                {metres(diameter, 1), metres(d, 1), metres(apart(at, other), 1)}});
    holes_.emplace_back(at, diameter);
    if (to_edge < diameter - 1e-9)
      refuse({words("A hole of {0} would lie {1} from the edge; never nearer than its own diameter. A plate {2} wider, "
                    "or a smaller circle."),
              {metres(diameter, 1), told_from(metres(to_edge, 1), diameter),
               metres(std::ceil((diameter - to_edge) * 2e3) / 1e3, 0)}});
  }
  /// Something cut out, with the land that stays beside it.
  void keeps(double stays, const char* what) {
    if (stays < land - 1e-9)
      refuse({words("{0} leaves {1}; {2} is the least that holds."),
              {what, told_from(metres(stays, 1), land), metres(land)}});
  }
  void refuse(Message why) {
    if (!refused) refused = std::move(why);
  }
  void put_into(Templates& out) {
    if (refused) {
      out.refused.push_back({key_, title_, *refused});
      return;
    }
    made.key = key_;
    made.title = title_;
    bool first = true;
    const auto add = [&](const Flat& p) {
      made.low = first ? p : Flat{std::min(made.low.x, p.x), std::min(made.low.y, p.y)};
      made.high = first ? p : Flat{std::max(made.high.x, p.x), std::max(made.high.y, p.y)};
      first = false;
    };
    for (const DrawnShape& s : made.shapes) {
      if (s.layer != Layer::cut) continue;
      if (const auto* l = std::get_if<DrawnLine>(&s.what)) add(l->from), add(l->to);
      if (const auto* c = std::get_if<DrawnCircle>(&s.what)) {
        add({c->centre.x - c->radius, c->centre.y - c->radius});
        add({c->centre.x + c->radius, c->centre.y + c->radius});
      }
      if (const auto* a = std::get_if<DrawnArc>(&s.what))
        for (int i = 0; i <= 32; ++i) {
          const Flat p = polar(a->radius, a->from + (a->to - a->from) * i / 32);
          add({a->centre.x + p.x, a->centre.y + p.y});
        }
    }
    out.made.push_back(std::move(made));
  }

private:
  std::string key_;
  Message title_;
  std::vector<std::pair<Flat, double>> holes_;
};

class Drawer {
public:
  explicit Drawer(const FitUpGiven& given) : given_(given), features_(features_of(given)) {}

  Templates draw() {
    for (const End end : build::both_ends) {
      end_ = end;
      const FeatureSet has = features_[build::at(end)];
      const auto is = [&](Feature f) { return (has & bit(f)) != 0; };
      const bool plates = is(Feature::bag) && (is(Feature::apart) || is(Feature::welded));
      if (plates) {
        plate("upper_plate", words("upper bag plate"), true);
        plate("lower_plate", words("lower bag plate"), false);
      }
      if (is(Feature::welded)) {
        if (welded_on(given_, end, given_.plates(end).upper)) bracket(true);
        if (welded_on(given_, end, given_.plates(end).lower)) bracket(false);
      }
      if (is(Feature::thin_plate)) mount();
      if (is(Feature::notch)) notch();
    }
    feet();
    return std::move(out_);
  }

private:
  [[nodiscard]] const build::PlateFit& fit() const { return given_.plates(end_); }
  [[nodiscard]] std::optional<double> school_height() const {
    const FittedEnd& e = given_.end(end_)->fitted;
    return given_.fit(end_).mounting.straight_at == build::StraightAt::parked ? e.parked : e.road;
  }
  [[nodiscard]] std::string key(const char* what, std::optional<Side> side = {}) const {
    return side ? fmt::format("{}.{}.{}", build::key_of(end_), what, build::key_of(*side))
                : fmt::format("{}.{}", build::key_of(end_), what);
  }
  [[nodiscard]] Message title(const char* what, std::optional<Side> side = {}) const {
    if (!side) return {words("{0}: {1}"), {build::name_of(end_), what}};
    return {words("{0}: {1}, {2}"), {build::name_of(end_), what, build::name_of(*side)}};
  }
  /// What is etched on every part: build, part, side, the height it was drawn for.
  void stamp(Sheet& sheet, const char* what, std::optional<Side> side, Flat at, double room) {
    std::string text = given_.number.empty() ? std::string("MAVREL") : given_.number;
    text += fmt::format(" {} {}", build::key_of(end_), what);
    text += side ? fmt::format(" {}", build::key_of(*side)) : std::string(" both");
    sheet.made.drawn_for = school_height();
    if (sheet.made.drawn_for) text += fmt::format(" H{:.0f}", *sheet.made.drawn_for * 1e3);
    sheet.made.stamp = text;
    // A letter is about 0.8 of its height wide.
    const double letters = static_cast<double>(text.size());
    const double height = std::clamp(room / (0.8 * letters), 0.0015, 0.005);
    sheet.text({at.x - 0.4 * height * letters, at.y}, height, text);
    sheet.made.end = end_;
    sheet.made.side = side;
  }

  [[nodiscard]] air::BagCard card() const {
    if (const auto& bag = given_.end(end_)->fitted.bag) return bag->card;
    air::BagCard none; // on the shelf; a refusal still says of which
    none.name = given_.fit(end_).bag;
    return none;
  }
  [[nodiscard]] double across(const PlateHoles& holes) const { // of a plate, m
    return fit().diameter.value_or(usual_plate_diameter(holes, card()));
  }

  void plate(const char* what, const char* name, bool upper) {
    const auto holes = plate_holes(fit(), card(), upper);
    if (!holes) {
      out_.refused.push_back({key(what), title(name), holes.error()});
      return;
    }
    // A port off the line from inboard to outboard makes left and right each other's image.
    const bool sided = holes->port_hole > 0 && holes->port_out > 0 && std::abs(std::sin(holes->port_turn)) > 1e-9;
    for (const Side side : build::both_sides) {
      if (!sided && side == Side::right) break;
      const std::optional<Side> only = sided ? std::optional(side) : std::nullopt;
      Sheet sheet(key(what, only), title(name, only));
      draw_plate(sheet, what, only, *holes, across(*holes), side == Side::right ? -1 : 1);
      sheet.made.count = sided ? 1 : 2;
      sheet.put_into(out_);
    }
  }
  void draw_plate(Sheet& sheet, const char* what, std::optional<Side> side, const PlateHoles& p, double D,
                  double mirror) {
    sheet.made.thickness = fit().thickness;
    sheet.circle(Layer::cut, {0, 0}, D / 2);
    const int bolts = static_cast<int>(std::lround(p.bolts));
    for (int i = 0; i < bolts; ++i) {
      const Flat at = polar(p.bolt_circle / 2, 2 * pi * i / bolts + pi / 2);
      sheet.hole({mirror * at.x, at.y}, p.bolt_hole, D / 2 - p.bolt_circle / 2 - p.bolt_hole / 2);
    }
    if (p.port_hole > 0) {
      const Flat at = polar(p.port_out, p.port_turn);
      sheet.hole({mirror * at.x, at.y}, p.port_hole, D / 2 - p.port_out - p.port_hole / 2);
      sheet.measure(words("port’s hole"), p.port_hole);
      sheet.measure(words("port from the middle"), p.port_out);
    }
    sheet.cross({0, 0}, 0.006);
    // An arrow outboard, so that it can't be put in the wrong way round.
    const double tip = mirror * (D / 2 - 0.004), back = mirror * (D / 2 - 0.012);
    sheet.line(Layer::etch, {mirror * D / 4, 0}, {tip, 0});
    sheet.line(Layer::etch, {tip, 0}, {back, 0.003});
    sheet.line(Layer::etch, {tip, 0}, {back, -0.003});
    stamp(sheet, what, side, {0, -D / 6}, 0.75 * D); // below the port, above the bolts
    sheet.measure(words("plate’s diameter"), D);
    sheet.measure(words("bolt circle"), p.bolt_circle);
    sheet.measure(words("bolt hole"), p.bolt_hole);
  }

  /// A folded angle from the bag's plate to what it is welded to, and its gussets.
  void bracket(bool upper) {
    const auto m = mounting_of(given_.end(end_));
    double tilt = 0; // of the plate from level, seen from the front
    if (m.alignment) tilt = upper ? m.alignment->upper.across : m.alignment->lower.across;
    const double inside = pi / 2 - tilt; // between plate and an upright rail
    const build::PlateFit& p = fit();
    const char* what = upper ? "upper_bracket" : "lower_bracket";
    const char* name = upper ? words("upper bracket, flat") : words("lower bracket, flat");
    const auto holes = plate_holes(p, card(), upper);
    if (!holes) { // its leg is as long as the plate is wide
      out_.refused.push_back({key(what), title(name), holes.error()});
      return;
    }
    const double t = p.thickness, base = across(*holes), w = p.bracket_width;
    Sheet sheet(key(what), title(name));
    sheet.made.thickness = t;
    sheet.made.count = 2;
    const double turn = pi - inside, allowance = bend_allowance(turn, p.bend_radius, t);
    // Legs are given outside to outside of the corner; the fold begins its set-back before it.
    const double back = (p.bend_radius + t) * std::tan(turn / 2);
    const double first = base - back, second = p.bracket_leg - back;
    if (first < land || second < land)
      sheet.refuse({words("Legs of {0} and {1} are too short for a fold of {2} in {3}: each loses {4} to it."),
                    {metres(base), metres(p.bracket_leg), metres(p.bend_radius, 1), metres(t, 1), metres(back, 1)}});
    const double length = first + allowance + second;
    sheet.outline({{0, 0}, {length, 0}, {length, w}, {0, w}});
    for (const double x : {first, first + allowance})
      sheet.line(Layer::etch, {x, 0}, {x, w});
    sheet.line(Layer::etch, {first + allowance / 2, 0}, {first + allowance / 2, w});
    stamp(sheet, what, {}, {first / 2, w / 3}, 0.8 * first);
    sheet.text({first + allowance / 2 + 0.002, w - 0.006}, 0.004, fmt::format("fold {:.1f} deg", turn * 180 / pi));
    sheet.measure(words("flat’s length"), length);
    sheet.measure(words("width"), w);
    sheet.measure(words("folded by"), turn, Kind::angle);
    sheet.measure(words("between its legs"), inside, Kind::angle);
    sheet.put_into(out_);
    if (p.gusset_height > 0 && p.gussets > 0) gusset(upper, inside);
  }
  void gusset(bool upper, double inside) {
    const build::PlateFit& p = fit();
    const char* what = upper ? "upper_gusset" : "lower_gusset";
    Sheet sheet(key(what), title(upper ? words("upper gusset") : words("lower gusset")));
    sheet.made.thickness = p.gusset_thickness;
    sheet.made.count = static_cast<int>(std::lround(2 * p.gussets));
    // Its corner is cut off, clear of the bracket's fold and the weld in it.
    const double corner = p.bend_radius + 0.004;
    if (corner > 0.6 * std::min(p.gusset_height, p.gusset_length))
      sheet.refuse({words("Gussets of {0} by {1} are smaller than the corner of {2} that the fold takes from them."),
                    {metres(p.gusset_length), metres(p.gusset_height), metres(corner, 1)}});
    const Flat along{1, 0}, up{std::cos(inside), std::sin(inside)};
    const auto at = [&](const Flat& way, double by) { return Flat{way.x * by, way.y * by}; };
    sheet.outline({at(along, corner), at(along, p.gusset_length), at(up, p.gusset_height), at(up, corner)});
    stamp(sheet, what, {}, {p.gusset_length * 0.4, p.gusset_height * 0.2}, 0.5 * p.gusset_length);
    sheet.measure(words("along the plate"), p.gusset_length);
    sheet.measure(words("up the rail"), p.gusset_height);
    sheet.measure(words("between them"), inside, Kind::angle);
    sheet.put_into(out_);
  }

  /// A strut's upper plate: studs as the car has them, the bearing's middle moved outward.
  void mount() {
    const build::PlateFit& p = fit();
    const double out_by = given_.fit(end_).mounting.mount_outward;
    for (const Side side : build::both_sides) {
      const bool sided = std::abs(out_by) > 1e-9;
      if (!sided && side == Side::right) break;
      const std::optional<Side> only = sided ? std::optional(side) : std::nullopt;
      Sheet sheet(key("upper_mount", only), title(words("upper mount plate"), only));
      const double mirror = side == Side::right ? -1 : 1;
      sheet.made.thickness = p.thickness;
      sheet.made.count = sided ? 1 : 2;
      const double D = std::max(p.diameter.value_or(0), p.stud_circle + 3 * p.stud_hole + 0.002);
      sheet.circle(Layer::cut, {0, 0}, D / 2);
      const Flat middle{mirror * out_by, 0};
      sheet.circle(Layer::cut, middle, p.bearing_hole / 2);
      sheet.cross({0, 0}, 0.005);
      sheet.cross(middle, 0.005);
      sheet.keeps(D / 2 - std::abs(out_by) - p.bearing_hole / 2, words("The bearing’s hole"));
      const int studs = static_cast<int>(std::lround(p.studs));
      for (int i = 0; i < studs; ++i) {
        const Flat at = polar(p.stud_circle / 2, 2 * pi * i / studs + pi / 2);
        const Flat there{mirror * at.x, at.y};
        sheet.hole(there, p.stud_hole,
                   std::min(D / 2 - p.stud_circle / 2, apart(there, middle) - p.bearing_hole / 2) - p.stud_hole / 2);
      }
      stamp(sheet, "upper_mount", only, {0, -D / 2 + 0.006}, 0.4 * D);
      sheet.measure(words("plate’s diameter"), D);
      sheet.measure(words("studs’ circle"), p.stud_circle);
      sheet.measure(words("bearing’s middle outward"), out_by);
      sheet.measure(words("bearing’s hole"), p.bearing_hole);
      sheet.put_into(out_);
    }
  }

  /// The doubler of a notched rail, with the notch in it.
  void notch() {
    const build::PlateFit& p = fit();
    Sheet sheet(key("notch"), title(words("notch")));
    const double deep = *notch_depth(given_, end_);
    const double reserve = given_.fit(end_).workshop.rail_reserve.value_or(0.010);
    const double R = given_.survey(end_).thickness.axle / 2 + reserve;
    sheet.made.thickness = p.thickness;
    sheet.made.count = 4; // both rails, inside and outside
    if (!p.rail_height) {
      sheet.refuse({words("Say how high the rail is: the notch of {0} is drawn into it."), {metres(deep)}});
      return sheet.put_into(out_);
    }
    const double tall = *p.rail_height, flank = std::max(0.06, tall / 2);
    sheet.keeps(tall - deep, words("The notch in this rail"));
    const double half = R + flank;
    // Its roof is round where it is deep enough for that.
    const double roof = std::min(R, deep);
    const Flat left{-R, 0}, right{R, 0};
    sheet.line(Layer::cut, {-half, 0}, left);
    if (deep - roof > 1e-9) sheet.line(Layer::cut, left, {-R, deep - roof});
    if (roof >= R - 1e-12) {
      sheet.arc(Layer::cut, {0, deep - R}, R, 0, pi);
    } else {
      // Flatter: an arc through both flanks and the roof.
      const double r = (R * R + roof * roof) / (2 * roof), half_angle = std::asin(std::min(1.0, R / r));
      sheet.arc(Layer::cut, {0, deep - r}, r, pi / 2 - half_angle, pi / 2 + half_angle);
    }
    if (deep - roof > 1e-9) sheet.line(Layer::cut, {R, deep - roof}, right);
    sheet.line(Layer::cut, right, {half, 0});
    sheet.line(Layer::cut, {half, 0}, {half, tall});
    sheet.line(Layer::cut, {half, tall}, {-half, tall});
    sheet.line(Layer::cut, {-half, tall}, {-half, 0});
    sheet.line(Layer::etch, {0, deep}, {0, tall});
    stamp(sheet, "notch", {}, {0, deep + (tall - deep) / 2}, 1.2 * half);
    sheet.measure(words("notch’s depth"), deep);
    sheet.measure(words("notch’s width"), 2 * R);
    sheet.measure(words("rail’s height"), tall);
    sheet.put_into(out_);
  }

  /// Saddles that tanks lie in.
  void feet() {
    for (const KitBox& box : kit_boxes(given_.air().kit, given_.air().parts)) {
      if (box.role != KitRole::tank && box.role != KitRole::second_tank) continue;
      const bool second = box.role == KitRole::second_tank;
      Sheet sheet(second ? "second_tank_feet" : "tank_feet",
                  second ? Message{words("second tank’s feet"), {}} : Message{words("tank’s feet"), {}});
      constexpr double under = 0.030, bolt = 0.009, flange = 0.032, thick = 0.005;
      const double R = box.height / 2, wide = 0.7 * 2 * R, deep = R - std::sqrt(R * R - wide * wide / 4);
      const double half = wide / 2 + flange;
      sheet.made.thickness = thick;
      sheet.made.count = 2;
      const double top = under + deep;
      const double angle = std::asin(wide / 2 / R);
      sheet.line(Layer::cut, {-half, 0}, {half, 0});
      sheet.line(Layer::cut, {half, 0}, {half, under});
      sheet.line(Layer::cut, {half, under}, {wide / 2 + 0.004, under});
      sheet.line(Layer::cut, {wide / 2 + 0.004, under}, {wide / 2, top});
      sheet.arc(Layer::cut, {0, under + R}, R, 3 * pi / 2 - angle, 3 * pi / 2 + angle);
      sheet.line(Layer::cut, {-wide / 2, top}, {-wide / 2 - 0.004, under});
      sheet.line(Layer::cut, {-wide / 2 - 0.004, under}, {-half, under});
      sheet.line(Layer::cut, {-half, under}, {-half, 0});
      for (const double side : {-1.0, 1.0}) {
        const Flat at{side * (half - flange / 2), under / 2};
        sheet.hole(at, bolt, std::min({half - std::abs(at.x), under - at.y, at.y}) - bolt / 2);
      }
      sheet.text({-0.6 * wide / 2, 0.006}, 0.0035, given_.number + " tank foot");
      sheet.made.stamp = given_.number + " tank foot";
      sheet.measure(words("tank’s diameter"), 2 * R);
      sheet.measure(words("bolts apart"), 2 * (half - flange / 2));
      sheet.put_into(out_);
    }
  }

  const FitUpGiven& given_;
  std::array<FeatureSet, 2> features_;
  End end_ = End::front;
  Templates out_;
};

} // namespace

const char* layer_name(Layer layer) {
  return layer == Layer::cut ? "CUT" : layer == Layer::etch ? "ETCH" : "DRILL";
}

Templates templates_of(const FitUpGiven& given) {
  return Drawer(given).draw();
}

Expected<PlateHoles> plate_holes(const build::PlateFit& plates, const air::BagCard& card, bool port) {
  const auto of = [](std::optional<double> entered, double stated) {
    return entered ? entered : stated > 0 ? std::optional(stated) : std::nullopt;
  };
  const auto refused = [&](const char* what) {
    return refuse({words("The card of {0} does not say {1}. Measure it on the bag and enter it for these plates or on "
                         "the card: what "
                         "is drilled is not guessed."),
                   {card.name, what}});
  };
  PlateHoles out;
  const auto bolts = of(plates.bolts, card.bolts);
  if (!bolts) return refused(words("how many bolts hold it"));
  out.bolts = *bolts;
  if (out.bolts >= 1) {
    const auto circle = of(plates.bolt_circle, card.bolt_circle), hole = of(plates.bolt_hole, card.bolt_hole);
    if (!circle) return refused(words("on which circle its bolts lie"));
    if (!hole) return refused(words("which holes its bolts want"));
    out.bolt_circle = *circle, out.bolt_hole = *hole;
  }
  if (!port) return out;
  const auto hole = of(plates.port_hole, card.port_hole);
  if (!hole) return refused(words("where its port is and how wide; 0 mm where no air goes through the plate"));
  out.port_hole = *hole;
  out.port_out = plates.port_out.value_or(card.port_out);
  out.port_turn = plates.port_turn.value_or(card.port_turn);
  return out;
}

double usual_plate_diameter(const PlateHoles& p, const air::BagCard& card) {
  const double holes = p.bolt_circle + 3 * p.bolt_hole, port = 2 * p.port_out + 3 * p.port_hole;
  const double wanted = std::max({holes, port, card.flange > 0 ? card.flange : 0.6 * card.max_diameter});
  return std::ceil(wanted * 200 - 1e-9) / 200; // to whole 5 mm
}

double bend_allowance(double angle, double radius, double thickness) {
  constexpr double neutral = 0.42; // of the thickness from the inside: what is usual of steel
  return angle * (radius + neutral * thickness);
}

} // namespace mavrel::assess
