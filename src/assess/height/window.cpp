#include "assess/height/window.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

bool any_length(const Stretch& s) {
  return s.to > s.from;
}

} // namespace

const char* short_name(const Edge& edge) {
  if (!edge.governing) return words("open");
  if (edge.governing->reserve <= 0) return edge.governing->limit->short_name;
  return edge.governing->from < edge.height - 1e-9 ? words("bump kept") : words("rebound kept");
}

Message name_of(const Stretch& stretch) {
  if (stretch.right) {
    Stretch left = stretch;
    left.right = false;
    return {words("{0}, right"), {name_of(left)}};
  }
  if (!stretch.near.empty()) return {words("{0}: {1}"), {stretch.limit->name, stretch.near}};
  if (!stretch.part) return {stretch.limit->name, {}};
  return {words("{0}: {1}"), {stretch.limit->name, stretch.part}};
}

void drop_empty(std::vector<Stretch>& blocked) {
  std::erase_if(blocked, [](const Stretch& s) { return !any_length(s); });
}

std::optional<Window> window_between(std::span<const Stretch> blocked, const Domain& domain,
                                     std::optional<double> prefer) {
  std::vector<Stretch> sorted(blocked.begin(), blocked.end());
  std::sort(sorted.begin(), sorted.end(), [](const Stretch& a, const Stretch& b) { return a.from < b.from; });
  std::optional<Domain> chosen;
  const auto offer = [&](double low, double high) {
    if (high - low <= 1e-9) return;
    const auto holds = [&](const Domain& d) { return prefer && *prefer >= d.low && *prefer <= d.high; };
    const Domain free{low, high};
    if (!chosen || (holds(free) && !holds(*chosen)) || (!holds(*chosen) && high - low > chosen->high - chosen->low))
      chosen = free;
  };
  double reached = domain.low;
  for (const Stretch& s : sorted) {
    offer(reached, s.from);
    reached = std::max(reached, s.to);
  }
  offer(reached, domain.high);
  if (!chosen) return std::nullopt;

  Window out;
  out.low.height = chosen->low;
  out.high.height = chosen->high;
  out.low.next_height = domain.low;
  out.high.next_height = domain.high;
  const auto is_at = [](double a, double b) { return std::abs(a - b) <= 1e-9; };
  // Below: the stretch that ends at the edge governs; the highest end among the others comes next.
  for (const Stretch& s : sorted) {
    if (!any_length(s)) continue;
    if (!out.low.governing && is_at(s.to, out.low.height))
      out.low.governing = s;
    else if (s.to <= out.low.height + 1e-9 && (!out.low.next || s.to > out.low.next_height)) {
      out.low.next = s;
      out.low.next_height = s.to;
    }
    if (!out.high.governing && is_at(s.from, out.high.height))
      out.high.governing = s;
    else if (s.from >= out.high.height - 1e-9 && (!out.high.next || s.from < out.high.next_height)) {
      out.high.next = s;
      out.high.next_height = s.from;
    }
  }
  return out;
}

Message outside_reach(double H, const Window& reach) {
  return {words("{0} lies outside the reach window, {1} to {2}."),
          {told_from(metres(H), H < reach.low.height ? reach.low.height : reach.high.height),
           told_from(metres(reach.low.height), H), told_from(metres(reach.high.height), H)}};
}

} // namespace mavrel::assess
