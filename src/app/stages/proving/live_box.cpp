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
  return f.read == ReadBy::fill || f.read == ReadBy::vent || f.read == ReadBy::together;
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
    if (const auto wrong = rig_.play()) desk_.refuse(*wrong);
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
    if (!watches_.empty()) look();
    if (!brought_.empty()) bring();
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

std::vector<LiveBox::Part> LiveBox::parts_of(const assess::AskedFigure& figure) const {
  std::vector<Part> out;
  if (!bench_.hello()) return out;
  for (const link::Circuit& c : bench_.hello()->circuits) {
    if (c.corners.empty()) continue;
    if (figure.read == ReadBy::together) {
      const std::size_t end = c.corners.front() < 2 ? 0 : 1;
      out.push_back({&c, figure.from_ends[end], figure.to_ends[end]});
    } else if (std::find(c.corners.begin(), c.corners.end(), *figure.corner) != c.corners.end()) {
      out.push_back({&c, figure.from, figure.to});
    }
  }
  return out;
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

bool LiveBox::is_open(const link::Circuit& circuit) const {
  const link::State* s = bench_.state();
  const auto place = static_cast<std::size_t>(&circuit - bench_.hello()->circuits.data());
  return s && place < s->valves.size() && s->valves[place] != control::ValveOrder::shut;
}

std::vector<LiveBox::Part> LiveBox::off(const std::vector<Part>& parts) const {
  std::vector<Part> out;
  for (const Part& part : parts)
    if (const auto height = height_of(*part.circuit); height && assess::stands_off(*height, part.from))
      out.push_back(part);
  return out;
}

void LiveBox::begin() {
  const assess::AskedFigure* f = chosen();
  const auto parts = f ? parts_of(*f) : std::vector<Part>();
  if (parts.empty()) return;
  refused_.clear();
  std::vector<std::pair<QString, control::ValveOrder>> valves;
  if (const auto away = off(parts); !away.empty()) {
    for (const Part& part : away) {
      const bool up = *height_of(*part.circuit) < part.from;
      brought_.emplace_back(part.name(), up);
      valves.emplace_back(part.name(), up ? control::ValveOrder::fill : control::ValveOrder::vent);
    }
    says_->setText(tr("Brought to %1 …").arg(start_of(away)));
    return bench_.hold_all(valves);
  }
  figure_ = timed_->currentData().toUInt();
  using Ends = assess::Stopwatch::Ends;
  for (const Part& part : parts) {
    watches_.emplace_back(part.from, part.to, f->read == ReadBy::together ? Ends::there : Ends::as_far);
    valves.emplace_back(part.name(), part.to > part.from ? control::ValveOrder::fill : control::ValveOrder::vent);
  }
  look(); // as they stand with the valves still shut
  if (!watches_.empty()) bench_.hold_all(valves);
}

QString LiveBox::start_of(const std::vector<Part>& parts) const {
  QStringList heights;
  for (const Part& part : parts)
    heights << desk_.shown(part.from, Kind::length, 0);
  heights.removeDuplicates();
  return heights.join(tr(" and "));
}

void LiveBox::bring() {
  const assess::AskedFigure* f = chosen();
  const auto parts = f ? parts_of(*f) : std::vector<Part>();
  for (const Part& part : parts) {
    const auto it =
        std::find_if(brought_.begin(), brought_.end(), [&](const auto& one) { return one.first == part.name(); });
    const auto height = height_of(*part.circuit);
    if (it == brought_.end() || !height) continue;
    // A bag that lies on its stop comes no further.
    if (it->second ? *height < part.from - assess::on_its_stop : *height > part.from + assess::on_its_stop) continue;
    brought_.erase(it);
    bench_.release(part.name());
  }
  if (!brought_.empty()) return;
  end_timing();
  says_->setText(tr("It stands at %1: let it settle, then hold again to time it.").arg(start_of(parts)));
}

void LiveBox::end_hold() {
  const bool timing = std::any_of(watches_.begin(), watches_.end(), [](const auto& w) { return w.running(); });
  const assess::AskedFigure* f = timing ? chosen() : nullptr;
  const auto parts = f ? parts_of(*f) : std::vector<Part>();
  for (std::size_t i = 0; i < std::min(parts.size(), watches_.size()); ++i)
    if (const auto height = height_of(*parts[i].circuit)) {
      watches_[i].look(bench_.state()->time, *height, false);
      if (const auto trouble = watches_[i].trouble()) return refuse(desk_.words_of(*trouble));
    }
  end_timing();
  refresh();
}

void LiveBox::end_timing() {
  if (bench_.is_held()) bench_.release();
  watches_.clear();
  brought_.clear();
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
  const auto parts = parts_of(p->figures[figure_]);
  if (parts.size() != watches_.size()) return end_timing();
  QStringList heights;
  bool running = false;
  for (std::size_t i = 0; i < parts.size(); ++i) {
    const auto height = height_of(*parts[i].circuit);
    if (!height) return says_->setText(tr("The link tells no height of this corner."));
    const bool was_there = watches_[i].took().has_value();
    watches_[i].look(s->time, *height, is_open(*parts[i].circuit));
    if (const auto trouble = watches_[i].trouble()) return refuse(desk_.words_of(*trouble));
    if (watches_[i].took() && !was_there) bench_.release(parts[i].name()); // it is there; the others go on
    if (watches_.empty()) return;                                          // the link went with it
    heights << desk_.shown(*height, Kind::length, 1);
    running = running || watches_[i].running();
  }
  if (const auto took = assess::took_together(watches_)) {
    const HoldPoint held = *p;
    const QString name = desk_.words_of(p->figures[figure_].name);
    end_timing();
    measure_figures(desk_, held, {{figure_, *took}});
    desk_.tell(tr("%1: %2").arg(name, desk_.shown(*took, Kind::time, 2)));
    return;
  }
  says_->setText(running ? tr("Timed: %1").arg(heights.join(" · ")) : tr("The valve opens …"));
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
  if (!watches_.empty() || !brought_.empty()) return;
  if (!refused_.isEmpty() && works && times) return says_->setText(refused_);
  says_->setText(
      !open    ? tr("By hand, or over the bench link: no rig or logger is linked.")
      : !works ? tr("Linked to %1, which only reads.").arg(bench_.name())
      : times  ? tr("Linked. The valve opens while the bar is held, shuts by itself where the time ends, and what it "
                     "took is put down. Hands and feet clear.")
               : tr("Linked. What the car shows now is put down."));
}

void LiveBox::name_bar() {
  if (bar_->is_held() || !bar_->isVisibleTo(this)) return; // words don't change under the hand that holds
  const bool works =
      bench_.standing() == BenchLink::Standing::open && bench_.hello() && !bench_.hello()->circuits.empty();
  const assess::AskedFigure* f = chosen();
  const auto away = works && f ? off(parts_of(*f)) : std::vector<Part>();
  const QString is = !works          ? tr("No valve to be held")
                     : !away.empty() ? tr("Hold to bring it to %1 first").arg(start_of(away))
                                     : tr("Hold to open and time (space bar)");
  if (is != bar_->accessibleName() || works != bar_->isEnabled()) bar_->show_words(is, works);
}

} // namespace mavrel::app
