#include "assess/finding/case.h"

#include "assess/fit_up/cars.h"

namespace mavrel::assess {

namespace {

using Change = std::function<void(Build&)>;

/// The demo estate as it came, its routes with it, and then something else.
Change whole(Change change = [](Build&) {}) {
  return [change](Build& b) {
    b = fresh_estate();
    change(b);
  };
}
build::WayPoint at(double x, double y, double z) {
  build::WayPoint p;
  p.name = "clip", p.x = x, p.y = y, p.z = z;
  return p;
}
/// A line laid by these points.
Change laid(const char* line, std::vector<build::WayPoint> points) {
  return whole([=](Build& b) {
    for (build::Route& r : b.variant().fit_up.own().routes)
      if (r.line == line) r.points = points;
  });
}

} // namespace

std::vector<Case> fit_up_cases() {
  return {
      {"fit_up_check_stale", whole([](Build& b) {
         b = signed_off(b, "front.stop_first");
         b.variant().fit[0].bag = "Osier O-118";
       }),
       whole([](Build& b) { b = signed_off(b, "front.stop_first"); })},
      {"fit_up_check_failed", whole([](Build& b) { b = signed_off(b, "front.stop_first", false); }),
       whole([](Build& b) { b = signed_off(b, "front.stop_first"); })},
      {"fit_up_order", whole([](Build& b) { note_on(b, "mark").after = "front.strip"; }),
       whole([](Build& b) { note_on(b, "front.strip").after = "mark"; })},
      {"fit_up_typed", whole([](Build& b) { note_on(b, "mark").not_before = "soon"; }),
       whole([](Build& b) { note_on(b, "mark").not_before = "2026-12-02"; })},
      {"fit_up_through_wheel", laid("front_left", {at(1, 0.75, 0.3), at(0, 0.72, 0.32)}), whole()},
      {"fit_up_line_hot", laid("feed", {at(2.5, -0.42, 0.31)}), whole()},
      {"fit_up_line_bend", laid("rear_left", {at(2.72, 0.42, 0.62), at(2.723, 0.42, 0.62), at(2.723, 0.423, 0.62)}),
       whole()},
      {"fit_up_line_slack", whole([](Build& b) {
         for (build::Route& r : b.variant().fit_up.own().routes)
           if (r.line == "front_left") r.slack = 0.01;
       }),
       whole()},
      {"fit_up_template", whole([](Build& b) { b.variant().fit_up.own().plates[1].bolt_hole = 0.04; }),
       whole([](Build& b) { b.variant().fit_up.own().plates[1].bolt_hole = 0.012; })},
      {"fit_up_cut", whole([](Build& b) { b.variant().fit_up.own().plates[1].links = 2; }), whole([](Build& b) {
         b.variant().fit_up.own().plates[1].links = 2;
         build::Workshop& w = b.variant().fit[1].workshop;
         w.link_length = 0.62, w.end_a = w.end_b = 0.04, w.thread_length = 0.06, w.thread_diameter = 0.018;
       })},
      {"fit_up_radio", whole([](Build& b) {
         b.variant().fit_up.own().handset = build::HandsetBy::radio;
         b.variant().fit_up.own().metal_box = build::YesNo::yes;
       }),
       whole([](Build& b) { b.variant().fit_up.own().handset = build::HandsetBy::radio; })},
  };
}

} // namespace mavrel::assess
