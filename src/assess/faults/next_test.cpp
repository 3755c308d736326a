// Which test tells most for its minutes: the entropy over the sets of faults, less what is left of it on the average
// over how the test may come out.
#include "assess/faults/weighing.h"
#include "control/road.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr std::size_t most_sets = 70;
constexpr double least_odds = 5e-4, least_bits = 0.004;
constexpr std::size_t draws = 28; // how a test may come out, even over the sets

double entropy(const std::vector<double>& odds) {
  double sum = 0, out = 0;
  for (const double o : odds)
    sum += o;
  for (const double o : odds)
    if (o > 0) out -= o / sum * std::log2(o / sum);
  return out;
}

class Picking {
public:
  using Inside = FaultWeighing::Inside;
  explicit Picking(const Inside& in) : in_(in) {
    std::vector<std::size_t> order(in.sets.size());
    for (std::size_t e = 0; e < order.size(); ++e)
      order[e] = e;
    const std::size_t kept = std::min(most_sets, order.size());
    std::partial_sort(order.begin(), order.begin() + static_cast<std::ptrdiff_t>(kept), order.end(),
                      [&](std::size_t a, std::size_t b) { return in.sets[a].odds > in.sets[b].odds; });
    for (std::size_t i = 0; i < kept; ++i)
      if (in.sets[order[i]].odds >= least_odds)
        sets_.push_back(&in.sets[order[i]]), odds_.push_back(sets_.back()->odds);
    before_ = entropy(odds_);
  }

  [[nodiscard]] double bits(const std::vector<std::size_t>& columns, std::uint64_t seed) const {
    const auto touched = touched_by(columns);
    const bool any = std::any_of(touched.begin(), touched.end(), [](const auto& of_set) {
      return std::any_of(of_set.begin(), of_set.end(), [](char t) { return t != 0; });
    });
    if (!any) return 0;
    if (columns.size() == 1 && !in_.table.columns()[columns[0]].sign->kind) {
      double after = 0;
      for (const bool yes : {true, false}) {
        const auto odds = odds_after({WeighedFinding{columns[0], yes}}, touched);
        double likely = 0;
        for (const double o : odds)
          likely += o;
        after += likely * entropy(odds);
      }
      double all = 0;
      for (const double o : odds_)
        all += o;
      return std::max(0.0, before_ - after / all);
    }
    // Even draws over the sets, each with one of its steps and an outcome of every sign.
    control::Chance chance(seed);
    double all = 0, after = 0;
    for (const double o : odds_)
      all += o;
    for (std::size_t i = 0; i < draws; ++i) {
      double u = (static_cast<double>(i) + chance.next()) / draws * all;
      std::size_t e = 0;
      while (e + 1 < odds_.size() && u >= odds_[e])
        u -= odds_[e++];
      after += entropy(odds_after(drawn(*sets_[e], columns, chance), touched));
    }
    return std::max(0.0, before_ - after / draws);
  }

  /// Odds of the sets times how likely they make these findings.
  [[nodiscard]] std::vector<double> odds_after(const std::vector<WeighedFinding>& found,
                                               const std::vector<std::vector<char>>& touched) const {
    double well = 1;
    std::vector<double> of_well(found.size());
    for (std::size_t k = 0; k < found.size(); ++k)
      well *= of_well[k] = in_.likelihood.of(found[k], nullptr, 0);
    std::vector<double> out(odds_);
    for (std::size_t e = 0; e < sets_.size(); ++e) {
      const Inside::Set& set = *sets_[e];
      if (set.a == no_fault) {
        for (const WeighedFinding& f : found)
          out[e] *= in_.likelihood.of_unknown(f);
        continue;
      }
      bool any = false;
      for (const char t : touched[e])
        any = any || t;
      if (!any) {
        out[e] *= well;
        continue;
      }
      double sum = 0;
      in_.for_steps(set, [&](const FaultStep* at, std::size_t count, double weight) {
        for (std::size_t k = 0; k < found.size(); ++k)
          weight *= touched[e][k] ? in_.likelihood.of(found[k], at, count) : of_well[k];
        sum += weight;
      });
      out[e] *= sum;
    }
    return out;
  }

  [[nodiscard]] bool touches(const Inside::Set& set, std::size_t column) const {
    if (set.a == no_fault) return false;
    return in_.table.touches(set.a, column) || (set.b != no_fault && in_.table.touches(set.b, column));
  }
  [[nodiscard]] const std::vector<const Inside::Set*>& sets() const { return sets_; }
  [[nodiscard]] std::vector<std::vector<char>> touched_by(const std::vector<std::size_t>& columns) const {
    std::vector<std::vector<char>> out(sets_.size());
    for (std::size_t e = 0; e < sets_.size(); ++e)
      for (const std::size_t c : columns)
        out[e].push_back(touches(*sets_[e], c));
    return out;
  }

private:
  [[nodiscard]] std::vector<WeighedFinding> drawn(const Inside::Set& set, const std::vector<std::size_t>& columns,
                                                  control::Chance& chance) const {
    FaultStep at[2];
    std::size_t count = 0;
    if (set.a != no_fault) {
      double u = chance.next();
      std::size_t s = 0;
      while (s + 1 < set.steps.size() && u >= set.steps[s])
        u -= set.steps[s++];
      count = set.b == no_fault ? 1 : 2;
      at[0] = {set.a, count == 1 ? s : s / severity_steps};
      at[1] = {set.b, s % severity_steps};
    }
    std::vector<WeighedFinding> out;
    for (const std::size_t c : columns) {
      WeighedFinding f;
      f.column = c;
      if (!in_.table.columns()[c].sign->kind) {
        f.yes = chance.next() < in_.likelihood.yes(c, at, count);
      } else {
        const auto expected = in_.likelihood.reading(c, at, count);
        const auto [least, most] = in_.likelihood.range(c);
        const double x = expected.value + (std::isfinite(expected.value) ? expected.sd * chance.normal() : 0);
        if (x >= most && in_.table.columns()[c].sign->may_not_come)
          f.never = true;
        else
          f.value = std::clamp(x, least, most);
      }
      out.push_back(f);
    }
    return out;
  }

  const Inside& in_;
  std::vector<const Inside::Set*> sets_;
  std::vector<double> odds_;
  double before_ = 0;
};

/// What stands first by these odds, and how likely it is.
std::pair<std::size_t, double> first_of(const std::vector<double>& odds) {
  double all = 0;
  for (const double o : odds)
    all += o;
  const auto top = std::max_element(odds.begin(), odds.end());
  return {static_cast<std::size_t>(top - odds.begin()), all > 0 ? std::min(*top / all, most_odds) : 0};
}

Message shown_reading(const FaultSign& sign, const WeighedFinding& f) {
  if (f.never) return {words("never"), {}};
  return {"{0}", {reading_amount(sign, *f.value)}};
}

/// What a test tells that was not found already.
std::vector<std::size_t> unread(const FaultWeighing::Inside& in, const TestAt& test) {
  std::vector<std::size_t> out;
  for (const SignAt& at : told_by(*test.test, test.place))
    if (const auto c = in.table.column(at);
        c && std::none_of(in.found.begin(), in.found.end(), [&](const auto& f) { return f.column == *c; }))
      out.push_back(*c);
  return out;
}

} // namespace

std::vector<NextTest> FaultWeighing::next_tests(std::size_t most) const {
  const Inside& in = *inside_;
  const Picking picking(in);
  std::vector<NextTest> out;
  std::uint64_t seed = 17;
  for (const FaultTest& test : fault_tests()) {
    if (!can_do(in.table.car().parts, test)) continue;
    for (std::size_t place = 0; place < places_of(test.places); ++place) {
      const auto columns = unread(in, {&test, place});
      if (columns.empty()) continue;
      const double bits = picking.bits(columns, ++seed);
      if (bits >= least_bits) out.push_back({&test, place, bits, {}});
    }
  }
  std::stable_sort(out.begin(), out.end(),
                   [](const NextTest& a, const NextTest& b) { return a.per_minute() > b.per_minute(); });
  if (out.size() > most) out.resize(most);

  for (NextTest& next : out) {
    const auto columns = unread(in, {next.test, next.place});
    const auto add = [&](Message what, const WeighedFinding& found) {
      const auto odds = picking.odds_after({found}, picking.touched_by({found.column}));
      const auto [first, then] = first_of(odds);
      next.outcomes.push_back({std::move(what), in.faults_of(*picking.sets()[first]), then});
    };
    // Of what is so or not both ways, of a reading what is read when well and as the set that moves it most has it.
    for (const std::size_t c : columns) {
      if (next.outcomes.size() >= 6) break;
      const SignAt& at = in.table.columns()[c];
      const Message name = next.test->places == at.sign->places ? Message{at.sign->name, {}} : sign_words(at);
      const Inside::Set* mover = nullptr;
      for (const Inside::Set* set : picking.sets())
        if (picking.touches(*set, c) && (!mover || set->odds > mover->odds)) mover = set;
      if (!mover) continue;
      if (!at.sign->kind) {
        add({words("yes, {0}"), {name}}, {c, true});
        add({words("no: not {0}"), {name}}, {c, false});
        continue;
      }
      // The weightiest step of what moves it most.
      ExpectedReading moved;
      double weight = -1;
      in.for_steps(*mover, [&](const FaultStep* steps, std::size_t count, double w) {
        if (w > weight) weight = w, moved = in.likelihood.reading(c, steps, count);
      });
      const auto [least, top] = in.likelihood.range(c);
      const auto as = [&](double x) {
        WeighedFinding f{c, true};
        if (x >= top && at.sign->may_not_come)
          f.never = true;
        else
          f.value = std::clamp(x, least, top);
        return f;
      };
      const WeighedFinding ill = as(moved.value), well = as(in.table.well(c));
      add({words("{0}: {1}"), {name, shown_reading(*at.sign, ill)}}, ill);
      add({words("{0}: {1}, as when well"), {name, shown_reading(*at.sign, well)}}, well);
    }
  }
  return out;
}

} // namespace mavrel::assess
