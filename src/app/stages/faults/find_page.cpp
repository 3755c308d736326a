#include "app/stages/faults/find_page.h"

#include "app/checks/signer.h"
#include "app/desk/bench_link.h"
#include "app/desk/clock.h"
#include "app/kit/list_table.h"
#include "app/stages/faults/course_view.h"
#include "app/stages/faults/edits.h"
#include "assess/faults/link_readings.h"
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
      never_(new QPushButton(tr("Never"), this)), second_hand_(new QCheckBox(tr("heard, not seen"), this)) {
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

FindPage::FindPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), box_(new FindingBox(desk, this)),
      nothing_else_(new QCheckBox(tr("nothing else noticed"), this)), course_(new CourseView(desk, this)),
      by_(new QComboBox(this)), to_log_(new QCheckBox(tr("log"), this)),
      to_plan_(new QCheckBox(tr("plan its repair"), this)), to_count_(new QCheckBox(tr("count it"), this)) {
  summary_ = words("fault_summary", TextSize::normal);
  column()->addWidget(summary_);
  column()->addWidget(box_);
  make_head();
  column()->addWidget(scrolled(course_, this), 4);
  make_lists();
  make_foot();
  column()->addWidget(quiet(tr("Never under a car held by air: stands. Release the pressure before opening a line.")));
  connect(box_, &FindingBox::found, this, &FindPage::note);
  connect(course_, &CourseView::strike, this, [this](std::size_t place) { strike_finding(desk_, place); });
  connect(course_, &CourseView::row_picked, this, [this] { strike_->setEnabled(course_->picked().has_value()); });
  for (const auto signal : {&BenchLink::changed, &BenchLink::told})
    connect(&BenchLink::of(desk_), signal, this,
            [this] { link_->setEnabled(BenchLink::of(desk_).state() != nullptr); });
}

void FindPage::make_head() {
  auto* head = row(column());
  nothing_else_->setObjectName("nothing_else");
  nothing_else_->setToolTip(tr("Every other symptom of the list was asked for, and is not there."));
  connect(nothing_else_, &QCheckBox::toggled, this, [this](bool on) {
    if (on != (desk_.build().faults->nothing_else == build::YesNo::yes)) set_nothing_else(desk_, on);
  });
  head->addWidget(nothing_else_);
  head->addStretch(1);
  button(head, tr("Take readings"), "take_readings", [this] {
    take_at_hand();
  })->setToolTip(tr("What Proving and the log have read"));
  link_ = button(head, tr("Read the link"), "take_from_link", [this] { take_from_link(); });
  link_->setToolTip(tr("What the linked car reads at road height"));
  strike_ = button(head, tr("Remove"), "strike_finding", [this] {
    if (const auto place = course_->picked()) strike_finding(desk_, *place);
  });
  button(head, tr("Start over"), "start_over", [this] { strike_all_findings(desk_); });
}

void FindPage::make_lists() {
  auto* lists = row(column(), 2);
  lists->setSpacing(2 * desk_.look().unit());
  ranked_ = table("fault_ranked", tr("What it may be"), {tr("it may be"), tr("odds")});
  next_ = table("fault_tests", tr("What to do next"), {tr("do next"), tr("takes"), tr("tells")});
  cause_ = rich_words("fault_words");
  how_ = rich_words("test_words");
  for (const auto& [list, label] : {std::pair{ranked_, cause_}, std::pair{next_, how_}}) {
    auto* side = new QVBoxLayout;
    side->setSpacing(desk_.look().unit() / 2);
    list->verticalHeader()->setDefaultSectionSize(desk_.look().px(21));
    list->setMinimumHeight(desk_.look().px(118));
    label->setMinimumHeight(desk_.look().px(86));
    side->addWidget(list, 1);
    side->addWidget(label);
    lists->addLayout(side, 1);
  }
  connect(ranked_, &ListTable::chose, this, [this](std::size_t r) {
    if (r >= ranked_sets_.size()) return;
    held_cause_ = fault_key(ranked_sets_[r]);
    course_->show_set(r);
    say_details();
  });
  connect(next_, &ListTable::chose, this, [this](std::size_t r) {
    if (r >= tests_.size()) return;
    held_test_ = test_key(tests_[r]);
    say_details();
  });
  connect(next_, &ListTable::picked, this, [this](std::size_t r) {
    if (r < tests_.size()) box_->show_sign(told_by(*tests_[r].test, tests_[r].place).front());
  });
}

void FindPage::make_foot() {
  auto* foot = row(column());
  for (const auto& [box, name] :
       {std::pair{to_log_, "found_log"}, std::pair{to_plan_, "found_plan"}, std::pair{to_count_, "found_count"}}) {
    box->setObjectName(name);
    box->setChecked(true);
    foot->addWidget(box);
  }
  to_log_->setToolTip(tr("Into the log; its checks are asked again in Proving."));
  to_count_->setToolTip(tr("It counts in how often this shop finds what."));
  dress_signer(*by_, "found_by");
  foot->addWidget(by_);
  keep_ = button(foot, tr("That was it"), "keep_found", [this] { keep(); });
  foot->addStretch(1);
}

void FindPage::take_at_hand() {
  const PracticeShopPtr shop = fault_car_of(desk_);
  const int taken = take_readings(desk_, shop ? &shop->table.car() : nullptr);
  desk_.tell(taken > 0 ? tr("Readings taken: %1.").arg(taken)
                       : tr("Proving and the log have read nothing more that tells of faults."));
}

void FindPage::ask_for(const SignAt& at) {
  box_->show_sign(at);
}

void FindPage::note(const FaultFinding& finding) {
  if (const PracticeShopPtr shop = fault_car_of(desk_))
    if (const auto why = trouble_of(shop->table.car(), finding)) return desk_.tell(desk_.words_of(*why));
  add_finding(desk_, finding);
}

void FindPage::take_from_link() {
  const link::State* state = BenchLink::of(desk_).state();
  const PracticeShopPtr shop = fault_car_of(desk_);
  if (!state || !shop) return desk_.tell(tr("Nothing is linked: Leveling, Bench has the link."));
  build::Build build = desk_.build();
  auto& list = build.faults.own().findings;
  const auto notes = link_readings(*shop, {state->height, state->pressure}, build::most_findings - list.size());
  if (notes.empty()) return desk_.tell(tr("The linked car does not stand near road height: call it up first."));
  list.insert(list.end(), notes.begin(), notes.end());
  desk_.edit(tr("Take what the link reads"), std::move(build));
  desk_.tell(tr("Readings taken: %1.").arg(notes.size()));
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
      desk_.tell(tr("Kept: %1. The findings stay until you start over.").arg(desk_.words_of(fault_words(set))));
    return;
  }
}

QString FindPage::said() const {
  const Diagnosed* now = diagnosis_of(desk_);
  QStringList out;
  if (const auto trouble = trouble_of_diagnosis(desk_))
    out << tr("This car can’t be judged yet: %1").arg(desk_.words_of(*trouble));
  else if (!fault_car_of(desk_))
    out << tr("How this car answers to each fault is worked out …");
  else if (!now)
    out << tr("Weighing …");
  else if (desk_.build().faults->findings.empty())
    out << tr("What is usual in this shop; nothing was found yet.");
  else if (!now->diagnosis.nothing_fits)
    out << tr("It looks like %1. Never certain: the test to the right says most for its minutes.")
               .arg(desk_.words_of(fault_words(now->diagnosis.sets.front().faults)));
  if (now)
    for (const Message& m : now->diagnosis.trouble)
      out << "▲ " + desk_.words_of(m);
  for (const auto& [place, why] : notes_of(desk_).trouble)
    out << "▲ " + desk_.words_of(why);
  return out.join(" ");
}

void FindPage::fill() {
  const Diagnosed* now = diagnosis_of(desk_);
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
  summary_->setText(said());
  strike_->setEnabled(course_->picked().has_value());
  link_->setEnabled(BenchLink::of(desk_).state() != nullptr);
  keep_->setEnabled(now != nullptr && !held_cause_.empty());
}

void FindPage::fill_course() {
  const auto& noted = notes_of(desk_);
  const Diagnosed* now = diagnosis_of(desk_);
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
      if (row.joined) row.says += tr(" Weighed together with the other one.");
    }
    rows.push_back(std::move(row));
  }
  course_->show_course(std::move(rows), now ? &now->diagnosis : nullptr);
}

void FindPage::fill_ranked() {
  const Tokens& t = desk_.look().tokens();
  const Diagnosed* now = diagnosis_of(desk_);
  if (!now) return;
  ranked_sets_.clear();
  const auto& sets = now->diagnosis.sets;
  const std::size_t count = std::min<std::size_t>(sets.size(), 20);
  const auto odds = [&](double share) { return desk_.shown(share, Kind::share, share < 0.1 ? 1 : 0); };
  ranked_->fill(count + 1, [&](std::size_t r, ListTable::Row& row) {
    if (r == count) {
      row.words(tr("    something that is not known here"), t.second).figure(odds(now->diagnosis.unknown), t.second);
      return;
    }
    const FaultSet& set = sets[r];
    ranked_sets_.push_back(set.faults);
    row.words(QString("%1  ").arg(r + 1) + desk_.words_of(fault_words(set.faults)), t.ink)
        .figure(QString(static_cast<int>(std::lround(set.odds * 12)), QChar(0x2588)) + "  " + odds(set.odds),
                r == 0 ? t.ink : t.second);
    if (fault_key(set.faults) == held_cause_) row.hold();
  });
  const auto held = ranked_->held();
  if (!held || *held >= ranked_sets_.size()) return;
  held_cause_ = fault_key(ranked_sets_[*held]);
  course_->show_set(*held);
}

void FindPage::fill_next() {
  const Tokens& t = desk_.look().tokens();
  const Diagnosed* now = diagnosis_of(desk_);
  if (!now) return;
  tests_.clear();
  next_->fill(now->next.size(), [&](std::size_t r, ListTable::Row& row) {
    const NextTest& n = now->next[r];
    tests_.push_back({n.test, n.place});
    row.words(desk_.words_of(test_words(tests_.back())), t.ink)
        .figure(tr("%1 min").arg(n.test->minutes, 0, 'f', 0), t.second)
        .figure(tr("%1 bit").arg(n.bits, 0, 'f', 2), t.second);
    if (test_key(tests_.back()) == held_test_) row.hold();
  });
}

void FindPage::say_details() {
  cause_->setText(words_of_cause());
  how_->setText(words_of_test());
}

QString FindPage::words_of_cause() const {
  for (const auto& set : ranked_sets_) {
    if (fault_key(set) != held_cause_) continue;
    QStringList parts;
    for (const FaultAt& f : set) {
      parts << tr("<b>%1.</b> %2")
                   .arg(desk_.words_of(fault_words(f)).toHtmlEscaped(),
                        desk_.words_of({f.cause->seen, {}}).toHtmlEscaped());
      QString mend =
          tr("Repair, about %1: %2")
              .arg(desk_.shown(f.cause->hours, Kind::hours), desk_.words_of({f.cause->mend, {}}).toHtmlEscaped());
      if (*f.cause->parts) mend += tr(" Wanted: %1.").arg(desk_.words_of({f.cause->parts, {}}));
      parts << mend;
    }
    return parts.join("<br>");
  }
  return {};
}

QString FindPage::words_of_test() const {
  const Diagnosed* now = diagnosis_of(desk_);
  const auto held = next_->held();
  if (now && now->next.empty()) return tr("No test that is known here would tell anything more.");
  if (!now || !held || *held >= now->next.size()) return {};
  const NextTest& n = now->next[*held];
  QStringList parts{desk_.words_of({n.test->how, {}}).toHtmlEscaped()};
  for (const TestOutcome& o : n.outcomes)
    parts << QString("<b>%1</b> → %2, %3")
                 .arg(desk_.words_of(o.what).toHtmlEscaped(), desk_.words_of(fault_words(o.faults)).toHtmlEscaped(),
                      desk_.shown(o.odds, Kind::share, 0));
  return parts.join("<br>");
}

} // namespace mavrel::app
