#include "file/text_file.h"

#include <fmt/format.h>

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fstream>
#include <sys/stat.h>
#include <unistd.h>

namespace mavrel {

namespace {

tl::unexpected<Message> cannot(const char* text, const std::filesystem::path& path) {
  return refuse(text, {path.string(), std::string(std::strerror(errno))});
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

} // namespace

Expected<std::string> read_text(const std::filesystem::path& path, std::size_t limit) {
  std::error_code error;
  if (std::filesystem::is_directory(path, error)) return refuse(words("{0} is a folder, not a file."), {path.string()});
  errno = 0;
  std::ifstream in(path, std::ios::binary);
  if (!in) return cannot(words("{0} can't be opened: {1}."), path);
  std::string text(limit + 1, '\0');
  in.read(text.data(), static_cast<std::streamsize>(text.size()));
  text.resize(static_cast<std::size_t>(in.gcount()));
  if (in.bad()) return cannot(words("{0} can't be read: {1}."), path);
  if (text.size() > limit)
    return refuse(words("{0} is larger than {1} MB, more than such a file ever is."),
                  {path.string(), fmt::format("{:.3g}", static_cast<double>(limit) / 1e6)});
  if (text.starts_with("\xEF\xBB\xBF")) text.erase(0, 3);
  if (const auto bad = first_bad_utf8(text)) {
    const TextPlace at = place_in(text, *bad);
    return refuse(words("{0}, line {1}, column {2}: this is not UTF-8 text."),
                  {path.string(), fmt::to_string(at.line), fmt::to_string(at.column)});
  }
  return text;
}

Expected<void> write_atomically(const std::filesystem::path& path, std::string_view text) {
  // Through a link, so that the linked file is replaced and not the link.
  std::error_code error;
  std::filesystem::path target = std::filesystem::weakly_canonical(path, error);
  if (error) target = path;
  const std::filesystem::path folder = target.has_parent_path() ? target.parent_path() : ".";
  std::string beside = (folder / ("." + target.filename().string() + ".XXXXXX")).string();
  Descriptor file(::mkstemp(beside.data()));
  if (file.get() < 0) return cannot(words("{0} can't be saved: {1}."), path);
  struct stat old {};
  const bool existed = ::stat(target.c_str(), &old) == 0;
  const mode_t mask = ::umask(0);
  ::umask(mask);
  const mode_t mode = existed ? old.st_mode & 07777 : 0666 & ~mask;
  const bool written = ::fchmod(file.get(), mode) == 0 && write_all(file.get(), text) && ::fsync(file.get()) == 0 &&
                       file.close() && ::rename(beside.c_str(), target.c_str()) == 0;
  if (!written) {
    const int why = errno;
    ::unlink(beside.c_str());
    errno = why;
    return cannot(words("{0} can't be saved: {1}. The file is as it was."), path);
  }
  const Descriptor dir(::open(folder.c_str(), O_RDONLY | O_DIRECTORY));
  if (dir.get() >= 0) ::fsync(dir.get());
  return {};
}

std::optional<std::size_t> first_bad_utf8(std::string_view text) {
  for (std::size_t i = 0; i < text.size();) {
    const auto c = static_cast<unsigned char>(text[i]);
    const std::size_t length = c < 0x80 ? 1 : (c >> 5) == 6 ? 2 : (c >> 4) == 14 ? 3 : (c >> 3) == 30 ? 4 : 0;
    if (length == 0 || i + length > text.size()) return i;
    unsigned code = length == 1 ? c : c & (0x7Fu >> length);
    for (std::size_t k = 1; k < length; ++k) {
      const auto next = static_cast<unsigned char>(text[i + k]);
      if ((next >> 6) != 2) return i;
      code = (code << 6) | (next & 0x3Fu);
    }
    static constexpr unsigned least[] = {0, 0, 0x80, 0x800, 0x10000};
    if (code < least[length] || code > 0x10FFFF || (code >= 0xD800 && code <= 0xDFFF)) return i;
    i += length;
  }
  return std::nullopt;
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
