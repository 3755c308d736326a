// The shop's book: every build of a folder found by words, platform, bag or day; what alike ones came to; and a new one
// begun from an earlier one.
#pragma once

#include "app/kit/stage_page.h"
#include "book/book.h"

#include <QTimer>

class QComboBox;
class QLineEdit;

namespace mavrel::app {

/// What the book has for words and wishes, and what alike cars came to. It opens the book itself, so that nobody waits
/// for whoever else has it open.
struct BookQuestion {
  struct Given {
    book::BookQuery query;
    int edition = 0; // of the book: told apart by how often it was brought up to date
    friend bool operator==(const Given&, const Given&) = default;
  };
  struct Found {
    std::vector<book::BookFound> cars;
    std::vector<std::string> platforms; // of the whole book
    int size = 0;                       // of the whole book
    bool was_rebuilt = false;           // its file was damaged
  };
  using Answer = Expected<Found>;
  static Answer answer(const Given& given, const RunControl& control);
};
struct AlikeQuestion {
  struct Given {
    std::string platform;
    int edition = 0;
    friend bool operator==(const Given&, const Given&) = default;
  };
  using Answer = Expected<book::Alike>;
  static Answer answer(const Given& given, const RunControl& control);
};
/// Brings the book to what stands in a folder, then its findings, which take an assessment each. Says how it went.
struct BookSync {
  struct Given {
    std::string folder;
    shelf::Shelf shelf;
    int edition = 0;
    bool remade = false; // it was damaged, and nobody was told yet
    friend bool operator==(const Given& a, const Given& b) { return a.folder == b.folder && a.edition == b.edition; }
  };
  using Answer = Expected<Message>;
  static Answer answer(const Given& given, const RunControl& control);
};

class BookPage : public StagePage {
  Q_OBJECT
public:
  explicit BookPage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool wants_posts() const override { return false; }
  [[nodiscard]] std::vector<Findable> findables() override;

  /// Brings the book to what stands in a folder, beside; then its findings.
  void sync(const QString& folder);
  [[nodiscard]] bool is_syncing() const { return sync_.is_running(); }
  [[nodiscard]] bool is_searching() const { return typed_.isActive() || found_.is_running(); }
  void search();

protected:
  void fill() override;

private:
  void make_asks();
  void open();
  void synced();
  void came();
  void fill_list(const BookQuestion::Found& found);
  void fill_car();
  [[nodiscard]] QString about(const book::BookFound& found) const;
  [[nodiscard]] QString about_alike(const std::string& platform);
  void begin_from();
  [[nodiscard]] BookQuestion::Given query() const;
  [[nodiscard]] const book::BookFound* picked(); // among those that are shown

  Asked<BookQuestion> found_;
  Asked<AlikeQuestion> alike_of_;
  Asked<BookSync> sync_;
  int edition_ = 0;
  QTimer typed_; // a search waits until the typing rests
  QLabel *summary_, *car_, *alike_;
  QLineEdit *folder_, *words_, *owner_, *due_;
  QComboBox *platform_, *layout_, *bag_;
  QPushButton *update_, *open_, *begin_;
  ListTable* list_;
};

} // namespace mavrel::app
