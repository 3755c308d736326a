#include "app/desk/depth.h"

#include "app/desk/desk.h"

namespace mavrel::app {

using assess::End;
using build::at;

Depth::Depth(Desk& desk, QObject* parent) : QObject(parent), desk_(desk) {
  connect(&desk_, &Desk::changed, this, &Depth::forget_all);
  connect(&desk_, &Desk::looked_at, this, &Depth::forget_all);
  connect(&desk_, &Desk::posed, this, &Depth::forget_pose);
}

void Depth::forget_all() {
  ends_ = {};
  stroke_.reset();
  ride_.reset();
  forget_pose();
}

void Depth::forget_pose() {
  softening_.reset();
  gauge_.reset();
  weather_.reset();
  roll_.reset();
}

const assess::FittedEnd& Depth::fitted(End end) {
  auto& one = ends_[at(end)];
  if (!one) one = assess::fitted_end(desk_.build(), desk_.shelf(), end, desk_.assessment().loads);
  return *one;
}

Expected<assess::Window> Depth::reach() const {
  const auto& window = desk_.assessment().end(desk_.end()).windows.reach;
  if (!window) return refuse(words("No height is left to stand at; see what stops it."));
  return *window;
}

const Expected<assess::Softening>& Depth::softening() {
  if (!softening_)
    softening_ =
        assess::softening(desk_.build(), fitted(desk_.end()), desk_.pose(desk_.end()).value_or(0), desk_.load_case());
  return *softening_;
}

const Expected<assess::Stroke>& Depth::stroke() {
  if (stroke_) return *stroke_;
  const auto& end = fitted(desk_.end());
  const auto window = reach();
  if (!window)
    stroke_ = refuse(window.error());
  else if (!end.road)
    stroke_ = refuse(words("Wish for a road height first: the stroke starts there."));
  else
    stroke_ = assess::stroke_through(end, *end.road, desk_.load_case());
  return *stroke_;
}

const Expected<assess::GaugeTale>& Depth::gauge() {
  if (gauge_) return *gauge_;
  const auto window = reach();
  const auto H = desk_.pose(desk_.end());
  if (!window)
    gauge_ = refuse(window.error());
  else
    gauge_ = assess::gauge_tale(fitted(desk_.end()), *window, H.value_or(0), desk_.load_case(),
                                desk_.build().variant().brief.gauge_error);
  return *gauge_;
}

const std::vector<assess::WeatherAnswer>& Depth::weather() {
  if (!weather_) {
    const auto& a = desk_.assessment();
    weather_ = assess::weather(desk_.build(), {fitted(End::front), fitted(End::rear)},
                               {a.end(End::front).windows.reach, a.end(End::rear).windows.reach},
                               {desk_.pose(End::front), desk_.pose(End::rear)}, desk_.load_case());
  }
  return *weather_;
}

const Expected<assess::Roll>& Depth::roll() {
  if (!roll_)
    roll_ = assess::roll(desk_.build(), {fitted(End::front), fitted(End::rear)},
                         {desk_.pose(End::front).value_or(0), desk_.pose(End::rear).value_or(0)}, desk_.load_case());
  return *roll_;
}

const assess::Ride& Depth::ride() {
  if (!ride_)
    ride_ = assess::ride(desk_.build(), desk_.shelf(), {fitted(End::front), fitted(End::rear)}, desk_.load_case());
  return *ride_;
}

} // namespace mavrel::app
