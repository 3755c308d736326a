#include "assess/care/origin.h"
#include "assess/finding/case.h"
#include "assess/fit_up/cars.h"
#include "build/care.h"

namespace mavrel::assess {

namespace {

using Change = std::function<void(Build&)>;

Change whole_proving(Change change = [](Build&) {}) {
  return [change](Build& b) {
    b = fresh_estate();
    b.care = build::Care{};
    b.origin = build::Origin{};
    b.variant().proving = build::Proving{};
    change(b);
  };
}
Change series(std::vector<double> times) {
  return whole_proving([times](Build& b) {
    build::ProofSeries s;
    s.check = "leak_hold", s.gauge = "rear_left";
    for (const double t : times) {
      build::ProofReading r;
      r.time = t, r.pressure = 3e5;
      s.readings.push_back(r);
    }
    b.variant().proving.own().series.push_back(s);
  });
}

} // namespace

std::vector<Case> proving_cases() {
  return {
      {"proving_stale", whole_proving([](Build& b) {
         b = signed_off(b, "rear.top_out");
         b.variant().fit[1].bag = "Osier O-118";
       }),
       whole_proving([](Build& b) { b = signed_off(b, "rear.top_out"); })},
      {"proving_failed", whole_proving([](Build& b) { b = signed_off(b, "rear.top_out", false); }),
       whole_proving([](Build& b) { b = signed_off(b, "rear.top_out"); })},
      {"proving_unproved", whole_proving([](Build& b) { b.variant().proving.own().handed_over = "2026-12-18"; }),
       whole_proving()},
      {"proving_typed", whole_proving([](Build& b) { b.variant().proving.own().handed_over = "in spring"; }),
       whole_proving([](Build& b) { b.variant().proving.own().handed_over = "2026-12-18"; })},
      {"proving_readings", series({0, 600, 600}), series({0, 600, 1200})},
      {"proving_learned", whole_proving([](Build& b) {
         build::LearnedNote n;
         n.what = "rear.area", n.is = 1.02, n.by = "Tamsin";
         b.variant().proving.own().learned.push_back(n);
       }),
       whole_proving()},
      {"care_other_car", whole_proving([](Build& b) { b = begun_from(b, "earlier.mavrel", "2026-11-26"); }),
       whole_proving([](Build& b) {
         b = begun_from(b, "earlier.mavrel", "2026-11-26");
         b.origin.own().taken.clear();
       })},
      {"care_unproved", whole_proving([](Build& b) {
         b.care.own().from = "2026-01-01";
         b.variant().proving.own().handed_over.clear();
       }),
       whole_proving()},
      {"care_log_day", whole_proving([](Build& b) {
         build::LogEntry e;
         e.day = "yesterday";
         b.care.own().log.push_back(e);
       }),
       whole_proving([](Build& b) {
         build::LogEntry e;
         e.day = "2026-11-25";
         b.care.own().log.push_back(e);
       })},
      {"care_typed", whole_proving([](Build& b) { b.care.own().from = "spring"; }),
       whole_proving([](Build& b) { b.care.own().from = "2026-03-01"; })},
  };
}

} // namespace mavrel::assess
