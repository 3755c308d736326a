#include "rig/outlet.h"

#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <fcntl.h>
#include <poll.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/un.h>
#include <termios.h>
#include <unistd.h>

namespace mavrel::rig {

namespace {

constexpr std::size_t most_listeners = 8;
constexpr ssize_t most_at_once = 65536; // bytes taken of one listener in a round: a flood must not stop the car

tl::unexpected<Message> failed(const char* what, const std::string& where) {
  return refuse(words("{0}: {1}: {2}"), {where, what, std::string(std::strerror(errno))});
}

/// Is nobody listening there any more?
bool is_left_behind(const sockaddr_un& address) {
  const int probe = ::socket(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0);
  if (probe < 0) return false;
  const int done = ::connect(probe, reinterpret_cast<const sockaddr*>(&address), sizeof address);
  const bool refused = done != 0 && errno == ECONNREFUSED;
  ::close(probe);
  return refused;
}

} // namespace

Expected<Outlet> Outlet::socket(const std::string& path) {
  sockaddr_un address{};
  address.sun_family = AF_UNIX;
  if (path.empty() || path.size() >= sizeof address.sun_path)
    return refuse(words("{0}: a path of 1 to {1} letters is right for a socket."),
                  {path, std::to_string(sizeof address.sun_path - 1)});
  std::memcpy(address.sun_path, path.c_str(), path.size() + 1);
  struct stat there {};
  if (::lstat(path.c_str(), &there) == 0) {
    if (!S_ISSOCK(there.st_mode)) return refuse(words("{0}: there is something else by that name."), {path});
    if (!is_left_behind(address)) return refuse(words("{0}: another rig is speaking there."), {path});
    ::unlink(path.c_str());
  }
  Outlet out;
  out.file_ = ::socket(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC | SOCK_NONBLOCK, 0);
  if (out.file_ < 0) return failed(words("no socket could be made"), path);
  if (::bind(out.file_, reinterpret_cast<const sockaddr*>(&address), sizeof address) != 0)
    return failed(words("the socket could not be made there"), path);
  out.name_ = path;
  ::chmod(path.c_str(), 0600); // a valve is nobody else's business
  if (::listen(out.file_, 4) != 0) return failed(words("nobody could be listened for"), path);
  return out;
}

Expected<Outlet> Outlet::terminal() {
  Outlet out;
  out.terminal_ = true;
  out.file_ = ::posix_openpt(O_RDWR | O_NOCTTY | O_CLOEXEC | O_NONBLOCK);
  if (out.file_ < 0 || ::grantpt(out.file_) != 0 || ::unlockpt(out.file_) != 0)
    return failed(words("no pseudo-terminal could be made"), "/dev/ptmx");
  char name[128];
  if (::ptsname_r(out.file_, name, sizeof name) != 0)
    return failed(words("the pseudo-terminal has no name"), "/dev/ptmx");
  out.name_ = name;
  termios raw{};
  ::tcgetattr(out.file_, &raw);
  ::cfmakeraw(&raw);
  ::tcsetattr(out.file_, TCSANOW, &raw);
  return out;
}

Outlet::Outlet(Outlet&& other) noexcept
    : file_(std::exchange(other.file_, -1)), terminal_(other.terminal_), name_(std::move(other.name_)),
      listeners_(std::move(other.listeners_)) {
  other.listeners_.clear();
  other.name_.clear();
}

Outlet::~Outlet() {
  for (const Listener& l : listeners_)
    if (l.file != file_) ::close(l.file);
  if (file_ >= 0) ::close(file_);
  if (!terminal_ && !name_.empty()) ::unlink(name_.c_str());
}

void Outlet::drop(std::size_t i) {
  if (listeners_[i].file != file_) ::close(listeners_[i].file);
  listeners_.erase(listeners_.begin() + static_cast<std::ptrdiff_t>(i));
}

Outlet::Round Outlet::listen(int wait) {
  Round out;
  std::vector<pollfd> files;
  const bool full = !terminal_ && listeners_.size() >= most_listeners;
  files.push_back({file_, static_cast<short>(full ? 0 : POLLIN), 0});
  if (!terminal_)
    for (const Listener& l : listeners_)
      files.push_back({l.file, POLLIN, 0});
  if (::poll(files.data(), files.size(), wait) < 0) return out;
  if (terminal_) {
    // A terminal nobody has opened hangs up; who opens it is the one listener.
    const bool open = (files[0].revents & POLLHUP) == 0;
    if (!open) {
      out.left = !listeners_.empty();
      listeners_.clear();
      char unheard[4096]; // what was said last goes with who said it
      while (::read(file_, unheard, sizeof unheard) > 0) {
      }
      ::usleep(static_cast<useconds_t>(wait) * 1000);
      return out;
    }
    if (listeners_.empty()) {
      listeners_.push_back({file_, {}, false, false});
      out.came.push_back(0);
    }
  }
  for (std::size_t i = listeners_.size(); i-- > 0;) {
    char bytes[4096];
    ssize_t got = 0, taken = 0;
    while (taken < most_at_once && (got = ::read(listeners_[i].file, bytes, sizeof bytes)) > 0)
      listeners_[i].lines.take({bytes, static_cast<std::size_t>(got)}), taken += got;
    while (auto line = listeners_[i].lines.next())
      out.heard.push_back({std::move(*line), i});
    const bool gone = listeners_[i].slow || got == 0 || (got < 0 && errno != EAGAIN && errno != EINTR);
    if (!gone || terminal_) continue;
    // What it said last goes with it: no valve is opened for a hand that is gone.
    out.left = true;
    std::erase_if(out.heard, [&](const Heard& h) { return h.listener == i; });
    std::erase(out.came, i);
    for (auto& heard : out.heard)
      if (heard.listener > i) --heard.listener;
    for (auto& came : out.came)
      if (came > i) --came;
    drop(i);
  }
  if (!terminal_ && files[0].revents & POLLIN) {
    // Who comes when all places are taken waits until one goes.
    while (listeners_.size() < most_listeners) {
      const int come = ::accept4(file_, nullptr, nullptr, SOCK_CLOEXEC | SOCK_NONBLOCK);
      if (come < 0) break;
      out.came.push_back(listeners_.size());
      listeners_.push_back({come, {}, false, false});
    }
  }
  return out;
}

void Outlet::say(const std::string& line, std::size_t listener) {
  Listener& to = listeners_[listener];
  to.greeted = true;
  std::size_t at = 0;
  for (int tries = 0; at < line.size() && tries < 20; ++tries) {
    const ssize_t wrote = terminal_ ? ::write(to.file, line.data() + at, line.size() - at)
                                    : ::send(to.file, line.data() + at, line.size() - at, MSG_NOSIGNAL | MSG_DONTWAIT);
    if (wrote > 0) {
      at += static_cast<std::size_t>(wrote);
      continue;
    }
    if (at == 0) return; // it does not keep up: this line is lost to it
    ::usleep(500);       // half a line said must be ended
  }
  if (at < line.size() && !terminal_) to.slow = true; // half a line is all it got: it is let go
}

void Outlet::say_to_all(const std::string& line) {
  for (std::size_t i = 0; i < listeners_.size(); ++i)
    if (listeners_[i].greeted) say(line, i);
}

} // namespace mavrel::rig
