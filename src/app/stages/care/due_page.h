// What is due: the years with their trends above, below the list of what comes round next and why, done with one press.
#pragma once

#include "app/kit/page.h"
#include "app/stages/care/questions.h"

class QComboBox;

namespace mavrel::app {

class YearsView;

class DuePage : public Page {
  Q_OBJECT
public:
  explicit DuePage(Desk& desk, QWidget* parent = nullptr);
  /// @returns whether it was written; else why not is told
  bool write_calendar(const QString& to);
  /// Holds a task by its key.
  void hold(const std::string& task);

protected:
  void fill() override;

private:
  void done();
  [[nodiscard]] const assess::CareDue* held() const;
  [[nodiscard]] QStringList says(const assess::CarePlan& plan) const;

  QLabel *summary_, *how_, *says_;
  YearsView* years_;
  ListTable* list_;
  QComboBox* by_;
  QPushButton *done_, *calendar_;
  std::string held_; // the task of the row that is held
};

} // namespace mavrel::app
