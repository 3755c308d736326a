// A stage of several pages under a row of chips, of which one is shown.
#pragma once

#include "app/kit/stage_page.h"

class QStackedWidget;

namespace mavrel::app {

class Chips;

/// A page of a stage that is made when it is first needed: the program starts without it. Belongs to the stage that
/// added it; the interface's thread alone.
template <class P>
class LazyPage {
public:
  LazyPage() = default;
  LazyPage(const LazyPage&) = delete;
  LazyPage& operator=(const LazyPage&) = delete;
  [[nodiscard]] P* get() const {
    if (!page_ && make_) make_();
    return page_;
  }
  P* operator->() const { return get(); }
  /// Does it stand already?
  [[nodiscard]] bool is_made() const { return page_ != nullptr; }

private:
  friend class PagedStage;
  P* page_ = nullptr;
  std::function<void()> make_;
};

class PagedStage : public StagePage {
  Q_OBJECT
public:
  explicit PagedStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::optional<std::pair<int, int>> band() const override;
  void reserve_right(int px) override;
  /// By its place among the chips.
  void show_page(int page);
  [[nodiscard]] int page() const;
  void arrive() override;
  /// Shows the page that the field is on, and gives it the focus.
  [[nodiscard]] bool reads_heights() const override;
  bool go_to(const QString& path) override;
  [[nodiscard]] bool takes_arrows() const override;

protected:
  void fill() override;
  void showEvent(QShowEvent* event) override;
  /// @param page   the stage's own handle of it, which must live as long as the stage
  /// @param parts  of the paths of fields that are on it; fields of no page's parts are at home
  template <class P>
  void add_page(const QString& name, LazyPage<P>& page, QStringList parts = {}) {
    const int place = static_cast<int>(entries_.size());
    page.make_ = [this, place] { ensure(place); };
    take({name, std::move(parts), nullptr, nullptr, [this, &page] { return page.page_ = new P(desk_, where()); }});
  }
  /// The page that fields are on which are on no other; the first where nobody says.
  void set_home(int page) { home_ = page; }
  /// Commands that show each page, by its name behind the stage's.
  [[nodiscard]] std::vector<Command> page_commands(const QString& stage);
  /// A command of the file menu that is done on a page.
  [[nodiscard]] Command file_command(const QString& name, int page, std::function<void()> act);
  /// What stands beside the chips.
  [[nodiscard]] QHBoxLayout* head() const { return head_; }
  /// A page was just made.
  virtual void made(int) {}

private:
  struct Entry {
    QString name;
    QStringList parts;
    QWidget* stands = nullptr; // in its place, the page itself or nothing yet
    Page* page = nullptr;
    std::function<Page*()> make;
  };
  void take(Entry entry);
  /// What pages are made on: one that is put elsewhere afterwards is dressed twice.
  [[nodiscard]] QWidget* where() const;
  void ensure(int place);
  [[nodiscard]] Page* shown() const;

  Chips* chips_;
  QHBoxLayout* head_;
  QStackedWidget* stack_;
  std::vector<Entry> entries_;
  int home_ = 0;
  int reserved_ = 0; // px at the right
};

} // namespace mavrel::app
