#include "assess/doubt/doubt.h"

#include "assess/end/end_answer.h"
#include "assess/ground/ground.h"
#include "build/names.h"
#include "curve/mix.h"

#include <Eigen/Dense>
#include <boost/math/special_functions/erf.hpp>
#include <boost/random/sobol.hpp>

#include <algorithm>
#include <cmath>
#include <future>
#include <map>
#include <numbers>

namespace mavrel::assess {

using curve::mixed;

namespace {

/// The figures that are looked at in one draw, in a fixed order.
class Looked {
public:
  /// As the readings are, with names and words.
  static std::vector<DoubtAnswer> named(const build::Build& build, const shelf::Shelf& shelf) {
    Looked look;
    look.names_ = true;
    (void)look.at(build, shelf);
    return std::move(look.answers_);
  }
  [[nodiscard]] std::vector<std::optional<double>> at(const build::Build& build, const shelf::Shelf& shelf) {
    const AnsweredEnds ends = ask_ends(build, shelf);
    const build::Brief& brief = build.variant().brief;
    for (const build::End end : build::both_ends) {
      const EndAssessment& here = ends[build::at(end)]->assessment;
      const std::string key = build::key_of(end);
      const Message name{build::name_of(end), {}};
      const auto edges = [&](const char* what, const char* low, const char* high, const std::optional<Window>& window) {
        add(key + "." + what + ".low", Kind::length, window ? std::optional(window->low.height) : std::nullopt,
            {words("{0}: {1}"), {name, low}});
        add(key + "." + what + ".high", Kind::length, window ? std::optional(window->high.height) : std::nullopt,
            {words("{0}: {1}"), {name, high}});
      };
      edges("reach", words("lowest it reaches"), words("highest it reaches"), here.windows.reach);
      edges("road", words("lowest on the road"), words("highest on the road"), here.windows.road);
      for (std::size_t p = 0; p < brief.presets.size(); ++p) {
        const auto& preset = p < here.presets.size() ? here.presets[p] : std::nullopt;
        const PoseState* pose =
            preset && !preset->cases.empty() && preset->cases.front() ? &*preset->cases.front() : nullptr;
        const std::string at = key + ".preset." + std::to_string(p);
        const auto say = [&](const char* what) {
          return Message{words("{0} at {1}: {2}"), {name, brief.presets[p].name, what}};
        };
        add(at + ".height", Kind::length, preset ? std::optional(preset->height) : std::nullopt, say(words("height")));
        if (names_) answers_.back().odds_inside = 0;
        stands_.push_back(preset ? std::optional(preset->stands(brief.presets[p].use)) : std::nullopt);
        add(at + ".pressure", Kind::pressure, pose ? std::optional(pose->pressure) : std::nullopt,
            say(words("pressure")));
        add(at + ".frequency", Kind::frequency, pose ? pose->ride_frequency : std::nullopt, say(words("frequency")));
        add(at + ".clearance", Kind::length, preset ? least_gap(here, preset->height) : std::nullopt,
            say(words("least gap")));
      }
    }
    const GroundAnswer ground = cross_ground(ground_given(build, ends));
    for (std::size_t g = 0; g < brief.grounds.size(); ++g)
      for (std::size_t p = 0; p < brief.presets.size(); ++p) {
        if (brief.presets[p].use != brief.grounds[g].over) continue;
        std::optional<double> room;
        for (const Crossing& c : ground.crossings)
          if (c.ground == g && c.preset == p && c.gap) room = c.gap->gap;
        add("ground." + std::to_string(g) + ".preset." + std::to_string(p), Kind::length, room,
            {words("{0} at {1}: room under the car"), {brief.grounds[g].name, brief.presets[p].name}});
      }
    return std::move(values_);
  }
  /// Of each preset's height in the order they were added: does it stand?
  [[nodiscard]] const std::vector<std::optional<bool>>& stands() const { return stands_; }

private:
  static std::optional<double> least_gap(const EndAssessment& here, double H) {
    std::optional<double> out;
    for (const GapCurve& gap : here.gaps) {
      if (gap.joined) continue;
      if (const auto at = gap.at(H, true); at && (!out || *at < *out)) out = at;
    }
    return out;
  }
  void add(std::string name, Kind kind, std::optional<double> value, Message words_of) {
    values_.push_back(value);
    if (!names_) return;
    DoubtAnswer answer;
    answer.name = std::move(name), answer.words = std::move(words_of), answer.kind = kind, answer.value = value;
    answers_.push_back(std::move(answer));
  }

  bool names_ = false;
  std::vector<std::optional<double>> values_;
  std::vector<std::optional<bool>> stands_;
  std::vector<DoubtAnswer> answers_;
};

/// Only what the design goes by: the two bags, as their cards may be off, and the parts.
shelf::Shelf small_shelf(const shelf::Shelf& shelf, const build::Variant& design, const std::array<double, 2>& card) {
  shelf::Shelf out;
  out.parts = shelf.parts;
  for (const std::size_t e : {0U, 1U}) {
    const shelf::ShelfBag* bag = shelf.find(design.fit[e].bag);
    if (!bag || (e == 1 && design.fit[0].bag == design.fit[1].bag)) continue;
    shelf::ShelfBag scaled = *bag;
    for (auto& column : scaled.card.loads)
      for (double& load : column)
        load *= std::exp(card[e]); // never nothing, nor less
    scaled.curve = air::BagCurve(scaled.card);
    out.bags.push_back(std::move(scaled));
  }
  std::sort(out.bags.begin(), out.bags.end(), [](const auto& a, const auto& b) { return a.card.name < b.card.name; });
  return out;
}

double quantile(const std::vector<double>& sorted, double share) {
  const double x = share * static_cast<double>(sorted.size() - 1);
  const auto i = std::min(static_cast<std::size_t>(x), sorted.size() - 1);
  const auto j = std::min(i + 1, sorted.size() - 1);
  return sorted[i] + (sorted[j] - sorted[i]) * (x - static_cast<double>(i));
}

} // namespace

// ---- draws

NormalDraws::NormalDraws(std::size_t draws, std::size_t dimensions, std::uint64_t seed)
    : draws_(draws), dimensions_(dimensions), z_(draws * dimensions) {
  if (dimensions == 0 || draws == 0) return;
  boost::random::sobol_engine<std::uint64_t, 64> sobol(dimensions);
  std::vector<std::uint64_t> shift(dimensions);
  for (std::size_t d = 0; d < dimensions; ++d)
    shift[d] = mixed(seed * 0x2545f4914f6cdd1dULL + d);
  for (double& z : z_) {
    const auto at = static_cast<std::size_t>(&z - z_.data());
    // Bits shifted by the seed's: as even as before, and another sequence for another seed.
    const std::uint64_t bits = sobol() ^ shift[at % dimensions];
    const double u = (static_cast<double>(bits >> 11U) + 0.5) * 0x1p-53;
    z = -std::numbers::sqrt2 * boost::math::erfc_inv(2 * u);
  }
}

std::size_t DoubtDraws::columns_of(const std::vector<DoubtInput>& inputs, std::vector<std::optional<std::size_t>>& own,
                                   std::vector<std::optional<std::size_t>>& shared) {
  std::map<std::string, std::size_t> groups;
  std::size_t columns = 0;
  own.resize(inputs.size());
  shared.resize(inputs.size());
  for (std::size_t i = 0; i < inputs.size(); ++i) {
    if (inputs[i].own > 0) own[i] = columns++;
    if (inputs[i].shared_with.empty() || inputs[i].shared == 0) continue;
    const auto [group, fresh] = groups.try_emplace(inputs[i].shared_with, columns);
    columns += fresh;
    shared[i] = group->second;
  }
  return columns;
}

DoubtDraws::DoubtDraws(const std::vector<DoubtInput>& inputs, std::size_t draws, std::uint64_t seed)
    : inputs_(inputs), normal_(draws, columns_of(inputs, own_, shared_), seed) {}

std::vector<double> DoubtDraws::off(std::size_t draw) const {
  const double* z = normal_.row(draw);
  std::vector<double> out(inputs_.size(), 0.0);
  for (std::size_t i = 0; i < out.size(); ++i) {
    if (own_[i]) out[i] += inputs_[i].own * z[*own_[i]];
    if (shared_[i]) out[i] += inputs_[i].shared * z[*shared_[i]];
  }
  return out;
}

// ---- what they come to

void look_at_draws(const std::vector<std::vector<std::optional<double>>>& values, const DoubtDraws& draws,
                   const std::vector<DoubtInput>& inputs, std::vector<DoubtAnswer>& answers) {
  const std::size_t columns = draws.normal().dimensions();
  for (std::size_t a = 0; a < answers.size(); ++a) {
    DoubtAnswer& answer = answers[a];
    std::vector<std::size_t> has;
    for (std::size_t i = 0; i < values.size(); ++i)
      if (values[i][a]) has.push_back(i);
    answer.vanished = values.empty() ? 0 : 1 - static_cast<double>(has.size()) / static_cast<double>(values.size());
    if (has.size() < 2) continue;
    const auto n = static_cast<double>(has.size());
    std::vector<double> sorted;
    for (const std::size_t i : has)
      sorted.push_back(*values[i][a]), answer.mean += *values[i][a] / n;
    double sum = 0;
    for (const double v : sorted)
      sum += (v - answer.mean) * (v - answer.mean);
    answer.sd = std::sqrt(sum / (n - 1));
    if (answer.sd < 1e-12 * std::max(1.0, std::abs(answer.mean))) answer.sd = 0; // the same in every draw
    std::sort(sorted.begin(), sorted.end());
    answer.p05 = quantile(sorted, 0.05), answer.p50 = quantile(sorted, 0.5), answer.p95 = quantile(sorted, 0.95);
    if (!(answer.sd > 0) || columns == 0) continue;

    // What each column carries: slopes of the plane through all draws where there are enough, else one by one.
    Eigen::VectorXd y(static_cast<Eigen::Index>(has.size()));
    Eigen::MatrixXd Z(static_cast<Eigen::Index>(has.size()), static_cast<Eigen::Index>(columns));
    for (std::size_t r = 0; r < has.size(); ++r) {
      y(static_cast<Eigen::Index>(r)) = *values[has[r]][a] - answer.mean;
      const double* z = draws.normal().row(has[r]);
      for (std::size_t c = 0; c < columns; ++c)
        Z(static_cast<Eigen::Index>(r), static_cast<Eigen::Index>(c)) = z[c];
    }
    const Eigen::RowVectorXd middle = Z.colwise().mean();
    Z.rowwise() -= middle;
    Eigen::VectorXd slope(static_cast<Eigen::Index>(columns));
    double noise = 0; // of a slope, one standard deviation
    if (has.size() > 2 * columns + 10) {
      const Eigen::MatrixXd ZZ = Z.transpose() * Z;
      slope = ZZ.ldlt().solve(Z.transpose() * y);
      const double left = (y - Z * slope).squaredNorm() / (n - static_cast<double>(columns) - 1);
      noise = std::sqrt(left / n);
    } else {
      slope = Z.transpose() * y / n;
      noise = answer.sd / std::sqrt(n);
    }
    // What is no more than chance carries nothing.
    double all = 0;
    std::vector<double> carried(columns);
    for (std::size_t c = 0; c < columns; ++c) {
      const double b = slope(static_cast<Eigen::Index>(c));
      carried[c] = std::abs(b) > 2.5 * noise ? b * b : 0;
      all += carried[c];
    }
    if (!(all > 0)) continue;
    // A column that is shared goes to those that share it, by how much each is off by it: what they carry together is
    // what the column does.
    std::vector<double> by_column(columns, 0.0);
    for (std::size_t i = 0; i < inputs.size(); ++i)
      if (const auto c = draws.shared_column(i)) by_column[*c] += std::abs(inputs[i].shared);
    for (std::size_t i = 0; i < inputs.size(); ++i) {
      DoubtAnswer::Carried one;
      one.input = i;
      double own = 0;
      if (const auto c = draws.own_column(i)) own = carried[*c] / all;
      one.share = own;
      if (const auto c = draws.shared_column(i))
        one.share += carried[*c] / all * std::abs(inputs[i].shared) / by_column[*c];
      if (one.share < 1e-4) continue;
      // One reading more takes its own variance down by a part in n + 1; what is shared stays.
      const double less = own / static_cast<double>(inputs[i].count + 1);
      one.would_win = 1 - std::sqrt(std::max(0.0, 1 - less));
      one.per_minute = one.would_win / minutes_of(inputs[i].tool);
      answer.carried_by.push_back(one);
    }
    double shares = 0;
    for (const auto& c : answer.carried_by)
      shares += c.share;
    for (auto& c : answer.carried_by)
      c.share /= shares;
    std::stable_sort(answer.carried_by.begin(), answer.carried_by.end(),
                     [](const auto& x, const auto& z) { return x.share > z.share; });
  }
}

const DoubtAnswer* Doubt::find(std::string_view name) const {
  for (const DoubtAnswer& answer : answers)
    if (answer.name == name) return &answer;
  return nullptr;
}

std::optional<Doubt> doubt(const DoubtGiven& given, const std::atomic<bool>* stop, unsigned threads) {
  Doubt out;
  out.inputs = doubt_inputs(given.build);
  out.draws = given.draws, out.seed = given.seed;
  const build::Variant& design = given.build.variant();
  out.answers = Looked::named(given.build, small_shelf(given.shelf, design, {}));
  const DoubtDraws draws(out.inputs, given.draws, given.seed);
  std::vector<std::vector<std::optional<double>>> values(given.draws);
  std::vector<std::vector<std::optional<bool>>> stands(given.draws);
  const std::size_t cards = static_cast<std::size_t>(
      std::count_if(out.inputs.begin(), out.inputs.end(), [](const auto& in) { return in.tool == Tool::card; }));
  std::atomic<std::size_t> next = 0;
  std::atomic<bool> stopped = false;
  const auto work = [&] {
    for (std::size_t i; (i = next.fetch_add(1)) < given.draws;) {
      if (stop && stop->load(std::memory_order_relaxed)) stopped = true;
      if (stopped) return;
      std::vector<double> off = draws.off(i);
      std::array<double, 2> card{};
      std::size_t c = off.size() - cards;
      for (const std::size_t e : {0U, 1U})
        if (!design.fit[e].bag.empty()) card[e] = off[c++];
      off.resize(off.size() - cards);
      Looked look;
      values[i] = look.at(moved(given.build, off), small_shelf(given.shelf, design, card));
      values[i].resize(out.answers.size());
      stands[i] = look.stands();
    }
  };
  std::vector<std::future<void>> others;
  for (unsigned t = 1; t < std::max(1U, threads); ++t)
    others.push_back(std::async(std::launch::async, work));
  work();
  for (auto& other : others)
    other.get();
  if (stopped) return std::nullopt;
  look_at_draws(values, draws, out.inputs, out.answers);
  // Odds that a preset stands, over the draws that know.
  std::size_t p = 0;
  for (DoubtAnswer& answer : out.answers) {
    if (!answer.odds_inside) continue;
    double in = 0, known = 0;
    for (const auto& one : stands)
      if (p < one.size() && one[p]) known += 1, in += *one[p];
    answer.odds_inside = known > 0 ? std::optional(in / known) : std::nullopt;
    ++p;
  }
  // What is to be said of it plainly.
  for (const DoubtInput& in : out.inputs)
    if (in.value != 0 && in.tool != Tool::card && in.sd() > std::abs(in.value) && in.kind != Kind::angle)
      out.trouble.push_back({words("{0}: its doubt is larger than what was read."), {in.name}});
  for (const DoubtAnswer& answer : out.answers)
    if (answer.vanished >= 0.005 && answer.vanished < 1 && answer.value)
      out.trouble.push_back({words("{0}: in {1} of the draws there is none."), {answer.words, share(answer.vanished)}});
  if (std::none_of(out.answers.begin(), out.answers.end(), [](const DoubtAnswer& a) { return a.value.has_value(); }))
    out.trouble.push_back({words("Too little was read yet for an answer, so there is none to be unsure of."), {}});
  return out;
}

} // namespace mavrel::assess
