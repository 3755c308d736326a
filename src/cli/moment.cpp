#include "cli/moment.h"

#include "quantity/text.h"

#include <ctime>

namespace mavrel::cli {

std::string clock_text() {
  const std::time_t now = std::time(nullptr);
  std::tm local{};
  localtime_r(&now, &local);
  char out[32];
  std::strftime(out, sizeof out, "%Y-%m-%d %H:%M", &local);
  return out;
}

Expected<work::Moment> moment_of(const std::string& typed, const char* option) {
  const auto moment = work::parse_moment(typed.empty() ? clock_text() : typed);
  if (moment) return *moment;
  if (typed.empty())
    return refuse(words("The machine's clock stands at {0}; Mavrel counts from 1990 to 2199. Set it, or use --now."),
                  {clock_text()});
  return refuse(words("{0}: “{1}” is there; a day from 1990 to 2199 is right, such as 2026-11-30 or “2026-11-30 "
                      "10:30”."),
                {std::string(option), excerpt(typed, 80)});
}

} // namespace mavrel::cli
