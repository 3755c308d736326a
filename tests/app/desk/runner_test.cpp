// Long work beside the interface: one piece after the other, with a way to stop it, and what breaks off says why.
#include "app/desk/runner.h"

#include "support.h"

#include <QElapsedTimer>
#include <QTest>

#include <atomic>
#include <new>
#include <thread>

namespace mavrel::app {
namespace {

bool wait_for(const std::function<bool()>& what) {
  QElapsedTimer timer;
  timer.start();
  while (!what() && timer.elapsed() < 5000)
    QTest::qWait(2);
  return what();
}

TEST(Runner, WhatBreaksOffSaysWhyForAPerson) {
  EXPECT_FALSE(what_breaks_off([] {}));
  const auto memory = what_breaks_off([] { throw std::bad_alloc(); });
  ASSERT_TRUE(memory);
  EXPECT_NE(say(*memory).find("No memory"), std::string::npos) << say(*memory);
  const auto told = what_breaks_off([] { throw std::runtime_error("the pump is gone"); });
  ASSERT_TRUE(told);
  EXPECT_NE(say(*told).find("the pump is gone"), std::string::npos) << say(*told);
  EXPECT_TRUE(what_breaks_off([] { throw 3; }));
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
