#include "assess/air/room.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

namespace {

struct Span {
  double low = 0, high = 0;
  [[nodiscard]] double overlap(const Span& o) const { return std::min(high, o.high) - std::max(low, o.low); }
  [[nodiscard]] double beyond(double x) const { return std::fmax(0, std::fmax(low - x, x - high)); }
};
struct Extent {
  Span x, y, z;
};
Extent extent(const KitBox& b) {
  return {{b.x - b.along / 2, b.x + b.along / 2},
          {b.y - b.across / 2, b.y + b.across / 2},
          {b.z - b.height / 2, b.z + b.height / 2}};
}

/// m from a box to a rod's surface. Distance to a box is convex along a line, so thirds find its least.
double gap_to(const Extent& box, const build::HotPart& hot) {
  const auto at = [&](double t) {
    return std::hypot(box.x.beyond(hot.x + t * (hot.to_x - hot.x)), box.y.beyond(hot.y + t * (hot.to_y - hot.y)),
                      box.z.beyond(hot.z + t * (hot.to_z - hot.z)));
  };
  double lo = 0, hi = 1;
  for (int i = 0; i < 80; ++i) {
    const double a = lo + (hi - lo) / 3, b = hi - (hi - lo) / 3;
    (at(a) < at(b) ? hi : lo) = at(a) < at(b) ? b : a;
  }
  return at((lo + hi) / 2) - hot.radius;
}

std::optional<Extent> boot_of(const build::Boot& boot) {
  if (!boot.from || !boot.floor || !boot.length || !boot.width || !boot.height) return std::nullopt;
  return Extent{{*boot.from, *boot.from + *boot.length},
                {-*boot.width / 2, *boot.width / 2},
                {*boot.floor, *boot.floor + *boot.height}};
}

constexpr double slack = 1e-6; // m

bool inside(const Extent& box, const Extent& room) {
  const auto in = [](const Span& a, const Span& b) { return a.low >= b.low - slack && a.high <= b.high + slack; };
  return in(box.x, room.x) && in(box.y, room.y) && in(box.z, room.z);
}

bool in_well(const Extent& box, const build::Well& well) {
  for (const double x : {box.x.low, box.x.high})
    for (const double y : {box.y.low, box.y.high})
      if (std::hypot(x - *well.x, y - *well.y) > *well.diameter / 2 + slack) return false;
  return box.z.low >= *well.bottom - slack;
}

} // namespace

RoomGiven room_given(const build::Build& build, AirGiven air) {
  return {std::move(air), build.body.boot, build.body.well, build.body.hot, build.variant().brief.rooms};
}

KitRoom kit_room(const RoomGiven& given) {
  KitRoom out;
  out.boxes = kit_boxes(given.air.kit, given.air.parts);
  double moment = 0;
  build::AirKit as_new = given.air.kit;
  as_new.weighed = build::Weighed::without;
  for (const build::LoadMass& mass : kit_masses(as_new, given.air.parts))
    out.mass += mass.mass, moment += mass.mass * mass.x;
  const double wheelbase = given.air.wheelbase.value_or(2.7);
  if (out.mass > 0) out.front_share = 1 - moment / out.mass / wheelbase;
  const auto boot = boot_of(given.boot);
  const build::Well& well = given.well;
  const bool well_known = well.x && well.y && well.bottom && well.diameter && well.depth;
  double in_boot = 0, in_well_volume = 0;
  for (std::size_t i = 0; i < out.boxes.size(); ++i) {
    const KitBox& box = out.boxes[i];
    const Extent e = extent(box);
    const double volume = box.along * box.across * box.height;
    out.volume += volume;
    if (boot) {
      const double x = e.x.overlap(boot->x), y = e.y.overlap(boot->y), z = e.z.overlap(boot->z);
      if (x > 0 && y > 0 && z > 0) in_boot += x * y * z;
      if (box.room == build::PartRoom::boot && !inside(e, *boot)) out.out_of_place.push_back(i);
    }
    if (well_known && box.room == build::PartRoom::spare_well) {
      const double top = *well.bottom + *well.depth;
      const double below = std::clamp(top - e.z.low, 0.0, box.height);
      in_well_volume += volume * below / box.height;
      if (!in_well(e, well)) out.out_of_place.push_back(i);
    }
    for (std::size_t j = 0; j < i; ++j) {
      const Extent o = extent(out.boxes[j]);
      if (e.x.overlap(o.x) > slack && e.y.overlap(o.y) > slack && e.z.overlap(o.z) > slack) out.meet.emplace_back(j, i);
    }
    std::optional<HotGap> nearest;
    for (std::size_t h = 0; h < given.hot.size(); ++h) {
      const build::HotPart& hot = given.hot[h];
      const double wanted = hot.shielded == build::Shielded::yes ? given.rooms.shielded_exhaust : given.rooms.exhaust;
      const HotGap gap{i, h, gap_to(e, hot), wanted};
      if (!nearest || gap.gap - gap.wanted < nearest->gap - nearest->wanted) nearest = gap;
    }
    if (nearest) out.hot.push_back(*nearest);
    if (box.role != KitRole::compressor && box.role != KitRole::second_compressor &&
        (!out.lowest_water || e.z.low < *out.lowest_water - slack)) {
      out.lowest_water = e.z.low;
      out.drains_lowest = box.role == KitRole::tank;
    }
  }
  if (boot) {
    out.boot_before = *given.boot.length * *given.boot.width * *given.boot.height;
    out.boot_left = *out.boot_before - in_boot;
  }
  if (well_known) {
    out.well_before = std::numbers::pi / 4 * *well.diameter * *well.diameter * *well.depth;
    out.well_left = std::fmax(0, *out.well_before - in_well_volume);
  }
  return out;
}

} // namespace mavrel::assess
