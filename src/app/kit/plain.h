// What a person typed is text wherever it is shown: never markup, which could hide words or read files.
#pragma once

#include <QLabel>

namespace mavrel::app {

/// Words as they stand. One whose words are marked up by ourselves says so by `setTextFormat`, and whoever sets them
/// escapes what somebody typed.
class PlainLabel : public QLabel {
  Q_OBJECT
public:
  explicit PlainLabel(QWidget* parent = nullptr) : PlainLabel({}, parent) {}
  explicit PlainLabel(const QString& text, QWidget* parent = nullptr) : QLabel(parent) {
    setTextFormat(Qt::PlainText);
    setText(text);
  }
};

/// One line that gives way where there is no room: it ends in “…”, and says all of it when it is pointed at.
class CutLabel : public PlainLabel {
  Q_OBJECT
public:
  explicit CutLabel(QWidget* parent = nullptr);
  [[nodiscard]] QSize minimumSizeHint() const override;

protected:
  void paintEvent(QPaintEvent* event) override;
  bool event(QEvent* event) override;

private:
  [[nodiscard]] QString shown() const;
};

/// From now on tool tips of the application are text too, those of tables with them. Once is enough.
void keep_tips_plain();

/// A name on a button or in a menu: its & is one, not the mark of a key.
[[nodiscard]] QString on_button(QString name);

} // namespace mavrel::app
