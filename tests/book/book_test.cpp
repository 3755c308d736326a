#include "book/book.h"

#include "build/care.h"
#include "build/file.h"
#include "support.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>

#include <chrono>
#include <fstream>
#include <thread>

#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

namespace mavrel::book {
namespace {

namespace fs = std::filesystem;

class BookTest : public testing::Test {
protected:
  void SetUp() override {
    folder_ = fs::temp_directory_path() / ("mavrel-book-" + std::to_string(::getpid()) + "-" +
                                           testing::UnitTest::GetInstance()->current_test_info()->name());
    fs::remove_all(folder_);
    fs::create_directories(folder_ / "builds");
  }
  void TearDown() override { fs::remove_all(folder_); }

  [[nodiscard]] fs::path file() const { return folder_ / "book.sqlite"; }
  [[nodiscard]] Book open() const {
    auto book = Book::open(file());
    if (!book) throw std::runtime_error(say(book.error()));
    return std::move(*book);
  }
  /// A build in the folder.
  void put(const std::string& name, const std::function<void(build::Build&)>& change) const {
    build::Build b = build::empty_build();
    change(b);
    ASSERT_TRUE(build::save(b, folder_ / "builds" / (name + ".mavrel")));
  }
  void three_cars() const {
    put("a", [](build::Build& b) {
      b.job.car = "Sorrel Wayfare estate", b.job.number = "W-1", b.job.platform = "Sorrel Wayfare",
      b.job.owner = "Ansel";
      b.variant().fit[1].bag = "Osier O-135";
      b.job.notes = "Fuel pipe moved behind the left wheelhouse.";
    });
    put("b", [](build::Build& b) {
      b.job.car = "Sorrel Wayfare saloon", b.job.number = "W-2", b.job.platform = "Sorrel Wayfare",
      b.job.owner = "Bettany";
      build::Lesson l;
      l.what = "Notch the rail before the tank goes in", l.why = "Sparks reach the hose";
      b.care.own().lessons.push_back(l);
      b.care.own().from = "2026-01-10";
    });
    put("c", [](build::Build& b) {
      b.job.car = "Hollin Tarnway", b.job.number = "T-1", b.job.platform = "Hollin Tarnway";
      b.end(build::End::rear).layout = build::Layout::axle_was_leaves;
    });
  }
  [[nodiscard]] static std::vector<std::string> numbers(Book& book, const BookQuery& query) {
    std::vector<std::string> out;
    const auto found = book.search(query);
    if (!found) throw std::runtime_error(say(found.error()));
    for (const BookFound& f : *found)
      out.push_back(f.car.number);
    return out;
  }
  fs::path folder_;
};

TEST_F(BookTest, FindsByWordsPlatformLayoutBagOwnerLessonAndDay) {
  three_cars();
  Book book = open();
  const auto synced = book.sync(folder_ / "builds");
  ASSERT_TRUE(synced) << say(synced.error());
  EXPECT_EQ(synced->taken, 3);
  using V = std::vector<std::string>;
  const auto by = [&](const std::function<void(BookQuery&)>& ask) {
    BookQuery q;
    ask(q);
    return numbers(book, q);
  };
  EXPECT_EQ(by([](BookQuery&) {}), (V{"T-1", "W-1", "W-2"}));
  EXPECT_EQ(by([](BookQuery& q) { q.words = "fuel wheelhouse"; }), V{"W-1"});
  EXPECT_EQ(by([](BookQuery& q) { q.words = "wheelh"; }), V{"W-1"}); // its beginning is enough
  EXPECT_EQ(by([](BookQuery& q) { q.words = "sparks"; }), V{"W-2"});
  EXPECT_EQ(by([](BookQuery& q) { q.words = "sparks fuel"; }), V{}); // all words
  EXPECT_EQ(by([](BookQuery& q) { q.platform = "sorrel"; }), (V{"W-1", "W-2"}));
  EXPECT_EQ(by([](BookQuery& q) { q.layout = "axle, was on leaves"; }), V{"T-1"});
  EXPECT_EQ(by([](BookQuery& q) { q.bag = "o-135"; }), V{"W-1"});
  EXPECT_EQ(by([](BookQuery& q) { q.owner = "bett"; }), V{"W-2"});
  EXPECT_EQ(by([](BookQuery& q) { q.lesson = "notch"; }), V{"W-2"});
  EXPECT_EQ(by([](BookQuery& q) { q.due_before = "2026-12-31"; }), V{"W-2"});
  EXPECT_EQ(by([](BookQuery& q) { q.due_before = "2026-02-01"; }), V{});
  const auto found = book.search({"fuel", "", "", "", "", "", "", 10});
  EXPECT_NE((*found)[0].snippet.find("‹Fuel›"), std::string::npos) << (*found)[0].snippet;
  EXPECT_EQ(*book.platforms(), (V{"Hollin Tarnway", "Sorrel Wayfare"}));
}

TEST_F(BookTest, OnlyWhatChangedIsReadAgainAndWhatWentIsForgotten) {
  three_cars();
  Book book = open();
  ASSERT_TRUE(book.sync(folder_ / "builds"));
  const auto again = book.sync(folder_ / "builds");
  EXPECT_EQ(again->taken, 0);
  EXPECT_EQ(again->same, 3);
  put("b", [](build::Build& b) { b.job.car = "Changed", b.job.number = "W-22"; });
  fs::remove(folder_ / "builds" / "c.mavrel");
  const auto third = book.sync(folder_ / "builds");
  EXPECT_EQ(third->taken, 1);
  EXPECT_EQ(third->gone, 1);
  EXPECT_EQ(numbers(book, {"changed", "", "", "", "", "", "", 10}), std::vector<std::string>{"W-22"});
  EXPECT_TRUE(numbers(book, {"sparks", "", "", "", "", "", "", 10}).empty()); // its old words are gone
  EXPECT_EQ(*book.size(), 2);
}

TEST_F(BookTest, OneFileHasOneNameFromWhicheverFolder) {
  three_cars();
  Book book = open();
  const fs::path before = fs::current_path();
  fs::current_path(folder_);
  const auto near = book.sync("builds");
  fs::current_path(folder_ / "builds");
  const auto nearer = book.sync(".");
  fs::current_path(before);
  ASSERT_TRUE(near && nearer);
  EXPECT_EQ(near->taken, 3);
  EXPECT_EQ(nearer->same, 3);
  EXPECT_EQ(nearer->gone, 0);
  EXPECT_EQ(book.size().value_or(0), 3);
}

TEST_F(BookTest, AFolderIsNotItsNeighbourOfALongerName) {
  for (const char* folder : {"cars", "cars2"}) {
    fs::create_directories(folder_ / folder);
    ASSERT_TRUE(build::save(build::empty_build(), folder_ / folder / (std::string(folder) + ".mavrel")));
  }
  Book book = open();
  ASSERT_TRUE(book.sync(folder_ / "cars2"));
  for (const char* written : {"cars", "cars/", "./cars//"}) {
    const auto synced = book.sync(folder_ / written);
    ASSERT_TRUE(synced);
    EXPECT_EQ(synced->gone, 0) << written;
  }
  EXPECT_EQ(*book.size(), 2);
  fs::remove(folder_ / "cars" / "cars.mavrel");
  EXPECT_EQ(book.sync(folder_ / "cars/")->gone, 1) << "its own are forgotten, however the folder was written";
}

TEST_F(BookTest, WhatMayNotBeLookedAtIsNotForgotten) {
  fs::create_directories(folder_ / "builds" / "shut");
  ASSERT_TRUE(build::save(build::empty_build(), folder_ / "builds" / "shut" / "a.mavrel"));
  Book book = open();
  ASSERT_TRUE(book.sync(folder_ / "builds"));
  fs::permissions(folder_ / "builds" / "shut", fs::perms::none);
  const bool is_root = ::geteuid() == 0; // whom no lock stops
  if (is_root) {
    ASSERT_EQ(::seteuid(65534), 0);
  }
  const auto synced = book.sync(folder_ / "builds");
  if (is_root) {
    ASSERT_EQ(::seteuid(0), 0);
  }
  fs::permissions(folder_ / "builds" / "shut", fs::perms::owner_all);
  ASSERT_TRUE(synced) << say(synced.error());
  EXPECT_EQ(synced->gone, 0);
  EXPECT_EQ(*book.size(), 1);
}

TEST_F(BookTest, ABuildThatCantBeReadIsSaidAndTheOthersAreTaken) {
  three_cars();
  std::ofstream(folder_ / "builds" / "broken.mavrel") << "{\"version\": 1, ";
  Book book = open();
  const auto synced = book.sync(folder_ / "builds");
  ASSERT_TRUE(synced);
  EXPECT_EQ(synced->taken, 3);
  ASSERT_EQ(synced->problems.size(), 1U);
  EXPECT_FALSE(book.sync(folder_ / "nowhere"));
}

TEST_F(BookTest, ADamagedBookIsMadeAnew) {
  three_cars();
  {
    Book book = open();
    ASSERT_TRUE(book.sync(folder_ / "builds"));
  }
  const auto size = fs::file_size(file());
  for (const int kind : {1, 2}) {
    if (kind == 1) fs::resize_file(file(), size / 2);
    if (kind == 2) {
      std::fstream f(file(), std::ios::binary | std::ios::in | std::ios::out);
      f.seekp(4096);
      f << std::string(fs::file_size(file()) - 4096, '\x5a');
    }
    for (const char* ending : {"-wal", "-shm"})
      fs::remove(file().string() + ending);
    Book book = open();
    EXPECT_TRUE(book.was_rebuilt()) << kind;
    const auto synced = book.sync(folder_ / "builds");
    ASSERT_TRUE(synced) << kind;
    EXPECT_EQ(*book.size(), 3) << kind;
    EXPECT_EQ(numbers(book, {"sparks", "", "", "", "", "", "", 10}), std::vector<std::string>{"W-2"});
  }
}

TEST_F(BookTest, WhatIsDamagedIsPutAsideUnderANameThatNothingHas) {
  three_cars();
  { ASSERT_TRUE(open().sync(folder_ / "builds")); }
  std::vector<std::string> aside;
  for (const char* name : {".damaged", ".damaged-2", ".damaged-3"}) {
    fs::resize_file(file(), fs::file_size(file()) / 2);
    const std::string torn = test::text_of(file());
    EXPECT_TRUE(open().was_rebuilt());
    EXPECT_EQ(test::text_of(file().string() + name), torn);
    ASSERT_TRUE(open().sync(folder_ / "builds"));
    aside.push_back(torn);
  }
  EXPECT_EQ(test::text_of(file().string() + ".damaged"), aside.front()) << "the first is still there";
}

TEST_F(BookTest, AFolderInItsPlaceIsRefusedWithASentence) {
  fs::create_directories(file());
  const auto book = Book::open(file());
  ASSERT_FALSE(book);
  EXPECT_NE(say(book.error()).find("folder"), std::string::npos);
}

TEST_F(BookTest, WhatIsNoBookIsLeftAloneToTheLastByte) {
  {
    SQLite::Database other(file().string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    other.exec("CREATE TABLE letters(text)");
    other.exec("INSERT INTO letters VALUES('dear')");
  }
  const auto book = Book::open(file());
  ASSERT_FALSE(book);
  EXPECT_NE(say(book.error()).find("another program"), std::string::npos);
  {
    SQLite::Database other(file().string());
    EXPECT_EQ(other.execAndGet("SELECT text FROM letters").getString(), "dear");
  }
  const auto is_left = [&](const std::string& text) {
    std::ofstream(file(), std::ios::binary | std::ios::trunc) << text;
    const auto refused = Book::open(file());
    EXPECT_FALSE(refused);
    EXPECT_EQ(test::text_of(file()), text);
    EXPECT_FALSE(fs::exists(file().string() + ".damaged"));
  };
  const std::string database = test::text_of(file());
  is_left(database);
  is_left(database.substr(0, 700)); // another's, and damaged: not ours to mend
  is_left("a letter");
  is_left(test::text_of(test::demo_file()));
}

TEST_F(BookTest, TwoProgramsOnOneBookLoseNothing) {
  constexpr int each = 60;
  (void)open(); // its tables stand
  std::vector<pid_t> children;
  for (int who = 0; who < 2; ++who) {
    const pid_t child = ::fork();
    if (child == 0) {
      auto book = Book::open(file());
      int wrong = book ? 0 : 1;
      for (int i = 0; i < each && wrong == 0; ++i) {
        build::Build b = build::empty_build();
        b.job.car = "car", b.job.number = std::to_string(who) + "-" + std::to_string(i);
        if (!book->take(b.job.number, 1, 1, b)) wrong = 2;
      }
      ::_exit(wrong);
    }
    children.push_back(child);
  }
  for (const pid_t child : children) {
    int status = 0;
    ::waitpid(child, &status, 0);
    EXPECT_EQ(status, 0);
  }
  Book book = open();
  EXPECT_FALSE(book.was_rebuilt());
  EXPECT_EQ(*book.size(), 2 * each);
}

TEST_F(BookTest, KilledAtAnyMomentItStandsAndHoldsWhatItSaidItHad) {
  (void)open();
  for (int round = 0; round < 6; ++round) {
    int pipe[2];
    ASSERT_EQ(::pipe(pipe), 0);
    const pid_t child = ::fork();
    if (child == 0) {
      auto book = Book::open(file());
      for (int i = 0;; ++i) {
        build::Build b = build::empty_build();
        b.job.number = std::to_string(round) + "-" + std::to_string(i);
        if (!book->take(b.job.number, 1, 1, b)) ::_exit(1);
        const char told = 1;
        if (::write(pipe[1], &told, 1) != 1) ::_exit(1);
      }
    }
    ::close(pipe[1]);
    char told = 0;
    ASSERT_EQ(::read(pipe[0], &told, 1), 1);
    ::usleep(static_cast<useconds_t>(3000 + 4000 * round));
    ::kill(child, SIGKILL);
    int status = 0;
    ::waitpid(child, &status, 0);
    int count = 1;
    while (::read(pipe[0], &told, 1) == 1)
      ++count;
    ::close(pipe[0]);
    Book book = open();
    EXPECT_FALSE(book.was_rebuilt());
    for (int i = 0; i < count; ++i) {
      const std::string number = std::to_string(round) + "-" + std::to_string(i);
      BookQuery q;
      q.words = number;
      q.most = 1000;
      const auto found = numbers(book, q);
      EXPECT_NE(std::find(found.begin(), found.end(), number), found.end()) << number;
    }
  }
}

TEST_F(BookTest, FindingsAreSearchedOnceTheyWereTakenAndAskedForAgainAfterAChange) {
  three_cars();
  Book book = open();
  ASSERT_TRUE(book.sync(folder_ / "builds"));
  const std::string a = (folder_ / "builds" / "a.mavrel").string();
  EXPECT_EQ(book.without_findings(10)->size(), 3U);
  ASSERT_TRUE(book.take_findings(a, {"The damper tops out at road height.", "2027-02-03", 4, 9}));
  EXPECT_EQ(book.without_findings(10)->size(), 2U);
  EXPECT_EQ(numbers(book, {"tops out", "", "", "", "", "", "", 10}), std::vector<std::string>{"W-1"});
  const auto found = book.search({"tops out", "", "", "", "", "", "", 10});
  ASSERT_TRUE(found && found->size() == 1);
  EXPECT_EQ(found->front().car.due, "2027-02-03") << "as Care has it";
  EXPECT_EQ(found->front().car.proved, 4);
  EXPECT_EQ(found->front().car.checks, 9);
  EXPECT_EQ(book.search({"  ", " ", "", "", "", "", "", 10})->size(), 3U) << "a blank searches for everything";
  EXPECT_TRUE(book.search({" ,;. ", "", "", "", "", "", "", 10})->empty()) << "signs alone are nothing's name";
  put("a", [](build::Build& b) { b.job.number = "W-1", b.job.car = "x"; });
  ASSERT_TRUE(book.sync(folder_ / "builds"));
  EXPECT_EQ(book.without_findings(10)->size(), 3U);
}

TEST_F(BookTest, WhatIsTypedIsWordsAndNoLanguage) {
  three_cars();
  Book book = open();
  ASSERT_TRUE(book.sync(folder_ / "builds"));
  for (const char* words : {"\"", "*", "NEAR(", "fuel OR", "car:fuel", "'; DROP TABLE car; --", "-", "ü", "(", ")"}) {
    BookQuery q;
    q.words = words;
    EXPECT_TRUE(book.search(q)) << words;
    q.words.clear(), q.owner = words;
    EXPECT_TRUE(book.search(q)) << words;
  }
  EXPECT_EQ(*book.size(), 3);
}

} // namespace
} // namespace mavrel::book
