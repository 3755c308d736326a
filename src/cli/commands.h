// The commands of mavrel-cli, each typed text in and one JSON object out.
#pragma once

#include "quantity/expected.h"

#include <string>
#include <vector>

namespace mavrel::cli {

struct BagRequest {
  std::string card, height, load, added = "0", n = "1.38", altitude = "0", air = "20", conductance, frequency;
};
[[nodiscard]] Expected<std::string> bag(const BagRequest& request);

/// The fit of a cycle sheet: degree, per row the fitted length, ratio and its standard error, rows to measure again.
[[nodiscard]] Expected<std::string> cycle(const std::string& sheet);
/// Poses of a geometry file at changes of H, `-70mm,0,70mm`.
[[nodiscard]] Expected<std::string> linkage(const std::string& path, const std::string& heights);
/// Least distances of one wheel to the solids of a file.
[[nodiscard]] Expected<std::string> gap(const std::string& path);
/// A car of a file driven over its profile, and its angles on flat ground.
[[nodiscard]] Expected<std::string> ground(const std::string& path);

struct WaterRequest {
  std::string air, humidity, tank, tank_air, used, altitude = "0";
};
/// Water taken in with the air, and what of it falls out in the tank.
[[nodiscard]] Expected<std::string> water(const WaterRequest& request);
struct LeakRequest {
  std::string readings, volume, altitude = "0";
};
/// Mass lost an hour by readings of pressure and temperature.
[[nodiscard]] Expected<std::string> leak(const LeakRequest& request);

/// Time passing in an air network of a file.
[[nodiscard]] Expected<std::string> air(const std::string& path);
struct CableRequest {
  std::string current, length, volts, drop = "3%";
};
/// Section, fuse and gauge for a current.
[[nodiscard]] Expected<std::string> cable(const CableRequest& request);

[[nodiscard]] Expected<std::string> wheel(const std::vector<std::string>& codes);

struct BuildRequest {
  std::string build, shelf, pdf, csv, brackets;
  std::string paper = "a4"; // or `letter`
  unsigned threads = 0;     // of a search; 0: as many as the machine has
  std::size_t most = 200;   // choices printed
  bool nine_in_ten = false; // of a search: only choices that hold so
};
[[nodiscard]] Expected<std::string> assess_build(const BuildRequest& request);
[[nodiscard]] Expected<std::string> search_build(const BuildRequest& request);
[[nodiscard]] Expected<std::string> sheet(const BuildRequest& request);

struct LiftRequest {
  std::string build, shelf, from = "Parked", to = "Road", order, csv;
  bool engine = false; // the compressor may run
};
/// A build's car moved from one preset to another by its own air kit.
[[nodiscard]] Expected<std::string> lift(const LiftRequest& request);
/// Kits of the shelf's parts that do what the brief asks of the air.
[[nodiscard]] Expected<std::string> size(const BuildRequest& request);

struct RoadRequest {
  std::string road = "C", length = "2000m", step = "0.05m";
  unsigned long seed = 1;
};
/// A road of a class and a seed, as CSV.
[[nodiscard]] Expected<std::string> road(const RoadRequest& request);
/// A height sensor's lever over a file's heights.
[[nodiscard]] Expected<std::string> sensor(const std::string& path);
struct LevelRequest {
  std::string build, shelf, road = "C", speed = "60km/h", minutes = "20", method = "bursts", average = "4s",
                            band = "5mm", wait = "5s", gain, add, warm;
  unsigned long seed = 1;
};
/// A build's car that keeps its road height over a drive.
[[nodiscard]] Expected<std::string> level(const LevelRequest& request);

struct PlanRequest {
  std::string file; // tasks, *.json; or a build, *.mavrel
  std::string shelf, now, csv, pdf;
};
/// Tasks of a file in their order: the critical path, and a schedule with people and places shared. Of a build the jobs
/// that its design asks for, with their hold points.
[[nodiscard]] Expected<std::string> plan(const PlanRequest& request);
struct FitUpRequest {
  std::string build, shelf, cut_csv, buy_csv, labels_csv, dxf, svg, pdf;
};
/// What is cut and bought for a build, its lines on their ways and its parts in their places.
[[nodiscard]] Expected<std::string> parts(const FitUpRequest& request);
/// Plates and brackets of a build; written as drawing files where asked for.
[[nodiscard]] Expected<std::string> templates(const FitUpRequest& request);
/// Both ways of what builders disagree on, on a build's car.
[[nodiscard]] Expected<std::string> schools(const FitUpRequest& request);
struct CutRequest {
  std::string stock, kerf = "3mm";
  std::vector<std::string> pieces, leftovers; // `412mm:4`
};
/// Pieces cut from as few bars as can be.
[[nodiscard]] Expected<std::string> cut(const CutRequest& request);

[[nodiscard]] Expected<std::string> schema();

struct ProveRequest {
  std::string build, shelf, owner_pdf, shop_pdf;
  bool learn = false;
};
/// Checks of Proving with what was predicted and measured, what a difference points to, and what could be learned.
[[nodiscard]] Expected<std::string> prove(const ProveRequest& request);

struct CareRequest {
  std::string build, shelf, now, ics;
};
/// What comes round and when, what events call for, and the trends.
[[nodiscard]] Expected<std::string> care(const CareRequest& request);

struct LogRequest {
  std::string build, kind = "remark", what, where, day, by, text, odometer, height, pressure, temperature, took, loss,
                     water;
};
/// The log as a table; or, where something is said, one entry more, on the disk before it is answered.
[[nodiscard]] Expected<std::string> log(const LogRequest& request);

struct BookRequest {
  std::string book, folder, shelf, words, platform, layout, bag, owner, lesson, due_before;
  bool findings = false;
};
/// The shop's book: brought to what stands in a folder, and searched.
[[nodiscard]] Expected<std::string> book(const BookRequest& request);

struct BeginRequest {
  std::string earlier, to;
};
/// A new build begun from an earlier one of a car alike.
[[nodiscard]] Expected<std::string> begin_from(const BeginRequest& request);

struct PractiseRequest {
  std::string build, shelf, level = "slight", name;
  unsigned long long seed = 1;
  std::vector<std::string> tests; // to be done, instead of those a careful diagnostician does
  bool untested = false;          // none are
  bool reveal = false;
};
/// A car with something hidden the matter, as a build with what is told and was read of it; with a name how well that
/// was found.
[[nodiscard]] Expected<std::string> practise(const PractiseRequest& request);

struct DiagnoseRequest {
  std::string file, shelf;
  std::vector<std::string> found; // `slow_up:front_left=yes`, `fill_time:front_left=6.2s`
  bool take = false;              // what Proving and the log hold as well
  double most = 12;
};
/// How likely each fault is by what a case or a build says was found, and which test to do next.
[[nodiscard]] Expected<std::string> diagnose(const DiagnoseRequest& request);

struct DoubtRequest {
  std::string build, shelf;
  std::size_t draws = 500;
  unsigned long long seed = 1;
};
/// How sure the readings are, and by them the answers.
[[nodiscard]] Expected<std::string> doubt(const DoubtRequest& request);

} // namespace mavrel::cli
