// The bench link from the program's side: a rig or logger at a local socket or a serial port, heard line by line. A
// valve is asked for only while somebody holds it, again and again; when the link goes, so does every valve.
#pragma once

#include "link/bench_line.h"

#include <QElapsedTimer>
#include <QObject>
#include <QPointer>
#include <QTimer>

#include <deque>
#include <memory>
#include <optional>
#include <utility>
#include <vector>

class QFile;
class QIODevice;

namespace mavrel::app {

class Desk;

/// Lives with the interface. Everything it says is of the link that is open now.
class BenchLink : public QObject {
  Q_OBJECT
public:
  explicit BenchLink(QObject* parent = nullptr);
  ~BenchLink() override;
  /// The desk's own link, which every stage shares; made when first asked for.
  [[nodiscard]] static BenchLink& of(Desk& desk);

  /// @param address  the path of a socket, or the name of a serial port (`ttyUSB0`, `/dev/pts/4`)
  /// @param name  what it is called for people; empty: as its address
  void open(const QString& address, const QString& name = {});
  void shut();
  enum class Standing { shut, opening, open, lost };
  [[nodiscard]] Standing standing() const { return standing_; }
  [[nodiscard]] const QString& address() const { return address_; }
  /// What it is linked to, for people.
  [[nodiscard]] const QString& name() const { return name_.isEmpty() ? address_ : name_; }
  [[nodiscard]] const QString& trouble() const { return trouble_; } // why it was lost, or could not be opened

  [[nodiscard]] const std::optional<link::Hello>& hello() const { return hello_; }
  /// What came last; none until something did.
  [[nodiscard]] const link::State* state() const { return heard_.empty() ? nullptr : &heard_.back(); }
  /// What came in the last two minutes, the oldest first.
  [[nodiscard]] const std::deque<link::State>& heard() const { return heard_; }

  /// Somebody's hand is on a valve, or on several at once, until `release`. What was held before is let go.
  void hold(const QString& circuit, control::ValveOrder way) { hold_all({{circuit, way}}); }
  void hold_all(const std::vector<std::pair<QString, control::ValveOrder>>& valves);
  void release();
  /// Lets one of several go.
  void release(const QString& circuit);
  [[nodiscard]] bool is_held() const { return !held_.empty(); }
  void set_controller(bool on);
  void drive(double speed);

  /// Writes what comes from now on as CSV. @returns why it can't; none: it does
  [[nodiscard]] std::optional<QString> record(const QString& file);
  void stop_recording();
  [[nodiscard]] bool is_recording() const { return record_ != nullptr; }
  [[nodiscard]] int recorded() const { return rows_; } // rows so far

  static constexpr int asks_every = 150; // ms: thrice within the watchdog
  static constexpr int silence = 2000;   // ms without a line: the link is lost

signals:
  void changed();               // it opened, shut or was lost, or a hand is on a valve
  void told();                  // a state came
  void noted(QString sentence); // the rig says something

private:
  void take_bytes();
  void take_line(const std::string& line);
  void lose(const QString& why);
  void say(const link::Order& order);
  void drop_device();

  std::unique_ptr<QIODevice> device_;
  Standing standing_ = Standing::shut;
  QString address_, name_, trouble_;
  link::Lines lines_;
  std::optional<link::Hello> hello_;
  std::deque<link::State> heard_;
  std::vector<link::Order> held_;
  QTimer asking_, listening_;
  std::unique_ptr<QFile> record_;
  int rows_ = 0;
};

} // namespace mavrel::app
