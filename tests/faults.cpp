#include "faults.h"

#include <algorithm>
#include <atomic>
#include <cstdarg>
#include <cstdint>
#include <fcntl.h>
#include <sys/types.h>

namespace {

struct {
  std::atomic<mavrel::test::Step> step = mavrel::test::Step::none;
  std::atomic<int> error = 0, left = 0, made = -1; // the file made last: only its closing is of interest
  std::atomic<bool> struck = false;
  std::atomic<std::size_t> most = SIZE_MAX;
} plan;

bool fails(mavrel::test::Step step) {
  if (plan.step != step || plan.left-- != 0) return false;
  plan.struck = true;
  errno = plan.error;
  return true;
}

} // namespace

namespace mavrel::test {

Fault::Fault(Step step, int error, int nth) {
  plan.error = error;
  plan.left = nth;
  plan.struck = false;
  plan.step = step;
}
Fault::~Fault() {
  plan.step = Step::none;
}
bool Fault::struck() const {
  return plan.struck;
}

ShortWrites::ShortWrites(std::size_t most) {
  plan.most = most;
}
ShortWrites::~ShortWrites() {
  plan.most = SIZE_MAX;
}

} // namespace mavrel::test

extern "C" {
int __real_open(const char* path, int flags, ...);
ssize_t __real_write(int fd, const void* data, std::size_t size);
int __real_fsync(int fd);
int __real_close(int fd);
int __real_rename(const char* from, const char* to);

int __wrap_open(const char* path, int flags, ...) {
  mode_t mode = 0;
  if (flags & O_CREAT) {
    std::va_list rest;
    va_start(rest, flags);
    mode = va_arg(rest, mode_t);
    va_end(rest);
    if (fails(mavrel::test::Step::open)) return -1;
  }
  const int fd = __real_open(path, flags, mode);
  if (flags & O_CREAT) plan.made = fd;
  return fd;
}
ssize_t __wrap_write(int fd, const void* data, std::size_t size) {
  if (fails(mavrel::test::Step::write)) return -1;
  return __real_write(fd, data, std::min(size, plan.most.load()));
}
int __wrap_fsync(int fd) {
  return fails(mavrel::test::Step::sync) ? -1 : __real_fsync(fd);
}
int __wrap_close(int fd) {
  const int done = __real_close(fd); // closed it is, whatever it says
  if (fd != plan.made) return done;
  plan.made = -1;
  return fails(mavrel::test::Step::close) ? -1 : done;
}
int __wrap_rename(const char* from, const char* to) {
  return fails(mavrel::test::Step::rename) ? -1 : __real_rename(from, to);
}
}
