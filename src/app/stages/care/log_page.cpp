#include "app/stages/care/log_page.h"

#include "app/desk/clock.h"
#include "app/kit/list_table.h"
#include "app/kit/plain.h"
#include "app/stages/care/edits.h"
#include "assess/care/log_table.h"
#include "build/edit.h"
#include "build/list_edit.h"
#include "build/names.h"
#include "build/names_care.h"
#include "file/text_file.h"

#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <numeric>

namespace mavrel::app {

using build::LogKind;

namespace {

constexpr std::size_t most_table = 8U << 20U;

QString what_shown(const Desk& desk, const build::LogEntry& e) {
  const char* name = nullptr;
  if (e.kind == LogKind::work)
    if (const auto* row = assess::care_task(e.what)) name = row->name;
  if (e.kind == LogKind::event)
    if (const auto* row = assess::care_event(e.what)) name = row->name;
  if (e.kind == LogKind::reading)
    if (const auto* row = assess::care_reading(e.what)) name = row->name;
  return name ? desk.words_of({name, {}}) : QString::fromStdString(e.what);
}

QString figures_shown(const Desk& desk, const build::LogEntry& e) {
  QStringList out;
  if (e.height) out << desk.shown(*e.height, Kind::length, 1);
  if (e.pressure) out << desk.shown(*e.pressure, Kind::pressure, 2);
  if (e.temperature) out << desk.shown(*e.temperature, Kind::temperature);
  if (e.seconds) out << desk.shown(*e.seconds, Kind::time);
  if (e.hourly_loss) out << Desk::tr("%1 an hour").arg(desk.shown(*e.hourly_loss, Kind::share, 2));
  if (e.odometer) out << desk.shown(*e.odometer, Kind::distance);
  if (e.water) out << Desk::tr("%1 water").arg(desk.shown(*e.water, Kind::mass, 2));
  return out.join(" · ");
}

QString where_shown(const std::string& where) {
  if (where == "front") return Desk::tr("front");
  if (where == "rear") return Desk::tr("rear");
  if (where == "front_left") return "FL";
  if (where == "front_right") return "FR";
  if (where == "rear_left") return "RL";
  if (where == "rear_right") return "RR";
  return QString::fromStdString(where);
}

} // namespace

LogEntryBox::LogEntryBox(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), kind_(new QComboBox(this)), what_(new QComboBox(this)), where_(new QComboBox(this)),
      day_(new QLineEdit(this)), text_(new QLineEdit(this)), by_(new QLineEdit(this)),
      write_(new QPushButton(tr("Write it"), this)) {
  const int u = desk_.look().unit();
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(u);
  grid->setVerticalSpacing(2);
  const auto put = [&](QWidget* widget, const QString& caption, const char* name, int row, int column, int span = 1) {
    auto* label = new PlainLabel(caption, this);
    label->setProperty("quiet", true);
    label->setFont(desk_.look().font(TextSize::small));
    widget->setObjectName(name);
    widget->setAccessibleName(caption);
    grid->addWidget(label, row, column, 1, span);
    grid->addWidget(widget, row + 1, column, 1, span);
    return label;
  };
  day_->setMinimumWidth(desk_.look().px(84));
  for (QComboBox* box : {kind_, what_, where_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(6);
  }
  put(day_, tr("day"), "log_day", 0, 0);
  put(kind_, tr("kind"), "log_kind", 0, 1);
  put(what_, tr("what"), "log_what", 0, 2, 2);
  put(where_, tr("where"), "log_where", 0, 4);
  put(by_, tr("by"), "log_by", 0, 5);
  const struct {
    const char* field;
    QString name;
  } fields[] = {{"odometer_m", tr("odometer")}, {"height_m", tr("height")},
                {"pressure_pa", tr("gauge")},   {"temperature_k", tr("thermometer")},
                {"seconds_s", tr("took")},      {"hourly_loss", tr("lost an hour")},
                {"water_kg", tr("water")}};
  int column = 0;
  for (const auto& f : fields) {
    auto* edit = new QLineEdit(this);
    QLabel* caption = put(edit, f.name, (std::string("log_") + f.field).c_str(), 2, column++);
    numbers_.push_back({f.field, caption, edit});
    edit->setMinimumWidth(desk_.look().px(40));
    connect(edit, &QLineEdit::returnPressed, this, &LogEntryBox::write);
  }
  put(text_, tr("remark"), "log_text", 4, 0, 6);
  write_->setObjectName("log_write");
  grid->addWidget(write_, 5, 6);
  for (const auto& row : build::names_of(LogKind{}))
    kind_->addItem(desk_.words_of({row.name, {}}), static_cast<int>(row.value));
  where_->addItem(tr("the car"), "");
  for (const char* key : {"front", "rear", "front_left", "front_right", "rear_left", "rear_right"})
    where_->addItem(where_shown(key), key);
  connect(kind_, &QComboBox::currentIndexChanged, this, &LogEntryBox::show_kinds);
  connect(write_, &QPushButton::clicked, this, &LogEntryBox::write);
  connect(text_, &QLineEdit::returnPressed, this, &LogEntryBox::write);
  show_kinds();
}

LogKind LogEntryBox::kind() const {
  return static_cast<LogKind>(kind_->currentData().toInt());
}

void LogEntryBox::show_kinds() {
  what_->clear();
  const auto add = [&](const auto& rows) {
    for (const auto& row : rows)
      what_->addItem(desk_.words_of({row.name, {}}), row.key);
  };
  if (kind() == LogKind::work) add(assess::care_tasks());
  if (kind() == LogKind::event) add(assess::care_events());
  if (kind() == LogKind::reading) add(assess::care_readings());
  what_->setEnabled(what_->count() > 0);
}

void LogEntryBox::refresh() {
  day_->setPlaceholderText(QString::fromStdString(work::day_text(clock_now().day)));
}

void LogEntryBox::write() {
  build::LogEntry entry;
  entry.kind = kind();
  entry.what = what_->currentData().toString().toStdString();
  entry.where = where_->currentData().toString().toStdString();
  const QString day = day_->text().trimmed();
  if (!day.isEmpty() && !work::parse_moment(day.toStdString())) {
    desk_.tell(tr("“%1” is no day. One such as 2026-11-26 is right, with a time or without.").arg(day));
    return day_->setFocus();
  }
  entry.day = day.isEmpty() ? work::moment_text(clock_now()) : day.toStdString();
  entry.by = by_->text().trimmed().left(40).toStdString();
  entry.text = text_->text().trimmed().left(1000).toStdString();
  // What is typed goes through the document's own fields, which know their units and what is right.
  build::Build build = desk_.build();
  auto longer = build::with_entry(build, "care.log", entry);
  if (!longer) return desk_.tell(desk_.words_of(longer.error()));
  build::Build typed = std::move(*longer);
  const std::size_t place = typed.care->log.size() - 1;
  for (const Number& n : numbers_) {
    if (n.edit->text().trimmed().isEmpty()) continue;
    auto next = build::with_text(typed, QString("care.log.%1.%2").arg(place).arg(n.field).toStdString(),
                                 n.edit->text().toStdString(), desk_.prefs());
    if (!next) {
      desk_.tell(desk_.words_of(next.error()));
      return n.edit->setFocus();
    }
    typed = std::move(*next);
  }
  entry = std::as_const(typed).care->log[place];
  if (const auto trouble = assess::trouble_of(entry)) return desk_.tell(desk_.words_of(*trouble));
  if (!add_to_log(desk_, std::move(entry))) return;
  for (const Number& n : numbers_)
    n.edit->clear();
  text_->clear();
  desk_.tell(tr("Written into the log."));
}

LogPage::LogPage(Desk& desk, QWidget* parent) : Page(desk, parent), entry_(new LogEntryBox(desk, this)) {
  summary_ = words("log_summary", TextSize::normal);
  column()->addWidget(summary_);
  list_ = table("care_log", tr("Logbook"), {tr("what"), tr("day"), tr("where"), tr("figures and words"), tr("by")});
  list_->stretch(3); // words take what room is left
  column()->addWidget(list_, 1);
  auto* foot = row(column());
  save_ = button(foot, tr("Save as a table …"), "log_save",
                 [this] { save_csv(tr("Logbook"), assess::log_table(desk_.build().care->log)); });
  button(foot, tr("Take in a table …"), "log_read", [this] {
    const QString from = QFileDialog::getOpenFileName(this, tr("Logbook"), {}, tr("Tables (*.csv)"));
    if (!from.isEmpty()) read_table(from);
  });
  foot->addStretch(1);
  remove_ = button(foot, tr("Remove"), "log_remove", [this] { remove(); });
  column()->addWidget(entry_);
}

void LogPage::read_table(const QString& file) {
  const auto text = read_text(file.toStdString(), most_table);
  if (!text) return desk_.tell(desk_.words_of(text.error()));
  const auto entries = assess::read_log_table(*text);
  if (!entries) return desk_.tell(tr("%1: %2").arg(QFileInfo(file).fileName(), desk_.words_of(entries.error())));
  build::Build build = desk_.build();
  const auto joined = assess::joined_log(build.care->log, *entries);
  if (!joined) return desk_.tell(desk_.words_of(joined.error()));
  const auto more = joined->size() - build.care->log.size();
  build.care.own().log = *joined;
  desk_.edit(tr("Take in a logbook"), std::move(build));
  desk_.tell(tr("Entries taken in: %1. Those that stood here already were passed over.").arg(more));
}

bool LogPage::go_to(const QString& path) {
  const QStringList steps = path.split('.');
  if (steps.size() < 3 || steps[0] != "care" || steps[1] != "log") return Page::go_to(path);
  for (std::size_t r = 0; r < shown_.size(); ++r)
    if (shown_[r] == steps[2].toUInt()) list_->hold(r);
  list_->setFocus();
  return true;
}

void LogPage::remove() {
  if (const auto row = list_->held(); row && *row < shown_.size())
    desk_.remove_entry(tr("Remove from the log"), QString("care.log.%1").arg(shown_[*row]));
}

void LogPage::fill() {
  const Tokens& t = desk_.look().tokens();
  entry_->refresh();
  const auto& log = desk_.build().care->log;
  shown_.resize(log.size());
  std::iota(shown_.begin(), shown_.end(), 0);
  std::stable_sort(shown_.begin(), shown_.end(), [&](std::size_t a, std::size_t b) { return log[a].day > log[b].day; });
  list_->fill(log.size(), [&](std::size_t r, ListTable::Row& row) {
    const build::LogEntry& e = log[shown_[r]];
    const QString sign = e.kind == LogKind::event     ? "▲ "
                         : e.kind == LogKind::work    ? "| "
                         : e.kind == LogKind::reading ? "· "
                                                      : "  ";
    const QString what = what_shown(desk_, e);
    QStringList said;
    if (const QString figures = figures_shown(desk_, e); !figures.isEmpty()) said << figures;
    if (!e.text.empty()) said << QString::fromStdString(e.text);
    row.words(sign + (what.isEmpty() ? desk_.words_of({build::name_of(e.kind), {}}) : what),
              e.kind == LogKind::event ? t.stop : t.ink)
        .words(QString::fromStdString(e.day), t.second)
        .words(where_shown(e.where), t.second)
        .words(said.join(" · "), t.ink)
        .words(QString::fromStdString(e.by), t.second);
  });
  summary_->setText(
      log.empty()
          ? tr("Nothing is in the log yet. What is read, done or happens is written below; it is saved with the car.")
          : tr("Entries: %1, the newest above.").arg(log.size()));
  remove_->setEnabled(!log.empty());
  save_->setEnabled(!log.empty());
}

} // namespace mavrel::app
