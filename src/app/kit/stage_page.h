// One stage of the work: a page in the workspace.
#pragma once

#include <QWidget>

#include <optional>
#include <utility>

namespace mavrel::app {

class StagePage : public QWidget {
  Q_OBJECT
public:
  using QWidget::QWidget;
  /// Top and bottom of a height scale on the page, in the page; none when it shows none.
  [[nodiscard]] virtual std::optional<std::pair<int, int>> band() const { return std::nullopt; }
  /// Whether what stands in that band is over height, so that the pose line is read across it and the posts.
  [[nodiscard]] virtual bool reads_across() const { return band().has_value(); }
  /// Room at the right that the height posts take, px: of the whole page, or only beside the page's own height scale.
  virtual void reserve_right(int px) = 0;
  /// Whether the height posts stand beside it; a page that draws posts of its own says no.
  [[nodiscard]] virtual bool wants_posts() const { return true; }
  /// Takes the person to a place on the page: the field of this path gets the focus. @returns whether it is here
  virtual bool go_to(const QString& path);

signals:
  void band_moved();
};

} // namespace mavrel::app
