#include "report/json_tree.h"

namespace mavrel::report {

std::string printed(const Json& json, int indent) {
  return json.dump(indent, ' ', false, Json::error_handler_t::replace);
}

} // namespace mavrel::report
