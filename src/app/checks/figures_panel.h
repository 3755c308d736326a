// The figures of one check, each with what the design says, what is right, both on one scale, and the field that what
// was measured is typed into.
#pragma once

#include "app/kit/row_panel.h"
#include "app/theme/look.h"
#include "assess/fit_up/checks.h"

#include <functional>

namespace mavrel::app {

class Field;

/// `✓` of a check that passed, and so on; its colour in a theme.
[[nodiscard]] QString sign_of_check(assess::CheckState state);
[[nodiscard]] QColor colour_of_check(assess::CheckState state, const Tokens& tokens);

/// Said and measured on one scale: what is right as a band, the design as a tick, the car as a dot.
class FigureScale : public QWidget {
  Q_OBJECT
public:
  FigureScale(Desk& desk, QWidget* parent);
  void show_figure(const assess::AskedFigure& figure, std::optional<double> measured, bool wrong);
  [[nodiscard]] QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  Desk& desk_;
  assess::AskedFigure figure_;
  std::optional<double> measured_;
  bool wrong_ = false;
};

class FiguresPanel : public RowPanel {
  Q_OBJECT
public:
  /// @param find  gives the check of an id as it stands; none of that id
  FiguresPanel(Desk& desk, std::function<const assess::HoldPoint*(const std::string&)> find, QWidget* parent);
  void show_check(const QString& id);
  /// The check as it stands; none of that id.
  [[nodiscard]] const assess::HoldPoint* point() const;
  /// What simulations say may have come in.
  void look_again() { refresh(); }

private:
  [[nodiscard]] QString shape() const override;
  void build_rows() override;
  void refresh_rows() override;
  [[nodiscard]] QString shown(const assess::AskedFigure& figure, double value) const;

  std::function<const assess::HoldPoint*(const std::string&)> find_;
  QString id_;
  std::vector<QLabel*> verdicts_; // of the rows that stand
  std::vector<FigureScale*> scales_;
  std::vector<std::pair<std::size_t, Field*>> fields_; // by their figures
};

} // namespace mavrel::app
