#include "assess/clearance/gaps_over_height.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using Figure = std::optional<double>;

constexpr double sheet_step = 0.010; // m between heights at which a sheet's curve is read
constexpr double had_within =
    0.005; // m that joints are measured to: so much less than parts had between them is no news

Figure least_of(Figure a, const Figure& b, const Figure& c) {
  for (const Figure& other : {b, c})
    if (other) a = a ? std::min(*a, *other) : *other;
  return a;
}

} // namespace

/// The longest run of it that has an answer.
std::optional<TrackPiece> GapsOverHeight::piece_of(const Table& table) {
  TrackPiece best, now;
  const auto close = [&] {
    if (now.values.size() > best.values.size()) best = std::move(now);
    now = {};
  };
  for (std::size_t i = 0; i < table.gaps.size(); ++i) {
    if (!table.gaps[i]) {
      close();
      continue;
    }
    if (now.values.empty()) now = {table.heights[i], table.heights[1] - table.heights[0], {}};
    now.values.push_back(*table.gaps[i]);
  }
  close();
  if (best.values.size() < 2) return std::nullopt;
  return best;
}

/// Stretches of height where the gap is below a level, their edges found to some micrometres.
/// @param gap  at any height
std::vector<std::pair<double, double>> GapsOverHeight::below(const Table& table, double level, const GapOver& gap) {
  std::vector<std::pair<double, double>> out;
  const auto bad = [&](const Figure& g) { return g && *g < level; };
  // Where it reaches the level, from the gaps at both sides: by halves where it is nothing on one of them, for what
  // overlaps does not say by how much.
  const auto edge = [&](double a, double b, const Figure& at_a, const Figure& at_b) {
    const bool bad_at_a = bad(at_a);
    double over_a = *at_a - level, over_b = *at_b - level;
    for (int round = 0; round < 10 && b - a > 2e-5; ++round) {
      const bool halves = over_a <= -level || over_b <= -level || over_a == over_b || round >= 6;
      double mid = halves ? 0.5 * (a + b) : a + (b - a) * over_a / (over_a - over_b);
      mid = std::clamp(mid, a + 0.02 * (b - a), b - 0.02 * (b - a));
      const Figure here = gap(mid);
      if (!here) break;
      if (std::abs(*here - level) < 1e-5 && *here > 0) return mid;
      if (bad(here) == bad_at_a)
        a = mid, over_a = *here - level;
      else
        b = mid, over_b = *here - level;
    }
    return 0.5 * (a + b);
  };
  bool open = false;
  double from = 0;
  for (std::size_t i = 0; i < table.gaps.size(); ++i) {
    const double H = table.heights[i];
    const bool here = bad(table.gaps[i]);
    if (here != open) {
      // Where nobody knows, what is known ends at the height itself.
      const bool known = i > 0 && table.gaps[i] && table.gaps[i - 1];
      const double at = known            ? edge(table.heights[i - 1], H, table.gaps[i - 1], table.gaps[i])
                        : here || i == 0 ? H
                                         : table.heights[i - 1];
      if (open) out.emplace_back(from, at);
      from = at;
      open = here;
    }
  }
  if (open) out.emplace_back(from, table.heights.back());
  return out;
}

/// Overlap has no depth: where a gap closes between two heights, the height that overlaps is given the value that has
/// the line between them pass through the edge that was found.
void GapsOverHeight::lead_through(std::optional<TrackPiece>& piece, double edge, double level) {
  if (!piece) return;
  const double place = (edge - piece->from) / piece->step;
  if (!(place > 0) || place >= static_cast<double>(piece->values.size() - 1)) return;
  const auto i = static_cast<std::size_t>(place);
  const double t = place - static_cast<double>(i);
  double &a = piece->values[i], &b = piece->values[i + 1];
  if (a <= 0 && b > level && t < 0.999) a = b - (b - level) / (1 - t);
  if (b <= 0 && a > level && t > 0.001) b = a - (a - level) / t;
}

void GapsOverHeight::keep(GapCurve gap) {
  if (gap.straight || gap.least) gaps_.push_back(std::move(gap));
}

void GapsOverHeight::forbid(GapCurve& gap, bool touches, const Table& table, double level, const GapOver& at,
                            std::optional<double> surveyed) {
  if (table.heights.size() < 2) return;
  for (const auto& [a, b] : below(table, level, at)) {
    Block block{gap.mover, gap.near, a, b, touches, {}};
    // Where both were on the car it did stand there, and what opens from there on may be used; the other way it only
    // gets worse. More overlap so never frees a height that less of it does not.
    if (touches && !gap.had && gap.as_surveyed && surveyed && a <= *surveyed && *surveyed <= b) {
      const bool opens_above = b<table.heights.back() - 1e-9, opens_below = a> table.heights.front() + 1e-9;
      // A tyre goes up to meet things: only downwards of them is it excused.
      const bool frees_below = opens_below && gap.mover != Mover::tyre;
      gap.as_surveyed->everywhere = !opens_above && !frees_below;
      // A pocket behind it, an open barrel for one, is no height the wheel gets to.
      if (gap.as_surveyed->was_on_car && opens_above)
        block.from = table.heights.front(), block.to = *surveyed;
      else if (gap.as_surveyed->was_on_car && frees_below)
        block.from = *surveyed, block.to = table.heights.back();
    }
    if (gap.source == GapSource::solid)
      for (const double end : {a, b})
        lead_through(touches ? gap.straight : gap.least, end, touches ? 0 : level);
    // Beyond its free edge the gap opens by so much for a metre of height.
    const double way = b < table.heights.back() - 1e-9 ? 1 : -1, edge = way > 0 ? b : a;
    const Figure near = at(edge + way * 1e-4), far = at(edge + way * 1.1e-3);
    if (near && far && *far - *near > 2e-5) block.gain = 1e-3 / (*far - *near);
    blocks_.push_back(std::move(block));
  }
}

void GapsOverHeight::add(const EndSpace& space, GapCurve gap, const GapAt& at, bool straight_known, bool lock_known) {
  // A gap taped at lock holds for lock, whether or not anybody said how far that is.
  // So does one of a bag that stands on the upright.
  const bool tyre = gap.mover == Mover::tyre || gap.near.own == OwnPart::tyre;
  const bool goes_along = tyre || (gap.mover == Mover::bag && space.carries_spring(motion::Part::upright));
  const bool locks = goes_along && lock_known && (space.steers() || !straight_known);
  const auto straight = [&](double H) { return at(space.at(H)); };
  const auto& ahead = space.stands(Lock::straight);
  Table table;
  // Its own parts go with the wheel: between them and the tyre little changes from one height to the next.
  const std::size_t every =
      gap.mover == Mover::tyre && (gap.near.own == OwnPart::none || gap.near.own == OwnPart::lip) ? 1 : 2;
  for (std::size_t i = 0; i < ahead.size(); i += every) {
    table.heights.push_back(ahead[i].H);
    table.gaps.push_back(at(ahead[i]));
  }
  if (straight_known) {
    gap.straight = piece_of(table);
    constexpr double met = 1e-9; // m
    forbid(gap, true, table, gap.had ? std::min(met, gap.had->straight - had_within) : met, straight,
           space.surveyed_height());
  }
  const double wanted = gap.had ? std::min(gap.near.room, gap.had->least - had_within) : gap.near.room;
  if (!locks) {
    gap.least = gap.straight;
    forbid(gap, false, table, wanted, straight);
  } else {
    const auto least = [&](double H) {
      return least_of(straight_known ? straight(H) : Figure(), at(space.at(H, Lock::right)),
                      at(space.at(H, Lock::left)));
    };
    const auto &right = space.stands(Lock::right), &left = space.stands(Lock::left);
    Table steered;
    // Both locks stand at the same heights, each one of those straight ahead.
    const std::size_t apart = every == 1 ? 2 : 1;
    for (std::size_t i = 0; i < std::min(right.size(), left.size()); ++i) {
      const bool same = i * apart < table.heights.size() && std::abs(right[i].H - left[i].H) < 1e-9 &&
                        std::abs(table.heights[i * apart] - right[i].H) < 1e-9;
      steered.heights.push_back(right[i].H);
      steered.gaps.push_back(
          same ? least_of(straight_known ? table.gaps[i * apart] : Figure(), at(right[i]), at(left[i]))
               : least(right[i].H));
    }
    gap.least = piece_of(steered);
    forbid(gap, false, steered, wanted, least);
  }
  keep(std::move(gap));
}

void GapsOverHeight::add_curve(GapCurve gap, double low, double high, const GapOver& at) {
  const Heights heights = Heights::over(low, high, sheet_step);
  Table table;
  for (std::size_t i = 0; i < heights.count; ++i) {
    table.heights.push_back(heights.H(i));
    table.gaps.push_back(at(heights.H(i)));
  }
  gap.straight = gap.least = piece_of(table);
  forbid(gap, true, table, 1e-9, at);
  forbid(gap, false, table, gap.near.room, at);
  keep(std::move(gap));
}

} // namespace mavrel::assess
