#include "shelf/bench_test.h"

#include "curve/linear.h"
#include "shelf/card_check.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <vector>

namespace mavrel::shelf {

namespace {

constexpr double same_height = 0.002;   // m, readings this near count as one height
constexpr double same_pressure = 0.2e5; // Pa
constexpr double bad_reading = 0.04;    // of the load
constexpr int card_rows = 9, card_columns = 4;

/// How many values differ by more than `apart`.
std::vector<double> distinct(std::vector<double> values, double apart) {
  std::sort(values.begin(), values.end());
  std::vector<double> out;
  for (const double v : values)
    if (out.empty() || v - out.back() > apart) out.push_back(v);
  return out;
}

/// A(h, p) = Σ cᵢ·tⁱ + (d₀ + d₁·t)·q with t and q the height and pressure brought to −1 … 1.
class AreaFit {
public:
  AreaFit(std::span<const BenchReading> readings, int degree, bool with_pressure, bool with_cross)
      : degree_(degree), pressure_(with_pressure), cross_(with_cross) {
    const auto [h0, h1] = std::minmax_element(readings.begin(), readings.end(),
                                              [](const auto& a, const auto& b) { return a.height < b.height; });
    const auto [p0, p1] = std::minmax_element(readings.begin(), readings.end(),
                                              [](const auto& a, const auto& b) { return a.pressure < b.pressure; });
    low_ = h0->height, high_ = h1->height, least_ = p0->pressure, most_ = p1->pressure;
    const std::size_t n = readings.size(), unknowns = terms();
    std::vector<double> X(n * unknowns);
    for (std::size_t i = 0; i < n; ++i) {
      const BenchReading& r = readings[i];
      const double area = r.load / r.pressure;
      const auto here = row(r.height, r.pressure);
      for (std::size_t k = 0; k < unknowns; ++k)
        X[k * n + i] = here[k] / area; // relative error is what counts
    }
    c_ = curve::least_squares_fit({X, n, unknowns}, std::vector<double>(n, 1.0)).c;
  }

  [[nodiscard]] std::size_t terms() const {
    return static_cast<std::size_t>(degree_ + 1 + (pressure_ ? 1 : 0) + (cross_ ? 1 : 0));
  }
  [[nodiscard]] double area(double h, double p) const {
    const auto here = row(h, p);
    return std::inner_product(here.begin(), here.end(), c_.begin(), 0.0);
  }
  [[nodiscard]] double low() const { return low_; }
  [[nodiscard]] double high() const { return high_; }
  [[nodiscard]] double least() const { return least_; }
  [[nodiscard]] double most() const { return most_; }

private:
  [[nodiscard]] std::vector<double> row(double h, double p) const {
    const double t = high_ > low_ ? (2 * h - low_ - high_) / (high_ - low_) : 0;
    const double q = most_ > least_ ? (2 * p - least_ - most_) / (most_ - least_) : 0;
    std::vector<double> out;
    double power = 1;
    for (int i = 0; i <= degree_; ++i, power *= t)
      out.push_back(power);
    if (pressure_) out.push_back(q);
    if (cross_) out.push_back(q * t);
    return out;
  }

  int degree_;
  bool pressure_, cross_;
  double low_ = 0, high_ = 0, least_ = 0, most_ = 0;
  std::vector<double> c_;
};

/// ∫A dh from the lowest height measured, at the middle pressure, by Simpson's rule: exact for a cubic.
double volume_above_lowest(const AreaFit& fit, double h) {
  const double p = 0.5 * (fit.least() + fit.most()), a = fit.low();
  return (h - a) / 6 * (fit.area(a, p) + 4 * fit.area(0.5 * (a + h), p) + fit.area(h, p));
}

std::optional<air::BagCard> card_of(const AreaFit& fit, std::span<const BenchReading> readings,
                                    const air::BagCard& about) {
  double offset = 0;
  int measured = 0;
  for (const BenchReading& r : readings)
    if (r.volume) offset += *r.volume - volume_above_lowest(fit, r.height), ++measured;
  if (measured == 0) return std::nullopt;
  offset /= measured;
  air::BagCard out = about;
  out.heights.clear(), out.volumes.clear(), out.pressures.clear(), out.loads.clear(), out.diameters.clear();
  const bool one_pressure = fit.most() - fit.least() <= same_pressure;
  for (int j = 0; j < (one_pressure ? 1 : card_columns); ++j)
    out.pressures.push_back(one_pressure ? 0.5 * (fit.least() + fit.most())
                                         : fit.least() + (fit.most() - fit.least()) * j / (card_columns - 1));
  out.loads.resize(out.pressures.size());
  for (int i = 0; i < card_rows; ++i) {
    const double h = fit.low() + (fit.high() - fit.low()) * i / (card_rows - 1);
    out.heights.push_back(h);
    out.volumes.push_back(offset + volume_above_lowest(fit, h));
    for (std::size_t j = 0; j < out.pressures.size(); ++j)
      out.loads[j].push_back(out.pressures[j] * fit.area(h, out.pressures[j]));
  }
  out.more.emplace_back("source", fmt::format("bench test, {} readings", readings.size()));
  return out;
}

bool is_physical(const air::BagCard& card) {
  for (std::size_t i = 0; i < card.heights.size(); ++i) {
    if (!(card.volumes[i] > 0) || (i > 0 && !(card.volumes[i] > card.volumes[i - 1]))) return false;
    for (std::size_t j = 0; j < card.loads.size(); ++j)
      if (!(card.loads[j][i] > 0) || (j > 0 && !(card.loads[j][i] > card.loads[j - 1][i]))) return false;
  }
  return rows_where_force_falls(card).empty();
}

/// What a further reading would tell most, in order.
void ask(std::span<const BenchReading> readings, const air::BagCard& about, BenchAnswer& out) {
  std::vector<double> heights, pressures;
  for (const BenchReading& r : readings)
    heights.push_back(r.height), pressures.push_back(r.pressure);
  heights = distinct(heights, same_height);
  pressures = distinct(pressures, same_pressure);
  const auto say_height = [&](double h) { out.wanted.push_back({words("A reading near {0}."), {metres(h)}}); };
  const double span = about.max_height - about.collapsed_height;
  if (heights.empty()) {
    out.wanted.push_back({words("Readings at three heights at least, from {0} to {1}."),
                          {metres(about.collapsed_height), metres(about.max_height)}});
  } else {
    // The widest gap first, ends of travel included.
    std::vector<std::pair<double, double>> gaps; // width, middle
    const auto gap = [&](double from, double to, double at) {
      if (to - from > span * 0.3) gaps.emplace_back(to - from, at);
    };
    gap(about.collapsed_height - span * 0.2, heights.front(), about.collapsed_height + 0.05 * span);
    for (std::size_t i = 1; i < heights.size(); ++i)
      gap(heights[i - 1], heights[i], 0.5 * (heights[i - 1] + heights[i]));
    gap(heights.back(), about.max_height + span * 0.2, about.max_height - 0.05 * span);
    std::sort(gaps.rbegin(), gaps.rend());
    for (const auto& [width, middle] : gaps)
      say_height(middle);
  }
  if (pressures.size() < 2) {
    const double there = pressures.empty() ? 0 : pressures.front();
    const double other = there > 0.5 * about.max_pressure ? 0.35 * about.max_pressure : 0.7 * about.max_pressure;
    out.wanted.push_back(
        {words("Readings at another pressure, for example {0}: with one, the area is taken as the same at all."),
         {pascals(other)}});
  }
  if (std::none_of(readings.begin(), readings.end(), [](const BenchReading& r) { return r.volume.has_value(); }))
    out.wanted.push_back(
        {words("The volume at one height: fill the bag with water there and weigh it, 1 kg is 1 l."), {}});
}

} // namespace

BenchAnswer fit_bench_test(std::span<const BenchReading> readings, const air::BagCard& about) {
  BenchAnswer out;
  std::vector<double> heights, pressures;
  for (std::size_t i = 0; i < readings.size(); ++i) {
    const BenchReading& r = readings[i];
    if (!(r.load > 0) || !(r.pressure > 0) || !(r.height > 0)) {
      out.wanted.push_back({words("Reading {0}: height, load and pressure are all above 0."), {fmt::to_string(i + 1)}});
      return out;
    }
    heights.push_back(r.height), pressures.push_back(r.pressure);
  }
  ask(readings, about, out);
  const std::size_t n_heights = distinct(heights, same_height).size(),
                    n_pressures = distinct(pressures, same_pressure).size();
  if (n_heights < 3 || readings.size() < 4) {
    if (out.wanted.empty() || n_heights < 3)
      out.wanted.push_back(
          {words("Four readings at three heights is the least a curve can be made of; there are {0} at {1}."),
           {fmt::to_string(readings.size()), fmt::to_string(n_heights)}});
    return out;
  }
  const bool with_pressure = n_pressures >= 2;
  const int degree = n_heights >= 6 ? 3 : 2;
  const bool cross = with_pressure && readings.size() >= static_cast<std::size_t>(degree) + 5;
  const AreaFit area(readings, degree, with_pressure, cross);
  BenchFit fit;
  fit.spare = readings.size() > static_cast<std::size_t>(area.terms())
                  ? readings.size() - static_cast<std::size_t>(area.terms())
                  : 0;
  double sum = 0;
  for (std::size_t i = 0; i < readings.size(); ++i) {
    const BenchReading& r = readings[i];
    const double off = r.load / (r.pressure * area.area(r.height, r.pressure)) - 1;
    fit.off.push_back(off);
    sum += off * off;
    if (std::abs(off) > std::abs(fit.worst)) fit.worst = off, fit.worst_reading = i;
  }
  fit.rms = std::sqrt(sum / static_cast<double>(readings.size()));
  if (std::abs(fit.worst) > bad_reading)
    out.wanted.insert(out.wanted.begin(), {words("Reading {0} again: its load lies {1} from the curve through all."),
                                           {fmt::to_string(fit.worst_reading + 1), share(std::abs(fit.worst), 1)}});
  fit.card = card_of(area, readings, about);
  if (fit.card && !is_physical(*fit.card)) {
    fit.card.reset();
    out.wanted.insert(out.wanted.begin(), {words("Check the readings: the curve through them has a load that falls as "
                                                 "pressure rises, or a volume that shrinks as the bag grows."),
                                           {}});
  }
  out.fit = std::move(fit);
  return out;
}

} // namespace mavrel::shelf
