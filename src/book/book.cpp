#include "book/book.h"

#include "build/care.h"
#include "build/file.h"
#include "build/json.h"
#include "file/text_file.h"
#include "parallel/in_parallel.h"
#include "quantity/text.h"
#include "work/day.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>
#include <sqlite3.h>

#include <algorithm>
#include <cstdlib>
#include <fstream>
#include <functional>
#include <map>
#include <set>

namespace mavrel::book {

namespace fs = std::filesystem;

namespace {

constexpr int book_version = 1;
constexpr int book_mark = 0x4d76426b; // this file is a book of ours
constexpr int waits_ms = 10'000;      // for another program that writes
constexpr int in_one_go = 400;        // builds a transaction
constexpr int most_words = 16;        // of one search: who types more means the first of them

Message trouble(const std::string& what) {
  return {words("The shop’s book can’t be used: {0}."), {what}};
}

constexpr const char* schema = R"(
CREATE TABLE IF NOT EXISTS car (
  id INTEGER PRIMARY KEY, file TEXT NOT NULL UNIQUE, changed INTEGER NOT NULL, size INTEGER NOT NULL,
  car TEXT, number TEXT, owner TEXT, platform TEXT, shop TEXT,
  layout_front TEXT, layout_rear TEXT, bag_front TEXT, bag_rear TEXT,
  hours REAL, handed_over TEXT, proved INTEGER, checks INTEGER, due TEXT, lessons INTEGER, lesson_text TEXT,
  found INTEGER NOT NULL DEFAULT 0);
CREATE INDEX IF NOT EXISTS car_platform ON car(platform);
CREATE INDEX IF NOT EXISTS car_due ON car(due);
CREATE VIRTUAL TABLE IF NOT EXISTS words USING fts5(body, findings, tokenize='unicode61 remove_diacritics 2');
)";

/// What is typed into a search, as the index wants it: every word, its end open.
std::string match_of(const std::string& typed) {
  std::string out, word;
  int words = 0;
  for (const char c : typed + " ") {
    const bool letter = static_cast<unsigned char>(c) >= 0x80 || std::isalnum(static_cast<unsigned char>(c));
    if (letter) {
      word += c;
    } else if (!word.empty()) {
      if (++words > most_words) break;
      out += fmt::format("{}\"{}\"*", out.empty() ? "" : " ", word);
      word.clear();
    }
  }
  return out;
}

std::int64_t changed_of(const fs::path& file) {
  std::error_code error;
  const auto time = fs::last_write_time(file, error);
  return error ? 0 : static_cast<std::int64_t>(time.time_since_epoch().count());
}

} // namespace

namespace {

/// What stands where a book is to be, looked at without writing a byte.
enum class There {
  nothing,  // or an empty file
  book,     // of ours, sound or not
  database, // another program's
  other     // no database at all
};

constexpr std::string_view sqlite_head{"SQLite format 3\0", 16};
constexpr std::size_t mark_at = 68; // bytes into the file, four of them, the highest first

There what_is_there(const fs::path& file) {
  std::error_code error;
  const auto size = fs::file_size(file, error);
  if (!error && size == 0) return There::nothing;
  std::ifstream in(file, std::ios::binary);
  std::string head(100, '\0');
  in.read(head.data(), static_cast<std::streamsize>(head.size()));
  const bool is_usual = file == usual_book(); // nobody else keeps anything there: whatever it is, it was the book
  if (std::string_view(head).substr(0, sqlite_head.size()) != sqlite_head) return is_usual ? There::book : There::other;
  std::uint32_t mark = 0;
  for (std::size_t i = 0; i < 4; ++i)
    mark = mark << 8U | static_cast<unsigned char>(head[mark_at + i]);
  if (mark == static_cast<std::uint32_t>(book_mark) || is_usual) return There::book;
  // One that was begun and not ended has its mark beside it yet, or is empty.
  try {
    SQLite::Database db(file.string(), SQLite::OPEN_READONLY, waits_ms);
    const int told = db.execAndGet("PRAGMA application_id").getInt();
    if (told == book_mark) return There::book;
    if (told == 0 && db.execAndGet("SELECT count(*) FROM sqlite_master").getInt() == 0) return There::nothing;
  } catch (const SQLite::Exception&) {
  }
  return There::database;
}

} // namespace

struct Book::Inside {
  fs::path file;
  std::unique_ptr<SQLite::Database> db;
  bool rebuilt = false;

  void begin() {
    db = std::make_unique<SQLite::Database>(file.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, waits_ms);
    db->exec("PRAGMA journal_mode=WAL");
    db->exec("PRAGMA synchronous=NORMAL"); // it is made from the builds: a crash costs no more than reading them again
    const int version = db->execAndGet("PRAGMA user_version").getInt();
    if (version != 0 && version != book_version) throw SQLite::Exception("another version");
    if (version != book_version) { // one that stands is only read: whoever looks never waits for who writes
      SQLite::Transaction whole(*db, SQLite::TransactionBehavior::IMMEDIATE);
      db->exec(schema);
      db->exec(fmt::format("PRAGMA user_version={}", book_version));
      db->exec(fmt::format("PRAGMA application_id={}", book_mark));
      whole.commit();
    }
    // A look at everything that it stands on: damage is found now rather than in the middle of a search.
    if (db->execAndGet("PRAGMA quick_check(1)").getString() != "ok") throw SQLite::Exception("damaged");
    db->execAndGet("SELECT count(*) FROM words");
  }
  /// Puts the file aside and begins anew: whatever it was, nobody loses it.
  void anew() {
    db.reset();
    std::error_code error;
    std::string aside = file.string() + ".damaged";
    for (int n = 2; fs::symlink_status(aside, error).type() != fs::file_type::not_found; ++n)
      aside = fmt::format("{}.damaged-{}", file.string(), n);
    fs::rename(file, aside); // where that can't be done nothing is begun in its place
    for (const char* ending : {"-wal", "-shm"})
      fs::remove(file.string() + ending, error);
    rebuilt = true;
    begin();
  }

  void put(const BookCar& c, std::int64_t changed, std::int64_t size, const build::Build& build) {
    std::string lessons;
    for (const build::Lesson& l : build.care->lessons)
      lessons += l.what + (l.why.empty() ? "" : ": " + l.why) + "\n";
    SQLite::Statement old(*db, "SELECT id FROM car WHERE file=?");
    old.bind(1, c.file);
    std::int64_t id = old.executeStep() ? old.getColumn(0).getInt64() : 0;
    if (id != 0) {
      SQLite::Statement gone(*db, "DELETE FROM words WHERE rowid=?");
      gone.bind(1, id);
      gone.exec();
    }
    SQLite::Statement in(
        *db, "INSERT INTO car(file,changed,size,car,number,owner,platform,shop,layout_front,layout_rear,"
             "bag_front,bag_rear,hours,handed_over,proved,checks,due,lessons,lesson_text,found)"
             " VALUES(?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,0)"
             " ON CONFLICT(file) DO UPDATE SET changed=excluded.changed,size=excluded.size,car=excluded.car,"
             "number=excluded.number,owner=excluded.owner,platform=excluded.platform,shop=excluded.shop,"
             "layout_front=excluded.layout_front,layout_rear=excluded.layout_rear,"
             "bag_front=excluded.bag_front,bag_rear=excluded.bag_rear,hours=excluded.hours,"
             "handed_over=excluded.handed_over,proved=excluded.proved,checks=excluded.checks,"
             "due=excluded.due,lessons=excluded.lessons,lesson_text=excluded.lesson_text,found=0");
    int n = 1;
    in.bind(n++, c.file);
    in.bind(n++, changed);
    in.bind(n++, size);
    for (const std::string* text :
         {&c.car, &c.number, &c.owner, &c.platform, &c.shop, &c.layout[0], &c.layout[1], &c.bag[0], &c.bag[1]})
      in.bind(n++, *text);
    in.bind(n++, c.hours);
    in.bind(n++, c.handed_over);
    in.bind(n++, c.proved);
    in.bind(n++, c.checks);
    in.bind(n++, c.due);
    in.bind(n++, c.lessons);
    in.bind(n++, lessons);
    in.exec();
    if (id == 0) {
      SQLite::Statement now(*db, "SELECT id FROM car WHERE file=?");
      now.bind(1, c.file);
      now.executeStep();
      id = now.getColumn(0).getInt64();
    }
    SQLite::Statement text(*db, "INSERT INTO words(rowid,body,findings) VALUES(?,?,'')");
    text.bind(1, id);
    text.bind(2, words_of(build));
    text.exec();
  }
};

Book::Book(std::unique_ptr<Inside> inside) : inside_(std::move(inside)) {}
Book::~Book() = default;
Book::Book(Book&&) noexcept = default;
Book& Book::operator=(Book&&) noexcept = default;

bool Book::was_rebuilt() const {
  return inside_->rebuilt;
}

Expected<Book> Book::open(const fs::path& file) {
  auto inside = std::make_unique<Inside>();
  inside->file = file;
  std::error_code error;
  if (file.has_parent_path()) fs::create_directories(file.parent_path(), error);
  if (fs::is_directory(file, error)) return refuse(words("{0} is a folder; the book is a file."), {shown_path(file)});
  const Standing standing = what_stands(file);
  if (standing == Standing::special)
    return refuse(words("{0} is a device or a pipe; the book is an ordinary file."), {shown_path(file)});
  if (standing != Standing::nothing) {
    const There there = what_is_there(file);
    if (there == There::database)
      return refuse(words("{0} is another program’s. A file of its own is right for the book."), {shown_path(file)});
    if (there == There::other)
      return refuse(words("{0} is no book, and is left as it is. A file of its own is right for the book."),
                    {shown_path(file)});
  }
  try {
    try {
      inside->begin();
    } catch (const SQLite::Exception& what) {
      // Another program at work, no room, or no leave to write is no damage.
      const int code = what.getErrorCode();
      if (code == SQLITE_BUSY || code == SQLITE_LOCKED || code == SQLITE_FULL || code == SQLITE_READONLY ||
          code == SQLITE_CANTOPEN || code == SQLITE_IOERR)
        return refuse(trouble(what.what()));
      inside->anew();
    }
  } catch (const std::exception& what) {
    return refuse(trouble(what.what()));
  }
  return Book(std::move(inside));
}

namespace {

/// What stands on the disk under one name.
struct OnDisk {
  fs::path path;
  std::int64_t changed = 0, size = 0;
};

/// Folders are compared by their whole names: `cars2` does not lie in `cars`.
bool lies_below(const fs::path& file, const fs::path& folder) {
  const auto [in_folder, in_file] = std::mismatch(folder.begin(), folder.end(), file.begin(), file.end());
  return in_folder == folder.end() || (in_folder->empty() && std::next(in_folder) == folder.end());
}

/// Is it known that nothing stands there? A folder that may not be read says nothing.
bool is_gone(const fs::path& file) {
  std::error_code error;
  return fs::symlink_status(file, error).type() == fs::file_type::not_found;
}

/// A build that can't be read is one file's trouble, whatever comes of it.
Expected<build::Build> read_build(const fs::path& file) {
  try {
    return build::load(file);
  } catch (const std::exception& what) {
    return refuse(words("It could not be read: {0}."), {std::string(what.what())});
  }
}

} // namespace

Expected<BookSync> Book::sync(const fs::path& given, const std::function<bool(int, int)>& going_on) {
  BookSync out;
  out.rebuilt = inside_->rebuilt;
  std::error_code error;
  // One file has one name, from whichever folder Mavrel was started.
  const fs::path folder = fs::absolute(given, error).lexically_normal();
  if (!fs::is_directory(folder, error))
    return refuse(words("{0} is no folder. The one that the shop keeps its builds in is right."), {shown_path(given)});
  std::vector<OnDisk> files;
  for (fs::recursive_directory_iterator it(folder, fs::directory_options::skip_permission_denied, error), end;
       !error && it != end; it.increment(error))
    if (std::error_code of_file; it->path().extension() == ".mavrel" && it->is_regular_file(of_file))
      files.push_back({it->path(), changed_of(it->path()), static_cast<std::int64_t>(it->file_size(of_file))});
  if (error)
    out.problems.push_back({folder, {words("It could not be looked through to its end: {0}."), {error.message()}}});
  try {
    std::map<std::string, std::pair<std::int64_t, std::int64_t>> known;
    SQLite::Statement all(*inside_->db, "SELECT file,changed,size FROM car");
    while (all.executeStep())
      known[all.getColumn(0).getString()] = {all.getColumn(1).getInt64(), all.getColumn(2).getInt64()};
    std::vector<const OnDisk*> fresh;
    std::set<std::string> there;
    for (const OnDisk& f : files) {
      const std::string name = f.path.string();
      there.insert(name);
      const auto old = known.find(name);
      if (old != known.end() && old->second == std::pair(f.changed, f.size))
        ++out.same;
      else
        fresh.push_back(&f);
    }
    // Read by as many hands as there are; written by one.
    for (std::size_t from = 0; from < fresh.size(); from += in_one_go) {
      if (going_on && !going_on(static_cast<int>(from), static_cast<int>(fresh.size()))) return out;
      const std::size_t to = std::min(fresh.size(), from + in_one_go);
      std::vector<Expected<build::Build>> read(to - from, refuse(Message{words("not read"), {}}));
      in_parallel(to - from, {}, [&](std::size_t i) { read[i] = read_build(fresh[from + i]->path); });
      SQLite::Transaction whole(*inside_->db, SQLite::TransactionBehavior::IMMEDIATE);
      for (std::size_t i = from; i < to; ++i) {
        const std::string name = fresh[i]->path.string();
        if (!read[i - from]) {
          out.problems.push_back({fresh[i]->path, read[i - from].error()});
          continue;
        }
        if (first_bad_utf8(name)) {
          out.problems.push_back({fresh[i]->path, {words("Its name is no text."), {}}});
          continue;
        }
        inside_->put(car_of(name, *read[i - from]), fresh[i]->changed, fresh[i]->size, *read[i - from]);
        ++out.taken;
      }
      whole.commit();
    }
    SQLite::Transaction whole(*inside_->db, SQLite::TransactionBehavior::IMMEDIATE);
    for (const auto& [name, stamp] : known) {
      // Of another folder: that is another sync's. What can't be looked at is not gone.
      if (there.contains(name) || !lies_below(name, folder) || !is_gone(name)) continue;
      SQLite::Statement text(*inside_->db, "DELETE FROM words WHERE rowid=(SELECT id FROM car WHERE file=?)");
      text.bind(1, name);
      text.exec();
      SQLite::Statement gone(*inside_->db, "DELETE FROM car WHERE file=?");
      gone.bind(1, name);
      out.gone += gone.exec();
    }
    whole.commit();
  } catch (const std::exception& what) {
    return refuse(trouble(what.what()));
  }
  return out;
}

Expected<void> Book::take(const std::string& file, std::int64_t changed, std::int64_t size, const build::Build& build) {
  try {
    SQLite::Transaction whole(*inside_->db, SQLite::TransactionBehavior::IMMEDIATE);
    inside_->put(car_of(file, build), changed, size, build);
    whole.commit();
  } catch (const std::exception& what) {
    return refuse(trouble(what.what()));
  }
  return {};
}

Expected<void> Book::take_findings(const std::string& file, const BookFindings& found) {
  try {
    SQLite::Transaction whole(*inside_->db, SQLite::TransactionBehavior::IMMEDIATE);
    SQLite::Statement text(*inside_->db, "UPDATE words SET findings=? WHERE rowid=(SELECT id FROM car WHERE file=?)");
    text.bind(1, found.sentences);
    text.bind(2, file);
    text.exec();
    SQLite::Statement done(*inside_->db, "UPDATE car SET found=1,due=ifnull(?2,due),proved=ifnull(?3,proved),"
                                         "checks=ifnull(?4,checks) WHERE file=?1");
    done.bind(1, file);
    if (found.due) done.bind(2, *found.due);
    if (found.proved) done.bind(3, *found.proved);
    if (found.checks) done.bind(4, *found.checks);
    done.exec();
    whole.commit();
  } catch (const std::exception& what) {
    return refuse(trouble(what.what()));
  }
  return {};
}

Expected<std::vector<std::string>> Book::without_findings(std::size_t most) {
  std::vector<std::string> out;
  try {
    SQLite::Statement all(*inside_->db, "SELECT file FROM car WHERE found=0 LIMIT ?");
    all.bind(1, static_cast<std::int64_t>(most));
    while (all.executeStep())
      out.push_back(all.getColumn(0).getString());
  } catch (const std::exception& what) {
    return refuse(trouble(what.what()));
  }
  return out;
}

Expected<std::vector<BookFound>> Book::search(const BookQuery& query) {
  std::vector<BookFound> out;
  const std::string match = match_of(query.words);
  if (!trimmed(query.words).empty() && match.empty()) return out; // only signs: nothing is called so
  std::string sql =
      "SELECT car.file,car.car,number,owner,platform,shop,layout_front,layout_rear,bag_front,bag_rear,hours,"
      "handed_over,proved,checks,due,lessons,lesson_text,";
  sql += match.empty()
             ? "'' FROM car WHERE 1"
             : "snippet(words,-1,'‹','›','…',12) FROM words JOIN car ON car.id=words.rowid WHERE words MATCH ?1";
  std::vector<std::string> binds;
  const auto part = [&](const std::string& typed, const char* condition) {
    const std::string text(trimmed(typed));
    if (text.empty()) return;
    binds.push_back(text);
    std::string c = condition;
    const std::string mark = fmt::format("?{}", binds.size() + 1);
    for (std::size_t at; (at = c.find('@')) != std::string::npos;)
      c.replace(at, 1, mark);
    sql += " AND " + c;
  };
  part(query.platform, "instr(lower(platform),lower(@))>0");
  part(query.layout, "(layout_front=@ OR layout_rear=@)");
  part(query.bag, "(instr(lower(bag_front),lower(@))>0 OR instr(lower(bag_rear),lower(@))>0)");
  part(query.owner, "instr(lower(owner),lower(@))>0");
  part(query.lesson, "instr(lower(lesson_text),lower(@))>0");
  part(query.due_before, "(due<>'' AND due<=@)");
  sql += match.empty() ? " ORDER BY platform,number" : " ORDER BY rank";
  sql += fmt::format(" LIMIT {}", query.most);
  try {
    SQLite::Statement found(*inside_->db, sql);
    if (!match.empty()) found.bind(1, match);
    for (std::size_t i = 0; i < binds.size(); ++i)
      found.bind(static_cast<int>(i) + 2, binds[i]);
    while (found.executeStep()) {
      BookFound& one = out.emplace_back();
      BookCar& c = one.car;
      int n = 0;
      for (std::string* to : {&c.file, &c.car, &c.number, &c.owner, &c.platform, &c.shop, &c.layout[0], &c.layout[1],
                              &c.bag[0], &c.bag[1]})
        *to = found.getColumn(n++).getString();
      c.hours = found.getColumn(n++).getDouble();
      c.handed_over = found.getColumn(n++).getString();
      c.proved = found.getColumn(n++).getInt();
      c.checks = found.getColumn(n++).getInt();
      c.due = found.getColumn(n++).getString();
      c.lessons = found.getColumn(n++).getInt();
      c.lesson_text = found.getColumn(n++).getString();
      one.snippet = found.getColumn(n++).getString();
    }
  } catch (const std::exception& what) {
    return refuse(trouble(what.what()));
  }
  return out;
}

Expected<std::vector<std::string>> Book::platforms() {
  std::vector<std::string> out;
  try {
    SQLite::Statement all(*inside_->db, "SELECT DISTINCT platform FROM car WHERE platform<>'' ORDER BY platform");
    while (all.executeStep())
      out.push_back(all.getColumn(0).getString());
  } catch (const std::exception& what) {
    return refuse(trouble(what.what()));
  }
  return out;
}

Expected<Alike> Book::alike(const std::string& platform) {
  BookQuery query;
  query.platform = platform;
  query.most = 10'000;
  const auto found = search(query);
  if (!found) return refuse(found.error());
  Alike out;
  double sum = 0;
  for (const BookFound& f : *found) {
    const BookCar& c = f.car;
    if (c.platform != platform) continue; // a longer name that holds this one
    ++out.builds;
    if (c.hours > 0 && !c.handed_over.empty()) { // of one under way nobody knows yet
      out.least = out.timed == 0 ? c.hours : std::min(out.least, c.hours);
      out.most = std::max(out.most, c.hours);
      sum += c.hours;
      ++out.timed;
    }
    if (!c.bag[0].empty() || !c.bag[1].empty()) {
      auto same = std::find_if(out.bags.begin(), out.bags.end(), [&](const Alike::Bags& b) { return b.bag == c.bag; });
      if (same == out.bags.end()) same = out.bags.insert(out.bags.end(), Alike::Bags{c.bag, 0, 0, 0});
      ++same->builds;
      same->proved += c.proved, same->checks += c.checks;
    }
    for (std::size_t at = 0; at < c.lesson_text.size();) {
      const std::size_t end = std::min(c.lesson_text.find('\n', at), c.lesson_text.size());
      if (end > at)
        out.lessons.push_back((c.number.empty() ? c.car : c.number) + ": " + c.lesson_text.substr(at, end - at));
      at = end + 1;
    }
  }
  if (out.timed > 0) out.mean = sum / out.timed;
  std::stable_sort(out.bags.begin(), out.bags.end(),
                   [](const Alike::Bags& a, const Alike::Bags& b) { return a.builds > b.builds; });
  return out;
}

Expected<int> Book::size() {
  try {
    return inside_->db->execAndGet("SELECT count(*) FROM car").getInt();
  } catch (const std::exception& what) {
    return refuse(trouble(what.what()));
  }
}

fs::path usual_book() {
  const char* data = std::getenv("XDG_DATA_HOME");
  const char* home = std::getenv("HOME");
  const fs::path base = data && *data == '/' ? fs::path(data) : fs::path(home ? home : "") / ".local" / "share";
  return base / "mavrel" / "book.sqlite";
}

} // namespace mavrel::book
