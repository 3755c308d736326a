#include "app/stages/faults/practise_page.h"

#include "app/desk/bench.h"
#include "app/desk/clock.h"
#include "app/desk/played_rig.h"
#include "app/kit/hold_bar.h"
#include "app/kit/list_table.h"
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

std::optional<PracticeScore> PractisePage::Scoring::answer(const Given& given, const RunControl& control) {
  return assess::score(given.shop, given.asked, given.done, given.named, control.stop);
}

PractisePage::PractisePage(Desk& desk, FaultAnswers& answers, QWidget* parent)
    : PlainPage(desk, parent), answers_(answers), scoring_(desk.runner(), [this] { scored(); }),
      sound_(new FaultSound(this)), seed_(new QSpinBox(this)), level_(new QComboBox(this)), test_(new QComboBox(this)),
      where_(new QComboBox(this)), cause_(new QComboBox(this)), cause_where_(new QComboBox(this)),
      second_(new QComboBox(this)), second_where_(new QComboBox(this)), circuit_(new QComboBox(this)),
      begin_(new QPushButton(tr("Take this car"), this)), listen_(new QPushButton(tr("Listen"), this)),
      do_(new QPushButton(tr("Do it"), this)), name_(new QPushButton(tr("Name it"), this)),
      rig_(new QPushButton(tr("Work its valves"), this)), summary_(new QLabel(this)), told_(new QLabel(this)),
      minutes_(new QLabel(this)), score_(new QLabel(this)), link_words_(new QLabel(this)), weak_(new QLabel(this)),
      found_(
          list_table("practice_found", tr("What was done and found"), {tr("done"), tr("minutes"), tr("found")}, this)),
      steps_(list_table("practice_steps", tr("What it was worth"),
                        {tr("test"), tr("minutes"), tr("odds of what it was"), tr("first then")}, this)),
      fill_(new HoldBar(desk, this)), vent_(new HoldBar(desk, this)), named_box_(new QWidget(this)),
      rig_box_(new QWidget(this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const both = column();
  summary_->setWordWrap(true);
  both->addWidget(summary_);
  auto* head = new QHBoxLayout;
  head->setSpacing(u);
  head->addWidget(new QLabel(tr("car number"), this));
  seed_->setObjectName("practice_seed");
  seed_->setAccessibleName(tr("Number of the car: the same number is the same car for everybody"));
  seed_->setToolTip(seed_->accessibleName());
  seed_->setRange(1, 999999);
  head->addWidget(seed_);
  level_->setObjectName("practice_level");
  level_->setAccessibleName(tr("How hard"));
  for (std::size_t i = 0; i < practice_levels; ++i)
    level_->addItem(desk_.words_of({level_name(static_cast<PracticeLevel>(i)), {}}));
  head->addWidget(level_);
  begin_->setObjectName("practice_begin");
  head->addWidget(begin_);
  head->addStretch(1);
  rig_->setObjectName("practice_rig");
  head->addWidget(rig_);
  listen_->setObjectName("practice_listen");
  head->addWidget(listen_);
  both->addLayout(head);
  told_->setObjectName("practice_told");
  told_->setWordWrap(true);
  told_->setTextFormat(Qt::RichText);
  both->addWidget(told_);

  auto* valves = new QHBoxLayout(rig_box_);
  valves->setContentsMargins(0, 0, 0, 0);
  valves->setSpacing(u);
  circuit_->setAccessibleName(tr("Corner that is worked"));
  valves->addWidget(circuit_);
  fill_->setObjectName("practice_fill");
  vent_->setObjectName("practice_vent");
  fill_->setMinimumWidth(desk_.look().px(110));
  vent_->setMinimumWidth(desk_.look().px(110));
  valves->addWidget(fill_);
  valves->addWidget(vent_);
  link_words_->setObjectName("practice_link");
  link_words_->setWordWrap(true);
  valves->addWidget(link_words_, 1);
  both->addWidget(rig_box_);

  auto* acts = new QHBoxLayout;
  acts->setSpacing(u);
  test_->setObjectName("practice_test");
  test_->setAccessibleName(tr("What to do"));
  test_->setMaxVisibleItems(24);
  where_->setObjectName("practice_where");
  where_->setAccessibleName(tr("Where"));
  do_->setObjectName("practice_do");
  acts->addWidget(test_, 1);
  acts->addWidget(where_);
  acts->addWidget(do_);
  minutes_->setObjectName("practice_minutes");
  acts->addWidget(minutes_);
  both->addLayout(acts);
  found_->setWordWrap(true);
  both->addWidget(found_, 3);

  auto* naming = new QHBoxLayout(named_box_);
  naming->setContentsMargins(0, 0, 0, 0);
  naming->setSpacing(u);
  naming->addWidget(new QLabel(tr("it is"), this));
  const struct {
    QComboBox *box, *where;
    const char* name;
  } named_rows[] = {{cause_, cause_where_, "practice_cause"}, {second_, second_where_, "practice_second"}};
  for (const auto& row : named_rows) {
    row.box->setObjectName(row.name);
    row.where->setObjectName(QString(row.name) + "_where");
    row.box->setAccessibleName(row.box == cause_ ? tr("What it is") : tr("What it is besides"));
    row.where->setAccessibleName(tr("Where"));
    row.box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    row.box->setMinimumContentsLength(14);
    row.box->setMaxVisibleItems(24);
    naming->addWidget(row.box, 1);
    naming->addWidget(row.where);
    connect(row.box, &QComboBox::currentIndexChanged, this, [this, row] { show_named(row.box, row.where); });
    show_named(row.box, row.where);
  }
  name_->setObjectName("practice_name");
  naming->addWidget(name_);
  both->addWidget(named_box_);
  score_->setObjectName("practice_score");
  score_->setWordWrap(true);
  score_->setTextFormat(Qt::RichText);
  both->addWidget(score_);
  steps_->setWordWrap(false);
  steps_->verticalHeader()->setDefaultSectionSize(desk_.look().px(21));
  both->addWidget(steps_, 3);
  weak_->setObjectName("practice_weak");
  weak_->setWordWrap(true);
  weak_->setProperty("quiet", true);
  both->addWidget(weak_);
  found_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  found_->horizontalHeader()->setSectionResizeMode(2, QHeaderView::Stretch);

  connect(begin_, &QPushButton::clicked, this, &PractisePage::begin);
  connect(test_, &QComboBox::currentIndexChanged, this, &PractisePage::show_tests);
  connect(do_, &QPushButton::clicked, this, &PractisePage::do_test);
  connect(name_, &QPushButton::clicked, this, &PractisePage::name_it);
  connect(listen_, &QPushButton::clicked, this, [this] {
    if (!car_) return;
    const QByteArray wave = sound_of(car_->told());
    if (wave.isEmpty())
      desk_.tell(tr("Nothing of what is told can be heard."));
    else if (!FaultSound::can_play())
      desk_.tell(tr("There is nothing here to play a sound with; all of it stands in words."));
    else
      sound_->play(wave);
  });
  connect(rig_, &QPushButton::clicked, this, &PractisePage::put_on_rig);
  Bench& bench = Bench::of(desk_);
  connect(&bench, &Bench::told, this, &PractisePage::refresh_link);
  connect(&bench, &Bench::changed, this, &PractisePage::refresh_link);
  const auto hold = [this](control::ValveOrder way) {
    if (circuit_->currentIndex() >= 0) Bench::of(desk_).hold(circuit_->currentText(), way);
  };
  connect(fill_, &HoldBar::pressed, this, [hold] { hold(control::ValveOrder::fill); });
  connect(vent_, &HoldBar::pressed, this, [hold] { hold(control::ValveOrder::vent); });
  for (HoldBar* bar : {fill_, vent_})
    connect(bar, &HoldBar::released, this, [this] { Bench::of(desk_).release(); });
  connect(&answers_, &FaultAnswers::changed, this, &PractisePage::refresh);
  refresh();
}

void PractisePage::begin() {
  shop_ = answers_.shop();
  if (!shop_) return desk_.tell(tr("This car is not worked out yet."));
  scoring_.forget();
  kept_ = false;
  done_.clear();
  car_ = std::make_unique<PracticeCar>(shop_, PracticeAsked{static_cast<std::uint64_t>(seed_->value()),
                                                            static_cast<PracticeLevel>(level_->currentIndex())});
  // What can be wrong with a car of these parts.
  for (QComboBox* box : {cause_, second_}) {
    box->clear();
    box->addItem(box == cause_ ? tr("…") : tr("and nothing else"), QString());
    for (const FaultCause& cause : fault_causes())
      if (can_have(shop_->table.car().parts, cause)) box->addItem(desk_.words_of({cause.name, {}}), QString(cause.key));
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

void PractisePage::show_named(QComboBox* cause, QComboBox* where) {
  where->clear();
  const FaultCause* row = fault_cause(cause->currentData().toString().toStdString());
  where->setVisible(row && row->places != FaultPlaces::car);
  if (!row) return;
  for (std::size_t i = 0; i < places_of(row->places); ++i)
    where->addItem(desk_.words_of({place_name(row->places, i), {}}));
}

std::optional<FaultAt> PractisePage::named(QComboBox* cause, QComboBox* where) const {
  const FaultCause* row = fault_cause(cause->currentData().toString().toStdString());
  if (!row) return std::nullopt;
  return FaultAt{row, static_cast<std::size_t>(std::max(0, where->currentIndex()))};
}

void PractisePage::name_it() {
  if (!car_ || scoring_.was_asked()) return;
  std::vector<FaultAt> names;
  for (const auto& [cause, where] : {std::pair(cause_, cause_where_), {second_, second_where_}})
    if (const auto one = named(cause, where)) names.push_back(*one);
  if (names.empty()) return desk_.tell(tr("Say what it is first."));
  scoring_.ask({shop_, car_->asked(), done_, std::move(names)});
  refresh();
}

void PractisePage::scored() {
  const auto& answer = scoring_.answer();
  if (answer && *answer && !kept_) {
    kept_ = true;
    auto record = kept_record();
    if (record.size() >= report::most_practised) record.erase(record.begin());
    record.push_back(report::entry_of(**answer, car_->asked(), desk_.build().job.car, work::moment_text(clock_now())));
    const QString file = practice_record_file();
    QDir().mkpath(QFileInfo(file).path());
    if (const auto done = write_atomically(file.toStdString(), report::record_text(record)); !done)
      desk_.tell(tr("How you did could not be kept: %1").arg(desk_.words_of(done.error())));
  }
  refresh();
}

void PractisePage::put_on_rig() {
  if (!car_) return;
  const QString hidden = QString("%1:%2").arg(car_->asked().seed).arg(level_key(car_->asked().level));
  if (const auto why = PlayedRig::of(desk_).practise(hidden)) desk_.tell(*why);
}

void PractisePage::refresh_link() {
  if (!isVisible()) return;
  Bench& bench = Bench::of(desk_);
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
  found_->setFont(desk_.look().font(TextSize::small));
  found_->setRowCount(static_cast<int>(done_.size()));
  double minutes = 0;
  for (int r = 0; r < found_->rowCount(); ++r) {
    const TestDone& test = done_[static_cast<std::size_t>(r)];
    minutes += test.at.test->minutes;
    put_cell(found_, r, 0, desk_.words_of(test_words(test.at)), t.ink);
    put_cell(found_, r, 1, QString::number(minutes, 'f', 0), t.second);
    put_cell(found_, r, 2, desk_.words_of(found_words(test.found)), t.ink, true);
  }
  found_->resizeRowsToContents();
  if (!done_.empty()) found_->scrollToBottom();
  minutes_->setText(tr("%1 min gone").arg(minutes, 0, 'f', 0));
}

void PractisePage::fill_score() {
  const Tokens& t = desk_.look().tokens();
  const auto& answer = scoring_.answer();
  const PracticeScore* s = answer && *answer ? &**answer : nullptr;
  score_->setVisible(scoring_.was_asked());
  steps_->setVisible(s != nullptr);
  if (!s) {
    score_->setText(scoring_.is_running() ? tr("The best way to it is looked for …") : QString());
    return;
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
  steps_->setFont(desk_.look().font(TextSize::small));
  steps_->setRowCount(static_cast<int>(s->steps.size() + s->best.size() + 2));
  int r = 0;
  const auto put = [&](const QString& head, const std::vector<PracticeStep>& steps) {
    put_cell(steps_, r, 0, head, t.front);
    for (int c = 1; c < 4; ++c)
      put_cell(steps_, r, c, QString(), t.ink);
    ++r;
    double minutes = 0;
    for (const PracticeStep& step : steps) {
      minutes += step.at.test->minutes;
      put_cell(steps_, r, 0, "   " + desk_.words_of(test_words(step.at)), t.ink);
      put_cell(steps_, r, 1, QString::number(minutes, 'f', 0), t.second);
      put_cell(steps_, r, 2,
               tr("%1 → %2").arg(desk_.shown(step.before, Kind::share, 0), desk_.shown(step.after, Kind::share, 0)),
               step.after > step.before + 0.01 ? t.good : t.second);
      put_cell(steps_, r, 3, desk_.words_of(fault_words(step.first)), t.second, true);
      ++r;
    }
  };
  put(tr("What you did"), s->steps);
  put(tr("The best that was to be had"), s->best);
}

void PractisePage::fill() {
  const PracticeShopPtr now = answers_.shop();
  const auto trouble = answers_.trouble();
  QString text;
  if (trouble)
    text = tr("This car can’t be practised on yet: %1").arg(desk_.words_of(*trouble));
  else if (!now && !car_)
    text = tr("How this car answers to each fault is worked out …");
  else if (!car_)
    text = tr("Something is the matter with %1, and nobody says what. The same number gives the same car to a whole "
              "class.")
               .arg(desk_.build().job.car.empty() ? tr("this car") : QString::fromStdString(desk_.build().job.car));
  summary_->setText(text);
  summary_->setVisible(!text.isEmpty());
  begin_->setEnabled(now != nullptr);
  const bool open = car_ && !scoring_.was_asked();
  for (QWidget* w : std::initializer_list<QWidget*>{test_, do_, name_, cause_, second_, listen_, rig_})
    w->setEnabled(open);
  listen_->setEnabled(car_ != nullptr);
  named_box_->setVisible(car_ != nullptr);
  found_->setVisible(car_ != nullptr);
  fill_told();
  fill_found();
  fill_score();
  refresh_link();
  const auto record = kept_record();
  const auto weak = report::weak_at(record);
  QStringList said;
  for (const auto& w : weak)
    said << tr("%1: %2 of %3 right, score %4")
                .arg(desk_.words_of({family_name(w.family), {}}))
                .arg(w.right)
                .arg(w.cars)
                .arg(desk_.shown(w.share, Kind::share, 0));
  weak_->setText(said.isEmpty() ? QString() : tr("Weakest first: %1").arg(said.mid(0, 4).join("; ")));
  weak_->setVisible(!said.isEmpty());
}

} // namespace mavrel::app
