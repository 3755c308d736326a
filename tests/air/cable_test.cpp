// Cables: what is chosen keeps the drop, carries its fuse, and nothing thinner does.
#include "air/cable.h"

#include "support.h"

namespace mavrel::air {
namespace {

TEST(Cable, IsTheThinnestThatHolds) {
  EXPECT_TRUE(rc::check("thinnest", [] {
    const double current = test::between(0.1, 150), length = test::between(0.1, 9), volts = test::between(6, 28),
                 drop = test::between(0.01, 0.08);
    const auto found = cable_for(current, length, volts, drop);
    for (const Section& s : sections()) {
      const auto fuse = fuse_for(current);
      RC_ASSERT(fuse.has_value());
      const bool holds = voltage_drop(current, length, s.area) <= drop * volts && s.carries >= *fuse;
      if (!found) {
        RC_ASSERT(!holds);
        continue;
      }
      if (s.area < found->section) RC_ASSERT(!holds);
      if (s.area == found->section) RC_ASSERT(holds);
    }
    if (found) RC_ASSERT(found->fuse >= 1.25 * current);
  }));
}

TEST(Cable, EdgesAreInside) {
  EXPECT_EQ(*fuse_for(8), 10);
  EXPECT_EQ(*fuse_for(160), 200);
  EXPECT_FALSE(fuse_for(160.1));
  EXPECT_EQ(gauge_for(0.5), "18");
  EXPECT_EQ(gauge_for(16), "4");
  EXPECT_EQ(gauge_for(35), "1/0");
  EXPECT_EQ(gauge_for(50), "1/0");
  EXPECT_EQ(gauge_for(60), "2/0");
  EXPECT_EQ(gauge_for(80), "");
}

} // namespace
} // namespace mavrel::air
