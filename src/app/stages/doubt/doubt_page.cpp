#include "app/stages/doubt/doubt_page.h"

#include "app/desk/sureness.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"
#include "app/stages/doubt/edits.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
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
    field->setMinimumWidth(desk().look().px(48));
    grid()->addWidget(field, n / 7, n % 7);
    ++n;
  }
}

DoubtPage::DoubtPage(Desk& desk, QWidget* parent)
    : StagePage(parent), desk_(desk), summary_(new QLabel(this)), trouble_(new QLabel(this)), again_(new QLabel(this)),
      answers_(list_table("doubt_answers", tr("How sure each answer is"),
                          {tr("answer"), tr("figure"), tr("nine in ten lie in"), tr("stands")}, this)),
      carried_(list_table(
          "doubt_carried", tr("What to measure again"),
          {tr("reading"), tr("as it is"), tr("taken with"), tr("carries"), tr("once more wins"), tr("takes")}, this)),
      tool_(new QComboBox(this)), go_(new QPushButton(tr("Take it again"), this)),
      walk_(new QPushButton(tr("Walk them by tape"), this)), bands_(new QCheckBox(tr("bands and ±"), this)),
      beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(2 * u, u, 0, u);
  row->setSpacing(0);
  auto* both = new QVBoxLayout;
  both->setSpacing(u);
  row->addLayout(both, 1);
  row->addWidget(beside_);
  auto* head = new QHBoxLayout;
  summary_->setObjectName("doubt_summary");
  summary_->setWordWrap(true);
  head->addWidget(summary_, 1);
  bands_->setObjectName("doubt_bands");
  bands_->setToolTip(tr("Where the windows’ edges lie in nine cases of ten, and ± at the figures of all stages"));
  head->addWidget(bands_);
  both->addLayout(head);
  trouble_->setWordWrap(true);
  both->addWidget(trouble_);
  both->addWidget(answers_, 4);
  auto* middle = new QHBoxLayout;
  again_->setWordWrap(true);
  middle->addWidget(again_, 1);
  tool_->setObjectName("taken_with");
  tool_->setAccessibleName(tr("What the reading was taken with"));
  tool_->setToolTip(tr("What the reading was taken with; of a sheet, all its rows"));
  middle->addWidget(tool_);
  go_->setObjectName("measure_again");
  middle->addWidget(go_);
  walk_->setObjectName("walk_again");
  walk_->setToolTip(tr("In tape mode, one after the other; + in front of a figure adds a reading"));
  middle->addWidget(walk_);
  both->addLayout(middle);
  both->addWidget(carried_, 3);
  auto* tools = new QLabel(tr("One standard deviation of one reading, by tool:"), this);
  tools->setProperty("quiet", true);
  both->addWidget(tools);
  both->addWidget(new ToolsPanel(desk_, this));
  for (QTableWidget* table : {answers_, carried_}) {
    table->setWordWrap(false);
    table->verticalHeader()->setDefaultSectionSize(desk_.look().px(21));
  }
  Sureness& sure = Sureness::of(desk_);
  connect(&sure, &Sureness::changed, this, &DoubtPage::refresh);
  connect(&sure, &Sureness::moved, this, &DoubtPage::say_summary);
  connect(tool_, &QComboBox::activated, this, &DoubtPage::take_with);
  connect(carried_, &QTableWidget::currentCellChanged, this, &DoubtPage::show_tools);
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, &DoubtPage::refresh);
  connect(bands_, &QCheckBox::toggled, this, [this](bool on) { Sureness::of(desk_).set_wanted(on); });
  connect(answers_, &QTableWidget::currentCellChanged, this, [this](int r) {
    const assess::Doubt* now = Sureness::of(desk_).doubt();
    if (!now || r < 0 || static_cast<std::size_t>(r) >= shown_.size()) return;
    held_ = now->answers[shown_[static_cast<std::size_t>(r)]].name;
    fill_carried();
  });
  connect(go_, &QPushButton::clicked, this, &DoubtPage::go_to_reading);
  connect(walk_, &QPushButton::clicked, this, &DoubtPage::walk);
  connect(carried_, &QTableWidget::cellActivated, this, &DoubtPage::go_to_reading);
}

void DoubtPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

bool DoubtPage::owns(const QString& path) const {
  return path.startsWith("doubts.");
}

bool DoubtPage::go_to(const QString& path) {
  return go_to_field(desk_, this, path);
}

void DoubtPage::showEvent(QShowEvent* event) {
  StagePage::showEvent(event);
  refresh();
}

const assess::DoubtInput* DoubtPage::held_reading() const {
  const assess::Doubt* now = Sureness::of(desk_).doubt();
  const int r = carried_->currentRow();
  if (!now || r < 0 || static_cast<std::size_t>(r) >= read_.size()) return nullptr;
  return &now->inputs[read_[static_cast<std::size_t>(r)]];
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
  if (in.what == assess::Doubted::bag_card)
    return desk_.tell(tr("That is the bag’s card: a bench test on Bags makes another."));
  if (in.what != assess::Doubted::reading)
    return desk_.tell(tr("That is what the part’s card says: a move timed on Proving tells it of this car."));
  const QString path = QString::fromStdString(in.path);
  const bool swing = path.contains(".cycle.") || path.contains(".points.") || path.contains(".cycle_right.");
  emit desk_.went_to(swing ? "swing"
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
    if (c.would_win > 0.002 && now->inputs[c.input].what == assess::Doubted::reading)
      places << QString::fromStdString(now->inputs[c.input].path);
  emit desk_.went_to("car_in", "tape:" + places.join(';'));
}

void DoubtPage::refresh() {
  if (!isVisible()) return;
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
  trouble_->setFont(desk_.look().font(TextSize::small));
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

void DoubtPage::fill_answers() {
  const Tokens& t = desk_.look().tokens();
  const assess::Doubt* now = Sureness::of(desk_).doubt();
  answers_->setFont(desk_.look().font(TextSize::small));
  const QSignalBlocker quiet(answers_);
  if (!now) {
    answers_->setRowCount(0);
    shown_.clear();
    return;
  }
  shown_.clear();
  for (std::size_t a = 0; a < now->answers.size(); ++a)
    if (now->answers[a].value || now->answers[a].vanished < 1) shown_.push_back(a);
  answers_->setRowCount(static_cast<int>(shown_.size()));
  int held = 0;
  for (int r = 0; r < answers_->rowCount(); ++r) {
    const DoubtAnswer& a = now->answers[shown_[static_cast<std::size_t>(r)]];
    put_cell(answers_, r, 0, desk_.words_of(a.words), t.ink);
    put_cell(answers_, r, 1, a.value ? shown_with_doubt(desk_, *a.value, a.sd, a.kind) : tr("none"), t.ink);
    put_cell(
        answers_, r, 2,
        a.vanished < 1 && a.sd > 0
            ? tr("%1 to %2").arg(shown_as_sure(desk_, a.p05, a.sd, a.kind), shown_as_sure(desk_, a.p95, a.sd, a.kind))
            : QString(),
        t.second);
    QString stands;
    QColor ink = t.second;
    if (a.odds_inside) {
      const double odds = *a.odds_inside;
      // Never certain: so many draws tell no more.
      stands = odds >= assess::safe_odds  ? tr("✓ safe, %1").arg(desk_.shown(std::min(odds, 0.99), Kind::share, 0))
               : odds <= assess::out_odds ? tr("■ out, %1").arg(desk_.shown(std::max(odds, 0.01), Kind::share, 0))
                                          : tr("▲ doubtful, %1").arg(desk_.shown(odds, Kind::share, 0));
      ink = odds >= assess::safe_odds ? t.good : odds <= assess::out_odds ? t.stop : t.caution;
    } else if (a.odds_met) {
      const bool time = a.wanted_most.has_value();
      const double odds = *a.odds_met;
      const QString so = odds >= assess::safe_odds  ? (time ? tr("✓ quick enough, %1") : tr("✓ clears, %1"))
                         : odds <= assess::out_odds ? (time ? tr("■ too slow, %1") : tr("■ touches, %1"))
                                                    : (time ? tr("▲ quick enough, %1") : tr("▲ clears, %1"));
      const double of = odds <= assess::out_odds ? 1 - odds : odds;
      stands = so.arg(desk_.shown(std::min(of, 0.99), Kind::share, 0));
      ink = odds >= assess::safe_odds ? t.good : odds <= assess::out_odds ? t.stop : t.caution;
    } else if (a.vanished >= 0.005 && a.name.find(".limit.") == std::string::npos) {
      stands = tr("gone in %1").arg(desk_.shown(a.vanished, Kind::share, 0));
      ink = t.caution;
    }
    put_cell(answers_, r, 3, stands, ink);
    if (a.name == held_) held = r;
  }
  if (!shown_.empty()) {
    held_ = now->answers[shown_[static_cast<std::size_t>(held)]].name;
    answers_->setCurrentCell(held, 0);
  }
}

void DoubtPage::fill_carried() {
  const Tokens& t = desk_.look().tokens();
  const assess::Doubt* now = Sureness::of(desk_).doubt();
  const DoubtAnswer* answer = now ? now->find(held_) : nullptr;
  carried_->setFont(desk_.look().font(TextSize::small));
  read_.clear();
  const int rows = answer ? static_cast<int>(std::min<std::size_t>(answer->carried_by.size(), 12)) : 0;
  carried_->setRowCount(rows);
  const DoubtAnswer::Carried* best = nullptr;
  for (int r = 0; r < rows; ++r) {
    const auto& c = answer->carried_by[static_cast<std::size_t>(r)];
    const assess::DoubtInput& in = now->inputs[c.input];
    read_.push_back(c.input);
    if (!best || c.per_minute > best->per_minute) best = &c;
    put_cell(carried_, r, 0, desk_.words_of(in.name), t.ink);
    put_cell(carried_, r, 1, shown_with_doubt(desk_, in.value, in.sd(), in.kind), t.second);
    put_cell(carried_, r, 2, tr(assess::tool_name(in.tool)), t.second);
    put_cell(carried_, r, 3,
             QString(static_cast<int>(std::lround(c.share * 10)), QChar(0x2588)) + " " +
                 desk_.shown(c.share, Kind::share, 0),
             t.ink);
    put_cell(carried_, r, 4, c.would_win > 0.002 ? desk_.shown(c.would_win, Kind::share, 0) : tr("nothing"), t.second);
    put_cell(carried_, r, 5, tr("%1 min").arg(in.minutes, 0, 'f', 0), t.second);
  }
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
  if (rows > 0 && carried_->currentRow() < 0) carried_->setCurrentCell(0, 0);
  show_tools();
}

} // namespace mavrel::app
