// Where a rig speaks: a local socket that several may come to, or a pseudo-terminal that looks like a serial port.
#pragma once

#include "link/bench_line.h"

#include <string>
#include <vector>

namespace mavrel::rig {

/// One of those who listen.
struct Listener {
  int file = -1;
  link::Lines lines;
  bool greeted = false;
  bool slow = false; // it was left with half a line
};

/// One thread's own. Files it opened are closed, and a socket's name taken away, when it goes.
class Outlet {
public:
  /// @param path  of the socket; one left behind by a rig that is gone is taken over, anything else is left alone
  [[nodiscard]] static Expected<Outlet> socket(const std::string& path);
  [[nodiscard]] static Expected<Outlet> terminal();
  ~Outlet();
  Outlet(Outlet&& other) noexcept;
  Outlet& operator=(Outlet&&) = delete;

  /// The socket's path, or the terminal's name.
  [[nodiscard]] const std::string& name() const { return name_; }
  [[nodiscard]] bool is_terminal() const { return terminal_; }

  struct Heard {
    std::string line;
    std::size_t listener = 0;
  };
  /// Waits for what comes, at most so long. @param wait  ms
  /// @returns lines that were said; `left` is told of anyone who went, or who has to be greeted
  struct Round {
    std::vector<Heard> heard;
    std::vector<std::size_t> came; // to be greeted
    bool left = false;             // somebody went: what is held is let go
  };
  [[nodiscard]] Round listen(int wait);
  /// Says a line to one, or to all who were greeted. Who does not keep up loses lines, never the rig its time.
  void say(const std::string& line, std::size_t listener);
  void say_to_all(const std::string& line);
  [[nodiscard]] bool anybody() const { return !listeners_.empty(); }

private:
  Outlet() = default;
  void drop(std::size_t listener);

  int file_ = -1;
  bool terminal_ = false;
  std::string name_;
  std::vector<Listener> listeners_;
};

} // namespace mavrel::rig
