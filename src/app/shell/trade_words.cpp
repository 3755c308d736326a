#include "app/shell/trade_words.h"

#include <QCoreApplication>

namespace mavrel::app {

namespace {

constexpr TradeWord rows[] = {
    {QT_TRANSLATE_NOOP("trade", "ride height"), QT_TRANSLATE_NOOP("trade", "height, from the hub up to the arch"),
     "car_in", "front.left.height_m"},
    {QT_TRANSLATE_NOOP("trade", "travel"), QT_TRANSLATE_NOOP("trade", "bump and rebound: what is kept of each"),
     "car_in", "@.brief.bump_travel_m"},
    {QT_TRANSLATE_NOOP("trade", "droop"), QT_TRANSLATE_NOOP("trade", "rebound: the wheel down from road height"),
     "car_in", "@.brief.rebound_reserve_m"},
    {QT_TRANSLATE_NOOP("trade", "stroke"), QT_TRANSLATE_NOOP("trade", "bump and rebound together"), "bags", ""},
    {QT_TRANSLATE_NOOP("trade", "air out"), QT_TRANSLATE_NOOP("trade", "parked: bags vented, the car on its stops"),
     "car_in", "@.brief.presets.0.front"},
    {QT_TRANSLATE_NOOP("trade", "deflate"), QT_TRANSLATE_NOOP("trade", "vent: a lift downwards"), "air", ""},
    {QT_TRANSLATE_NOOP("trade", "inflate"), QT_TRANSLATE_NOOP("trade", "fill: a lift upwards"), "air", ""},
    {QT_TRANSLATE_NOOP("trade", "manifold"), QT_TRANSLATE_NOOP("trade", "valve block"), "air", "@.air.valves"},
    {QT_TRANSLATE_NOOP("trade", "solenoids"), QT_TRANSLATE_NOOP("trade", "valve block"), "air", "@.air.valves"},
    {QT_TRANSLATE_NOOP("trade", "air tank"), QT_TRANSLATE_NOOP("trade", "tank"), "air", "@.air.tank"},
    {QT_TRANSLATE_NOOP("trade", "pump"), QT_TRANSLATE_NOOP("trade", "compressor"), "air", "@.air.compressor"},
    {QT_TRANSLATE_NOOP("trade", "air spring"), QT_TRANSLATE_NOOP("trade", "bag"), "bags", "@.front.bag"},
    {QT_TRANSLATE_NOOP("trade", "bellows"), QT_TRANSLATE_NOOP("trade", "bag"), "bags", "@.front.bag"},
    {QT_TRANSLATE_NOOP("trade", "shock absorber"), QT_TRANSLATE_NOOP("trade", "damper"), "car_in",
     "front.damper_length_m"},
    {QT_TRANSLATE_NOOP("trade", "sway bar"), QT_TRANSLATE_NOOP("trade", "anti-roll bar"), "bags", "@.front.sides"},
    {QT_TRANSLATE_NOOP("trade", "panhard rod"), QT_TRANSLATE_NOOP("trade", "lateral bar"), "swing", ""},
    {QT_TRANSLATE_NOOP("trade", "fender"), QT_TRANSLATE_NOOP("trade", "arch, arch lip"), "car_in",
     "front.arch.lip_outward_m"},
    {QT_TRANSLATE_NOOP("trade", "wheel poke"), QT_TRANSLATE_NOOP("trade", "arch poke"), "clearance", ""},
    {QT_TRANSLATE_NOOP("trade", "motion ratio"), QT_TRANSLATE_NOOP("trade", "motion ratio"), "car_in",
     "front.motion_ratio"},
    {QT_TRANSLATE_NOOP("trade", "kneel"), QT_TRANSLATE_NOOP("trade", "a lift of one end"), "air", ""},
};

} // namespace

std::span<const TradeWord> trade_words() {
  return rows;
}

} // namespace mavrel::app
