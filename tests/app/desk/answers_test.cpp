// The one place that answers: at once and kept, or beside the interface, worked out once for all who ask, with
// progress, a way to stop it, and nothing that is of something else.
#include "app/desk/answers.h"

#include "app/desk/desk.h"
#include "support.h"

#include <QElapsedTimer>
#include <QTest>

#include <atomic>
#include <new>
#include <thread>

namespace mavrel::app {
namespace {

/// Counts up to what it was given, slowly, unless it is stopped.
struct Counting {
  using Given = int;
  using Answer = int;
  static inline std::atomic<int> begun = 0, at_once = 0, most_at_once = 0;
  static Answer answer(const Given& given, const RunControl& control) {
    ++begun;
    most_at_once = std::max(most_at_once.load(), ++at_once);
    int i = 0;
    for (; i < given && !control.stop.stop_requested(); ++i) {
      std::this_thread::sleep_for(std::chrono::milliseconds(1));
      control.progress(static_cast<double>(i + 1) / given);
    }
    --at_once;
    return i;
  }
};

/// Squares, and says how often.
struct Squared {
  using Given = int;
  using Answer = int;
  static inline int worked_out = 0;
  static Answer answer(const Given& given) {
    ++worked_out;
    return given * given;
  }
};

class AnswersTest : public ::testing::Test {
protected:
  static bool wait_for(const std::function<bool()>& what) {
    QElapsedTimer timer;
    timer.start();
    while (!what() && timer.elapsed() < 5000)
      QTest::qWait(2);
    return what();
  }
  Desk desk_{test::demo_shelf()};
  Answers& answers_ = desk_.answers();
};

TEST_F(AnswersTest, AreKeptByWhatTheyWereWorkedOutFrom) {
  Squared::worked_out = 0;
  for (int round = 0; round < 3; ++round)
    for (const int n : {2, 3, 5, 7})
      EXPECT_EQ(answers_.at_once<Squared>(n), n * n);
  EXPECT_EQ(Squared::worked_out, 4) << "a few of them side by side";
  for (const int n : {11, 13, 17, 19, 2})
    EXPECT_EQ(answers_.at_once<Squared>(n), n * n);
  EXPECT_EQ(Squared::worked_out, 9) << "no more than a few";
}

TEST_F(AnswersTest, ComeOnTheInterfacesThreadWithProgressThatNeverFalls) {
  std::vector<double> seen;
  const auto here = std::this_thread::get_id();
  int changes = 0;
  Asked<Counting> asked(answers_, [&] {
    EXPECT_EQ(std::this_thread::get_id(), here);
    ++changes;
  });
  asked.set_moved([&] { seen.push_back(asked.done()); });
  asked.ask(400);
  EXPECT_TRUE(asked.is_running());
  EXPECT_EQ(asked.value(), nullptr);
  EXPECT_EQ(changes, 0) << "whoever asks hears of it later, not while it asks";
  ASSERT_TRUE(wait_for([&] { return !asked.is_running(); }));
  ASSERT_TRUE(asked.value());
  EXPECT_EQ(*asked.value(), 400);
  EXPECT_TRUE(std::is_sorted(seen.begin(), seen.end()));
  EXPECT_GT(seen.size(), 5U);
  EXPECT_EQ(changes, 2) << "that it runs, and that it is there";
}

TEST_F(AnswersTest, TheSameIsWorkedOutOnceForAllWhoAskIt) {
  const int before = Counting::begun;
  int heard = 0;
  auto first = std::make_unique<Asked<Counting>>(answers_, [] {});
  Asked<Counting> second(answers_, [&] { ++heard; });
  first->ask(60);
  second.ask(60);
  first.reset(); // the other still wants it
  ASSERT_TRUE(wait_for([&] { return !second.is_running(); }));
  EXPECT_EQ(*second.value(), 60);
  EXPECT_EQ(Counting::begun, before + 1);
  Asked<Counting> third(answers_, [] {});
  third.ask(60);
  EXPECT_EQ(third.state(), Asking::answered) << "somebody has it";
  EXPECT_GE(heard, 2);
}

TEST_F(AnswersTest, WhatIsStoppedNeverArrivesAndTheNextBegins) {
  Asked<Counting> first(answers_, [] {}), second(answers_, [] {});
  Counting::most_at_once = 0;
  first.ask(100000);
  second.ask(5);
  QTest::qWait(20);
  EXPECT_TRUE(second.is_running()) << "it waits its turn";
  first.forget();
  ASSERT_TRUE(wait_for([&] { return !second.is_running(); }));
  EXPECT_EQ(*second.value(), 5);
  EXPECT_EQ(first.state(), Asking::none);
  EXPECT_EQ(Counting::most_at_once, 1) << "one piece of work at a time";
}

TEST_F(AnswersTest, WhatIsOfSomethingElseIsGivenUpAndSaysSo) {
  std::optional<int> now = 3;
  Asked<Counting> asked(
      answers_, [] {}, [&] { return now; });
  asked.ask();
  ASSERT_TRUE(wait_for([&] { return !asked.is_running(); }));
  EXPECT_FALSE(asked.keep());
  EXPECT_TRUE(asked.value());
  now = 4;
  EXPECT_TRUE(asked.keep());
  EXPECT_EQ(asked.value(), nullptr);
  EXPECT_FALSE(asked.was_asked());
  EXPECT_TRUE(asked.is_outdated());
  now = 100000;
  asked.want();
  EXPECT_FALSE(asked.is_outdated());
  now = 1;
  EXPECT_TRUE(asked.keep()) << "work under way for something else is given up too";
  EXPECT_FALSE(asked.is_outdated()) << "there was no answer yet";
  now.reset();
  asked.want();
  EXPECT_EQ(asked.state(), Asking::none) << "there is nothing to ask";
}

TEST_F(AnswersTest, TheLastOneStaysWhileTheNextIsWorkedOut) {
  int now = 3;
  Asked<Counting> asked(
      answers_, [] {}, [&] { return std::optional(now); });
  asked.want();
  ASSERT_TRUE(wait_for([&] { return asked.last() != nullptr; }));
  now = 50;
  asked.want();
  EXPECT_EQ(asked.value(), nullptr);
  ASSERT_TRUE(asked.last());
  EXPECT_EQ(*asked.last(), 3);
  ASSERT_TRUE(wait_for([&] { return !asked.is_running(); }));
  EXPECT_EQ(*asked.last(), 50);
  asked.forget();
  EXPECT_EQ(asked.last(), nullptr);
}

TEST_F(AnswersTest, WhoeverAskedMayGoWhileItRuns) {
  const int before = Counting::begun;
  auto asked = std::make_unique<Asked<Counting>>(answers_, [] { FAIL() << "nobody is there to hear it"; });
  asked->ask(100000);
  ASSERT_TRUE([&] {
    while (Counting::begun == before)
      std::this_thread::sleep_for(std::chrono::milliseconds(1));
    return true;
  }());
  asked.reset();
  QTest::qWait(20);
}

struct Breaking {
  using Given = int;
  using Answer = int;
  static Answer answer(const Given& given, const RunControl&) {
    if (given < 0) throw std::bad_alloc();
    return given;
  }
};

TEST_F(AnswersTest, WhatBreaksOffIsNoAnswerAndTheNextIsDone) {
  Asked<Breaking> bad(answers_, [] {}), good(answers_, [] {});
  bad.ask(-1);
  good.ask(4);
  ASSERT_TRUE(wait_for([&] { return !bad.is_running() && !good.is_running(); }));
  EXPECT_EQ(bad.state(), Asking::broke_off);
  ASSERT_TRUE(bad.trouble());
  EXPECT_NE(say(*bad.trouble()).find("No memory"), std::string::npos) << say(*bad.trouble());
  EXPECT_EQ(bad.value(), nullptr);
  EXPECT_EQ(good.state(), Asking::answered);
  EXPECT_FALSE(good.trouble());
  EXPECT_EQ(*good.value(), 4);
  bad.ask(2);
  ASSERT_TRUE(wait_for([&] { return !bad.is_running(); }));
  EXPECT_EQ(*bad.value(), 2);
}

struct Refusing {
  using Given = int;
  using Answer = std::optional<Expected<int>>;
  static Answer answer(int given, const RunControl& control) {
    for (int i = 0; i < 2000; ++i)
      control.progress(i / 2000.0); // as fast as it can
    return given < 0 ? Answer(refuse(words("{0} is below nothing"), {std::to_string(given)})) : Answer(given);
  }
};

TEST_F(AnswersTest, WhatIsRefusedSaysWhyAndProgressIsToldNowAndThen) {
  int moved = 0;
  Asked<Refusing> asked(answers_, [] {});
  asked.set_moved([&] { ++moved; });
  EXPECT_EQ(asked.state(), Asking::none);
  asked.ask(-3);
  EXPECT_EQ(asked.state(), Asking::running);
  ASSERT_TRUE(wait_for([&] { return !asked.is_running(); }));
  EXPECT_EQ(asked.state(), Asking::refused);
  EXPECT_EQ(say(*asked.trouble()), "-3 is below nothing");
  EXPECT_EQ(asked.value(), nullptr);
  EXPECT_LT(moved, 100) << "two thousand steps in no time";
}

/// How many load cases there are, slowly.
struct Loads {
  using Given = std::size_t;
  using Answer = std::size_t;
  static Answer answer(const Given& given, const RunControl&) { return given; }
  static Given given(const Desk& desk) { return desk.build().load_cases.size(); }
};

TEST_F(AnswersTest, WhatIsAskedOfTheCarIsOneForAllAndTellsWhenItCame) {
  int told = 0;
  QObject::connect(&answers_, &Answers::changed, &desk_, [&] { ++told; });
  auto& asked = answers_.of_the_car<Loads>();
  EXPECT_EQ(&asked, &answers_.of_the_car<Loads>());
  asked.want();
  asked.want();
  ASSERT_TRUE(wait_for([&] { return asked.value() != nullptr; }));
  EXPECT_EQ(*asked.value(), desk_.build().load_cases.size());
  EXPECT_TRUE(wait_for([&] { return told >= 2; }));
}

} // namespace
} // namespace mavrel::app
