// Both ends' heights where they are not read: a slim strip with what may be driven and where the car stands, which
// opens the posts.
#pragma once

#include <QWidget>

namespace mavrel::app {

class Desk;

class HeightStrip : public QWidget {
  Q_OBJECT
public:
  explicit HeightStrip(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QSize sizeHint() const override;

signals:
  void opened(); // the posts are wanted

protected:
  void paintEvent(QPaintEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  bool event(QEvent* event) override;

private:
  [[nodiscard]] QString says() const;
  Desk& desk_;
};

} // namespace mavrel::app
