// mavrel-cli doubt.
#include "cli/commands.h"
#include "cli/opened.h"
#include "report/doubt_json.h"

namespace mavrel::cli {

Expected<std::string> doubt(const DoubtRequest& request) {
  const auto open = open_build(request.build, request.shelf);
  if (!open) return refuse(open.error());
  return report::doubt_json(*assess::doubt({open->build, open->shelf, request.draws, request.seed}));
}

} // namespace mavrel::cli
