// What a search of the shelf found, as JSON for the command line.
#pragma once

#include "assess/search/search.h"

#include <string>

namespace mavrel::report {

/// Counts, choices (best score first) and the ranking of every pair of bags with the reason each lost. SI units in the
/// keys.
/// @param most  choices written; the count of all is always given
[[nodiscard]] std::string search_json(const build::Build& build, const assess::SearchResult& result, std::size_t most);

} // namespace mavrel::report
