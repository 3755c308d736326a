#include "app/stages/faults/edits.h"

#include "assess/proving/proving_findings.h"

#include <algorithm>

namespace mavrel::app {

bool add_finding(Desk& desk, const assess::FaultFinding& finding) {
  return desk.add_entry(Desk::tr("Note a finding"), "faults.findings", assess::note_of(finding));
}

void strike_finding(Desk& desk, std::size_t note) {
  desk.remove_entry(Desk::tr("Remove a finding"), QString("faults.findings.%1").arg(note));
}

void strike_all_findings(Desk& desk) {
  build::Build build = desk.build();
  build.faults.own() = {};
  desk.edit(Desk::tr("Start a new diagnosis"), std::move(build));
}

void set_nothing_else(Desk& desk, bool nothing_else) {
  build::Build build = desk.build();
  build.faults.own().nothing_else = nothing_else ? build::YesNo::yes : build::YesNo::no;
  desk.edit(Desk::tr("Say whether anything else was noticed"), std::move(build));
}

int take_readings(Desk& desk, const assess::FaultCar* car) {
  const auto points = assess::hold_points(desk.assessment().proving.given());
  const auto notes = assess::readings_at_hand(desk.build(), points, car);
  if (notes.empty()) return 0;
  build::Build build = desk.build();
  auto& list = build.faults.own().findings;
  int taken = 0;
  for (const build::FaultNote& note : notes)
    if (list.size() < build::most_findings) list.push_back(note), ++taken;
  desk.edit(Desk::tr("Take readings from Proving and the log"), std::move(build));
  return taken;
}

bool keep_found(Desk& desk, const assess::FoundAsked& asked) {
  auto done = assess::with_found(desk.build(), desk.assessment().proving.given(), asked);
  if (!done) {
    desk.tell(desk.words_of(done.error()));
    return false;
  }
  desk.edit(Desk::tr("Keep what was found"), std::move(*done));
  return true;
}

namespace {

build::FaultOften& row_of(build::Shop& shop, const std::string& cause) {
  auto row = std::find_if(shop.faults.begin(), shop.faults.end(), [&](const auto& o) { return o.cause == cause; });
  if (row == shop.faults.end()) row = shop.faults.insert(shop.faults.end(), build::FaultOften{cause, {}, 0, {}});
  return *row;
}

} // namespace

void set_often(Desk& desk, const std::string& cause, std::optional<double> often) {
  build::Build build = desk.build();
  row_of(build.shop.own(), cause).often = often;
  desk.edit(Desk::tr("Set how often it is"), std::move(build));
}

void forget_found(Desk& desk, const std::string& cause) {
  build::Build build = desk.build();
  row_of(build.shop.own(), cause).found = 0;
  desk.edit(Desk::tr("Forget what was counted"), std::move(build));
}

} // namespace mavrel::app
