// How an end moves, from its joints or its sheet, and what that does to its windows.
#include "assess/motion/end_motion.h"

#include "assess/asked.h"
#include "assess/motion/agreement.h"
#include "assess/motion/travel_ends.h"
#include "assess/rows.h"
#include "build/names.h"

#include <cmath>

namespace mavrel::assess {
namespace {

using build::Layout;

/// The front of the estate on the usual joints of a layout.
Build on_joints(Layout layout) {
  return with(test::demo_build(), [&](Build& b) {
    build::EndSurvey& e = b.ends[0];
    e.layout = layout;
    e.spring_place = build::SpringPlace::apart;
    e.spring_seat = build::SpringSeat::arm;
    e.motion_ratio = e.damper_ratio = e.spring_length = e.damper_length = {};
    for (build::HardPoint& p : usual_points(layout, e.track, 0.3126))
      e.points.own().left.push_back(std::move(p));
  });
}

EndMotion motion_of(const Build& build, End end = End::front) {
  return end_motion(motion_given(build, Answered<SurveyQuestion>(survey_given(build, end))));
}

build::HardPoint& joint(Build& b, const std::string& name) {
  auto& left = b.ends[0].points.own().left;
  for (std::size_t i = 0; i < left.size(); ++i)
    if (left[i].name == name) return left[i];
  throw std::runtime_error("no joint " + name);
}

TEST(EndMotion, EveryLayoutMovesOnItsUsualJoints) {
  for (const auto& row : build::names_of(Layout{})) {
    SCOPED_TRACE(row.key);
    const Build build = on_joints(row.value);
    const EndMotion motion = motion_of(build);
    ASSERT_FALSE(motion.trouble) << say(motion.trouble->what);
    ASSERT_GT(motion.poses.size(), 20U);
    EXPECT_LE(motion.lowest, 0.379 - 0.07);
    EXPECT_GE(motion.highest, 0.379 + 0.05);
    ASSERT_TRUE(motion.spring);
    const double ratio = motion.spring->read(0.379).slope;
    const Usual usual = stand_ins(row.value).motion_ratio;
    EXPECT_NEAR(ratio, usual.value, 3.2 * usual.doubt) << "usual joints are of a usual car";
    // The curve is the poses'.
    for (const EndPose& pose : motion.poses)
      if (pose.H >= motion.lowest && pose.H <= motion.highest) {
        EXPECT_NEAR(motion.spring->read(pose.H).value, pose.spring->length, 6e-6);
        // At its very ends a polynomial's slope is less sure than its value.
        if (std::abs(pose.H - 0.379) < 0.12) {
          EXPECT_NEAR(motion.spring->read(pose.H).slope, pose.spring->ratio, 1e-3);
        }
      }
  }
}

TEST(EndMotion, TheMapIsTheJointsAndTheWindowsFollow) {
  const Assessment straight = assess(test::read_once(test::pickup_with_joints()), test::demo_shelf());
  const Assessment solved = assess(test::pickup_with_joints(), test::demo_shelf());
  EXPECT_EQ(straight.end(End::front).spring_from, MapSource::single_reading);
  EXPECT_EQ(solved.end(End::front).spring_from, MapSource::hard_points);
  EXPECT_EQ(solved.end(End::rear).spring_from, MapSource::hard_points);
  EXPECT_NEAR(*solved.end(End::front).motion_ratio, 0.62, 0.01);
  ASSERT_TRUE(straight.end(End::front).windows.reach && solved.end(End::front).windows.reach);
  EXPECT_NE(straight.end(End::front).windows.reach->low.height, solved.end(End::front).windows.reach->low.height);
  for (const TrackRow* row : {&tracks::motion_ratio, &tracks::bag_tilt, &tracks::camber, &tracks::toe, &tracks::caster})
    EXPECT_NE(find_track(solved.end(End::front).tracks, *row), nullptr) << row->key;
  EXPECT_NE(find_track(solved.end(End::rear).tracks, tracks::pinion), nullptr);
}

TEST(EndMotion, ATapeGoesBeforeJoints) {
  Build build = on_joints(Layout::double_wishbone);
  for (int i = 0; i < 7; ++i)
    build.ends[0].cycle.push_back({0.33 + 0.015 * i, 0.19 + 0.7 * (0.015 * i - 0.049), {}, {}, {}, {}, {}});
  const EndMotion motion = motion_of(build);
  EXPECT_EQ(motion.spring_from, MapSource::cycle_sheet);
  EXPECT_NEAR(motion.spring->read(0.379).slope, 0.7, 1e-6);
  ASSERT_FALSE(motion.poses.empty()) << "the joints still tell camber and tilt";
}

TEST(EndMotion, ADesignThatMovesASeatMovesTheCurve) {
  const Build as_found = on_joints(Layout::double_wishbone);
  const Build inward = with(as_found, [](Build& b) {
    b.variant().fit[0].mounting.upper.outward = b.variant().fit[0].mounting.lower.outward = -0.03;
  });
  const double before = motion_of(as_found).spring->read(0.379).slope,
               after = motion_of(inward).spring->read(0.379).slope;
  EXPECT_LT(after, before - 0.03) << "further in on the arm it moves less";
  // With a tape's curve the same change is made to that.
  const auto taped = [](Build b) {
    for (int i = 0; i < 7; ++i)
      b.ends[0].cycle.push_back({0.33 + 0.015 * i, 0.19 + 0.7 * (0.015 * i - 0.049), {}, {}, {}, {}, {}});
    return b;
  };
  EXPECT_NEAR(motion_of(taped(inward)).spring->read(0.379).slope - motion_of(taped(as_found)).spring->read(0.379).slope,
              after - before, 1e-3);
}

TEST(EndMotion, AContactMovesSquareToTheLineToWhatItTurnsAbout) {
  // A trailing arm turns about one line: the contact goes along the circle about that.
  const Build build = on_joints(Layout::trailing_arm);
  const EndMotion motion = motion_of(build);
  const motion::Geometry& g = motion.joints->side[0];
  const auto at = [&](const char* name) {
    for (const motion::JointRow& row : motion::joints_of(g.shape))
      if (motion::key_of(row.joint) == std::string(name)) return *g.at(row.joint);
    throw std::runtime_error(name);
  };
  const motion::Point inner = at("hinge_inner"), outer = at("hinge_outer"), hub = at("wheel_centre");
  const motion::Point axis = space::unit(outer - inner), arm = motion::Point{hub.x, hub.y, 0} - inner;
  const motion::Point goes = space::cross(axis, arm);
  EXPECT_NEAR(motion.contact_forward(motion.surveyed_height).value(), goes.x / goes.z, 0.02);
  EXPECT_FALSE(motion.contact_forward(2));
  EXPECT_FALSE(motion_of(test::demo_build()).contact_forward(0.37)) << "nobody measured joints there";
}

TEST(EndMotion, ATapedSeatDistanceAndJointsCountByHowSureTheyAre) {
  Build build = on_joints(Layout::double_wishbone);
  const EndMotion by_joints = motion_of(build);
  const double apart = by_joints.seats_by_joints.value();
  EXPECT_FALSE(by_joints.seats_combined);
  const auto length = [](const EndMotion& m) { return m.spring->read(m.surveyed_height).value; };
  EXPECT_NEAR(length(by_joints), apart, 1e-5);
  for (const double off : {-0.006, 0.004}) {
    build.ends[0].spring_length.values = {apart + off};
    const double point = build.doubts.point, tape = build.doubts.tape;
    const double share = 2 * point * point / (2 * point * point + tape * tape);
    const EndMotion both = motion_of(build);
    EXPECT_TRUE(both.seats_combined);
    EXPECT_EQ(both.seats_by_joints, apart);
    EXPECT_NEAR(length(both), apart + share * off, 2e-5);
    // Taped four times it counts four times.
    build.ends[0].spring_length.values = {apart + off, apart + off, apart + off, apart + off};
    const double surer = 2 * point * point / (2 * point * point + tape * tape / 4);
    EXPECT_NEAR(length(motion_of(build)), apart + surer * off, 2e-5);
  }
  // So far off one of them is wrong, and which nobody knows: the joints stand, and it is said.
  build.ends[0].spring_length.values = {apart + 0.04};
  EXPECT_NEAR(length(motion_of(build)), apart, 1e-5);
  EXPECT_NE(finding(assess(build, test::demo_shelf()), "joints_against_tape"), nullptr);
  // A sheet is the tape already.
  build.ends[0].spring_length.values = {apart + 0.004};
  for (int i = 0; i < 7; ++i)
    build.ends[0].cycle.push_back({0.33 + 0.015 * i, 0.19 + 0.7 * (0.015 * i - 0.049), {}, {}, {}, {}, {}});
  EXPECT_FALSE(motion_of(build).seats_combined);
}

TEST(EndMotion, WhatIsWrongNamesItsJointAndLeavesTheRestStanding) {
  Build build = on_joints(Layout::double_wishbone);
  joint(build, "upper_outer").x = 5; // typed in millimetres too far, or as metres
  joint(build, "upper_outer") = joint(build, "upper_front");
  joint(build, "upper_front").name = "upper_outer";
  const EndMotion motion = motion_of(build);
  ASSERT_TRUE(motion.trouble);
  EXPECT_FALSE(motion.spring);
  const Assessment a = assess(build, test::demo_shelf());
  EXPECT_NE(finding(a, "joints_unusable"), nullptr);
  EXPECT_TRUE(a.end(End::front).has_domain()) << "usual figures stand in";
}

TEST(EndMotion, TheRightSideOfItsOwnIsMeantIn) {
  Build build = on_joints(Layout::double_wishbone);
  build::HardPoint right = joint(build, "spring_foot");
  right.y = -right.y + 0.04;
  build.ends[0].points.own().right.push_back(right);
  const EndMotion both = motion_of(build), left = motion_of(on_joints(Layout::double_wishbone));
  ASSERT_FALSE(both.right_poses.empty());
  EXPECT_LT(both.spring->read(0.379).slope, left.spring->read(0.379).slope);
  const double mean = 0.5 * (both.nearest(0.379).spring->ratio + both.right_poses[both.poses.size() / 2].spring->ratio);
  EXPECT_NEAR(both.spring->read(0.379).slope, mean, 0.01);
}

TEST(EndMotion, ARightSheetThatDoesNotHoldTheCarsHeightIsNotReckonedWith) {
  Build build = test::demo_with_sheets();
  const auto left = motion_of(build);
  for (const double H : {0.42, 0.43, 0.44, 0.45})
    build.ends[0].cycle_right.push_back({H, H - 0.2, {}, {}, {}, {}, {}});
  const auto with_right = motion_of(build);
  EXPECT_EQ(with_right.lowest, left.lowest);
  EXPECT_EQ(with_right.spring->read(0.36).value, left.spring->read(0.36).value);
}

TEST(EndMotion, ABodySetLongerMovesUsualDamperEndsAsMeasuredOnes) {
  for (const bool measured : {true, false}) {
    const Build found = with(test::demo_build(), [&](Build& b) {
      if (!measured) b.ends[0].damper_open = b.ends[0].damper_shut = {};
    });
    const Build longer = with(found, [](Build& b) { b.variant().fit[0].mounting.damper_longer = 0.02; });
    const EndModel before = end_model(found, End::front), after = end_model(longer, End::front);
    EXPECT_NEAR(*after.damper_open, *before.damper_open + 0.02, 1e-12);
    EXPECT_NEAR(*after.damper_shut, *before.damper_shut + 0.02, 1e-12);
  }
}

TEST(EndMotion, ChangingCaseOrPresetSolvesNoJointAnew) {
  Assessor assessor;
  Build build = test::pickup_with_joints();
  const auto first = assessor.assess(build, test::demo_shelf());
  build.variant().brief.presets[0].wish[0]->value -= 0.002;
  const auto second = assessor.assess(build, test::demo_shelf());
  EXPECT_TRUE(first->ends[0].given().motion().same(second->ends[0].given().motion()));
  EXPECT_FALSE(first->ends[0].same(second->ends[0]));
}

// ---- what else runs out

const Stretch* blocked_by(const Assessment& a, End end, const Limit& limit) {
  for (const Stretch& s : a.end(end).windows.reach_blocked)
    if (s.limit == &limit) return &s;
  return nullptr;
}

TEST(RunsOut, AHoseIsTightWhereItIsStraight) {
  const Build build = with(test::demo_build(), [](Build& b) { b.ends[0].hose = {0.25, 0.12, 0.16, 0.0, {}}; });
  const Assessment a = assess(build, test::demo_shelf());
  const Stretch* tight = blocked_by(a, End::front, limits::brake_hose);
  ASSERT_NE(tight, nullptr);
  // By hand: straight less 25 mm is 225 mm; across 120 mm leaves √(225² − 120²) down.
  const double H = *a.end(End::front).surveyed_height - 0.16 + std::sqrt(0.225 * 0.225 - 0.12 * 0.12);
  EXPECT_NEAR(tight->from, H, 1e-4);
  const auto& high = a.end(End::front).windows.reach->high;
  ASSERT_EQ(high.governing->limit, &limits::brake_hose);
  // A metre of hose more: the slope of its own triangle.
  EXPECT_NEAR(*high.height_per_metre, 0.225 / std::sqrt(0.225 * 0.225 - 0.12 * 0.12), 5e-3);
  Build longer = build;
  *longer.ends[0].hose.length += 0.01;
  EXPECT_NEAR(blocked_by(assess(longer, test::demo_shelf()), End::front, limits::brake_hose)->from - H,
              0.01 * *high.height_per_metre, 5e-4);
}

TEST(RunsOut, AHoseTooShortAlreadyBlocksFromWhereItWouldDo) {
  const Build build = with(test::demo_build(), [](Build& b) { b.ends[0].hose = {0.20, 0.12, 0.16, 0, {}}; });
  const auto motion = motion_of(build);
  ASSERT_EQ(motion.travel_ends.size(), 1U);
  EXPECT_FALSE(motion.travel_ends[0].below);
  EXPECT_NEAR(motion.travel_ends[0].height, motion.surveyed_height - 0.16 + std::sqrt(0.175 * 0.175 - 0.12 * 0.12),
              1e-4);
}

TEST(RunsOut, ShaftsBendAndPlunge) {
  const Build build =
      with(test::demo_build(), [](Build& b) { b.ends[0].shaft = {0.40, 0.02, 0.30, 0.012, 0.02, 0, {}, {}}; });
  const auto at = [&](double dh) { return running_out(build.ends[0], dh, nullptr); };
  EXPECT_NEAR(*at(0).shaft_angle, std::atan2(0.02, 0.40), 1e-9);
  EXPECT_NEAR(*at(0.06).plunge, std::hypot(0.40, 0.08) - std::hypot(0.40, 0.02), 1e-9);
  const auto motion = motion_of(build);
  const auto ends = [&](Runs what, bool below) -> std::optional<double> {
    for (const TravelEnd& r : motion.travel_ends)
      if (r.what == what && r.below == below) return r.height - motion.surveyed_height;
    return std::nullopt;
  };
  EXPECT_NEAR(ends(Runs::shaft_angle, false).value(), 0.40 * std::tan(0.30) - 0.02, 1e-4);
  EXPECT_NEAR(ends(Runs::shaft_angle, true).value(), -0.40 * std::tan(0.30) - 0.02, 1e-4);
}

TEST(RunsOut, ABarLinkBindsAndTheOneThatStandsSquareDoesNot) {
  build::BarLink link{0.20, 0.35, 0.10, 1.0, 0.5, {}};
  const double square = centred_link(link, -0.03).value();
  // By hand: the lower joint hangs 0.10 under the arm's end as surveyed and has come up 30 mm.
  EXPECT_NEAR(square, std::hypot(0.20 - 0.20 * std::cos(0.35), 0.20 * std::sin(0.35) - 0.10 + 0.03), 1e-9);
  const auto reach = [&](double length) {
    const Build build = with(test::demo_build(), [&](Build& b) {
      b.ends[0].bar_link = link;
      b.ends[0].bar_link.length = length;
    });
    const auto motion = motion_of(build);
    double low = -0.2, high = 0.2;
    for (const TravelEnd& r : motion.travel_ends)
      (r.below ? low : high) = r.height - motion.surveyed_height;
    return std::pair{low, high};
  };
  EXPECT_GT(reach(0.10).second, 0);
  EXPECT_FALSE(centred_link({}, 0));
}

TEST(RunsOut, AJointsAngleIsALimitWithItsName) {
  Build build = on_joints(Layout::double_wishbone);
  const auto ends = [&] {
    std::vector<TravelEnd> out;
    for (const TravelEnd& r : motion_of(build).travel_ends)
      if (r.what == Runs::joint_angle) out.push_back(r);
    return out;
  };
  joint(build, "lower_outer").turn_allowed = 0.15;
  const auto straight = ends();
  ASSERT_EQ(straight.size(), 2U);
  EXPECT_STREQ(straight[0].part, "lower ball joint");
  EXPECT_TRUE(straight[0].below);
  EXPECT_FALSE(straight[1].below);
  // Full lock must not count as bending: the stud spins in its socket.
  build.ends[0].points.own().lock = 0.5;
  const auto locked = ends();
  EXPECT_NEAR(locked[0].height, straight[0].height, 0.012);
  // A rod's inner end is bent by lock too.
  joint(build, "lower_outer").turn_allowed.reset();
  joint(build, "rod_inner").turn_allowed = 0.25;
  const auto rod_locked = ends();
  build.ends[0].points.own().lock.reset();
  EXPECT_GT(rod_locked[0].height, ends()[0].height);
}

// ---- sheet against joints

/// Taped from joints of which one lies elsewhere than was written down.
Build taped(const Build& build, const std::string& name, double by, std::size_t wrong_row = 99, double wrong_by = 0) {
  Build really = build, out = build;
  if (!name.empty()) joint(really, name).y += by;
  const motion::CornerLinkage linkage(joints_of_end(really.ends[0]).value().side[0]);
  const double H0 = surveyed_end(survey_given(build, End::front)).height.value();
  for (std::size_t i = 0; i < 9; ++i) {
    const double dh = -0.05 + 0.0125 * static_cast<double>(i);
    build::CycleRow row;
    row.height = H0 + dh;
    row.spring = linkage.solve(dh).value().spring->length + (i == wrong_row ? wrong_by : 0);
    out.ends[0].cycle.push_back(row);
  }
  return out;
}
std::vector<Disagreement> apart(const Build& build) {
  const auto given = survey_given(build, End::front);
  return disagreements(surveyed_end(given), given.survey);
}

TEST(SheetAgainstJoints, AgreesWithinTheTapesError) {
  EXPECT_TRUE(apart(taped(on_joints(Layout::double_wishbone), "", 0)).empty());
  EXPECT_TRUE(apart(taped(on_joints(Layout::double_wishbone), "", 0, 4, 0.0012)).empty());
}

TEST(SheetAgainstJoints, NamesTheReadingThatIsOut) {
  const auto found = apart(taped(on_joints(Layout::double_wishbone), "", 0, 6, 0.01));
  ASSERT_EQ(found.size(), 1U);
  EXPECT_EQ(found[0].doubtful_row, 6U);
  EXPECT_FALSE(found[0].doubtful_joint);
}

TEST(SheetAgainstJoints, NamesTheJointThatWouldExplainIt) {
  const auto found = apart(taped(on_joints(Layout::double_wishbone), "spring_foot", 0.025));
  ASSERT_EQ(found.size(), 1U);
  EXPECT_FALSE(found[0].doubtful_row);
  ASSERT_TRUE(found[0].doubtful_joint);
  // Whichever it names, moved by so much it does explain it.
  Build mended = taped(on_joints(Layout::double_wishbone), "spring_foot", 0.025);
  build::HardPoint& p = joint(mended, motion::key_of(*found[0].doubtful_joint));
  (found[0].axis == 'x' ? p.x : found[0].axis == 'y' ? p.y : p.z) += found[0].shift;
  EXPECT_TRUE(apart(mended).empty());
}

} // namespace
} // namespace mavrel::assess
