// The built program, run as its user runs it.
#include "cli/run_cli.h"

#include <nlohmann/json.hpp>

namespace mavrel {
namespace {

using test::Answer;
using test::run;

std::string card() {
  return test::data("reference/bag-cards/osier-o135.csv").string();
}

TEST(Cli, BagAgreesWithTheReference) {
  const auto cases = nlohmann::json::parse(test::text_of(test::data("reference/bag-cases.json")));
  const auto& c = cases[1];
  const Answer a = run("bag " + card() +
                       " --height 177.4mm --load 2206N --added 1.5l --n 1.4 --altitude 900 --air 5 --conductance "
                       "2.5e-8 --frequency 0.2,0.7,1.3,4,12");
  ASSERT_EQ(a.status, 0) << a.err;
  EXPECT_EQ(a.err, "");
  const auto got = nlohmann::json::parse(a.out);
  for (const auto& [key, value] : c["expect"].items())
    if (value.is_number()) {
      EXPECT_NEAR(got[key].get<double>(), value.get<double>(), 0.005 * std::abs(value.get<double>())) << key;
    }
  ASSERT_EQ(got["dynamic"].size(), 5U);
  EXPECT_NEAR(got["dynamic"][2]["loss_angle_deg"].get<double>(),
              c["expect"]["dynamic"][2]["loss_angle_deg"].get<double>(), 0.02);
}

TEST(Cli, WheelComparesTwo) {
  const Answer a = run("wheel \"205/55R16 6.5 ET50\" \"225/45R17 7.5 ET35\"");
  ASSERT_EQ(a.status, 0);
  EXPECT_NEAR(nlohmann::json::parse(a.out)["change"]["outer_face_m"].get<double>(), 0.025, 1e-6);
}

TEST(Cli, LinkageAgreesWithTheReferenceAndNamesWhatStopsIt) {
  const std::string file = test::data("reference/linkages/double-wishbone.json").string();
  const Answer a = run("linkage " + file + " --heights=-60mm,0,55mm");
  ASSERT_EQ(a.status, 0) << a.err;
  const auto poses = nlohmann::json::parse(a.out)["poses"];
  ASSERT_EQ(poses.size(), 3U);
  EXPECT_NEAR(poses[0]["spring_length_m"].get<double>(), 0.3004642273728389, 1e-7);
  EXPECT_NEAR(poses[0]["motion_ratio"].get<double>(), 0.5957335913159278, 1e-6);
  EXPECT_NEAR(poses[2]["kingpin_deg"].get<double>(), 9.387272159467125, 1e-5);
  const Answer far = run("linkage " + file + " --heights=400mm");
  EXPECT_EQ(far.status, 2);
  EXPECT_EQ(far.out, "");
  EXPECT_NE(far.err.find("upper_outer"), std::string::npos) << far.err;
}

TEST(Cli, HostileGeometriesAreRefusedInOneLine) {
  const test::Folder folder;
  const std::string good = test::text_of(test::data("reference/linkages/trailing-arm.json"));
  const auto with = [&](const std::string& from, const std::string& to) {
    std::string text = good;
    text.replace(text.find(from), from.size(), to);
    return text;
  };
  for (const std::string& text :
       {std::string(), std::string("[1"), std::string("{}"), std::string(40, '['), std::string("\xff\xfe"),
        with("semi-trailing arm", "wheelbarrow"), with("0.36", "\"far\""), with("0.36", "1e9"),
        with("hinge_inner", "hinge_lost"), with("\"camber_deg\": -1", "\"camber_deg\": 400"),
        with("\"camber_deg\"", "\"spring\": \"roof\", \"camber_deg\"")}) {
    test::write(folder / "g.json", text);
    const Answer a = run("linkage " + (folder / "g.json").string() + " --heights=0");
    EXPECT_EQ(a.status, 2) << text;
    EXPECT_EQ(a.out, "") << text;
    EXPECT_EQ(std::count(a.err.begin(), a.err.end(), '\n'), 1) << a.err;
  }
  test::write(folder / "g.json", good);
  for (const char* heights : {"", "now", "3m", "0,,1mm"})
    EXPECT_EQ(run("linkage " + (folder / "g.json").string() + " --heights='" + heights + "'").status, 2) << heights;
}

TEST(Cli, AssessPrintsTheWholeAssessment) {
  const Answer a = run("assess " + test::demo_file().string());
  ASSERT_EQ(a.status, 0) << a.err;
  const auto json = nlohmann::json::parse(a.out);
  EXPECT_EQ(json["front"]["reach_window"]["low"]["governing"]["limit"], "bump_stop");
  EXPECT_EQ(json["load_cases"].size(), 3U);
  EXPECT_GT(json["rear"]["tracks"]["cases"][2]["pressure_pa"]["pressure_pa"].size(), 100U);
  EXPECT_FALSE(json["findings"].empty());
}

TEST(Cli, SheetWritesAPdfThatReadsBackAndACsv) {
  const test::Folder folder;
  const Answer a = run("sheet " + test::demo_file().string() + " --pdf " + (folder / "s.pdf").string() + " --csv " +
                       (folder / "s.csv").string());
  ASSERT_EQ(a.status, 0) << a.err;
  EXPECT_LE(nlohmann::json::parse(a.out)["pages"].get<int>(), 7);
  ASSERT_EQ(std::system(("pdftotext " + (folder / "s.pdf").string() + " " + (folder / "s.txt").string()).c_str()), 0);
  const std::string text = test::text_of(folder / "s.txt");
  for (const char* words :
       {"Sorrel Wayfare estate", "Osier O-135", "Front Ramp is 4 mm too high", "Stands before anyone goes under",
        "Market day", "Air kit", "Kestle 4-10", "lifts per tank", "pressure switch"})
    EXPECT_NE(text.find(words), std::string::npos) << words;
  const std::string csv = test::text_of(folder / "s.csv");
  EXPECT_NE(csv.find("front,Two up,357,4."), std::string::npos) << csv.substr(0, 600);
  EXPECT_EQ(csv.find("nan"), std::string::npos);
}

TEST(Cli, SheetWritesTheBracketsOfTheCarWithJoints) {
  const test::Folder folder;
  const std::string pickup = (std::filesystem::path(MAVREL_DEMO) / "hollin-tarnway.mavrel").string();
  const Answer a = run("sheet " + pickup + " --brackets " + (folder / "b.csv").string());
  ASSERT_EQ(a.status, 0) << a.err;
  const std::string csv = test::text_of(folder / "b.csv");
  EXPECT_NE(csv.find("front,upper,0.00,"), std::string::npos) << csv;
  EXPECT_NE(csv.find("rear,lower,"), std::string::npos) << csv;
  EXPECT_EQ(
      run("sheet " + pickup + " --brackets " + (folder / "b.csv").string() + " --csv " + (folder / "b.csv").string())
          .status,
      2);
}

TEST(Cli, SearchListsTheSameWhateverTheThreads) {
  const Answer one = run("search " + test::demo_file().string() + " --threads 1");
  ASSERT_EQ(one.status, 0) << one.err;
  EXPECT_EQ(run("search " + test::demo_file().string() + " --threads 3").out, one.out);
  const auto json = nlohmann::json::parse(one.out);
  EXPECT_GE(json["combinations"].get<std::size_t>(), 100000U);
  EXPECT_FALSE(json["choices"].empty());
  EXPECT_EQ(nlohmann::json::parse(run("search " + test::demo_file().string() + " --most 2").out)["choices"].size(), 2U);
}

TEST(Cli, EveryReferenceBagCaseAgrees) {
  for (const auto& c : nlohmann::json::parse(test::text_of(test::data("reference/bag-cases.json")))) {
    std::string line = "bag " + test::data("reference/bag-cards/" + c["card"].get<std::string>()).string();
    line += " --height " + std::to_string(c["height_m"].get<double>()) + "m --load " +
            std::to_string(c["load_n"].get<double>()) + "N";
    line +=
        " --added " + std::to_string(c["added_m3"].get<double>()) + "m3 --n " + std::to_string(c["n"].get<double>());
    line += " --altitude " + std::to_string(c["altitude_m"].get<double>()) + " --air " +
            std::to_string(c["air_c"].get<double>());
    const bool dynamic = c["expect"].contains("dynamic");
    if (dynamic) line += " --conductance " + c["conductance"].dump() + " --frequency 0.2,0.7,1.3,4,12";
    const Answer a = run(line);
    ASSERT_EQ(a.status, 0) << line << a.err;
    const auto got = nlohmann::json::parse(a.out);
    for (const auto& [key, value] : c["expect"].items())
      if (value.is_number()) {
        EXPECT_NEAR(got[key].get<double>(), value.get<double>(), 0.005 * std::abs(value.get<double>())) << line << key;
      }
    for (std::size_t i = 0; dynamic && i < 5; ++i)
      for (const char* key : {"stiffness_n_per_m", "loss_angle_deg"}) {
        const double want = c["expect"]["dynamic"][i][key].get<double>();
        EXPECT_NEAR(got["dynamic"][i][key].get<double>(), want, 0.005 * std::abs(want)) << line << key;
      }
  }
}

TEST(Cli, AShelfFolderIsAddedToTheKnownOnes) {
  const test::Folder folder;
  std::string text = test::text_of(test::data("reference/bag-cards/osier-o135.csv"));
  text.replace(text.find("Osier O-135"), 11, "Tallow T-77");
  test::write(folder / "tallow.csv", text);
  const Answer a = run("search " + test::demo_file().string() + " --shelf " + folder.path().string());
  ASSERT_EQ(a.status, 0) << a.err;
  EXPECT_NE(a.out.find("Tallow T-77"), std::string::npos);
  EXPECT_EQ(run("search " + test::demo_file().string() + " --shelf /not/there").status, 2);
}

TEST(Cli, MistakesAreOnePlainLineAndExitTwo) {
  const test::Folder folder;
  test::write(folder / "bad.mavrel",
              "{\"format\": \"mavrel-build\", \"version\": 2, \"body\": {\"wheelbase_m\": \"long\"}}");
  for (const std::string& arguments :
       {std::string(),
        std::string("frobnicate"),
        std::string("search"),
        std::string("search /not/there.mavrel"),
        "search " + (folder / "bad.mavrel").string(),
        "search " + test::demo_file().string() + " --threads many",
        "bag " + card(),
        "bag " + card() + " --height 3kg --load 4200N",
        "bag " + card() + " --height 140mm --load fast",
        "bag " + card() + " --height 1mm --load 4200N",
        "bag " + card() + " --height 140mm --load 4200N --n 7",
        "bag " + card() + " --height 140mm --load 4200N --conductance 1e-8",
        "bag " + card() + " --height 140mm --load 4200N --conductance 0 --frequency 1",
        "bag " + card() + " --height 140mm --load 4200N --conductance 1e-8 --frequency 0",
        "bag " + card() + " --height 140mm --load -3N",
        std::string("bag /nowhere.csv --height 140mm --load 4200N"),
        "bag " + test::demo_file().string() + " --height 140mm --load 4200N",
        std::string("wheel nonsense"),
        std::string("assess /nowhere.mavrel"),
        "assess " + (folder / "bad.mavrel").string(),
        "assess " + card(),
        "sheet " + test::demo_file().string(),
        "sheet " + test::demo_file().string() + " --pdf /nowhere/at/all.pdf",
        "assess " + test::demo_file().string() + " --shelf /nowhere"}) {
    const Answer a = run(arguments);
    EXPECT_EQ(a.status, 2) << arguments;
    EXPECT_EQ(a.out, "") << arguments;
    EXPECT_EQ(std::count(a.err.begin(), a.err.end(), '\n'), 1) << arguments << ": " << a.err;
    EXPECT_GT(a.err.size(), 25U) << a.err;
  }
}

TEST(Cli, OfALongArgumentNoMoreIsRepeatedThanIsRead) {
  const std::string x(3000, 'x'), file = std::string(MAVREL_DEMO) + "/sorrel-wayfare.mavrel";
  for (const std::string& arguments :
       {"assess " + x, "assess --bogus" + x + " a", "wheel " + x, "log " + file + " --text hi --kind " + x}) {
    const auto done = run(arguments);
    EXPECT_EQ(done.status, 2);
    EXPECT_LT(done.err.size(), 400U) << done.err.substr(0, 400);
    EXPECT_NE(done.err.find("xxx"), std::string::npos);
  }
}

TEST(Cli, HelpAndVersionAreAnswered) {
  EXPECT_NE(run("--help").out.find("assess"), std::string::npos);
  EXPECT_EQ(run("--version").status, 0);
  EXPECT_EQ(run("schema").out, test::text_of(std::filesystem::path(MAVREL_DOCS) / "formats/build.schema.json"));
}

} // namespace
} // namespace mavrel
