#include "file/text_file.h"

#include "support.h"

#include <sys/stat.h>

namespace mavrel {
namespace {

TEST(TextFile, WritesOverAndReadsBack) {
  const test::Folder folder;
  const auto file = folder / "a.txt";
  ASSERT_TRUE(write_atomically(file, "first"));
  ASSERT_TRUE(write_atomically(file, "second ½"));
  EXPECT_EQ(read_text(file, 100).value_or(""), "second ½");
  std::size_t files = 0;
  for ([[maybe_unused]] const auto& entry : std::filesystem::directory_iterator(folder.path()))
    ++files;
  EXPECT_EQ(files, 1U) << "no temporary file is left";
}

TEST(TextFile, KeepsAFilesModeAndFollowsLinks) {
  const test::Folder folder;
  const auto file = folder / "real", link = folder / "link";
  test::write(file, "x");
  ::chmod(file.c_str(), 0640);
  std::filesystem::create_symlink(file, link);
  ASSERT_TRUE(write_atomically(link, "y"));
  EXPECT_TRUE(std::filesystem::is_symlink(link));
  EXPECT_EQ(test::text_of(file), "y");
  struct stat status {};
  ::stat(file.c_str(), &status);
  EXPECT_EQ(status.st_mode & 0777, 0640U);
}

TEST(TextFile, AFailedWriteLeavesTheOldFile) {
  const auto wrong = write_atomically("/proc/mavrel-cannot-be-here", "x");
  ASSERT_FALSE(wrong);
  EXPECT_NE(say(wrong.error()).find("/proc/mavrel-cannot-be-here"), std::string::npos);
}

TEST(TextFile, RefusesWhatIsTooLargeMissingOrNoText) {
  const test::Folder folder;
  test::write(folder / "big", std::string(2000, 'x'));
  EXPECT_FALSE(read_text(folder / "big", 1000));
  EXPECT_FALSE(read_text(folder / "none", 1000));
  EXPECT_FALSE(read_text(folder.path(), 1000));
  test::write(folder / "latin", "abc\nd\xE9");
  const auto latin = read_text(folder / "latin", 1000);
  ASSERT_FALSE(latin);
  EXPECT_NE(say(latin.error()).find("line 2, column 2"), std::string::npos) << say(latin.error());
  test::write(folder / "bom", "\xEF\xBB\xBFhello");
  EXPECT_EQ(read_text(folder / "bom", 1000).value_or(""), "hello");
}

TEST(Utf8, FindsTheFirstBadByte) {
  EXPECT_FALSE(first_bad_utf8("plain ½ € 𝄞"));
  EXPECT_EQ(first_bad_utf8("ab\xC0\xAF"), 2U) << "overlong";
  EXPECT_EQ(first_bad_utf8("\xED\xA0\x80"), 0U) << "surrogate";
  EXPECT_EQ(first_bad_utf8("x\xE2\x82"), 1U) << "cut short";
  EXPECT_EQ(first_bad_utf8("\xF5\x80\x80\x80"), 0U) << "beyond Unicode";
}

} // namespace
} // namespace mavrel
