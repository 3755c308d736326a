#include "app/stages/fit_up/plan_page.h"

#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/print/fit_up_pdf.h"
#include "app/stages/fit_up/edits.h"
#include "app/stages/fit_up/questions.h"
#include "build/names.h"
#include "build/names_fit_up.h"
#include "report/fit_up_files.h"
#include "report/job_sheets.h"

#include <QComboBox>
#include <QFileDialog>
#include <QGridLayout>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

using assess::JobStands;

namespace {
constexpr double told_hours = 0.5; // of the clock: less is no move of an end that is shown in hours
} // namespace

PlanPage::PlanPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), view_(new PlanView(desk, this)), new_name_(new QLineEdit(this)),
      skipped_(new QComboBox(this)), note_(new QWidget(this)), later_(new QTimer(this)) {
  give_arrows_to(view_);
  summary_ = words("plan_summary", TextSize::normal);
  column()->addWidget(summary_);
  column()->addWidget(view_, 5);
  auto* below = row(column(), 4);
  below->setSpacing(2 * desk_.look().unit());
  below->addWidget(scrolled(make_today(), this), 4);
  below->addWidget(scrolled(make_job(), this), 5);
  later_->setSingleShot(true);
  later_->setInterval(40);
  connect(later_, &QTimer::timeout, this, &PlanPage::fill_moves);
  for (QLabel* label : {today_, moves_})
    connect(label, &QLabel::linkActivated, this, &PlanPage::hold);
  connect(about_, &QLabel::linkActivated, this, [this](const QString& link) {
    if (link.startsWith("check:"))
      emit wants_check(link.mid(6));
    else
      hold(link);
  });
  connect(view_, &PlanView::chose, this, &PlanPage::refresh);
  connect(new_name_, &QLineEdit::returnPressed, this, &PlanPage::add_another);
}

QWidget* PlanPage::make_today() {
  auto* today = new QWidget(this);
  auto* inside = new QVBoxLayout(today);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(desk_.look().unit() / 2);
  today_head_ = heading({}, true);
  inside->addWidget(today_head_);
  today_ = rich_words("today");
  dress(today_, TextSize::normal);
  inside->addWidget(today_, 1);
  return today;
}

QWidget* PlanPage::make_job() {
  auto* job = new QWidget(this);
  auto* inside = new QVBoxLayout(job);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(desk_.look().unit() / 2);
  name_ = words("job_name", TextSize::large, true);
  name_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  inside->addWidget(name_);
  // The hand goes back to the plan: what would have the focus once a button is off is another deed.
  const auto with_held = [this](void (*act)(Desk&, const assess::Job&)) {
    return [this, act] {
      if (const auto* j = held()) act(desk_, assess::Job(*j));
      view_->setFocus(Qt::OtherFocusReason);
    };
  };
  auto* first = row(inside);
  begin_ = button(first, tr("Start"), "begin_job", [this] {
    if (const auto* j = held()) begin_job(desk_, this, assess::Job(*j), moment());
    view_->setFocus(Qt::OtherFocusReason);
  });
  done_ = button(first, tr("Done"), "finish_job", [this] { finish(); });
  skip_ = button(first, tr("Skip …"), "skip_job", [this] { skip(); });
  auto* second = row(inside);
  split_ = button(second, tr("Split"), "split_job", with_held([](Desk& d, const assess::Job& j) { split_job(d, j); }));
  more_ = button(second, tr("Change …"), "change_job", [this] {
    const auto* j = held();
    if (j && note_job(desk_, assess::Job(*j)) && !fields_.empty())
      fields_.front().first->edit()->setFocus(Qt::OtherFocusReason); // where it is changed
  });
  forget_ = button(second, {}, "forget_job", with_held([](Desk& d, const assess::Job& j) { forget_job(d, j); }));
  about_ = rich_words("job_about"); // below what is pressed: its lines move nothing
  inside->addWidget(about_);
  make_note();
  inside->addWidget(note_);
  auto* adding = row(inside);
  new_name_->setObjectName("new_job");
  new_name_->setPlaceholderText(tr("another job"));
  new_name_->setAccessibleName(tr("Name of another job"));
  adding->addWidget(new_name_, 1);
  button(adding, tr("Add behind it"), "add_job", [this] { add_another(); });
  learn_ = button(adding, tr("Plan with the time it took"), "learn_hours",
                  with_held([](Desk& d, const assess::Job& j) { learn_hours(d, j); }));
  auto* back = row(inside);
  skipped_->setObjectName("skipped_jobs");
  skipped_->setAccessibleName(tr("Jobs that are skipped"));
  skipped_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  back->addWidget(skipped_, 1);
  unskip_ = button(back, tr("Do it after all"), "unskip_job", [this] {
    const auto& skipped = plan_given_of(desk_).list.skipped;
    const auto i = static_cast<std::size_t>(skipped_->currentIndex());
    if (i < skipped.size()) forget_job(desk_, assess::Job(skipped[i]));
  });
  moves_ = rich_words("job_moves");
  inside->addWidget(moves_);
  inside->addStretch(1);
  return job;
}

void PlanPage::make_note() {
  auto* grid = new QGridLayout(note_);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setSpacing(desk_.look().unit() / 2);
  const std::pair<const char*, QString> captions[] = {
      {"hours_s", tr("takes")},     {"people", tr("people")},
      {"wait_s", tr("wait after")}, {"not_before", tr("not before")},
      {"after", tr("after")},       {"who", tr("who")},
      {"began", tr("began")},       {"ended", tr("ended")},
      {"took_s", tr("took")},       {"reason", tr("why held or skipped")},
      {"name", tr("job")}};
  int n = 0;
  for (const auto& [key, caption] : captions) {
    auto* field = new Field(desk_, "@.fit_up.order", caption, note_);
    field->set_placeholder(std::string_view(key) == "not_before" ? tr("2026-11-30")
                           : std::string_view(key) == "took_s"   ? tr("not said")
                                                                 : tr("as designed"));
    grid->addWidget(field, n / 3, n % 3);
    fields_.emplace_back(field, key);
    ++n;
  }
  place_ = new ChoiceBox(desk_, "@.fit_up.order", tr("Place"), rows_of(build::WorkPlace{}), note_);
  grid->addWidget(place_, n / 3, n % 3, Qt::AlignBottom);
}

void PlanPage::hold(const QString& id) {
  view_->hold(id);
  refresh();
}

void PlanPage::add_another() {
  if (new_name_->text().trimmed().isEmpty()) return;
  const auto* j = held();
  const auto behind = j ? std::optional(*j) : std::nullopt;
  add_job(desk_, behind ? &*behind : nullptr, new_name_->text().trimmed());
  new_name_->setText({}); // with its own undo: the next step back is the job's
}

const assess::Job* PlanPage::held() const {
  const auto& plan = plan_of(desk_);
  if (!plan) return nullptr;
  const auto at = plan->find(view_->held().toStdString());
  return at ? &plan->jobs[*at] : nullptr;
}

std::string PlanPage::moment() const {
  const auto now = now_in_plan(desk_);
  return now ? work::moment_text(*now) : std::string();
}

void PlanPage::finish() {
  const auto* j = held();
  if (!j) return;
  std::optional<double> took;
  if (const auto began = work::parse_moment(j->note.began); began && now_in_plan(desk_) && !j->by_the_clock)
    took = assess::worked_between(*plan_of(desk_), *began, *now_in_plan(desk_));
  finish_job(desk_, this, assess::Job(*j), moment(), took);
  view_->setFocus(Qt::OtherFocusReason);
}

void PlanPage::skip() {
  const auto* j = held();
  if (!j) return;
  const assess::Job job = *j;
  bool yes = false;
  const QString why = QInputDialog::getText(this, tr("Skip %1").arg(desk_.words_of(job.name)),
                                            tr("Why it is not needed:"), QLineEdit::Normal, {}, &yes);
  if (!yes) return;
  if (why.trimmed().isEmpty()) return desk_.tell(tr("A job is skipped with a reason: say why it is not needed."));
  skip_job(desk_, job, why.trimmed());
}

void PlanPage::fill() {
  const auto& plan = plan_of(desk_);
  if (!plan) {
    summary_->setText(desk_.words_of(plan.error()));
    for (QLabel* label : {today_head_, today_, name_, about_, moves_})
      label->clear();
    note_->hide();
    return;
  }
  int critical = 0, done = 0;
  for (const auto& p : plan->planned) {
    critical += p.path.critical && p.stands != JobStands::done;
    done += p.stands == JobStands::done;
  }
  QString said = tr("%1 jobs, %2 done · %3 of work left · ready %4 · %5 on the longest chain")
                     .arg(plan->jobs.size())
                     .arg(done)
                     .arg(desk_.shown(plan->work_hours * 3600, Kind::hours, 1),
                          desk_.words_of(assess::moment_name(*plan, plan->shared_span)))
                     .arg(critical);
  if (plan->proven) said += tr(" · no order is quicker");
  if (!plan->mistakes.empty()) said += "\n" + desk_.words_of(plan->mistakes.front());
  summary_->setText(said);
  if (!held() && !plan->jobs.empty()) {
    // Somebody has to be looked at: what runs, else what may begin.
    std::size_t first = 0;
    for (const JobStands wanted : {JobStands::ready, JobStands::running})
      for (std::size_t i = plan->jobs.size(); i-- > 0;)
        if (plan->planned[i].stands == wanted && !plan->jobs[i].by_the_clock) first = i;
    view_->hold(QString::fromStdString(plan->jobs[first].id));
  }
  fill_today(*plan);
  fill_job(*plan);
  fill_skipped();
}

void PlanPage::fill_skipped() {
  const auto& skipped = plan_given_of(desk_).list.skipped;
  skipped_->clear();
  for (const assess::Job& j : skipped)
    skipped_->addItem(tr("skipped: %1 (%2)").arg(desk_.words_of(j.name), QString::fromStdString(j.note.reason)));
  skipped_->setVisible(!skipped.empty());
  unskip_->setVisible(!skipped.empty());
}

void PlanPage::fill_today(const assess::Plan& plan) {
  // Without dates, or on a day that is over or not worked, the next on which something is to be done.
  const auto now = assess::today_of(plan);
  int day = now.value_or(0);
  const auto open_on = [&](int d) {
    std::vector<std::size_t> out;
    for (const std::size_t i : assess::jobs_on(plan, d))
      if (plan.planned[i].stands != JobStands::done) out.push_back(i);
    return out;
  };
  const int today = day;
  while (day < plan.days() && (open_on(day).empty() || !plan.worked(day)))
    ++day;
  const QString name = desk_.words_of(assess::day_name(plan, day));
  if (day >= plan.days()) {
    today_head_->setText(tr("Nothing left to do"));
    today_->clear();
    return;
  }
  today_head_->setText(now && day == today ? tr("Today, %1").arg(name) : tr("Next, %1").arg(name));
  const Tokens& t = desk_.look().tokens();
  QString out = "<table cellspacing='0' cellpadding='3'>";
  QStringList waits;
  for (const std::size_t i : open_on(day)) {
    if (plan.jobs[i].by_the_clock) { // nobody does it: it passes
      waits << desk_.words_of(plan.jobs[i].name).toHtmlEscaped();
      continue;
    }
    const assess::PlannedJob& p = plan.planned[i];
    const int minute = assess::clock_minute(plan, std::max(p.start, 24.0 * day));
    QStringList who;
    for (const std::string& one : p.who)
      who << QString::fromStdString(one).toHtmlEscaped();
    const QString when = p.start < 24.0 * day - 1e-9
                             ? QString("…")
                             : QString("%1:%2").arg(minute / 60, 2, 10, QChar('0')).arg(minute % 60, 2, 10, QChar('0'));
    const QString held = p.held_by ? tr("held by %1").arg(desk_.words_of(*p.held_by)).toHtmlEscaped() : QString();
    out += QString("<tr><td><b>%1</b></td><td><a href='%2' style='color:%3;text-decoration:none'>%4</a> "
                   "<span style='color:%5'>%6</span> <span style='color:%7'>%8</span></td></tr>")
               .arg(when, QString::fromStdString(plan.jobs[i].id).toHtmlEscaped(), t.ink.name(),
                    (p.stands == JobStands::running ? QString("▶ ") : QString()) +
                        desk_.words_of(plan.jobs[i].name).toHtmlEscaped(),
                    t.second.name(), who.join(", "), t.stop.name(), held);
  }
  out += "</table>";
  if (!waits.isEmpty())
    out +=
        QString("<span style='color:%1'>%2</span>").arg(t.second.name(), tr("by the clock: %1").arg(waits.join(", ")));
  today_->setText(out);
}

void PlanPage::fill_job(const assess::Plan& plan) {
  const assess::Job* j = held();
  for (QWidget* one :
       std::initializer_list<QWidget*>{begin_, done_, skip_, split_, more_, forget_, about_, moves_, name_})
    one->setVisible(j != nullptr);
  note_->setVisible(j && j->note_index != assess::Job::no_note);
  learn_->setVisible(j && j->note.took && j->from == assess::JobFrom::rule);
  if (!j) return;
  name_->setText(desk_.words_of(j->name));
  name_->setFixedHeight(2 * name_->fontMetrics().lineSpacing()); // whether its name takes one line or two
  about_->setText(about(plan, *j));
  begin_->setEnabled(j->state() == build::JobState::open);
  done_->setEnabled(j->state() != build::JobState::done);
  skip_->setEnabled(j->state() == build::JobState::open && j->from != assess::JobFrom::own);
  split_->setEnabled(j->state() == build::JobState::open && !j->by_the_clock && j->hours > 0.1);
  more_->setEnabled(j->note_index == assess::Job::no_note);
  forget_->setText(j->from == assess::JobFrom::own ? tr("Remove") : tr("As designed"));
  forget_->setEnabled(j->note_index != assess::Job::no_note);
  if (const QString path = note_path(*j); !path.isEmpty()) {
    for (const auto& [field, key] : fields_) {
      field->bind(path + "." + key);
      const bool dated = plan.first_day.has_value();
      const QString k(key);
      field->setVisible((k != "name" || j->from == assess::JobFrom::own) &&
                        (dated || (k != "not_before" && k != "began" && k != "ended")));
    }
    place_->bind(path + ".place");
  }

  later_->start(); // what it would move takes another plan: once the typing rests
}

QString PlanPage::about(const assess::Plan& plan, const assess::Job& job) const {
  const assess::PlannedJob& p = plan.planned[*plan.find(job.id)];
  const Tokens& t = desk_.look().tokens();
  const auto word = [&](const char* text) { return desk_.words_of({text, {}}); };
  const auto coloured = [](const QColor& ink, const QString& text) {
    return QString("<span style='color:%1'>%2</span>").arg(ink.name(), text.toHtmlEscaped());
  };
  const auto link = [&](const QString& to, const QString& text) {
    return QString("<a href='%1' style='color:%2'>%3</a>").arg(to.toHtmlEscaped(), t.ink.name(), text.toHtmlEscaped());
  };
  QStringList lines{coloured(t.second, desk_.words_of(job.why))};
  lines << tr("%1 · %2 to %3")
                   .arg(word(assess::name_of(p.stands)), desk_.words_of(assess::moment_name(plan, p.start)),
                        desk_.words_of(assess::moment_name(plan, p.end)))
                   .toHtmlEscaped() +
               " · " +
               (p.path.critical ? tr("<b>on the longest chain of jobs</b>")
                                : tr("%1 to spare unshared").arg(desk_.shown(p.path.slack * 3600, Kind::hours, 1)));
  QString takes = desk_.shown(job.hours * 3600, Kind::hours, job.by_the_clock ? 0 : 1).toHtmlEscaped() +
                  (job.hours_learned && !job.hours_told ? tr(", as this shop takes") : QString());
  takes += job.by_the_clock
               ? tr(" by the clock")
               : tr(" · %1 · %2 · %3")
                     .arg(job.people == 1 ? tr("one person") : tr("%1 people").arg(job.people),
                          word(build::name_of(job.place)),
                          job.skill == build::Skill::none ? tr("anybody") : word(build::name_of(job.skill)));
  lines << takes;
  QStringList needs, after, checks;
  for (const Message* m : {&job.tools, &job.parts})
    if (!m->text.empty()) needs << desk_.words_of(*m).toHtmlEscaped();
  if (!needs.isEmpty() && !job.sheet.empty()) needs << tr("its drawing, on Templates");
  if (!needs.isEmpty()) lines << tr("needs: %1").arg(needs.join("; "));
  for (const std::string& id : job.after)
    if (const auto b = plan.find(id)) after << link(QString::fromStdString(id), desk_.words_of(plan.jobs[*b].name));
  if (!after.isEmpty()) lines << tr("after: %1").arg(after.join(", "));
  for (const std::string& id : job.checks)
    checks << "◆ " + link("check:" + QString::fromStdString(id), desk_.words_of(assess::check_name(id)));
  if (!checks.isEmpty()) lines << checks.join(" ");
  if (p.held_by) lines << coloured(t.stop, tr("held by %1").arg(desk_.words_of(*p.held_by)));
  if (!job.note.taken_by.empty())
    lines << coloured(t.caution,
                      tr("taken on by %1 before everything was ready: %2")
                          .arg(QString::fromStdString(job.note.taken_by), QString::fromStdString(job.note.taken_why)));
  lines << coloured(t.second, tr("called %1 where jobs are typed").arg(QString::fromStdString(job.id)));
  return lines.join("<br>");
}

/// What it would move to be a day late, and what goes on meanwhile.
void PlanPage::fill_moves() {
  const auto& made = plan_of(desk_);
  const assess::Job* j = held();
  if (!j || !isVisible()) return;
  const assess::Plan& plan = *made;
  const std::size_t at = *plan.find(j->id);
  const assess::PlannedJob& p = plan.planned[at];
  const QString ink = desk_.look().tokens().ink.name();
  QStringList lines;
  if (p.stands != JobStands::done) {
    if (const auto moved = assess::what_moves(plan_given_of(desk_), plan, at, 8)) {
      if (moved->jobs.empty() && moved->whole < told_hours)
        lines << tr("Eight hours more of it move nothing.");
      else if (moved->whole < told_hours) // the longest chain, and yet other jobs can make room
        lines << tr("Eight hours more of it move %1 jobs; done in another order they end no later.")
                     .arg(moved->jobs.size());
      else
        lines << tr("Eight hours more of it move %1 jobs, the end by %2.")
                     .arg(moved->jobs.size())
                     .arg(desk_.shown(std::max(0.0, moved->whole) * 3600, Kind::hours, 0));
    }
  }
  if (j->wait > 0 || j->by_the_clock) {
    QStringList names;
    for (const std::size_t i : assess::meanwhile(plan, at))
      names << QString("<a href='%1' style='color:%2'>%3</a>")
                   .arg(QString::fromStdString(plan.jobs[i].id).toHtmlEscaped(), ink,
                        desk_.words_of(plan.jobs[i].name).toHtmlEscaped());
    if (const auto more = names.size() - 4; more > 1) names = names.mid(0, 4) << tr("and %1 more").arg(more);
    lines << (names.isEmpty() ? tr("Nothing can go on meanwhile.") : tr("Meanwhile: %1").arg(names.join(", ")));
  }
  moves_->setText(lines.join("<br>"));
}

void PlanPage::write_csv() {
  const auto& plan = plan_of(desk_);
  if (!plan) return desk_.tell(desk_.words_of(plan.error()));
  save_csv(tr("Write the plan"), report::plan_csv(*plan));
}

void PlanPage::write_sheets() {
  const auto& plan = plan_of(desk_);
  if (!plan) return desk_.tell(desk_.words_of(plan.error()));
  const QString to = QFileDialog::getSaveFileName(this, tr("Job sheets for the wall"), {}, tr("PDF (*.pdf)"));
  if (to.isEmpty() || desk_.refuses_to_write(to.toStdString())) return;
  const int today = assess::today_of(*plan).value_or(0);
  const auto sheets = report::job_sheets(fit_up_of(desk_), *plan, checks_of(desk_), cut_list_of(desk_),
                                         routes_of(desk_), desk_.prefs(), today);
  const auto done = write_leaves(sheets.leaves, QString::fromStdString(desk_.build().job.car), to.toStdString());
  desk_.tell(done ? tr("Written: %1, %2 pages").arg(to).arg(*done) : desk_.words_of(done.error()));
}

} // namespace mavrel::app
