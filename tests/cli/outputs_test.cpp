// Nothing a command writes takes the place of what it reads, of a build, or of its other output.
#include "cli/run_cli.h"

#include <algorithm>
#include <regex>
#include <set>

namespace mavrel {
namespace {

struct Writer {
  std::string command, option;
  bool folder = false;
};

/// Every option of every command that says it writes, as --help has them.
std::vector<Writer> all_writers() {
  std::vector<Writer> out;
  const std::string help = test::run("--help").out;
  const std::regex command("\n  ([a-z-]+)  +[A-Z]"), option("\n  (--[a-z-]+) TEXT +([^\n]*write[^\n]*)");
  for (std::sregex_iterator c(help.begin(), help.end(), command), end; c != end; ++c) {
    const std::string name = (*c)[1], options = test::run(name + " --help").out;
    for (std::sregex_iterator o(options.begin(), options.end(), option); o != end; ++o)
      out.push_back({name, (*o)[1], (*o)[2].str().rfind("Folder", 0) == 0});
  }
  return out;
}

class CliOutputs : public ::testing::Test {
protected:
  CliOutputs() {
    std::filesystem::copy_file(test::demo_file(), car_);
    std::filesystem::copy_file(test::demo_file(), other_);
    std::filesystem::create_symlink(car_, folder_ / "link.csv");
    before_ = test::text_of(car_);
  }
  /// It must be refused in one line that names the option, with nothing lost.
  void is_refused(const Writer& writer, const std::string& to) {
    const auto answer = test::run(writer.command + " " + car_.string() + " " + writer.option + " " + to);
    const std::string what = writer.command + " " + writer.option + " " + to;
    EXPECT_EQ(answer.status, 2) << what;
    EXPECT_EQ(answer.out, "") << what;
    EXPECT_EQ(std::count(answer.err.begin(), answer.err.end(), '\n'), 1) << what << answer.err;
    EXPECT_NE(answer.err.find(writer.option), std::string::npos) << what << answer.err;
    EXPECT_EQ(test::text_of(car_), before_) << what;
    EXPECT_EQ(test::text_of(other_), before_) << what;
  }
  test::Folder folder_;
  std::filesystem::path car_ = folder_ / "car.mavrel", other_ = folder_ / "other.mavrel";
  std::string before_;
};

TEST_F(CliOutputs, NeverTakeABuildsPlace) {
  std::set<std::string> commands;
  for (const Writer& writer : all_writers()) {
    if (writer.folder) continue;
    commands.insert(writer.command);
    is_refused(writer, car_.string());
    is_refused(writer, (folder_ / "link.csv").string());
    is_refused(writer, other_.string());
    is_refused(writer, (folder_ / "nowhere" / "out").string());
  }
  EXPECT_EQ(commands, (std::set<std::string>{"care", "lift", "parts", "plan", "prove", "sheet", "templates"}));
}

TEST_F(CliOutputs, InAFolderNeverTakeABuildsPlaceEither) {
  const auto drawn = nlohmann::json::parse(test::run("templates " + car_.string()).out);
  ASSERT_FALSE(drawn["templates"].empty());
  const std::string key = drawn["templates"][0]["key"];
  std::filesystem::create_symlink(car_, folder_ / (key + ".dxf"));
  is_refused({"templates", "--dxf", true}, folder_.path().string());
}

TEST_F(CliOutputs, AreTwoFiles) {
  const std::string same = (folder_ / "same").string();
  const auto writers = all_writers();
  for (const Writer& a : writers)
    for (const Writer& b : writers) {
      if (a.command != b.command || a.option >= b.option || a.folder || b.folder) continue;
      const auto answer =
          test::run(a.command + " " + car_.string() + " " + a.option + " " + same + " " + b.option + " " + same);
      EXPECT_EQ(answer.status, 2) << a.command << a.option << b.option;
      EXPECT_NE(answer.err.find("are one file"), std::string::npos) << answer.err;
      EXPECT_FALSE(std::filesystem::exists(same));
    }
}

} // namespace
} // namespace mavrel
