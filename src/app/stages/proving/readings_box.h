// Readings over time of one gauge of a check: typed, from a table, or live from the link; and what they come to.
#pragma once

#include "app/desk/bench_link.h"
#include "app/stages/proving/questions.h"
#include "build/proving.h"

#include <QElapsedTimer>
#include <QWidget>

class QComboBox;
class QLabel;
class QPushButton;

namespace mavrel::app {

class PathTable;

class ReadingsBox : public QWidget {
  Q_OBJECT
public:
  ReadingsBox(Desk& desk, QWidget* parent);
  void show_check(const QString& id);
  /// Reads a table into the gauges of the check that is shown.
  void read_file(const QString& file);
  void refresh();

private:
  [[nodiscard]] const assess::HoldPoint* point() const;
  /// Key of the figure whose gauge is picked.
  [[nodiscard]] std::string gauge() const;
  [[nodiscard]] std::optional<std::size_t> series() const; // its place in the document
  std::optional<QString> add_reading(const QString& path, const QString& text);
  void look(); // at the link, while it is read live
  void end_live();

  Desk& desk_;
  BenchLink& bench_;
  QString id_;
  QComboBox* gauge_;
  QPushButton *file_, *live_, *forget_;
  PathTable* table_;
  QLabel* says_;
  std::vector<build::ProofSeries> taking_; // what was read since live reading began, a series a gauge
  std::optional<double> began_, last_;     // s of the link's clock
};

} // namespace mavrel::app
