// Every reading of a car with how sure it is: by its repeats where there are some, else by the tool it is taken with;
// and what several of them share, as a scale that reads heavy.
#pragma once

#include "build/build.h"
#include "quantity/message.h"
#include "shelf/shelf.h"

#include <array>
#include <span>
#include <string>
#include <vector>

namespace mavrel::assess {

using build::Tool;

[[nodiscard]] const char* tool_key(Tool tool);
[[nodiscard]] const char* tool_name(Tool tool);

/// What lies off: a reading of the document, or what a card says.
enum class Doubted {
  reading,
  bag_card,
  bag_volume,
  bag_height,
  compressor,
  tank,
  pressure_switch,
  way,
  stand_in,
  curvature,
  damper_curvature,
  tyre_size
};

struct DoubtInput {
  std::string path; // `front.left.height_m`; of a bag's card `front.bag_card`
  Message name;
  Kind kind = Kind::length;
  Doubted what = Doubted::reading;
  build::End end = build::End::front; // of a card or a way
  Tool tool = Tool::tape;             // that it was taken with
  Tool usual = Tool::tape;            // that it is usually taken with
  double value = 0;                   // SI, the mean of its readings; of a card 1
  std::size_t count = 1;              // readings of it
  double own = 0;                     // one standard deviation, of what is its alone
  double shared = 0;                  // and of what it shares; the sign says which way it goes
  std::string shared_with;            // `scale`; empty: nothing
  double again = 0;                   // `own` after one reading more, or after reading what was estimated
  double minutes = 0;                 // that this takes
  bool another_car = false;
  [[nodiscard]] double sd() const;
};

/// Where it is kept which tool a reading was taken with: its path without the places in lists, so that one choice is of
/// all rows of a sheet.
[[nodiscard]] std::string taken_place(std::string_view path);
/// The tools that such a reading may be taken with, the usual one first.
[[nodiscard]] std::vector<Tool> tools_for(Tool usual, Kind kind);

/// One standard deviation of the mean of so many readings.
/// @param readings  at least one
/// @param tool      of one reading with this tool, when readings don't say
/// Source: docs/models.md, "Doubt".
[[nodiscard]] double doubt_of_mean(const std::vector<double>& readings, double tool);

/// All readings of the build that an answer of its ends goes by, in the document's order; then the cards of the bags
/// chosen, and what the air kit's parts are said to do.
[[nodiscard]] std::vector<DoubtInput> doubt_inputs(const build::Build& build, const shelf::Shelf& shelf);

/// What of `taken_with` can't be, said; empty: all of it can.
/// @param inputs  of the same build
[[nodiscard]] std::vector<Message> wrong_tools(const build::Doubts& doubts, const std::vector<DoubtInput>& inputs);

/// The build as it is if every reading lies off by so much; what nobody could have read is folded back inside.
/// @param off  of each input that is a reading, SI, in their order; may be longer
[[nodiscard]] build::Build moved(const build::Build& build, const std::vector<double>& off);

/// Puts a usual figure that lies so far off into the survey, where nobody read one.
void put_stand_in(build::Build& build, const DoubtInput& in, double off);
/// Lets a map of one ratio bend by so much, 1/m, or the way of a damper apart from the spring. Only after its ratio and
/// lengths are in, and the spring's before the damper's.
void put_curvature(build::Build& build, const DoubtInput& in, double curvature);

} // namespace mavrel::assess
