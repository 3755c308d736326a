#include "app/stages/care/edits.h"

#include "assess/care/origin.h"
#include "work/mark.h"

#include <algorithm>

namespace mavrel::app {

bool add_to_log(Desk& desk, build::LogEntry entry) {
  entry.id = work::new_mark();
  return desk.add_entry(Desk::tr("Write into the log"), "care.log", std::move(entry));
}

void confirm_taken(Desk& desk, std::vector<std::size_t> places) {
  build::Build build = desk.build();
  std::sort(places.rbegin(), places.rend());
  for (const std::size_t place : places)
    build = assess::confirmed(build, place);
  desk.edit(Desk::tr("Confirm figures of another car"), std::move(build));
}

} // namespace mavrel::app
