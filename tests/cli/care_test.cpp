// mavrel-cli prove, care, log, book and begin-from; and the log under programs that are killed, and two at once.
#include "assess/fit_up/cars.h"
#include "build/care.h"
#include "build/file.h"
#include "cli/run_cli.h"

#include <nlohmann/json.hpp>

#include <fcntl.h>
#include <signal.h>
#include <sys/file.h>
#include <sys/wait.h>
#include <unistd.h>

namespace mavrel {
namespace {

using Json = nlohmann::json;

std::string shop(const char* name) {
  return (std::filesystem::path(MAVREL_DEMO) / "shop" / name).string();
}

TEST(CliProve, SaysWhatWasPredictedMeasuredAndWhatItPointsTo) {
  const auto answer = test::run("prove " + shop("w-14.mavrel") + " --learn");
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json got = Json::parse(answer.out);
  bool pinched = false;
  for (const Json& p : got["proofs"])
    for (const Json& one : p["points_to"])
      pinched = pinched || one["cause"].get<std::string>().find("pinched") != std::string::npos;
  EXPECT_TRUE(pinched);
  ASSERT_FALSE(got["learned"].empty());
  for (const Json& f : got["learned"])
    EXPECT_LE(f["is_sd"].get<double>(), f["designed_sd"].get<double>() * 1.3);
}

TEST(CliProve, WritesBothSheetsAndTheirWordsAreReadBack) {
  const test::Folder folder;
  const auto owner = (folder / "owner.pdf").string(), all = (folder / "shop.pdf").string();
  for (const auto& [car, proved] : {std::pair("w-11.mavrel", true), {"w-14.mavrel", false}}) {
    const auto answer = test::run("prove " + shop(car) + " --owner-pdf " + owner + " --shop-pdf " + all);
    ASSERT_EQ(answer.status, 0) << answer.err;
    const auto words_of = [&](const std::string& pdf) {
      EXPECT_EQ(std::system(("pdftotext -layout " + pdf + " " + (folder / "text").string()).c_str()), 0);
      return test::text_of(folder / "text");
    };
    EXPECT_EQ(words_of(owner).find("NOT PROVED") == std::string::npos, proved) << car;
    EXPECT_NE(words_of(owner).find("Never under it"), std::string::npos);
    EXPECT_NE(words_of(all).find("Fill and vent times"), std::string::npos);
  }
}

TEST(CliCare, ListsWhatIsDueAndWritesACalendar) {
  const test::Folder folder;
  const auto ics = (folder / "care.ics").string();
  const auto answer = test::run("care " + shop("w-08.mavrel") + " --now 2026-11-26 --ics " + ics);
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json got = Json::parse(answer.out);
  EXPECT_GT(got["due"].size(), 7U);
  EXPECT_GE(got["trends"].size(), 6U);
  EXPECT_NE(test::text_of(ics).find("BEGIN:VEVENT"), std::string::npos);
  EXPECT_EQ(test::run("care " + shop("w-14.mavrel")).status, 2); // not on the road
  EXPECT_EQ(test::run("care " + shop("w-08.mavrel") + " --now soon").status, 2);
}

TEST(CliBook, FindsAndBeginsASisterCar) {
  const test::Folder folder;
  const auto book = (folder / "book.sqlite").string(), fresh = (folder / "new.mavrel").string();
  const auto answer = test::run("book loom --folder " + (std::filesystem::path(MAVREL_DEMO) / "shop").string() +
                                " --findings --book " + book);
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json got = Json::parse(answer.out);
  EXPECT_GE(got["cars"].get<int>(), 6);
  EXPECT_TRUE(got["problems"].empty()) << answer.out;
  EXPECT_GE(got["found"].size(), 1U);
  const auto found = Json::parse(test::run("book --book " + book + " --platform Hollin").out);
  EXPECT_EQ(found["found"].size(), 2U);
  const auto begun = test::run("begin-from " + shop("w-11.mavrel") + " " + fresh);
  ASSERT_EQ(begun.status, 0) << begun.err;
  EXPECT_GT(Json::parse(begun.out)["figures_of_another_car"].get<int>(), 40);
  EXPECT_EQ(test::run("begin-from " + shop("w-11.mavrel") + " " + fresh).status, 2); // it is there already
}

TEST(CliLog, TakesWhatIsSaidAndRefusesWhatIsWrong) {
  const test::Folder folder;
  const auto file = (folder / "car.mavrel").string();
  std::filesystem::copy_file(shop("w-11.mavrel"), file);
  const auto before = build::load(file)->care->log.size();
  ASSERT_EQ(
      test::run("log " + file +
                " --kind reading --what height --where rear_left --height 341mm --pressure '3.1 bar' --day 2026-11-20")
          .status,
      0);
  const auto log = build::load(file)->care->log;
  ASSERT_EQ(log.size(), before + 1);
  EXPECT_DOUBLE_EQ(*log.back().height, 0.341);
  EXPECT_EQ(log.back().day, "2026-11-20");
  for (const char* wrong :
       {"--kind work --what drain --day someday", "--kind wrk --what x", "--kind reading --what height --height 9m",
        "--kind reading --what height --height 341mm", "--kind reading --what hold --where rear_left",
        "--kind reading --what weather --where rear_left --height 341mm", "--what drain"}) {
    const auto answer = test::run("log " + file + " " + wrong);
    EXPECT_EQ(answer.status, 2) << wrong;
    EXPECT_TRUE(answer.out.empty());
  }
  EXPECT_EQ(build::load(file)->care->log.size(), before + 1);
  EXPECT_NE(test::run("log " + file).out.find("rear_left"), std::string::npos);
  ASSERT_EQ(test::run("log " + file + " --kind reading --what tank_fill --took 96s --temperature 12C").status, 0);
  ASSERT_EQ(test::run("log " + file + " --kind reading --what hold --where front_left --loss 0.1%").status, 0);
  ASSERT_EQ(test::run("log " + file + " --kind work --what drain --water 40g").status, 0);
  const auto more = build::load(file)->care->log;
  EXPECT_DOUBLE_EQ(*more[before + 1].seconds, 96);
  EXPECT_DOUBLE_EQ(*more[before + 1].temperature, 285.15);
  EXPECT_DOUBLE_EQ(*more[before + 2].hourly_loss, 0.001);
  EXPECT_DOUBLE_EQ(*more[before + 3].water, 0.04);
}

/// Starts the program without waiting. @returns its process
pid_t start(const std::vector<std::string>& arguments, int out) {
  const pid_t child = ::fork();
  if (child != 0) return child;
  ::dup2(out, 1);
  const int nowhere = ::open("/dev/null", O_WRONLY);
  ::dup2(nowhere, 2);
  std::vector<char*> argv{const_cast<char*>(MAVREL_CLI)};
  for (const std::string& a : arguments)
    argv.push_back(const_cast<char*>(a.c_str()));
  argv.push_back(nullptr);
  ::execv(MAVREL_CLI, argv.data());
  ::_exit(127);
}

TEST(CliLog, KilledAtAnyMomentNothingThatWasAnsweredIsLost) {
  const test::Folder folder;
  const auto file = (folder / "car.mavrel").string();
  std::filesystem::copy_file(shop("w-11.mavrel"), file);
  const auto before = build::load(file)->care->log.size();
  std::size_t answered = 0;
  for (int i = 0; i < 24; ++i) {
    int pipe[2];
    ASSERT_EQ(::pipe(pipe), 0);
    const pid_t child = start({"log", file, "--text", "line " + std::to_string(i)}, pipe[1]);
    ::close(pipe[1]);
    ::usleep(static_cast<useconds_t>(1500 * (i % 12)));
    ::kill(child, SIGKILL);
    char byte = 0;
    answered += ::read(pipe[0], &byte, 1) == 1;
    ::close(pipe[0]);
    int status = 0;
    ::waitpid(child, &status, 0);
    const auto now = build::load(file);
    ASSERT_TRUE(now) << say(now.error());
    EXPECT_GE(now->care->log.size(), before + answered);
  }
}

TEST(CliLog, TwoProgramsOnOneLogLoseNothing) {
  const test::Folder folder;
  const auto file = (folder / "car.mavrel").string();
  std::filesystem::copy_file(shop("w-11.mavrel"), file);
  const auto before = build::load(file)->care->log.size();
  const int nowhere = ::open("/dev/null", O_WRONLY);
  // By its own name and by others that lead to it.
  std::filesystem::create_directory(folder / "elsewhere");
  std::filesystem::create_symlink(file, folder / "elsewhere" / "link.mavrel");
  const std::string names[] = {file, (folder / "elsewhere" / "link.mavrel").string(),
                               (folder / "elsewhere" / ".." / "car.mavrel").string()};
  std::vector<pid_t> all;
  for (std::size_t i = 0; i < 16; ++i)
    all.push_back(start({"log", names[i % 3], "--text", "line " + std::to_string(i)}, nowhere));
  for (const pid_t child : all) {
    int status = 0;
    ::waitpid(child, &status, 0);
    EXPECT_EQ(WEXITSTATUS(status), 0);
  }
  ::close(nowhere);
  const auto log = build::load(file)->care->log;
  EXPECT_EQ(log.size(), before + 16);
  std::set<std::string> marks;
  for (const build::LogEntry& e : log)
    marks.insert(e.id);
  EXPECT_EQ(marks.size(), log.size());
  EXPECT_FALSE(std::filesystem::exists(file + ".lock"));
}

TEST(CliLog, OfABuildThatIsNotThereLeavesNothing) {
  const test::Folder folder;
  const auto answer = test::run("log " + (folder / "none.mavrel").string() + " --text hello");
  EXPECT_EQ(answer.status, 2);
  EXPECT_NE(answer.err.find("none.mavrel"), std::string::npos) << answer.err;
  EXPECT_TRUE(std::filesystem::is_empty(folder.path()));
}

TEST(CliLog, WaitsForAnotherButNotForEver) {
  const test::Folder folder;
  const auto file = (folder / "car.mavrel").string();
  std::filesystem::copy_file(shop("w-11.mavrel"), file);
  const int held = ::open(folder.path().c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
  ASSERT_EQ(::flock(held, LOCK_EX), 0);
  const int nowhere = ::open("/dev/null", O_WRONLY);
  const pid_t waiting = start({"log", file, "--text", "later"}, nowhere);
  ::usleep(200'000);
  int status = 0;
  EXPECT_EQ(::waitpid(waiting, &status, WNOHANG), 0) << "it waits";
  ::close(held);
  ::waitpid(waiting, &status, 0);
  ::close(nowhere);
  EXPECT_EQ(WEXITSTATUS(status), 0);
  EXPECT_EQ(build::load(file)->care->log[build::load(file)->care->log.size() - 1].text, "later");
}

} // namespace
} // namespace mavrel
