// mavrel-rig: plays a build's car for the bench link, in real or faster time.
#include "assess/air/lift.h"
#include "assess/faults/notes.h"
#include "assess/faults/practice.h"
#include "assess/leveling/leveling_given.h"
#include "assess/opened.h"
#include "build/names.h"
#include "link/bench_car.h"
#include "link/bench_fault.h"
#include "rig/outlet.h"

#include <CLI/CLI.hpp>

#include <charconv>
#include <chrono>
#include <csignal>
#include <cstdio>

namespace {

using namespace mavrel;

volatile std::sig_atomic_t ended = 0;
extern "C" void end_it(int) {
  ended = 1;
}

struct Asked {
  std::string build, shelf, socket, at = "", road = "A", practise;
  bool terminal = false, controller = false;
  double faster = 1, rate = 20, speed = 0, seconds = 0, alone = 0;
  unsigned long seed = 1;
  std::vector<std::string> faults;
};

/// A car to practise on: what is done to it beside its valves, and what is said of that.
class Practice {
public:
  Practice(std::shared_ptr<const assess::PracticeShop> shop, const assess::PracticeAsked& asked)
      : shop_(std::move(shop)), car_(shop_, asked) {}
  [[nodiscard]] const control::Condition& condition() const { return car_.condition(); }

  /// What its driver says, and what can be done.
  [[nodiscard]] std::vector<Message> greeting() const {
    std::vector<Message> out;
    for (const assess::FaultFinding& f : car_.told())
      out.push_back({words("Its driver: {0}."), {assess::sign_words(f.at)}});
    if (car_.told().empty()) out.push_back({words("Its driver noticed nothing: it is here to be looked over."), {}});
    out.insert(out.end(), car_.history().begin(), car_.history().end());
    return out;
  }
  [[nodiscard]] std::vector<Message> test(const std::string& key) {
    const auto at = assess::test_here(shop_->table.car().parts, key);
    if (!at) return {at.error()};
    done_.push_back({*at, car_.do_test(*at)});
    minutes_ += at->test->minutes;
    return {{words("{0}: {1}. {2} minutes gone."),
             {assess::test_words(*at), assess::found_words(done_.back().found), Amount{minutes_, Kind::plain, 0, {}}}}};
  }
  [[nodiscard]] Message name(const std::string& key) const {
    const auto named = assess::faults_named(key);
    if (!named) return named.error();
    const auto score = assess::score(shop_, car_.asked(), done_, *named, {});
    return {score->right ? words("Right: {0}. {1} minutes; the best would have taken {2}.")
                         : words("It was {0}. {1} minutes; the best would have taken {2}."),
            {assess::fault_words(score->truth), Amount{score->minutes, Kind::plain, 0, {}},
             Amount{score->best_minutes, Kind::plain, 0, {}}}};
  }

private:
  std::shared_ptr<const assess::PracticeShop> shop_;
  assess::PracticeCar car_;
  std::vector<assess::TestDone> done_;
  double minutes_ = 0;
};

/// `7`, or `7:two`.
Expected<assess::PracticeAsked> practice_asked(const std::string& text) {
  const auto colon = text.find(':');
  assess::PracticeAsked out;
  const std::string seed = text.substr(0, colon);
  const auto end = std::from_chars(seed.data(), seed.data() + seed.size(), out.seed);
  const auto level = colon == std::string::npos ? std::optional(out.level) : assess::level_of(text.substr(colon + 1));
  if (end.ec != std::errc() || end.ptr != seed.data() + seed.size() || !level)
    return refuse(words("--practise: “{0}” is there; a number, and behind a colon plain, slight, two or misleading, is "
                        "right."),
                  {text});
  out.level = *level;
  return out;
}

Expected<link::BenchCar> car_of(const Asked& asked, std::optional<Practice>& practice) {
  auto opened = assess::open_build(asked.build, asked.shelf);
  if (!opened) return refuse(opened.error());
  bool known = false;
  for (const auto& row : build::names_of(control::RoadClass{}))
    if (asked.road == row.key) opened->build.drive.road = row.value, known = true;
  if (!known) return refuse(words("--road: “{0}” is no class of road; A to H are."), {asked.road});
  opened->build.drive.profile = control::SpeedProfile::steady;
  opened->build.drive.speed = 20, opened->build.drive.duration = 400; // a road of 8 km, which comes round again
  opened->build.drive.seed = static_cast<double>(asked.seed);
  opened->build.drive.events.clear();
  const auto given = assess::leveling_given(opened->build, opened->air, 0);
  control::Condition condition;
  for (const std::string& text : asked.faults) {
    const auto fault = link::read_fault(text);
    if (!fault) return refuse(words("--fault: {0}"), {fault.error()});
    condition.add(*fault);
  }
  if (!asked.practise.empty()) {
    const auto hidden = practice_asked(asked.practise);
    if (!hidden) return refuse(hidden.error());
    const auto shop = *assess::practice_shop({given}, {});
    if (!shop) return refuse(shop.error());
    practice.emplace(*shop, *hidden);
    condition.add(practice->condition());
  }
  auto car = assess::learned_car(given);
  if (!car) return refuse(car.error());
  auto drive = assess::drive_given(given, *car, given.leveling.set_up().rules, assess::road_of(given));
  if (!asked.at.empty()) {
    const auto& names = given.air.presets;
    const auto found = std::find(names.begin(), names.end(), asked.at);
    if (found == names.end()) return refuse(words("--at: there is no preset {0}."), {asked.at});
    const auto stands = assess::standing_of(given.air, static_cast<std::size_t>(found - names.begin()));
    if (!stands) return refuse(words("--at: {0} is not wished for at both ends."), {asked.at});
    auto standing = assess::learned_car(given, stands->heights, true, stands->aired_out);
    if (!standing) return refuse(standing.error());
    drive.car = std::move(standing->parts);
  }
  return link::BenchCar(opened->build.job.car, std::move(drive), condition);
}

Expected<int> play(const Asked& asked) {
  std::optional<Practice> practice;
  auto car = car_of(asked, practice);
  if (!car) return refuse(car.error());
  auto outlet = asked.terminal ? rig::Outlet::terminal() : rig::Outlet::socket(asked.socket);
  if (!outlet) return refuse(outlet.error());
  link::Hello hello = car->hello();
  hello.rate = asked.rate;
  std::printf("%s: %s\n", outlet->is_terminal() ? "terminal" : "socket", outlet->name().c_str());
  std::fflush(stdout);
  if (asked.controller) (void)car->take({link::Order::What::controller, {}, {}, true, 0}, 0);
  if (asked.speed > 0) (void)car->take({link::Order::What::drive, {}, {}, false, asked.speed}, 0);
  using Clock = std::chrono::steady_clock;
  const auto begun = Clock::now();
  const auto since = [&] { return std::chrono::duration<double>(Clock::now() - begun).count(); };
  double last = 0, next_state = 0, heard_last = 0;
  while (!ended && (asked.seconds <= 0 || since() < asked.seconds)) {
    const auto round = outlet->listen(5);
    if (round.left) car->let_go();
    for (const std::size_t who : round.came) {
      outlet->say(link::line_of(hello), who);
      if (practice)
        for (const Message& said : practice->greeting())
          outlet->say(link::line_of(link::Note{say(said)}), who);
    }
    const double now = since();
    if (outlet->anybody()) heard_last = now;
    if (asked.alone > 0 && now - heard_last > asked.alone) break;
    for (const auto& heard : round.heard) {
      if (heard.line.empty()) continue;
      const auto order = link::read_order(heard.line);
      if (practice && order && order->what == link::Order::What::test) {
        for (const Message& said : practice->test(order->text))
          outlet->say(link::line_of(link::Note{say(said)}), heard.listener);
        continue;
      }
      if (practice && order && order->what == link::Order::What::name) {
        outlet->say(link::line_of(link::Note{say(practice->name(order->text))}), heard.listener);
        continue;
      }
      const auto why = order ? car->take(*order, now) : std::optional(order.error());
      if (why) outlet->say(link::line_of(link::Note{say(*why)}), heard.listener);
    }
    car->pass((now - last) * asked.faster, now);
    last = now;
    if (now < next_state) continue;
    outlet->say_to_all(link::line_of(car->state(), hello.circuits));
    next_state = std::max(next_state + 1 / asked.rate, now);
  }
  return 0;
}

} // namespace

int main(int argc, char** argv) {
  CLI::App app("Plays a build's car for the bench link: says heights and pressures, line by line, and lets its valves "
               "be worked. The protocol is promised in docs/formats/bench-link.md.",
               "mavrel-rig");
  app.set_version_flag("--version", "mavrel-rig " MAVREL_VERSION);
  Asked asked;
  app.add_option("build", asked.build, "Build file, *.mavrel")->required();
  auto* socket = app.add_option("--socket", asked.socket, "Path of a local socket to speak at");
  auto* terminal = app.add_flag("--terminal", asked.terminal, "Speak at a pseudo-terminal, as a serial port would");
  socket->excludes(terminal);
  app.add_option("--at", asked.at, "Preset it stands at; the road preset when left out");
  app.add_option("--faster", asked.faster, "Times as fast as it happens")->check(CLI::Range(0.01, 500.0));
  app.add_option("--rate", asked.rate, "States a second")->check(CLI::Range(0.1, 200.0));
  app.add_option("--road", asked.road, "A to H, ISO 8608");
  app.add_option("--seed", asked.seed, "The same seed is the same road");
  app.add_option("--speed", asked.speed, "m/s that it drives")->check(CLI::Range(0.0, 70.0));
  app.add_flag("--controller", asked.controller, "Its controller keeps the height");
  app.add_option("--fault", asked.faults,
                 "\"pinched FL 0.3\", \"leak RR 2e-10\", \"stuck-shut FL\", \"stuck-open RL\", "
                 "\"sensor RL 8mm\", \"flipped FR\", \"weak 0.5\"; may be given again");
  app.add_option("--practise", asked.practise, "Something hidden is the matter: 7, or 7:two; see mavrel-cli practise");
  app.add_option("--seconds", asked.seconds, "Ends after so long; 0: when it is told to")->check(CLI::Range(0.0, 1e6));
  app.add_option("--alone", asked.alone, "Ends when nobody has listened for so many seconds; 0: never")
      ->check(CLI::Range(0.0, 1e6));
  app.add_option("--shelf", asked.shelf, "Folder of cards, added to those known");
  const auto fail = [](const std::string& why) {
    std::fprintf(stderr, "%s\n", why.c_str());
    return 2;
  };
  try {
    app.parse(argc, argv);
    if (!asked.terminal && asked.socket.empty())
      return fail("--socket PATH or --terminal is right. See mavrel-rig --help.");
    std::signal(SIGINT, end_it);
    std::signal(SIGTERM, end_it);
    std::signal(SIGPIPE, SIG_IGN);
    const auto done = play(asked);
    return done ? *done : fail(say(done.error()));
  } catch (const CLI::Success& done) {
    return app.exit(done);
  } catch (const CLI::ParseError& error) {
    return fail(std::string(error.what()) + " See mavrel-rig --help.");
  } catch (const std::exception& error) {
    return fail(std::string("This broke off: ") + error.what());
  }
}
