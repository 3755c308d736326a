#include "app/stages/leveling/bench_page.h"

#include "app/desk/desk.h"
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

LivePlot::LivePlot(Desk& desk, Bench& bench, QWidget* parent) : HeightPlot(desk, parent), bench_(bench) {
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
  paint_axis(painter);
  const QRectF p = plot();
  painter.fillRect(p, t.panel);
  painter.setPen(QPen(t.rule, 1));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(p);
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
    if (!line.isEmpty()) line << QPointF(p.right(), line.back().y());
    painter.drawPolyline(line);
  }
  painter.restore();
  // Names at the right, apart from one another.
  struct Name {
    double y;
    std::size_t corner;
  };
  std::vector<Name> names;
  for (std::size_t c = 0; c < 4; ++c)
    if (ends[c]) names.push_back({s.clamped_y(*ends[c]), c});
  std::sort(names.begin(), names.end(), [](const Name& a, const Name& b) { return a.y < b.y; });
  painter.setFont(look.font(TextSize::small, true));
  double last = -1e9;
  for (const Name& name : names) {
    const double at = std::max(name.y, last + look.px(13));
    last = at;
    painter.setPen(t.end(name.corner < 2 ? End::front : End::rear));
    draw_line(painter, {p.right() - look.px(26), at - look.px(14), double(look.px(24)), double(look.px(13))},
              Qt::AlignRight | Qt::AlignBottom, link::corner_key(name.corner));
  }
  const double head = p.top() - look.px(30);
  painter.setPen(t.ink);
  painter.setFont(look.font(TextSize::normal, true));
  draw_line(painter, {p.left(), head, p.width(), double(look.px(18))}, Qt::AlignLeft | Qt::AlignVCenter,
            bench_.hello() && !bench_.hello()->name.empty() ? QString::fromStdString(bench_.hello()->name)
                                                            : bench_.address());
}

void LivePlot::paint_figures(QPainter&, double) const {}

// ---- the page

BenchPage::BenchPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), bench_(Bench::of(desk)), rig_(PlayedRig::of(desk)), address_(new QLineEdit(this)),
      link_(new QPushButton(this)), play_(new QPushButton(tr("Play this car"), this)),
      controller_(new QPushButton(tr("Controller"), this)), drive_(new QPushButton(this)),
      record_(new QPushButton(this)), standing_(new QLabel(this)), caution_(new QLabel(this)),
      table_(list_table("readings", tr("Readings"), {tr("corner"), tr("height"), tr("pressure"), tr("valve")}, this)),
      valves_(new QListWidget(this)), bar_(new HoldBar(desk, this)), plot_(new LivePlot(desk, bench_, this)),
      beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  auto* row = new QHBoxLayout;
  row->setSpacing(u / 2);
  address_->setObjectName("bench_address");
  address_->setAccessibleName(tr("Socket or serial port"));
  address_->setPlaceholderText(tr("a socket's path, or a serial port such as ttyUSB0"));
  row->addWidget(address_, 3);
  link_->setObjectName("bench_link");
  row->addWidget(link_);
  play_->setObjectName("bench_play");
  play_->setToolTip(tr("Starts a rig that simulates the car that is open, and links to it"));
  row->addWidget(play_);
  controller_->setObjectName("bench_controller");
  controller_->setCheckable(true);
  row->addWidget(controller_);
  drive_->setObjectName("bench_drive");
  drive_->setCheckable(true);
  row->addWidget(drive_);
  record_->setObjectName("bench_record");
  row->addWidget(record_);
  row->addSpacing(u);
  layout->addLayout(row);
  standing_->setObjectName("bench_standing");
  standing_->setWordWrap(true);
  layout->addWidget(standing_);
  auto* above = new QHBoxLayout;
  above->setSpacing(u);
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
  above->addSpacing(u);
  layout->addLayout(above);
  caution_->setWordWrap(true);
  caution_->setProperty("quiet", true);
  caution_->setText(tr("Hands and feet clear before a valve is opened. Never under a car held by air: stands."));
  layout->addWidget(caution_);
  auto* below = new QHBoxLayout;
  below->setSpacing(0);
  below->addWidget(plot_, 1);
  below->addWidget(beside_);
  layout->addLayout(below, 1);
  connect(plot_, &LivePlot::band_moved, this, &BenchPage::band_moved);
  connect(link_, &QPushButton::clicked, this, [this] {
    if (bench_.standing() == Bench::Standing::open || bench_.standing() == Bench::Standing::opening) {
      bench_.shut();
      rig_.stop();
    } else {
      bench_.open(address_->text());
    }
  });
  connect(address_, &QLineEdit::returnPressed, this, [this] { bench_.open(address_->text()); });
  connect(play_, &QPushButton::clicked, this, &BenchPage::play);
  connect(&rig_, &PlayedRig::said, standing_, &QLabel::setText);
  connect(&bench_, &Bench::changed, this, [this] {
    if (bench_.standing() == Bench::Standing::opening) address_->setText(bench_.address());
  });
  connect(controller_, &QPushButton::toggled, this, [this](bool on) {
    bench_.set_controller(on);
    refresh(); // the bar is nobody's while it has the valves
  });
  connect(drive_, &QPushButton::toggled, this, [this](bool on) { bench_.drive(on ? drives_at : 0); });
  connect(record_, &QPushButton::clicked, this, [this] {
    if (bench_.is_recording()) {
      const int rows = bench_.recorded();
      bench_.stop_recording();
      return desk_.tell(tr("%n rows recorded.", nullptr, rows));
    }
    const QString to = QFileDialog::getSaveFileName(this, tr("Record to"), {}, tr("CSV (*.csv)"));
    if (!to.isEmpty()) record(to);
  });
  connect(bar_, &HoldBar::pressed, this, [this] {
    if (const auto v = valve()) bench_.hold(v->first, v->second);
  });
  connect(bar_, &HoldBar::released, this, [this] { bench_.release(); });
  connect(valves_, &QListWidget::currentRowChanged, this, [this] {
    bench_.release();
    refresh();
  });
  connect(&bench_, &Bench::changed, this, &BenchPage::refresh);
  // However fast they come, they are shown no faster than anybody sees.
  shown_.setSingleShot(true);
  shown_.setInterval(40);
  connect(&shown_, &QTimer::timeout, this, &BenchPage::show_state);
  connect(&bench_, &Bench::told, this, [this] {
    if (!shown_.isActive()) shown_.start();
  });
  connect(&bench_, &Bench::noted, this, [this](const QString& text) { desk_.tell(tr("Bench: %1").arg(text)); });
  connect(&desk_, &Desk::restyled, this, &BenchPage::refresh);
  refresh();
}

std::pair<int, int> BenchPage::band() const {
  const auto [top, bottom] = plot_->band();
  const int y = plot_->mapTo(this, QPoint(0, 0)).y();
  return {y + top, y + bottom};
}

void BenchPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

std::optional<std::pair<QString, ValveOrder>> BenchPage::valve() const {
  const auto* item = valves_->currentItem();
  if (!item) return std::nullopt;
  return std::pair{item->data(Qt::UserRole).toString(), static_cast<ValveOrder>(item->data(Qt::UserRole + 1).toInt())};
}

void BenchPage::play() {
  if (const auto wrong = rig_.play()) desk_.tell(*wrong);
}

void BenchPage::record(const QString& file) {
  if (desk_.refuses_to_write(file.toStdString())) return;
  if (const auto wrong = bench_.record(file)) desk_.tell(*wrong);
}

void BenchPage::refresh() {
  const Look& look = desk_.look();
  for (QLabel* label : {standing_, caution_})
    label->setFont(look.font(TextSize::small));
  table_->setFont(look.font(TextSize::small));
  table_->verticalHeader()->setMinimumSectionSize(look.px(20));
  table_->verticalHeader()->setDefaultSectionSize(look.px(22));
  const bool open = bench_.standing() == Bench::Standing::open;
  link_->setText(open || bench_.standing() == Bench::Standing::opening ? tr("Unlink") : tr("Link"));
  drive_->setText(tr("Drive at %1").arg(desk_.shown(drives_at, Kind::road_speed, 0)));
  record_->setText(bench_.is_recording() ? tr("End recording") : tr("Record …"));
  record_->setEnabled(open);
  const auto& hello = bench_.hello();
  const bool works = open && hello && !hello->circuits.empty();
  for (QPushButton* button : {controller_, drive_}) {
    button->setEnabled(works);
    if (!works) {
      const QSignalBlocker quiet(button);
      button->setChecked(false);
    }
  }
  switch (bench_.standing()) {
  case Bench::Standing::shut:
    standing_->setText(tr("Not linked. A logger of your own may speak the same lines; they are promised in "
                          "docs/formats/bench-link.md."));
    break;
  case Bench::Standing::opening:
    standing_->setText(tr("Listening at %1 …").arg(bench_.address()));
    break;
  case Bench::Standing::open:
    standing_->setText(works ? tr("Linked to %1. A valve is open only while the bar is held; the rig shuts it %2 after "
                                  "the last word.")
                                   .arg(bench_.address(), desk_.shown(link::watchdog, Kind::time, 1))
                             : tr("Linked to %1, which only reads.").arg(bench_.address()));
    break;
  case Bench::Standing::lost:
    standing_->setText(tr("The link is lost, all valves are let go. %1").arg(bench_.trouble()));
    break;
  }
  QStringList wanted;
  if (works)
    for (const link::Circuit& c : hello->circuits)
      wanted << QString::fromStdString(c.name);
  if (valves_->property("of").toStringList() != wanted) {
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
  const auto v = valve();
  bar_->show_words(!works                     ? tr("No valve to be held")
                   : controller_->isChecked() ? tr("The controller has the valves")
                   : v                        ? tr("Hold to open: %1 (space bar)").arg(valves_->currentItem()->text())
                                              : tr("Choose a valve"),
                   works && v.has_value() && !controller_->isChecked());
  show_state();
}

void BenchPage::show_state() {
  const Tokens& t = desk_.look().tokens();
  const link::State* s = bench_.state();
  const bool live = s && bench_.standing() == Bench::Standing::open;
  table_->setRowCount(s ? 5 : 0);
  if (s) {
    const QColor ink = live ? t.ink : t.second;
    for (int c = 0; c < 4; ++c) {
      const auto i = static_cast<std::size_t>(c);
      put_cell(table_, c, 0, link::corner_key(i), ink);
      put_cell(table_, c, 1, s->height[i] ? desk_.shown(*s->height[i], Kind::length, 1) : "–", ink);
      put_cell(table_, c, 2, s->pressure[i] ? desk_.shown(*s->pressure[i], Kind::pressure, 2) : "–", ink);
      QString way = "–";
      for (std::size_t k = 0; bench_.hello() && k < bench_.hello()->circuits.size() && k < s->valves.size(); ++k) {
        const auto& corners = bench_.hello()->circuits[k].corners;
        if (std::find(corners.begin(), corners.end(), i) != corners.end()) way = way_name(s->valves[k]);
      }
      put_cell(table_, c, 3, way, ink);
    }
    put_cell(table_, 4, 0, tr("tank"), ink);
    put_cell(table_, 4, 1, s->speed ? desk_.shown(*s->speed, Kind::road_speed, 0) : QString(), ink);
    put_cell(table_, 4, 2, s->tank ? desk_.shown(*s->tank, Kind::pressure, 2) : "–", ink);
    put_cell(table_, 4, 3, s->compressor ? (*s->compressor ? tr("pump runs") : tr("pump still")) : "–", ink);
  }
  plot_->tick();
}

} // namespace mavrel::app
