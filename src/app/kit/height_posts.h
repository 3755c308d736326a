// Front and rear height posts, always in sight: what is blocked, what is left, where the presets are and where the
// car stands now. Both on the one height scale. Flags and poses are dragged; arrows move the active end's pose.
#pragma once

#include "app/kit/height_scale.h"
#include "build/build.h"

#include <QPixmap>
#include <QWidget>

#include <optional>
#include <vector>

namespace mavrel::app {

class Desk;

class HeightPosts : public QWidget {
  Q_OBJECT
public:
  explicit HeightPosts(Desk& desk, QWidget* parent = nullptr);

  /// The band of pixels the scale spans, in this widget.
  /// @param aligned  a stage's own height scale stands beside it at the same pixels: the pose line runs across both
  void set_band(int top, int bottom, bool aligned);
  [[nodiscard]] HeightScale scale() const;
  /// Where a preset's flag can be grabbed, in this widget; empty when it has none.
  [[nodiscard]] QRectF flag_rect(build::End end, std::size_t preset) const;
  [[nodiscard]] QRectF post_rect(build::End end) const;

  /// What stands beside a post: where its windows end, and by what.
  struct Label {
    QString number, name;
    QColor colour;
    double at = 0; // px, the height it speaks of
    QRectF box;    // where it stands: two lines
  };
  [[nodiscard]] std::vector<Label> labels(build::End end) const;

  [[nodiscard]] QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Grip {
    build::End end = build::End::front;
    std::optional<std::size_t> preset; // none: the pose
    double offset = 0;                 // m between pointer and what is held
  };
  void paint_post(QPainter& painter, build::End end) const;
  void paint_doubt(QPainter& painter, build::End end) const;
  void paint_pose(QPainter& painter, build::End end) const;
  void paint_live(QPainter& painter, build::End end) const;
  void paint_head(QPainter& painter, build::End end) const;
  void paint_limits(QPainter& painter, build::End end) const;
  void paint_flags(QPainter& painter, build::End end) const;
  [[nodiscard]] std::optional<std::size_t> flag_at(QPointF at, build::End end) const;
  [[nodiscard]] build::End end_at(double x) const;
  void describe();

  Desk& desk_;
  int top_ = 90, bottom_ = 400;
  bool aligned_ = false;
  QPixmap ground_; // the posts themselves, painted when something else than a pose changes
  bool stale_ = true;
  std::optional<Grip> grip_;
  int drag_ = 0; // counts drags, so that each is one step of undo
};

} // namespace mavrel::app
