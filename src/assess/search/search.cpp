#include "assess/search/search.h"

#include "assess/search/search_front.h"

#include "build/names.h"

#include <algorithm>
#include <new>
#include <set>

namespace mavrel::assess {

bool dominates(const SearchFigures& a, const SearchFigures& b) {
  if (a.lowest > b.lowest || a.discomfort > b.discomfort || a.air > b.air || a.reserve < b.reserve || a.lift < b.lift)
    return false;
  return a.lowest < b.lowest || a.discomfort < b.discomfort || a.air < b.air || a.reserve > b.reserve ||
         a.lift > b.lift;
}

namespace {

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
  std::vector<Message> better;
  const auto add = [&](double by, double tellable, const char* what, Kind kind, int decimals = -1) {
    if (by > tellable) better.push_back({what, {Amount{by, kind, decimals}}});
  };
  add(loser.lowest - w.lowest, 5e-4, words("{0} lower"), Kind::length);
  add(loser.discomfort - w.discomfort, 5e-3, words("{0} nearer to the comfort wanted"), Kind::frequency);
  add(loser.air - w.air, 5e-4, words("{0} less air a lift"), Kind::mass, 3);
  add(w.reserve - loser.reserve, 5e-3, words("{0} more pressure left"), Kind::share);
  add(w.lift - loser.lift, 5e-4, words("{0} more lift"), Kind::length);
  if (better.empty())
    return {words("by {0} + {1}: a hair better in one thing, as good in the rest"),
            {winner.ends[0].bag, winner.ends[1].bag}};
  return {words("by {0} + {1}: {2}"), {winner.ends[0].bag, winner.ends[1].bag, list_of(std::move(better))}};
}

/// Per bag the setting that misses by least, or nullptr if one passes or none was tried.
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

/// One search under way.
class Search {
public:
  Search(const SearchGiven& given, const SearchControl& control)
      : given_(given), comfort_(given.comfort), control_(control) {}

  Expected<SearchResult> run() {
    const auto front = end_options(given_, End::front, part_of(0, 0.4));
    if (!front) return refuse(front.error());
    const auto rear = end_options(given_, End::rear, part_of(0.4, 0.8));
    if (!rear) return refuse(rear.error());
    front_ = &*front;
    rear_ = &*rear;
    out_.tried = front->size() * rear->size();
    out_.passed = count_passing(*front) * count_passing(*rear);
    out_.pairs = given_.bags.size() * given_.bags.size();
    find_choices();
    if (!stopped()) rank_pairs();
    if (stopped()) {
      SearchResult none;
      none.tried = out_.tried;
      none.stopped = true;
      return none;
    }
    if (control_.progress) control_.progress(1);
    return std::move(out_);
  }

private:
  [[nodiscard]] bool stopped() const { return control_.stop.stop_requested(); }
  /// For a part of the work that goes from one share done to another.
  [[nodiscard]] SearchControl part_of(double from, double to) const {
    SearchControl out = control_;
    if (control_.progress)
      out.progress = [this, from, to](double done) { control_.progress(from + (to - from) * done); };
    return out;
  }

  static double score_in(const SearchedPair& pair) { return pair.best ? pair.best->score : 0; }

  static std::size_t count_passing(const std::vector<EndOption>& options) {
    return static_cast<std::size_t>(
        std::count_if(options.begin(), options.end(), [](const EndOption& o) { return o.passes; }));
  }

  [[nodiscard]] SearchChoice choice_of(const Candidate& candidate) const {
    const EndOption &front = (*front_)[candidate.front], &rear = (*rear_)[candidate.rear];
    SearchChoice out{{front.fitted, rear.fitted}, candidate.figures, 0, {}};
    if (given_.doubt)
      out.holds = static_cast<double>((front.holds & rear.holds).count()) / static_cast<double>(holding_draws);
    return out;
  }

  void find_choices() {
    const std::vector<Candidate> found =
        undominated(comfort_, *front_, *rear_, given_.doubt ? part_of(0.8, 1) : control_);
    for (const Candidate& candidate : found) {
      out_.choices.push_back(choice_of(candidate));
      chosen_pairs_.emplace_back((*front_)[candidate.front].bag, (*rear_)[candidate.rear].bag);
    }
    if (out_.choices.empty()) return;
    spread_ = spread_of(out_.choices);
    for (SearchChoice& choice : out_.choices)
      choice.score = score_of(choice.figures, spread_);
    // Found in the order of shelf and setting: so equals stay.
    std::stable_sort(out_.choices.begin(), out_.choices.end(),
                     [](const SearchChoice& a, const SearchChoice& b) { return a.score < b.score; });
  }

  [[nodiscard]] bool is_full() const { return out_.ranking.size() >= control_.most_pairs; }

  void rank_pairs() {
    std::set<std::pair<std::string, std::string>> listed;
    for (const SearchChoice& choice : out_.choices) {
      if (is_full()) return;
      if (!listed.emplace(choice.ends[0].bag, choice.ends[1].bag).second) continue;
      out_.ranking.push_back({{choice.ends[0].bag, choice.ends[1].bag}, choice, {}});
    }
    rank_outdone();
    rank_failing();
  }

  void rank_outdone() {
    const std::size_t first = out_.ranking.size();
    for (const BestOfPair& best :
         best_of_pairs(comfort_, *front_, *rear_, chosen_pairs_, control_.most_pairs - out_.ranking.size(), control_)) {
      SearchedPair pair{{name(best.front_bag), name(best.rear_bag)}, choice_of(best.candidate), {}};
      pair.best->score = score_of(best.candidate.figures, spread_);
      for (const SearchChoice& winner : out_.choices) // best score first: the winner most worth naming
        if (outdoes(winner.figures, best.candidate.figures)) {
          pair.reason = outdone(winner, best.candidate.figures);
          break;
        }
      out_.ranking.push_back(std::move(pair));
    }
    std::stable_sort(out_.ranking.begin() + static_cast<std::ptrdiff_t>(first), out_.ranking.end(),
                     [](const SearchedPair& a, const SearchedPair& b) { return score_in(a) < score_in(b); });
  }

  /// Better somewhere, or the same from other bags.
  static bool outdoes(const SearchFigures& winner, const SearchFigures& loser) {
    return !dominates(loser, winner) && winner.lowest <= loser.lowest && winner.discomfort <= loser.discomfort &&
           winner.air <= loser.air && winner.reserve >= loser.reserve && winner.lift >= loser.lift;
  }

  /// Nearest to passing first: by the worse of both ends' least misses.
  void rank_failing() {
    struct Failing {
      std::size_t front, rear;
      const EndOption* miss;
    };
    std::vector<Failing> failing;
    const std::size_t bags = given_.bags.size();
    const auto front_miss = nearest_misses(*front_, bags), rear_miss = nearest_misses(*rear_, bags);
    for (std::size_t f = 0; f < bags; ++f)
      for (std::size_t r = 0; r < bags; ++r) {
        const EndOption *front = front_miss[f], *rear = rear_miss[r];
        if (front || rear) failing.push_back({f, r, !front || (rear && rear->miss_by > front->miss_by) ? rear : front});
      }
    std::stable_sort(failing.begin(), failing.end(),
                     [](const Failing& a, const Failing& b) { return a.miss->miss_by < b.miss->miss_by; });
    for (const Failing& one : failing) {
      if (is_full()) return;
      out_.ranking.push_back({{name(one.front), name(one.rear)}, {}, one.miss->miss});
    }
  }

  [[nodiscard]] const std::string& name(std::size_t bag) const { return given_.bags[bag].card.name; }

  const SearchGiven& given_;
  const ComfortWanted& comfort_;
  const SearchControl& control_;
  const std::vector<EndOption>*front_ = nullptr, *rear_ = nullptr; // alive while `run` is
  std::vector<std::pair<std::size_t, std::size_t>> chosen_pairs_;
  Spread spread_;
  SearchResult out_;
};

} // namespace

Expected<SearchResult> search(const SearchGiven& given, const SearchControl& control) {
  try {
    return Search(given, control).run();
  } catch (const std::bad_alloc&) {
    return refuse(
        words("The machine's memory does not suffice for so many combinations. Try fewer volumes or stacks."));
  } catch (const std::exception& what) {
    return refuse(words("The search broke off: {0}"), {std::string(what.what())});
  }
}

SearchGiven search_given(const build::Build& build, const shelf::Shelf& shelf, const SearchSpace& space, Sure sure) {
  const auto end = [&](End which) {
    EndGiven out = end_given(build, shelf, which);
    out.bag.reset();
    out.fit.bag.clear();
    return out;
  };
  SearchGiven out{{end(End::front), end(End::rear)},
                  shelf.bags,
                  space,
                  build.variant().brief,
                  case_names(build),
                  preset_names(build),
                  std::nullopt};
  if (sure == Sure::as_read) return out;
  // Only what an end is worked out from, so that a note typed elsewhere leaves the answer standing.
  SearchDoubt& doubt = out.doubt.emplace();
  doubt.build.body = build.body, doubt.build.ends = build.ends, doubt.build.load_cases = build.load_cases;
  doubt.build.surroundings = build.surroundings, doubt.build.doubts = build.doubts;
  doubt.build.origin = build.origin;
  build::Variant& design = doubt.build.variant();
  design.fit = build.variant().fit, design.brief = build.variant().brief, design.air = build.variant().air;
  for (const std::size_t e : {0U, 1U}) {
    design.fit[e].bag = build::key_of(build::both_ends[e]); // any: each end's card lies off by itself
    design.fit[e].checks.clear();
  }
  doubt.parts = shelf.parts;
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
