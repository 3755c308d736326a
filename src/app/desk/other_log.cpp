#include "app/desk/other_log.h"

#include "app/desk/desk.h"
#include "assess/care/log_table.h"
#include "build/file.h"

namespace mavrel::app {

int take_other_log(Desk& desk, const std::filesystem::path& file) {
  const auto other = build::load(file);
  if (!other) return 0;
  std::vector<build::LogEntry> entries;
  for (const build::LogEntry& e : other->care->log)
    entries.push_back(e);
  const auto joined = assess::joined_log(desk.build().care->log, entries);
  if (!joined) return 0;
  const std::size_t more = joined->size() - desk.build().care->log.size();
  if (more == 0) return 0;
  build::Build build = desk.build();
  build.care.own().log = *joined;
  desk.edit(Desk::tr("Entries of another program"), std::move(build));
  return static_cast<int>(more);
}

} // namespace mavrel::app
