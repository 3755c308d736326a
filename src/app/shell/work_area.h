// Where the pages stand, with the height posts on them: as large as the window leaves, or as large as the page needs,
// and then it scrolls. Where text is so large that both have no room the posts give way.
#pragma once

#include <QScrollArea>

class QStackedWidget;

namespace mavrel::app {

class Desk;
class HeightPosts;
class HeightStrip;
class StagePage;

class WorkArea : public QScrollArea {
  Q_OBJECT
public:
  WorkArea(Desk& desk, QWidget* parent);
  [[nodiscard]] QStackedWidget* pages() const { return pages_; }
  /// Lays the page out, and the posts on its height scale where it has one.
  void line_up();
  /// Opens the posts where a strip stands for them, and shuts them again.
  void toggle_posts();

protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override; // arrows move the pose

private:
  [[nodiscard]] StagePage* page() const;
  void line_up_soon();

  Desk& desk_;
  QWidget* both_;
  QStackedWidget* pages_;
  HeightPosts* posts_;
  HeightStrip* strip_;
  bool opened_ = false; // posts where heights are not read
  bool soon_ = false;
};

} // namespace mavrel::app
