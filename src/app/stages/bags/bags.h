// Bags: the shelf judged on this end, and below it what the chosen bag does: at every height, with an added volume,
// through the stroke, in the weather, on a gauge, for comfort and in a bend. Beside it the search and the shelf itself.
#pragma once

#include "app/kit/stage_page.h"

#include <functional>
#include <vector>

class QLabel;
class QStackedWidget;
class QTabBar;

namespace mavrel::app {

class BagTable;
class Chips;
class Desk;
class Field;
class HeightPlot;
class SearchPage;
class ShelfPage;

class BagsStage : public StagePage {
  Q_OBJECT
public:
  explicit BagsStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] std::optional<std::pair<int, int>> band() const override;
  [[nodiscard]] bool reads_across() const override;
  void reserve_right(int px) override;
  bool go_to(const QString& path) override;

  /// The questions below the table, by key: `height`, `volume`, `stroke`, `weather`, `gauge`, `comfort`, `lean`.
  void show_view(const QString& key);
  /// `corner`, `search` or `shelf`.
  void show_side(const QString& key);
  [[nodiscard]] SearchPage* search_page() const { return search_; }
  [[nodiscard]] ShelfPage* shelf_page() const { return shelf_; }

protected:
  void resizeEvent(QResizeEvent* event) override;

private:
  void fit_table();
  /// One question about the chosen bag.
  struct View {
    QString key, name;
    QWidget* widget;
    HeightPlot* plot; // none: it is not over height
    std::function<QString()> summary;
    std::vector<Field*> fields; // what it goes by, in the row above
  };
  /// A field that stands above some views. `#` in its path is the active end.
  void add_field(const QString& path, const QString& caption, const QString& empty, const QStringList& views);
  template <class T>
  void add_view(const QString& key, const QString& name, std::function<QString(T*)> summary);
  QWidget* make_corner();
  void refresh();
  void refresh_summary();

  Desk& desk_;
  QLabel *title_, *about_, *sheet_title_, *sheet_about_;
  Chips *ends_, *pages_;
  QStackedWidget* stack_;
  BagTable* table_;
  QTabBar* tabs_;
  QStackedWidget* views_stack_;
  QWidget* beside_; // where the posts stand
  SearchPage* search_;
  ShelfPage* shelf_;
  QWidget* corner_ = nullptr;
  std::vector<View> views_;
  std::vector<std::pair<QString, Field*>> fit_fields_; // with their paths
  class QHBoxLayout* fit_row_ = nullptr;
  int reserved_ = 0;
};

} // namespace mavrel::app
