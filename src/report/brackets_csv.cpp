#include "report/brackets_csv.h"

#include "assess/swing/mounting.h"
#include "build/names.h"
#include "report/file_units.h"

#include <fmt/format.h>

namespace mavrel::report {

std::string brackets_csv(const build::Build& build, const assess::Assessment& a) {
  const FileUnit mm = file_unit(Kind::length), degree = file_unit(Kind::angle);
  std::string out = "end,plate,across_deg,along_deg,outward_mm,forward_mm,straight_at_mm,plate_to_plate_mm\n";
  for (const build::End end : build::both_ends) {
    const assess::Mounting m = assess::mounting_of(a.ends[build::at(end)]);
    if (!m.alignment) continue;
    const build::Mounting& built = build.variant().fit[build::at(end)].mounting;
    const auto plate = [&](const char* name, const assess::GaugeAngles& gauge, const build::Seat& seat) {
      out += fmt::format("{},{},{:.2f},{:.2f},{:.1f},{:.1f},{:.1f},{:.1f}\n", build::key_of(end), name,
                         gauge.across * degree.factor, gauge.along * degree.factor, seat.outward * mm.factor,
                         seat.forward * mm.factor, m.alignment->straight_at * mm.factor,
                         m.between_plates.value_or(0) * mm.factor);
    };
    plate("upper", m.alignment->upper, built.upper);
    plate("lower", m.alignment->lower, built.lower);
  }
  return out;
}

} // namespace mavrel::report
