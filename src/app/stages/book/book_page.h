// The shop's book: every build of a folder found by words, platform, bag or day; what alike ones came to; and a new one
// begun from an earlier one.
#pragma once

#include "app/desk/desk.h"
#include "app/kit/stage_page.h"
#include "book/book.h"

#include <QTimer>

#include <memory>
#include <optional>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;

namespace mavrel::app {

class BookPage : public StagePage {
  Q_OBJECT
public:
  explicit BookPage(Desk& desk, QWidget* parent = nullptr);
  ~BookPage() override;
  void reserve_right(int px) override;
  [[nodiscard]] bool wants_posts() const override { return false; }
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] std::vector<Findable> findables() override;

  /// Brings the book to what stands in a folder, beside; then its findings.
  void sync(const QString& folder);
  [[nodiscard]] bool is_syncing() const { return syncing_.has_value(); }
  void search();

protected:
  void showEvent(QShowEvent* event) override;

private:
  void open();
  void fill();
  void show_car();
  void begin_from();
  [[nodiscard]] const book::BookFound* picked() const;

  Desk& desk_;
  std::optional<book::Book> book_;
  bool remade_ = false; ///< was damaged, and is not told of yet
  std::vector<book::BookFound> found_;
  std::optional<quint64> syncing_;
  QTimer typed_; // a search waits until the typing rests
  QLabel *summary_, *car_, *alike_;
  QLineEdit *folder_, *words_, *owner_, *due_;
  QComboBox *platform_, *layout_, *bag_;
  QPushButton *browse_, *update_, *open_, *begin_;
  QTableWidget* list_;
};

} // namespace mavrel::app
