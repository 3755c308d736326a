// Lists of the document keep to what a file may hold, whoever edits them.
#include "build/list_edit.h"

#include "build/edit.h"
#include "build/history.h"
#include "build/json.h"
#include "support.h"

#include <fmt/format.h>

namespace mavrel::build {
namespace {

struct Full {
  const char* list;
  Entry entry;
  std::size_t most;
};

std::vector<Full> lists() {
  return {{"load_cases", LoadCase{"more", {}, {}}, 40},
          {"load_cases.0.masses", LoadMass{"more", 1, 1, 0, {}}, 40},
          {"variants", Variant{"more", {}, {}, {}, {}, {}}, 26},
          {"variants.0.brief.presets", Preset{"more", PresetUse::other, {}, {}, {}}, 24},
          {"variants.0.rear.damper_curve", DamperPoint{1, 2, 3, {}}, 24},
          {"rear.cycle", CycleRow{}, 60}};
}

TEST(ListEdit, EveryListFillsToItsMaximumAndWhatIsFullStillOpens) {
  for (const Full& one : lists()) {
    Build build = test::demo_build();
    std::size_t added = 0;
    for (auto next = with_entry(build, one.list, one.entry); next; next = with_entry(build, one.list, one.entry)) {
      build = *next;
      ASSERT_LT(++added, 100U) << one.list << " has no end";
    }
    const auto refused = with_entry(build, one.list, one.entry);
    ASSERT_FALSE(refused);
    EXPECT_NE(say(refused.error()).find(std::to_string(one.most)), std::string::npos) << say(refused.error());
    const auto again = from_json(to_json(build));
    ASSERT_TRUE(again) << one.list << ": " << say(again.error());
    EXPECT_EQ(*again, build);
  }
}

TEST(ListEdit, AnEntryGoesAndTheOthersStay) {
  const Build& build = test::demo_build();
  const auto without = without_entry(build, "load_cases.1");
  ASSERT_TRUE(without);
  ASSERT_EQ(without->load_cases.size(), build.load_cases.size() - 1);
  EXPECT_EQ(without->load_cases[1], build.load_cases[2]);
}

TEST(ListEdit, TheLastVariantStaysAndTheActiveOneIsAlwaysThere) {
  Build build = with_active(test::demo_build(), 2);
  EXPECT_EQ(without_entry(build, "variants.2")->active_variant, 1U) << "its neighbour";
  EXPECT_EQ(without_entry(build, "variants.0")->active_variant, 1U) << "the same one, one place nearer";
  build = with_active(build, 0);
  EXPECT_EQ(without_entry(build, "variants.2")->active_variant, 0U);
  while (build.variants.size() > 1)
    build = without_entry(build, "variants.1").value();
  EXPECT_FALSE(without_entry(build, "variants.0"));
}

TEST(ListEdit, WhatIsNoListIsNamed) {
  const Build& build = test::demo_build();
  for (const char* path : {"", "front", "load_cases.99.masses", "variants.x.brief.presets", "nonsense"})
    EXPECT_FALSE(with_entry(build, path, LoadCase{})) << path;
  EXPECT_FALSE(with_entry(build, "load_cases", DamperPoint{})) << "an entry of another kind";
  for (const char* path : {"", "load_cases", "load_cases.99", "load_cases.-1", "front.left", "load_cases.0.masses."})
    EXPECT_FALSE(without_entry(build, path)) << path;
}

// ---- undo

Build named(const char* name) {
  Build out = empty_build();
  out.job.car = name;
  return out;
}

TEST(History, AnEditThatChangesNothingIsNone) {
  History history(named("a"));
  history.edit("to b", named("b"));
  history.undo();
  history.edit("nothing", named("a"));
  EXPECT_FALSE(history.can_undo());
  EXPECT_TRUE(history.can_redo()) << "what was undone can still be done again";
}

TEST(History, AGestureBackToItsBeginningLeavesNoStepAndKeepsWhatWasUndone) {
  History history(named("a"));
  history.edit("to b", named("b"));
  history.edit("to c", named("c"));
  history.undo();
  history.edit("drag", named("x"), "flag 1");
  history.edit("drag", named("y"), "flag 1");
  EXPECT_FALSE(history.can_redo()) << "while it is dragged";
  history.edit("drag", named("b"), "flag 1");
  EXPECT_TRUE(history.end_gesture());
  EXPECT_EQ(history.now().job.car, "b");
  EXPECT_EQ(history.undo_name(), "to b");
  ASSERT_TRUE(history.can_redo());
  history.redo();
  EXPECT_EQ(history.now().job.car, "c");
}

TEST(History, AGestureThatMovedIsOneStep) {
  History history(named("a"));
  history.edit("drag", named("x"), "flag 1");
  history.edit("drag", named("y"), "flag 1");
  EXPECT_FALSE(history.end_gesture());
  history.edit("drag", named("z"), "flag 1");
  history.undo();
  EXPECT_EQ(history.now().job.car, "y") << "another drag of the same flag is another step";
  history.undo();
  EXPECT_EQ(history.now().job.car, "a");
}

TEST(History, LookingAtAnotherVariantIsNoEditAndNothingToSave) {
  History history(test::demo_build());
  history.look(with_active(history.now(), 1));
  EXPECT_TRUE(history.is_saved());
  EXPECT_FALSE(history.can_undo());
  EXPECT_EQ(history.now().active_variant, 1U);
  Build edited = history.now();
  edited.job.car = "other";
  history.edit("name it", edited);
  EXPECT_FALSE(history.is_saved());
  history.look(with_active(history.now(), 2));
  EXPECT_FALSE(history.is_saved()) << "looking saves nothing either";
  history.undo();
  EXPECT_TRUE(history.is_saved());
}

// ---- what a file may hold

std::string with_extra(const std::string& value) {
  std::string text = to_json(test::demo_build());
  text.insert(text.rfind('}'), ",\"from_elsewhere\":" + value + "\n");
  return text;
}

TEST(BuildFile, UnknownKeysAreCarriedAlongButNeverSwellItPastWhatOpens) {
  std::string list = "[0";
  for (int i = 1; i < 15000; ++i)
    list += ",1E9"; // each grows to ten letters and a line of its own
  const auto carried = from_json(with_extra(list + "]"));
  ASSERT_TRUE(carried) << say(carried.error());
  const std::string again = to_json(*carried);
  EXPECT_TRUE(from_json(again)) << "what was read can be written and read";
  EXPECT_LT(again.size(), file_limit);
  for (int i = 0; i < 10000; ++i)
    list += ",1";
  const auto too_many = from_json(with_extra(list + "]"));
  ASSERT_FALSE(too_many);
  EXPECT_NE(say(too_many.error()).find("from_elsewhere"), std::string::npos);
  EXPECT_FALSE(from_json(with_extra("\"" + std::string(1'200'000, 'x') + "\"")));
}

TEST(BuildFile, WhatNoBuildHoldsIsRefusedBeforeItIsRead) {
  std::string objects = "[{}";
  for (int i = 0; i < 210'000; ++i)
    objects += ",{}";
  const auto many = from_json(with_extra(objects + "]"));
  ASSERT_FALSE(many);
  EXPECT_NE(say(many.error()).find("more than 200000 values"), std::string::npos) << say(many.error());
  std::string keys = "{\"k\":0";
  for (int i = 0; i < 600; ++i)
    keys += fmt::format(",\"k{}\":0", i);
  const auto wide = from_json(with_extra(keys + "}"));
  ASSERT_FALSE(wide);
  EXPECT_NE(say(wide.error()).find("more than 200 keys"), std::string::npos) << say(wide.error());
  EXPECT_FALSE(from_json(with_extra(std::string(100'000, '[') + std::string(100'000, ']'))));
  EXPECT_FALSE(from_json(with_extra("1e999")));
}

TEST(BuildFile, TextsAreCountedInLettersAsTyped) {
  std::string eighty;
  for (int i = 0; i < 80; ++i)
    eighty += "ж";
  const auto typed = with_text(test::demo_build(), "job.car", eighty, {});
  ASSERT_TRUE(typed) << "80 letters of two bytes";
  EXPECT_TRUE(from_json(to_json(*typed)));
  EXPECT_FALSE(with_text(test::demo_build(), "job.car", eighty + "ж", {}));
  EXPECT_FALSE(with_text(test::demo_build(), "job.car", std::string_view("a\0b", 3), {}));
}

TEST(BuildFile, NothingIsSavedThatWouldNotOpenAgain) {
  const test::Folder folder;
  Build build = test::demo_build();
  ASSERT_TRUE(save(build, folder / "a.mavrel"));
  build.body.wheelbase = 99; // no such car: reading refuses it
  const auto done = save(build, folder / "a.mavrel");
  ASSERT_FALSE(done);
  EXPECT_NE(say(done.error()).find("wheelbase"), std::string::npos) << say(done.error());
  EXPECT_EQ(load(folder / "a.mavrel").value(), test::demo_build());
}

TEST(BuildFile, AMistakeInsideALongTextCutsNoLetter) {
  std::string name;
  for (int i = 0; i < 100; ++i)
    name += "ö";
  const auto wrong = from_json(R"({"format":"mavrel-build","version":3,"front":")" + name + "\"}");
  ASSERT_FALSE(wrong);
  EXPECT_FALSE(first_bad_utf8(say(wrong.error())));
  EXPECT_EQ(say(wrong.error()).find("\uFFFD"), std::string::npos) << say(wrong.error());
}

} // namespace
} // namespace mavrel::build
