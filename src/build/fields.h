// Every field of the document, listed once. Reading, writing, the schema, and editing by path all walk this list,
// so a field added here is added everywhere.
//
// A visitor has:
//   text(key, std::string&, label, most_letters)      number(key, double& or optional<double>&, spec)
//   readings(key, Readings&, spec)                    choice(key, Enum&, label)
//   wish(key, optional<HeightWish>&, label)           index(key, size_t&)
//   object(key, T& or Shared<T>&, label)              list(key, vector<T>& or List<T>&, label, least, most)
//   extra(Extra&)
// and goes into an object by opened(value), which makes what is shared its own where it may change.
#pragma once

#include "build/build.h"
#include "build/fields_air.h"
#include "build/fields_care.h"
#include "build/fields_doubts.h"
#include "build/fields_faults.h"
#include "build/fields_fit_up.h"
#include "build/fields_leveling.h"
#include "build/names.h"

namespace mavrel::build {

template <class V, Is<Job> T>
void fields(V& v, T& job) {
  v.text("car", job.car, words("car"), 80);
  v.text("number", job.number, words("job number"), 40);
  v.text("owner", job.owner, words("owner"), 80);
  v.text("shop", job.shop, words("shop"), 80);
  v.text("notes", job.notes, words("notes"), 4000);
  v.text("platform", job.platform, words("platform"), 80);
  v.extra(job.extra);
}

constexpr std::size_t most_low_points = 60;

template <class V, Is<LowPoint> T>
void fields(V& v, T& p) {
  v.text("name", p.name, words("name"), 40);
  v.number("x_m", p.x, {Kind::length, -3, 9, words("distance behind the front axle")});
  v.number("z_m", p.z, {Kind::length, 0, 1.5, words("height above the floor")});
  v.extra(p.extra);
}

template <class V, Is<Boot> T>
void fields(V& v, T& boot) {
  v.number("from_m", boot.from, {Kind::length, 0, 7, words("boot from, behind the front axle")});
  v.number("floor_m", boot.floor, {Kind::length, 0.05, 1.5, words("boot floor above the road")});
  v.number("length_m", boot.length, {Kind::length, 0.1, 4, words("boot length")});
  v.number("width_m", boot.width, {Kind::length, 0.2, 2.4, words("boot width")});
  v.number("height_m", boot.height, {Kind::length, 0.05, 2, words("boot height")});
  v.extra(boot.extra);
}

template <class V, Is<Well> T>
void fields(V& v, T& well) {
  v.number("x_m", well.x, {Kind::length, 0, 7, words("well's middle behind the front axle")});
  v.number("y_m", well.y, {Kind::length, -1.2, 1.2, words("well's middle left")});
  v.number("bottom_m", well.bottom, {Kind::length, 0.05, 1.5, words("well's bottom above the road")});
  v.number("diameter_m", well.diameter, {Kind::length, 0.1, 1.2, words("well's diameter")});
  v.number("depth_m", well.depth, {Kind::length, 0.02, 0.6, words("well's depth")});
  v.extra(well.extra);
}

constexpr std::size_t most_hot_parts = 12;

template <class V, Is<HotPart> T>
void fields(V& v, T& hot) {
  v.text("name", hot.name, words("name"), 40);
  v.number("x_m", hot.x, {Kind::length, -2, 7, words("behind the front axle")});
  v.number("y_m", hot.y, {Kind::length, -1.2, 1.2, words("left of the middle")});
  v.number("z_m", hot.z, {Kind::length, 0, 2, words("above the road")});
  v.number("to_x_m", hot.to_x, {Kind::length, -2, 7, words("other end behind the front axle")});
  v.number("to_y_m", hot.to_y, {Kind::length, -1.2, 1.2, words("other end left of the middle")});
  v.number("to_z_m", hot.to_z, {Kind::length, 0, 2, words("other end above the road")});
  v.number("radius_m", hot.radius, {Kind::length, 0.002, 0.3, words("radius")});
  v.choice("shielded", hot.shielded, words("shield"));
  v.extra(hot.extra);
}

template <class V, Is<Body> T>
void fields(V& v, T& body) {
  v.choice("style", body.style, words("body style"));
  v.number("wheelbase_m", body.wheelbase, {Kind::length, 1.2, 6.5, words("wheelbase")});
  v.number("front_overhang_m", body.front_overhang, {Kind::length, 0.1, 2.0, words("front overhang")});
  v.number("rear_overhang_m", body.rear_overhang, {Kind::length, 0.1, 3.0, words("rear overhang")});
  v.number("overall_height_m", body.overall_height, {Kind::length, 0.8, 3.5, words("overall height")});
  v.number("sill_height_m", body.sill_height, {Kind::length, 0.02, 1.0, words("sill height")});
  v.number("rating_kg", body.rating, {Kind::mass, 200, 9000, words("whole car's rating")});
  v.number("gravity_height_m", body.gravity_height, {Kind::length, 0.2, 1.6, words("height of gravity")});
  v.list("underside", body.underside, words("low point"), 0, most_low_points);
  v.object("boot", body.boot, "");
  v.object("well", body.well, "");
  v.list("hot", body.hot, words("hot part"), 0, most_hot_parts);
  v.extra(body.extra);
}

template <class V, Is<Corner> T>
void fields(V& v, T& corner) {
  v.readings("mass_kg", corner.mass, {Kind::mass, 20, 3000, words("weight")});
  v.readings("height_m", corner.height, {Kind::length, 0.05, 1.2, words("height")});
  v.number("floor_m", corner.floor, {Kind::length, -0.2, 0.2, words("floor")});
  v.extra(corner.extra);
}

constexpr std::size_t most_cycle_rows = 60, most_cycle_gaps = 8, most_gap_name = 40;
constexpr NumberSpec cycle_height{Kind::length, 0.05, 1.2, words("height")};
constexpr NumberSpec cycle_spring{Kind::length, 0.03, 1.0, words("spring seat distance")};
constexpr NumberSpec cycle_damper{Kind::length, 0.05, 1.5, words("damper length")};
constexpr NumberSpec cycle_angle{Kind::angle, -0.35, 0.35, words("angle")};
constexpr NumberSpec cycle_gap{Kind::length, -0.2, 1.0, words("gap")};

template <class V, Is<CycleGap> T>
void fields(V& v, T& gap) {
  v.text("name", gap.name, words("name"), most_gap_name);
  v.number("value_m", gap.value, cycle_gap);
  v.extra(gap.extra);
}

template <class V, Is<CycleRow> T>
void fields(V& v, T& row) {
  v.number("height_m", row.height, cycle_height);
  v.number("spring_m", row.spring, cycle_spring);
  v.number("damper_m", row.damper, cycle_damper);
  v.number("camber_rad", row.camber, cycle_angle);
  v.number("toe_rad", row.toe, cycle_angle);
  v.list("gaps", row.gaps, words("gap"), 0, most_cycle_gaps);
  v.extra(row.extra);
}

constexpr std::size_t most_points = 40;
constexpr NumberSpec point_along{Kind::length, -2.5, 2.5, words("place along the car")};
constexpr NumberSpec point_across{Kind::length, -1.5, 1.5, words("place across the car")};
constexpr NumberSpec point_up{Kind::length, -0.3, 1.8, words("place above the ground")};
constexpr NumberSpec turn_allowed{Kind::angle, 0.01, 1.6, words("angle the joint bears")};

template <class V, Is<HardPoint> T>
void fields(V& v, T& point) {
  v.text("name", point.name, words("joint"), 24);
  v.number("x_m", point.x, point_along);
  v.number("y_m", point.y, point_across);
  v.number("z_m", point.z, point_up);
  v.number("turn_allowed_rad", point.turn_allowed, turn_allowed);
  v.extra(point.extra);
}

template <class V, Is<HardPoints> T>
void fields(V& v, T& points) {
  v.list("left", points.left, words("joint"), 0, most_points);
  v.list("right", points.right, words("right joint"), 0, most_points);
  v.choice("spring_top", points.spring_top, words("upper spring seat"));
  v.choice("spring_foot", points.spring_foot, words("lower spring seat"));
  v.choice("damper_top", points.damper_top, words("upper damper eye"));
  v.choice("damper_foot", points.damper_foot, words("lower damper eye"));
  v.number("camber_rad", points.camber, {Kind::angle, -0.35, 0.35, words("camber as it stands")});
  v.number("toe_rad", points.toe, {Kind::angle, -0.35, 0.35, words("toe as it stands")});
  v.number("lock_rad", points.lock, {Kind::angle, 0.02, 1.0, words("steering lock")});
  v.extra(points.extra);
}

template <class V, Is<BarLink> T>
void fields(V& v, T& link) {
  v.number("arm_m", link.arm, {Kind::length, 0.03, 0.8, words("bar's arm")});
  v.number("arm_angle_rad", link.arm_angle, {Kind::angle, -1.3, 1.3, words("bar arm's angle")});
  v.number("length_m", link.length, {Kind::length, 0.02, 0.6, words("bar link")});
  v.number("pickup_ratio", link.pickup_ratio, {Kind::plain, 0.1, 1.5, words("bar link's motion ratio")});
  v.number("turn_allowed_rad", link.turn_allowed, turn_allowed);
  v.extra(link.extra);
}

template <class V, Is<BrakeHose> T>
void fields(V& v, T& hose) {
  v.number("length_m", hose.length, {Kind::length, 0.05, 1.5, words("brake hose")});
  v.number("across_m", hose.across, {Kind::length, 0, 1.2, words("hose ends apart, level")});
  v.number("down_m", hose.down, {Kind::length, -0.8, 0.8, words("hose's wheel end below")});
  v.number("lock_adds_m", hose.lock_adds, {Kind::length, 0, 0.3, words("hose at full lock, further apart")});
  v.extra(hose.extra);
}

template <class V, Is<Shaft> T>
void fields(V& v, T& shaft) {
  v.number("across_m", shaft.across, {Kind::length, 0.1, 3.5, words("shaft's joints apart, level")});
  v.number("down_m", shaft.down, {Kind::length, -0.6, 0.6, words("shaft's outer joint below")});
  v.number("turn_allowed_rad", shaft.turn_allowed, turn_allowed);
  v.number("plunge_in_m", shaft.plunge_in, {Kind::length, 0, 0.2, words("shaft may shorten by")});
  v.number("plunge_out_m", shaft.plunge_out, {Kind::length, 0, 0.2, words("shaft may lengthen by")});
  v.number("flange_angle_rad", shaft.flange_angle, {Kind::angle, -0.5, 0.5, words("flange's angle, nose up")});
  v.extra(shaft.extra);
}

constexpr std::size_t most_obstacles = 40;
constexpr NumberSpec obstacle_size{Kind::length, 0, 2.0, words("side of the box")};

template <class V, Is<Obstacle> T>
void fields(V& v, T& o) {
  v.text("name", o.name, words("name"), most_gap_name);
  v.choice("kind", o.kind, words("kind"));
  v.choice("shape", o.shape, words("shape"));
  v.choice("fixed_to", o.fixed_to, words("fixed"));
  v.choice("gap_from", o.gap_from, words("taped"));
  v.choice("gap_way", o.gap_way, words("where it lies"));
  v.choice("gap_at", o.gap_at, words("wheels"));
  v.number("gap_m", o.gap, cycle_gap);
  v.number("gap_height_m", o.gap_height, {Kind::length, 0.05, 1.2, words("height it was taped at")});
  v.number("x_m", o.x, point_along);
  v.number("y_m", o.y, point_across);
  v.number("z_m", o.z, point_up);
  v.number("to_x_m", o.to_x, point_along);
  v.number("to_y_m", o.to_y, point_across);
  v.number("to_z_m", o.to_z, point_up);
  v.number("size_x_m", o.size_x, obstacle_size);
  v.number("size_y_m", o.size_y, obstacle_size);
  v.number("size_z_m", o.size_z, obstacle_size);
  v.number("turn_rad", o.turn, {Kind::angle, -3.2, 3.2, words("turned")});
  v.number("radius_m", o.radius, {Kind::length, 0, 0.3, words("radius")});
  v.number("room_m", o.room, {Kind::length, 0, 0.3, words("room wanted")});
  v.extra(o.extra);
}

template <class V, Is<Arch> T>
void fields(V& v, T& arch) {
  v.number("lip_outward_m", arch.lip_outward, {Kind::length, -0.3, 0.4, words("arch lip outboard of the hub face")});
  v.extra(arch.extra);
}

template <class V, Is<Thickness> T>
void fields(V& v, T& t) {
  v.number("damper_m", t.damper, {Kind::length, 0.005, 0.15, words("damper body across")});
  v.number("arms_m", t.arms, {Kind::length, 0.005, 0.15, words("arms and links across")});
  v.number("axle_m", t.axle, {Kind::length, 0.01, 0.3, words("axle tube across")});
  v.extra(t.extra);
}

template <class V, Is<EndSurvey> T>
void fields(V& v, T& end) {
  v.choice("layout", end.layout, words("suspension"));
  v.choice("spring_place", end.spring_place, words("spring place"));
  v.choice("spring_seat", end.spring_seat, words("spring seat"));
  v.object("left", end.corners[0], words("left"));
  v.object("right", end.corners[1], words("right"));
  v.number("unsprung_kg", end.unsprung_mass, {Kind::mass, 5, 400, words("unsprung mass a corner")});
  v.number("track_m", end.track, {Kind::length, 0.8, 2.6, words("track")});
  v.number("rating_kg", end.rating, {Kind::mass, 100, 6000, words("axle rating")});
  v.text("wheel", end.wheel, words("tyre and wheel"), 60);
  v.readings("motion_ratio", end.motion_ratio, {Kind::plain, 0.1, 2.0, words("spring motion ratio")});
  v.readings("damper_ratio", end.damper_ratio, {Kind::plain, 0.1, 2.0, words("damper motion ratio")});
  v.readings("spring_length_m", end.spring_length, {Kind::length, 0.03, 1.0, words("spring seat distance")});
  v.readings("damper_length_m", end.damper_length, {Kind::length, 0.05, 1.5, words("damper length")});
  v.readings("damper_open_m", end.damper_open, {Kind::length, 0.05, 1.5, words("damper open")});
  v.readings("damper_shut_m", end.damper_shut, {Kind::length, 0.05, 1.5, words("damper shut")});
  v.readings("bump_stop_gap_m", end.bump_stop_gap, {Kind::length, 0, 0.4, words("bump stop gap")});
  v.choice("bump_stop_place", end.bump_stop_place, words("bump stop place"));
  v.number("bump_stop_give_m", end.bump_stop_give, {Kind::length, 0, 0.1, words("what the bump stop gives")});
  v.number("bag_room_m", end.bag_room, {Kind::length, 0.03, 0.8, words("room for the bag")});
  v.number("other_spring_rate_n_per_m", end.other_spring_rate,
           {Kind::stiffness, 0, 2e5, words("other springs' rate at the wheel")});
  v.number("other_spring_slack_m", end.other_spring_slack,
           {Kind::length, 0.05, 1.2, words("height where other springs go slack")});
  v.number("tyre_rate_n_per_m", end.tyre_rate, {Kind::stiffness, 5e4, 1e6, words("tyre's rate")});
  v.number("friction_n", end.friction, {Kind::force, 0, 2000, words("friction at the wheel")});
  v.number("bar_rate_n_m_per_rad", end.bar_rate, {Kind::turning, 0, 3e5, words("anti-roll bar")});
  v.number("roll_centre_m", end.roll_centre, {Kind::length, -0.4, 0.8, words("roll centre above the road")});
  v.number("spring_base_m", end.spring_base, {Kind::length, 0.3, 2.2, words("spring base")});
  v.list("cycle", end.cycle, words("cycle reading"), 0, most_cycle_rows);
  v.list("cycle_right", end.cycle_right, words("right cycle reading"), 0, most_cycle_rows);
  v.object("points", end.points, "");
  v.object("bar_link", end.bar_link, words("bar link"));
  v.object("hose", end.hose, words("brake hose"));
  v.object("shaft", end.shaft, words("shaft"));
  v.number("tyre_width_m", end.tyre_width, {Kind::length, 0.1, 0.6, words("tyre as mounted, across")});
  v.list("obstacles", end.obstacles, words("obstacle"), 0, most_obstacles);
  v.object("arch", end.arch, "");
  v.object("thickness", end.thickness, "");
  v.number("legal_height_m", end.legal_height, {Kind::length, 0.05, 1.2, words("legal least height")});
  v.extra(end.extra);
}

template <class V, Is<LoadMass> T>
void fields(V& v, T& mass) {
  v.text("name", mass.name, words("name"), 60);
  v.number("mass_kg", mass.mass, {Kind::mass, -1500, 3000, words("mass")});
  v.number("behind_front_axle_m", mass.x, {Kind::length, -3, 9, words("distance behind the front axle")});
  v.number("left_of_middle_m", mass.y, {Kind::length, -1.5, 1.5, words("distance left of the middle")});
  v.number("above_road_m", mass.z, {Kind::length, 0, 3, words("height above the road")});
  v.extra(mass.extra);
}

template <class V, Is<LoadCase> T>
void fields(V& v, T& load) {
  v.text("name", load.name, words("name"), 60);
  v.list("masses", load.masses, words("mass"), 0, 40);
  v.extra(load.extra);
}

template <class V, Is<HeightWish> T>
void fields(V& v, T& wish) {
  v.choice("as", wish.as, words("wanted as"));
  v.number("value_m", wish.value, {Kind::length, -0.5, 1.5, words("height")});
  v.extra(wish.extra);
}

template <class V, Is<Preset> T>
void fields(V& v, T& preset) {
  v.text("name", preset.name, words("name"), 40);
  v.choice("use", preset.use, words("use"));
  v.wish("front", preset.wish[0], words("front height"));
  v.wish("rear", preset.wish[1], words("rear height"));
  v.extra(preset.extra);
}

template <class V, Is<Rooms> T>
void fields(V& v, T& rooms) {
  v.number("tyre_m", rooms.tyre, {Kind::length, 0, 0.1, words("room round the tyre")});
  v.number("metal_m", rooms.metal, {Kind::length, 0, 0.1, words("room between metal parts")});
  v.number("hose_m", rooms.hose, {Kind::length, 0, 0.1, words("room to a hose")});
  v.number("brake_line_m", rooms.brake_line, {Kind::length, 0, 0.1, words("room to a brake line")});
  v.number("exhaust_m", rooms.exhaust, {Kind::length, 0, 0.3, words("room to a bare exhaust")});
  v.number("shielded_exhaust_m", rooms.shielded_exhaust, {Kind::length, 0, 0.3, words("room to a shielded exhaust")});
  v.number("tyre_growth_m", rooms.tyre_growth, {Kind::length, 0, 0.03, words("tyre grows by")});
  v.extra(rooms.extra);
}

constexpr std::size_t most_grounds = 12, most_profile_points = 200;

template <class V, Is<ProfilePoint> T>
void fields(V& v, T& p) {
  v.number("x_m", p.x, {Kind::length, -200, 200, words("place along the way")});
  v.number("z_m", p.z, {Kind::length, -20, 20, words("height of the ground")});
  v.extra(p.extra);
}

template <class V, Is<Ground> T>
void fields(V& v, T& g) {
  v.text("name", g.name, words("name"), 40);
  v.choice("over", g.over, words("got over at"));
  v.number("margin_m", g.margin, {Kind::length, 0, 0.2, words("kept under the car")});
  v.list("points", g.points, words("point of the ground"), 0, most_profile_points);
  v.extra(g.extra);
}

template <class V, Is<Brief> T>
void fields(V& v, T& brief) {
  v.list("presets", brief.presets, words("preset"), 0, 24);
  v.number("bump_travel_m", brief.bump_travel, {Kind::length, 0, 0.3, words("bump travel kept")});
  v.number("rebound_reserve_m", brief.rebound_reserve, {Kind::length, 0, 0.3, words("rebound reserve")});
  v.number("bag_margin_m", brief.bag_margin, {Kind::length, 0, 0.1, words("margin above the collapsed bag")});
  v.number("bag_clearance_m", brief.bag_clearance, {Kind::length, 0, 0.1, words("clearance around the bag")});
  v.number("road_pressure_share", brief.road_pressure_share,
           {Kind::share, 0.1, 1, words("road pressure, share of the bag's maximum")});
  v.number("frequency_low_hz", brief.frequency_low, {Kind::frequency, 0.3, 5, words("lowest body frequency wanted")});
  v.number("frequency_high_hz", brief.frequency_high,
           {Kind::frequency, 0.3, 5, words("highest body frequency wanted")});
  v.number("rear_quicker_low", brief.rear_quicker_low, {Kind::share, -0.5, 1, words("rear quicker by at least")});
  v.number("rear_quicker_high", brief.rear_quicker_high, {Kind::share, -0.5, 1, words("rear quicker by at most")});
  v.number("exponent", brief.exponent, {Kind::plain, 1, 1.4, words("exponent of quick movement")});
  v.number("settle_speed_m_per_s", brief.settle_speed, {Kind::road_speed, 2, 70, words("speed to settle flat at")});
  v.number("gauge_error_pa", brief.gauge_error, {Kind::pressure, 0, 2e5, words("gauge error, either way")});
  v.number("load_doubt_kg", brief.load_doubt, {Kind::mass, 0, 200, words("load known to, a corner, either way")});
  v.number("lean_wanted_rad", brief.lean_wanted, {Kind::angle, 0.002, 0.3, words("most lean at 0.3 g")});
  v.text("notes", brief.notes, words("wishes in words"), 4000);
  v.object("rooms", brief.rooms, "");
  v.list("grounds", brief.grounds, words("obstacle on the ground"), 0, most_grounds);
  v.object("air", brief.air, "");
  v.extra(brief.extra);
}

template <class V, Is<DamperPoint> T>
void fields(V& v, T& point) {
  v.number("speed_m_per_s", point.speed, {Kind::speed, 0.001, 5, words("rod speed")});
  v.number("bump_n", point.bump_force, {Kind::force, 0, 2e4, words("bump force")});
  v.number("rebound_n", point.rebound_force, {Kind::force, 0, 2e4, words("rebound force")});
  v.extra(point.extra);
}

template <class V, Is<Seat> T>
void fields(V& v, T& seat) {
  v.number("across_angle_rad", seat.across_angle, {Kind::angle, -0.8, 0.8, words("plate's angle from the front")});
  v.number("along_angle_rad", seat.along_angle, {Kind::angle, -0.8, 0.8, words("plate's angle from the side")});
  v.number("outward_m", seat.outward, {Kind::length, -0.4, 0.4, words("seat moved outward")});
  v.number("forward_m", seat.forward, {Kind::length, -0.4, 0.4, words("seat moved forward")});
  v.extra(seat.extra);
}

template <class V, Is<Mounting> T>
void fields(V& v, T& mounting) {
  v.choice("straight_at", mounting.straight_at, words("bag straight"));
  v.choice("held", mounting.held, words("bag's ends"));
  v.object("upper", mounting.upper, words("upper"));
  v.object("lower", mounting.lower, words("lower"));
  v.number("seat_raised_m", mounting.seat_raised, {Kind::length, -0.2, 0.2, words("spring seat raised")});
  v.number("damper_longer_m", mounting.damper_longer, {Kind::length, -0.15, 0.15, words("damper body set longer")});
  v.number("mount_thicker_m", mounting.mount_thicker, {Kind::length, -0.08, 0.08, words("upper mount thicker")});
  v.number("mount_outward_m", mounting.mount_outward, {Kind::length, -0.05, 0.05, words("upper mount moved outward")});
  v.number("pocket_offset_m", mounting.pocket_offset, {Kind::length, 0, 0.1, words("bag off the middle of its room")});
  v.number("drop_spindle_m", mounting.drop_spindle, {Kind::length, 0, 0.12, words("drop spindle")});
  v.extra(mounting.extra);
}

template <class V, Is<Workshop> T>
void fields(V& v, T& w) {
  v.number("caster_rad", w.caster, {Kind::angle, -0.3, 0.4, words("caster wanted")});
  v.number("shims", w.shims, {Kind::plain, 0, 40, words("shims at each arm")});
  v.number("shim_thickness_m", w.shim_thickness, {Kind::length, 0.0002, 0.02, words("one shim")});
  v.number("arms_offset_m", w.arms_offset, {Kind::length, -0.2, 0.2, words("arms' offset")});
  v.number("pins_m", w.pins, {Kind::length, 0.02, 0.6, words("pins' distance")});
  v.number("camber_rad", w.camber, {Kind::angle, -0.35, 0.35, words("camber wanted")});
  v.number("wedge_rad", w.wedge, {Kind::angle, -0.1, 0.1, words("flange turned by")});
  v.number("bolt_circle_m", w.bolt_circle, {Kind::length, 0.03, 0.4, words("flange's bolt circle")});
  v.number("left_right_m", w.left_right, {Kind::length, 0.2, 6, words("diagonal, frame left to axle right")});
  v.number("right_left_m", w.right_left, {Kind::length, 0.2, 6, words("diagonal, frame right to axle left")});
  v.number("frame_width_m", w.frame_width, {Kind::length, 0.2, 2.5, words("between the frame's points")});
  v.number("axle_width_m", w.axle_width, {Kind::length, 0.2, 2.5, words("between the axle's ends")});
  v.number("link_length_m", w.link_length, {Kind::length, 0.05, 2, words("link, joint to joint")});
  v.number("end_a_m", w.end_a, {Kind::length, 0, 0.3, words("first end's take-up")});
  v.number("end_b_m", w.end_b, {Kind::length, 0, 0.3, words("second end's take-up")});
  v.number("thread_length_m", w.thread_length, {Kind::length, 0.005, 0.3, words("thread of one end")});
  v.number("thread_diameter_m", w.thread_diameter, {Kind::length, 0.004, 0.06, words("thread's diameter")});
  v.number("rail_gap_m", w.rail_gap, {Kind::length, 0, 0.6, words("axle tube to rail")});
  v.number("rail_reserve_m", w.rail_reserve, {Kind::length, 0, 0.2, words("kept free over the tube")});
  v.extra(w.extra);
}

template <class V, Is<Check> T>
void fields(V& v, T& c) {
  v.text("what", c.what, words("check"), 80);
  v.text("digest", c.digest, words("what it was made on"), 40);
  v.number("figure_m", c.figure, {Kind::length, -1, 2, words("gap")});
  v.extra(c.extra);
}

template <class V, Is<EndFit> T>
void fields(V& v, T& fit) {
  v.text("bag", fit.bag, words("bag"), 80);
  v.number("upper_stack_m", fit.upper_stack, {Kind::length, 0, 0.4, words("upper stack")});
  v.number("lower_stack_m", fit.lower_stack, {Kind::length, 0, 0.4, words("lower stack")});
  v.number("damper_open_m", fit.damper_open, {Kind::length, 0.05, 1.5, words("fitted damper open")});
  v.number("damper_shut_m", fit.damper_shut, {Kind::length, 0.05, 1.5, words("fitted damper shut")});
  v.number("damper_gas_n", fit.damper_gas, {Kind::force, 0, 2000, words("gas force of the damper")});
  v.number("added_volume_m3", fit.added_volume, {Kind::volume, 0, 0.1, words("added volume")});
  v.number("line_bore_m", fit.line_bore, {Kind::length, 0.001, 0.08, words("line's bore")});
  v.number("line_length_m", fit.line_length, {Kind::length, 0, 10, words("line's length")});
  v.choice("line", fit.line, words("line"));
  v.choice("sides", fit.sides, words("left and right"));
  v.list("damper_curve", fit.damper_curve, words("damper point"), 0, 24);
  v.object("mounting", fit.mounting, "");
  v.object("workshop", fit.workshop, "");
  v.text("wheel", fit.wheel, words("other tyre and wheel"), 60);
  v.number("tyre_width_m", fit.tyre_width, {Kind::length, 0.1, 0.6, words("its tyre as mounted, across")});
  v.number("lip_rolled_m", fit.lip_rolled, {Kind::length, -0.02, 0.06, words("arch lip rolled out by")});
  v.list("checks", fit.checks, words("check"), 0, 80);
  v.number("learned_ratio", fit.learned_ratio, {Kind::share, 0.7, 1.4, words("learned: motion ratio")});
  v.number("learned_area", fit.learned_area, {Kind::share, 0.7, 1.4, words("learned: bag's area")});
  v.number("learned_friction_n", fit.learned_friction, {Kind::force, 0, 2000, words("learned: friction at the wheel")});
  v.extra(fit.extra);
}

template <class V, Is<Variant> T>
void fields(V& v, T& variant) {
  v.text("name", variant.name, words("variant name"), 40);
  v.object("front", variant.fit[0], words("front"));
  v.object("rear", variant.fit[1], words("rear"));
  v.object("brief", variant.brief, "");
  v.object("air", variant.air, words("air"));
  v.object("leveling", variant.leveling, words("leveling"));
  v.object("fit_up", variant.fit_up, "");
  v.object("proving", variant.proving, "");
  v.extra(variant.extra);
}

template <class V, Is<Surroundings> T>
void fields(V& v, T& s) {
  v.number("altitude_m", s.altitude, {Kind::altitude, -450, 6000, words("altitude")});
  v.number("temperature_k", s.temperature, {Kind::temperature, 213.15, 343.15, words("air temperature")});
  v.number("night_temperature_k", s.night_temperature, {Kind::temperature, 213.15, 343.15, words("cold night")});
  v.number("shut_off_above_k", s.shut_off_above, {Kind::temperature_step, 0, 80, words("bags warmer when shut off")});
  v.number("pass_altitude_m", s.pass_altitude, {Kind::altitude, -450, 6000, words("mountain pass")});
  v.number("worked_temperature_k", s.worked_temperature,
           {Kind::temperature, 213.15, 393.15, words("air in a worked bag")});
  v.number("humidity", s.humidity, {Kind::share, 0, 1, words("humidity")});
  v.extra(s.extra);
}

template <class V, Is<Build> T>
void fields(V& v, T& build) {
  v.object("job", build.job, "");
  v.object("body", build.body, "");
  v.object("front", build.ends.shared(0), words("front"));
  v.object("rear", build.ends.shared(1), words("rear"));
  v.list("load_cases", build.load_cases, words("load case"), 0, 40);
  v.list("variants", build.variants, words("variant"), 1, 26);
  v.index("active_variant", build.active_variant, build.variants.size());
  v.object("surroundings", build.surroundings, "");
  v.object("drive", build.drive, "");
  v.object("shop", build.shop, "");
  v.object("care", build.care, "");
  v.object("origin", build.origin, "");
  v.object("faults", build.faults, "");
  v.object("doubts", build.doubts, words("doubt"));
  v.extra(build.extra);
}

} // namespace mavrel::build
