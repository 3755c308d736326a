// Where cards are looked for, by the desktop's rules.
#include "shelf/places.h"
#include "support.h"

namespace mavrel::shelf {
namespace {

/// Sets a variable for one test and puts back what was there.
class Variable {
public:
  Variable(const char* name, const char* value) : name_(name) {
    if (const char* was = std::getenv(name)) was_ = was;
    if (value)
      ::setenv(name, value, 1);
    else
      ::unsetenv(name);
  }
  Variable(const Variable&) = delete;
  Variable& operator=(const Variable&) = delete;
  ~Variable() {
    if (was_)
      ::setenv(name_, was_->c_str(), 1);
    else
      ::unsetenv(name_);
  }

private:
  const char* name_;
  std::optional<std::string> was_;
};

TEST(Places, TheUsersShelfFollowsXdg) {
  const Variable home("HOME", "/home/imke");
  {
    const Variable data("XDG_DATA_HOME", "/srv/data");
    EXPECT_EQ(user_shelf_folder(), "/srv/data/mavrel/shelf");
  }
  {
    const Variable data("XDG_DATA_HOME", nullptr);
    EXPECT_EQ(user_shelf_folder(), "/home/imke/.local/share/mavrel/shelf");
  }
  const Variable data("XDG_DATA_HOME", "not/absolute");
  EXPECT_EQ(user_shelf_folder(), "/home/imke/.local/share/mavrel/shelf") << "a relative one is to be ignored";
}

TEST(Places, TheShippedShelfIsFoundAndCanBeReplaced) {
  const Variable none("MAVREL_SHELF", nullptr);
  EXPECT_FALSE(load_shelf(std::vector{shelf_folders().front()}).bags.empty());
  EXPECT_TRUE(std::filesystem::exists(demo_folder() / "sorrel-wayfare.mavrel"));
  const Variable other("MAVREL_SHELF", "/somewhere/else");
  EXPECT_EQ(shelf_folders().front(), "/somewhere/else");
  EXPECT_EQ(shelf_folders().size(), 2U);
}

TEST(Places, FoldersThatAreNotThereAreNoProblem) {
  const Shelf shelf = load_shelf(std::vector<std::filesystem::path>{"/not/there", "/nor/this"});
  EXPECT_TRUE(shelf.bags.empty());
  EXPECT_TRUE(shelf.problems.empty());
  EXPECT_EQ(shelf.find("anything"), nullptr);
}

} // namespace
} // namespace mavrel::shelf
