// What fault finding's pages read: how this car answers to what can be wrong, how likely each fault is by what was
// found, and which test tells most.
#pragma once

#include "app/desk/desk.h"
#include "app/desk/stoppable.h"
#include "assess/faults/notes.h"
#include "assess/faults/practice.h"

#include <QObject>

namespace mavrel::app {

using PracticeShopPtr = std::shared_ptr<const assess::PracticeShop>;

struct DiagnosisGiven {
  PracticeShopPtr shop; // never null; told apart by where it stands: one is made for each car
  assess::FaultEvidence evidence;
  friend bool operator==(const DiagnosisGiven&, const DiagnosisGiven&) = default;
};
struct Diagnosed {
  assess::Diagnosis diagnosis;
  std::vector<assess::NextTest> next;
};

/// Of the interface's thread; what it gives by reference is valid until it says `changed`.
class FaultAnswers : public QObject {
  Q_OBJECT
public:
  explicit FaultAnswers(Desk& desk, QObject* parent = nullptr);

  /// The car, once it is worked out; none before, or where it is not known enough. Asks for it.
  [[nodiscard]] PracticeShopPtr shop();
  /// Why there is none; none while it is worked out.
  [[nodiscard]] std::optional<Message> trouble();
  /// The build's notes as findings.
  [[nodiscard]] const assess::FaultsNoted& noted();
  /// By the notes as they are; none while it is weighed.
  [[nodiscard]] const Diagnosed* diagnosed();

signals:
  void changed();

private:
  struct Weighing {
    using Given = DiagnosisGiven;
    using Answer = Diagnosed;
    static Answer answer(const Given& given, const RunControl& control);
  };
  using Car = Stoppable<assess::FaultCarGiven, Expected<PracticeShopPtr>, assess::practice_shop>;
  [[nodiscard]] assess::FaultCarGiven car_given() const;
  void look();

  Desk& desk_;
  LongAnswer<Car> car_;
  LongAnswer<Weighing> weighing_;
  std::optional<assess::FaultsNoted> noted_;
};

} // namespace mavrel::app
