// A stage of several pages under a row of chips, of which one is shown.
#pragma once

#include "app/kit/stage_page.h"

class QStackedWidget;

namespace mavrel::app {

class Chips;
class Desk;

/// A page of a stage that is made when it is first needed: the program starts without it. Belongs to the stage that
/// added it; the interface's thread alone.
template <class Page>
class Later {
public:
  Later() = default;
  Later(const Later&) = delete;
  Later& operator=(const Later&) = delete;
  [[nodiscard]] Page* get() const {
    if (!page_ && make_) make_();
    return page_;
  }
  Page* operator->() const { return get(); }
  /// Does it stand already?
  [[nodiscard]] bool is_made() const { return page_ != nullptr; }

private:
  friend class PagedStage;
  Page* page_ = nullptr;
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

protected:
  void showEvent(QShowEvent* event) override;
  /// @param page  the stage's own handle of it, which must live as long as the stage
  /// @param make  gives the page, which belongs to this from then on; it may have a band() of heights, in itself, and
  /// say when it moved
  template <class Page>
  void add_page(const QString& name, Later<Page>& page, std::function<Page*()> make) {
    const int place = static_cast<int>(entries_.size());
    page.make_ = [this, place] { ensure(place); };
    Entry entry;
    entry.name = name;
    entry.make = [this, &page, make = std::move(make)](Entry& made) {
      Page* one = make();
      page.page_ = one;
      made.widget = one;
      made.reserve_right = [one](int px) { one->reserve_right(px); };
      if constexpr (requires { one->band(); }) {
        made.band = [one] { return one->band(); };
        connect(one, &Page::band_moved, this, &StagePage::band_moved);
      }
    };
    take(std::move(entry));
  }
  /// Commands that show each page, by its name behind the stage's.
  [[nodiscard]] std::vector<Command> page_commands(const QString& stage);
  Desk& desk_;

private:
  struct Entry {
    QString name;
    QWidget* widget = nullptr;
    std::function<void(int)> reserve_right;
    std::function<std::pair<int, int>()> band; // none: the page shows no heights
    std::function<void(Entry&)> make;          // until it stands
  };
  void take(Entry entry);
  void ensure(int place);
  void refresh();

  Chips* chips_;
  QStackedWidget* stack_;
  std::vector<Entry> entries_;
  int reserved_ = 0; // px at the right
};

/// Gives the field or choice of a path on a page the focus. @returns whether it is there
bool go_to_field(const Desk& desk, const QWidget* page, const QString& path);

/// A page that scrolls up and down where its window is too low for it.
[[nodiscard]] QWidget* scrolled(QWidget* inside, QWidget* parent);

} // namespace mavrel::app
