// How sure the answers are, worked out beside the interface while nobody types, and shown only while it is of the car
// as it is.
#pragma once

#include "app/desk/desk.h"
#include "assess/doubt/doubt_findings.h"

#include <QObject>
#include <QPointer>
#include <QTimer>

#include <utility>
#include <vector>

namespace mavrel::app {

/// Of the interface's thread; what it gives is valid until it or the desk says `changed`. Its work has threads of its
/// own that stand back behind all others, so that no other answer waits for it.
class Sureness : public QObject {
  Q_OBJECT
public:
  /// The desk's own; made when first asked for.
  [[nodiscard]] static Sureness& of(Desk& desk);

  /// Of the build as it is; none while it is not worked out, or nobody wants it.
  [[nodiscard]] const assess::Doubt* doubt() const;
  [[nodiscard]] bool is_running() const { return answer_.is_running(); }
  [[nodiscard]] double done() const { return answer_.done(); }
  /// Is it worked out anew whenever the build has rested? Posts show its bands then, and figures their ±.
  [[nodiscard]] bool is_wanted() const { return wanted_; }
  void set_wanted(bool want);
  /// Draws from now on; 500 where nobody said.
  void set_draws(std::size_t draws) { draws_ = draws; }
  /// What was found, weighed by how sure the answers are, where that is known.
  [[nodiscard]] assess::Findings findings() const;
  /// For paper: calls back once it is known, at once where it is or where nobody wants it (then with nullptr). What is
  /// under way is waited for beside the interface; a build that changes meanwhile is worked out anew first.
  /// @param then  may outlive nothing of whoever asks: it is dropped when `context` goes
  void once_known(QObject* context, std::function<void(const assess::Doubt*)> then);

  static constexpr int rests = 600; // ms after the last change

signals:
  void changed(); // there is an answer, or none any more
  void moved();   // it got on
  void wanted(bool want);

private:
  explicit Sureness(Desk& desk);
  struct Question {
    using Given = assess::DoubtGiven;
    using Answer = std::optional<assess::Doubt>;
    static Answer answer(const Given& given, const RunControl& control);
  };
  [[nodiscard]] assess::DoubtGiven given() const;
  void look();
  void told();
  void call_back();

  Desk& desk_;
  Runner runner_;
  Answers answers_; // apart from the desk's: of its own runner
  Asked<Question> answer_;
  std::vector<std::pair<QPointer<QObject>, std::function<void(const assess::Doubt*)>>> waiting_;
  QTimer resting_;
  bool wanted_ = true;
  std::size_t draws_ = 500;
  bool was_there_ = false; // when it was last told
};

/// A figure with no more digits than its doubt leaves: `412 mm`.
[[nodiscard]] QString shown_as_sure(const Desk& desk, double value, double sd, Kind kind);
/// A figure with no more digits than its doubt leaves, and the doubt behind it: `412 ± 4 mm`.
[[nodiscard]] QString shown_with_doubt(const Desk& desk, double value, double sd, Kind kind);
/// A figure as the doubt's answer of a name has it: with its ± where that is known of this figure, else as usual.
/// @param decimals  of the usual
[[nodiscard]] QString shown_sure(Desk& desk, double value, Kind kind, const std::string& answer, int decimals = -1);

} // namespace mavrel::app
