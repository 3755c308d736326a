#include "app/desk/bench_link.h"

#include "app/desk/desk.h"

#include <QFile>
#include <QFileInfo>
#include <QLocalSocket>
#include <QSerialPort>

#include <algorithm>
#include <utility>

#include <sys/stat.h>

namespace mavrel::app {

namespace {

constexpr double kept = 120;                 // s of what came
constexpr qint64 most_waiting = 1024 * 1024; // bytes that may wait to be read: a flood waits at its source
constexpr const char* ways[] = {"shut", "fill", "vent"};

bool is_socket(const QString& path) {
  struct stat there {};
  return ::stat(QFile::encodeName(path).constData(), &there) == 0 && S_ISSOCK(there.st_mode);
}

} // namespace

BenchLink::BenchLink(QObject* parent) : QObject(parent) {
  asking_.setInterval(asks_every);
  listening_.setInterval(silence);
  connect(&asking_, &QTimer::timeout, this, [this] {
    for (const link::Order& order : std::vector(held_)) // the link may be lost meanwhile
      say(order);
  });
  connect(&listening_, &QTimer::timeout, this, [this] { lose(tr("Nothing was heard for %1 s.").arg(silence / 1000)); });
}

BenchLink& BenchLink::of(Desk& desk) {
  if (auto* made = desk.findChild<BenchLink*>(QString(), Qt::FindDirectChildrenOnly)) return *made;
  auto* made = new BenchLink(&desk);
  // What the car shows stands on the posts, whatever stage is looked at.
  connect(made, &BenchLink::told, &desk, [made, &desk] {
    if (const link::State* s = made->state(); s && made->standing() == Standing::open)
      desk.view().set_live(ViewState::Live{s->height, s->pressure});
  });
  connect(made, &BenchLink::changed, &desk, [made, &desk] {
    if (made->standing() != Standing::open) desk.view().set_live(std::nullopt);
  });
  return *made;
}

BenchLink::~BenchLink() {
  release();
  drop_device();
}

void BenchLink::drop_device() {
  asking_.stop();
  listening_.stop();
  held_.clear();
  if (!device_) return;
  device_->disconnect(this);
  device_.release()->deleteLater(); // it may be the one that called here
}

void BenchLink::open(const QString& address, const QString& name) {
  shut();
  address_ = address.trimmed();
  name_ = name;
  trouble_.clear();
  hello_.reset();
  heard_.clear();
  lines_ = {};
  if (address_.isEmpty()) return lose(tr("A socket's path or a serial port's name is right."));
  standing_ = Standing::opening;
  if (is_socket(address_)) {
    auto socket = std::make_unique<QLocalSocket>();
    connect(socket.get(), &QLocalSocket::errorOccurred, this, [this, raw = socket.get()] { lose(raw->errorString()); });
    socket->setReadBufferSize(most_waiting);
    socket->setServerName(address_);
    QLocalSocket* raw = socket.get();
    device_ = std::move(socket);
    connect(raw, &QIODevice::readyRead, this, &BenchLink::take_bytes);
    raw->connectToServer();
  } else {
    auto port = std::make_unique<QSerialPort>(address_);
    port->setReadBufferSize(most_waiting);
    port->setBaudRate(QSerialPort::Baud115200);
    QSerialPort* raw = port.get();
    device_ = std::move(port);
    if (!raw->open(QIODevice::ReadWrite)) {
      const QString why = raw->errorString();
      return lose(tr("%1: there is no socket and no serial port by that name (%2).").arg(address_, why));
    }
    connect(raw, &QSerialPort::errorOccurred, this, [this, raw](QSerialPort::SerialPortError error) {
      if (error != QSerialPort::NoError && error != QSerialPort::TimeoutError) lose(raw->errorString());
    });
    connect(raw, &QIODevice::readyRead, this, &BenchLink::take_bytes);
  }
  if (device_) listening_.start();
  emit changed();
}

void BenchLink::shut() {
  if (standing_ == Standing::shut) return;
  release();
  if (device_) say({link::Order::What::close, {}, {}, false, 0});
  if (auto* socket = qobject_cast<QLocalSocket*>(device_.get())) socket->flush();
  drop_device();
  stop_recording();
  standing_ = Standing::shut;
  emit changed();
}

void BenchLink::lose(const QString& why) {
  // The rig's own watchdog shuts what was held: nobody asks for it again.
  drop_device();
  stop_recording();
  standing_ = Standing::lost;
  trouble_ = why;
  emit changed();
}

void BenchLink::take_bytes() {
  if (!device_) return;
  const QByteArray bytes = device_->readAll();
  if (!lines_.take({bytes.constData(), static_cast<std::size_t>(bytes.size())}))
    emit noted(tr("A line was too long and is thrown away."));
  while (auto line = lines_.next()) {
    if (!line->empty()) take_line(*line);
    if (!device_) return;
  }
}

void BenchLink::take_line(const std::string& line) {
  auto read = link::read_rig_line(line, hello_ ? hello_->circuits : std::vector<link::Circuit>());
  if (!read) {
    emit noted(QString::fromStdString(mavrel::say(read.error())));
    return;
  }
  listening_.start();
  if (auto* hello = std::get_if<link::Hello>(&*read)) {
    hello_ = std::move(*hello);
    standing_ = Standing::open;
    emit changed();
    return;
  }
  if (const auto* note = std::get_if<link::Note>(&*read)) {
    emit noted(QString::fromStdString(note->text));
    return;
  }
  if (standing_ == Standing::opening) { // a logger that says nothing of itself, or one that spoke before we came
    standing_ = Standing::open;
    emit changed();
  }
  auto& state = std::get<link::State>(*read);
  if (!heard_.empty() && state.time < heard_.back().time) heard_.clear(); // it began anew
  heard_.push_back(std::move(state));
  while (heard_.back().time - heard_.front().time > kept || heard_.size() > 30000)
    heard_.pop_front();
  if (record_) {
    const link::State& s = heard_.back();
    QByteArray row = QByteArray::number(s.time, 'f', 3);
    const auto cell = [&](const std::optional<double>& v, int digits) {
      row += ',';
      if (v) row += QByteArray::number(*v, 'f', digits);
    };
    for (const auto& h : s.height)
      cell(h, 5);
    for (const auto& p : s.pressure)
      cell(p, 0);
    cell(s.tank, 0);
    cell(s.speed, 2);
    for (std::size_t i = 0; hello_ && i < hello_->circuits.size(); ++i) {
      row += ',';
      if (i < s.valves.size()) row += ways[static_cast<std::size_t>(s.valves[i])];
    }
    row += '\n';
    if (record_->write(row) != row.size() || !record_->flush()) {
      const QString why = record_->errorString();
      stop_recording();
      emit noted(tr("Recording ended: %1").arg(why));
      emit changed();
    } else {
      ++rows_;
    }
  }
  emit told();
}

void BenchLink::say(const link::Order& order) {
  if (!device_ || !device_->isOpen()) return;
  const std::string line = link::line_of(order);
  device_->write(line.data(), static_cast<qint64>(line.size()));
}

void BenchLink::hold_all(const std::vector<std::pair<QString, control::ValveOrder>>& valves) {
  if (standing_ != Standing::open) return;
  for (const link::Order& old : std::exchange(held_, {}))
    say({link::Order::What::close, old.circuit, {}, false, 0});
  for (const auto& [circuit, way] : valves)
    held_.push_back({link::Order::What::open, circuit.toStdString(), way, false, 0});
  for (const link::Order& order : std::vector(held_))
    say(order);
  asking_.start();
  emit changed();
}

void BenchLink::release() {
  if (held_.empty()) return;
  asking_.stop();
  for (const link::Order& old : std::exchange(held_, {}))
    say({link::Order::What::close, old.circuit, {}, false, 0});
  emit changed();
}

void BenchLink::release(const QString& circuit) {
  const auto it = std::find_if(held_.begin(), held_.end(),
                               [name = circuit.toStdString()](const link::Order& o) { return o.circuit == name; });
  if (it == held_.end()) return;
  if (held_.size() == 1) return release();
  const std::string name = it->circuit;
  held_.erase(it);
  say({link::Order::What::close, name, {}, false, 0});
}

void BenchLink::set_controller(bool on) {
  release();
  say({link::Order::What::controller, {}, {}, on, 0});
}

void BenchLink::drive(double speed) {
  say({link::Order::What::drive, {}, {}, false, speed});
}

std::optional<QString> BenchLink::record(const QString& file) {
  stop_recording();
  auto to = std::make_unique<QFile>(file);
  if (!to->open(QIODevice::WriteOnly | QIODevice::Truncate)) return tr("%1: %2").arg(file, to->errorString());
  QByteArray head = "time_s";
  for (const char* what : {"height", "pressure"})
    for (std::size_t c = 0; c < 4; ++c)
      head +=
          QByteArray(",") + what + '_' + QByteArray(link::corner_key(c)).toLower() + (what[0] == 'h' ? "_m" : "_pa");
  head += ",tank_pa,speed_m_per_s";
  for (std::size_t i = 0; hello_ && i < hello_->circuits.size(); ++i)
    head += ",valve_" + QByteArray::fromStdString(hello_->circuits[i].name);
  head += '\n';
  if (to->write(head) != head.size() || !to->flush()) return tr("%1: %2").arg(file, to->errorString());
  record_ = std::move(to);
  rows_ = 0;
  emit changed();
  return std::nullopt;
}

void BenchLink::stop_recording() {
  if (!record_) return;
  record_->close();
  record_.reset();
  emit changed();
}

} // namespace mavrel::app
