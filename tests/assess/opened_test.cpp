// A build opened with its shelf, for programs without a window.
#include "assess/opened.h"

#include "support.h"

#include <fstream>

namespace mavrel::assess {
namespace {

TEST(Opened, HasItsKitFromTheShelfAndTheFolderBeside) {
  const auto opened = open_build(test::demo_file().string(), {});
  ASSERT_TRUE(opened) << say(opened.error());
  EXPECT_EQ(opened->build, test::demo_whole());
  EXPECT_FALSE(opened->shelf.bags.empty());
  EXPECT_FALSE(opened->air.kit.valves.empty());
}

TEST(Opened, ThatCantBeReadSaysWhich) {
  const auto none = open_build("/nowhere/at-all.mavrel", {});
  ASSERT_FALSE(none);
  EXPECT_NE(say(none.error()).find("at-all.mavrel"), std::string::npos) << say(none.error());
}

} // namespace
} // namespace mavrel::assess
