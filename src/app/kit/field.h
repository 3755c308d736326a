// One quantity where it is taken: its name small above, its value below, edited in place. Bound to a field of the
// build by path; whatever is typed goes through the desk, which takes it or says what would be right.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QPointer>
#include <QWidget>

#include <optional>

namespace mavrel::app {

class Desk;

class Field : public QWidget {
  Q_OBJECT
public:
  /// @param path     of the field; `@.` for the active variant
  /// @param caption  short name shown above; empty: the value alone
  Field(Desk& desk, QString path, QString caption, QWidget* parent = nullptr);

  [[nodiscard]] const QString& path() const { return path_; }
  [[nodiscard]] QLineEdit* edit() const { return edit_; }
  /// Another field of the build under the same name.
  void bind(const QString& path);
  /// What an empty field shows in place of the usual words.
  void set_placeholder(const QString& text);
  /// Larger value type, for the one reading that matters now.
  void set_prominent(bool prominent);

public slots:
  void refresh();

signals:
  void taken(); // the text was taken and the build changed, or confirmed unchanged

protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void showEvent(QShowEvent* event) override;

private:
  void begin();
  void take_room();
  /// Takes what is typed to where it was begun. @returns what is wrong with it; none when it was taken
  std::optional<QString> commit(bool leaving);
  void settle(bool give_up_wrong);
  void give_up();
  [[nodiscard]] bool is_touched() const { return editing_ && edit_->text() != began_with_; }
  void mark_wrong(const QString& sentence);
  void clear_wrong();
  void restyle();

  Desk& desk_;
  QString path_;
  QLabel* caption_;
  QLineEdit* edit_;
  QPointer<QLabel> bubble_;                     // belongs to the window, so that it may lie over other widgets
  QString began_with_, began_at_, placeholder_; // text and resolved path when editing began
  QString says_;                                // all that it showed last
  QString other_;                               // the car that its figure is of, where that is another
  bool editing_ = false;
  bool stale_ = false; // changed while out of sight
  bool prominent_ = false;
};

} // namespace mavrel::app
