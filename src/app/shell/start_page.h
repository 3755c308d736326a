// What the window shows before any car is open: a new car by what it is, cars that are there, and what was open last.
#pragma once

#include "assess/next/usual_car.h"

#include <QStringList>
#include <QWidget>

#include <array>

class QComboBox;
class QVBoxLayout;

namespace mavrel::app {

class Desk;

class StartPage : public QWidget {
  Q_OBJECT
public:
  explicit StartPage(Desk& desk, QWidget* parent = nullptr);
  /// @param recent  files, the newest first
  void show_recent(const QStringList& recent);

signals:
  void wants_new(const build::Build& build); // begin with it
  void wants_open();                         // a file that is asked for
  void wants_file(const QString& file);
  void wants_book();
  void closed(); // back to what is open

private:
  void follow_style();
  [[nodiscard]] assess::WhatItIs what() const;

  Desk& desk_;
  QComboBox *style_, *use_;
  std::array<QComboBox*, 2> layout_{};
  QVBoxLayout* recent_;
};

} // namespace mavrel::app
