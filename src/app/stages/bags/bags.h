// Bags: the shelf judged on this end, and below it what the chosen bag does: at every height, with an added volume,
// through the stroke, in the weather, on a gauge, for comfort and in a bend. Beside it the search and the shelf itself.
#pragma once

#include "app/kit/stage_page.h"
#include "app/stages/bags/questions/questions.h"

#include <vector>

class QStackedWidget;
class QTabBar;

namespace mavrel::app {

class BagTable;
class Chips;
class SearchPage;
class ShelfPage;

class BagsStage : public StagePage {
  Q_OBJECT
public:
  explicit BagsStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool reads_heights() const override { return true; }
  [[nodiscard]] std::optional<std::pair<int, int>> band() const override;
  [[nodiscard]] bool reads_across() const override;
  void reserve_right(int px) override;
  bool go_to(const QString& path) override;

  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] std::vector<Findable> findables() override;
  [[nodiscard]] std::optional<OwnUndo> own_undo() override;
  QStringList take_files(const QStringList& files) override;
  [[nodiscard]] QString unkept() const override;

  /// Reads bag cards onto the user's shelf and shows them. @returns how many were kept
  int import_cards(const QStringList& files);
  /// The questions below the table, by key, as in questions/questions.cpp.
  void show_view(const QString& key);
  /// `corner`, `search` or `shelf`.
  void show_side(const QString& key);
  SearchPage* search_page();
  ShelfPage* shelf_page();

protected:
  void resizeEvent(QResizeEvent* event) override;

  void fill() override;

private:
  void fit_table();
  /// One question about the chosen bag.
  struct View : QuestionView {
    const QuestionEntry* entry = nullptr;
    std::vector<Field*> fields; // what it goes by, in the row above
  };
  void add_view(const QuestionEntry& entry);
  /// The view itself, made when it is first asked for: most are never looked at.
  View& view(std::size_t index);
  View& shown_view();
  /// The field of this path above the views, made once.
  [[nodiscard]] Field* fit_field(const QuestionField& field);
  QWidget* make_corner();
  void refresh_summary();

  QLabel *title_, *about_, *sheet_title_, *sheet_about_;
  Chips *ends_, *pages_;
  QStackedWidget* stack_;
  BagTable* table_;
  QTabBar* tabs_;
  QStackedWidget* views_stack_;
  QWidget* beside_;              // where the posts stand
  SearchPage* search_ = nullptr; // once gone to
  ShelfPage* shelf_ = nullptr;
  QWidget* corner_ = nullptr;
  std::vector<View> views_;
  std::vector<std::pair<QString, Field*>> fit_fields_; // with their paths
  class QHBoxLayout* fit_row_ = nullptr;
  int reserved_ = 0;
};

} // namespace mavrel::app
