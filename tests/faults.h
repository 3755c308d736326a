// Makes one step of writing a file fail, as a full disk or a pulled plug would. The test programs' calls of open,
// write, fsync, close and rename go through here (see tests/CMakeLists.txt).
#pragma once

#include <cerrno>
#include <cstddef>

namespace mavrel::test {

enum class Step { none, open, write, sync, close, rename };

/// While it lives, the given step fails when it comes up for the `nth` time (from 0), with this error.
class Fault {
public:
  explicit Fault(Step step, int error = ENOSPC, int nth = 0);
  Fault(const Fault&) = delete;
  Fault& operator=(const Fault&) = delete;
  ~Fault();
  /// Did the step come up and fail?
  [[nodiscard]] bool struck() const;
};

/// While it lives, a write puts only this many bytes down at a time, as it may.
class ShortWrites {
public:
  explicit ShortWrites(std::size_t most);
  ShortWrites(const ShortWrites&) = delete;
  ShortWrites& operator=(const ShortWrites&) = delete;
  ~ShortWrites();
};

} // namespace mavrel::test
