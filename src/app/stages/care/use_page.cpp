#include "app/stages/care/use_page.h"

#include "app/desk/clock.h"
#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/stages/care/edits.h"
#include "assess/care/care_findings.h"
#include "assess/rows.h"

#include <QCoreApplication>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {

/// What a lesson may be of: a stage, or all of it.
std::vector<ChoiceBox::Row> stage_rows() {
  std::vector<ChoiceBox::Row> out{{CarePanel::tr("all of it"), ""}};
  for (const assess::StageRow* stage : assess::all_stages())
    out.push_back({QCoreApplication::translate("stages", stage->name), stage->key});
  return out;
}

} // namespace

CarePanel::CarePanel(Desk& desk, What what, QWidget* parent) : RowPanel(desk, parent), what_(what) {
  constexpr const char* names[] = {"care_use", "care_intervals", "care_lessons"};
  setObjectName(names[static_cast<int>(what)]);
  start();
}

QString CarePanel::shape() const {
  const build::Care& care = *desk().build().care;
  switch (what_) {
  case What::use:
    return "use";
  case What::intervals: {
    QString out;
    for (const build::CareInterval& i : care.intervals)
      out += QString::fromStdString(i.task) + ';';
    return out;
  }
  case What::lessons:
    return QString::number(care.lessons.size());
  }
  return {};
}

void CarePanel::put(const QString& path, const QString& caption, int row, int column, int span) {
  auto* field = new Field(desk(), path, caption, grid()->parentWidget());
  grid()->addWidget(field, row, column, 1, span);
}

void CarePanel::add_button(const QString& text, const char* name, int row, std::function<void()> act) {
  auto* button = new QPushButton(text, grid()->parentWidget());
  button->setObjectName(name);
  connect(button, &QPushButton::clicked, this, std::move(act));
  grid()->addWidget(button, row, 0, 1, 2, Qt::AlignLeft);
}

void CarePanel::build_rows() {
  const build::Care& care = *desk().build().care;
  int row = 0;
  switch (what_) {
  case What::use: {
    put("care.from", tr("on the road since"), 0, 0);
    put("care.distance_year_m", tr("driven per year"), 0, 1);
    put("care.soon_s", tr("warn ahead by"), 0, 2);
    put("care.winter_temperature_k", tr("coldest month, mean"), 1, 0);
    put("care.winter_humidity", tr("its humidity"), 1, 1);
    put("care.summer_temperature_k", tr("warmest month, mean"), 1, 2);
    put("care.summer_humidity", tr("its humidity"), 1, 3);
    const auto yes_no = [&](const char* path, const QString& caption, int column) {
      auto* box = new QWidget(grid()->parentWidget());
      auto* lines = new QVBoxLayout(box);
      lines->setContentsMargins(0, 0, 0, 0);
      lines->setSpacing(2);
      lines->addWidget(quiet_label(caption));
      lines->addWidget(new ChoiceBox(desk(), path, caption, rows_of(build::YesNo{}), box));
      grid()->addWidget(box, 2, column, 1, 2);
    };
    yes_no("care.rests_in_winter", tr("stands over winter"), 0);
    yes_no("care.winter_in_july", tr("winter is in July"), 2);
    return;
  }
  case What::intervals:
    for (const assess::CareTask& task : assess::care_tasks()) {
      std::optional<std::size_t> place;
      for (std::size_t i = 0; i < care.intervals.size(); ++i)
        if (care.intervals[i].task == task.key) place = i;
      grid()->addWidget(quiet_label(desk().words_of({task.name, {}})), row, 0);
      if (!place) {
        auto* button = new QToolButton(grid()->parentWidget());
        button->setText(tr("Set it"));
        button->setObjectName(QString("set_%1").arg(task.key));
        button->setAccessibleName(tr("Set how often: %1").arg(desk().words_of({task.name, {}})));
        connect(button, &QToolButton::clicked, this, [this, key = std::string(task.key)] {
          build::CareInterval interval;
          interval.task = key;
          desk().add_entry(tr("Set how often"), "care.intervals", std::move(interval));
        });
        QStringList usual;
        if (task.days > 0) usual << desk().shown(task.days * 86400, Kind::days);
        if (task.distance > 0) usual << desk().shown(task.distance, Kind::distance);
        grid()->addWidget(
            quiet_label(usual.isEmpty() ? tr("worked out") : tr("usually %1").arg(usual.join(tr(" or ")))), row, 1, 1,
            3);
        grid()->addWidget(button, row++, 4);
        continue;
      }
      const QString path = QString("care.intervals.%1.").arg(*place);
      auto* wanted = new ChoiceBox(desk(), path + "wanted", desk().words_of({task.name, {}}), rows_of(build::YesNo{}),
                                   grid()->parentWidget());
      grid()->addWidget(wanted, row, 1);
      put(path + "days_s", tr("every"), row, 2);
      put(path + "distance_m", tr("or every"), row, 3);
      QToolButton* gone = remover([this, name = task.name] { return desk().words_of({name, {}}); });
      connect(gone, &QToolButton::clicked, this, [this, entry = QString("care.intervals.%1").arg(*place)] {
        desk().remove_entry(tr("As it is worked out"), entry);
      });
      grid()->addWidget(gone, row++, 4);
    }
    return;
  case What::lessons:
    const std::size_t shown = shown_of("lessons", care.lessons.size());
    for (std::size_t i = 0; i < shown; ++i) {
      const QString path = QString("care.lessons.%1.").arg(i);
      put(path + "what", tr("what had to be changed"), row, 0, 2);
      put(path + "why", tr("why"), row, 2, 2);
      put(path + "hours_s", tr("cost"), row, 4);
      put(path + "where", tr("where on the car"), row + 1, 0, 2);
      put(path + "by", tr("by"), row + 1, 2, 2);
      auto* stage =
          new ChoiceBox(desk(), path + "stage", tr("Stage that it is a lesson of"), stage_rows, grid()->parentWidget());
      grid()->addWidget(stage, row, 5, Qt::AlignBottom);
      QToolButton* gone = remover([this, i] {
        const auto& all = desk().build().care->lessons;
        return i < all.size() ? QString::fromStdString(all[i].what) : QString();
      });
      connect(gone, &QToolButton::clicked, this,
              [this, entry = path.chopped(1)] { desk().remove_entry(tr("Remove a lesson"), entry); });
      grid()->addWidget(gone, row, 6, Qt::AlignBottom);
      row += 2;
    }
    row = add_more("lessons", care.lessons.size(), row);
    for (const auto& [c, stretch] : {std::pair(0, 3), {1, 3}, {2, 3}, {3, 3}, {4, 2}, {5, 3}})
      grid()->setColumnStretch(c, stretch);
    add_button(tr("Write down a lesson"), "add_lesson", row, [this] {
      build::Lesson lesson;
      lesson.day = work::day_text(clock_now().day);
      desk().add_entry(tr("Write down a lesson"), "care.lessons", std::move(lesson));
    });
    return;
  }
}

UsePage::UsePage(Desk& desk, QWidget* parent) : Page(desk, parent), taken_box_(new QWidget(this)) {
  const int u = desk_.look().unit();
  QLabel* summary = words(nullptr, TextSize::normal);
  summary->setText(
      tr("What comes round is worked out from how the car is used and where; whatever is set here stands instead."));
  column()->addWidget(summary);
  auto* rows = new QWidget(this);
  auto* inside = new QVBoxLayout(rows);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(u);
  auto* taken = new QVBoxLayout(taken_box_);
  taken->setContentsMargins(0, 0, 0, 0);
  from_words_ = words("taken_words", TextSize::normal);
  taken->addWidget(from_words_);
  taken_ = table("taken_figures", tr("Figures of another car"), {tr("figure of another car"), tr("here")});
  taken_->setMinimumHeight(desk_.look().px(150));
  taken->addWidget(taken_);
  auto* buttons = row(taken);
  buttons->addStretch(1);
  button(buttons, tr("It is so here too"), "confirm_taken", [this] { confirm(false); });
  button(buttons, tr("All of them are"), "confirm_all_taken", [this] { confirm(true); });
  inside->addWidget(taken_box_);
  for (const auto& [name, what] :
       {std::pair{tr("Use and climate"), CarePanel::What::use}, std::pair{tr("How often"), CarePanel::What::intervals},
        std::pair{tr("Lessons for the next one"), CarePanel::What::lessons}}) {
    inside->addWidget(heading(name));
    inside->addWidget(new CarePanel(desk, what, rows));
  }
  inside->addStretch(1);
  column()->addWidget(scrolled(rows, this), 1);
}

void UsePage::confirm(bool all) {
  const auto& taken = desk_.assessment().care.given().taken;
  std::vector<std::size_t> places;
  for (std::size_t i = 0; i < taken.size(); ++i)
    if (all || taken_->held() == i) places.push_back(taken[i].place);
  if (!places.empty()) confirm_taken(desk_, std::move(places));
}

bool UsePage::go_to(const QString& path) {
  if (!path.startsWith("origin.")) return Page::go_to(path);
  taken_->setFocus();
  return true;
}

void UsePage::fill() {
  const Tokens& t = desk_.look().tokens();
  const auto& given = desk_.assessment().care.given();
  taken_box_->setVisible(!given.taken.empty());
  if (given.from_car.empty() && given.from_number.empty())
    from_words_->setText(tr("This build was begun from what such a car usually is. These figures are still usual ones: "
                            "measuring one here takes it off the list by itself."));
  else
    from_words_->setText(
        tr("This build was begun from %1 %2. These figures are still that car’s: measuring one here takes it off "
           "the list by itself.")
            .arg(QString::fromStdString(given.from_car), QString::fromStdString(given.from_number)));
  taken_->fill(given.taken.size(), [&](std::size_t r, ListTable::Row& row) {
    row.words(desk_.words_of(given.taken[r].name), t.ink).words(tr("not measured"), t.caution);
  });
}

} // namespace mavrel::app
