// From the joints in a document to what a linkage is solved from.
#include "assess/motion/geometry_of.h"

#include "build/end_survey.h"
#include "build/names.h"
#include "support.h"

#include <set>

namespace mavrel::assess {
namespace {

using build::Carrier;
using build::Layout;
using motion::Joint;
using motion::Part;
using motion::Shape;

build::EndSurvey on(Layout layout) {
  build::EndSurvey survey;
  survey.layout = layout;
  survey.spring_place = build::SpringPlace::apart;
  survey.spring_seat = build::SpringSeat::arm;
  for (build::HardPoint& p : usual_points(layout, 1.5, 0.31))
    survey.points.own().left.push_back(std::move(p));
  return survey;
}

TEST(GeometryOf, UsualJointsAreAllThatALayoutNeedsAndWhatAFileMayHold) {
  for (const auto& layout : build::names_of(Layout{})) {
    SCOPED_TRACE(layout.key);
    std::set<std::string> there;
    for (const double track : {1.2, 1.5, 1.9})
      for (const build::HardPoint& p : usual_points(layout.value, track, 0.33)) {
        there.insert(p.name);
        EXPECT_TRUE(motion::joint_from(p.name)) << p.name;
        EXPECT_TRUE(p.x >= build::point_along.least && p.x <= build::point_along.most);
        EXPECT_TRUE(p.y >= build::point_across.least && p.y <= build::point_across.most);
        EXPECT_TRUE(p.z >= build::point_up.least && p.z <= build::point_up.most);
        if (p.name == "wheel_centre") {
          EXPECT_NEAR(p.y, track / 2, 1e-3);
          EXPECT_NEAR(p.z, 0.33, 1e-9);
        }
      }
    for (const motion::JointRow& row : motion::joints_of(shape_of(layout.value)))
      if (row.needed) {
        EXPECT_TRUE(there.contains(motion::key_of(row.joint))) << motion::key_of(row.joint);
      }
    EXPECT_TRUE(joints_of_end(on(layout.value)));
  }
}

TEST(GeometryOf, EveryJointAndPartHasAKeyThatReadsBack) {
  for (std::size_t i = 0; i < motion::joint_count; ++i) {
    const auto joint = static_cast<Joint>(i);
    EXPECT_EQ(motion::joint_from(motion::key_of(joint)), joint);
  }
  for (const auto& carrier : build::names_of(Carrier{}))
    if (carrier.value != Carrier::usual) {
      const auto part = motion::part_from(carrier.key);
      ASSERT_TRUE(part) << carrier.key;
      EXPECT_STREQ(motion::key_of(*part), carrier.key);
    }
  EXPECT_FALSE(motion::joint_from("elbow"));
  EXPECT_FALSE(motion::part_from("usual"));
  std::set<std::string> names;
  for (std::size_t s = 0; s < motion::shape_count; ++s) {
    names.clear();
    for (const motion::JointRow& row : motion::joints_of(static_cast<Shape>(s)))
      EXPECT_TRUE(names.insert(row.name).second) << row.name << " twice in one table";
    EXPECT_FALSE(motion::parts_of(static_cast<Shape>(s)).empty());
    EXPECT_FALSE(motion::bars_of(static_cast<Shape>(s)).empty());
  }
}

TEST(GeometryOf, WhatCarriesTheSpringIsAsUsualUntilSomebodySaysOtherwise) {
  const auto foot = [](build::EndSurvey survey, build::SpringSeat seat) {
    survey.spring_seat = seat;
    return joints_of_end(survey).value().side[0].spring_foot;
  };
  EXPECT_EQ(foot(on(Layout::double_wishbone), build::SpringSeat::arm), Part::lower_arm);
  EXPECT_EQ(foot(on(Layout::double_wishbone), build::SpringSeat::upright), Part::upright);
  EXPECT_EQ(foot(on(Layout::trailing_arm), build::SpringSeat::upright), Part::arm) << "one and the same there";
  EXPECT_EQ(foot(on(Layout::axle_parallel_links), build::SpringSeat::axle), Part::axle);
  build::EndSurvey strut = on(Layout::strut);
  strut.spring_place = build::SpringPlace::around_damper;
  EXPECT_EQ(foot(strut, build::SpringSeat::arm), Part::upright) << "around the damper it goes with the damper";
  // On a multi-link the link that runs nearest to the seat.
  build::EndSurvey links = on(Layout::multi_link);
  const auto nearest = foot(links, build::SpringSeat::arm);
  EXPECT_TRUE(nearest == Part::link1 || nearest == Part::link2);
  build::EndSurvey said = on(Layout::double_wishbone);
  said.points.own().spring_foot = Carrier::upper_arm;
  said.points.own().spring_top = Carrier::lower_arm;
  EXPECT_EQ(foot(said, build::SpringSeat::arm), Part::upper_arm);
  EXPECT_EQ(joints_of_end(said).value().side[0].spring_top, Part::lower_arm);
  said.points.own().damper_foot = Carrier::axle;
  EXPECT_FALSE(joints_of_end(said)) << "a wishbone has no axle";
}

TEST(GeometryOf, TheRightMirrorsTheLeftWhereItIsNotMeasured) {
  build::EndSurvey survey = on(Layout::double_wishbone);
  EXPECT_FALSE(joints_of_end(survey).value().differ);
  survey.points.own().right.push_back({"lower_outer", 0.002, -0.71, 0.18, {}, {}});
  const auto joints = joints_of_end(survey).value();
  EXPECT_TRUE(joints.differ);
  EXPECT_NEAR(joints.side[1].at(Joint::lower_outer)->y, 0.71, 1e-12) << "given as a left side";
  EXPECT_EQ(joints.side[1].at(Joint::upper_outer), joints.side[0].at(Joint::upper_outer));
  // A lateral bar has no other side.
  build::EndSurvey axle = on(Layout::axle_parallel_links);
  axle.points.own().right.push_back({"bar_body", 0, -0.4, 0.4, {}, {}});
  EXPECT_FALSE(joints_of_end(axle).value().differ);
}

TEST(GeometryOf, AnothersJointsAreLeftAloneAndDoubledOnesNamed) {
  build::EndSurvey survey = on(Layout::trailing_arm);
  survey.points.own().left.push_back({"lower_outer", 0, 0.7, 0.2, {}, {}});
  survey.points.own().left.push_back({"my mark", 0, 0.7, 0.2, {}, {}});
  EXPECT_TRUE(joints_of_end(survey));
  survey.points.own().left.push_back({"hinge_outer", 0.3, 0.6, 0.3, {}, {}});
  const auto trouble = joints_of_end(survey);
  ASSERT_FALSE(trouble);
  EXPECT_EQ(trouble.error().joint, "hinge_outer");
  EXPECT_EQ(trouble.error().side, Side::left);
  build::EndSurvey right = on(Layout::trailing_arm);
  right.points.own().right.push_back({"hinge_outer", 0.42, -0.34, 0.28, {}, {}}); // onto the inner end
  const auto there = joints_of_end(right);
  ASSERT_FALSE(there);
  EXPECT_EQ(there.error().side, Side::right);
}

} // namespace
} // namespace mavrel::assess
