#include "app/stages/car_in/job_panel.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "build/names.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>

namespace mavrel::app {

JobPanel::JobPanel(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, desk_.look().unit() / 2, 0, 0);
  grid->setSpacing(desk_.look().unit());
  const auto add = [&](const char* path, const QString& caption, int row, int column, int span = 1) {
    grid->addWidget(new Field(desk_, path, caption, this), row, column, 1, span);
  };
  add("job.car", tr("car"), 0, 0, 2);
  add("job.number", tr("job number"), 0, 2);
  add("job.owner", tr("owner"), 1, 0);
  add("job.platform", tr("platform"), 1, 1);
  add("job.shop", tr("shop"), 1, 2);
  add("job.notes", tr("notes"), 2, 0, 3);
  add("surroundings.altitude_m", tr("shop's height above the sea"), 3, 0);
  add("surroundings.temperature_k", tr("air temperature"), 3, 1);
  auto* style = new QComboBox(this);
  style->setAccessibleName(tr("Body style"));
  style->setProperty("path", "body.style");
  style->setToolTip(tr("Body style: how the car is drawn"));
  for (const auto& row : build::names_of(build::BodyStyle{}))
    style->addItem(tr(row.name), QString(row.key));
  connect(style, &QComboBox::activated, this, [this, style] {
    if (const auto wrong = desk_.type("body.style", style->currentData().toString())) desk_.refuse(*wrong);
  });
  const auto show = [this, style] { style->setCurrentIndex(static_cast<int>(desk_.build().body.style)); };
  connect(&desk_, &Desk::changed, this, show);
  show();
  grid->addWidget(style, 3, 2, Qt::AlignBottom);
  grid->setRowStretch(4, 1);
}

} // namespace mavrel::app
