#include "file/held_file.h"

#include <cerrno>
#include <thread>

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

namespace mavrel {

HeldFile::HeldFile(const std::filesystem::path& file, std::chrono::milliseconds patience) {
  // The folder is held, not the file: that is replaced, and a lock beside it would have to be left lying there. It is
  // the folder that the file really lies in, by whatever name it was called.
  std::error_code error;
  const auto real = std::filesystem::canonical(file, error);
  if (error) return; // there is nothing to hold; who opens it says so
  folder_ = ::open(real.parent_path().c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
  if (folder_ < 0) return;
  constexpr std::chrono::milliseconds step{20};
  for (std::chrono::milliseconds waited{0};; waited += step) {
    if (::flock(folder_, LOCK_EX | LOCK_NB) == 0 || errno != EWOULDBLOCK) return;
    if (waited >= patience) break;
    std::this_thread::sleep_for(step);
  }
  refused_ = true;
}

HeldFile::~HeldFile() {
  if (folder_ >= 0) ::close(folder_);
}

} // namespace mavrel
