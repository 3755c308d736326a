#include "assess/doubt/air_times.h"

#include <Eigen/Dense>

#include <cmath>
#include <limits>
#include <stop_token>

namespace mavrel::assess {

namespace {

/// What the kit gives in a drawn car.
AirGiven given_of(const DrawnCar& car, const shelf::Shelf& shelf, const AnsweredEnds& ends) {
  AirGiven out = air_given(car.build, shelf, ends);
  for (const KitRole role : {KitRole::compressor, KitRole::second_compressor})
    if (auto& part = out.parts.at(role))
      for (shelf::CompressorPoint& point : part->curve)
        point.air *= std::exp(car.compressor);
  for (const KitRole role : {KitRole::tank, KitRole::second_tank})
    if (auto& part = out.parts.at(role); part && part->volume) *part->volume *= std::exp(car.tank);
  if (auto& part = out.parts.at(KitRole::pressure_switch); part && part->cut_in && part->cut_out) {
    *part->cut_in += car.pressure_switch;
    *part->cut_out += car.pressure_switch;
  }
  for (std::size_t c = 0; c < 4; ++c)
    out.kit.learned_flow[c] = out.kit.learned_flow[c].value_or(1) * std::exp(car.way[c / 2]);
  return out;
}

/// From where to where the wished lift goes in a drawn car: one that can't come down to its parked height rests on its
/// stops. @returns none where there is no such lift
std::optional<std::array<std::array<double, 2>, 2>> lift_of(const AirGiven& given) {
  const auto lift = wished_lift(given);
  if (!lift) return std::nullopt;
  const auto low = standing_of(given, lift->first);
  const auto high = heights_of(given, lift->second);
  if (!low || !high) return std::nullopt;
  std::array<std::array<double, 2>, 2> out{low->heights, *high};
  for (const std::size_t e : {0U, 1U}) {
    const FittedEnd& end = given.ends[e]->fitted;
    if (!end.model.map || !end.bag) return std::nullopt;
    const auto travel = standing_travel(end);
    if (!travel) return std::nullopt;
    out[0][e] = std::max(out[0][e], travel->first);
  }
  return out;
}

/// What the times of the lift go by; empty where a bag has no answer at its ends.
std::vector<double> goes_by(const DrawnCar& car, const AirGiven& given,
                            const std::array<std::array<double, 2>, 2>& lift) {
  std::vector<double> out = {car.compressor, car.tank, car.pressure_switch};
  for (const std::size_t e : {0U, 1U}) {
    const FittedEnd& end = given.ends[e]->fitted;
    const BagOnEnd on = end.on();
    const auto& load = end.model.loads.front();
    if (!load) return {};
    for (const auto& heights : lift) {
      const auto place = on.place(heights[e]);
      const auto pressure = place ? on.pressure(*place, load->sprung_mass) : std::nullopt;
      if (!pressure) return {};
      out.push_back(*pressure);
      out.push_back(place->section.volume);
    }
    out.push_back(car.way[e]);
  }
  return out;
}

/// Figures brought to nought in the middle and one in spread, by those of the simulated; what does not change left out.
Eigen::MatrixXd standard(const std::vector<AirDrawn>& cars, const std::vector<std::size_t>& by) {
  const std::size_t columns = cars[by.front()].goes_by.size();
  std::vector<std::vector<double>> out;
  for (std::size_t c = 0; c < columns; ++c) {
    double mean = 0, square = 0;
    for (const std::size_t i : by)
      mean += cars[i].goes_by[c] / static_cast<double>(by.size());
    for (const std::size_t i : by)
      square += std::pow(cars[i].goes_by[c] - mean, 2) / static_cast<double>(by.size());
    const double sd = std::sqrt(square);
    if (!(sd > 1e-12 * std::max(1.0, std::abs(mean)))) continue;
    auto& column = out.emplace_back();
    for (const AirDrawn& car : cars)
      column.push_back(car.goes_by.size() == columns ? (car.goes_by[c] - mean) / sd : 0);
  }
  Eigen::MatrixXd Z(static_cast<Eigen::Index>(cars.size()), static_cast<Eigen::Index>(out.size()));
  for (std::size_t c = 0; c < out.size(); ++c)
    for (std::size_t i = 0; i < cars.size(); ++i)
      Z(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(c)) = out[c][i];
  return Z;
}

} // namespace

AirDrawn air_of(const DrawnCar& car, const shelf::Shelf& shelf, const AnsweredEnds& ends, AirLook how,
                const std::stop_token& stop) {
  AirDrawn out;
  const AirGiven given = given_of(car, shelf, ends);
  const auto lift_by = lift_of(given);
  if (!lift_by) return out;
  out.goes_by = goes_by(car, given, *lift_by);
  if (out.goes_by.empty() || how == AirLook::goes_by) return out;
  out.simulated = true;
  const auto at = [&](AirTime which) -> std::optional<double>& { return out.times[static_cast<std::size_t>(which)]; };
  const auto full = full_tank(given);
  if (!full) return out;
  const auto from = how == AirLook::as_read ? std::nullopt : lift_by;
  if (const auto lift = lifts_from_full(given, given.kit.order, 0, 1, stop, from); lift && lift->first) {
    at(AirTime::rise) = lift->first;
    at(AirTime::tank_after) = lift->tank_after_first;
    if (const auto ready = fill_tank(given, lift->tank_after_first, *full, stop)) at(AirTime::ready) = ready->time;
  }
  // By itself: what the shop brings is no figure of the kit.
  if (const auto filled = fill_tank(given, 0, *full, stop); filled && !filled->by_shop)
    at(AirTime::fill) = filled->time;
  return out;
}

std::vector<AirTime> carry_times(std::vector<AirDrawn>& cars) {
  std::vector<AirTime> out;
  std::vector<std::size_t> by;
  for (std::size_t i = 0; i < cars.size(); ++i)
    if (cars[i].simulated) by.push_back(i);
  if (by.empty()) return out;
  const Eigen::MatrixXd Z = standard(cars, by);
  const auto row = [&](std::size_t i) { return Z.row(static_cast<Eigen::Index>(i)); };
  // The nearest of the simulated, of every car.
  std::vector<std::size_t> nearest(cars.size());
  for (std::size_t i = 0; i < cars.size(); ++i) {
    double least = std::numeric_limits<double>::infinity();
    for (const std::size_t b : by)
      if (const double d = (row(i) - row(b)).squaredNorm(); d < least) least = d, nearest[i] = b;
  }
  for (std::size_t which = 0; which < air_times; ++which) {
    std::vector<std::size_t> there;
    for (const std::size_t b : by)
      if (cars[b].times[which]) there.push_back(b);
    const auto rows = static_cast<Eigen::Index>(there.size());
    Eigen::VectorXd y(rows);
    Eigen::MatrixXd X(rows, Z.cols() + 1);
    for (Eigen::Index r = 0; r < rows; ++r) {
      const std::size_t i = there[static_cast<std::size_t>(r)];
      y(r) = std::log(std::max(1e-3, *cars[i].times[which]));
      X(r, 0) = 1;
      X.row(r).tail(Z.cols()) = row(i);
    }
    // A little of a ridge: pressures at both heights go nearly together.
    Eigen::VectorXd slope;
    bool holds = rows > Z.cols() + 4;
    if (holds) {
      Eigen::MatrixXd XX = X.transpose() * X;
      for (Eigen::Index c = 1; c < XX.cols(); ++c)
        XX(c, c) += 1e-4 * static_cast<double>(rows);
      slope = XX.ldlt().solve(X.transpose() * y);
      const double left = (y - X * slope).squaredNorm() / static_cast<double>(rows - Z.cols() - 1);
      const double whole = (y.array() - y.mean()).square().sum() / static_cast<double>(rows - 1);
      // What hardly changes is held by anything.
      holds = left < 0.1 * whole || whole < 1e-8;
    }
    if (!holds && !there.empty()) out.push_back(static_cast<AirTime>(which));
    for (std::size_t i = 0; i < cars.size(); ++i) {
      AirDrawn& car = cars[i];
      if (car.simulated || car.goes_by.empty()) continue;
      const auto& near = cars[nearest[i]].times[which];
      if (!near) continue;
      car.times[which] = holds ? std::exp(slope(0) + row(i).dot(slope.tail(Z.cols()))) : *near;
    }
  }
  return out;
}

} // namespace mavrel::assess
