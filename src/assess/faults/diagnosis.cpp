#include "assess/faults/diagnosis.h"

#include "assess/faults/weighing.h"
#include "quantity/quantity.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

std::vector<WeighedFinding> put_together(const FaultTable& table, const FaultEvidence& evidence,
                                         std::vector<std::size_t>& weighed, std::vector<std::size_t>& joined,
                                         std::vector<Message>& trouble) {
  std::vector<WeighedFinding> out;
  std::vector<std::size_t> broken; // columns told both so and not so
  for (std::size_t i = 0; i < evidence.findings.size(); ++i) {
    const FaultFinding& f = evidence.findings[i];
    if (const auto why = trouble_of(table.car(), f)) {
      trouble.push_back(*why);
      continue;
    }
    const auto column = table.column(f.at);
    if (!column) continue;
    const auto same = std::find_if(out.begin(), out.end(), [&](const auto& w) { return w.column == *column; });
    if (same == out.end()) {
      out.push_back({*column, f.yes, f.value, f.never, f.sd, f.second_hand});
      weighed.push_back(i);
      continue;
    }
    // The same thing found again: said once, read twice.
    if (!f.at.sign->kind || f.never || same->never) {
      if (f.at.sign->kind ? f.never == same->never : f.yes == same->yes) {
        same->second_hand = same->second_hand && f.second_hand;
        joined.push_back(i);
        continue;
      }
      broken.push_back(*column);
      trouble.push_back({words("{0}: found both so and not so. Neither is weighed until it is looked at again."),
                         {sign_words(f.at)}});
      continue;
    }
    const double sd = f.sd.value_or(f.at.sign->sd) + f.at.sign->sd_share * std::abs(*f.value);
    if (std::abs(*f.value - *same->value) > 4 * sd)
      trouble.push_back({words("{0}: read as {1} and as {2}. Their mean is weighed; read it again."),
                         {sign_words(f.at), told_from({*same->value, *f.at.sign->kind}, *f.value),
                          told_from({*f.value, *f.at.sign->kind}, *same->value)}});
    // By how sure each is.
    const auto sure = [&](const std::optional<double>& typed) {
      const double one = typed.value_or(f.at.sign->sd);
      return 1 / (one * one);
    };
    const double before = sure(same->sd), now = sure(f.sd);
    // Weighed where it was read last: that row moved the odds.
    WeighedFinding both = *same;
    both.value = (*same->value * before + *f.value * now) / (before + now);
    both.sd = std::sqrt(1 / (before + now));
    const auto place = same - out.begin();
    joined.push_back(weighed[static_cast<std::size_t>(place)]);
    out.erase(same);
    weighed.erase(weighed.begin() + place);
    out.push_back(std::move(both));
    weighed.push_back(i);
  }
  for (std::size_t k = out.size(); k-- > 0;)
    if (std::find(broken.begin(), broken.end(), out[k].column) != broken.end()) {
      out.erase(out.begin() + static_cast<std::ptrdiff_t>(k));
      weighed.erase(weighed.begin() + static_cast<std::ptrdiff_t>(k));
    }
  return out;
}

} // namespace

std::optional<Message> trouble_of(const FaultCar& car, const FaultFinding& f) {
  const FaultSign& sign = *f.at.sign;
  const Message where = sign_words(f.at);
  if (!sign.kind) return std::nullopt;
  if (f.never) {
    if (sign.may_not_come) return std::nullopt;
    return Message{words("{0}: a figure is wanted; “never” says nothing of it."), {where}};
  }
  if (!f.value) return Message{words("{0}: a figure is wanted, such as {1}."), {where, example_of(*sign.kind)}};
  const auto [least, most] = believable(car, sign, f.at.place);
  if (!std::isfinite(most))
    return Message{words("{0}: this car has nothing that it could be read of. It is not weighed."), {where}};
  if (!(*f.value >= least && *f.value <= most)) {
    const double edge = *f.value < least ? least : most;
    return Message{
        words("{0}: {1} is out of reason on this car; {2} to {3} is believable. It is not weighed."),
        {where, told_from({*f.value, *sign.kind, -2}, edge), Amount{least, *sign.kind}, Amount{most, *sign.kind}}};
  }
  if (f.sd && !(*f.sd > 0)) return Message{words("{0}: its doubt must be more than nothing."), {where}};
  return std::nullopt;
}

Message fault_words(const std::vector<FaultAt>& faults) {
  if (faults.empty()) return {words("something that is not known here"), {}};
  if (faults.size() == 1) return fault_words(faults.front());
  // In one order, whichever was found first.
  const bool so = fault_key(faults[0]) < fault_key(faults[1]);
  return {words("{0} and {1}"), {fault_words(faults[so ? 0 : 1]), fault_words(faults[so ? 1 : 0])}};
}

std::string fault_key(const std::vector<FaultAt>& faults) {
  std::vector<std::string> keys;
  for (const FaultAt& f : faults)
    keys.push_back(fault_key(f));
  std::sort(keys.begin(), keys.end());
  std::string out;
  for (const std::string& key : keys)
    out += (out.empty() ? "" : "+") + key;
  return out.empty() ? "unknown" : out;
}

// ---- the weighing

namespace {

double log_sum(const std::vector<double>& logs) {
  const double top = *std::max_element(logs.begin(), logs.end());
  if (!std::isfinite(top)) return top;
  double sum = 0;
  for (const double l : logs)
    sum += std::exp(l - top);
  return top + std::log(sum);
}

constexpr std::size_t most_pairs = 260; // that are weighed step by step; the rest is further off than these
constexpr double step_weight = 1.0 / severity_steps;

} // namespace

FaultWeighing::FaultWeighing(const FaultTable& table, const FaultEvidence& evidence)
    : inside_(std::make_unique<Inside>(table)) {
  Inside& in = *inside_;
  in.found = put_together(table, evidence, in.weighed, in.joined, in.trouble);
  const std::size_t faults = table.faults().size();
  const auto& columns = table.columns();

  // What else was asked for and is not so: each fault's own part of it, and none of the others'.
  std::vector<char> asked(columns.size(), 0);
  if (evidence.nothing_else)
    for (std::size_t c = 0; c < columns.size(); ++c)
      asked[c] = columns[c].sign->symptom &&
                 std::none_of(in.found.begin(), in.found.end(), [&](const auto& w) { return w.column == c; });
  std::vector<std::array<double, severity_steps>> silent(faults);
  double unknown_silent = 0;
  for (std::size_t c = 0; c < columns.size(); ++c) {
    if (!asked[c]) continue;
    const FaultSign& sign = *columns[c].sign;
    const double base = sign.base;
    // How much likelier it is not told than with nothing the matter.
    const double wrong = evidence.heard ? made_up_of(sign) : mistaken_of(sign);
    const double told = evidence.heard ? passed_on : 1 - mistaken_of(sign);
    const auto silence = [&](double p) { return 1 - told * p - wrong * (1 - p); };
    unknown_silent += std::log(silence(std::max(base, unknown_yes)) / silence(base));
    for (std::size_t f = 0; f < faults; ++f)
      if (table.touches(f, c))
        for (std::size_t s = 0; s < severity_steps; ++s)
          silent[f][s] += std::log(silence(1 - (1 - base) * (1 - table.value(f, s, c))) / silence(base));
  }

  // Priors of faults at places.
  double all = 0;
  std::vector<double> prior(faults, 0);
  const auto causes = fault_causes();
  for (std::size_t f = 0; f < faults; ++f) {
    const auto cause = static_cast<std::size_t>(table.faults()[f].cause - causes.data());
    const double often = cause < evidence.priors.size() ? evidence.priors[cause] : causes[cause].often;
    prior[f] = std::max(often, 1e-9) / static_cast<double>(places_of(table.faults()[f].cause->places));
    all += prior[f];
  }
  for (double& p : prior)
    p /= all;
  const double one = 1 - evidence.two_at_once - unknown_prior;

  const std::size_t n = in.found.size();
  // Of each finding: alone under each fault and step, and with nothing the matter.
  std::vector<double> well(n);
  std::vector<std::vector<double>> alone(n, std::vector<double>(faults * severity_steps));
  for (std::size_t k = 0; k < n; ++k) {
    well[k] = std::log(in.likelihood.of(in.found[k], nullptr, 0));
    for (std::size_t f = 0; f < faults; ++f)
      for (std::size_t s = 0; s < severity_steps; ++s) {
        const FaultStep at{f, s};
        alone[k][f * severity_steps + s] =
            table.touches(f, in.found[k].column) ? std::log(in.likelihood.of(in.found[k], &at, 1)) : well[k];
      }
  }
  // What a fault explains beyond nothing being the matter: pairs are picked by the sum of both.
  std::vector<double> gain(faults);
  for (std::size_t f = 0; f < faults; ++f) {
    std::vector<double> steps(severity_steps);
    for (std::size_t s = 0; s < severity_steps; ++s) {
      steps[s] = std::log(step_weight) + silent[f][s];
      for (std::size_t k = 0; k < n; ++k)
        steps[s] += alone[k][f * severity_steps + s] - well[k];
    }
    gain[f] = log_sum(steps) + std::log(prior[f]);
  }
  struct Pair {
    std::size_t a, b;
    double gain;
  };
  std::vector<Pair> pairs;
  // Nothing is never one of two.
  const auto alone_only = [&](std::size_t f) { return is_nothing(*table.faults()[f].cause); };
  for (std::size_t a = 0; a < faults; ++a)
    for (std::size_t b = a + 1; b < faults; ++b)
      if (!alone_only(a) && !alone_only(b)) pairs.push_back({a, b, gain[a] + gain[b]});
  const std::size_t kept = evidence.two_at_once > 0 ? std::min(most_pairs, pairs.size()) : 0;
  std::partial_sort(pairs.begin(), pairs.begin() + static_cast<std::ptrdiff_t>(kept), pairs.end(),
                    [](const Pair& x, const Pair& y) { return x.gain > y.gain; });
  pairs.resize(kept);
  // Their share of what two at once may be; what the other pairs hold is left where it was.
  double squared = 0, some = 0;
  for (std::size_t f = 0; f < faults; ++f)
    if (!alone_only(f)) squared += prior[f] * prior[f], some += prior[f];

  // Sets: each fault alone, the pairs, what is not known.
  in.sets.clear();
  for (std::size_t f = 0; f < faults; ++f)
    in.sets.push_back({f, no_fault, std::log(one * prior[f])});
  for (const Pair& p : pairs)
    in.sets.push_back(
        {p.a, p.b, std::log(evidence.two_at_once * 2 * prior[p.a] * prior[p.b] / (some * some - squared))});
  in.sets.push_back({no_fault, no_fault, std::log(unknown_prior)});

  // Logarithm of what was found so far under each set and its steps; and the odds as they move.
  std::vector<std::vector<double>> sums(in.sets.size());
  for (std::size_t e = 0; e < in.sets.size(); ++e) {
    const Inside::Set& set = in.sets[e];
    if (set.a == no_fault) {
      sums[e] = {unknown_silent};
    } else if (set.b == no_fault) {
      sums[e].resize(severity_steps);
      for (std::size_t s = 0; s < severity_steps; ++s)
        sums[e][s] = std::log(step_weight) + silent[set.a][s];
    } else {
      sums[e].resize(severity_steps * severity_steps);
      for (std::size_t i = 0; i < severity_steps; ++i)
        for (std::size_t j = 0; j < severity_steps; ++j)
          sums[e][i * severity_steps + j] = 2 * std::log(step_weight) + silent[set.a][i] + silent[set.b][j];
    }
  }
  // The sum over each set's steps, which stays but for what every step shares while nothing touches the set.
  std::vector<double> totals(in.sets.size());
  for (std::size_t e = 0; e < in.sets.size(); ++e)
    totals[e] = log_sum(sums[e]);
  const auto odds_now = [&] {
    std::vector<double> out(in.sets.size());
    for (std::size_t e = 0; e < in.sets.size(); ++e)
      out[e] = in.sets[e].prior + totals[e];
    const double total = log_sum(out);
    for (double& o : out)
      o = most_odds * std::exp(o - total);
    out.back() += 1 - most_odds;
    return out;
  };
  in.course.push_back(odds_now());
  for (std::size_t k = 0; k < n; ++k) {
    const WeighedFinding& found = in.found[k];
    for (std::size_t e = 0; e < in.sets.size(); ++e) {
      const Inside::Set& set = in.sets[e];
      if (set.a == no_fault) {
        totals[e] += std::log(in.likelihood.of_unknown(found));
        continue;
      }
      const bool by_a = table.touches(set.a, found.column);
      const bool by_b = set.b != no_fault && table.touches(set.b, found.column);
      if (!by_a && !by_b) {
        totals[e] += well[k];
        continue;
      }
      const double before = log_sum(sums[e]);
      if (set.b == no_fault)
        for (std::size_t s = 0; s < severity_steps; ++s)
          sums[e][s] += alone[k][set.a * severity_steps + s];
      else
        for (std::size_t i = 0; i < severity_steps; ++i)
          for (std::size_t j = 0; j < severity_steps; ++j) {
            const FaultStep both[] = {{set.a, i}, {set.b, j}};
            sums[e][i * severity_steps + j] += by_a && by_b ? std::log(in.likelihood.of(found, both, 2))
                                               : by_a       ? alone[k][set.a * severity_steps + i]
                                                            : alone[k][set.b * severity_steps + j];
          }
      totals[e] += log_sum(sums[e]) - before;
    }
    in.course.push_back(odds_now());
  }
  for (std::size_t e = 0; e < in.sets.size(); ++e) {
    in.sets[e].odds = in.course.back()[e];
    const double total = log_sum(sums[e]);
    in.sets[e].steps.resize(sums[e].size());
    for (std::size_t s = 0; s < sums[e].size(); ++s)
      in.sets[e].steps[s] = std::exp(sums[e][s] - total);
  }
}

FaultWeighing::~FaultWeighing() = default;

std::vector<FaultAt> FaultWeighing::Inside::faults_of(const Set& set) const {
  std::vector<FaultAt> out;
  if (set.a != no_fault) out.push_back(table.faults()[set.a]);
  if (set.b != no_fault) out.push_back(table.faults()[set.b]);
  return out;
}

double FaultWeighing::Inside::likely(const Set& set, const WeighedFinding& of) const {
  if (set.a == no_fault) return likelihood.of_unknown(of);
  const bool by_a = table.touches(set.a, of.column);
  const bool by_b = set.b != no_fault && table.touches(set.b, of.column);
  if (!by_a && !by_b) return likelihood.of(of, nullptr, 0);
  double out = 0;
  for_steps(set, [&](const FaultStep* at, std::size_t count, double weight) {
    out += weight * likelihood.of(of, at, count);
  });
  return out;
}

Diagnosis FaultWeighing::diagnosis() const {
  const Inside& in = *inside_;
  Diagnosis out;
  out.trouble = in.trouble;
  out.weighed = in.weighed, out.joined = in.joined;
  std::vector<std::size_t> order(in.sets.size());
  for (std::size_t e = 0; e < order.size(); ++e)
    order[e] = e;
  std::stable_sort(order.begin(), order.end(),
                   [&](std::size_t a, std::size_t b) { return in.sets[a].odds > in.sets[b].odds; });
  out.unknown = in.sets.back().odds;
  out.nothing_fits = order.front() == in.sets.size() - 1;
  std::vector<std::size_t> told;
  for (const std::size_t e : order)
    if (e != in.sets.size() - 1 && (in.sets[e].odds >= worth_telling || told.size() < 3) && told.size() < 40)
      told.push_back(e);
  const std::size_t n = in.found.size();
  for (const std::size_t e : told) {
    FaultSet set{in.faults_of(in.sets[e]), in.sets[e].odds, std::vector<double>(n, 1)};
    for (std::size_t k = 0; k < n; ++k) {
      const double before = in.course[k][e], after = in.course[k + 1][e];
      if (before > 0 && before < 1 && after > 0 && after < 1)
        set.times[k] = after / (1 - after) * (1 - before) / before;
    }
    out.sets.push_back(std::move(set));
  }
  for (const auto& odds : in.course) {
    std::vector<double> row;
    for (std::size_t i = 0; i < std::min(course_of, told.size()); ++i)
      row.push_back(odds[told[i]]);
    out.course.push_back(std::move(row));
    out.unknown_course.push_back(odds.back());
  }
  if (!told.empty() && !out.nothing_fits) {
    // What the likeliest makes less likely than a plain mistake would be.
    const Inside::Set& first = in.sets[told.front()];
    for (std::size_t k = 0; k < n; ++k) {
      const WeighedFinding& found = in.found[k];
      const FaultSign& sign = *in.table.columns()[found.column].sign;
      const double mine = in.likely(first, found);
      const auto [least, most] = in.likelihood.range(found.column);
      const double by_mistake = !sign.kind ? 0.03 : found.never ? 0.003 : 2 * mistaken / (most - least);
      if (mine > by_mistake) continue;
      out.trouble.push_back(
          {words("{0} goes with none of it: look at it again."), {sign_words(in.table.columns()[found.column])}});
    }
  }
  if (out.nothing_fits)
    out.trouble.push_back(
        {words("Nothing that is known here fits what was found. Read again what weighs most, and look "
               "for what nobody thought of."),
         {}});
  return out;
}

} // namespace mavrel::assess
