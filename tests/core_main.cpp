// Runs the core's tests under the locale of the environment, as a desktop would run the program: nothing below the
// application may depend on it.
#include <gtest/gtest.h>

#include <clocale>
#include <cstdlib>
#include <cstring>
#include <locale>

TEST(Locale, IsTheOneAskedFor) {
  if (const char* wanted = std::getenv("MAVREL_TEST_POINT")) {
    EXPECT_STREQ(std::localeconv()->decimal_point, wanted);
  }
}

int main(int argc, char** argv) {
  std::setlocale(LC_ALL, "");
  if (std::getenv("MAVREL_TEST_POINT")) std::locale::global(std::locale(""));
  ::testing::InitGoogleTest(&argc, argv);
  return RUN_ALL_TESTS();
}
