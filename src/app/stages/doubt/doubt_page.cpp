#include "app/stages/doubt/doubt_page.h"

#include "app/desk/sureness.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/stages/doubt/edits.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

using assess::DoubtAnswer;

ToolsPanel::ToolsPanel(Desk& desk, QWidget* parent) : RowPanel(desk, parent) {
  setObjectName("tools_panel");
  start();
}

void ToolsPanel::build_rows() {
  const struct {
    const char* path;
    QString caption;
  } rows[] = {{"doubts.tape_m", tr("tape")},       {"doubts.calliper_m", tr("calliper")},
              {"doubts.point_m", tr("joint")},     {"doubts.angle_rad", tr("angle gauge")},
              {"doubts.scale_kg", tr("scale")},    {"doubts.scale_shared", tr("scale, all")},
              {"doubts.level_m", tr("floor")},     {"doubts.level_shared_m", tr("level, all")},
              {"doubts.ratio", tr("ratio")},       {"doubts.gauge_pa", tr("gauge")},
              {"doubts.card", tr("bag card")},     {"doubts.part", tr("part’s card")},
              {"doubts.estimate", tr("estimate")}, {"doubts.other_car", tr("other car ×")}};
  int n = 0;
  for (const auto& row : rows) {
    auto* field = new Field(desk(), row.path, row.caption, grid()->parentWidget());
    grid()->addWidget(field, n / 7, n % 7);
    ++n;
  }
}

DoubtPage::DoubtPage(Desk& desk, QWidget* parent)
    : StagePage(desk, parent), tool_(new QComboBox(this)), bands_(new QCheckBox(tr("bands and ±"), this)) {
  auto* head = row(stage_column());
  summary_ = words("doubt_summary", TextSize::normal);
  head->addWidget(summary_, 1);
  bands_->setObjectName("doubt_bands");
  bands_->setToolTip(tr("Where the windows’ edges lie in nine cases of ten, and ± at the figures of all stages"));
  head->addWidget(bands_);
  trouble_ = small_words("doubt_trouble");
  column()->addWidget(trouble_);
  answers_ = table("doubt_answers", tr("How sure each answer is"),
                   {tr("answer"), tr("figure"), tr("nine in ten lie in"), tr("stands")});
  column()->addWidget(answers_, 4);
  auto* middle = row(column());
  again_ = words("doubt_again", TextSize::normal);
  middle->addWidget(again_, 1);
  tool_->setObjectName("taken_with");
  tool_->setAccessibleName(tr("What the reading was taken with"));
  tool_->setToolTip(tr("What the reading was taken with; of a sheet, all its rows"));
  middle->addWidget(tool_);
  go_ = button(middle, tr("Take it again"), "measure_again", [this] { go_to_reading(); });
  walk_ = button(middle, tr("Walk them by tape"), "walk_again", [this] { walk(); });
  walk_->setToolTip(tr("In tape mode, one after the other; + in front of a figure adds a reading"));
  carried_ = table("doubt_carried", tr("What to measure again"),
                   {tr("reading"), tr("as it is"), tr("taken with"), tr("carries"), tr("once more wins"), tr("takes")});
  column()->addWidget(carried_, 3);
  column()->addWidget(quiet(tr("One standard deviation of one reading, by tool:")));
  column()->addWidget(new ToolsPanel(desk_, this));
  for (ListTable* table : {answers_, carried_})
    table->verticalHeader()->setDefaultSectionSize(desk_.look().px(21));
  Sureness& sure = Sureness::of(desk_);
  connect(&sure, &Sureness::changed, this, &DoubtPage::refresh);
  connect(&sure, &Sureness::moved, this, &DoubtPage::say_summary);
  connect(tool_, &QComboBox::activated, this, &DoubtPage::take_with);
  connect(carried_, &ListTable::chose, this, &DoubtPage::show_tools);
  connect(carried_, &ListTable::picked, this, &DoubtPage::go_to_reading);
  connect(bands_, &QCheckBox::toggled, this, [this](bool on) { Sureness::of(desk_).set_wanted(on); });
  connect(answers_, &ListTable::chose, this, &DoubtPage::look_at);
}

void DoubtPage::look_at(std::size_t r) {
  const assess::Doubt* now = Sureness::of(desk_).doubt();
  if (!now || r >= shown_.size()) return;
  held_ = now->answers[shown_[r]].name;
  fill_carried();
}

bool DoubtPage::owns(const QString& path) const {
  return path.startsWith("doubts.");
}

const assess::DoubtInput* DoubtPage::held_reading() const {
  const assess::Doubt* now = Sureness::of(desk_).doubt();
  const auto row = carried_->held();
  if (!now || !row || *row >= read_.size()) return nullptr;
  return &now->inputs[read_[*row]];
}

void DoubtPage::show_tools() {
  tool_->clear();
  const assess::DoubtInput* in = held_reading();
  tool_->setEnabled(in);
  if (!in) return;
  for (const assess::Tool tool : assess::tools_for(in->usual, in->kind)) {
    tool_->addItem(tr(assess::tool_name(tool)), static_cast<int>(tool));
    if (tool == in->tool) tool_->setCurrentIndex(tool_->count() - 1);
  }
}

void DoubtPage::take_with(int index) {
  const assess::DoubtInput* in = held_reading();
  if (!in || index < 0) return;
  const auto tool = static_cast<assess::Tool>(tool_->itemData(index).toInt());
  if (tool != in->tool) set_tool(desk_, assess::DoubtInput(*in), tool);
}

void DoubtPage::go_to_reading() {
  const assess::DoubtInput* held = held_reading();
  if (!held) return;
  const assess::DoubtInput in = *held;
  if (in.what == assess::Doubted::bag_card || in.what == assess::Doubted::bag_volume ||
      in.what == assess::Doubted::bag_height)
    return desk_.tell(tr("That is the bag’s card: a bench test on Bags makes another."));
  if (in.what == assess::Doubted::curvature || in.what == assess::Doubted::damper_curvature)
    return emit desk_.went_to("swing", QString::fromStdString(in.path));
  if (in.what == assess::Doubted::tyre_size)
    return desk_.tell(tr("No tape tells it before they are fitted: turn the wheels by hand then, and look all round."));
  if (in.what != assess::Doubted::reading && in.what != assess::Doubted::stand_in)
    return desk_.tell(tr("That is what the part’s card says: a move timed on Proving tells it of this car."));
  const QString path = QString::fromStdString(in.path);
  const bool swing = path.contains(".cycle.") || path.contains(".points.") || path.contains(".cycle_right.");
  emit desk_.went_to(swing                          ? "swing"
                     : path.startsWith("variants.") ? "bags"
                     : path.contains(".obstacles.") || path.contains(".underside.") || path.contains(".thickness.")
                         ? "clearance"
                         : "car_in",
                     path);
}

void DoubtPage::walk() {
  const assess::Doubt* now = Sureness::of(desk_).doubt();
  const DoubtAnswer* answer = now ? now->find(held_) : nullptr;
  if (!answer) return;
  // What wins most for a minute's work first.
  auto carried = answer->carried_by;
  std::stable_sort(carried.begin(), carried.end(),
                   [](const auto& a, const auto& b) { return a.per_minute > b.per_minute; });
  QStringList places;
  for (const auto& c : carried)
    if (c.would_win > 0.002 && (now->inputs[c.input].what == assess::Doubted::reading ||
                                now->inputs[c.input].what == assess::Doubted::stand_in))
      places << QString::fromStdString(now->inputs[c.input].path);
  emit desk_.went_to("car_in", "tape:" + places.join(';'));
}

void DoubtPage::fill() {
  const Sureness& sure = Sureness::of(desk_);
  const assess::Doubt* now = sure.doubt();
  {
    const QSignalBlocker quiet(bands_);
    bands_->setChecked(sure.is_wanted());
  }
  say_summary();
  QStringList said;
  if (now)
    for (const Message& m : now->trouble)
      if (said.size() < 3) said << "▲ " + desk_.words_of(m);
  trouble_->setText(said.join(" "));
  trouble_->setVisible(!said.isEmpty());
  fill_answers();
  fill_carried();
}

void DoubtPage::say_summary() {
  const Sureness& sure = Sureness::of(desk_);
  if (const assess::Doubt* now = sure.doubt())
    summary_->setText(
        tr("%1 readings and cards, each with what it may be off by; the car worked out %2 times with them so.")
            .arg(now->inputs.size())
            .arg(now->draws));
  else if (sure.is_wanted())
    summary_->setText(tr("The car is worked out again and again … %1").arg(desk_.shown(sure.done(), Kind::share, 0)));
  else
    summary_->setText(tr("Tick “bands and ±” to have it worked out."));
}

/// How it stands, and in which colour; nothing where there is nothing to say of it.
std::pair<QString, QColor> DoubtPage::stands(const DoubtAnswer& a) const {
  const Tokens& t = desk_.look().tokens();
  const auto ink = [&](double odds) {
    return odds >= assess::safe_odds ? t.good : odds <= assess::out_odds ? t.stop : t.caution;
  };
  // Never certain: so many draws tell no more.
  const auto share = [&](double odds) { return desk_.shown(std::clamp(odds, 0.01, 0.99), Kind::share, 0); };
  if (a.odds_inside) {
    const double odds = *a.odds_inside;
    return {odds >= assess::safe_odds  ? tr("✓ safe, %1").arg(share(odds))
            : odds <= assess::out_odds ? tr("■ out, %1").arg(share(odds))
                                       : tr("▲ doubtful, %1").arg(share(odds)),
            ink(odds)};
  }
  if (a.odds_met) {
    const bool time = a.wanted_most.has_value();
    const double odds = *a.odds_met;
    const QString so = odds >= assess::safe_odds  ? (time ? tr("✓ quick enough, %1") : tr("✓ clears, %1"))
                       : odds <= assess::out_odds ? (time ? tr("■ too slow, %1") : tr("■ touches, %1"))
                                                  : (time ? tr("▲ quick enough, %1") : tr("▲ clears, %1"));
    return {so.arg(share(odds <= assess::out_odds ? 1 - odds : odds)), ink(odds)};
  }
  if (a.vanished >= 0.005 && a.name.find(".limit.") == std::string::npos)
    return {tr("gone in %1").arg(desk_.shown(a.vanished, Kind::share, 0)), t.caution};
  return {QString(), t.second};
}

void DoubtPage::fill_answers() {
  const Tokens& t = desk_.look().tokens();
  const assess::Doubt* now = Sureness::of(desk_).doubt();
  shown_.clear();
  for (std::size_t a = 0; now && a < now->answers.size(); ++a)
    if (now->answers[a].value || now->answers[a].vanished < 1) shown_.push_back(a);
  answers_->fill(shown_.size(), [&](std::size_t r, ListTable::Row& row) {
    const DoubtAnswer& a = now->answers[shown_[r]];
    const auto [so, ink] = stands(a);
    row.words(desk_.words_of(a.words), t.ink)
        .figure(a.value ? shown_with_doubt(desk_, *a.value, a.sd, a.kind) : tr("none"), t.ink)
        .figure(a.vanished < 1 && a.sd > 0
                    ? tr("%1 to %2")
                          .arg(shown_as_sure(desk_, a.p05, a.sd, a.kind), shown_as_sure(desk_, a.p95, a.sd, a.kind))
                    : QString(),
                t.second)
        .figure(so, ink);
    if (a.name == held_) row.hold();
  });
  if (const auto held = answers_->held(); held && *held < shown_.size()) held_ = now->answers[shown_[*held]].name;
}

void DoubtPage::fill_carried() {
  const Tokens& t = desk_.look().tokens();
  const assess::Doubt* now = Sureness::of(desk_).doubt();
  const DoubtAnswer* answer = now ? now->find(held_) : nullptr;
  read_.clear();
  const std::size_t rows = answer ? std::min<std::size_t>(answer->carried_by.size(), 12) : 0;
  const DoubtAnswer::Carried* best = nullptr;
  carried_->fill(rows, [&](std::size_t r, ListTable::Row& row) {
    const auto& c = answer->carried_by[r];
    const assess::DoubtInput& in = now->inputs[c.input];
    read_.push_back(c.input);
    if (!best || c.per_minute > best->per_minute) best = &c;
    row.words(desk_.words_of(in.name), t.ink)
        .figure(shown_with_doubt(desk_, in.value, in.sd(), in.kind), t.second)
        .figure(tr(assess::tool_name(in.tool)), t.second)
        .figure(QString(static_cast<int>(std::lround(c.share * 10)), QChar(0x2588)) + " " +
                    desk_.shown(c.share, Kind::share, 0),
                t.ink)
        .figure(c.would_win > 0.002 ? desk_.shown(c.would_win, Kind::share, 0) : tr("nothing"), t.second)
        .figure(tr("%1 min").arg(in.minutes, 0, 'f', 0), t.second);
  });
  go_->setEnabled(rows > 0);
  walk_->setEnabled(rows > 0);
  if (!answer)
    again_->setText(QString());
  else if (!best || best->would_win <= 0.002)
    again_->setText(
        tr("%1: no reading that could be taken again would make it surer.").arg(desk_.words_of(answer->words)));
  else
    again_->setText(tr("%1: for a minute’s work most is won by taking again: %2.")
                        .arg(desk_.words_of(answer->words), desk_.words_of(now->inputs[best->input].name)));
  show_tools();
}

} // namespace mavrel::app
