#include "assess/search/search_front.h"

#include "parallel/in_parallel.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <mutex>
#include <queue>
#include <set>

namespace mavrel::assess {

namespace {

constexpr std::size_t leaf = 8;          // options looked at one by one
constexpr std::size_t wanted_tasks = 96; // pairs of branches shared out among the threads

std::vector<std::size_t> passing(const std::vector<EndOption>& options) {
  std::vector<std::size_t> out;
  for (std::size_t i = 0; i < options.size(); ++i)
    if (options[i].passes) out.push_back(i);
  return out;
}

bool same(const SearchFigures& a, const SearchFigures& b) {
  return a.lowest == b.lowest && a.discomfort == b.discomfort && a.air == b.air && a.reserve == b.reserve &&
         a.lift == b.lift;
}

/// The best that any option of a group has, figure by figure.
struct Bounds {
  double lowest = 0, air = 0, reserve = 0, lift = 0;
  std::vector<double> slow, quick; // Hz, least and greatest ride frequency, one a load case
};

Bounds bounds_of(const std::vector<EndOption>& options, const std::size_t* begin, const std::size_t* end) {
  const EndOption& first = options[*begin];
  Bounds out{first.fitted.lowest,        first.air, first.reserve, first.lift, first.fitted.ride_frequency,
             first.fitted.ride_frequency};
  for (const std::size_t* i = begin + 1; i != end; ++i) {
    const EndOption& o = options[*i];
    out.lowest = std::min(out.lowest, o.fitted.lowest);
    out.air = std::min(out.air, o.air);
    out.reserve = std::max(out.reserve, o.reserve);
    out.lift = std::max(out.lift, o.lift);
    for (std::size_t c = 0; c < out.slow.size(); ++c) {
      out.slow[c] = std::min(out.slow[c], o.fitted.ride_frequency[c]);
      out.quick[c] = std::max(out.quick[c], o.fitted.ride_frequency[c]);
    }
  }
  return out;
}

/// Figures that no combination of the two groups betters.
SearchFigures best_of(const ComfortWanted& wanted, const Bounds& front, const Bounds& rear) {
  const auto apart = [](double from, double to, double low, double high) {
    return std::max({0.0, low - to, from - high});
  };
  SearchFigures out;
  out.lowest = 0.5 * (front.lowest + rear.lowest);
  out.air = front.air + rear.air;
  out.reserve = std::min(front.reserve, rear.reserve);
  out.lift = std::min(front.lift, rear.lift);
  for (std::size_t c = 0; c < front.slow.size(); ++c)
    out.discomfort =
        std::max(out.discomfort, apart(front.slow[c], front.quick[c], wanted.frequency_low, wanted.frequency_high) +
                                     apart(rear.slow[c], rear.quick[c], wanted.frequency_low, wanted.frequency_high) +
                                     apart(rear.slow[c] / front.quick[c] - 1, rear.quick[c] / front.slow[c] - 1,
                                           wanted.rear_quicker_low, wanted.rear_quicker_high));
  return out;
}

double key_of(const SearchFigures& f) {
  return f.discomfort + 10 * f.lowest - f.reserve;
}

/// One end's options in a tree of like ones.
class Tree {
public:
  struct Node {
    std::size_t begin = 0, end = 0;  // in `order`
    std::size_t left = 0, right = 0; // nodes; 0: a leaf
    Bounds bounds;
    [[nodiscard]] std::size_t size() const { return end - begin; }
    [[nodiscard]] bool is_leaf() const { return left == 0; }
  };

  explicit Tree(const std::vector<EndOption>& options) : options_(options), order_(passing(options)) {
    if (!order_.empty()) grow(0, order_.size());
  }
  [[nodiscard]] bool empty() const { return order_.empty(); }
  [[nodiscard]] const Node& node(std::size_t i) const { return nodes_[i]; }
  [[nodiscard]] std::size_t option(std::size_t place) const { return order_[place]; }

private:
  using Figure = double (*)(const EndOption&);
  static constexpr std::array<Figure, 5> figures = {
      [](const EndOption& o) { return o.fitted.lowest; }, [](const EndOption& o) { return o.air; },
      [](const EndOption& o) { return o.reserve; }, [](const EndOption& o) { return o.lift; },
      [](const EndOption& o) { return o.fitted.ride_frequency.front(); }};
  // What a tellable difference is in each, so that unlike figures can be compared.
  static constexpr std::array<double, 5> tellable = {0.001, 0.001, 0.01, 0.001, 0.01};

  std::size_t grow(std::size_t begin, std::size_t end) {
    const std::size_t here = nodes_.size();
    nodes_.push_back({begin, end, 0, 0, bounds_of(options_, order_.data() + begin, order_.data() + end)});
    if (end - begin <= leaf) return here;
    std::size_t widest = 0;
    double width = -1;
    for (std::size_t f = 0; f < figures.size(); ++f) {
      const auto [low, high] = std::minmax_element(
          order_.begin() + static_cast<std::ptrdiff_t>(begin), order_.begin() + static_cast<std::ptrdiff_t>(end),
          [&](std::size_t a, std::size_t b) { return figures[f](options_[a]) < figures[f](options_[b]); });
      const double w = (figures[f](options_[*high]) - figures[f](options_[*low])) / tellable[f];
      if (w > width) width = w, widest = f;
    }
    const std::size_t middle = begin + (end - begin) / 2;
    std::nth_element(order_.begin() + static_cast<std::ptrdiff_t>(begin),
                     order_.begin() + static_cast<std::ptrdiff_t>(middle),
                     order_.begin() + static_cast<std::ptrdiff_t>(end), [&](std::size_t a, std::size_t b) {
                       const double fa = figures[widest](options_[a]), fb = figures[widest](options_[b]);
                       return fa != fb ? fa < fb : a < b;
                     });
    const std::size_t left = grow(begin, middle);
    const std::size_t right = grow(middle, end);
    nodes_[here].left = left;
    nodes_[here].right = right;
    return here;
  }

  const std::vector<EndOption>& options_;
  std::vector<std::size_t> order_;
  std::vector<Node> nodes_;
};

/// Keeps what nothing yet seen dominates; of equals the one that stands first in the lists.
class Front {
public:
  /// Is everything at most this good outdone already?
  [[nodiscard]] bool outdoes(const SearchFigures& best) {
    for (std::size_t i = 0; i < kept_.size(); ++i)
      if (dominates(kept_[i].figures, best)) {
        if (i > 0) std::swap(kept_[i], kept_[i / 2]); // what outdoes much is asked early
        return true;
      }
    return false;
  }
  void offer(const Candidate& candidate) {
    for (Candidate& old : kept_) {
      if (dominates(old.figures, candidate.figures)) return;
      if (!same(old.figures, candidate.figures)) continue;
      if (std::pair(candidate.front, candidate.rear) < std::pair(old.front, old.rear)) old = candidate;
      return;
    }
    std::erase_if(kept_, [&](const Candidate& old) { return dominates(candidate.figures, old.figures); });
    kept_.push_back(candidate);
  }
  [[nodiscard]] const std::vector<Candidate>& kept() const { return kept_; }

private:
  std::vector<Candidate> kept_;
};

struct Branches {
  std::size_t front = 0, rear = 0; // nodes
};

class Pairing {
public:
  Pairing(const ComfortWanted& wanted, const std::vector<EndOption>& front, const std::vector<EndOption>& rear,
          const SearchControl& control)
      : wanted_(wanted), front_(front), rear_(rear), front_tree_(front), rear_tree_(rear), control_(control) {}

  std::vector<Candidate> run() {
    if (front_tree_.empty() || rear_tree_.empty()) return {};
    const std::vector<Branches> tasks = share_out();
    std::vector<Front> found(tasks.size());
    in_parallel(tasks.size(), {control_.threads, control_.stop, {}}, [&](std::size_t i) {
      {
        // What others have found by now outdoes much of this task before it is looked at.
        const std::scoped_lock lock(shared_lock_);
        found[i] = shared_;
      }
      visit(tasks[i], found[i]);
      const std::scoped_lock lock(shared_lock_);
      for (const Candidate& candidate : found[i].kept())
        shared_.offer(candidate);
      found[i] = {};
      ++done_;
      if (control_.progress) control_.progress(static_cast<double>(done_) / static_cast<double>(tasks.size()));
    });
    std::vector<Candidate> out = shared_.kept();
    std::sort(out.begin(), out.end(), [](const Candidate& a, const Candidate& b) {
      return std::pair(a.front, a.rear) < std::pair(b.front, b.rear);
    });
    return out;
  }

private:
  [[nodiscard]] SearchFigures best(const Branches& b) const {
    return best_of(wanted_, front_tree_.node(b.front).bounds, rear_tree_.node(b.rear).bounds);
  }

  /// The larger branch of a pair split, the more promising half first; none of two leaves.
  [[nodiscard]] std::vector<Branches> halves(const Branches& b) const {
    const Tree::Node &f = front_tree_.node(b.front), &r = rear_tree_.node(b.rear);
    if (f.is_leaf() && r.is_leaf()) return {};
    std::vector<Branches> out = !f.is_leaf() && (r.is_leaf() || f.size() >= r.size())
                                    ? std::vector<Branches>{{f.left, b.rear}, {f.right, b.rear}}
                                    : std::vector<Branches>{{b.front, r.left}, {b.front, r.right}};
    if (key_of(best(out[1])) < key_of(best(out[0]))) std::swap(out[0], out[1]);
    return out;
  }

  /// The most promising first, so that their finds spare work with the rest.
  [[nodiscard]] std::vector<Branches> share_out() const {
    std::vector<Branches> tasks = {{0, 0}};
    for (bool split = true; split && tasks.size() < wanted_tasks;) {
      split = false;
      std::vector<Branches> finer;
      for (const Branches& b : tasks) {
        const auto parts = halves(b);
        split = split || !parts.empty();
        if (parts.empty())
          finer.push_back(b);
        else
          finer.insert(finer.end(), parts.begin(), parts.end());
      }
      tasks = std::move(finer);
    }
    std::stable_sort(tasks.begin(), tasks.end(),
                     [&](const Branches& a, const Branches& b) { return key_of(best(a)) < key_of(best(b)); });
    return tasks;
  }

  void visit(const Branches& b, Front& found) const {
    if (control_.stop.stop_requested() || found.outdoes(best(b))) return;
    const auto parts = halves(b);
    for (const Branches& part : parts)
      visit(part, found);
    if (!parts.empty()) return;
    const Tree::Node &f = front_tree_.node(b.front), &r = rear_tree_.node(b.rear);
    for (std::size_t i = f.begin; i < f.end; ++i)
      for (std::size_t j = r.begin; j < r.end; ++j) {
        const std::size_t fi = front_tree_.option(i), rj = rear_tree_.option(j);
        found.offer({fi, rj, figures_of(wanted_, front_[fi], rear_[rj])});
      }
  }

  const ComfortWanted& wanted_;
  const std::vector<EndOption>&front_, &rear_;
  Tree front_tree_, rear_tree_;
  const SearchControl& control_;
  Front shared_;
  std::mutex shared_lock_;
  std::size_t done_ = 0; // under the lock, as progress is: it never falls
};

/// The options of one bag that pass, and the best that any has.
struct OfBag {
  std::size_t bag = 0;
  std::vector<std::size_t> options;
  Bounds bounds;
};

std::vector<OfBag> by_bag(const std::vector<EndOption>& options) {
  std::vector<OfBag> out;
  for (const std::size_t i : passing(options)) {
    if (out.empty() || out.back().bag != options[i].bag) out.push_back({options[i].bag, {}, {}});
    out.back().options.push_back(i);
  }
  for (OfBag& one : out)
    one.bounds = bounds_of(options, one.options.data(), one.options.data() + one.options.size());
  return out;
}

} // namespace

std::vector<Candidate> undominated(const ComfortWanted& wanted, const std::vector<EndOption>& front,
                                   const std::vector<EndOption>& rear, const SearchControl& control) {
  return Pairing(wanted, front, rear, control).run();
}

std::vector<BestOfPair> best_of_pairs(const ComfortWanted& wanted, const std::vector<EndOption>& front,
                                      const std::vector<EndOption>& rear,
                                      const std::vector<std::pair<std::size_t, std::size_t>>& leave_out,
                                      std::size_t most, const SearchControl& control) {
  const std::set<std::pair<std::size_t, std::size_t>> left_out(leave_out.begin(), leave_out.end());
  const auto fronts = by_bag(front), rears = by_bag(rear);
  struct Promise {
    double key;
    std::uint32_t front, rear; // in `fronts` and `rears`
  };
  std::vector<Promise> promises;
  promises.reserve(fronts.size() * rears.size());
  for (std::uint32_t f = 0; f < fronts.size(); ++f)
    for (std::uint32_t r = 0; r < rears.size(); ++r)
      if (!left_out.contains({fronts[f].bag, rears[r].bag}))
        promises.push_back({key_of(best_of(wanted, fronts[f].bounds, rears[r].bounds)), f, r});
  std::sort(promises.begin(), promises.end(), [](const Promise& a, const Promise& b) {
    return std::tie(a.key, a.front, a.rear) < std::tie(b.key, b.front, b.rear);
  });
  const auto worse = [](const BestOfPair& a, const BestOfPair& b) {
    return std::tie(a.key, a.front_bag, a.rear_bag) < std::tie(b.key, b.front_bag, b.rear_bag);
  };
  std::priority_queue<BestOfPair, std::vector<BestOfPair>, decltype(worse)> kept(worse);
  for (const Promise& promise : promises) {
    if (control.stop.stop_requested()) break;
    if (kept.size() >= most && (most == 0 || promise.key > kept.top().key)) break; // the rest promise less
    std::optional<BestOfPair> best;
    for (const std::size_t f : fronts[promise.front].options)
      for (const std::size_t r : rears[promise.rear].options) {
        const Candidate candidate{f, r, figures_of(wanted, front[f], rear[r])};
        const double key = key_of(candidate.figures);
        if (!best || key < best->key) best = {fronts[promise.front].bag, rears[promise.rear].bag, candidate, key};
      }
    kept.push(*best);
    if (kept.size() > most) kept.pop();
  }
  std::vector<BestOfPair> out;
  for (; !kept.empty(); kept.pop())
    out.push_back(kept.top());
  std::reverse(out.begin(), out.end());
  return out;
}

} // namespace mavrel::assess
