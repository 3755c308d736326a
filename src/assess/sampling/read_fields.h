// The numbers of the document that somebody read off the car, and a walk along them.
#pragma once

#include "assess/sampling/inputs.h"
#include "build/field_spec.h"

#include <functional>
#include <string_view>

namespace mavrel::assess {

/// A field of a survey that is read: where it stands and what with. `in` is the field or list it lies in; empty: the
/// end itself.
struct ReadField {
  std::string_view key, in;
  Tool tool;
};

/// A value that is read: one number, or readings of one quantity.
struct Read {
  const ReadField* field = nullptr;
  double* number = nullptr;
  std::vector<double>* readings = nullptr;
};

using ReadAct =
    std::function<void(const Read&, const build::NumberSpec&, const std::string& path, const Message& label)>;

/// Walks what is read in the document's order: the body, both ends, the load cases.
/// @param paths  wanted, and labels? Putting them together costs more than all the rest
void walk_readings(build::Build& build, bool paths, const ReadAct& act);

} // namespace mavrel::assess
