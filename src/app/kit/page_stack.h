// Widgets of which one is shown, as large as that one wants to be: what is not looked at asks for no room.
#pragma once

#include <QStackedWidget>

class QKeyEvent;
class QTableWidget;

namespace mavrel::app {

class PageStack : public QStackedWidget {
  Q_OBJECT
public:
  explicit PageStack(QWidget* parent = nullptr);
  [[nodiscard]] QSize minimumSizeHint() const override;
  [[nodiscard]] bool hasHeightForWidth() const override {
    return false;
  } // said by the least size, at its present width

protected:
  void resizeEvent(QResizeEvent* event) override;
};

/// Up, down, left or right: what scrolls leaves them to what is drawn over height, and to the window.
[[nodiscard]] bool is_arrow(const QKeyEvent& event);

/// The least room a widget needs without anything on it being cut, px, where it is this wide: words that wrap want more
/// height the narrower it is.
[[nodiscard]] QSize least_room(const QWidget* widget, int width);

/// px that a table needs at least, so that nothing short in its cells is cut.
[[nodiscard]] int least_width(const QTableWidget& table);

} // namespace mavrel::app
