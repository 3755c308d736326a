// What a page of a stage has that shows no heights: a column beside the room of the height posts, filled anew when
// something changed, and only while somebody looks.
#pragma once

#include "app/desk/desk.h"

#include <QWidget>

class QHBoxLayout;
class QVBoxLayout;

namespace mavrel::app {

class PlainPage : public QWidget {
  Q_OBJECT
public:
  PlainPage(Desk& desk, QWidget* parent);
  void reserve_right(int px);
  /// Gives the field of a path the focus. @returns whether it is here
  virtual bool go_to(const QString& path);

protected:
  /// Everything the page shows; called while it is in sight.
  virtual void fill() = 0;
  /// Fills it now, or when it is next looked at. To be called at the end of the subclass's constructor.
  void refresh();
  void showEvent(QShowEvent* event) override;

  [[nodiscard]] QVBoxLayout* column() const { return column_; }
  /// A button at the end of a row.
  void add_button(QHBoxLayout* row, const QString& text, const char* name, std::function<void()> act);
  /// Asks where to, writes a table there, and tells.
  void save_csv(const QString& title, const std::string& text);

  Desk& desk_;

private:
  QVBoxLayout* column_;
  QWidget* beside_;
  bool stale_ = false;
  bool filling_ = false, again_ = false; // wanted while it was being filled
};

} // namespace mavrel::app
