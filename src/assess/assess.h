// Build and shelf in, assessment out.
#pragma once

#include "assess/assessment.h"
#include "shelf/shelf.h"

#include <memory>

namespace mavrel::build {
struct Build;
} // namespace mavrel::build
namespace mavrel::shelf {
struct Shelf;
} // namespace mavrel::shelf

namespace mavrel::assess {

struct Assessment; // assess/assessment.h

/// Pure: no clock, no files. Answers what can be answered and names what is missing for the rest.
[[nodiscard]] Assessment assess(const build::Build& build, const shelf::Shelf& shelf);

/// The same again and again: each topic's answer is kept while what it is worked out from stays equal, so that an edit
/// works out only what it touches. One thread's own; what it gives may be read from any.
class Assessor {
public:
  Assessor();
  ~Assessor();
  /// @returns the last assessment itself when nothing that it reads has changed
  [[nodiscard]] std::shared_ptr<const Assessment> assess(const build::Build& build, const shelf::Shelf& shelf);

private:
  struct Kept;
  std::unique_ptr<Kept> kept_;
  std::shared_ptr<const Assessment> last_;
};

} // namespace mavrel::assess
