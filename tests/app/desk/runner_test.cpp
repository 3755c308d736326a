// Long work beside the interface: one piece after the other, with progress, a way to stop it, and no stale answers.
#include "app/desk/runner.h"

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

bool wait_for(const std::function<bool()>& what) {
  QElapsedTimer timer;
  timer.start();
  while (!what() && timer.elapsed() < 5000)
    QTest::qWait(2);
  return what();
}

TEST(Runner, AnswersOnTheInterfacesThreadWithProgressThatNeverFalls) {
  Runner runner;
  std::vector<double> seen;
  const auto here = std::this_thread::get_id();
  LongAnswer<Counting>* asked = nullptr;
  LongAnswer<Counting> answer(runner, [&] {
    EXPECT_EQ(std::this_thread::get_id(), here);
    if (asked) seen.push_back(asked->done());
  });
  asked = &answer;
  answer.ask(500);
  EXPECT_TRUE(answer.is_running());
  EXPECT_FALSE(answer.answer());
  ASSERT_TRUE(wait_for([&] { return !answer.is_running(); }));
  EXPECT_EQ(answer.answer(), 500);
  EXPECT_TRUE(std::is_sorted(seen.begin(), seen.end()));
  EXPECT_GT(seen.size(), 5U);
}

TEST(Runner, WhatIsStoppedNeverArrivesAndTheNextBegins) {
  Runner runner;
  LongAnswer<Counting> first(runner, [] {}), second(runner, [] {});
  Counting::most_at_once = 0;
  first.ask(100000);
  second.ask(5);
  QTest::qWait(20);
  EXPECT_TRUE(second.is_running()) << "it waits its turn";
  first.forget();
  ASSERT_TRUE(wait_for([&] { return !second.is_running(); }));
  EXPECT_EQ(second.answer(), 5);
  EXPECT_FALSE(first.answer());
  EXPECT_EQ(Counting::most_at_once, 1) << "one piece of work at a time";
}

TEST(Runner, AnAnswerToSomethingElseIsGivenUp) {
  Runner runner;
  LongAnswer<Counting> answer(runner, [] {});
  answer.ask(3);
  ASSERT_TRUE(wait_for([&] { return !answer.is_running(); }));
  EXPECT_FALSE(answer.keep_only_for(3));
  EXPECT_TRUE(answer.answer());
  EXPECT_TRUE(answer.keep_only_for(4));
  EXPECT_FALSE(answer.answer());
  EXPECT_FALSE(answer.was_asked());
  answer.ask(100000);
  EXPECT_TRUE(answer.keep_only_for(1)) << "work under way for something else is given up too";
  EXPECT_FALSE(answer.is_running());
}

TEST(Runner, WhoeverAskedMayGoWhileItRuns) {
  Runner runner;
  const int before = Counting::begun;
  {
    LongAnswer<Counting> gone(runner, [] { FAIL() << "nobody is there to hear it"; });
    // The first call is the asking itself; from then on silence.
  }
  auto answer = std::make_unique<LongAnswer<Counting>>(runner, [] {});
  answer->ask(100000);
  ASSERT_TRUE(wait_for([&] { return Counting::begun > before; }));
  answer.reset();
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

TEST(Runner, WhatBreaksOffIsNoAnswerAndTheNextIsDone) {
  Runner runner;
  LongAnswer<Breaking> bad(runner, [] {}), good(runner, [] {});
  bad.ask(-1);
  good.ask(4);
  ASSERT_TRUE(wait_for([&] { return !bad.is_running() && !good.is_running(); }));
  EXPECT_EQ(bad.state(), Asking::broke_off);
  ASSERT_TRUE(bad.trouble());
  EXPECT_NE(say(*bad.trouble()).find("could not go on"), std::string::npos) << say(*bad.trouble());
  EXPECT_FALSE(bad.answer());
  EXPECT_EQ(good.state(), Asking::answered);
  EXPECT_FALSE(good.trouble());
  EXPECT_EQ(good.answer(), 4);
  bad.ask(2);
  ASSERT_TRUE(wait_for([&] { return !bad.is_running(); }));
  EXPECT_EQ(bad.state(), Asking::answered);
  EXPECT_EQ(bad.answer(), 2);
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

TEST(Runner, WhatIsRefusedSaysWhyAndProgressIsToldNowAndThen) {
  Runner runner;
  int told = 0;
  LongAnswer<Refusing> asked(runner, [&] { ++told; });
  EXPECT_EQ(asked.state(), Asking::none);
  asked.ask(-3);
  EXPECT_EQ(asked.state(), Asking::running);
  EXPECT_EQ(told, 0) << "whoever asks hears of it later, not while it asks";
  ASSERT_TRUE(wait_for([&] { return !asked.is_running(); }));
  EXPECT_EQ(asked.state(), Asking::refused);
  EXPECT_EQ(say(*asked.trouble()), "-3 is below nothing");
  EXPECT_LT(told, 100) << "two thousand steps in no time";
  EXPECT_GE(told, 2);
}

TEST(Runner, EndsItsWorkBeforeItGoes) {
  auto runner = std::make_unique<Runner>();
  std::atomic<bool> ended = false;
  std::atomic<bool> begun = false;
  runner->start([&](const RunControl& control) -> std::function<void()> {
    begun = true;
    while (!control.stop.stop_requested())
      std::this_thread::sleep_for(std::chrono::milliseconds(1));
    ended = true;
    return [] { FAIL() << "delivered after its runner went"; };
  });
  ASSERT_TRUE(wait_for([&] { return begun.load(); }));
  runner.reset();
  EXPECT_TRUE(ended);
  QTest::qWait(10);
}

} // namespace
} // namespace mavrel::app
