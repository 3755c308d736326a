// The shop's book: every build of a folder in an index that is searched at once. The builds are what is kept; the book
// is made from them, can be made anew at any time, and is thrown away without a loss.
#pragma once

#include "build/build.h"
#include "quantity/expected.h"

#include <array>
#include <cstdint>
#include <filesystem>
#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace mavrel::book {

/// One car as it stands in the book.
struct BookCar {
  std::string file; // path, as the folder has it
  std::string car, number, owner, platform, shop;
  std::array<std::string, 2> layout, bag; // front, rear; keys of layouts
  double hours = 0;                       // s that its jobs took, as far as they were noted
  std::string handed_over;                // day; empty: not yet
  int proved = 0, checks = 0;             // checks that passed, and that were signed at all
  std::string due;                        // day of what comes round next by fixed intervals; empty: nothing
  int lessons = 0;
  std::string lesson_text; // a line a lesson: what, and why
};

/// What is looked for: empty is anything. Words match whole words and beginnings, all of them.
struct BookQuery {
  std::string words;
  std::string platform, layout, bag, owner, lesson; // parts of what stands there
  std::string due_before;                           // day, included
  std::size_t most = 200;
  friend bool operator==(const BookQuery&, const BookQuery&) = default;
};
struct BookFound {
  BookCar car;
  std::string snippet; // of the text that was found, the words between ‹ and ›; empty where no words were asked for
};

/// What takes an assessment of a car.
struct BookFindings {
  std::string sentences;
  std::optional<std::string> due;    // day; none: as it stands
  std::optional<int> proved, checks; // likewise
};

/// What builds of one platform came to.
struct Alike {
  int builds = 0;
  int timed = 0;                        // of them handed over, with hours noted
  double least = 0, mean = 0, most = 0; // s that their jobs took
  struct Bags {
    std::array<std::string, 2> bag; // front, rear
    int builds = 0, proved = 0, checks = 0;
  };
  std::vector<Bags> bags;           // the most chosen first
  std::vector<std::string> lessons; // `W-2: what had to be changed, and why`
};

/// A build that could not be taken into the book, and why.
struct BookProblem {
  std::filesystem::path file;
  Message what;
};
struct BookSync {
  int taken = 0, same = 0, gone = 0; // builds read, unchanged since, and no longer there
  std::vector<BookProblem> problems;
  bool rebuilt = false; // the book was damaged, or of another version, and made anew
};

/// One thread's own; several, of several programs, may have one file open.
class Book {
public:
  /// Opens the book of a file, making it where there is none and anew where it is damaged; what was damaged is put
  /// aside under a name that nothing has. A file that is no book is not touched: it is refused.
  [[nodiscard]] static Expected<Book> open(const std::filesystem::path& file);
  ~Book();
  Book(Book&&) noexcept;
  Book& operator=(Book&&) noexcept;

  /// Brings it to what stands in a folder and below: reads what changed, forgets what went.
  /// @param going_on  asked between builds; false ends it with what it has
  [[nodiscard]] Expected<BookSync> sync(const std::filesystem::path& folder,
                                        const std::function<bool(int done, int all)>& going_on = {});
  /// Takes one build in, as if its file said so.
  [[nodiscard]] Expected<void> take(const std::string& file, std::int64_t changed, std::int64_t size,
                                    const build::Build& build);
  /// Adds what an assessment found, to be searched with the rest, and what only one can say of what stands there.
  [[nodiscard]] Expected<void> take_findings(const std::string& file, const BookFindings& found);
  /// Files whose findings were not taken since they last changed.
  [[nodiscard]] Expected<std::vector<std::string>> without_findings(std::size_t most);

  [[nodiscard]] Expected<std::vector<BookFound>> search(const BookQuery& query);
  [[nodiscard]] Expected<std::vector<std::string>> platforms();
  /// @param platform  the whole of it
  [[nodiscard]] Expected<Alike> alike(const std::string& platform);
  [[nodiscard]] Expected<int> size();
  [[nodiscard]] bool was_rebuilt() const;

private:
  struct Inside;
  explicit Book(std::unique_ptr<Inside> inside);
  std::unique_ptr<Inside> inside_;
};

/// `$XDG_DATA_HOME/mavrel/book.sqlite`
[[nodiscard]] std::filesystem::path usual_book();

/// A build as it stands in the book. @param file  that it is in
[[nodiscard]] BookCar car_of(const std::string& file, const build::Build& build);
/// All words of a build that are searched: notes, lessons, log, checks, parts, who it is for.
[[nodiscard]] std::string words_of(const build::Build& build);

} // namespace mavrel::book
