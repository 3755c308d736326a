// A car with something hidden the matter: what its driver tells, what one does to it and what that finds, and at the
// end what it was, beside the best way to it.
#pragma once

#include "app/kit/plain_page.h"
#include "app/stages/faults/answers.h"
#include "report/practice_record.h"

class QComboBox;
class QLabel;
class QPushButton;
class QSpinBox;
class QTableWidget;

namespace mavrel::app {

class FaultSound;
class HoldBar;

/// Where the record of practice is kept: `$XDG_DATA_HOME/mavrel/practice.json`.
[[nodiscard]] QString practice_record_file();

class PractisePage : public PlainPage {
  Q_OBJECT
public:
  PractisePage(Desk& desk, FaultAnswers& answers, QWidget* parent = nullptr);

protected:
  void fill() override;

private:
  void begin();
  void show_tests();
  void do_test();
  void show_named(QComboBox* cause, QComboBox* where);
  [[nodiscard]] std::optional<assess::FaultAt> named(QComboBox* cause, QComboBox* where) const;
  void name_it();
  void scored();
  void fill_told();
  void fill_found();
  void fill_score();
  void put_on_rig();
  void refresh_link();

  struct ScoreGiven {
    PracticeShopPtr shop;
    assess::PracticeAsked asked;
    std::vector<assess::TestDone> done;
    std::vector<assess::FaultAt> named;
    friend bool operator==(const ScoreGiven& a, const ScoreGiven& b) {
      return a.shop == b.shop && a.asked == b.asked && a.done.size() == b.done.size() && a.named == b.named;
    }
  };
  struct Scoring {
    using Given = ScoreGiven;
    using Answer = std::optional<assess::PracticeScore>;
    static Answer answer(const Given& given, const RunControl& control);
  };

  FaultAnswers& answers_;
  PracticeShopPtr shop_; // of the car that is practised on, whatever becomes of the build
  std::unique_ptr<assess::PracticeCar> car_;
  std::vector<assess::TestDone> done_;
  LongAnswer<Scoring> scoring_;
  bool kept_ = false; // the score is in the record
  FaultSound* sound_;

  QSpinBox* seed_;
  QComboBox *level_, *test_, *where_, *cause_, *cause_where_, *second_, *second_where_, *circuit_;
  QPushButton *begin_, *listen_, *do_, *name_, *rig_;
  QLabel *summary_, *told_, *minutes_, *score_, *link_words_, *weak_;
  QTableWidget *found_, *steps_;
  HoldBar *fill_, *vent_;
  QWidget *named_box_, *rig_box_;
};

} // namespace mavrel::app
