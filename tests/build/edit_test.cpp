#include "build/edit.h"
#include "build/history.h"

#include "support.h"

namespace mavrel::build {
namespace {

TEST(Edit, TypesIntoAFieldByItsPath) {
  const auto build = with_text(test::demo_build(), "front.left.mass_kg", "900 lb; 410 kg", {});
  ASSERT_TRUE(build) << say(build.error());
  EXPECT_EQ(build->end(End::front).corners[0].mass.values.size(), 2U);
  const auto more = with_text(*build, "front.left.mass_kg", "+ 412", {});
  EXPECT_EQ(more->end(End::front).corners[0].mass.values.size(), 3U);
  EXPECT_TRUE(with_text(*build, "front.left.mass_kg", "", {})->end(End::front).corners[0].mass.values.empty());
  EXPECT_EQ(with_text(*build, "variants.1.name", "C", {})->variants[1].name, "C");
  EXPECT_EQ(with_choice(*build, "rear.layout", "torsion beam")->end(End::rear).layout, Layout::torsion_beam);
}

TEST(Edit, RefusesAndKeepsTheLastGoodValue) {
  const Build& demo = test::demo_build();
  for (const auto& [path, text] :
       {std::pair{"front.left.height_m", "3 kg"}, std::pair{"front.left.height_m", "12 m"},
        std::pair{"body.wheelbase_m", "long"}, std::pair{"nothing.here", "1"}, std::pair{"variants.9.name", "x"},
        std::pair{"front.layout", "wings"}, std::pair{"variants.0.brief.bump_travel_m", ""}, std::pair{"front", "1"},
        std::pair{"", "1"}}) {
    const auto build = with_text(demo, path, text, {});
    EXPECT_FALSE(build) << path << " took " << text;
    if (!build) {
      EXPECT_FALSE(say(build.error()).empty());
    }
  }
}

TEST(Edit, LooksUpWhatIsShown) {
  const auto height = look_up(test::demo_build(), "front.left.height_m", {});
  ASSERT_TRUE(height);
  EXPECT_EQ(say(height->label), "front left height");
  EXPECT_EQ(height->readings, 3U);
  EXPECT_EQ(height->shown, "381.2 mm");
  EXPECT_EQ(height->editable, "379 mm; 378 mm; 386.5 mm");
  EXPECT_FALSE(look_up(test::demo_build(), "rear.unsprung_kg", {})->filled);
  EXPECT_FALSE(look_up(test::demo_build(), "no.such", {}));
}

TEST(Edit, WishesSayHowTheyAreMeant) {
  EXPECT_EQ(*parse_wish("343 mm", {}), (HeightWish{HeightWish::As::height, 0.343, {}}));
  EXPECT_EQ(*parse_wish("2 f", {}), (HeightWish{HeightWish::As::gap, 0.034, {}}));
  EXPECT_EQ(*parse_wish("gap 30", {}), (HeightWish{HeightWish::As::gap, 0.030, {}}));
  EXPECT_EQ(*parse_wish("drop 60 mm", {}), (HeightWish{HeightWish::As::drop, 0.060, {}}));
  EXPECT_FALSE(parse_wish("low", {}));
  for (const auto as : {HeightWish::As::height, HeightWish::As::gap, HeightWish::As::drop}) {
    const HeightWish wish{as, 0.0625, {}};
    EXPECT_EQ(*parse_wish(show_wish(wish, {}), {}), wish);
  }
}

TEST(History, UndoReturnsTheIdenticalBuild) {
  EXPECT_TRUE(rc::check("undo", [] {
    History history(test::demo_build());
    std::vector<Build> states{history.now()};
    const int edits = *rc::gen::inRange(1, 12);
    for (int i = 0; i < edits; ++i) {
      Build next = history.now();
      next.body.wheelbase = test::between(2, 4);
      history.edit("Change wheelbase", next);
      states.push_back(next);
    }
    for (int i = edits; i > 0; --i) {
      RC_ASSERT(history.now() == states[static_cast<std::size_t>(i)]);
      history.undo();
    }
    RC_ASSERT(history.now() == states[0]);
    RC_ASSERT(!history.can_undo());
    for (int i = 0; i < edits; ++i)
      history.redo();
    RC_ASSERT(history.now() == states.back());
  }));
}

TEST(History, OneDragIsOneStep) {
  History history(empty_build());
  for (int i = 0; i < 20; ++i) {
    Build next = history.now();
    next.body.wheelbase = 2.0 + 0.01 * i;
    history.edit("Move", next, "drag 1");
  }
  history.end_gesture();
  EXPECT_EQ(history.undo_name(), "Move");
  history.undo();
  EXPECT_FALSE(history.can_undo());
  EXPECT_TRUE(history.is_saved()) << "back at what is in the file";
  history.redo();
  EXPECT_FALSE(history.is_saved());
}

} // namespace
} // namespace mavrel::build
