// Keys, their order and digests stay what they were, byte for byte, whatever reads the list of fields. The figures here
// were made before the fields became tables. A field that is added on purpose makes new ones: the test says which.
#include "assess/kept/digest.h"
#include "build/build.h"
#include "build/json.h"
#include "build/random_build.h"
#include "support.h"

#include <fmt/format.h>
#include <xxhash.h>

#include <cstdlib>

namespace mavrel::build {
namespace {

/// Of lines, one after the other.
class LinesHash {
public:
  LinesHash() { XXH3_64bits_reset(state_); }
  ~LinesHash() { XXH3_freeState(state_); }
  LinesHash(const LinesHash&) = delete;
  LinesHash& operator=(const LinesHash&) = delete;
  void add(const std::string& line) {
    XXH3_64bits_update(state_, line.data(), line.size());
    XXH3_64bits_update(state_, "\n", 1);
  }
  [[nodiscard]] std::string text() const { return fmt::format("{:016x}", XXH3_64bits_digest(state_)); }

private:
  XXH3_state_t* state_ = XXH3_createState();
};

/// What is written, read and written again.
void add_json(LinesHash& to, const Build& b) {
  const std::string text = to_json(b);
  to.add(text);
  const auto again = from_json(text);
  ASSERT_TRUE(again) << say(again.error());
  to.add(*again == b ? "same" : "other");
  to.add(to_json(*again));
}
void add_digests(LinesHash& to, const Build& b) {
  for (const auto& digest :
       {assess::digest_of(b), assess::digest_of(b.variant()), assess::digest_of(b.end(End::front))})
    to.add(digest.text());
}

TEST(Golden, RandomBuildsAreWrittenAndDigestedAsEver) {
  // Two hundred of them; with MAVREL_LONG all thousand that were written down.
  const bool all = std::getenv("MAVREL_LONG") != nullptr;
  LinesHash json, digests;
  for (std::uint64_t seed = 1; seed <= (all ? 1000 : 200); ++seed) {
    const Build b = test::random_build(seed);
    add_json(json, b);
    add_digests(digests, b);
  }
  EXPECT_EQ(json.text(), all ? "530d1d8ee527275a" : "b64df7e0458bd8e3");
  EXPECT_EQ(digests.text(), all ? "4069865bfa7c6e8b" : "71bed52d08aaa596");
}

TEST(Golden, DemoFilesAreReadAndDigestedAsEver) {
  // They are edited now and then: what stands here is of their text as it was, read from tests/data.
  LinesHash digests;
  const auto demo = from_json(test::text_of(test::data("golden/sorrel-wayfare.mavrel")));
  ASSERT_TRUE(demo) << say(demo.error());
  add_digests(digests, *demo);
  EXPECT_EQ(digests.text(), "472183726b38319e");
}

} // namespace
} // namespace mavrel::build
