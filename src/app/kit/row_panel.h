// A panel of rows of fields whose number changes: load masses, presets. Rebuilt only when it does, so that the
// field being typed in stays.
#pragma once

#include <QWidget>

#include <functional>
#include <map>
#include <utility>
#include <vector>

class QGridLayout;
class QLabel;
class QToolButton;

namespace mavrel::app {

class Desk;

class RowPanel : public QWidget {
  Q_OBJECT
public:
  explicit RowPanel(Desk& desk, QWidget* parent = nullptr);

protected:
  /// What the rows now stand for; a change rebuilds them.
  [[nodiscard]] virtual QString shape() const = 0;
  /// Fills the empty grid.
  virtual void build_rows() = 0;
  /// Everything that changes without the rows changing.
  virtual void refresh_rows() {}
  /// To be called at the end of the subclass's constructor.
  void start();
  void showEvent(QShowEvent* event) override;
  /// Rebuilds where the shape is another, and fills; it comes by itself whenever the desk changes.
  void refresh();

  QLabel* heading(const QString& text, int row, int column);
  QLabel* quiet_label(const QString& text = {});
  /// A button that takes a row away. @param what  the row's name, asked again whenever the build changes
  QToolButton* remover(std::function<QString()> what);
  /// How many rows of a list are made: a long one takes its time, so that the rest stands behind `add_more`. An entry
  /// that was just added is always made.
  /// @param list  a name of its own on this panel
  [[nodiscard]] std::size_t shown_of(const QString& list, std::size_t count);
  /// The button for what is not shown of a list, where there is any. @returns the row behind it
  int add_more(const QString& list, std::size_t count, int row);
  [[nodiscard]] QGridLayout* grid() const { return grid_; }
  [[nodiscard]] Desk& desk() const { return desk_; }

private:
  Desk& desk_;
  QGridLayout* grid_;
  QWidget* page_ = nullptr;
  QString built_;
  struct Rows {
    std::size_t most = 10, count = 0; // of its rows shown, and of its entries when they were made
  };
  std::map<QString, Rows> rows_;
  std::vector<std::pair<QToolButton*, std::function<QString()>>> removers_; // of the rows that stand
  bool stale_ = false;                                                      // changed while out of sight
};

} // namespace mavrel::app
