// How rough a road is and how it is driven, as words.
#pragma once

namespace mavrel::control {

/// Roughness of a road, ISO 8608.
enum class RoadClass { a, b, c, d, e, f, g, h };
enum class SpeedProfile { steady, stop_and_go, town, country, motorway };

} // namespace mavrel::control
