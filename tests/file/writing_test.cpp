// Writing when something is in the way: another kind of file, a full disk, a killed writer, a second name.
#include "build/file.h"
#include "build/json.h"
#include "faults.h"
#include "file/held_file.h"
#include "file/text_file.h"
#include "shelf/card_write.h"
#include "support.h"

#include <csignal>
#include <sys/stat.h>
#include <sys/wait.h>
#include <thread>
#include <unistd.h>

namespace mavrel {
namespace {

using test::Fault;
using test::Step;

std::size_t entries(const std::filesystem::path& folder) {
  return static_cast<std::size_t>(std::distance(std::filesystem::directory_iterator(folder), {}));
}

/// Every step of one write fails once; the old file must stand and nothing be left beside it.
template <class Write>
void every_step_fails_once(const std::filesystem::path& file, const Write& write) {
  const std::string before = test::text_of(file);
  const std::size_t files = entries(file.parent_path());
  for (const auto& [step, error] :
       {std::pair{Step::open, EACCES}, std::pair{Step::write, ENOSPC}, std::pair{Step::sync, EIO},
        std::pair{Step::close, EIO}, std::pair{Step::rename, EACCES}}) {
    const Fault fault(step, error);
    const auto done = write();
    EXPECT_TRUE(fault.struck()) << static_cast<int>(step);
    ASSERT_FALSE(done) << static_cast<int>(step);
    EXPECT_NE(say(done.error()).find(std::strerror(error)), std::string::npos) << say(done.error());
    EXPECT_EQ(test::text_of(file), before);
    EXPECT_EQ(entries(file.parent_path()), files) << "nothing is left beside it";
  }
  const test::ShortWrites few(7);
  EXPECT_TRUE(write()) << "a short write goes on";
}

TEST(Writing, ABuildSurvivesEveryFailingStep) {
  const test::Folder folder;
  const auto file = folder / "a.mavrel";
  ASSERT_TRUE(build::save(test::demo_build(), file));
  build::Build other = test::demo_build();
  other.job.car = "Another";
  every_step_fails_once(file, [&] { return build::save(other, file); });
  EXPECT_EQ(build::load(file)->job.car, "Another");
}

TEST(Writing, ACardSurvivesEveryFailingStep) {
  const test::Folder folder;
  air::BagCard card = test::demo_shelf().bags.front().card;
  const auto file = shelf::save_card(card, folder.path());
  ASSERT_TRUE(file);
  card.mass += 1;
  every_step_fails_once(*file, [&] { return shelf::save_card(card, folder.path()); });
}

TEST(Writing, APlainTextSurvivesEveryFailingStep) {
  const test::Folder folder;
  const auto file = folder / "tracks.csv";
  test::write(file, "old");
  every_step_fails_once(file, [&] { return write_atomically(file, "new and longer"); });
  EXPECT_EQ(test::text_of(file), "new and longer");
}

TEST(Writing, NothingButAnOrdinaryFileIsWrittenTo) {
  const test::Folder folder;
  const auto pipe = folder / "pipe";
  ASSERT_EQ(::mkfifo(pipe.c_str(), 0600), 0);
  for (const std::filesystem::path& place : {pipe, folder.path(), std::filesystem::path("/dev/null")}) {
    const auto done = write_atomically(place, "x");
    ASSERT_FALSE(done) << place;
    EXPECT_TRUE(cannot_write_to(place)) << place;
  }
  EXPECT_EQ(what_stands(pipe), Standing::special) << "it is still a pipe";
  const auto read = read_text(pipe, 100); // would wait for ever if it waited
  ASSERT_FALSE(read);
  EXPECT_NE(say(read.error()).find("pipe"), std::string::npos);
}

TEST(Writing, AReadOnlyFileIsReplacedOnlyWhenAskedFor) {
  const test::Folder folder;
  const auto file = folder / "r.txt";
  test::write(file, "old");
  ::chmod(file.c_str(), 0444);
  ASSERT_FALSE(write_atomically(file, "new"));
  EXPECT_EQ(test::text_of(file), "old");
  EXPECT_EQ(build::question_before_saving(file, {}), build::Question::read_only);
  ASSERT_TRUE(write_atomically(file, "new", ReadOnly::replace));
  EXPECT_EQ(test::text_of(file), "new");
  struct stat at {};
  ::stat(file.c_str(), &at);
  EXPECT_EQ(at.st_mode & 0777, 0444U) << "and stays read-only";
}

TEST(Writing, OtherNamesOfAFileKeepWhatWasThereAndItIsSaid) {
  const test::Folder folder;
  const auto file = folder / "one", other = folder / "two";
  test::write(file, "old");
  std::filesystem::create_hard_link(file, other);
  const auto done = write_atomically(file, "new");
  ASSERT_TRUE(done);
  EXPECT_TRUE(done->other_names);
  EXPECT_EQ(test::text_of(file), "new");
  EXPECT_EQ(test::text_of(other), "old");
  EXPECT_FALSE(write_atomically(file, "newer")->other_names);
}

TEST(Writing, ANewFileHasTheModeTheUmaskLeavesIt) {
  const test::Folder folder;
  const mode_t before = ::umask(027);
  ASSERT_TRUE(write_atomically(folder / "a", "x"));
  ::umask(before);
  struct stat at {};
  ::stat((folder / "a").c_str(), &at);
  EXPECT_EQ(at.st_mode & 0777, 0640U);
}

TEST(Writing, WhatAKilledWriterLeftGoesWithTheNextSave) {
  const test::Folder folder;
  const auto file = folder / "a.txt";
  // A process that is gone, and one that lives.
  const pid_t gone = ::fork();
  if (gone == 0) ::_exit(0);
  ::waitpid(gone, nullptr, 0);
  const auto dead = folder / (".a.txt." + std::to_string(gone) + "-0badf00d.part");
  const auto alive = folder / (".a.txt." + std::to_string(::getppid()) + "-0badf00d.part");
  const auto anothers = folder / (".b.txt." + std::to_string(gone) + "-0badf00d.part");
  for (const auto& one : {dead, alive, anothers})
    test::write(one, "half");
  ASSERT_TRUE(write_atomically(file, "x"));
  EXPECT_FALSE(std::filesystem::exists(dead));
  EXPECT_TRUE(std::filesystem::exists(alive)) << "its writer is at work";
  EXPECT_TRUE(std::filesystem::exists(anothers)) << "that is another file's";
}

TEST(Writing, OnePlaceIsOnePlaceWhateverItIsCalled) {
  const test::Folder folder;
  const auto file = folder / "a";
  EXPECT_TRUE(same_place(file, folder.path() / "." / "a")) << "not there yet";
  EXPECT_FALSE(same_place(file, folder / "b"));
  test::write(file, "x");
  std::filesystem::create_symlink(file, folder / "link");
  EXPECT_TRUE(same_place(file, folder / "link"));
}

TEST(Writing, AStampTellsWhetherSomebodyElseWrote) {
  const test::Folder folder;
  const auto file = folder / "a.mavrel";
  ASSERT_TRUE(build::save(test::demo_build(), file));
  const auto stamp = stamp_of(file);
  EXPECT_EQ(build::question_before_saving(file, stamp), build::Question::none);
  ASSERT_TRUE(write_atomically(file, test::text_of(file) + " "));
  EXPECT_EQ(build::question_before_saving(file, stamp), build::Question::changed);
  std::filesystem::remove(file);
  EXPECT_EQ(build::question_before_saving(file, stamp), build::Question::none) << "nothing is lost there";
}

TEST(Writing, WhatSomebodyElseWroteMeanwhileStands) {
  const test::Folder folder;
  const auto file = folder / "a.txt";
  ASSERT_TRUE(write_atomically(file, "first"));
  const auto asked = stamp_of(file);
  ASSERT_TRUE(write_atomically(file, "another program's"));
  const auto done = write_atomically(file, "ours", ReadOnly::refuse, asked);
  ASSERT_FALSE(done);
  EXPECT_NE(say(done.error()).find("changed by another program"), std::string::npos);
  EXPECT_EQ(test::text_of(file), "another program's");
  EXPECT_EQ(entries(folder.path()), 1U) << "nothing is left beside it";
  EXPECT_TRUE(write_atomically(file, "ours", ReadOnly::refuse, stamp_of(file)));
}

TEST(Writing, ANameMayBeAsLongAsTheDiskAllows) {
  const test::Folder folder;
  for (const std::size_t length : {199U, 200U, 230U, 247U, 255U}) {
    const auto file = folder / std::string(length, 'n');
    const auto done = write_atomically(file, "x");
    ASSERT_TRUE(done) << length << ": " << say(done.error());
    EXPECT_TRUE(write_atomically(file, "y")) << length;
  }
  EXPECT_EQ(entries(folder.path()), 5U);
}

TEST(Writing, AFileIsHeldByOneAtATimeByWhateverName) {
  using namespace std::chrono_literals;
  const test::Folder folder;
  const auto file = folder / "a.mavrel";
  ASSERT_TRUE(write_atomically(file, "x"));
  std::filesystem::create_symlink(file, folder / "link");
  {
    const HeldFile first(file, 0ms);
    EXPECT_FALSE(first.is_refused());
    EXPECT_TRUE(HeldFile(folder / "link", 40ms).is_refused());
  }
  EXPECT_FALSE(HeldFile(file, 0ms).is_refused());
  EXPECT_FALSE(HeldFile(folder / "nowhere" / "b", 0ms).is_refused()) << "nothing is there to be held";
  EXPECT_EQ(entries(folder.path()), 2U) << "no lock lies about";
}

TEST(Writing, APathThatIsNoTextIsNamedAllTheSame) {
  const test::Folder folder;
  const auto file = folder / "caf\xE9.txt";
  ASSERT_TRUE(write_atomically(file, "x"));
  EXPECT_EQ(read_text(file, 10).value(), "x");
  const auto missing = read_text(folder / "no\xE9.txt", 10);
  ASSERT_FALSE(missing);
  EXPECT_FALSE(first_bad_utf8(say(missing.error())));
}

} // namespace
} // namespace mavrel
