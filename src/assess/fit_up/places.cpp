#include "assess/fit_up/places.h"

#include "build/names.h"
#include "build/names_fit_up.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using build::PartRoom;

constexpr double radio_far = 2.5; // m, where a handset begins to be doubtful even in the open
constexpr double loud = 70;       // dB at a metre

bool enclosed(PartRoom room) {
  return room == PartRoom::spare_well || room == PartRoom::engine_bay || room == PartRoom::under_floor;
}

class PlaceJudge {
public:
  explicit PlaceJudge(const FitUpGiven& given) : given_(given), room_(kit_room(given.room)) {}

  std::vector<JudgedPlace> judge() {
    for (std::size_t i = 0; i < room_.boxes.size(); ++i)
      box(i);
    const build::AirKit& kit = given_.air().kit;
    if (kit.school == build::ValveSchool::block && !kit.valves.empty()) {
      controller();
      handset();
    }
    return std::move(out_);
  }

private:
  static void say(JudgedPlace& p, PlaceAspect aspect, PlaceJudged judged, const char* text,
                  std::vector<Argument> args = {}) {
    p.words.push_back({aspect, judged, {text, std::move(args)}});
  }

  void box(std::size_t i) {
    const KitBox& b = room_.boxes[i];
    JudgedPlace& p = out_.emplace_back();
    p.what = {row_of(b.role).label, {}};
    p.part = b.name;
    p.place = std::string("air.") + b.place;
    p.at = {b.x, b.y, b.z, b.room, b.held, build::PartLies::across, {}};
    const bool compressor = b.role == KitRole::compressor || b.role == KitRole::second_compressor;
    const bool tank = b.role == KitRole::tank || b.role == KitRole::second_tank;
    fits(p, i);
    if (tank) drain(p, b);
    heat(p, i, compressor);
    shake(p, b, compressor);
    if (compressor) sound(p, b);
    service(p, b, compressor, tank);
    seen(p);
  }

  void fits(JudgedPlace& p, std::size_t i) {
    for (const auto& [a, b] : room_.meet)
      if (a == i || b == i) {
        say(p, PlaceAspect::room, PlaceJudged::bad, words("it lies in the same place as {0}"),
            {row_of(room_.boxes[a == i ? b : a].role).label});
        return;
      }
    if (std::find(room_.out_of_place.begin(), room_.out_of_place.end(), i) != room_.out_of_place.end()) {
      say(p, PlaceAspect::room, PlaceJudged::bad, words("it sticks out of where it is said to lie"));
      return;
    }
    const bool known =
        (p.at.room == PartRoom::boot && room_.boot_before) || (p.at.room == PartRoom::spare_well && room_.well_before);
    if (known)
      say(p, PlaceAspect::room, PlaceJudged::good, words("it fits"));
    else
      say(p, PlaceAspect::room, PlaceJudged::care, words("nobody measured the room there"));
  }

  void drain(JudgedPlace& p, const KitBox& b) {
    if (b.role == KitRole::tank && room_.drains_lowest)
      say(p, PlaceAspect::drain, PlaceJudged::good, words("its drain is the lowest place that water stands in"));
    else if (b.role == KitRole::tank)
      say(p, PlaceAspect::drain, PlaceJudged::bad,
          words("water stands lower than its drain: lower the tank, or drain there too"));
    else
      say(p, PlaceAspect::drain, PlaceJudged::care, words("a second tank wants a drain of its own"));
  }

  void heat(JudgedPlace& p, std::size_t i, bool compressor) {
    const auto near = std::find_if(room_.hot.begin(), room_.hot.end(), [&](const HotGap& gap) { return gap.box == i; });
    if (near != room_.hot.end() && near->gap < near->wanted) {
      say(p, PlaceAspect::heat, PlaceJudged::bad, words("{0} from {1}; {2} is wanted"),
          {told_from(metres(std::fmax(0, near->gap)), near->wanted), given_.room.hot[near->hot].name,
           metres(near->wanted)});
      return;
    }
    if (compressor && p.at.room == PartRoom::engine_bay)
      say(p, PlaceAspect::heat, PlaceJudged::bad, words("it breathes the engine’s hot air and rests sooner"));
    else if (compressor && p.at.room == PartRoom::spare_well)
      say(p, PlaceAspect::heat, PlaceJudged::care, words("a closed well warms up: leave it air, or it rests sooner"));
    else if (near != room_.hot.end())
      say(p, PlaceAspect::heat, PlaceJudged::good, words("{0} from {1}"),
          {metres(near->gap), given_.room.hot[near->hot].name});
    else
      say(p, PlaceAspect::heat, PlaceJudged::good, words("nothing hot is listed near it"));
  }

  static void shake(JudgedPlace& p, const KitBox& b, bool compressor) {
    const bool soft = b.held == build::PartHeld::on_rubber;
    if (compressor && !soft)
      say(p, PlaceAspect::shake, PlaceJudged::bad, words("held hard it shakes the panel it is on: rubber"));
    else if (b.room == PartRoom::under_floor && !compressor)
      say(p, PlaceAspect::shake, PlaceJudged::care, words("hung under the floor: stones and water; strap it as well"));
    else
      say(p, PlaceAspect::shake, PlaceJudged::good, soft ? words("on rubber") : words("held hard"));
  }

  void sound(JudgedPlace& p, const KitBox& b) {
    const shelf::Part* part = given_.air().parts[b.role];
    if (!part || !part->sound) {
      say(p, PlaceAspect::sound, PlaceJudged::care, words("its card gives no noise"));
      return;
    }
    const bool in_with_people = b.room == PartRoom::cabin || b.room == PartRoom::boot;
    const bool bad = in_with_people && *part->sound > loud;
    say(p, PlaceAspect::sound,
        bad              ? PlaceJudged::bad
        : in_with_people ? PlaceJudged::care
                         : PlaceJudged::good,
        in_with_people ? words("{0} at a metre, in with the people") : words("{0} at a metre, outside the cabin"),
        {Amount{*part->sound, Kind::sound, -1, {}}});
  }

  static void service(JudgedPlace& p, const KitBox& b, bool compressor, bool tank) {
    if (b.room == PartRoom::under_floor)
      say(p, PlaceAspect::service, PlaceJudged::care,
          tank ? words("drained from below: reach it without a lift, or lead the drain out")
               : words("reached from below only"));
    else if (b.room == PartRoom::spare_well && compressor)
      say(p, PlaceAspect::service, PlaceJudged::good, words("lift the boot’s floor; the spare wheel is given up"));
    else
      say(p, PlaceAspect::service, PlaceJudged::good, words("reached from the boot or the cabin"));
  }

  void seen(JudgedPlace& p) {
    const bool shown = given_.fit_up->shown == build::KitShown::shown;
    const bool open = p.at.room == PartRoom::boot || p.at.room == PartRoom::cabin;
    if (shown && !open)
      say(p, PlaceAspect::seen, PlaceJudged::care, words("the kit is to be on show, and nobody sees it there"));
    else if (!shown && open)
      say(p, PlaceAspect::seen, PlaceJudged::care, words("the kit is to be hidden: it wants a panel there"));
    else
      say(p, PlaceAspect::seen, PlaceJudged::good, shown ? words("on show") : words("hidden"));
  }

  void controller() {
    JudgedPlace& p = out_.emplace_back();
    p.what = {words("controller"), {}};
    p.place = "fit_up.controller_at";
    p.at = given_.fit_up->controller_at;
    wet(p);
    double loom = way_between(p.at, given_.air().kit.valves_at, given_.air().kit.line_slack);
    say(p, PlaceAspect::service, loom > 3 ? PlaceJudged::care : PlaceJudged::good, words("{0} of loom to the valves"),
        {metres(loom)});
    seen(p);
  }
  void handset() {
    const build::FitUp& f = *given_.fit_up;
    JudgedPlace& p = out_.emplace_back();
    p.what = {words("handset"), {}};
    p.place = "fit_up.handset_at";
    p.at = f.handset_at;
    const double far = std::hypot(f.handset_at.x - f.controller_at.x, f.handset_at.y - f.controller_at.y,
                                  f.handset_at.z - f.controller_at.z);
    if (f.handset == build::HandsetBy::cable)
      say(p, PlaceAspect::radio, PlaceJudged::good, words("by cable: metal does not matter"));
    else if (f.metal_box == build::YesNo::yes || enclosed(f.controller_at.room))
      say(p, PlaceAspect::radio, PlaceJudged::bad,
          words("radio does not get through sheet metal: bring the controller, or its aerial, out of it"));
    else
      say(p, PlaceAspect::radio, far > radio_far ? PlaceJudged::care : PlaceJudged::good,
          words("radio over {0}, nothing of metal said to be between"), {metres(far)});
    if (p.at.room != PartRoom::cabin)
      say(p, PlaceAspect::service, PlaceJudged::bad, words("the driver can't reach it there"));
    else
      say(p, PlaceAspect::service, PlaceJudged::good, words("within reach of who drives"));
  }
  static void wet(JudgedPlace& p) {
    if (p.at.room == PartRoom::under_floor)
      say(p, PlaceAspect::room, PlaceJudged::bad, words("electronics under the floor drown"));
    else if (p.at.room == PartRoom::engine_bay)
      say(p, PlaceAspect::heat, PlaceJudged::bad, words("electronics cook in the engine bay"));
    else
      say(p, PlaceAspect::heat, PlaceJudged::good, words("dry and cool"));
  }

  const FitUpGiven& given_;
  KitRoom room_;
  std::vector<JudgedPlace> out_;
};

} // namespace

const char* name_of(PlaceAspect aspect) {
  switch (aspect) {
  case PlaceAspect::room:
    return words("room");
  case PlaceAspect::drain:
    return words("drain");
  case PlaceAspect::heat:
    return words("heat");
  case PlaceAspect::shake:
    return words("shake");
  case PlaceAspect::sound:
    return words("sound");
  case PlaceAspect::service:
    return words("service");
  case PlaceAspect::radio:
    return words("radio");
  case PlaceAspect::seen:
    return words("seen");
  }
  return "";
}

PlaceJudged JudgedPlace::worst() const {
  PlaceJudged out = PlaceJudged::good;
  for (const PlaceWord& word : words)
    out = std::max(out, word.judged);
  return out;
}

std::vector<JudgedPlace> judged_places(const FitUpGiven& given) {
  return PlaceJudge(given).judge();
}

} // namespace mavrel::assess
