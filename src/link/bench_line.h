// The bench link: what a rig or a logger says of a car and what it may be told, one JSON object a line. The promise is
// docs/formats/bench-link.md.
#pragma once

#include "control/controller.h"
#include "quantity/expected.h"

#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace mavrel::link {

constexpr int protocol_version = 1;
constexpr std::size_t longest_line = 16384; // letters; what is longer is no line of ours
constexpr double watchdog = 0.5;            // s: a valve that is not asked for again within it shuts
constexpr std::size_t most_circuits = 8;

/// FL FR RL RR.
[[nodiscard]] const char* corner_key(std::size_t corner);

struct Circuit {
  std::string name;                 // `FL`, `rear`: what orders call it
  std::vector<std::size_t> corners; // FL FR RL RR from 0
  friend bool operator==(const Circuit&, const Circuit&) = default;
};

/// The first line a rig says to whoever comes.
struct Hello {
  std::string name;              // of the car
  std::vector<Circuit> circuits; // those it can work; none: it only reads
  double rate = 20;              // states a second
  friend bool operator==(const Hello&, const Hello&) = default;
};

/// How it stands at one moment. What is not read is absent.
struct State {
  double time = 0;                               // s since the rig began
  std::array<std::optional<double>, 4> height;   // m, H
  std::array<std::optional<double>, 4> pressure; // Pa gauge
  std::optional<double> tank;                    // Pa gauge
  std::vector<control::ValveOrder> valves;       // one a circuit; empty: not told
  std::optional<bool> compressor;                // it runs
  std::optional<double> speed;                   // m/s
  friend bool operator==(const State&, const State&) = default;
};

/// A sentence from the rig: something was refused or done.
struct Note {
  std::string text;
  friend bool operator==(const Note&, const Note&) = default;
};

using FromRig = std::variant<Hello, State, Note>;

/// What a rig may be told.
struct Order {
  enum class What {
    open,       // a circuit's valve, until the watchdog bites
    close,      // a circuit's valves, or all
    alive,      // nothing: somebody is there
    controller, // on or off
    drive,      // at a speed
    test,       // does a test on a car to practise on, and tells what it found
    name,       // says what is the matter with a car to practise on
  };
  What what = What::alive;
  std::string circuit; // of open and close; empty: all
  control::ValveOrder way = control::ValveOrder::fill;
  bool on = false;
  double speed = 0;      // m/s
  std::string text = {}; // of test `soap_fitting:front_left`, of name `leak_fitting:front_left`
  friend bool operator==(const Order&, const Order&) = default;
};

/// Lines, each with its end.
[[nodiscard]] std::string line_of(const Hello& hello);
[[nodiscard]] std::string line_of(const State& state, const std::vector<Circuit>& circuits);
[[nodiscard]] std::string line_of(const Note& note);
[[nodiscard]] std::string line_of(const Order& order);

/// @param line      with or without its end
/// @param circuits  of the hello, by which a state names its valves
/// @returns what it says; or what is wrong with it. Keys that are not known are passed over
[[nodiscard]] Expected<FromRig> read_rig_line(std::string_view line, const std::vector<Circuit>& circuits);
[[nodiscard]] Expected<Order> read_order(std::string_view line);

/// Takes bytes as they come and gives whole lines.
class Lines {
public:
  /// @returns false where what came is longer than any line of ours: it is thrown away up to the next end
  bool take(std::string_view bytes);
  /// @returns the next whole line without its end; none yet
  [[nodiscard]] std::optional<std::string> next();

private:
  std::string kept_;
  std::size_t open_ = 0; // letters of it behind the last end
  bool skipping_ = false;
};

} // namespace mavrel::link
