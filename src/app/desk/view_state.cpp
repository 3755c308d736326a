#include "app/desk/view_state.h"

#include "assess/end/end_answer.h"

#include <algorithm>

namespace mavrel::app {

using build::at;

void ViewState::show(std::shared_ptr<const assess::Assessment> assessment) {
  shown_ = std::move(assessment);
  load_case_ = std::min(load_case_, shown_->loads.size() - 1);
  find_height_range();
}

void ViewState::forget_poses() {
  pose_ = {};
  load_case_ = 0;
}

void ViewState::set_load_case(std::size_t index) {
  if (index == load_case_ || index >= shown_->loads.size()) return;
  load_case_ = index;
  emit looked_at();
}

void ViewState::set_end(End end) {
  if (end == end_) return;
  end_ = end;
  emit looked_at();
}

std::optional<double> ViewState::pose(End end) const {
  const auto& e = shown_->end(end);
  if (!e.has_domain()) return std::nullopt;
  const auto& road = shown_->ends[at(end)]->fitted.road;
  const double resting = road ? *road : e.surveyed_height.value_or((e.domain_low + e.domain_high) / 2);
  return std::clamp(pose_[at(end)].value_or(resting), e.domain_low, e.domain_high);
}

void ViewState::set_pose(End end, double H) {
  const auto& e = shown_->end(end);
  if (!e.has_domain()) return;
  pose_[at(end)] =
      std::clamp(H, std::max(e.domain_low, height_range_.first), std::min(e.domain_high, height_range_.second));
  emit posed();
}

void ViewState::nudge_pose(double by) {
  if (const auto H = pose(end_)) set_pose(end_, *H + by);
}

void ViewState::set_prefs(const UnitPrefs& prefs) {
  prefs_ = prefs;
  emit restyled();
}

void ViewState::set_look(const Look& look) {
  look_ = look;
  emit restyled();
}

void ViewState::find_height_range() {
  double low = 1e9, high = -1e9;
  const auto hold = [&](double H) {
    low = std::min(low, H);
    high = std::max(high, H);
  };
  constexpr double beyond = 0.026; // room for the hatched ends and their names
  for (const End end : build::both_ends) {
    const auto& e = shown_->end(end);
    if (!e.has_domain()) continue;
    const auto& reach = e.windows.reach;
    hold(reach ? std::max(e.domain_low, reach->low.height - beyond) : e.domain_low);
    hold(reach ? std::min(e.domain_high, reach->high.height + beyond) : e.domain_high);
    for (const auto& preset : e.presets)
      if (preset) hold(preset->height - 0.008), hold(preset->height + 0.008);
  }
  if (high > low) height_range_ = {low, high};
}

void ViewState::set_live(const std::optional<Live>& live) {
  if (live_ == live) return;
  live_ = live;
  emit read();
}

} // namespace mavrel::app
