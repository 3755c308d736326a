// What of Leveling takes longer than a frame, asked beside the interface.
#pragma once

#include "app/desk/desk.h"
#include "assess/air/air_findings.h"
#include "assess/assessment.h"
#include "assess/leveling/calibration.h"
#include "assess/leveling/drives.h"
#include "assess/leveling/tuning.h"

#include <QCoreApplication>

namespace mavrel::app {

/// Keeping the height, of what is open.
[[nodiscard]] inline assess::LevelingGiven leveling_of(const Desk& desk) {
  return assess::leveling_given(desk.build(), desk.assessment().air.given().room.air, desk.load_case());
}

struct DrivesQuestion : Stoppable<assess::LevelingGiven, Expected<assess::Drives>, assess::answer_drives> {};
struct CalibrationQuestion
    : Stoppable<assess::LevelingGiven, Expected<assess::Calibration>, assess::answer_calibration> {};
using OtherPartsQuestion =
    Stoppable<assess::OtherPartsGiven, Expected<std::vector<assess::OtherPart>>, assess::answer_other_parts>;

struct TuningQuestion {
  using Given = assess::LevelingGiven;
  using Answer = std::optional<Expected<assess::Tuning>>;
  static Answer answer(const Given& given, const RunControl& control) {
    return assess::tune(given, {0, control.stop, control.progress});
  }
};

[[nodiscard]] inline const assess::SensorAtEnd& sensor_of(const Desk& desk, End end) {
  return (*desk.assessment().leveling.given().sensors)[build::at(end)];
}
/// The letter a set-up goes by.
[[nodiscard]] inline QString letter_of(std::size_t set_up) {
  return QString(QChar('A' + static_cast<int>(set_up)));
}

/// The car gets this way of keeping the height, and no other.
inline void give_to_car(Desk& desk, std::size_t set_up) {
  build::Build next = desk.build();
  auto& ways = next.variant().leveling.set_ups;
  if (set_up >= ways.size()) return;
  for (std::size_t i = 0; i < ways.size(); ++i)
    ways[i].fitted = i == set_up ? build::Fitted::yes : build::Fitted::no;
  desk.edit(QCoreApplication::translate("leveling", "Another way of keeping the height"), std::move(next));
}

/// In place of an answer: the car's trouble in words, or what is under way.
[[nodiscard]] inline QString why_not(const Desk& desk, const AskedAnything& asked, const QString& under_way) {
  if (asked.is_running()) return under_way;
  if (asked.state() == Asking::refused && !assess::kit_begun(desk.build().variant().air))
    return QCoreApplication::translate("leveling",
                                       "There is no air kit yet: choose one in Air, or let Sizing find one.");
  if (const auto trouble = asked.trouble()) return desk.words_of(*trouble);
  return {};
}

} // namespace mavrel::app
