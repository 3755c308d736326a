// A bag standing on one end of the car: its height, pressure and stiffness as functions of H.
#pragma once

#include "air/added_volume.h"
#include "assess/end/end_model.h"
#include "shelf/shelf.h"

namespace mavrel::assess {

/// One end at one height in one load case.
struct PoseState {
  double bag_height = 0;                     // m
  std::array<double, 2> side_pressure{};     // Pa gauge, left and right; one and the same where a tee joins them
  double pressure = 0;                       // Pa gauge, at the mean load
  air::Beyond beyond = air::Beyond::nothing; // the gravest of both sides
  std::optional<double> frequency;           // Hz, on the suspension alone; none where the end would not hold itself up
  std::optional<double> ride_frequency;      // Hz, with the tyre in series: what is felt, and judged by
  double wheel_rate = 0;                     // N/m a corner, quick movement, without the tyre
};

/// Amplitude at the wheel that a line is reckoned with, m.
constexpr double usual_swing = 0.010;

/// Body frequency of a mass on a wheel rate, Hz; none where the rate does not hold it up.
[[nodiscard]] std::optional<double> body_frequency(double wheel_rate, double sprung_mass);

/// Rate of the suspension with the tyre in series, N/m. @param wheel_rate  any; a rate not above 0 stays as it is
[[nodiscard]] double with_tyre(double wheel_rate, double tyre_rate);

/// Refers to its model and bag; both must outlive it.
class BagOnEnd {
public:
  /// @param model  with a map
  /// @param stack  plates and mounts above and below the bag together, m
  BagOnEnd(const EndModel& model, const shelf::ShelfBag& bag, double stack)
      : model_(&model), bag_(&bag), stack_(stack) {}

  [[nodiscard]] const shelf::ShelfBag& bag() const { return *bag_; }
  [[nodiscard]] const EndModel& model() const { return *model_; }
  [[nodiscard]] const air::BagCard& card() const { return bag_->card; }
  [[nodiscard]] double stack() const { return stack_; }

  [[nodiscard]] double bag_height(double H) const { return model_->map->at(H).spring_length - stack_; }
  /// H at which the bag has this height; none within the map.
  [[nodiscard]] std::optional<double> height_for_bag(double bag_height) const {
    return model_->map->height_for_spring(bag_height + stack_);
  }
  /// Least bag height the end may come down to: collapsed, and the margin an outside stop must leave.
  [[nodiscard]] double least_bag_height() const {
    return card().collapsed_height + (card().internal_stop ? 0 : model_->brief.bag_margin);
  }

  /// H over which the card and the map both answer. `low >= high`: nowhere.
  [[nodiscard]] std::pair<double, double> heights() const;

  /// Pressure for a sprung mass at H, Pa; none where the card has no answer or other springs carry it all.
  [[nodiscard]] std::optional<double> pressure(double H, double sprung_mass) const;
  /// The end and the bag's card at one height, for every load case to be read from.
  struct Place {
    double H = 0;
    motion::MapPoint map;
    air::BagSection section;
  };
  /// @returns the place; none where the card or the map has no answer
  [[nodiscard]] std::optional<Place> place(double H) const;
  /// Pressure for a sprung mass there, Pa; none where other springs carry it all.
  [[nodiscard]] std::optional<double> pressure(const Place& at, double sprung_mass) const;
  /// The bag there at a gauge pressure, with its added volume behind its line. How freely the line breathes is worked
  /// out for a wheel moving at this frequency (Hz), `swing` (m) either way.
  [[nodiscard]] air::SoftenedBag softened(const Place& at, double pressure, double frequency,
                                          double swing = usual_swing) const;
  /// The same with the line as it breathes in the middle of the change from soft to stiff, wherever that lies.
  [[nodiscard]] air::SoftenedBag softened_in_the_middle(const Place& at, double pressure) const;
  /// Rate at the wheel for a rate of the bag and its force, N/m.
  [[nodiscard]] double wheel_rate(const Place& at, double bag_rate, double force) const;
  /// Pressure of the left and the right bag there, Pa; 0 on a side that other springs carry.
  [[nodiscard]] std::array<double, 2> side_pressures(const Place& at, const EndLoad& load) const;
  /// Everything there in one load case; none where other springs carry it all.
  /// @param sides  of the same place and load, from `side_pressures`
  [[nodiscard]] std::optional<PoseState> state(const Place& at, const EndLoad& load,
                                               const std::array<double, 2>& sides) const;
  /// The same without rates and frequencies, which behind a line are a search of their own.
  [[nodiscard]] std::optional<PoseState> pressures(const Place& at, const EndLoad& load,
                                                   const std::array<double, 2>& sides) const;
  [[nodiscard]] std::optional<PoseState> state(const Place& at, const EndLoad& load) const {
    return state(at, load, side_pressures(at, load));
  }
  [[nodiscard]] std::optional<PoseState> state(double H, const EndLoad& load) const {
    const auto at = place(H);
    return at ? state(*at, load) : std::nullopt;
  }

private:
  const EndModel* model_;
  const shelf::ShelfBag* bag_;
  double stack_;
};

} // namespace mavrel::assess
