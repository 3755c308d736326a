// A file held against other programs of ours while it is read, changed and written.
#pragma once

#include <chrono>
#include <filesystem>

namespace mavrel {

class HeldFile {
public:
  /// @param patience  how long another program's hold is waited for
  explicit HeldFile(const std::filesystem::path& file, std::chrono::milliseconds patience);
  ~HeldFile();
  HeldFile(const HeldFile&) = delete;
  HeldFile& operator=(const HeldFile&) = delete;
  /// Did another program hold it all the while? A disk that knows no locks refuses nobody: who writes there looks at
  /// the file's stamp before the rename as well.
  [[nodiscard]] bool is_refused() const { return refused_; }

private:
  int folder_ = -1;
  bool refused_ = false;
};

} // namespace mavrel
