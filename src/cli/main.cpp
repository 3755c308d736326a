// mavrel-cli: the product's answers without a window. One JSON object on standard output and exit 0, or one plain
// line on standard error and exit 2.
#include "cli/commands.h"
#include "quantity/text.h"

#include <CLI/CLI.hpp>

#include <cerrno>
#include <csignal>
#include <cstdio>
#include <cstring>
#include <exception>
#include <fcntl.h>
#include <functional>
#include <new>

namespace {

using namespace mavrel;

/// What somebody typed may be of any length: of each of its words no more is repeated than a person reads.
Message short_of(Message what) {
  constexpr std::size_t most = 80; // letters
  for (Argument& part : what.args) {
    if (auto* inner = std::get_if<Message>(&part.what)) *inner = short_of(std::move(*inner));
    auto* typed = std::get_if<std::string>(&part.what);
    if (!typed || typed->size() <= most) continue;
    std::string out;
    for (std::size_t at = 0; at < typed->size();) {
      const std::size_t end = std::min(typed->find(' ', at), typed->size());
      out += excerpt(std::string_view(*typed).substr(at, end - at), most);
      if (end < typed->size()) out += ' ';
      at = end + 1;
    }
    *typed = std::move(out);
  }
  return what;
}

void complain(const Message& what) {
  std::string line = "mavrel-cli: " + say(short_of(what)) + "\n";
  std::fputs(line.c_str(), stderr);
}

/// Standard output, error and input as files of their own: were one closed, the next file opened would take its number,
/// and an answer would go into it.
bool keep_standard_files() {
  bool out_was_open = true;
  for (const int fd : {0, 1, 2}) {
    if (::fcntl(fd, F_GETFD) != -1) continue;
    out_was_open = out_was_open && fd != 1;
    if (::open("/dev/null", fd == 0 ? O_RDONLY : O_WRONLY) != fd) return false;
  }
  return out_was_open;
}

int finish(const Expected<std::string>& answer, bool out_is_open) {
  if (!answer) {
    complain(answer.error());
    return 2;
  }
  if (answer->empty()) return 0;
  if (!out_is_open) {
    complain({words("The answer went nowhere: standard output is closed."), {}});
    return 2;
  }
  errno = 0;
  const bool written = std::fwrite(answer->data(), 1, answer->size(), stdout) == answer->size() &&
                       std::fputc('\n', stdout) != EOF && std::fflush(stdout) == 0;
  if (written) return 0;
  complain({words("The answer could not be written to standard output: {0}."), {std::string(std::strerror(errno))}});
  return 2;
}

} // namespace

int main(int argc, char** argv) {
  const bool out_is_open = keep_standard_files();
  std::signal(SIGPIPE, SIG_IGN); // a reader that went away is an error to be said
  CLI::App app(
      "Mavrel's answers without a window. Quantities are typed with their unit: 140mm, \"5 1/2 in\", 4200N, 2l.",
      "mavrel-cli");
  app.set_version_flag("--version", "mavrel-cli " MAVREL_VERSION);
  app.require_subcommand(1);
  std::function<Expected<std::string>()> run;

  cli::BagRequest bag;
  auto* bag_command = app.add_subcommand("bag", "State and stiffness of one bag from its card");
  bag_command->add_option("card", bag.card, "Bag card, CSV")->required();
  bag_command->add_option("--height", bag.height, "Height of the bag")->required();
  bag_command->add_option("--load", bag.load, "Load along its axis")->required();
  bag_command->add_option("--added", bag.added, "Volume beside the bag");
  bag_command->add_option("--n", bag.n, "Exponent of quick movement");
  bag_command->add_option("--altitude", bag.altitude, "Above the sea, m");
  bag_command->add_option("--air", bag.air, "Temperature of the air, °C");
  bag_command->add_option("--conductance", bag.conductance, "Of the line to the added volume, kg/(s·Pa)");
  bag_command->add_option("--frequency", bag.frequency, "Hz, several with commas");
  bag_command->callback([&] { run = [&] { return cli::bag(bag); }; });

  std::vector<std::string> wheels;
  auto* wheel_command = app.add_subcommand("wheel", "Space a tyre and wheel take, or the change from one to another");
  wheel_command->add_option("code", wheels, "\"205/45R17 7.5 ET35\"")->required()->expected(1, 2);
  wheel_command->callback([&] { run = [&] { return cli::wheel(wheels); }; });

  std::string sheet;
  auto* cycle_command =
      app.add_subcommand("cycle", "Motion ratio of a wheel jacked through its travel, and rows to read again");
  cycle_command->add_option("sheet", sheet, "Cycle sheet, *.csv")->required();
  cycle_command->callback([&] { run = [&] { return cli::cycle(sheet); }; });

  std::string geometry, heights = "0";
  auto* linkage_command = app.add_subcommand("linkage", "A suspension's joints through travel: lengths, ratio, angles");
  linkage_command->add_option("geometry", geometry, "Places of its joints, *.json")->required();
  linkage_command->add_option("--heights", heights, "Changes of H, droop positive, several with commas");
  linkage_command->callback([&] { run = [&] { return cli::linkage(geometry, heights); }; });

  std::string solids;
  auto* gap_command = app.add_subcommand("gap", "Least distances of one wheel to solids near it");
  gap_command->add_option("file", solids, "Wheel, its place and the solids, *.json")->required();
  gap_command->callback([&] { run = [&] { return cli::gap(solids); }; });

  std::string drive;
  auto* ground_command = app.add_subcommand("ground", "A car driven over a profile of the ground");
  ground_command->add_option("file", drive, "Car, heights, underside and profile, *.json")->required();
  ground_command->callback([&] { run = [&] { return cli::ground(drive); }; });

  std::string network;
  auto* air_command = app.add_subcommand("air", "Time passing in an air network: pressures, temperatures, heights");
  air_command->add_option("file", network, "Volumes, lines and compressors, *.json")->required();
  air_command->callback([&] { run = [&] { return cli::air(network); }; });

  cli::CableRequest wire;
  auto* cable_command = app.add_subcommand("cable", "Section, fuse and gauge of a cable");
  cable_command->add_option("--current", wire.current, "That it carries for long")->required();
  cable_command->add_option("--length", wire.length, "One way")->required();
  cable_command->add_option("--volts", wire.volts, "Of the supply")->required();
  cable_command->add_option("--drop", wire.drop, "Share of it that may be lost out and back");
  cable_command->callback([&] { run = [&] { return cli::cable(wire); }; });

  cli::WaterRequest wet;
  auto* water_command = app.add_subcommand("water", "Water that falls out of the air in the tank");
  water_command->add_option("--air", wet.air, "Temperature of the air outside; below zero --air=-6C")->required();
  water_command->add_option("--humidity", wet.humidity, "Its relative humidity")->required();
  water_command->add_option("--tank", wet.tank, "Gauge pressure of the tank")->required();
  water_command->add_option("--tank-air", wet.tank_air, "Temperature in the tank")->required();
  water_command->add_option("--used", wet.used, "Dry air that goes through")->required();
  water_command->add_option("--altitude", wet.altitude, "Above the sea");
  water_command->callback([&] { run = [&] { return cli::water(wet); }; });

  cli::LeakRequest held;
  auto* leak_command = app.add_subcommand("leak", "Air lost an hour, the temperature taken out");
  leak_command->add_option("readings", held.readings, "time_s,pressure_bar,temperature_c, *.csv")->required();
  leak_command->add_option("--volume", held.volume, "Of the bag with what is open to it")->required();
  leak_command->add_option("--altitude", held.altitude, "Above the sea");
  leak_command->callback([&] { run = [&] { return cli::leak(held); }; });

  cli::BuildRequest request;
  auto* assess_command = app.add_subcommand("assess", "Windows, limits, tracks and findings of a build");
  assess_command->add_option("build", request.build, "Build file, *.mavrel")->required();
  assess_command->add_option("--shelf", request.shelf, "Folder of bag cards, added to those known");
  assess_command->callback([&] { run = [&] { return cli::assess_build(request); }; });

  auto* search_command =
      app.add_subcommand("search", "Find what fits: the whole shelf at both ends, against the brief");
  search_command->add_option("build", request.build, "Build file, *.mavrel")->required();
  search_command->add_option("--shelf", request.shelf, "Folder of bag cards, added to those known");
  search_command->add_option("--threads", request.threads, "How many to use; 0: all")->check(CLI::Range(0, 256));
  search_command->add_option("--most", request.most, "Choices and pairs of bags to print")
      ->check(CLI::Range(std::size_t{0}, std::size_t{1000000}));
  search_command->add_flag("--nine-in-ten", request.nine_in_ten,
                           "Only choices that hold in nine cases of ten of how sure readings and cards are");
  search_command->callback([&] { run = [&] { return cli::search_build(request); }; });

  auto* sheet_command = app.add_subcommand("sheet", "The build sheet as PDF, the tracks as CSV");
  sheet_command->add_option("build", request.build, "Build file, *.mavrel")->required();
  sheet_command->add_option("--pdf", request.pdf, "PDF to write");
  sheet_command->add_option("--paper", request.paper, "a4 or letter")->check(CLI::IsMember({"a4", "letter"}));
  sheet_command->add_option("--csv", request.csv, "CSV to write");
  sheet_command->add_option("--brackets", request.brackets, "CSV of bracket angles and seats to write");
  sheet_command->add_option("--shelf", request.shelf, "Folder of bag cards, added to those known");
  sheet_command->callback([&] { run = [&] { return cli::sheet(request); }; });

  cli::LiftRequest move;
  auto* lift_command = app.add_subcommand("lift", "The car moved from preset to preset by its air kit");
  lift_command->add_option("build", move.build, "Build file, *.mavrel")->required();
  lift_command->add_option("--from", move.from, "Name of a preset");
  lift_command->add_option("--to", move.to, "Name of another");
  lift_command->add_option("--order", move.order, "Of the corners; the kit's own when left out")
      ->check(CLI::IsMember({"together", "front first", "rear first", "one by one"}));
  lift_command->add_flag("--engine", move.engine, "The compressor may run");
  lift_command->add_option("--csv", move.csv, "CSV of heights, pressures and loads over time to write");
  lift_command->add_option("--shelf", move.shelf, "Folder of cards, added to those known");
  lift_command->callback([&] { run = [&] { return cli::lift(move); }; });

  auto* size_command = app.add_subcommand("size", "Find air kits: compressors, tanks, valves and lines of the shelf");
  size_command->add_option("build", request.build, "Build file, *.mavrel")->required();
  size_command->add_option("--shelf", request.shelf, "Folder of cards, added to those known");
  size_command->add_option("--threads", request.threads, "How many to use; 0: all")->check(CLI::Range(0, 256));
  size_command->add_option("--most", request.most, "Choices to print")
      ->check(CLI::Range(std::size_t{0}, std::size_t{1000000}));
  size_command->callback([&] { run = [&] { return cli::size(request); }; });

  cli::RoadRequest way;
  auto* road_command = app.add_subcommand("road", "A road of a class and a seed, both tracks, as CSV");
  road_command->add_option("--class", way.road, "A to H, ISO 8608")->required();
  road_command->add_option("--length", way.length, "Of the road");
  road_command->add_option("--step", way.step, "From row to row, up to 0.25 m");
  road_command->add_option("--seed", way.seed, "The same seed is the same road");
  road_command->callback([&] { run = [&] { return cli::road(way); }; });

  std::string lever;
  auto* sensor_command = app.add_subcommand("sensor", "A height sensor's lever over the heights");
  sensor_command->add_option("file", lever, "Pivot, lever, rod and pickup, *.json")->required();
  sensor_command->callback([&] { run = [&] { return cli::sensor(lever); }; });

  cli::LevelRequest kept;
  auto* level_command = app.add_subcommand("level", "The car keeps its road height over a drive");
  level_command->add_option("build", kept.build, "Build file, *.mavrel")->required();
  level_command->add_option("--road", kept.road, "A to H, ISO 8608");
  level_command->add_option("--speed", kept.speed, "Steady");
  level_command->add_option("--minutes", kept.minutes, "How long");
  level_command->add_option("--seed", kept.seed, "The same seed is the same drive");
  level_command->add_option("--method", kept.method, "bursts, until-reached, pressure or by-hand")
      ->check(CLI::IsMember({"bursts", "until-reached", "pressure", "by-hand"}));
  level_command->add_option("--average", kept.average, "That readings are averaged over");
  level_command->add_option("--band", kept.band, "Of heights, either way");
  level_command->add_option("--wait", kept.wait, "After a correction");
  level_command->add_option("--gain", kept.gain, "s/m of open valve; what bursts buy when left out");
  level_command->add_option("--add", kept.add, "What gets in: \"150kg at 2600mm after 300s\"");
  level_command->add_option("--warm", kept.warm, "Warmer by the end, evenly: 25C");
  level_command->add_option("--shelf", kept.shelf, "Folder of cards, added to those known");
  level_command->callback([&] { run = [&] { return cli::level(kept); }; });

  cli::PlanRequest jobs;
  auto* plan_command = app.add_subcommand("plan", "Jobs in their order, and on days with people and places shared");
  plan_command->add_option("file", jobs.file, "Tasks and the shop, *.json; or a build, *.mavrel")->required();
  plan_command->add_option("--now", jobs.now, "Nothing begins before: 2026-11-30, \"2026-11-30 10:30\"");
  plan_command->add_option("--csv", jobs.csv, "CSV of a build's plan to write");
  plan_command->add_option("--pdf", jobs.pdf, "Job sheets of a build to write");
  plan_command->add_option("--shelf", jobs.shelf, "Folder of cards, added to those known");
  plan_command->callback([&] { run = [&] { return cli::plan(jobs); }; });

  cli::FitUpRequest fitting;
  auto* parts_command = app.add_subcommand("parts", "What is cut and bought for a build, its lines and its places");
  parts_command->add_option("build", fitting.build, "Build file, *.mavrel")->required();
  parts_command->add_option("--cut-csv", fitting.cut_csv, "CSV of what is cut, to write");
  parts_command->add_option("--buy-csv", fitting.buy_csv, "CSV of what is bought, to write");
  parts_command->add_option("--labels-csv", fitting.labels_csv, "CSV of labels, to write");
  parts_command->add_option("--shelf", fitting.shelf, "Folder of cards, added to those known");
  parts_command->callback([&] { run = [&] { return cli::parts(fitting); }; });

  auto* templates_command = app.add_subcommand("templates", "Plates, brackets and feet of a build, true to scale");
  templates_command->add_option("build", fitting.build, "Build file, *.mavrel")->required();
  templates_command->add_option("--dxf", fitting.dxf, "Folder to write a DXF of each into");
  templates_command->add_option("--svg", fitting.svg, "Folder to write an SVG of each into");
  templates_command->add_option("--pdf", fitting.pdf, "PDF of all, 1:1, to write");
  templates_command->add_option("--shelf", fitting.shelf, "Folder of cards, added to those known");
  templates_command->callback([&] { run = [&] { return cli::templates(fitting); }; });

  cli::ProveRequest proving;
  auto* prove_command = app.add_subcommand("prove", "What a build was predicted and measured to do, and its hand-over");
  prove_command->add_option("build", proving.build, "Build file, *.mavrel")->required();
  prove_command->add_flag("--learn", proving.learn, "Also what the measured figures teach of this car");
  prove_command->add_option("--owner-pdf", proving.owner_pdf, "The owner's sheet, to write");
  prove_command->add_option("--shop-pdf", proving.shop_pdf, "The shop's sheet, to write");
  prove_command->add_option("--shelf", proving.shelf, "Folder of cards, added to those known");
  prove_command->callback([&] { run = [&] { return cli::prove(proving); }; });

  cli::CareRequest caring;
  auto* care_command = app.add_subcommand("care", "What comes round for a car on the road, and how its readings go");
  care_command->add_option("build", caring.build, "Build file, *.mavrel")->required();
  care_command->add_option("--now", caring.now, "Day that it is asked on; today when left out");
  care_command->add_option("--ics", caring.ics, "Calendar file to write");
  care_command->add_option("--shelf", caring.shelf, "Folder of cards, added to those known");
  care_command->callback([&] { run = [&] { return cli::care(caring); }; });

  cli::LogRequest logged;
  auto* log_command = app.add_subcommand("log", "A car's logbook as CSV; with --text or --what one entry more");
  log_command->add_option("build", logged.build, "Build file, *.mavrel")->required();
  log_command->add_option("--kind", logged.kind, "reading, work, event or remark");
  log_command->add_option("--what", logged.what, "Task, event or reading: drain, crash, height");
  log_command->add_option("--where", logged.where, "front_left, rear; the car when left out");
  log_command->add_option("--day", logged.day, "2026-11-26, \"2026-11-26 10:15\"; now when left out");
  log_command->add_option("--by", logged.by, "Who");
  log_command->add_option("--text", logged.text, "Words");
  log_command->add_option("--odometer", logged.odometer, "12400km");
  log_command->add_option("--height", logged.height, "Hub to arch");
  log_command->add_option("--pressure", logged.pressure, "Gauge");
  log_command->add_option("--temperature", logged.temperature, "Thermometer");
  log_command->add_option("--took", logged.took, "The tank from cut-in to cut-out: 95s");
  log_command->add_option("--loss", logged.loss, "Air lost an hour: 0.1%");
  log_command->add_option("--water", logged.water, "That came out of the drain: 40g");
  log_command->callback([&] { run = [&] { return cli::log(logged); }; });

  cli::BookRequest booked;
  auto* book_command = app.add_subcommand("book", "The shop's book: all builds of a folder, searched");
  book_command->add_option("words", booked.words, "Words to find");
  book_command->add_option("--folder", booked.folder, "Folder of builds to bring the book up to first");
  book_command->add_flag("--findings", booked.findings, "Assess what changed, so that findings are searched too");
  book_command->add_option("--book", booked.book, "The book's file; the usual one when left out");
  book_command->add_option("--platform", booked.platform, "Part of it");
  book_command->add_option("--layout", booked.layout, "Of either end: strut, torsion beam");
  book_command->add_option("--bag", booked.bag, "Part of its name, at either end");
  book_command->add_option("--owner", booked.owner, "Part of the name");
  book_command->add_option("--lesson", booked.lesson, "Part of a lesson");
  book_command->add_option("--due-before", booked.due_before, "Day");
  book_command->add_option("--shelf", booked.shelf, "Folder of cards, added to those known");
  book_command->callback([&] { run = [&] { return cli::book(booked); }; });

  cli::BeginRequest begun;
  auto* begin_command = app.add_subcommand("begin-from", "A new build from an earlier one of a car alike");
  begin_command->add_option("earlier", begun.earlier, "Build file, *.mavrel")->required();
  begin_command->add_option("to", begun.to, "The new build's file")->required();
  begin_command->callback([&] { run = [&] { return cli::begin_from(begun); }; });

  cli::PractiseRequest practised;
  auto* practise_command = app.add_subcommand("practise", "A car with something hidden the matter, to find it");
  practise_command->add_option("build", practised.build, "Build file of a car; the demo car when left out");
  practise_command->add_option("--seed", practised.seed, "The same seed is the same car");
  practise_command->add_option("--level", practised.level, "plain, slight, two or misleading");
  practise_command->add_option("--test", practised.tests, "To be done: soap_fitting:front_left; may be given again");
  practise_command->add_flag("--untested", practised.untested, "Only what its driver tells");
  practise_command->add_option("--name", practised.name, "What it is: pinched:front_left, two with + between");
  practise_command->add_flag("--reveal", practised.reveal, "Say what it is");
  practise_command->add_option("--shelf", practised.shelf, "Folder of cards, added to those known");
  practise_command->callback([&] { run = [&] { return cli::practise(practised); }; });

  cli::DiagnoseRequest diagnosed;
  auto* diagnose_command = app.add_subcommand("diagnose", "What is wrong by what was found, and which test to do next");
  diagnose_command->add_option("file", diagnosed.file, "Case, *.json, or build file, *.mavrel")->required();
  diagnose_command->add_option("--found", diagnosed.found,
                               "More that was found: slow_up:front_left=yes, fill_time:front_left=6.2s");
  diagnose_command->add_flag("--take", diagnosed.take, "Also what Proving and the log have read");
  diagnose_command->add_option("--most", diagnosed.most, "Tests to tell")->check(CLI::Range(0.0, 200.0));
  diagnose_command->add_option("--shelf", diagnosed.shelf, "Folder of cards, added to those known");
  diagnose_command->callback([&] { run = [&] { return cli::diagnose(diagnosed); }; });

  cli::DoubtRequest unsure;
  auto* doubt_command = app.add_subcommand("doubt", "How sure a build's readings are, and by them its answers");
  doubt_command->add_option("build", unsure.build, "Build file, *.mavrel")->required();
  doubt_command->add_option("--draws", unsure.draws, "How often it is worked out with readings that are off")
      ->check(CLI::Range(20, 100000));
  doubt_command->add_option("--seed", unsure.seed, "The same seed gives the same figures");
  doubt_command->add_option("--shelf", unsure.shelf, "Folder of cards, added to those known");
  doubt_command->callback([&] { run = [&] { return cli::doubt(unsure); }; });

  auto* schools_command = app.add_subcommand("schools", "What builders disagree on, both ways, on a build's car");
  schools_command->add_option("build", fitting.build, "Build file, *.mavrel")->required();
  schools_command->add_option("--shelf", fitting.shelf, "Folder of cards, added to those known");
  schools_command->callback([&] { run = [&] { return cli::schools(fitting); }; });

  cli::CutRequest cuts;
  auto* cut_command = app.add_subcommand("cut", "Pieces cut from as few bars as can be");
  cut_command->add_option("--stock", cuts.stock, "Length of a bar")->required();
  cut_command->add_option("--kerf", cuts.kerf, "That a cut takes");
  cut_command->add_option("--piece", cuts.pieces, "412mm:4, as often as there are kinds")->required();
  cut_command->add_option("--leftover", cuts.leftovers, "On the shelf already, used first: 1.2m:1");
  cut_command->callback([&] { run = [&] { return cli::cut(cuts); }; });

  std::string schema;
  auto* schema_command = app.add_subcommand("schema", "JSON Schema of the build file");
  schema_command->callback([&] { run = [] { return cli::schema(); }; });

  try {
    app.parse(argc, argv);
    return finish(run(), out_is_open);
  } catch (const CLI::Success& done) {
    return app.exit(done);
  } catch (const CLI::ParseError& error) {
    const std::string what = error.what();
    return finish(refuse(words("{0} See mavrel-cli --help."), {what + (what.ends_with('.') ? "" : ".")}), out_is_open);
  } catch (const std::bad_alloc&) {
    return finish(refuse(words("The machine's memory does not suffice for this.")), out_is_open);
  } catch (const std::exception& error) {
    return finish(refuse(words("This broke off: {0}"), {std::string(error.what())}), out_is_open);
  }
}
