// A car with something hidden the matter: what its driver tells, what one does to it and what that finds, and at the
// end what it was, beside the best way to it.
#pragma once

#include "app/kit/page.h"
#include "app/stages/faults/questions.h"
#include "report/practice_record.h"

class QComboBox;
class QSpinBox;

namespace mavrel::app {

class FaultSound;
class HoldBar;

/// Where the record of practice is kept: `$XDG_DATA_HOME/mavrel/practice.json`.
[[nodiscard]] QString practice_record_file();

struct ScoreGiven {
  PracticeShopPtr shop;
  assess::PracticeAsked asked;
  std::vector<assess::TestDone> done;
  std::vector<assess::FaultAt> named;
  friend bool operator==(const ScoreGiven& a, const ScoreGiven& b) {
    return a.shop == b.shop && a.asked == b.asked && a.done.size() == b.done.size() && a.named == b.named;
  }
};
struct ScoreQuestion {
  using Given = ScoreGiven;
  using Answer = std::optional<assess::PracticeScore>;
  static Answer answer(const Given& given, const RunControl& control) {
    return assess::score(given.shop, given.asked, given.done, given.named, control.stop);
  }
};

class PractisePage : public Page {
  Q_OBJECT
public:
  explicit PractisePage(Desk& desk, QWidget* parent = nullptr);

protected:
  void fill() override;

private:
  /// A row of the naming: what it is, and where.
  struct Naming {
    QComboBox *cause, *where;
  };
  void make_head();
  void make_rig();
  void make_tests();
  void make_naming();
  void begin();
  void listen();
  void show_tests();
  void do_test();
  void show_named(const Naming& row);
  [[nodiscard]] static std::optional<assess::FaultAt> named(const Naming& row);
  void name_it();
  void scored();
  void keep_score(const assess::PracticeScore& score);
  [[nodiscard]] QString said() const;
  [[nodiscard]] QString weak() const;
  void fill_told();
  void fill_found();
  void fill_score();
  void put_on_rig();
  void refresh_link();

  PracticeShopPtr shop_; // of the car that is practised on, whatever becomes of the build
  std::unique_ptr<assess::PracticeCar> car_;
  std::vector<assess::TestDone> done_;
  Asked<ScoreQuestion> scoring_;
  bool kept_ = false; // the score is in the record
  FaultSound* sound_;

  QSpinBox* seed_;
  QComboBox *level_, *test_, *where_, *circuit_;
  std::array<Naming, 2> naming_;
  QPushButton *begin_, *listen_, *do_, *name_, *rig_;
  QLabel *summary_, *told_, *minutes_, *score_, *link_words_, *weak_;
  ListTable *found_, *steps_;
  HoldBar *fill_, *vent_;
  QWidget *named_box_, *rig_box_;
};

} // namespace mavrel::app
