#include "app/stages/faults/practise_page.h"

#include "app/desk/bench_link.h"
#include "app/desk/clock.h"
#include "app/desk/played_rig.h"
#include "app/kit/hold_bar.h"
#include "app/kit/list_table.h"
#include "app/kit/plain.h"
#include "app/stages/faults/sound.h"
#include "file/text_file.h"

#include <QComboBox>
#include <QDir>
#include <QFileInfo>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <QStandardPaths>
#include <QVBoxLayout>

namespace mavrel::app {

using namespace assess;

namespace {

constexpr std::size_t most_record = 4U << 20U; // bytes

std::vector<report::PracticeEntry> kept_record() {
  const auto text = read_text(practice_record_file().toStdString(), most_record);
  if (!text) return {};
  const auto entries = report::read_record(*text);
  return entries ? *entries : std::vector<report::PracticeEntry>();
}

} // namespace

QString practice_record_file() {
  return QDir(QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation)).filePath("mavrel/practice.json");
}

PractisePage::PractisePage(Desk& desk, QWidget* parent)
    : Page(desk, parent), scoring_(desk.answers(), [this] { scored(); }), sound_(new FaultSound(this)) {
  summary_ = words("practice_summary", TextSize::normal);
  column()->addWidget(summary_);
  make_head();
  told_ = words("practice_told", TextSize::normal);
  told_->setTextFormat(Qt::RichText);
  column()->addWidget(told_);
  make_rig();
  make_tests();
  make_naming();
  score_ = words("practice_score", TextSize::normal);
  score_->setTextFormat(Qt::RichText);
  column()->addWidget(score_);
  steps_ = table("practice_steps", tr("What it was worth"),
                 {tr("test"), tr("minutes"), tr("odds of what it was"), tr("first then")});
  steps_->verticalHeader()->setDefaultSectionSize(desk_.look().px(21));
  column()->addWidget(steps_, 3);
  weak_ = quiet();
  weak_->setObjectName("practice_weak");
  column()->addWidget(weak_);
  BenchLink& bench = BenchLink::of(desk_);
  connect(&bench, &BenchLink::told, this, &PractisePage::refresh_link);
  connect(&bench, &BenchLink::changed, this, &PractisePage::refresh_link);
}

void PractisePage::make_head() {
  auto* head = row(column());
  head->addWidget(new PlainLabel(tr("car number"), this));
  seed_ = new QSpinBox(this);
  seed_->setObjectName("practice_seed");
  seed_->setAccessibleName(tr("Number of the car: the same number is the same car for everybody"));
  seed_->setToolTip(seed_->accessibleName());
  seed_->setRange(1, 999999);
  head->addWidget(seed_);
  level_ = new QComboBox(this);
  level_->setObjectName("practice_level");
  level_->setAccessibleName(tr("How hard"));
  for (std::size_t i = 0; i < practice_levels; ++i)
    level_->addItem(desk_.words_of({level_name(static_cast<PracticeLevel>(i)), {}}));
  level_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  level_->setMinimumContentsLength(10);
  head->addWidget(level_);
  begin_ = button(head, tr("Take this car"), "practice_begin", [this] { begin(); });
  head->addStretch(1);
  rig_ = button(head, tr("Work its valves"), "practice_rig", [this] { put_on_rig(); });
  listen_ = button(head, tr("Listen"), "practice_listen", [this] { listen(); });
}

void PractisePage::make_rig() {
  rig_box_ = new QWidget(this);
  auto* valves = new QHBoxLayout(rig_box_);
  valves->setContentsMargins(0, 0, 0, 0);
  valves->setSpacing(desk_.look().unit());
  circuit_ = new QComboBox(this);
  circuit_->setAccessibleName(tr("Corner that is worked"));
  valves->addWidget(circuit_);
  fill_ = new HoldBar(desk_, this);
  vent_ = new HoldBar(desk_, this);
  for (const auto& [bar, name, order] : {std::tuple{fill_, "practice_fill", control::ValveOrder::fill},
                                         std::tuple{vent_, "practice_vent", control::ValveOrder::vent}}) {
    bar->setObjectName(name);
    bar->setMinimumWidth(desk_.look().px(110));
    valves->addWidget(bar);
    connect(bar, &HoldBar::pressed, this, [this, way = order] {
      if (circuit_->currentIndex() >= 0) BenchLink::of(desk_).hold(circuit_->currentText(), way);
    });
    connect(bar, &HoldBar::released, this, [this] { BenchLink::of(desk_).release(); });
  }
  link_words_ = words("practice_link", TextSize::normal);
  valves->addWidget(link_words_, 1);
  column()->addWidget(rig_box_);
}

void PractisePage::make_tests() {
  auto* acts = row(column());
  test_ = new QComboBox(this);
  test_->setObjectName("practice_test");
  test_->setAccessibleName(tr("What to do"));
  test_->setMaxVisibleItems(24);
  where_ = new QComboBox(this);
  where_->setObjectName("practice_where");
  where_->setAccessibleName(tr("Where"));
  acts->addWidget(test_, 1);
  acts->addWidget(where_);
  do_ = button(acts, tr("Do it"), "practice_do", [this] { do_test(); });
  minutes_ = words("practice_minutes", TextSize::normal);
  minutes_->setWordWrap(false);
  acts->addWidget(minutes_);
  found_ = table("practice_found", tr("What was done and found"), {tr("done"), tr("minutes"), tr("found")});
  found_->setWordWrap(true);
  found_->stretch(2);
  column()->addWidget(found_, 3);
  connect(test_, &QComboBox::currentIndexChanged, this, &PractisePage::show_tests);
}

void PractisePage::make_naming() {
  named_box_ = new QWidget(this);
  auto* line = new QHBoxLayout(named_box_);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(desk_.look().unit());
  line->addWidget(new PlainLabel(tr("it is"), this));
  const std::pair<const char*, QString> names[] = {{"practice_cause", tr("What it is")},
                                                   {"practice_second", tr("What else it is")}};
  for (std::size_t i = 0; i < naming_.size(); ++i) {
    Naming& naming = naming_[i];
    naming = {new QComboBox(this), new QComboBox(this)};
    naming.cause->setObjectName(names[i].first);
    naming.cause->setAccessibleName(names[i].second);
    naming.cause->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    naming.cause->setMinimumContentsLength(14);
    naming.cause->setMaxVisibleItems(24);
    naming.where->setObjectName(QString(names[i].first) + "_where");
    naming.where->setAccessibleName(tr("Where"));
    line->addWidget(naming.cause, 1);
    line->addWidget(naming.where);
    connect(naming.cause, &QComboBox::currentIndexChanged, this, [this, i] { show_named(naming_[i]); });
    show_named(naming);
  }
  name_ = button(line, tr("Name it"), "practice_name", [this] { name_it(); });
  column()->addWidget(named_box_);
}

void PractisePage::listen() {
  if (!car_) return;
  const QByteArray wave = sound_of(car_->told());
  if (wave.isEmpty()) return desk_.tell(tr("Nothing of what is told can be heard."));
  if (!FaultSound::can_play())
    return desk_.tell(tr("There is nothing here to play a sound with; all of it stands in words."));
  sound_->play(wave);
}

void PractisePage::begin() {
  shop_ = fault_car_of(desk_);
  if (!shop_) return desk_.tell(tr("This car is not worked out yet."));
  scoring_.forget();
  kept_ = false;
  done_.clear();
  car_ = std::make_unique<PracticeCar>(shop_, PracticeAsked{static_cast<std::uint64_t>(seed_->value()),
                                                            static_cast<PracticeLevel>(level_->currentIndex())});
  // What can be wrong with a car of these parts.
  for (const Naming& naming : naming_) {
    naming.cause->clear();
    naming.cause->addItem(&naming == &naming_[0] ? tr("…") : tr("and nothing else"), QString());
    for (const FaultCause& cause : fault_causes())
      if (can_have(shop_->table.car().parts, cause))
        naming.cause->addItem(desk_.words_of({cause.name, {}}), QString(cause.key));
  }
  test_->clear();
  for (const FaultTest& test : fault_tests())
    if (can_do(shop_->table.car().parts, test))
      test_->addItem(tr("%1 – %2 min").arg(desk_.words_of({test.name, {}})).arg(test.minutes), QString(test.key));
  refresh();
}

void PractisePage::show_tests() {
  where_->clear();
  const FaultTest* test = fault_test(test_->currentData().toString().toStdString());
  if (!test) return;
  for (std::size_t i = 0; i < places_of(test->places); ++i)
    where_->addItem(test->places == FaultPlaces::car ? tr("the car")
                                                     : desk_.words_of({place_name(test->places, i), {}}));
  where_->setEnabled(where_->count() > 1);
  test_->setToolTip(desk_.words_of({test->how, {}}));
}

void PractisePage::do_test() {
  const FaultTest* test = fault_test(test_->currentData().toString().toStdString());
  if (!car_ || !test || scoring_.was_asked()) return;
  const TestAt at{test, static_cast<std::size_t>(std::max(0, where_->currentIndex()))};
  done_.push_back({at, car_->do_test(at)});
  refresh();
}

void PractisePage::show_named(const Naming& naming) {
  naming.where->clear();
  const FaultCause* cause = fault_cause(naming.cause->currentData().toString().toStdString());
  naming.where->setVisible(cause && cause->places != FaultPlaces::car);
  if (!cause) return;
  for (std::size_t i = 0; i < places_of(cause->places); ++i)
    naming.where->addItem(desk_.words_of({place_name(cause->places, i), {}}));
}

std::optional<FaultAt> PractisePage::named(const Naming& naming) {
  const FaultCause* cause = fault_cause(naming.cause->currentData().toString().toStdString());
  if (!cause) return std::nullopt;
  return FaultAt{cause, static_cast<std::size_t>(std::max(0, naming.where->currentIndex()))};
}

void PractisePage::name_it() {
  if (!car_ || scoring_.was_asked()) return;
  std::vector<FaultAt> names;
  for (const Naming& naming : naming_)
    if (const auto one = named(naming)) names.push_back(*one);
  if (names.empty()) return desk_.tell(tr("Say what it is first."));
  scoring_.ask({shop_, car_->asked(), done_, std::move(names)});
  refresh();
}

void PractisePage::scored() {
  if (const PracticeScore* score = scoring_.value(); score && !kept_) keep_score(*score);
  refresh();
}

/// Into the record of how one did, the oldest making room.
void PractisePage::keep_score(const PracticeScore& score) {
  kept_ = true;
  auto record = kept_record();
  if (record.size() >= report::most_practised) record.erase(record.begin());
  record.push_back(report::entry_of(score, car_->asked(), desk_.build().job.car, work::moment_text(clock_now())));
  const QString file = practice_record_file();
  QDir().mkpath(QFileInfo(file).path());
  if (const auto done = write_atomically(file.toStdString(), report::record_text(record)); !done)
    desk_.tell(tr("How you did could not be kept: %1").arg(desk_.words_of(done.error())));
}

void PractisePage::put_on_rig() {
  if (!car_) return;
  const QString hidden = QString("%1:%2").arg(car_->asked().seed).arg(level_key(car_->asked().level));
  if (const auto why = PlayedRig::of(desk_).practise(hidden)) desk_.refuse(*why);
}

void PractisePage::refresh_link() {
  if (!isVisible()) return;
  BenchLink& bench = BenchLink::of(desk_);
  const auto& hello = bench.hello();
  const link::State* state = bench.state();
  rig_box_->setVisible(car_ && hello && state);
  if (!hello || !state) return;
  QStringList names;
  for (const link::Circuit& c : hello->circuits)
    names << QString::fromStdString(c.name);
  QStringList shown;
  for (int i = 0; i < circuit_->count(); ++i)
    shown << circuit_->itemText(i);
  if (names != shown) circuit_->clear(), circuit_->addItems(names);
  fill_->show_words(tr("hold to fill"), !names.isEmpty());
  vent_->show_words(tr("hold to vent"), !names.isEmpty());
  QStringList said;
  for (std::size_t c = 0; c < 4; ++c) {
    QStringList one{link::corner_key(c)};
    if (state->height[c]) one << desk_.shown(*state->height[c], Kind::length, 0);
    if (state->pressure[c]) one << desk_.shown(*state->pressure[c], Kind::pressure, 2);
    said << one.join(" ");
  }
  if (state->tank) said << tr("tank %1").arg(desk_.shown(*state->tank, Kind::pressure, 1));
  if (state->compressor) said << (*state->compressor ? tr("compressor runs") : tr("compressor rests"));
  link_words_->setText(said.join(" · "));
}

void PractisePage::fill_told() {
  QStringList told;
  if (car_) {
    for (const FaultFinding& f : car_->told())
      told << desk_.words_of(sign_words(f.at));
    QString text = told.isEmpty() ? tr("Its driver noticed nothing: it is here to be looked over.")
                                  : tr("<b>Its driver says:</b> %1.").arg(told.join("; ").toHtmlEscaped());
    if (car_->evidence().nothing_else) text += " " + tr("Nothing else was noticed.");
    for (const Message& tale : car_->history())
      text += "<br>“" + desk_.words_of(tale).toHtmlEscaped() + "”";
    told_->setText(text);
  }
  told_->setVisible(car_ != nullptr);
}

void PractisePage::fill_found() {
  const Tokens& t = desk_.look().tokens();
  double minutes = 0;
  found_->fill(done_.size(), [&](std::size_t r, ListTable::Row& row) {
    minutes += done_[r].at.test->minutes;
    row.words(desk_.words_of(test_words(done_[r].at)), t.ink)
        .figure(QString::number(minutes, 'f', 0), t.second)
        .words(desk_.words_of(found_words(done_[r].found)), t.ink);
  });
  found_->resizeRowsToContents();
  if (!done_.empty()) found_->scrollToBottom();
  minutes_->setText(tr("%1 min gone").arg(minutes, 0, 'f', 0));
}

void PractisePage::fill_score() {
  const Tokens& t = desk_.look().tokens();
  const PracticeScore* s = scoring_.value();
  score_->setVisible(scoring_.was_asked());
  steps_->setVisible(s != nullptr);
  if (!s) {
    const auto trouble = scoring_.trouble();
    return score_->setText(scoring_.is_running() ? tr("The best way to it is looked for …")
                           : trouble             ? desk_.words_of(*trouble).toHtmlEscaped()
                                                 : QString());
  }
  QString text = s->right    ? tr("<b>✓ Right: %1.</b>")
                 : s->partly ? tr("<b>▲ In part. It was %1.</b>")
                             : tr("<b>■ No. It was %1.</b>");
  text = text.arg(desk_.words_of(fault_words(s->truth)).toHtmlEscaped());
  text += " " + tr("%1 minutes; the best way took %2. Score %3.")
                    .arg(s->minutes, 0, 'f', 0)
                    .arg(s->best_minutes, 0, 'f', 0)
                    .arg(desk_.shown(s->share, Kind::share, 0));
  for (const FaultAt& f : s->truth)
    text += "<br>" + desk_.words_of({f.cause->seen, {}}).toHtmlEscaped();
  score_->setText(text);
  // What was done, and the best that was to be had, each under a head of its own.
  const std::vector<PracticeStep>* const parts[] = {&s->steps, &s->best};
  double minutes = 0;
  steps_->fill(s->steps.size() + s->best.size() + 2, [&](std::size_t r, ListTable::Row& row) {
    const std::size_t part = r > s->steps.size();
    const std::size_t at = part == 0 ? r : r - s->steps.size() - 1;
    if (at == 0) {
      minutes = 0;
      row.words(part == 0 ? tr("What you did") : tr("The best that could be had"), t.front);
      for (int c = 1; c < 4; ++c)
        row.figure({}, t.ink);
      return;
    }
    const PracticeStep& step = (*parts[part])[at - 1];
    minutes += step.at.test->minutes;
    row.words("   " + desk_.words_of(test_words(step.at)), t.ink)
        .figure(QString::number(minutes, 'f', 0), t.second)
        .figure(tr("%1 → %2").arg(desk_.shown(step.before, Kind::share, 0), desk_.shown(step.after, Kind::share, 0)),
                step.after > step.before + 0.01 ? t.good : t.second)
        .words(desk_.words_of(fault_words(step.first)), t.second);
  });
}

QString PractisePage::said() const {
  if (const auto trouble = trouble_of_diagnosis(desk_))
    return tr("This car can’t be practised on yet: %1").arg(desk_.words_of(*trouble));
  if (car_) return {};
  if (!fault_car_of(desk_)) return tr("How this car answers to each fault is worked out …");
  return tr("Something is the matter with %1, and nobody says what. The same number gives the same car to a whole "
            "class.")
      .arg(desk_.build().job.car.empty() ? tr("this car") : QString::fromStdString(desk_.build().job.car));
}

QString PractisePage::weak() const {
  QStringList out;
  for (const auto& w : report::weak_at(kept_record()))
    out << tr("%1: %2 of %3 right, score %4")
               .arg(desk_.words_of({family_name(w.family), {}}))
               .arg(w.right)
               .arg(w.cars)
               .arg(desk_.shown(w.share, Kind::share, 0));
  return out.isEmpty() ? QString() : tr("Weakest first: %1").arg(out.mid(0, 4).join("; "));
}

void PractisePage::fill() {
  summary_->setText(said());
  summary_->setVisible(!summary_->text().isEmpty());
  begin_->setEnabled(fault_car_of(desk_) != nullptr);
  const bool open = car_ && !scoring_.was_asked();
  for (QWidget* w : std::initializer_list<QWidget*>{test_, do_, name_, naming_[0].cause, naming_[1].cause, rig_})
    w->setEnabled(open);
  listen_->setEnabled(car_ != nullptr);
  named_box_->setVisible(car_ != nullptr);
  found_->setVisible(car_ != nullptr);
  fill_told();
  fill_found();
  fill_score();
  refresh_link();
  weak_->setText(weak());
  weak_->setVisible(!weak_->text().isEmpty());
}

} // namespace mavrel::app
