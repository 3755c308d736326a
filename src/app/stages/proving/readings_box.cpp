#include "app/stages/proving/readings_box.h"

#include "app/checks/check_edits.h"
#include "app/desk/clock.h"
#include "app/kit/path_table.h"
#include "app/kit/plain.h"
#include "assess/proving/series.h"
#include "build/edit.h"
#include "file/text_file.h"

#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::HoldPoint;
using assess::ReadBy;

namespace {
constexpr std::size_t most_file = 32U << 20U;
constexpr double live_every = 5; // s of the link's clock between readings that are kept
} // namespace

ReadingsBox::ReadingsBox(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), bench_(BenchLink::of(desk)), gauge_(new QComboBox(this)),
      file_(new QPushButton(tr("From a table …"), this)), live_(new QPushButton(this)),
      forget_(new QPushButton(tr("Forget them"), this)), table_(new PathTable(desk, tr("Readings over time"), this)),
      says_(new PlainLabel(this)) {
  const int u = desk_.look().unit();
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(u / 2);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  gauge_->setObjectName("readings_gauge");
  gauge_->setAccessibleName(tr("Gauge that was read"));
  gauge_->setMinimumContentsLength(16);
  row->addWidget(gauge_, 1);
  file_->setObjectName("readings_file");
  row->addWidget(file_);
  live_->setObjectName("readings_live");
  live_->setCheckable(true);
  row->addWidget(live_);
  forget_->setObjectName("readings_forget");
  row->addWidget(forget_);
  column->addLayout(row);
  says_->setObjectName("readings_say");
  says_->setWordWrap(true);
  column->addWidget(says_);
  table_->setObjectName("readings_table");
  table_->setMaximumHeight(desk_.look().px(132));
  table_->set_take([this](const QString& path, const QString& text) { return add_reading(path, text); });
  column->addWidget(table_);
  connect(gauge_, &QComboBox::currentIndexChanged, this, &ReadingsBox::refresh);
  connect(file_, &QPushButton::clicked, this, [this] {
    const QString from = QFileDialog::getOpenFileName(this, tr("Readings"), {}, tr("Tables (*.csv)"));
    if (!from.isEmpty()) read_file(from);
  });
  connect(live_, &QPushButton::toggled, this, [this](bool on) {
    if (!on) return end_live();
    taking_.clear();
    began_.reset(), last_.reset();
    look();
    refresh();
  });
  connect(forget_, &QPushButton::clicked, this, [this] {
    if (const auto at = series()) desk_.remove_entry(tr("Forget readings"), QString("@.proving.series.%1").arg(*at));
  });
  connect(&bench_, &BenchLink::told, this, [this] {
    if (live_->isChecked()) look();
  });
  connect(&bench_, &BenchLink::changed, this, &ReadingsBox::refresh);
}

const HoldPoint* ReadingsBox::point() const {
  return proof_of(desk_, id_.toStdString());
}

void ReadingsBox::show_check(const QString& id) {
  if (id != id_) {
    if (live_->isChecked()) live_->setChecked(false); // what was read goes to the check it was read for
    id_ = id;
    const QSignalBlocker quiet(gauge_);
    gauge_->clear();
  }
  refresh();
}

std::string ReadingsBox::gauge() const {
  return gauge_->currentData().toString().toStdString();
}

std::optional<std::size_t> ReadingsBox::series() const {
  const auto& all = desk_.build().variant().proving->series;
  for (std::size_t i = 0; i < all.size(); ++i)
    if (all[i].check == id_.toStdString() && all[i].gauge == gauge()) return i;
  return std::nullopt;
}

void ReadingsBox::read_file(const QString& file) {
  const HoldPoint* p = point();
  if (!p) return;
  const auto text = read_text(file.toStdString(), most_file);
  if (!text) return desk_.tell(desk_.words_of(text.error()));
  auto read = assess::read_series(*text);
  if (!read) return desk_.tell(tr("%1: %2").arg(QFileInfo(file).fileName(), desk_.words_of(read.error())));
  std::vector<build::ProofSeries> taken;
  for (build::ProofSeries& s : read->series) {
    if (s.gauge.empty()) s.gauge = gauge(); // one gauge alone: the one that is picked
    const bool asked = std::any_of(p->figures.begin(), p->figures.end(),
                                   [&](const auto& f) { return f.read == ReadBy::drop && f.key == s.gauge; });
    if (!asked) continue;
    s.from = QFileInfo(file).fileName().left(120).toStdString();
    s.began = work::moment_text(clock_now());
    taken.push_back(std::move(s));
  }
  const auto gauges = taken.size();
  if (gauges == 0) return desk_.tell(tr("%1 has no gauge that this check asks for.").arg(QFileInfo(file).fileName()));
  if (!keep_series(desk_, HoldPoint(*p), std::move(taken))) return;
  desk_.tell(
      read->kept < read->rows
          ? tr("%1 of %2 readings kept, evenly over the time; gauges: %3.").arg(read->kept).arg(read->rows).arg(gauges)
          : tr("%1 readings; gauges: %2.").arg(read->rows).arg(gauges));
}

std::optional<QString> ReadingsBox::add_reading(const QString& path, const QString& text) {
  // `+time_s`: a reading more, begun with what was typed of it.
  const HoldPoint* p = point();
  if (!p) return std::nullopt;
  // What is typed goes through the document's own fields, in a series as it would be kept.
  build::Build build = desk_.build();
  auto& all = build.variant().proving.own().series;
  const auto at = series();
  build::ProofSeries now;
  if (at)
    now = all[*at];
  else
    now.gauge = gauge(), now.from = "typed", now.began = work::moment_text(clock_now());
  build::ProofReading more;
  more.time = now.readings.empty() ? 0 : now.readings.back().time + 600;
  now.readings.push_back(more);
  const std::size_t row = now.readings.size() - 1, place = at.value_or(all.size());
  if (at)
    all[*at] = now;
  else
    all.push_back(now);
  const QString field = QString("@.proving.series.%1.readings.%2.%3").arg(place).arg(row).arg(path.mid(1));
  auto typed = build::with_text(build, desk_.resolve(field).toStdString(), text.toStdString(), desk_.prefs());
  if (!typed) return desk_.words_of(typed.error());
  keep_series(desk_, HoldPoint(*p), {std::as_const(*typed).variant().proving->series[place]});
  return std::nullopt;
}

void ReadingsBox::look() {
  const HoldPoint* p = point();
  const link::State* s = bench_.state();
  if (!p || !s) return;
  if (!began_) began_ = s->time;
  if (last_ && s->time - *last_ < live_every) return;
  last_ = s->time;
  for (const assess::AskedFigure& f : p->figures) {
    if (f.read != ReadBy::drop) continue;
    const auto pressure = f.corner ? s->pressure[*f.corner] : s->tank;
    if (!pressure) continue;
    auto found = std::find_if(taking_.begin(), taking_.end(), [&](const auto& one) { return one.gauge == f.key; });
    if (found == taking_.end()) {
      taking_.emplace_back();
      found = std::prev(taking_.end());
      found->gauge = f.key, found->from = "bench", found->began = work::moment_text(clock_now());
    }
    build::ProofReading r;
    r.time = s->time - *began_;
    r.pressure = pressure;
    if (f.corner) r.height = s->height[*f.corner];
    found->readings.push_back(r);
    // So long that it would not be kept: every second one goes.
    if (found->readings.size() >= build::most_proof_readings) {
      std::vector<build::ProofReading> half;
      for (std::size_t i = 0; i < found->readings.size(); i += 2)
        half.push_back(found->readings[i]);
      found->readings = std::move(half);
    }
  }
  refresh();
}

void ReadingsBox::end_live() {
  const HoldPoint* p = point();
  auto taken = std::exchange(taking_, {});
  std::erase_if(taken, [](const build::ProofSeries& s) { return s.readings.size() < 3; });
  if (p) keep_series(desk_, HoldPoint(*p), std::move(taken));
  refresh();
}

void ReadingsBox::refresh() {
  const HoldPoint* p = point();
  QStringList keys;
  if (p)
    for (const assess::AskedFigure& f : p->figures)
      if (f.read == ReadBy::drop) keys << QString::fromStdString(f.key);
  setVisible(!keys.isEmpty());
  if (keys.isEmpty()) return;
  QStringList there;
  for (int i = 0; i < gauge_->count(); ++i)
    there << gauge_->itemData(i).toString();
  if (there != keys) {
    const QSignalBlocker quiet(gauge_);
    gauge_->clear();
    for (const assess::AskedFigure& f : p->figures)
      if (f.read == ReadBy::drop)
        gauge_->addItem(f.corner ? desk_.words_of({assess::corner_name(*f.corner), {}}) : tr("Tank"),
                        QString::fromStdString(f.key));
  }
  const Look& look = desk_.look();
  says_->setFont(look.font(TextSize::small));
  table_->setFont(look.font(TextSize::small));
  const bool linked = bench_.standing() == BenchLink::Standing::open;
  live_->setEnabled(linked || live_->isChecked());
  live_->setText(live_->isChecked() ? tr("End reading") : tr("Read the link"));
  live_->setToolTip(tr("Every gauge of the check is read by itself until it is ended"));
  const auto at = series();
  forget_->setEnabled(at.has_value());
  const auto& all = desk_.build().variant().proving->series;
  std::vector<PathTable::Row> rows;
  const QStringList columns = {"time_s", "pressure_pa", "temperature_k"};
  if (at)
    for (std::size_t i = 0; i < all[*at].readings.size(); ++i) {
      PathTable::Row row;
      for (const QString& c : columns)
        row.paths << QString("@.proving.series.%1.readings.%2.%3").arg(*at).arg(i).arg(c);
      rows.push_back(std::move(row));
    }
  if (!live_->isChecked() && (!at || all[*at].readings.size() < build::most_proof_readings)) {
    PathTable::Row more;
    for (const QString& c : columns)
      more.paths << "+" + c;
    rows.push_back(std::move(more));
  }
  table_->show_rows({tr("after"), tr("gauge"), tr("thermometer")}, std::move(rows));
  if (live_->isChecked()) {
    const std::size_t count = taking_.empty() ? 0 : taking_.front().readings.size();
    const double since = began_ && last_ ? *last_ - *began_ : 0;
    return says_->setText(
        tr("The link is read: %1 readings over %2.").arg(count).arg(desk_.shown(since, Kind::minutes, 1)));
  }
  if (!at) {
    return says_->setText(
        tr("Type what gauge and thermometer showed and when, three times at least; or read a table with "
           "the columns time_s, front_left_bar … and temperature_c."));
  }
  double hold = 0;
  for (const assess::AskedFigure& f : p->figures)
    if (f.key == gauge()) hold = f.hold;
  const auto drop = assess::drop_of(all[*at].readings, hold);
  if (!drop) return says_->setText(desk_.words_of(drop.error()));
  const QString over = desk_.shown(hold, hold >= 3600 ? Kind::hours : Kind::minutes, 0);
  QString text = tr("At one temperature it loses %1 ± %2 over %3; the gauge itself fell %4.")
                     .arg(desk_.shown(drop->pressure, Kind::pressure, 3), desk_.shown(drop->within, Kind::pressure, 3),
                          over, desk_.shown(drop->gauge, Kind::pressure, 2));
  if (drop->gauge > 1000 && drop->pressure <= 2 * std::max(drop->within, 200.0))
    text += " " + tr("It is the cold: the air is still there.");
  says_->setText(text);
}

} // namespace mavrel::app
