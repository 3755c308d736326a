// What was found, a row each from above, and beside it how the odds moved with it: the likeliest faults as lines from
// nothing at the left to certain, which nothing gets to, at the right; and for one of them how much each finding speaks
// for it or against.
#pragma once

#include "app/desk/desk.h"
#include "assess/faults/diagnosis.h"

#include <QWidget>

namespace mavrel::app {

class CourseView : public QWidget {
  Q_OBJECT
public:
  CourseView(Desk& desk, QWidget* parent);
  struct Row {
    QString what, answer;
    std::size_t note = 0; // what it is to whoever shows it
    bool weighed = true;
    bool joined = false; // weighed with an earlier row of the same thing
    QString says;        // of its place; a tip
  };
  /// @param rows       as found; those that were weighed stand in the diagnosis in the same order
  /// @param diagnosis  none while it is weighed
  void show_course(std::vector<Row> rows, const assess::Diagnosis* diagnosis);
  /// Whose evidence is shown, among the diagnosis's sets.
  void show_set(std::size_t set);
  /// The row picked, as a note; none.
  [[nodiscard]] std::optional<std::size_t> picked() const;
  [[nodiscard]] QSize sizeHint() const override;
  [[nodiscard]] QSize minimumSizeHint() const override { return sizeHint(); }

signals:
  void strike(std::size_t note); // a row is to go
  void row_picked();

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  [[nodiscard]] double row_height() const;
  [[nodiscard]] double head() const;
  [[nodiscard]] QString described() const;
  void pick(int row);

  Desk& desk_;
  std::vector<Row> rows_;
  std::optional<assess::Diagnosis> diagnosis_;
  std::size_t set_ = 0;
  int picked_ = -1;
};

} // namespace mavrel::app
