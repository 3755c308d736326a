// The command line under hostile input: everything ends in an answer and exit 0, or one plain line and exit 2.
#include "build/file.h"
#include "build/json.h"
#include "cli/run_cli.h"

#include <nlohmann/json.hpp>

#include <sys/stat.h>

namespace mavrel {
namespace {

using test::Answer;
using test::run;

void refused(const Answer& a, const std::string& says) {
  EXPECT_EQ(a.status, 2) << a.out << a.err;
  EXPECT_EQ(a.out, "");
  EXPECT_EQ(std::count(a.err.begin(), a.err.end(), '\n'), 1) << a.err;
  EXPECT_NE(a.err.find(says), std::string::npos) << a.err;
  EXPECT_FALSE(first_bad_utf8(a.err)) << a.err;
}

std::string hostile_card() {
  return test::data("reference/bag-cards/osier-o135.csv").string();
}

TEST(CliBag, AFigureBeyondTheCardNeverGoesOutBare) {
  const auto beyond = [](const char* load) {
    const Answer a = run("bag " + hostile_card() + " --height 140mm --load " + load);
    EXPECT_EQ(a.status, 0) << a.err;
    const auto json = nlohmann::json::parse(a.out);
    return json.contains("beyond") ? json["beyond"].get<std::string>() : std::string();
  };
  EXPECT_EQ(beyond("4200N"), "");
  EXPECT_EQ(beyond("9000N"), "last_column");
  EXPECT_EQ(beyond("500kN"), "max_pressure");
  EXPECT_EQ(beyond("100N"), "min_pressure");
}

TEST(CliBag, WhatIsOutOfReasonIsRefused) {
  const std::string start = "bag " + hostile_card() + " --height 140mm ";
  refused(run(start + "--load '4000N 4000N'"), "4000N 4000N");
  refused(run(start + "--load 1e300N"), "out of all reason");
  refused(run(start + "--load 5e8N"), "out of reason");
  refused(run(start + "--load 4200N --added 1e300l"), "out of all reason");
  refused(run(start + "--load 4200N --conductance 2e-8 --frequency 1e300"), "--frequency");
  refused(run(start + "--load 4200N --conductance=-1 --frequency 1"), "--conductance");
  refused(run("bag " + hostile_card() + " --height 61.98mm --load 4200N"), "61.98 mm");
}

TEST(CliBag, ThinksTheSameUnderACommaLocale) {
  const std::string asked = "bag " + hostile_card() + " --height 140.5mm --load 4200.5N";
  EXPECT_EQ(test::run("wheel '205/45R17 7.5 ET35'").out, test::run("wheel '205/45R17 7,5 ET35'").out);
  EXPECT_EQ(run(asked).status, 0);
}

TEST(CliFiles, OfAnotherKindAreRefusedInWordsOfOurs) {
  const test::Folder folder;
  for (const char* command : {"plan", "sensor", "gap", "ground", "linkage", "air"})
    for (const char* text :
         {"[]", "1", "null", "\"words\"", "{}", R"({"tasks": [1], "volumes": [2], "solids": [3]})"}) {
      test::write(folder / "x.json", text);
      const Answer a = run(std::string(command) + " " + (folder / "x.json").string());
      refused(a, "mavrel-cli: ");
      EXPECT_EQ(a.err.find("exception"), std::string::npos) << command << " " << text << ": " << a.err;
    }
}

TEST(CliRoad, IsAsLongInKilometresAsInMetres) {
  const Answer far = run("road --class C --length 1.2km --step 200mm"),
               near = run("road --class C --length 1200m --step 200mm");
  EXPECT_EQ(far.status, 0) << far.err;
  EXPECT_EQ(far.out, near.out);
}

TEST(CliSearch, TakesOnlyACountToPrint) {
  const std::string demo = test::demo_file().string();
  refused(run("search " + demo + " --most=-1"), "--most");
  refused(run("search " + demo + " --most=1e300"), "--most");
  const auto some = nlohmann::json::parse(run("search " + demo + " --most 4").out);
  EXPECT_EQ(some["ranking"].size(), 4U);
  EXPECT_LE(some["choices"].size(), 4U);
  EXPECT_EQ(some["pairs_of_bags"], 225);
}

TEST(CliSearch, TwoLoadCasesOfOneNameStayTwo) {
  const test::Folder folder;
  build::Build build = test::demo_build();
  build.load_cases[1].name = build.load_cases[2].name = "Loaded";
  ASSERT_TRUE(build::save(build, folder / "b.mavrel"));
  const auto found = nlohmann::json::parse(run("search " + (folder / "b.mavrel").string()).out);
  EXPECT_EQ(found["choices"][0]["front"]["cases"].size(), 3U);
}

TEST(CliOutput, AFullDiskOrAClosedEndIsSaid) {
  refused(run("schema >/dev/full"), "standard output");
  refused(run("schema >&-"), "standard output is closed");
  const Answer gone = run("schema | true"); // the reader leaves: no signal ends it
  EXPECT_NE(gone.status, 141);
}

TEST(CliOutput, AClosedEndNeverPutsTheAnswerIntoAnotherFile) {
  const test::Folder folder;
  const std::string csv = (folder / "t.csv").string();
  const Answer a = run("sheet " + test::demo_file().string() + " --csv " + csv + " >&-");
  EXPECT_EQ(a.status, 2);
  EXPECT_EQ(test::text_of(csv).substr(0, 4), "end,");
}

TEST(CliSheet, RefusesEveryPlaceThatIsNoneBeforeWritingAnything) {
  const test::Folder folder;
  const std::string demo = (folder / "b.mavrel").string(), csv = (folder / "t.csv").string();
  std::filesystem::copy_file(test::demo_file(), demo);
  ASSERT_EQ(::mkfifo((folder / "pipe").c_str(), 0600), 0);
  const std::string start = "sheet " + demo + " ";
  refused(run(start + "--pdf " + demo), "the build itself");
  refused(run(start + "--csv " + folder.path().string() + "/./b.mavrel"), "the build itself");
  refused(run(start + "--csv " + csv + " --pdf " + folder.path().string()), "is a folder");
  refused(run(start + "--csv " + csv + " --pdf /dev/null"), "device or a pipe");
  refused(run(start + "--csv " + csv + " --pdf " + (folder / "pipe").string()), "device or a pipe");
  refused(run(start + "--csv " + csv + " --pdf " + folder.path().string() + "/../" + folder.path().filename().string() +
              "/t.csv"),
          "one file");
  EXPECT_FALSE(std::filesystem::exists(csv)) << "nothing was written";
  EXPECT_EQ(test::text_of(demo), test::text_of(test::demo_file()));
}

TEST(CliSheet, APathThatIsNoTextIsRefusedAsWhatCouldNotBeNamed) {
  const test::Folder folder;
  for (const char* option : {"--csv", "--pdf"}) {
    const std::string place = "'" + folder.path().string() + "/caf\xE9.out'";
    refused(run("sheet " + test::demo_file().string() + " " + option + " " + place), "is not UTF-8 text");
  }
  EXPECT_TRUE(std::filesystem::is_empty(folder.path()));
  refused(run("assess '/nowhere/caf\xE9.mavrel'"), "can't be opened");
}

TEST(CliAssess, LargeAndOddFilesAreAnsweredAndNotWaitedFor) {
  const test::Folder folder;
  const auto file = folder / "b.mavrel";
  std::string text = build::to_json(test::demo_build());
  std::string objects = "[{}";
  for (int i = 0; i < 250'000; ++i)
    objects += ",{}";
  text.insert(text.rfind('}'), ",\"odd\":" + objects + "]\n");
  test::write(file, text);
  refused(run("assess " + file.string()), "more than 200000 values");
  ASSERT_EQ(::mkfifo((folder / "pipe").c_str(), 0600), 0);
  refused(run("assess " + (folder / "pipe").string()), "pipe");
  std::string commas = test::text_of(test::data("reference/bag-cards/osier-o135.csv"));
  commas += std::string(200'000, ',') + "\n";
  test::write(folder / "c.csv", commas);
  refused(run("bag " + (folder / "c.csv").string() + " --height 140mm --load 4200N"), "cells");
}

TEST(CliAssess, MarksWhatLiesBeyondTheCard) {
  const test::Folder folder;
  build::Build build = test::demo_build();
  build.load_cases[2].masses.push_back({"anvils", 900, 2.6, 0, {}});
  ASSERT_TRUE(build::save(build, folder / "b.mavrel"));
  const auto json = nlohmann::json::parse(run("assess " + (folder / "b.mavrel").string()).out);
  const auto& track = json["rear"]["tracks"]["cases"][2]["pressure_pa"];
  ASSERT_TRUE(track.contains("beyond"));
  bool over = false;
  for (const auto& stretch : track["beyond"])
    over = over || stretch["what"] == "max_pressure";
  EXPECT_TRUE(over);
  EXPECT_EQ(json["rear"]["presets"][1]["cases"][2]["beyond"], "max_pressure");
  EXPECT_TRUE(json["rear"]["presets"][1]["cases"][0]["beyond"].is_null());
}

} // namespace
} // namespace mavrel
