#include "app/stages/proving/live_box.h"

#include "app/checks/check_edits.h"
#include "app/kit/hold_bar.h"
#include "app/kit/plain.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

using assess::HoldPoint;
using assess::ReadBy;

namespace {

constexpr double looked_for = 1.5; // s that readings are the mean of

bool is_timed(const assess::AskedFigure& f) {
  return f.read == ReadBy::fill || f.read == ReadBy::vent;
}

} // namespace

LiveBox::LiveBox(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), bench_(BenchLink::of(desk)), rig_(PlayedRig::of(desk)),
      play_(new QPushButton(tr("Play this car"), this)), below_(new QPushButton(this)),
      above_(new QPushButton(tr("Read now, reached from above"), this)), timed_(new QComboBox(this)),
      bar_(new HoldBar(desk, this)), says_(new PlainLabel(this)) {
  const int u = desk_.look().unit();
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(u / 2);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  says_->setObjectName("live_says");
  says_->setWordWrap(true);
  row->addWidget(says_, 1);
  play_->setObjectName("proving_play");
  play_->setToolTip(tr("Starts a rig that simulates the car that is open, and links to it"));
  row->addWidget(play_);
  for (auto [button, name, from] : {std::tuple(below_, "read_below", assess::Reached::below),
                                    std::tuple(above_, "read_above", assess::Reached::above)}) {
    button->setObjectName(name);
    row->addWidget(button);
    connect(button, &QPushButton::clicked, this, [this, from] { read(from); });
  }
  column->addLayout(row);
  auto* timing = new QHBoxLayout;
  timing->setSpacing(u);
  timed_->setObjectName("timed_figure");
  timed_->setAccessibleName(tr("Time that is taken"));
  timing->addWidget(timed_, 3);
  timing->addWidget(bar_, 2);
  column->addLayout(timing);
  connect(play_, &QPushButton::clicked, this, [this] {
    if (const auto wrong = rig_.play()) desk_.tell(*wrong);
  });
  connect(bar_, &HoldBar::pressed, this, &LiveBox::begin);
  connect(bar_, &HoldBar::released, this, &LiveBox::end_hold);
  connect(timed_, &QComboBox::currentIndexChanged, this, [this] {
    end_timing();
    refused_.clear();
    refresh();
  });
  connect(&bench_, &BenchLink::changed, this, &LiveBox::refresh);
  connect(&bench_, &BenchLink::told, this, [this] {
    if (watch_) look();
    if (brought_up_) bring();
    name_bar();
  });
}

const HoldPoint* LiveBox::point() const {
  return proof_of(desk_, id_.toStdString());
}

void LiveBox::show_check(const QString& id) {
  if (id != id_) {
    end_timing();
    id_ = id;
    refused_.clear();
    const QSignalBlocker quiet(timed_);
    timed_->clear();
  }
  refresh();
}

const link::Circuit* LiveBox::circuit_of(std::size_t corner) const {
  if (!bench_.hello()) return nullptr;
  for (const link::Circuit& c : bench_.hello()->circuits)
    if (std::find(c.corners.begin(), c.corners.end(), corner) != c.corners.end()) return &c;
  return nullptr;
}

void LiveBox::read(assess::Reached from) {
  const HoldPoint* p = point();
  const link::State* s = bench_.state();
  if (!p || !s) return;
  // The mean of a while: a car that was just touched rings.
  std::vector<assess::LiveLook> looks;
  for (const link::State& heard : bench_.heard())
    if (heard.time > s->time - looked_for) looks.push_back({heard.height, heard.pressure});
  const auto look = assess::mean_look(looks);
  if (!look) return desk_.tell(tr("It still moves: wait until it stands."));
  const auto found = assess::read_now(proving_of(desk_), *p, *look, from);
  if (found.empty())
    return desk_.tell(
        tr("Nothing of this check can be read as the car stands: bring it to the height that is asked for."));
  measure_figures(desk_, HoldPoint(*p), found);
  desk_.tell(tr("Figures read over the link: %1.").arg(found.size()));
}

const assess::AskedFigure* LiveBox::chosen() const {
  const HoldPoint* p = point();
  const std::size_t figure = timed_->currentData().toUInt();
  return p && figure < p->figures.size() && is_timed(p->figures[figure]) ? &p->figures[figure] : nullptr;
}

std::optional<double> LiveBox::height_of(const link::Circuit& circuit) const {
  const link::State* s = bench_.state();
  return s ? assess::mean_height({s->height, s->pressure}, circuit.corners) : std::nullopt;
}

void LiveBox::begin() {
  const assess::AskedFigure* f = chosen();
  const link::Circuit* circuit = f ? circuit_of(*f->corner) : nullptr;
  if (!circuit) return;
  const QString name = QString::fromStdString(circuit->name);
  refused_.clear();
  const auto height = height_of(*circuit);
  if (height && assess::stands_off(*height, f->from)) {
    brought_up_ = *height < f->from;
    says_->setText(tr("Brought to %1 …").arg(desk_.shown(f->from, Kind::length, 0)));
    return bench_.hold(name, *brought_up_ ? control::ValveOrder::fill : control::ValveOrder::vent);
  }
  figure_ = timed_->currentData().toUInt();
  watch_.emplace(f->from, f->to);
  look(); // as it stands with the valve still shut
  if (watch_) bench_.hold(name, f->read == ReadBy::fill ? control::ValveOrder::fill : control::ValveOrder::vent);
}

void LiveBox::bring() {
  const assess::AskedFigure* f = chosen();
  const link::Circuit* circuit = f ? circuit_of(*f->corner) : nullptr;
  const auto height = circuit ? height_of(*circuit) : std::nullopt;
  if (height && (*brought_up_ ? *height < f->from : *height > f->from)) return;
  end_timing();
  if (height)
    says_->setText(
        tr("It stands at %1: let it settle, then hold again to time it.").arg(desk_.shown(*height, Kind::length, 0)));
}

void LiveBox::end_hold() {
  const assess::AskedFigure* f = watch_ && watch_->running() ? chosen() : nullptr;
  const link::Circuit* circuit = f ? circuit_of(*f->corner) : nullptr;
  const auto height = circuit ? height_of(*circuit) : std::nullopt;
  if (height) {
    watch_->look(bench_.state()->time, *height, false);
    if (const auto& trouble = watch_->trouble()) return refuse(desk_.words_of(*trouble));
  }
  end_timing();
  refresh();
}

void LiveBox::end_timing() {
  if (bench_.is_held()) bench_.release();
  watch_.reset();
  brought_up_.reset();
}

void LiveBox::refuse(const QString& why) {
  refused_ = why;
  desk_.tell(why);
  end_timing();
  refresh();
}

void LiveBox::look() {
  const HoldPoint* p = point();
  const link::State* s = bench_.state();
  if (!p || !s || figure_ >= p->figures.size()) return;
  const assess::AskedFigure& f = p->figures[figure_];
  const link::Circuit* circuit = circuit_of(*f.corner);
  if (!circuit) return end_timing();
  const auto read = assess::mean_height({s->height, s->pressure}, circuit->corners);
  if (!read) return says_->setText(tr("The link tells no height of this corner."));
  const double height = *read;
  const auto place = static_cast<std::size_t>(circuit - bench_.hello()->circuits.data());
  const bool open = place < s->valves.size() && s->valves[place] != control::ValveOrder::shut;
  watch_->look(s->time, height, open);
  if (const auto& trouble = watch_->trouble()) return refuse(desk_.words_of(*trouble));
  if (const auto took = watch_->took()) {
    const HoldPoint held = *p;
    const QString name = desk_.words_of(f.name);
    end_timing();
    measure_figures(desk_, held, {{figure_, *took}});
    desk_.tell(tr("%1: %2").arg(name, desk_.shown(*took, Kind::time, 2)));
    return;
  }
  says_->setText(watch_->running() ? tr("Timed: %1").arg(desk_.shown(height, Kind::length, 1))
                                   : tr("The valve opens …"));
}

void LiveBox::refresh() {
  const HoldPoint* p = point();
  bool heights = false, pressures = false, times = false;
  if (p)
    for (const assess::AskedFigure& f : p->figures) {
      heights = heights || f.read == ReadBy::height;
      pressures = pressures || f.read == ReadBy::pressure;
      times = times || is_timed(f);
    }
  setVisible(heights || pressures || times);
  if (!isVisibleTo(parentWidget())) return;
  const bool open = bench_.standing() == BenchLink::Standing::open,
             works = open && bench_.hello() && !bench_.hello()->circuits.empty();
  says_->setFont(desk_.look().font(TextSize::small));
  play_->setVisible(!open);
  below_->setVisible(open && (heights || pressures));
  below_->setText(pressures ? tr("Read now, reached from below") : tr("Read now"));
  above_->setVisible(open && pressures);
  timed_->setVisible(open && times);
  bar_->setVisible(open && times);
  if (times && timed_->count() == 0) {
    const QSignalBlocker quiet(timed_);
    for (std::size_t i = 0; i < p->figures.size(); ++i)
      if (is_timed(p->figures[i]))
        timed_->addItem(desk_.words_of(p->figures[i].name), QVariant::fromValue<uint>(static_cast<uint>(i)));
  }
  name_bar();
  if (watch_ || brought_up_) return;
  if (!refused_.isEmpty() && works && times) return says_->setText(refused_);
  says_->setText(
      !open    ? tr("By hand, or over the bench link: no rig or logger is linked.")
      : !works ? tr("Linked to %1, which only reads.").arg(bench_.address())
      : times  ? tr("Linked. The valve opens while the bar is held, shuts by itself where the time ends, and what it "
                     "took is put down. Hands and feet clear.")
               : tr("Linked. What the car shows now is put down."));
}

void LiveBox::name_bar() {
  if (bar_->is_held() || !bar_->isVisibleTo(this)) return; // words don't change under the hand that holds
  const bool works =
      bench_.standing() == BenchLink::Standing::open && bench_.hello() && !bench_.hello()->circuits.empty();
  const assess::AskedFigure* f = chosen();
  const link::Circuit* circuit = f ? circuit_of(*f->corner) : nullptr;
  const auto height = circuit ? height_of(*circuit) : std::nullopt;
  const QString is = !works ? tr("No valve to be held")
                     : height && assess::stands_off(*height, f->from)
                         ? tr("Hold to bring it to %1 first").arg(desk_.shown(f->from, Kind::length, 0))
                         : tr("Hold to open and time (space bar)");
  if (is != bar_->accessibleName() || works != bar_->isEnabled()) bar_->show_words(is, works);
}

} // namespace mavrel::app
