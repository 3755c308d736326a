// Routes: lines and looms on side and top view, their points in a table, and what is wrong with each way.
#pragma once

#include "app/kit/page.h"
#include "app/stages/fit_up/ways_view.h"

namespace mavrel::app {

class ChoiceBox;
class PathTable;

class RoutesPage : public Page {
  Q_OBJECT
public:
  explicit RoutesPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  [[nodiscard]] WaysView* view() const { return view_; }
  void show_route(const QString& key);
  void write_labels();

protected:
  void fill() override;

private:
  void lay();
  void add_point();
  void remove_point();
  void fill_list();
  void fill_points(const assess::JudgedRoute& route);
  [[nodiscard]] QString said(const assess::JudgedRoute& route) const;
  [[nodiscard]] const assess::JudgedRoute* held() const;

  WaysView* view_;
  ListTable* list_;
  PathTable* points_;
  QLabel *summary_, *said_;
  QPushButton *lay_, *add_, *remove_;
  Field* slack_;
  ChoiceBox *kind_, *runs_;
  QString held_;
};

} // namespace mavrel::app
