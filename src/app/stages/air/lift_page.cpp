#include "app/stages/air/lift_page.h"

#include "app/kit/chips.h"
#include "app/kit/choice_box.h"
#include "app/stages/air/lift_plot.h"
#include "app/stages/air/run_view.h"
#include "file/text_file.h"
#include "report/air_json.h"

#include <QComboBox>
#include <QFileDialog>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

LiftPage::LiftPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), answer_(desk.runner(), [this] { refresh(); }), run_(new RunView(desk, this)),
      from_(new QComboBox(this)), to_(new QComboBox(this)),
      order_(new ChoiceBox(desk, "@.air.order", tr("Order of corners"), rows_of(build::MoveOrder{}), this)),
      engine_(new QPushButton(tr("Engine runs"), this)), turn_(new QPushButton(tr("Turn round"), this)),
      csv_(new QPushButton(tr("CSV …"), this)), throttled_(new QLabel(this)), arrow_(new QLabel("→", this)),
      plot_(new LiftPlot(desk, this)), strip_(new LiftStrip(desk, *plot_, this)),
      what_(new Chips(desk, tr("Shown under the heights"), 100, this)), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  auto* top = new QHBoxLayout;
  top->setContentsMargins(0, 0, u, 0);
  top->addWidget(run_);
  layout->addLayout(top);
  auto* row = new QHBoxLayout;
  row->setSpacing(u / 2);
  from_->setObjectName("lift_from");
  from_->setAccessibleName(tr("From preset"));
  to_->setObjectName("lift_to");
  to_->setAccessibleName(tr("To preset"));
  row->addWidget(from_);
  row->addWidget(arrow_);
  row->addWidget(to_);
  turn_->setObjectName("turn_round");
  row->addWidget(turn_);
  order_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
  order_->setMinimumContentsLength(16);
  row->addWidget(order_);
  engine_->setObjectName("engine");
  engine_->setCheckable(true);
  engine_->setToolTip(tr("The compressor may run while the car moves"));
  row->addWidget(engine_);
  row->addStretch(1);
  row->addWidget(what_);
  csv_->setObjectName("lift_csv");
  row->addWidget(csv_);
  row->addSpacing(u);
  layout->addLayout(row);
  throttled_->setTextFormat(Qt::PlainText);
  throttled_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  throttled_->setObjectName("throttled");
  layout->addWidget(throttled_);
  auto* below = new QHBoxLayout;
  below->setSpacing(0);
  auto* plots = new QVBoxLayout;
  plots->setSpacing(0);
  plots->addWidget(plot_, 1);
  plots->addWidget(strip_);
  below->addLayout(plots, 1);
  below->addWidget(beside_);
  layout->addLayout(below, 1);
  connect(plot_, &LiftPlot::band_moved, this, &LiftPage::band_moved);
  connect(from_, &QComboBox::activated, this, &LiftPage::ask);
  connect(to_, &QComboBox::activated, this, &LiftPage::ask);
  connect(engine_, &QPushButton::toggled, this, &LiftPage::ask);
  connect(turn_, &QPushButton::clicked, this, [this] {
    show_move(static_cast<std::size_t>(to_->currentIndex()), static_cast<std::size_t>(from_->currentIndex()));
  });
  connect(csv_, &QPushButton::clicked, this, &LiftPage::write_csv);
  connect(what_, &Chips::chosen, this, [this](int i) {
    strip_->show_what(static_cast<LiftStrip::What>(i));
    refresh();
  });
  for (const auto signal : {&Desk::changed, &Desk::looked_at})
    connect(&desk_, signal, this, &LiftPage::ask);
  connect(&desk_, &Desk::restyled, this, &LiftPage::refresh);
  ask();
}

std::pair<int, int> LiftPage::band() const {
  const auto [top, bottom] = plot_->band();
  const int y = plot_->mapTo(this, QPoint(0, 0)).y();
  return {y + top, y + bottom};
}

void LiftPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

void LiftPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  ask();
}

const assess::Lift* LiftPage::lift() const {
  return shown_ ? &*shown_ : nullptr;
}

void LiftPage::show_move(std::size_t from, std::size_t to) {
  from_->setCurrentIndex(static_cast<int>(from));
  to_->setCurrentIndex(static_cast<int>(to));
  ask();
}

void LiftPage::ask() {
  const assess::AirGiven& air = air_of(desk_);
  QStringList names;
  for (const std::string& name : air.presets)
    names << QString::fromStdString(name);
  QStringList shown;
  for (int i = 0; i < from_->count(); ++i)
    shown << from_->itemText(i);
  if (shown != names) {
    const auto lift = assess::wished_lift(air);
    for (QComboBox* box : {from_, to_}) {
      box->clear();
      box->addItems(names);
    }
    from_->setCurrentIndex(lift ? static_cast<int>(lift->first) : 0);
    to_->setCurrentIndex(lift ? static_cast<int>(lift->second) : names.size() > 1 ? 1 : 0);
  }
  if (!isVisible()) return;
  if (names.isEmpty() || from_->currentIndex() == to_->currentIndex()) {
    shown_.reset();
    if (answer_.was_asked()) answer_.forget();
    return refresh();
  }
  assess::MoveAsked asked;
  asked.from = static_cast<std::size_t>(from_->currentIndex());
  asked.to = static_cast<std::size_t>(to_->currentIndex());
  asked.order = air.kit.order;
  asked.load_case = desk_.load_case();
  asked.engine = engine_->isChecked();
  assess::LiftGiven now{air, asked, assess::next_sizes(air, desk_.shelf())};
  if (answer_.was_asked() && !answer_.keep_only_for(now)) return refresh();
  answer_.ask(std::move(now));
}

void LiftPage::refresh() {
  const Look& look = desk_.look();
  throttled_->setFont(look.font(TextSize::small));
  what_->show_choices({tr("Tank"), tr("Bags"), tr("Loads")}, static_cast<int>(strip_->what()));
  QString why;
  if (!answer_.was_asked())
    why = from_->count() == 0 ? tr("The brief wishes for no heights yet: presets are entered on Car in.")
                              : tr("Choose two different presets.");
  else if (answer_.is_running())
    why = tr("Letting the air flow …");
  else if (answer_.state() == Asking::broke_off)
    why = desk_.words_of(*answer_.trouble());
  if (answer_.answer() && *answer_.answer()) {
    const Expected<assess::Lift>& now = **answer_.answer();
    if (now) {
      shown_ = *now;
    } else {
      shown_.reset();
      why = assess::kit_begun(air_of(desk_).kit)
                ? desk_.words_of(now.error())
                : tr("There is no air kit yet. Click the run of air above, part by part, or let Sizing find one.");
    }
  } else if (!answer_.is_running()) {
    shown_.reset();
  }
  plot_->show_lift(lift(), why);
  strip_->show_lift(lift());
  run_->show_throttles(shown_ ? &shown_->throttles : nullptr);
  csv_->setEnabled(lift() != nullptr);
  QStringList parts;
  if (lift())
    for (const assess::Throttle& t : lift()->throttles) {
      if (parts.size() == 3) break;
      QString one = tr("%1 %2").arg(QString::fromStdString(t.name), desk_.shown(t.share, Kind::share));
      if (!t.next.empty() && t.seconds_won)
        one += tr(" (%1 would win %2)")
                   .arg(QString::fromStdString(t.next), desk_.shown(std::max(0.0, *t.seconds_won), Kind::time, 2));
      parts << one;
    }
  throttled_->setText(parts.isEmpty() ? QString() : tr("What throttles it: %1").arg(parts.join(" · ")));
  throttled_->setToolTip(throttled_->text());
}

void LiftPage::write_csv() {
  if (!lift()) return;
  const QString to = QFileDialog::getSaveFileName(this, tr("Write the move"), {}, tr("CSV (*.csv)"));
  if (to.isEmpty() || desk_.refuses_to_write(to.toStdString())) return;
  if (const auto done = write_atomically(to.toStdString(), report::lift_csv(*lift())); !done)
    desk_.tell(desk_.words_of(done.error()));
  else
    desk_.tell(tr("Written: %1").arg(to));
}

} // namespace mavrel::app
