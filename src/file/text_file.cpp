#include "file/text_file.h"

#include <fmt/format.h>

#include <algorithm>
#include <cerrno>
#include <charconv>
#include <csignal>
#include <cstring>
#include <fcntl.h>
#include <random>
#include <sys/stat.h>
#include <unistd.h>

namespace mavrel {

namespace {

namespace fs = std::filesystem;

tl::unexpected<Message> cannot(const char* text, const fs::path& path, int why) {
  return refuse(text, {shown_path(path), std::string(std::strerror(why))});
}

/// A file descriptor that closes itself.
class Descriptor {
public:
  explicit Descriptor(int fd) : fd_(fd) {}
  Descriptor(const Descriptor&) = delete;
  Descriptor& operator=(const Descriptor&) = delete;
  ~Descriptor() {
    if (fd_ >= 0) ::close(fd_);
  }
  [[nodiscard]] int get() const { return fd_; }
  [[nodiscard]] bool close() {
    const int fd = fd_;
    fd_ = -1;
    return ::close(fd) == 0;
  }

private:
  int fd_;
};

bool write_all(int fd, std::string_view text) {
  while (!text.empty()) {
    const ssize_t n = ::write(fd, text.data(), text.size());
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) return false;
    text.remove_prefix(static_cast<std::size_t>(n));
  }
  return true;
}

/// @returns how many bytes came, up to the buffer's end; none on an error
std::optional<std::size_t> read_all(int fd, std::string& into) {
  std::size_t filled = 0;
  while (filled < into.size()) {
    const ssize_t n = ::read(fd, into.data() + filled, into.size() - filled);
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) return std::nullopt;
    if (n == 0) break;
    filled += static_cast<std::size_t>(n);
  }
  return filled;
}

/// Where a path leads to through links, so that the linked file is replaced and not the link.
fs::path target_of(const fs::path& path) {
  std::error_code error;
  fs::path target = fs::weakly_canonical(path, error);
  return error ? path : target;
}

fs::path folder_of(const fs::path& target) {
  return target.has_parent_path() ? target.parent_path() : fs::path(".");
}

// A file being written is called `.NAME.PID-NUMBER.part`: the process in it tells whether its writer still runs.
constexpr std::string_view unfinished = ".part";

/// What it is called by of the target's name: file systems end at 255 bytes, and the rest of its name comes on top.
std::string name_beside(const fs::path& target) {
  constexpr std::size_t most = 200;
  return target.filename().string().substr(0, most);
}

struct Beside {
  int fd = -1;
  std::string path;
};

/// A new file beside the target; its mode is what the umask makes of 0666, as for any new file.
Beside open_beside(const fs::path& target) {
  std::random_device random;
  for (int i = 0; i < 64; ++i) {
    std::string name =
        (folder_of(target) / fmt::format(".{}.{}-{:08x}{}", name_beside(target), ::getpid(), random(), unfinished))
            .string();
    const int fd = ::open(name.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0666);
    if (fd >= 0) return {fd, std::move(name)};
    if (errno != EEXIST) break;
  }
  return {};
}

/// Unfinished files of the same target whose writers are gone.
void clear_leftovers(const fs::path& target) {
  const std::string begins = "." + name_beside(target) + ".";
  std::error_code error;
  for (fs::directory_iterator it(folder_of(target), error), end; !error && it != end; it.increment(error)) {
    const std::string name = it->path().filename().string();
    if (!name.starts_with(begins) || !name.ends_with(unfinished)) continue;
    const std::string_view rest = std::string_view(name).substr(begins.size());
    long writer = 0;
    const auto [stop, wrong] = std::from_chars(rest.data(), rest.data() + rest.size(), writer);
    if (wrong != std::errc() || *stop != '-' || writer <= 0) continue;
    if (::kill(static_cast<pid_t>(writer), 0) == 0 || errno != ESRCH) continue;
    std::error_code ignored;
    fs::remove(it->path(), ignored);
  }
}

} // namespace

std::string shown_path(const fs::path& path) {
  return presentable(path.string());
}

Standing what_stands(const fs::path& path) {
  struct stat at {};
  if (::stat(path.c_str(), &at) != 0) return Standing::nothing;
  if (S_ISDIR(at.st_mode)) return Standing::folder;
  if (!S_ISREG(at.st_mode)) return Standing::special;
  return (at.st_mode & 0222) == 0 || ::access(path.c_str(), W_OK) != 0 ? Standing::read_only : Standing::file;
}

bool same_place(const fs::path& a, const fs::path& b) {
  std::error_code error;
  if (fs::equivalent(a, b, error) && !error) return true;
  return target_of(fs::absolute(a, error)) == target_of(fs::absolute(b, error));
}

Expected<std::string> read_text(const fs::path& path, std::size_t limit) {
  // Without waiting: a pipe in the file's place would never open.
  const Descriptor file(::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC));
  if (file.get() < 0) return cannot(words("{0} can't be opened: {1}."), path, errno);
  struct stat at {};
  if (::fstat(file.get(), &at) != 0) return cannot(words("{0} can't be read: {1}."), path, errno);
  if (S_ISDIR(at.st_mode)) return refuse(words("{0} is a folder, not a file."), {shown_path(path)});
  if (!S_ISREG(at.st_mode)) return refuse(words("{0} is a device or a pipe, not a file."), {shown_path(path)});
  std::string text(std::min<std::size_t>(limit, static_cast<std::size_t>(at.st_size)) + 1, '\0');
  const auto filled = read_all(file.get(), text);
  if (!filled) return cannot(words("{0} can't be read: {1}."), path, errno);
  if (*filled > limit || static_cast<std::size_t>(at.st_size) > limit)
    return refuse(words("{0} is larger than {1} MB, more than such a file ever is."),
                  {shown_path(path), fmt::format("{:.3g}", static_cast<double>(limit) / 1e6)});
  text.resize(*filled);
  if (text.starts_with("\xEF\xBB\xBF")) text.erase(0, 3);
  if (const auto bad = first_bad_utf8(text)) {
    const TextPlace place = place_in(text, *bad);
    return refuse(words("{0}, line {1}, column {2}: this is not UTF-8 text."),
                  {shown_path(path), fmt::to_string(place.line), fmt::to_string(place.column)});
  }
  return text;
}

std::optional<Message> cannot_write_to(const fs::path& path, ReadOnly read_only) {
  switch (what_stands(path)) {
  case Standing::folder:
    return Message{words("{0} is a folder, not a file."), {shown_path(path)}};
  case Standing::special:
    return Message{words("{0} is a device or a pipe; only an ordinary file can be written."), {shown_path(path)}};
  case Standing::read_only:
    if (read_only == ReadOnly::replace) return std::nullopt;
    return Message{words("{0} is marked read-only. It was left as it is."), {shown_path(path)}};
  case Standing::nothing:
  case Standing::file:
    break;
  }
  return std::nullopt;
}

Expected<Written> write_atomically(const fs::path& path, std::string_view text, ReadOnly read_only,
                                   const std::optional<FileStamp>& still) {
  if (const auto why = cannot_write_to(path, read_only)) return refuse(*why);
  const fs::path target = target_of(path);
  Beside beside = open_beside(target);
  if (beside.fd < 0) return cannot(words("{0} can't be saved: {1}."), path, errno);
  Descriptor file(beside.fd);
  struct stat old {};
  const bool existed = ::stat(target.c_str(), &old) == 0;
  const bool filled = (!existed || ::fchmod(file.get(), old.st_mode & 07777) == 0) && write_all(file.get(), text) &&
                      ::fsync(file.get()) == 0 && file.close();
  if (filled && still && stamp_of(target) != still) { // as late as can be: a slow disk takes its time to be flushed
    ::unlink(beside.path.c_str());
    return refuse(
        words("{0} was changed by another program while it was being saved; what that wrote stands. Save once "
              "more."),
        {shown_path(path)});
  }
  if (!filled || ::rename(beside.path.c_str(), target.c_str()) != 0) {
    const int why = errno;
    ::unlink(beside.path.c_str());
    return cannot(words("{0} can't be saved: {1}. The file is as it was."), path, why);
  }
  const Descriptor dir(::open(folder_of(target).c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
  if (dir.get() >= 0) ::fsync(dir.get());
  clear_leftovers(target);
  return Written{existed && old.st_nlink > 1};
}

std::optional<FileStamp> stamp_of(const fs::path& path) {
  struct stat at {};
  if (::stat(path.c_str(), &at) != 0 || !S_ISREG(at.st_mode)) return std::nullopt;
  return FileStamp{at.st_dev, at.st_ino, static_cast<std::uint64_t>(at.st_size), at.st_mtim.tv_sec, at.st_mtim.tv_nsec};
}

TextPlace place_in(std::string_view text, std::size_t byte) {
  TextPlace at;
  for (std::size_t i = 0; i < byte && i < text.size(); ++i) {
    if (text[i] == '\n') {
      ++at.line;
      at.column = 1;
    } else if ((static_cast<unsigned char>(text[i]) >> 6) != 2) {
      ++at.column;
    }
  }
  return at;
}

} // namespace mavrel
