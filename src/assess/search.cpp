#include "assess/search_end.h"

#include "quantity/quantity.h"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <mutex>
#include <thread>

namespace mavrel::assess {

bool dominates(const SearchFigures& a, const SearchFigures& b) {
  if (a.lowest > b.lowest || a.discomfort > b.discomfort || a.air > b.air || a.reserve < b.reserve || a.lift < b.lift)
    return false;
  return a.lowest < b.lowest || a.discomfort < b.discomfort || a.air < b.air || a.reserve > b.reserve ||
         a.lift > b.lift;
}

namespace {

/// A combination by its two options, and what it is worth.
struct Candidate {
  std::size_t front = 0, rear = 0;
  SearchFigures figures;
};

bool same(const SearchFigures& a, const SearchFigures& b) {
  return a.lowest == b.lowest && a.discomfort == b.discomfort && a.air == b.air && a.reserve == b.reserve &&
         a.lift == b.lift;
}

/// Keeps what nothing yet seen dominates. Of equals the first seen stays, so that candidates must come in order.
class Front {
public:
  void offer(const Candidate& candidate) {
    for (std::size_t i = 0; i < kept_.size(); ++i) {
      if (!dominates(kept_[i].figures, candidate.figures) && !same(kept_[i].figures, candidate.figures)) continue;
      if (i > 0) std::swap(kept_[i], kept_[i / 2]); // what outdoes much is asked early
      return;
    }
    std::erase_if(kept_, [&](const Candidate& old) { return dominates(candidate.figures, old.figures); });
    kept_.push_back(candidate);
  }
  [[nodiscard]] const std::vector<Candidate>& kept() const { return kept_; }

private:
  std::vector<Candidate> kept_;
};

std::vector<std::size_t> passing(const std::vector<EndOption>& options) {
  std::vector<std::size_t> out;
  for (std::size_t i = 0; i < options.size(); ++i)
    if (options[i].passes) out.push_back(i);
  return out;
}

/// Best combination of a pair of bags, in lack of one that nothing outdoes.
struct BestOfPair {
  std::optional<Candidate> candidate;
  double key = 0;
};

/// The combinations of a share of the front options with all rear ones.
struct Share {
  Front front;
  std::vector<BestOfPair> pairs; // front bag × rear bag
};

class Pairing {
public:
  Pairing(const build::Brief& brief, const std::vector<EndOption>& front, const std::vector<EndOption>& rear,
          std::size_t bags, const SearchControl& control)
      : brief_(brief), front_(front), rear_(rear), bags_(bags), control_(control), front_passing_(passing(front)),
        rear_passing_(passing(rear)) {}

  [[nodiscard]] std::size_t passed() const { return front_passing_.size() * rear_passing_.size(); }

  Share pair_all() {
    const unsigned wanted = control_.threads > 0 ? control_.threads : std::max(1U, std::thread::hardware_concurrency());
    const auto threads = std::max<std::size_t>(1, std::min<std::size_t>(wanted, front_passing_.size()));
    std::vector<Share> shares(threads);
    {
      std::vector<std::jthread> workers;
      for (std::size_t t = 0; t < threads; ++t)
        workers.emplace_back([this, t, threads, &shares] { pair_share(t, threads, shares[t]); });
    }
    return merged(shares);
  }

private:
  void pair_share(std::size_t first, std::size_t stride, Share& out) {
    out.pairs.resize(bags_ * bags_);
    for (std::size_t i = first; i < front_passing_.size(); i += stride) {
      if (control_.stop.stop_requested()) return;
      const EndOption& f = front_[front_passing_[i]];
      for (const std::size_t j : rear_passing_) {
        const EndOption& r = rear_[j];
        const Candidate candidate{front_passing_[i], j, figures_of(brief_, f, r)};
        out.front.offer(candidate);
        note(candidate, out.pairs[f.bag * bags_ + r.bag]);
      }
      const std::size_t done = ++done_;
      if (control_.progress && done % 8 == 0) {
        const std::scoped_lock lock(progress_lock_);
        control_.progress(static_cast<double>(done) / static_cast<double>(front_passing_.size()));
      }
    }
  }

  /// Closest to the brief first: comfort, then height, by a fixed rate of exchange (1 Hz against 100 mm).
  static void note(const Candidate& candidate, BestOfPair& best) {
    const double key = candidate.figures.discomfort + 10 * candidate.figures.lowest - candidate.figures.reserve;
    if (best.candidate && !(key < best.key) &&
        !(key == best.key &&
          std::pair(candidate.front, candidate.rear) < std::pair(best.candidate->front, best.candidate->rear)))
      return;
    best.candidate = candidate;
    best.key = key;
  }

  Share merged(const std::vector<Share>& shares) const {
    std::vector<Candidate> all;
    Share out;
    out.pairs.resize(bags_ * bags_);
    for (const Share& share : shares) {
      all.insert(all.end(), share.front.kept().begin(), share.front.kept().end());
      for (std::size_t p = 0; p < share.pairs.size(); ++p)
        if (share.pairs[p].candidate) note(*share.pairs[p].candidate, out.pairs[p]);
    }
    // In order of the options, whichever thread found them.
    std::sort(all.begin(), all.end(), [](const Candidate& a, const Candidate& b) {
      return std::pair(a.front, a.rear) < std::pair(b.front, b.rear);
    });
    for (const Candidate& candidate : all)
      out.front.offer(candidate);
    return out;
  }

  const build::Brief& brief_;
  const std::vector<EndOption>&front_, &rear_;
  std::size_t bags_;
  const SearchControl& control_;
  std::vector<std::size_t> front_passing_, rear_passing_;
  std::atomic<std::size_t> done_ = 0;
  std::mutex progress_lock_;
};

/// How far each figure reaches among the choices.
struct Spread {
  SearchFigures best, worst;
};

Spread spread_of(const std::vector<SearchChoice>& choices) {
  Spread out{choices.front().figures, choices.front().figures};
  for (const SearchChoice& choice : choices) {
    const SearchFigures& f = choice.figures;
    out.best = {std::min(out.best.lowest, f.lowest), std::min(out.best.discomfort, f.discomfort),
                std::min(out.best.air, f.air), std::max(out.best.reserve, f.reserve), std::max(out.best.lift, f.lift)};
    out.worst = {std::max(out.worst.lowest, f.lowest), std::max(out.worst.discomfort, f.discomfort),
                 std::max(out.worst.air, f.air), std::min(out.worst.reserve, f.reserve),
                 std::min(out.worst.lift, f.lift)};
  }
  return out;
}

double score_of(const SearchFigures& f, const Spread& s) {
  const auto share = [](double value, double best, double worst) {
    return worst == best ? 0 : (value - best) / (worst - best);
  };
  return share(f.lowest, s.best.lowest, s.worst.lowest) + share(f.discomfort, s.best.discomfort, s.worst.discomfort) +
         share(f.air, s.best.air, s.worst.air) + share(f.reserve, s.best.reserve, s.worst.reserve) +
         share(f.lift, s.best.lift, s.worst.lift);
}

/// In words, where the winner is better.
Message outdone(const SearchChoice& winner, const SearchFigures& loser) {
  const SearchFigures& w = winner.figures;
  Message out{words("by {0} + {1}:"), {winner.ends[0].bag, winner.ends[1].bag}};
  const auto add = [&](bool better, const char* what, Amount by) {
    if (!better) return;
    out.text += out.args.size() > 2 ? ", " : " ";
    out.text += what;
    const std::string place = "{" + std::to_string(out.args.size()) + "}";
    out.text.replace(out.text.rfind("{}"), 2, place);
    out.args.push_back(by);
  };
  add(loser.lowest - w.lowest > 5e-4, words("{} lower"), metres(loser.lowest - w.lowest));
  add(loser.discomfort - w.discomfort > 5e-3, words("{} nearer to the comfort wanted"),
      hertz(loser.discomfort - w.discomfort));
  add(loser.air - w.air > 5e-4, words("{} less air a lift"), Amount{loser.air - w.air, Kind::mass, 3});
  add(w.reserve - loser.reserve > 5e-3, words("{} more pressure left"), share(w.reserve - loser.reserve));
  add(w.lift - loser.lift > 5e-4, words("{} more lift"), metres(w.lift - loser.lift));
  if (out.args.size() == 2) out.text = words("by {0} + {1}: a hair better in one thing, as good in the rest");
  return out;
}

/// Per bag the setting that misses by least, or nullptr if one passes.
std::vector<const EndOption*> nearest_misses(const std::vector<EndOption>& options, std::size_t bags) {
  std::vector<const EndOption*> out(bags, nullptr);
  std::vector<bool> passes(bags, false);
  for (const EndOption& option : options) {
    if (option.passes)
      passes[option.bag] = true;
    else if (!out[option.bag] || option.miss_by < out[option.bag]->miss_by)
      out[option.bag] = &option;
  }
  for (std::size_t i = 0; i < bags; ++i)
    if (passes[i]) out[i] = nullptr;
  return out;
}

SearchChoice choice_of(const Candidate& candidate, const std::vector<EndOption>& front,
                       const std::vector<EndOption>& rear) {
  return {{front[candidate.front].fitted, rear[candidate.rear].fitted}, candidate.figures, 0};
}

void rank_pairs(const Share& share, const std::vector<EndOption>& front, const std::vector<EndOption>& rear,
                const shelf::Shelf& shelf, SearchResult& out) {
  const std::size_t bags = shelf.bags.size();
  const auto front_miss = nearest_misses(front, bags), rear_miss = nearest_misses(rear, bags);
  const std::optional<Spread> spread = out.choices.empty() ? std::nullopt : std::optional(spread_of(out.choices));
  for (std::size_t f = 0; f < bags; ++f)
    for (std::size_t r = 0; r < bags; ++r) {
      SearchedPair& pair = out.ranking.emplace_back();
      pair.bags = {shelf.bags[f].card.name, shelf.bags[r].card.name};
      const auto chosen = std::find_if(out.choices.begin(), out.choices.end(), [&](const SearchChoice& c) {
        return c.ends[0].bag == pair.bags[0] && c.ends[1].bag == pair.bags[1];
      });
      if (chosen != out.choices.end()) {
        pair.best = *chosen;
        continue;
      }
      const auto& best = share.pairs[f * bags + r].candidate;
      if (!best) {
        const EndOption* miss = front_miss[f] ? front_miss[f] : rear_miss[r];
        pair.reason = miss ? miss->miss : Message{words("Fails at one end or the other."), {}};
        continue;
      }
      pair.best = choice_of(*best, front, rear);
      pair.best->score = score_of(best->figures, *spread);
      for (const SearchChoice& winner : out.choices) // best score first: the winner most worth naming
        if (dominates(winner.figures, best->figures) || same(winner.figures, best->figures)) {
          pair.reason = outdone(winner, best->figures);
          break;
        }
    }
  std::stable_sort(out.ranking.begin(), out.ranking.end(), [](const SearchedPair& a, const SearchedPair& b) {
    const auto place = [](const SearchedPair& p) { return !p.best ? 2 : p.reason.empty() ? 0 : 1; };
    if (place(a) != place(b)) return place(a) < place(b);
    return a.best && a.best->score < b.best->score;
  });
}

} // namespace

Expected<SearchResult> search(const build::Build& build, const shelf::Shelf& shelf, const SearchSpace& space,
                              const SearchControl& control) {
  SearchResult out;
  const auto front = end_options(build, shelf, End::front, space, control.stop);
  if (!front) return refuse(front.error());
  const auto rear = end_options(build, shelf, End::rear, space, control.stop);
  if (!rear) return refuse(rear.error());
  out.tried = front->size() * rear->size();
  Pairing pairing(build.variant().brief, *front, *rear, shelf.bags.size(), control);
  out.passed = pairing.passed();
  const Share share = pairing.pair_all();
  out.stopped = control.stop.stop_requested();
  if (out.stopped) return out;
  for (const Candidate& candidate : share.front.kept())
    out.choices.push_back(choice_of(candidate, *front, *rear));
  if (!out.choices.empty()) {
    // `offer` shuffles what it keeps; the order shown is the score's, and of equals that of shelf and setting.
    std::vector<std::size_t> order(out.choices.size());
    const Spread spread = spread_of(out.choices);
    for (SearchChoice& choice : out.choices)
      choice.score = score_of(choice.figures, spread);
    const auto& kept = share.front.kept();
    for (std::size_t i = 0; i < order.size(); ++i)
      order[i] = i;
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
      if (out.choices[a].score != out.choices[b].score) return out.choices[a].score < out.choices[b].score;
      return std::pair(kept[a].front, kept[a].rear) < std::pair(kept[b].front, kept[b].rear);
    });
    std::vector<SearchChoice> sorted;
    for (const std::size_t i : order)
      sorted.push_back(std::move(out.choices[i]));
    out.choices = std::move(sorted);
  }
  rank_pairs(share, *front, *rear, shelf, out);
  if (control.progress) control.progress(1);
  return out;
}

build::Variant with_choice(const build::Variant& variant, const SearchChoice& choice) {
  build::Variant out = variant;
  for (std::size_t e = 0; e < 2; ++e) {
    build::EndFit& fit = out.fit[e];
    fit.bag = choice.ends[e].bag;
    fit.upper_stack = choice.ends[e].upper_stack;
    fit.lower_stack = choice.ends[e].lower_stack;
    fit.added_volume = choice.ends[e].added_volume;
    fit.line_bore = choice.ends[e].line_bore;
    fit.line = build::LineState::open;
  }
  return out;
}

} // namespace mavrel::assess
