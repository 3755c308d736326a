// How gaps are called.
#pragma once

#include "assess/clearance/clearance.h"

#include <QString>

namespace mavrel::app {

class Desk;

/// `tyre to liner behind`; a name that says it all already stays as it is.
[[nodiscard]] QString gap_name(const Desk& desk, assess::Mover mover, const assess::Near& near);

} // namespace mavrel::app
