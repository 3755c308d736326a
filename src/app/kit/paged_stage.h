// A stage of several pages under a row of chips, of which one is shown.
#pragma once

#include "app/kit/stage_page.h"

class QStackedWidget;

namespace mavrel::app {

class Chips;
class Desk;

class PagedStage : public StagePage {
  Q_OBJECT
public:
  explicit PagedStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::optional<std::pair<int, int>> band() const override;
  void reserve_right(int px) override;
  /// By its place among the chips.
  void show_page(int page);
  [[nodiscard]] int page() const;

protected:
  /// @param page  belongs to this from then on; may have a band() of heights, in itself, and say when it moved
  template <class Page>
  void add_page(const QString& name, Page* page) {
    Entry entry{name, page, [page](int px) { page->reserve_right(px); }, {}};
    if constexpr (requires { page->band(); }) {
      entry.band = [page] { return page->band(); };
      connect(page, &Page::band_moved, this, &StagePage::band_moved);
    }
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
  };
  void take(Entry entry);
  void refresh();

  Chips* chips_;
  QStackedWidget* stack_;
  std::vector<Entry> entries_;
};

/// Gives the field or choice of a path on a page the focus. @returns whether it is there
bool go_to_field(const Desk& desk, const QWidget* page, const QString& path);

/// A page that scrolls up and down where its window is too low for it.
[[nodiscard]] QWidget* scrolled(QWidget* inside, QWidget* parent);

} // namespace mavrel::app
