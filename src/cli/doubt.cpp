// mavrel-cli doubt.
#include "assess/opened.h"
#include "cli/commands.h"
#include "cli/long_work.h"
#include "report/doubt_json.h"

namespace mavrel::cli {

Expected<std::string> doubt(const DoubtRequest& request) {
  const auto open = assess::open_build(request.build, request.shelf);
  if (!open) return refuse(open.error());
  return report::doubt_json(
      *assess::doubt({open->build, open->shelf, request.draws, request.seed}, {{}, 2, {}, told_progress("doubt")}));
}

} // namespace mavrel::cli
