// What the window shows before any car is open: a new car by what it is, cars that are there, and what was open last.
#pragma once

#include "assess/next/usual_car.h"

#include <QScrollArea>
#include <QStringList>

#include <array>
#include <vector>

class QComboBox;
class QVBoxLayout;

namespace mavrel::app {

class Desk;
enum class TextSize;

class StartPage : public QScrollArea {
  Q_OBJECT
public:
  explicit StartPage(Desk& desk, QWidget* parent = nullptr);
  /// @param recent  files, the newest first
  /// @param car     that is open, to go back to; empty: none is
  void show_recent(const QStringList& recent, const QString& car);

signals:
  void wants_new(const build::Build& build); // begin with it
  void wants_open();                         // a file that is asked for
  void wants_file(const QString& file);
  void wants_book();
  void closed(); // back to what is open

protected:
  void keyPressEvent(QKeyEvent* event) override;

private:
  void follow_style();
  void restyle();
  [[nodiscard]] assess::WhatItIs what() const;

  Desk& desk_;
  std::vector<std::pair<QWidget*, TextSize>> titles_;
  QComboBox *style_, *use_;
  std::array<QComboBox*, 2> layout_{};
  QVBoxLayout* recent_;
  class QPushButton* back_;
};

} // namespace mavrel::app
