// Every reading of a car with how sure it is: by its repeats where there are some, else by the tool it is taken with;
// and what several of them share, as a scale that reads heavy.
#pragma once

#include "build/build.h"
#include "quantity/message.h"

#include <string>
#include <vector>

namespace mavrel::assess {

/// What a reading was taken with.
enum class Tool { tape, point, scale, level, angle, ratio, card, estimate };
[[nodiscard]] const char* tool_key(Tool tool);
[[nodiscard]] const char* tool_name(Tool tool);
/// Minutes that one reading more takes with it.
[[nodiscard]] double minutes_of(Tool tool);

struct DoubtInput {
  std::string path; // `front.left.height_m`; of a bag's card `front.bag_card`
  Message name;
  Kind kind = Kind::length;
  Tool tool = Tool::tape;
  double value = 0;        // SI, the mean of its readings
  std::size_t count = 1;   // readings of it
  double own = 0;          // one standard deviation, of what is its alone
  double shared = 0;       // and of what it shares; the sign says which way it goes
  std::string shared_with; // `scale`; empty: nothing
  bool another_car = false;
  [[nodiscard]] double sd() const;
};

/// One standard deviation of the mean of so many readings.
/// @param readings  at least one
/// @param tool      of one reading with this tool, when readings don't say
/// Source: docs/models.md, "Doubt".
[[nodiscard]] double doubt_of_mean(const std::vector<double>& readings, double tool);

/// All readings of the build that an answer of its ends goes by, in the document's order; the cards of the bags chosen
/// last.
[[nodiscard]] std::vector<DoubtInput> doubt_inputs(const build::Build& build);

/// The build as it is if every reading lies off by so much; what nobody could have read is folded back inside. @param
/// off  of each input but the cards, SI, in their order
[[nodiscard]] build::Build moved(const build::Build& build, const std::vector<double>& off);

} // namespace mavrel::assess
