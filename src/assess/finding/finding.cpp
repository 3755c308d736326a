#include "assess/finding/finding.h"

#include <algorithm>

namespace mavrel::assess {

const char* severity_key(Severity severity) {
  switch (severity) {
  case Severity::stop:
    return "stop";
  case Severity::caution:
    return "caution";
  case Severity::note:
    return "note";
  }
  return "";
}

void sort_findings(Findings& findings) {
  std::stable_sort(findings.begin(), findings.end(),
                   [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
}

} // namespace mavrel::assess
