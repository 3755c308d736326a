// Checks and those who sign them: each with how it is done, what must be true before, what the design says and what was
// measured on one scale. What stops the work and what proves the car are such pages.
#pragma once

#include "app/kit/page.h"
#include "assess/fit_up/checks.h"

class QComboBox;

namespace mavrel::app {

class FiguresPanel;

class CheckPage : public Page {
  Q_OBJECT
public:
  bool go_to(const QString& path) override;
  void show_check(const QString& id);

protected:
  using Points = std::vector<const assess::HoldPoint*>;
  struct Names {
    const char *list, *state, *begin, *by, *sign; // object names
    QString spoken, head;                         // of the list, and of its first column
  };
  /// @param points  the checks as they stand, in order
  CheckPage(Desk& desk, const Names& names, std::function<Points()> points, QWidget* parent);
  /// One sentence over all of them.
  [[nodiscard]] virtual QString summary(const Points& points) const = 0;
  virtual void sign() = 0;
  /// What else is shown of the check that is held; nullptr: none is.
  virtual void fill_more(const assess::HoldPoint*) {}
  void fill() override;

  /// The one that is held; nullptr: none.
  [[nodiscard]] const assess::HoldPoint* point() const;
  [[nodiscard]] const QString& held() const { return held_; }
  [[nodiscard]] QString signed_by() const;
  /// Where the figures stand, and what else belongs to the check, above and below them.
  [[nodiscard]] QVBoxLayout* inside() const { return inside_; }
  [[nodiscard]] FiguresPanel* figures() const { return figures_; }

private:
  void fill_list(const Points& points);
  void fill_check();

  std::function<Points()> points_;
  QLabel *summary_, *name_, *how_, *state_;
  ListTable* list_;
  FiguresPanel* figures_;
  QVBoxLayout* inside_;
  QComboBox* by_;
  QPushButton *begin_, *sign_;
  QString held_;
};

} // namespace mavrel::app
