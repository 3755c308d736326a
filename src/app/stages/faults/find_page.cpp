#include "app/stages/faults/find_page.h"

#include "app/desk/bench.h"
#include "app/desk/clock.h"
#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"
#include "app/kit/signer.h"
#include "app/stages/faults/course_view.h"
#include "app/stages/faults/edits.h"
#include "assess/proving/series.h"
#include "work/mark.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

using namespace assess;

// ---- one finding

FindingBox::FindingBox(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), sign_(new QComboBox(this)), where_(new QComboBox(this)),
      figure_(new QLineEdit(this)), yes_(new QPushButton(tr("Yes"), this)), no_(new QPushButton(tr("No"), this)),
      never_(new QPushButton(tr("Never"), this)), second_hand_(new QCheckBox(tr("at second hand"), this)) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(desk_.look().unit());
  sign_->setObjectName("finding_sign");
  sign_->setAccessibleName(tr("What was found"));
  sign_->setMaxVisibleItems(24);
  sign_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  sign_->setMinimumContentsLength(26);
  where_->setObjectName("finding_where");
  where_->setAccessibleName(tr("Where"));
  figure_->setObjectName("finding_figure");
  figure_->setAccessibleName(tr("What was read"));
  figure_->setMinimumWidth(desk_.look().px(110));
  yes_->setObjectName("finding_yes");
  no_->setObjectName("finding_no");
  never_->setObjectName("finding_never");
  never_->setToolTip(tr("It never got there"));
  second_hand_->setObjectName("finding_second_hand");
  second_hand_->setToolTip(tr("Somebody tells what somebody else noticed: it counts for less."));
  row->addWidget(sign_, 1);
  for (QWidget* w : std::initializer_list<QWidget*>{where_, figure_, yes_, no_, never_, second_hand_})
    row->addWidget(w);
  const auto head = [&](const QString& text) {
    sign_->addItem(text);
    sign_->setItemData(sign_->count() - 1, 0, Qt::UserRole - 1); // it can't be picked
  };
  for (const int group : {0, 1, 2}) {
    head(group == 0 ? tr("— told —") : group == 1 ? tr("— read —") : tr("— looked for —"));
    for (const FaultSign& sign : fault_signs())
      if (group == (sign.symptom ? 0 : sign.kind ? 1 : 2))
        sign_->addItem(desk_.words_of({sign.name, {}}), QString(sign.key));
  }
  sign_->setCurrentIndex(1);
  connect(sign_, &QComboBox::currentIndexChanged, this, &FindingBox::show_places);
  connect(yes_, &QPushButton::clicked, this, [this] { say("yes"); });
  connect(no_, &QPushButton::clicked, this, [this] { say("no"); });
  connect(never_, &QPushButton::clicked, this, [this] { say("never"); });
  connect(figure_, &QLineEdit::returnPressed, this, [this] { say(figure_->text()); });
  show_places();
}

SignAt FindingBox::at() const {
  const FaultSign* sign = fault_sign(sign_->currentData().toString().toStdString());
  if (!sign) sign = &fault_signs().front();
  return {sign, static_cast<std::size_t>(std::max(0, where_->currentIndex()))};
}

void FindingBox::show_places() {
  const QString held = where_->currentData().toString();
  const FaultSign& sign = *at().sign;
  where_->clear();
  for (std::size_t i = 0; i < places_of(sign.places); ++i)
    where_->addItem(sign.places == FaultPlaces::car ? tr("the car") : desk_.words_of({place_name(sign.places, i), {}}),
                    QString(place_key(sign.places, i)));
  if (const int same = where_->findData(held); same >= 0) where_->setCurrentIndex(same);
  where_->setEnabled(where_->count() > 1);
  show_answers();
}

void FindingBox::show_answers() {
  const FaultSign& sign = *at().sign;
  const bool read = sign.kind.has_value();
  figure_->setVisible(read);
  never_->setVisible(read && sign.may_not_come);
  yes_->setVisible(!read);
  no_->setVisible(!read);
  second_hand_->setVisible(sign.symptom);
  if (read)
    figure_->setPlaceholderText(desk_.shown(*sign.kind == Kind::time       ? 3.2
                                            : *sign.kind == Kind::share    ? 0.02
                                            : *sign.kind == Kind::pressure ? 1e5
                                            : *sign.kind == Kind::voltage  ? 12.6
                                            : *sign.kind == Kind::mass     ? 40
                                                                           : 0.012,
                                            *sign.kind));
}

void FindingBox::show_sign(const SignAt& at) {
  sign_->setCurrentIndex(sign_->findData(QString(at.sign->key)));
  where_->setCurrentIndex(static_cast<int>(at.place));
  (at.sign->kind ? static_cast<QWidget*>(figure_) : yes_)->setFocus();
}

void FindingBox::refresh() {
  show_answers();
}

void FindingBox::say(const QString& answer) {
  auto finding = typed_finding(at(), answer.toStdString(), desk_.prefs());
  if (!finding) {
    desk_.tell(desk_.words_of(finding.error()));
    return figure_->setFocus();
  }
  finding->second_hand = second_hand_->isChecked() && at().sign->symptom;
  figure_->clear();
  emit found(*finding);
}

// ---- the page

FindPage::FindPage(Desk& desk, FaultAnswers& answers, QWidget* parent)
    : PlainPage(desk, parent), answers_(answers), summary_(new QLabel(this)), box_(new FindingBox(desk, this)),
      nothing_else_(new QCheckBox(tr("nothing else noticed"), this)), course_(new CourseView(desk, this)),
      ranked_(list_table("fault_ranked", tr("What it may be"), {tr("it may be"), tr("odds")}, this)),
      next_(list_table("fault_tests", tr("What to do next"), {tr("do next"), tr("takes"), tr("tells")}, this)),
      cause_(new QLabel(this)), how_(new QLabel(this)), by_(new QComboBox(this)),
      keep_(new QPushButton(tr("That was it"), this)), strike_(new QPushButton(tr("Strike out"), this)),
      take_(new QPushButton(tr("Take readings"), this)), link_(new QPushButton(tr("Read the link"), this)),
      anew_(new QPushButton(tr("Begin anew"), this)), to_log_(new QCheckBox(tr("log"), this)),
      to_plan_(new QCheckBox(tr("plan its mend"), this)), to_count_(new QCheckBox(tr("count it"), this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const both = column();
  summary_->setObjectName("fault_summary");
  summary_->setWordWrap(true);
  both->addWidget(summary_);
  both->addWidget(box_);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  nothing_else_->setObjectName("nothing_else");
  nothing_else_->setToolTip(tr("Every other symptom of the list was asked for, and is not there."));
  row->addWidget(nothing_else_);
  row->addStretch(1);
  take_->setObjectName("take_readings");
  take_->setToolTip(tr("What Proving and the log have read"));
  link_->setToolTip(tr("What the linked car reads at road height"));
  link_->setObjectName("take_from_link");
  strike_->setObjectName("strike_finding");
  anew_->setObjectName("begin_anew");
  for (QPushButton* button : {take_, link_, strike_, anew_})
    row->addWidget(button);
  both->addLayout(row);
  both->addWidget(scrolled(course_, this), 4);
  auto* lists = new QHBoxLayout;
  lists->setSpacing(2 * u);
  auto* left = new QVBoxLayout;
  auto* right = new QVBoxLayout;
  for (auto* side : {left, right})
    side->setSpacing(u / 2), lists->addLayout(side, 1);
  left->addWidget(ranked_, 1);
  cause_->setObjectName("fault_words");
  how_->setObjectName("test_words");
  for (QLabel* label : {cause_, how_}) {
    label->setWordWrap(true);
    label->setTextFormat(Qt::RichText);
    label->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    label->setMinimumHeight(desk_.look().px(86));
  }
  left->addWidget(cause_);
  right->addWidget(next_, 1);
  right->addWidget(how_);
  both->addLayout(lists, 2);
  auto* foot = new QHBoxLayout;
  foot->setSpacing(u);
  for (QCheckBox* box : {to_log_, to_plan_, to_count_}) {
    box->setChecked(true);
    foot->addWidget(box);
  }
  to_log_->setObjectName("found_log");
  to_plan_->setObjectName("found_plan");
  to_count_->setObjectName("found_count");
  to_log_->setToolTip(tr("Into the log; its checks are asked again in Proving."));
  to_count_->setToolTip(tr("It counts in how often this shop finds what."));
  dress_signer(*by_, "found_by");
  foot->addWidget(by_);
  keep_->setObjectName("keep_found");
  foot->addWidget(keep_);
  foot->addStretch(1);
  both->addLayout(foot);
  auto* caution =
      new QLabel(tr("Never under a car held by air: stands. Release the pressure before opening a line."), this);
  caution->setProperty("quiet", true);
  caution->setWordWrap(true);
  both->addWidget(caution);
  for (QTableWidget* table : {ranked_, next_}) {
    table->setWordWrap(false);
    table->verticalHeader()->setDefaultSectionSize(desk_.look().px(21));
    table->setMinimumHeight(desk_.look().px(118));
  }
  connect(box_, &FindingBox::found, this, &FindPage::note);
  connect(nothing_else_, &QCheckBox::toggled, this, [this](bool on) {
    if (on != (desk_.build().faults->nothing_else == build::YesNo::yes)) set_nothing_else(desk_, on);
  });
  connect(course_, &CourseView::strike, this, [this](std::size_t place) { strike_finding(desk_, place); });
  connect(course_, &CourseView::row_picked, this, [this] { strike_->setEnabled(course_->picked().has_value()); });
  connect(strike_, &QPushButton::clicked, this, [this] {
    if (const auto place = course_->picked()) strike_finding(desk_, *place);
  });
  connect(anew_, &QPushButton::clicked, this, [this] { strike_all_findings(desk_); });
  connect(take_, &QPushButton::clicked, this, [this] {
    const PracticeShopPtr shop = answers_.shop();
    const int taken = take_readings(desk_, shop ? &shop->table.car() : nullptr);
    desk_.tell(taken > 0 ? tr("Readings taken: %1.").arg(taken)
                         : tr("Proving and the log have read nothing more that tells of faults."));
  });
  connect(link_, &QPushButton::clicked, this, &FindPage::take_from_link);
  connect(keep_, &QPushButton::clicked, this, &FindPage::keep);
  connect(ranked_, &QTableWidget::currentCellChanged, this, [this](int r) {
    if (r < 0 || static_cast<std::size_t>(r) >= ranked_sets_.size()) return;
    held_cause_ = fault_key(ranked_sets_[static_cast<std::size_t>(r)]);
    course_->show_set(static_cast<std::size_t>(r));
    say_details();
  });
  connect(next_, &QTableWidget::currentCellChanged, this, [this](int r) {
    if (r < 0 || static_cast<std::size_t>(r) >= tests_.size()) return;
    held_test_ = test_key(tests_[static_cast<std::size_t>(r)]);
    say_details();
  });
  connect(next_, &QTableWidget::cellActivated, this, [this](int r) {
    if (r < 0 || static_cast<std::size_t>(r) >= tests_.size()) return;
    const TestAt& test = tests_[static_cast<std::size_t>(r)];
    box_->show_sign(told_by(*test.test, test.place).front());
  });
  connect(&answers_, &FaultAnswers::changed, this, &FindPage::refresh);
  for (const auto signal : {&Bench::changed, &Bench::told})
    connect(&Bench::of(desk_), signal, this, [this] { link_->setEnabled(Bench::of(desk_).state() != nullptr); });
  refresh();
}

void FindPage::ask_for(const SignAt& at) {
  box_->show_sign(at);
}

void FindPage::note(const FaultFinding& finding) {
  if (const PracticeShopPtr shop = answers_.shop())
    if (const auto why = trouble_of(shop->table.car(), finding)) return desk_.tell(desk_.words_of(*why));
  add_finding(desk_, finding);
}

void FindPage::take_from_link() {
  const link::State* state = Bench::of(desk_).state();
  const PracticeShopPtr shop = answers_.shop();
  if (!state || !shop) return desk_.tell(tr("Nothing is linked: Leveling, Bench has the link."));
  // What it reads where it stands: at road height the heights are off by so much, and its gauges by so much.
  const auto& car = shop->car;
  int taken = 0;
  build::Build build = desk_.build();
  auto& list = build.faults.own().findings;
  const auto add = [&](const char* sign, std::size_t corner, double value) {
    FaultFinding f;
    f.at = {fault_sign(sign), corner};
    f.value = value;
    if (trouble_of(shop->table.car(), f) || list.size() >= build::most_findings) return;
    list.push_back(note_of(f, "link"));
    ++taken;
  };
  for (std::size_t c = 0; c < 4; ++c) {
    if (!state->height[c]) continue;
    const double off = *state->height[c] - car.target[c];
    if (std::abs(off) > live_near) continue; // it stands elsewhere
    add("height_off", c, off);
    if (state->pressure[c] && std::abs(off) < live_pressure_at)
      add("pressure_off", c, *state->pressure[c] - car.pressure[c]);
  }
  if (taken == 0) return desk_.tell(tr("The linked car does not stand near road height: call it up first."));
  desk_.edit(tr("Take what the link reads"), std::move(build));
  desk_.tell(tr("Readings taken: %1.").arg(taken));
}

void FindPage::keep() {
  for (const auto& set : ranked_sets_) {
    if (fault_key(set) != held_cause_) continue;
    FoundAsked asked;
    asked.faults = set;
    asked.by = by_->currentText().trimmed().left(40).toStdString();
    asked.day = work::moment_text(clock_now());
    asked.mark = work::new_mark();
    asked.log = asked.proofs = to_log_->isChecked();
    asked.plan = to_plan_->isChecked();
    asked.count = to_count_->isChecked();
    if (keep_found(desk_, asked))
      desk_.tell(tr("Kept: %1. The findings stay until you begin anew.").arg(desk_.words_of(fault_words(set))));
    return;
  }
}

void FindPage::fill() {
  const Diagnosed* now = answers_.diagnosed();
  const auto trouble = answers_.trouble();
  box_->refresh();
  show_signers(*by_, desk_);
  {
    const QSignalBlocker quiet(nothing_else_);
    nothing_else_->setChecked(desk_.build().faults->nothing_else == build::YesNo::yes);
  }
  fill_course();
  fill_ranked();
  fill_next();
  say_details();
  QStringList said;
  if (trouble)
    said << tr("This car can’t be judged yet: %1").arg(desk_.words_of(*trouble));
  else if (!answers_.shop())
    said << tr("How this car answers to each fault is worked out …");
  else if (!now)
    said << tr("Weighing …");
  else if (desk_.build().faults->findings.empty())
    said << tr("What is usual in this shop; nothing was found yet.");
  else if (now->diagnosis.nothing_fits)
    said << "";
  else
    said << tr("It looks like %1. Never certain: the test to the right says most for its minutes.")
                .arg(desk_.words_of(fault_words(now->diagnosis.sets.front().faults)));
  if (now)
    for (const Message& m : now->diagnosis.trouble)
      said << "▲ " + desk_.words_of(m);
  for (const auto& [place, why] : answers_.noted().trouble)
    said << "▲ " + desk_.words_of(why);
  said.removeAll("");
  summary_->setText(said.join(" "));
  strike_->setEnabled(course_->picked().has_value());
  link_->setEnabled(Bench::of(desk_).state() != nullptr);
  keep_->setEnabled(now != nullptr && !held_cause_.empty());
}

void FindPage::fill_course() {
  const auto& noted = answers_.noted();
  const Diagnosed* now = answers_.diagnosed();
  std::vector<CourseView::Row> rows;
  for (std::size_t i = 0; i < noted.evidence.findings.size(); ++i) {
    const FaultFinding& f = noted.evidence.findings[i];
    CourseView::Row row;
    row.what = desk_.words_of(sign_words(f.at));
    row.answer = desk_.words_of(answer_words(f));
    if (f.second_hand) row.answer += tr(", heard");
    row.note = noted.note_of[i];
    const std::string& from = desk_.build().faults->findings[row.note].from;
    row.says =
        row.what + ": " + row.answer + (from.empty() ? QString() : tr(" (%1)").arg(QString::fromStdString(from)));
    if (now) {
      const auto is_in = [i](const std::vector<std::size_t>& list) {
        return std::find(list.begin(), list.end(), i) != list.end();
      };
      row.weighed = is_in(now->diagnosis.weighed);
      row.joined = is_in(now->diagnosis.joined);
      if (row.joined) row.says += tr(" Weighed together with the earlier one.");
    }
    rows.push_back(std::move(row));
  }
  course_->show_course(std::move(rows), now ? &now->diagnosis : nullptr);
}

void FindPage::fill_ranked() {
  const Tokens& t = desk_.look().tokens();
  const Diagnosed* now = answers_.diagnosed();
  if (!now) return;
  ranked_->setFont(desk_.look().font(TextSize::small));
  const QSignalBlocker quiet(ranked_);
  ranked_sets_.clear();
  const auto& sets = now->diagnosis.sets;
  ranked_->setRowCount(static_cast<int>(std::min<std::size_t>(sets.size(), 20)) + 1);
  int held = 0;
  for (int r = 0; r + 1 < ranked_->rowCount(); ++r) {
    const FaultSet& set = sets[static_cast<std::size_t>(r)];
    ranked_sets_.push_back(set.faults);
    put_cell(ranked_, r, 0, QString("%1  ").arg(r + 1) + desk_.words_of(fault_words(set.faults)), t.ink);
    put_cell(ranked_, r, 1,
             QString(static_cast<int>(std::lround(set.odds * 12)), QChar(0x2588)) + "  " +
                 desk_.shown(set.odds, Kind::share, set.odds < 0.1 ? 1 : 0),
             r == 0 ? t.ink : t.second);
    if (fault_key(set.faults) == held_cause_) held = r;
  }
  const int last = ranked_->rowCount() - 1;
  put_cell(ranked_, last, 0, tr("    something that is not known here"), t.second);
  put_cell(ranked_, last, 1, desk_.shown(now->diagnosis.unknown, Kind::share, now->diagnosis.unknown < 0.1 ? 1 : 0),
           t.second);
  if (!ranked_sets_.empty()) {
    held_cause_ = fault_key(ranked_sets_[static_cast<std::size_t>(held)]);
    ranked_->setCurrentCell(held, 0);
    course_->show_set(static_cast<std::size_t>(held));
  }
}

void FindPage::fill_next() {
  const Tokens& t = desk_.look().tokens();
  const Diagnosed* now = answers_.diagnosed();
  if (!now) return;
  next_->setFont(desk_.look().font(TextSize::small));
  const QSignalBlocker quiet(next_);
  tests_.clear();
  next_->setRowCount(static_cast<int>(now->next.size()));
  int held = 0;
  for (int r = 0; r < next_->rowCount(); ++r) {
    const NextTest& n = now->next[static_cast<std::size_t>(r)];
    tests_.push_back({n.test, n.place});
    put_cell(next_, r, 0, desk_.words_of(test_words(tests_.back())), t.ink);
    put_cell(next_, r, 1, tr("%1 min").arg(n.test->minutes, 0, 'f', 0), t.second);
    put_cell(next_, r, 2, tr("%1 bit").arg(n.bits, 0, 'f', 2), t.second);
    if (test_key(tests_.back()) == held_test_) held = r;
  }
  if (!tests_.empty()) next_->setCurrentCell(held, 0);
}

void FindPage::say_details() {
  const Diagnosed* now = answers_.diagnosed();
  for (QLabel* label : {cause_, how_})
    label->setFont(desk_.look().font(TextSize::small));
  QString cause, how;
  for (const auto& set : ranked_sets_) {
    if (fault_key(set) != held_cause_) continue;
    QStringList parts;
    for (const FaultAt& f : set) {
      parts << tr("<b>%1.</b> %2")
                   .arg(desk_.words_of(fault_words(f)).toHtmlEscaped(),
                        desk_.words_of({f.cause->seen, {}}).toHtmlEscaped());
      QString mend =
          tr("Mend, about %1: %2")
              .arg(desk_.shown(f.cause->hours, Kind::hours), desk_.words_of({f.cause->mend, {}}).toHtmlEscaped());
      if (*f.cause->parts) mend += tr(" Wanted: %1.").arg(desk_.words_of({f.cause->parts, {}}));
      parts << mend;
    }
    cause = parts.join("<br>");
  }
  const int row = next_->currentRow();
  if (now && row >= 0 && static_cast<std::size_t>(row) < now->next.size()) {
    const NextTest& n = now->next[static_cast<std::size_t>(row)];
    QStringList parts{desk_.words_of({n.test->how, {}}).toHtmlEscaped()};
    for (const TestOutcome& o : n.outcomes)
      parts << QString("<b>%1</b> → %2, %3")
                   .arg(desk_.words_of(o.what).toHtmlEscaped(), desk_.words_of(fault_words(o.faults)).toHtmlEscaped(),
                        desk_.shown(o.odds, Kind::share, 0));
    how = parts.join("<br>");
  } else if (now && now->next.empty()) {
    how = tr("No test that is known here would tell anything more.");
  }
  cause_->setText(cause);
  how_->setText(how);
}

} // namespace mavrel::app
