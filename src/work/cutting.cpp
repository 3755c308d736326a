#include "work/cutting.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numeric>
#include <optional>

namespace mavrel::work {

namespace {

// A cut costs its kerf but for one that the bar's own end saves: with the kerf on every piece and once on the bar, that
// is plain packing. In whole hundredths of a micrometre, so that what fits to the hair fits.
using Length = std::int64_t;
constexpr double grain = 1e-8;
Length grains(double metres) {
  return std::llround(metres / grain);
}

struct Bin {
  Length room = 0;
  std::vector<std::size_t> pieces; // indices into the sorted sizes
};
using Packing = std::vector<Bin>; // leftovers first, then new ones

/// Packs sizes that fall, into given bins and as few new ones as it finds.
class Packer {
public:
  Packer(std::vector<Length> sizes, Length bar, std::vector<Length> leftovers)
      : sizes_(std::move(sizes)), bar_(bar), leftovers_(std::move(leftovers)) {
    least_ = least_bars();
    rest_.resize(sizes_.size() + 1, 0);
    for (std::size_t i = sizes_.size(); i-- > 0;)
      rest_[i] = rest_[i + 1] + sizes_[i];
    in_bin_.resize(sizes_.size(), 0);
    // Larger cuts take longer a step: all of it stays within what a person waits for.
    most_steps_ = std::min<std::size_t>(2'000'000, 60'000'000 / (sizes_.size() + 10));
  }

  [[nodiscard]] Packing best() {
    take(first_fit(false));
    take(first_fit(true));
    take(fullest());
    if (fresh(best_) > least_) {
      Packing start = empty();
      try_all(0, start);
    }
    return best_;
  }
  [[nodiscard]] std::size_t least() const { return proven_ ? fresh(best_) : least_; }
  [[nodiscard]] bool proven() const { return proven_ || fresh(best_) == least_; }

private:
  [[nodiscard]] Packing empty() const {
    Packing out;
    for (const Length one : leftovers_)
      out.push_back({one, {}});
    return out;
  }
  [[nodiscard]] std::size_t fresh(const Packing& packing) const { return packing.size() - leftovers_.size(); }
  void take(Packing packing) {
    if (best_.empty() || packing.size() < best_.size()) best_ = std::move(packing);
  }
  /// Largest first, into the first bin with room, or into the one it fills best.
  [[nodiscard]] Packing first_fit(bool best) const {
    Packing out = empty();
    for (std::size_t i = 0; i < sizes_.size(); ++i) {
      Bin* into = nullptr;
      for (Bin& bin : out)
        if (bin.room >= sizes_[i] && (!into || (best && bin.room < into->room))) into = &bin;
      if (!into) into = &out.emplace_back(Bin{bar_, {}});
      into->room -= sizes_[i];
      into->pieces.push_back(i);
    }
    return out;
  }
  /// Bin after bin filled as full as it goes, the largest that is left always in it.
  [[nodiscard]] Packing fullest() const {
    Packing out = empty();
    std::vector<char> used(sizes_.size(), 0);
    std::size_t left = sizes_.size();
    const auto fill = [&](Bin& bin, bool with_largest) {
      std::vector<std::size_t> in;
      Length room = bin.room;
      if (with_largest) {
        const std::size_t first = static_cast<std::size_t>(std::find(used.begin(), used.end(), 0) - used.begin());
        in.push_back(first);
        used[first] = 1;
        room -= sizes_[first];
      }
      std::vector<std::size_t> now, most;
      Length least_room = room;
      int steps = static_cast<int>(std::clamp<std::size_t>(4'000'000 / sizes_.size(), 500, 20'000));
      subset(0, room, used, now, most, least_room, steps);
      in.insert(in.end(), most.begin(), most.end());
      for (const std::size_t i : in)
        used[i] = 1, bin.room -= sizes_[i];
      left -= in.size();
      bin.pieces = std::move(in);
    };
    for (Bin& bin : out)
      fill(bin, false);
    while (left > 0)
      fill(out.emplace_back(Bin{bar_, {}}), true);
    return out;
  }
  /// The pieces that leave least of a room.
  void subset(std::size_t from, Length room, const std::vector<char>& used, std::vector<std::size_t>& now,
              std::vector<std::size_t>& most, Length& least_room, int& steps) const {
    if (room < least_room) least_room = room, most = now;
    for (std::size_t i = from; i < sizes_.size() && least_room > 0 && steps > 0; ++i) {
      if (used[i] || sizes_[i] > room || (i > from && sizes_[i] == sizes_[i - 1] && !used[i - 1])) continue;
      --steps;
      now.push_back(i);
      subset(i + 1, room - sizes_[i], used, now, most, least_room, steps);
      now.pop_back();
    }
  }
  /// What no packing can do with fewer of: pieces over half a bar need one each, and those that cannot lie beside them
  /// one more for each bar's worth. Source: docs/models.md, "Cutting".
  [[nodiscard]] std::size_t least_bars() const {
    const Length given = std::accumulate(leftovers_.begin(), leftovers_.end(), Length{0});
    const auto bars = [&](Length sum) {
      return sum <= 0 ? std::size_t{0} : static_cast<std::size_t>((sum + bar_ - 1) / bar_);
    };
    std::size_t least = bars(std::accumulate(sizes_.begin(), sizes_.end(), Length{0}) - given);
    if (!leftovers_.empty()) return least;
    for (const Length k : sizes_) {
      if (2 * k > bar_) continue;
      std::size_t whole = 0, half = 0;
      Length half_room = 0, small = 0;
      for (const Length s : sizes_)
        if (s > bar_ - k)
          ++whole;
        else if (2 * s > bar_)
          ++half, half_room += bar_ - s;
        else if (s >= k)
          small += s;
      least = std::max(least, whole + half + bars(small - half_room));
    }
    std::size_t big = 0;
    for (const Length s : sizes_)
      if (2 * s > bar_) ++big;
    return std::max(least, big);
  }
  /// Piece after piece into every bin that differs; gives up after so many steps.
  bool try_all(std::size_t i, Packing& now) {
    if (++steps_ > most_steps_) return false;
    if (now.size() >= best_.size() || fresh(now) + more_bars(i, now) >= fresh(best_)) return true;
    if (i == sizes_.size()) {
      best_ = now;
      proven_ = fresh(best_) == least_;
      return true;
    }
    bool whole = true;
    const std::size_t bins = now.size();
    // Of equal pieces the later one goes no further to the front.
    const std::size_t from = i > 0 && sizes_[i] == sizes_[i - 1] ? in_bin_[i - 1] : 0;
    for (std::size_t b = from; b < bins && !proven_; ++b) {
      if (now[b].room < sizes_[i]) continue;
      if (std::any_of(now.begin() + static_cast<std::ptrdiff_t>(from), now.begin() + static_cast<std::ptrdiff_t>(b),
                      [&](const Bin& other) { return other.room == now[b].room; }))
        continue; // the same again
      now[b].room -= sizes_[i];
      now[b].pieces.push_back(i);
      in_bin_[i] = b;
      whole = try_all(i + 1, now) && whole;
      now[b].pieces.pop_back();
      now[b].room += sizes_[i];
    }
    if (!proven_ && now.size() + 1 < best_.size()) {
      now.push_back({bar_ - sizes_[i], {i}});
      in_bin_[i] = bins;
      whole = try_all(i + 1, now) && whole;
      now.pop_back();
    }
    if (i == 0 && whole) proven_ = true;
    return whole;
  }
  /// New bars that the pieces from `i` need at least, with all room there is filled.
  [[nodiscard]] std::size_t more_bars(std::size_t i, const Packing& now) const {
    if (i == sizes_.size()) return 0;
    Length sum = rest_[i];
    for (const Bin& bin : now)
      if (bin.room >= sizes_.back()) sum -= bin.room; // less than the smallest is of no use
    return sum <= 0 ? 0 : static_cast<std::size_t>((sum + bar_ - 1) / bar_);
  }

  std::vector<Length> sizes_;
  Length bar_;
  std::vector<Length> leftovers_;
  std::vector<Length> rest_;        // of the sizes from each on
  std::vector<std::size_t> in_bin_; // of each piece placed by try_all
  std::size_t least_ = 0, steps_ = 0, most_steps_ = 0;
  bool proven_ = false;
  Packing best_;
};

} // namespace

Expected<CutPlan> cut_plan(std::span<const double> pieces, double bar, double kerf, std::span<const double> leftovers) {
  CutPlan out;
  std::vector<std::size_t> by_length(pieces.size());
  std::iota(by_length.begin(), by_length.end(), std::size_t{0});
  std::stable_sort(by_length.begin(), by_length.end(),
                   [&](std::size_t a, std::size_t b) { return pieces[a] > pieces[b]; });
  std::vector<double> given(leftovers.begin(), leftovers.end());
  std::sort(given.begin(), given.end()); // the shortest is used up first
  for (const double one : pieces)
    if (grains(one) > grains(bar) && (given.empty() || grains(one) > grains(given.back())))
      return refuse(words("A piece of {0} is longer than a bar of {1}. Join it from two, or buy longer bars."),
                    {told_from(metres(one), bar), metres(bar)});
  if (pieces.empty()) {
    out.proven = true;
    return out;
  }
  std::vector<Length> sizes;
  for (const std::size_t i : by_length)
    sizes.push_back(grains(pieces[i]) + grains(kerf));
  // A piece that only a leftover is long enough for would never fit a new bar; the packer must not open one for it.
  std::vector<Length> rooms;
  for (const double one : given)
    rooms.push_back(grains(one) + grains(kerf));
  const Length room = grains(bar) + grains(kerf);
  std::vector<std::size_t> too_long;
  for (std::size_t i = 0; i < sizes.size() && sizes[i] > room; ++i)
    too_long.push_back(i);
  // Those go first, each into the shortest leftover that takes it.
  std::vector<std::vector<std::size_t>> first(rooms.size());
  for (const std::size_t i : too_long) {
    const auto into = std::find_if(rooms.begin(), rooms.end(), [&](Length r) { return r >= sizes[i]; });
    if (into == rooms.end())
      return refuse(words("A piece of {0} is longer than a bar of {1}. Join it from two, or buy longer bars."),
                    {told_from(metres(pieces[by_length[i]]), bar), metres(bar)});
    *into -= sizes[i];
    first[static_cast<std::size_t>(into - rooms.begin())].push_back(i);
  }
  const std::size_t skip = too_long.size();
  Packer packer({sizes.begin() + static_cast<std::ptrdiff_t>(skip), sizes.end()}, room, rooms);
  const Packing packing = skip == sizes.size() ? Packing{} : packer.best();
  for (std::size_t b = 0; b < std::max(packing.size(), rooms.size()); ++b) {
    CutBar cut;
    cut.leftover = b < rooms.size();
    cut.length = cut.leftover ? given[b] : bar;
    if (cut.leftover)
      for (const std::size_t i : first[b])
        cut.pieces.push_back(by_length[i]);
    if (b < packing.size())
      for (const std::size_t i : packing[b].pieces)
        cut.pieces.push_back(by_length[i + skip]);
    if (cut.pieces.empty()) continue;
    std::stable_sort(cut.pieces.begin(), cut.pieces.end(),
                     [&](std::size_t a, std::size_t c) { return pieces[a] > pieces[c]; });
    Length rest = grains(cut.length);
    for (const std::size_t i : cut.pieces)
      rest -= grains(pieces[i]) + grains(kerf);
    cut.left = rest > 0 ? static_cast<double>(rest) * grain : 0;
    if (!cut.leftover) ++out.fresh;
    out.bars.push_back(std::move(cut));
  }
  out.least = skip == sizes.size() ? 0 : packer.least();
  out.proven = skip == sizes.size() || packer.proven();
  return out;
}

} // namespace mavrel::work
