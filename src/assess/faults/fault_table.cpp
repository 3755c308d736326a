#include "assess/faults/fault_table.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

std::string fault_key(const FaultAt& fault) {
  const char* place = place_key(fault.cause->places, fault.place);
  return *place ? std::string(fault.cause->key) + ":" + place : fault.cause->key;
}

std::optional<FaultAt> fault_of(std::string_view key) {
  const auto colon = key.find(':');
  const FaultCause* cause = fault_cause(key.substr(0, colon));
  if (!cause) return std::nullopt;
  const auto place = place_of(cause->places, colon == std::string_view::npos ? "" : key.substr(colon + 1));
  return place ? std::optional(FaultAt{cause, *place}) : std::nullopt;
}

Message fault_words(const FaultAt& fault) {
  if (fault.cause->places == FaultPlaces::car) return {fault.cause->name, {}};
  return {words("{0}: {1}"), {place_name(fault.cause->places, fault.place), fault.cause->name}};
}

FaultPriors usual_priors() {
  FaultPriors out;
  for (const FaultCause& cause : fault_causes())
    out.push_back(cause.often);
  return out;
}

control::Condition condition_of(const FaultCar& car, const FaultAt& fault, double severity) {
  control::Condition out;
  fault.cause->does(out, car, fault.place, severity);
  return out;
}

double shows_of(const FaultCar& car, const FaultAt& fault, const control::Condition& condition, const SignAt& at) {
  double p = at.sign->shows ? at.sign->shows(car, condition, at.place) : 0;
  if (shows_at(*fault.cause, fault.place, *at.sign, at.place))
    p = 1 - (1 - p) * (1 - shows_by_table(*fault.cause, *at.sign));
  return std::clamp(p, 0.0, 0.999);
}

FaultTable::FaultTable(FaultCar car) : car_(std::move(car)) {
  for (const FaultCause& cause : fault_causes())
    if (can_have(car_.parts, cause))
      for (std::size_t place = 0; place < places_of(cause.places); ++place)
        faults_.push_back({&cause, place});
  for (const FaultSign& sign : fault_signs())
    for (std::size_t place = 0; place < places_of(sign.places); ++place)
      columns_.push_back({&sign, place});
  for (const SignAt& at : columns_)
    well_.push_back(at.sign->reads ? at.sign->reads(car_, {}, at.place) : 0);
  values_.reserve(faults_.size() * severity_steps * columns_.size());
  spreads_.reserve(values_.capacity());
  touches_.assign(faults_.size() * columns_.size(), 0);
  constexpr double half = 0.5 / severity_steps - 1e-9;
  for (std::size_t f = 0; f < faults_.size(); ++f)
    for (std::size_t step = 0; step < severity_steps; ++step) {
      const double s = (static_cast<double>(step) + 0.5) / severity_steps;
      const auto at = condition_of(car_, faults_[f], s);
      const auto slight = condition_of(car_, faults_[f], s - half), bad = condition_of(car_, faults_[f], s + half);
      for (std::size_t c = 0; c < columns_.size(); ++c) {
        const SignAt& sign = columns_[c];
        double value = 0, spread = 0;
        if (sign.sign->reads) {
          value = sign.sign->reads(car_, at, sign.place);
          const double low = sign.sign->reads(car_, slight, sign.place), high = sign.sign->reads(car_, bad, sign.place);
          if (std::isfinite(low) && std::isfinite(high)) spread = std::abs(high - low) / std::sqrt(12.0);
          if (!(std::abs(value - well_[c]) <= 1e-9 * std::abs(well_[c]) + 1e-12)) touches_[f * columns_.size() + c] = 1;
        } else {
          value = shows_of(car_, faults_[f], at, sign);
          if (value > 1e-3) touches_[f * columns_.size() + c] = 1;
        }
        values_.push_back(value);
        spreads_.push_back(spread);
      }
    }
}

std::optional<std::size_t> FaultTable::column(const SignAt& at) const {
  const auto found = std::find(columns_.begin(), columns_.end(), at);
  if (found == columns_.end()) return std::nullopt;
  return static_cast<std::size_t>(found - columns_.begin());
}

std::optional<std::size_t> FaultTable::row(const FaultAt& fault) const {
  const auto found = std::find(faults_.begin(), faults_.end(), fault);
  if (found == faults_.end()) return std::nullopt;
  return static_cast<std::size_t>(found - faults_.begin());
}

} // namespace mavrel::assess
