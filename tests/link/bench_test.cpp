// The bench link: every line as it is said and read again, what is no line, faults, and the car that is played.
#include "link/bench_car.h"
#include "link/bench_fault.h"

#include "assess/air/lift.h"
#include "assess/leveling/leveling_given.h"
#include "support.h"

#include <cmath>

namespace mavrel::link {
namespace {

using control::ValveOrder;

const std::vector<Circuit> circuits = {{"FL", {0}}, {"rear", {2, 3}}};

TEST(BenchLine, IsReadAgainAsItWasSaid) {
  const Hello hello{"Sorrel Wayfare estate", circuits, 25};
  const auto read = read_rig_line(line_of(hello), {});
  ASSERT_TRUE(read) << say(read.error());
  EXPECT_EQ(std::get<Hello>(*read), hello);
  State state;
  state.time = 12.375;
  state.height = {0.35712, std::nullopt, 0.3702, -0.01};
  state.pressure = {421234, 4e5, std::nullopt, 0};
  state.tank = 9.1e5, state.speed = 16.67, state.compressor = true;
  state.valves = {ValveOrder::fill, ValveOrder::shut};
  const auto again = read_rig_line(line_of(state, circuits), circuits);
  ASSERT_TRUE(again) << say(again.error());
  EXPECT_EQ(std::get<State>(*again), state);
  EXPECT_EQ(std::get<Note>(*read_rig_line(line_of(Note{"a “sentence”\n of it"}), {})).text, "a “sentence”\n of it");
  for (const Order& order :
       {Order{Order::What::open, "rear", ValveOrder::vent, false, 0}, Order{Order::What::close, "FL", {}, false, 0},
        Order{Order::What::close, "", {}, false, 0}, Order{Order::What::controller, "", {}, true, 0},
        Order{Order::What::drive, "", {}, false, 12.5}, Order{}}) {
    const auto heard = read_order(line_of(order));
    ASSERT_TRUE(heard) << line_of(order);
    EXPECT_EQ(heard->what, order.what);
    EXPECT_EQ(heard->circuit, order.circuit);
    if (order.what == Order::What::open) {
      EXPECT_EQ(heard->way, order.way);
    }
    EXPECT_EQ(heard->on, order.on);
    EXPECT_EQ(heard->speed, order.speed);
  }
  EXPECT_EQ(line_of(hello).back(), '\n');
}

TEST(BenchLine, AHomeMadeLoggerMaySayLittleAndMore) {
  const auto read = read_rig_line(R"({"t_s": 3, "height_m": {"FL": 0.351}, "humidity": 40})", {});
  ASSERT_TRUE(read);
  const State& s = std::get<State>(*read);
  EXPECT_EQ(*s.height[0], 0.351);
  EXPECT_FALSE(s.height[1] || s.tank || s.compressor);
}

TEST(BenchLine, SaysWhatIsWrongWithALine) {
  for (const char* line : {"", "hello", "[1]", "{}", R"({"t_s": -1})", R"({"t_s": 1, "height_m": 4})",
                           R"({"t_s": 1, "height_m": {"FL": "low"}})", R"({"t_s": 1, "height_m": {"FL": 35}})",
                           R"({"t_s": 1, "pressure_pa": {"RR": 1e9}})", R"({"hello": "x", "version": 2})",
                           R"({"hello": "x", "version": 1, "circuits": [{"name": "FL"}]})", R"({"note": 3})",
                           "\xff\xfe", R"({"t_s": 1e999})"}) {
    const auto read = read_rig_line(line, circuits);
    ASSERT_FALSE(read) << line;
    EXPECT_GT(say(read.error()).size(), 10U) << line;
  }
  for (const char* line :
       {"{}", R"({"open": "FL"})", R"({"open": "FL", "way": "shut"})", R"({"open": 3, "way": "fill"})",
        R"({"close": ""})", R"({"controller": 1})", R"({"drive_m_per_s": 900})", "open FL"})
    EXPECT_FALSE(read_order(line)) << line;
}

TEST(Lines, ComeWholeHoweverTheyWereCut) {
  EXPECT_TRUE(rc::check([] {
    std::string all;
    std::vector<std::string> said;
    for (int i = 0; i < 20; ++i) {
      said.push_back(std::string(static_cast<std::size_t>(test::between(0, 200)), 'a' + static_cast<char>(i)));
      all += said.back() + (i % 3 == 0 ? "\r\n" : "\n");
    }
    Lines lines;
    std::vector<std::string> heard;
    for (std::size_t at = 0; at < all.size();) {
      const auto n = std::min<std::size_t>(all.size() - at, static_cast<std::size_t>(test::between(1, 90)));
      RC_ASSERT(lines.take(std::string_view(all).substr(at, n)));
      at += n;
      while (auto line = lines.next())
        heard.push_back(*line);
    }
    RC_ASSERT(heard == said);
  }));
}

TEST(Lines, ThrowAwayWhatIsTooLongAndGoOn) {
  Lines lines;
  EXPECT_TRUE(lines.take("one\n"));
  EXPECT_FALSE(lines.take(std::string(longest_line + 10, 'x')));
  EXPECT_TRUE(lines.take(std::string(100, 'y').append("\ntwo\n")));
  EXPECT_EQ(*lines.next(), "one");
  EXPECT_EQ(*lines.next(), "two");
  EXPECT_FALSE(lines.next());
}

TEST(Fault, IsReadWithItsCornerAndAmount) {
  control::Condition pinched, sensor, flipped, weak;
  pinched.corners[0].fill = pinched.corners[0].vent = 0.3;
  sensor.corners[2].sensor_off = 0.008;
  flipped.corners[1].sensor_flipped = true;
  weak.delivery = 0.5;
  EXPECT_EQ(*read_fault("pinched FL 0.3"), pinched);
  EXPECT_EQ(*read_fault("sensor RL 8mm"), sensor);
  EXPECT_EQ(*read_fault("flipped FR"), flipped);
  EXPECT_EQ(*read_fault("weak 0.5"), weak);
  for (const char* text : {"", "rust FL", "pinched", "pinched XX 0.3", "pinched FL", "pinched FL 3", "leak RR 1",
                           "flipped FR now", "sensor RL low"})
    EXPECT_FALSE(read_fault(text)) << text;
}

control::DriveGiven demo_drive() {
  static const control::DriveGiven given = [] {
    build::Build b = test::demo_whole();
    b.drive = {};
    b.drive.road = control::RoadClass::a;
    b.drive.duration = 60;
    const auto leveling =
        assess::leveling_given(b, assess::air_given(b, test::demo_shelf(), assess::ask_ends(b, test::demo_shelf())), 0);
    const auto car = assess::learned_car(leveling);
    return assess::drive_given(leveling, *car, {}, assess::road_of(leveling));
  }();
  return given;
}
/// Holds a valve for a while as a hand does. @returns how far each corner moved
std::array<double, 4> held(BenchCar& car, const char* circuit, ValveOrder way, double seconds, double& now) {
  const State before = car.state();
  for (double t = 0; t < seconds; t += 0.05, now += 0.05) {
    EXPECT_FALSE(car.take({Order::What::open, circuit, way, false, 0}, now));
    car.pass(0.05, now);
  }
  (void)car.take({Order::What::close, circuit, {}, false, 0}, now);
  car.pass(3, now += 3);
  const State after = car.state();
  std::array<double, 4> out{};
  for (std::size_t c = 0; c < 4; ++c)
    out[c] = *after.height[c] - *before.height[c];
  return out;
}

TEST(BenchCar, MovesTheCornerWhoseValveIsHeld) {
  BenchCar car("demo", demo_drive(), {});
  ASSERT_EQ(car.hello().circuits.size(), 4U);
  double now = 0;
  car.pass(1, now);
  const auto up = held(car, "RL", ValveOrder::fill, 0.3, now);
  EXPECT_GT(up[2], 0.01);
  EXPECT_LT(up[3], up[2]);
  const auto down = held(car, "RL", ValveOrder::vent, 0.3, now);
  EXPECT_LT(down[2], -0.005);
  EXPECT_EQ(car.state().valves, std::vector<ValveOrder>(4, ValveOrder::shut));
}

TEST(BenchCar, ShutsAValveThatIsNoLongerAskedFor) {
  BenchCar car("demo", demo_drive(), {});
  EXPECT_FALSE(car.take({Order::What::open, "FL", ValveOrder::fill, false, 0}, 0));
  car.pass(0.05, 0.05);
  EXPECT_EQ(car.state().valves[0], ValveOrder::fill);
  // Somebody is there, but no hand is on the valve.
  EXPECT_FALSE(car.take({}, 0.3));
  car.pass(0.05, watchdog + 0.06);
  EXPECT_EQ(car.state().valves[0], ValveOrder::shut);
  EXPECT_FALSE(car.take({Order::What::open, "FL", ValveOrder::fill, false, 0}, 1));
  car.pass(0.05, 1.05);
  car.let_go(); // the link is lost
  car.pass(0.05, 1.1);
  EXPECT_EQ(car.state().valves[0], ValveOrder::shut);
}

TEST(BenchCar, RefusesWhatItDoesNotHave) {
  BenchCar car("demo", demo_drive(), {});
  const auto why = car.take({Order::What::open, "middle", ValveOrder::fill, false, 0}, 0);
  ASSERT_TRUE(why);
  EXPECT_NE(say(*why).find("FL, FR, RL, RR"), std::string::npos) << say(*why);
  EXPECT_FALSE(car.take({Order::What::controller, "", {}, true, 0}, 0));
  EXPECT_TRUE(car.take({Order::What::open, "FL", ValveOrder::fill, false, 0}, 0)) << "the controller has the valves";
}

TEST(BenchCar, ItsControllerKeepsTheHeight) {
  BenchCar car("demo", demo_drive(), {});
  double now = 0;
  held(car, "RL", ValveOrder::fill, 0.5, now);
  EXPECT_GT(std::abs(*car.state().height[2] - demo_drive().target[2]), 0.01);
  (void)car.take({Order::What::controller, "", {}, true, 0}, now);
  car.pass(100, now + 100);
  for (std::size_t c = 0; c < 4; ++c)
    EXPECT_NEAR(*car.state().height[c], demo_drive().target[c], 0.007);
}

TEST(BenchCar, FaultsAreFelt) {
  double now = 0;
  BenchCar sound("demo", demo_drive(), {}), pinched("demo", demo_drive(), *read_fault("pinched FL 0.3")),
      stuck("demo", demo_drive(), *read_fault("stuck-shut FL")),
      leaks("demo", demo_drive(), *read_fault("leak RR 2e-9")),
      high("demo", demo_drive(), *read_fault("sensor RL 8mm")), turned("demo", demo_drive(), *read_fault("flipped FL")),
      open("demo", demo_drive(), *read_fault("stuck-open RL"));
  const double rise = held(sound, "FL", ValveOrder::fill, 0.4, now)[0];
  EXPECT_LT(held(pinched, "FL", ValveOrder::fill, 0.4, now)[0], 0.6 * rise);
  EXPECT_NEAR(held(stuck, "FL", ValveOrder::fill, 0.4, now)[0], 0, 0.001);
  EXPECT_LT(held(turned, "FL", ValveOrder::fill, 0.4, now)[0], -0.01) << "it reads the wrong way";
  EXPECT_NEAR(*high.state().height[2] - *sound.state().height[2], 0.008, 0.02);
  const double before = *leaks.state().pressure[3];
  leaks.pass(60, now);
  EXPECT_LT(*leaks.state().pressure[3], before - 1e4);
  const double low = *open.state().height[2];
  open.pass(3, now);
  EXPECT_GT(*open.state().height[2], low + 0.02);
}

} // namespace
} // namespace mavrel::link
