// The deeper answers about the chosen bags, worked out when a view first asks and kept until something changes.
#pragma once

#include "assess/bags/gauge.h"
#include "assess/bags/ride.h"
#include "assess/bags/roll.h"
#include "assess/bags/softening.h"
#include "assess/end/stroke.h"
#include "assess/bags/weather.h"

#include <QObject>

namespace mavrel::app {

class Desk;

class Depth : public QObject {
  Q_OBJECT
public:
  explicit Depth(Desk& desk, QObject* parent = nullptr);

  /// Each at the active end, load case and pose unless it says otherwise.
  [[nodiscard]] const Expected<assess::Softening>& softening();
  [[nodiscard]] const Expected<assess::Stroke>& stroke(); // from road height
  [[nodiscard]] const Expected<assess::GaugeTale>& gauge();
  [[nodiscard]] const std::vector<assess::WeatherAnswer>& weather(); // both ends
  [[nodiscard]] const Expected<assess::Roll>& roll();                // both ends
  [[nodiscard]] const assess::Ride& ride();                          // both ends at road height
  [[nodiscard]] const assess::FittedEnd& fitted(assess::End end);

private:
  void forget_all();
  void forget_pose();
  [[nodiscard]] Expected<assess::Window> reach() const;

  Desk& desk_;
  std::array<std::optional<assess::FittedEnd>, 2> ends_;
  std::optional<Expected<assess::Softening>> softening_;
  std::optional<Expected<assess::Stroke>> stroke_;
  std::optional<Expected<assess::GaugeTale>> gauge_;
  std::optional<std::vector<assess::WeatherAnswer>> weather_;
  std::optional<Expected<assess::Roll>> roll_;
  std::optional<assess::Ride> ride_;
};

} // namespace mavrel::app
