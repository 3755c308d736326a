// How what is open is looked at: which end and load case, at which pose, in which units and looks. Nothing of it is in
// the build, and none of it can be undone.
#pragma once

#include "app/theme/look.h"
#include "assess/assessment.h"
#include "build/basics.h"
#include "quantity/kind.h"

#include <QObject>

#include <array>
#include <memory>
#include <optional>
#include <utility>

namespace mavrel::assess {
struct Assessment;
} // namespace mavrel::assess

namespace mavrel::app {

using build::End;

class ViewState : public QObject {
  Q_OBJECT
public:
  using QObject::QObject;

  /// What there is to be seen has changed. @param assessment  kept until the next
  void show(std::shared_ptr<const assess::Assessment> assessment);
  /// Another build: its poses and load case are its own.
  void forget_poses();

  [[nodiscard]] std::size_t load_case() const { return load_case_; }
  void set_load_case(std::size_t index);
  [[nodiscard]] End end() const { return end_; }
  void set_end(End end);

  /// H each end is posed at, m; none while nothing is known of that end's heights.
  [[nodiscard]] std::optional<double> pose(End end) const;
  void set_pose(End end, double H);
  /// Moves the active end's pose.
  void nudge_pose(double by);
  /// What is read of the car itself at this moment, on the bench; none: nothing is. Corners FL FR RL RR.
  struct Live {
    std::array<std::optional<double>, 4> height;   // m, H
    std::array<std::optional<double>, 4> pressure; // Pa gauge
    friend bool operator==(const Live&, const Live&) = default;
  };
  [[nodiscard]] const std::optional<Live>& live() const { return live_; }
  void set_live(const std::optional<Live>& live);

  /// Heights shown everywhere, m: both ends on one scale.
  [[nodiscard]] std::pair<double, double> height_range() const { return height_range_; }

  [[nodiscard]] const UnitPrefs& prefs() const { return prefs_; }
  void set_prefs(const UnitPrefs& prefs);
  [[nodiscard]] const Look& look() const { return look_; }
  void set_look(const Look& look);

signals:
  void posed();     // a pose moved
  void looked_at(); // another end or load case
  void read();      // something was read of the car itself, or no longer is
  void restyled();  // units, theme or text size

private:
  void find_height_range();

  std::shared_ptr<const assess::Assessment> shown_;
  std::size_t load_case_ = 0;
  End end_ = End::front;
  std::array<std::optional<double>, 2> pose_;
  std::pair<double, double> height_range_{0.25, 0.45};
  std::optional<Live> live_;
  UnitPrefs prefs_;
  Look look_;
};

} // namespace mavrel::app
