#include "app/stages/leveling/bench_page.h"

#include "app/kit/drawing.h"
#include "app/kit/hold_bar.h"
#include "app/kit/list_table.h"
#include "app/theme/text_line.h"
#include "assess/end/end_answer.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QCoreApplication>
#include <QFileDialog>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

using control::ValveOrder;

namespace {

constexpr double shown_time = 60; // s of the live plot
constexpr double drives_at = 15;  // m/s

QString way_name(ValveOrder way) {
  switch (way) {
  case ValveOrder::fill:
    return QCoreApplication::translate("bench", "fills");
  case ValveOrder::vent:
    return QCoreApplication::translate("bench", "vents");
  case ValveOrder::shut:
    break;
  }
  return QCoreApplication::translate("bench", "shut");
}

} // namespace

// ---- heights over the last minute

LivePlot::LivePlot(Desk& desk, BenchLink& bench, QWidget* parent) : HeightPlot(desk, parent), bench_(bench) {
  setObjectName("live_plot");
  setAccessibleName(tr("Heights of the last minute"));
}

QString LivePlot::described() const {
  const link::State* s = bench_.state();
  if (!s) return tr("Nothing is heard.");
  QStringList out;
  for (std::size_t c = 0; c < 4; ++c)
    if (s->height[c]) out << QString("%1 %2").arg(link::corner_key(c), desk_.shown(*s->height[c], Kind::length));
  return out.join(", ");
}

void LivePlot::paint_ground(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QRectF p = paint_frame(painter);
  const auto& heard = bench_.heard();
  if (heard.empty()) {
    paint_instead(painter, p.toRect(), look,
                  tr("Heights of the last minute stand here once a rig or a logger is linked. “Play this car” starts a "
                     "rig that simulates it."));
    return;
  }
  const HeightScale s = scale();
  const double until = heard.back().time, from = until - shown_time;
  const double right = p.right() - look.px(34);
  const auto x = [&](double time) { return p.left() + (time - from) / shown_time * (right - p.left()); };
  painter.setFont(look.font(TextSize::small));
  for (double v = 0; v <= shown_time; v += 10) {
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(x(from + v), p.top()), QPointF(x(from + v), p.bottom() + look.px(4)));
    painter.setPen(t.second);
    draw_line(painter, {x(from + v) - 40, p.bottom() + look.px(4), 80, double(look.px(14))},
              Qt::AlignHCenter | Qt::AlignTop,
              v == shown_time ? tr("now") : QString("−%1 s").arg(shown_time - v, 0, 'f', 0));
  }
  painter.save();
  painter.setClipRect(p);
  painter.setRenderHint(QPainter::Antialiasing);
  std::array<std::optional<double>, 4> ends;
  for (std::size_t c = 4; c-- > 0;) {
    QPen pen(t.end(c < 2 ? End::front : End::rear), c % 2 == 0 ? 2.2 : 1.1);
    if (c >= 2) pen.setDashPattern({7, 1.6});
    painter.setPen(pen);
    QPolygonF line;
    for (const link::State& state : heard) {
      if (state.time < from || !state.height[c]) continue;
      line << QPointF(x(state.time), s.y(*state.height[c]));
      ends[c] = *state.height[c];
    }
    painter.drawPolyline(line);
  }
  painter.restore();
  // Names beside the ends of their lines, apart from one another, each led to by its own.
  struct Name {
    double y, at;
    std::size_t corner;
  };
  std::vector<Name> names;
  for (std::size_t c = 0; c < 4; ++c)
    if (ends[c]) names.push_back({s.clamped_y(*ends[c]), 0, c});
  std::sort(names.begin(), names.end(), [](const Name& a, const Name& b) { return a.y < b.y; });
  painter.setFont(look.font(TextSize::small, true));
  const double tall = look.px(13), lead = look.px(8);
  double last = p.top() - tall / 2;
  for (Name& name : names)
    last = name.at = std::max(name.y, last + tall);
  double below = p.bottom() + tall / 2;
  for (std::size_t i = names.size(); i-- > 0;)
    below = names[i].at = std::min(names[i].at, below - tall);
  for (const Name& name : names) {
    painter.setPen(t.end(name.corner < 2 ? End::front : End::rear));
    painter.drawLine(QPointF(right, name.y), QPointF(right + lead, name.at));
    const QRectF place(right + lead, name.at - tall / 2, p.right() - right - lead, tall);
    paint_words(painter, place, Qt::AlignRight | Qt::AlignVCenter, link::corner_key(name.corner));
  }
  const double head = p.top() - look.px(30);
  painter.setPen(t.ink);
  painter.setFont(look.font(TextSize::normal, true));
  draw_line(painter, {p.left(), head, p.width(), double(look.px(18))}, Qt::AlignLeft | Qt::AlignVCenter,
            bench_.hello() && !bench_.hello()->name.empty() ? QString::fromStdString(bench_.hello()->name)
                                                            : bench_.name());
}

void LivePlot::paint_figures(QPainter&, double) const {}

// ---- the page

BenchPage::BenchPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), bench_(BenchLink::of(desk)), rig_(PlayedRig::of(desk)), address_(new QLineEdit(this)),
      valves_(new QListWidget(this)), bar_(new HoldBar(desk, this)), plot_(new LivePlot(desk, bench_, this)) {
  const int u = desk_.look().unit();
  set_plot(plot_);
  make_buttons();
  standing_ = small_words("bench_standing");
  wide_column()->addWidget(standing_);
  auto* above = row(wide_column());
  above->setContentsMargins(0, 0, u, 0);
  table_ = table("readings", tr("Readings"), {tr("corner"), tr("height"), tr("pressure"), tr("valve")});
  table_->setMaximumHeight(desk_.look().px(160));
  above->addWidget(table_, 4);
  auto* hand = new QVBoxLayout;
  hand->setSpacing(u / 2);
  valves_->setObjectName("bench_valves");
  valves_->setAccessibleName(tr("Valve to be worked"));
  valves_->setMaximumHeight(desk_.look().px(110));
  hand->addWidget(valves_);
  hand->addWidget(bar_);
  above->addLayout(hand, 4);
  wide_column()->addWidget(
      quiet(tr("Hands and feet clear before a valve is opened. Never under a car held by air: stands.")));
  beside_posts(1)->addWidget(plot_, 1);
  connect(&rig_, &PlayedRig::said, standing_, &QLabel::setText);
  connect(bar_, &HoldBar::pressed, this, [this] {
    if (const auto v = valve()) bench_.hold(v->first, v->second);
  });
  connect(bar_, &HoldBar::released, this, [this] { bench_.release(); });
  connect(valves_, &QListWidget::currentRowChanged, this, [this] {
    bench_.release();
    refresh();
  });
  connect(&bench_, &BenchLink::changed, this, [this] {
    if (bench_.standing() == BenchLink::Standing::opening && bench_.name() == bench_.address())
      address_->setText(bench_.address());
    refresh();
  });
  // However fast they come, they are shown no faster than anybody sees.
  shown_.setSingleShot(true);
  shown_.setInterval(40);
  connect(&shown_, &QTimer::timeout, this, &BenchPage::show_state);
  connect(&bench_, &BenchLink::told, this, [this] {
    if (!shown_.isActive()) shown_.start();
  });
  connect(&bench_, &BenchLink::noted, this, [this](const QString& text) { desk_.tell(tr("Bench: %1").arg(text)); });
}

void BenchPage::make_buttons() {
  auto* line = row(wide_column());
  line->setContentsMargins(0, 0, desk_.look().unit(), 0);
  address_->setObjectName("bench_address");
  address_->setAccessibleName(tr("Socket or serial port"));
  address_->setPlaceholderText(tr("a socket's path, or a serial port such as ttyUSB0"));
  connect(address_, &QLineEdit::returnPressed, this, [this] { bench_.open(address_->text()); });
  line->addWidget(address_, 3);
  link_ = button(line, {}, "bench_link", [this] {
    if (bench_.standing() == BenchLink::Standing::open || bench_.standing() == BenchLink::Standing::opening) {
      bench_.shut();
      rig_.stop();
    } else {
      bench_.open(address_->text());
    }
  });
  button(line, tr("Play this car"), "bench_play", [this] {
    play();
  })->setToolTip(tr("Starts a rig that simulates the car that is open, and links to it"));
  controller_ = button(line, tr("Controller"), "bench_controller");
  controller_->setCheckable(true);
  connect(controller_, &QPushButton::toggled, this, [this](bool on) {
    bench_.set_controller(on);
    refresh(); // the bar is nobody's while it has the valves
  });
  drive_ = button(line, {}, "bench_drive");
  drive_->setCheckable(true);
  connect(drive_, &QPushButton::toggled, this, [this](bool on) { bench_.drive(on ? drives_at : 0); });
  record_ = button(line, {}, "bench_record", [this] { record_or_end(); });
}

void BenchPage::record_or_end() {
  if (bench_.is_recording()) {
    const int rows = bench_.recorded();
    bench_.stop_recording();
    return desk_.tell(tr("Rows recorded: %1.").arg(rows));
  }
  const QString to = QFileDialog::getSaveFileName(this, tr("Record to"), {}, tr("CSV (*.csv)"));
  if (!to.isEmpty()) record(to);
}

bool BenchPage::works() const {
  return bench_.standing() == BenchLink::Standing::open && bench_.hello() && !bench_.hello()->circuits.empty();
}

std::optional<std::pair<QString, ValveOrder>> BenchPage::valve() const {
  const auto* item = valves_->currentItem();
  if (!item) return std::nullopt;
  return std::pair{item->data(Qt::UserRole).toString(), static_cast<ValveOrder>(item->data(Qt::UserRole + 1).toInt())};
}

void BenchPage::play() {
  if (const auto wrong = rig_.play()) desk_.refuse(*wrong);
}

void BenchPage::record(const QString& file) {
  if (desk_.refuses_to_write(file.toStdString())) return;
  if (const auto wrong = bench_.record(file)) desk_.refuse(*wrong);
}

QString BenchPage::standing() const {
  switch (bench_.standing()) {
  case BenchLink::Standing::shut:
    return tr("Not linked. A logger of your own may speak the same lines; they are promised in "
              "docs/formats/bench-link.md.");
  case BenchLink::Standing::opening:
    return tr("Listening at %1 …").arg(bench_.name());
  case BenchLink::Standing::lost:
    return tr("The link is lost, all valves are let go. %1").arg(bench_.trouble());
  case BenchLink::Standing::open:
    break;
  }
  return works() ? tr("Linked to %1. A valve is open only while the bar is held; the rig shuts it %2 after the last "
                      "word.")
                       .arg(bench_.name(), desk_.shown(link::watchdog, Kind::time, 1))
                 : tr("Linked to %1, which only reads.").arg(bench_.name());
}

void BenchPage::show_valves() {
  QStringList wanted;
  if (works())
    for (const link::Circuit& c : bench_.hello()->circuits)
      wanted << QString::fromStdString(c.name);
  if (valves_->property("of").toStringList() == wanted) return;
  const QSignalBlocker quiet(valves_);
  valves_->setProperty("of", wanted);
  valves_->clear();
  for (const QString& name : wanted)
    for (const ValveOrder way : {ValveOrder::fill, ValveOrder::vent}) {
      auto* item = new QListWidgetItem(
          way == ValveOrder::fill ? tr("%1, air in").arg(name) : tr("%1, air out").arg(name), valves_);
      item->setData(Qt::UserRole, name);
      item->setData(Qt::UserRole + 1, static_cast<int>(way));
    }
  if (valves_->count() > 0) valves_->setCurrentRow(0);
}

void BenchPage::fill() {
  table_->verticalHeader()->setMinimumSectionSize(desk_.look().px(20));
  table_->verticalHeader()->setDefaultSectionSize(desk_.look().px(22));
  const bool open = bench_.standing() == BenchLink::Standing::open;
  link_->setText(open || bench_.standing() == BenchLink::Standing::opening ? tr("Unlink") : tr("Link"));
  drive_->setText(tr("Drive at %1").arg(desk_.shown(drives_at, Kind::road_speed, 0)));
  record_->setText(bench_.is_recording() ? tr("End recording") : tr("Record …"));
  record_->setEnabled(open);
  for (QPushButton* button : {controller_, drive_}) {
    button->setEnabled(works());
    if (works()) continue;
    const QSignalBlocker quiet(button);
    button->setChecked(false);
  }
  standing_->setText(standing());
  show_valves();
  const auto v = valve();
  bar_->show_words(!works()                   ? tr("No valve to be held")
                   : controller_->isChecked() ? tr("The controller has the valves")
                   : v                        ? tr("Hold to open: %1 (space bar)").arg(valves_->currentItem()->text())
                                              : tr("Choose a valve"),
                   works() && v.has_value() && !controller_->isChecked());
  show_state();
}

void BenchPage::show_state() {
  const Tokens& t = desk_.look().tokens();
  const link::State* s = bench_.state();
  const QColor ink = bench_.standing() == BenchLink::Standing::open ? t.ink : t.second;
  const auto way_at = [&](std::size_t corner) {
    for (std::size_t k = 0; bench_.hello() && k < bench_.hello()->circuits.size() && k < s->valves.size(); ++k) {
      const auto& corners = bench_.hello()->circuits[k].corners;
      if (std::find(corners.begin(), corners.end(), corner) != corners.end()) return way_name(s->valves[k]);
    }
    return QString("–");
  };
  table_->fill(s ? 5 : 0, [&](std::size_t i, ListTable::Row& row) {
    if (i < 4)
      row.words(link::corner_key(i), ink)
          .figure(s->height[i] ? desk_.shown(*s->height[i], Kind::length, 1) : "–", ink)
          .figure(s->pressure[i] ? desk_.shown(*s->pressure[i], Kind::pressure, 2) : "–", ink)
          .figure(way_at(i), ink);
    else
      row.words(tr("tank"), ink)
          .figure(s->speed ? desk_.shown(*s->speed, Kind::road_speed, 0) : QString(), ink)
          .figure(s->tank ? desk_.shown(*s->tank, Kind::pressure, 2) : "–", ink)
          .figure(s->compressor ? (*s->compressor ? tr("pump runs") : tr("pump still")) : "–", ink);
  });
  plot_->tick();
}

} // namespace mavrel::app
