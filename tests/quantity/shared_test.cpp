// Values shared until changed.
#include "quantity/shared.h"

#include "build/build.h"
#include "support.h"

#include <thread>

namespace mavrel {
namespace {

TEST(Shared, ACopyIsTheSameUntilItChangesItsOwn) {
  Shared<std::string> a(std::string("low")), b = a;
  EXPECT_TRUE(a.same(b));
  b.own() += "er";
  EXPECT_EQ(*a, "low");
  EXPECT_EQ(*b, "lower");
  EXPECT_FALSE(a.same(b));
  const std::string* before = &*b;
  b.own() += "ed";
  EXPECT_EQ(&*b, before) << "its own is changed in place";
}

TEST(Shared, AListReadsLikeOne) {
  List<int> list = {3, 1, 2};
  std::sort(list.begin(), list.end());
  EXPECT_EQ(std::vector<int>(list.begin(), list.end()), (std::vector{1, 2, 3}));
  List<int> copy = list;
  copy[0] = 7;
  copy.push_back(9);
  EXPECT_EQ(list, (List<int>{1, 2, 3}));
  EXPECT_TRUE(copy.shared(1).same(list.shared(1))) << "only what changed is copied";
  erase_if(copy, [](int i) { return i > 6; });
  EXPECT_EQ(copy, (List<int>{2, 3}));
  EXPECT_TRUE(copy.shared(0).same(list.shared(1)));
}

TEST(Shared, AnEditOfTheDocumentCopiesOnlyItsWay) {
  const build::Build& demo = test::demo_build();
  build::Build next = demo;
  for (std::size_t i = 0; i < demo.variants.size(); ++i)
    EXPECT_TRUE(next.variants.shared(i).same(demo.variants.shared(i)));
  next.variants[1].name = "other";
  next.job.notes = "a note";
  EXPECT_TRUE(next.variants.shared(0).same(demo.variants.shared(0)));
  EXPECT_FALSE(next.variants.shared(1).same(demo.variants.shared(1)));
  for (std::size_t e = 0; e < 2; ++e)
    EXPECT_TRUE(next.ends.shared(e).same(demo.ends.shared(e)));
  EXPECT_EQ(demo.variants[1].name, "B, sleeves");
}

TEST(Shared, CopiesMayBeReadInOtherThreadsWhileOneChanges) {
  build::Build build = test::demo_build();
  std::vector<std::jthread> readers;
  for (int t = 0; t < 4; ++t)
    readers.emplace_back([copy = build] {
      std::size_t letters = 0;
      for (int i = 0; i < 200; ++i)
        for (const build::Variant& variant : std::as_const(copy).variants)
          letters += variant.name.size();
      EXPECT_GT(letters, 0U);
    });
  for (int i = 0; i < 200; ++i)
    build.variant().name = "A" + std::to_string(i);
}

} // namespace
} // namespace mavrel
