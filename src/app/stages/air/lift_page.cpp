#include "app/stages/air/lift_page.h"

#include "app/kit/chips.h"
#include "app/kit/choice_box.h"
#include "app/kit/plain.h"
#include "app/stages/air/lift_plot.h"
#include "app/stages/air/run_view.h"
#include "report/air_json.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

namespace mavrel::app {

LiftPage::LiftPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), answer_(
                              desk.answers(), [this] { refresh(); }, [this] { return given(); }),
      run_(new RunView(desk, this)), from_(new QComboBox(this)), to_(new QComboBox(this)),
      plot_(new LiftPlot(desk, this)), strip_(new LiftStrip(desk, *plot_, this)),
      what_(new Chips(desk, tr("Shown under the heights"), 100, this)) {
  const int u = desk_.look().unit();
  follow(answer_);
  set_plot(plot_);
  give_arrows_to(run_);
  auto* top = row(wide_column());
  top->setContentsMargins(0, 0, u, 0);
  top->addWidget(run_);
  auto* line = row(wide_column());
  line->setContentsMargins(0, 0, u, 0);
  from_->setObjectName("lift_from");
  from_->setAccessibleName(tr("From preset"));
  to_->setObjectName("lift_to");
  to_->setAccessibleName(tr("To preset"));
  line->addWidget(from_);
  line->addWidget(new PlainLabel("→", this));
  line->addWidget(to_);
  button(line, tr("Reverse"), "turn_round", [this] {
    show_move(static_cast<std::size_t>(to_->currentIndex()), static_cast<std::size_t>(from_->currentIndex()));
  });
  auto* order = new ChoiceBox(desk, "@.air.order", tr("Order of corners"), rows_of(build::MoveOrder{}), this);
  order->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
  order->setMinimumContentsLength(16);
  line->addWidget(order);
  engine_ = button(line, tr("Engine runs"), "engine");
  engine_->setCheckable(true);
  engine_->setToolTip(tr("The compressor may run while the car moves"));
  line->addStretch(1);
  line->addWidget(what_);
  csv_ = button(line, tr("CSV …"), "lift_csv", [this] { write_csv(); });
  throttled_ = cut_words("throttled");
  wide_column()->addWidget(throttled_);
  others_ = cut_words("other_starts");
  wide_column()->addWidget(others_);
  auto* plots = beside_posts(1);
  plots->addWidget(plot_, 1);
  plots->addWidget(strip_);
  for (QComboBox* box : {from_, to_})
    connect(box, &QComboBox::activated, this, &LiftPage::refresh);
  connect(engine_, &QPushButton::toggled, this, &LiftPage::refresh);
  connect(what_, &Chips::chosen, this, [this](int i) {
    strip_->show_what(static_cast<LiftStrip::What>(i));
    refresh();
  });
  show_presets();
}

void LiftPage::show_move(std::size_t from, std::size_t to) {
  from_->setCurrentIndex(static_cast<int>(from));
  to_->setCurrentIndex(static_cast<int>(to));
  refresh();
}

/// The presets there are; what was chosen stays chosen by its name.
void LiftPage::show_presets() {
  const assess::AirGiven& air = air_of(desk_);
  QStringList names, there;
  for (const std::string& name : air.presets)
    names << QString::fromStdString(name);
  for (int i = 0; i < from_->count(); ++i)
    there << from_->itemText(i);
  if (there == names) return;
  const auto lift = assess::wished_lift(air);
  const int usual[] = {lift ? static_cast<int>(lift->first) : 0, lift               ? static_cast<int>(lift->second)
                                                                 : names.size() > 1 ? 1
                                                                                    : 0};
  const bool as_many = there.size() == names.size(); // one was given another name
  int at = 0;
  for (QComboBox* box : {from_, to_}) {
    const int held = as_many ? box->currentIndex() : static_cast<int>(names.indexOf(box->currentText()));
    const QSignalBlocker quiet(box);
    box->clear();
    box->addItems(names);
    box->setCurrentIndex(held >= 0 ? held : usual[at]);
    ++at;
  }
}

std::optional<assess::LiftGiven> LiftPage::given() {
  show_presets();
  const assess::AirGiven& air = air_of(desk_);
  if (from_->count() == 0 || from_->currentIndex() == to_->currentIndex()) return std::nullopt;
  assess::MoveAsked asked;
  asked.from = static_cast<std::size_t>(from_->currentIndex());
  asked.to = static_cast<std::size_t>(to_->currentIndex());
  asked.order = air.kit.order;
  asked.load_case = desk_.load_case();
  asked.engine = engine_->isChecked();
  return assess::LiftGiven{air, asked, assess::next_sizes(air, desk_.shelf())};
}

QString LiftPage::why_not() const {
  switch (answer_.state()) {
  case Asking::none:
    return from_->count() == 0 ? tr("The brief wishes for no heights yet: presets are entered on Car in.")
                               : tr("Choose two different presets.");
  case Asking::running:
    return tr("Letting the air flow …");
  case Asking::refused:
    if (!assess::kit_begun(air_of(desk_).kit))
      return tr("There is no air kit yet. Click the run of air above, part by part, or let Sizing find one.");
    [[fallthrough]];
  case Asking::broke_off:
    return desk_.words_of(*answer_.trouble());
  case Asking::answered:
    break;
  }
  return {};
}

void LiftPage::fill() {
  what_->show_choices({tr("Tank"), tr("Bags"), tr("Loads")}, static_cast<int>(strip_->what()));
  const assess::Lift* shown = lift();
  plot_->show_lift(shown, why_not());
  strip_->show_lift(shown);
  run_->show_throttles(shown ? &shown->throttles : nullptr);
  csv_->setEnabled(answer_.value() != nullptr); // what is written is what is asked, not what was
  QStringList parts;
  if (shown)
    for (const assess::Throttle& t : shown->throttles) {
      if (parts.size() == 3) break;
      QString one = tr("%1 %2").arg(QString::fromStdString(t.name), desk_.shown(t.share, Kind::share));
      if (!t.next.empty() && t.seconds_won)
        one += tr(" (%1 would win %2)")
                   .arg(QString::fromStdString(t.next), desk_.shown(std::max(0.0, *t.seconds_won), Kind::time, 2));
      parts << one;
    }
  throttled_->setText(parts.isEmpty() ? QString() : tr("What throttles it: %1").arg(parts.join(" · ")));
  QStringList said;
  if (shown && shown->on_stop)
    said << tr("%1 lies on its stop after %2, %3 short of the preset.")
                .arg(tr(shown->stuck.c_str()), desk_.shown(*shown->on_stop, Kind::time, 2),
                     desk_.shown(std::abs(shown->short_by), Kind::length));
  QStringList others;
  if (shown)
    for (const assess::OtherStart& other : shown->others)
      others << (other.arrived
                     ? tr("%1 %2").arg(desk_.words_of(other.what), desk_.shown(*other.arrived, Kind::time, 2))
                     : tr("%1 never, %2 short")
                           .arg(desk_.words_of(other.what), desk_.shown(std::abs(other.short_by), Kind::length)));
  if (!others.isEmpty()) said << tr("The same %1.").arg(others.join(" · "));
  others_->setText(said.join("   "));
  others_->setVisible(!said.isEmpty());
}

void LiftPage::write_csv() {
  if (const assess::Lift* now = answer_.value()) save_csv(tr("Write the move"), report::lift_csv(*now));
}

} // namespace mavrel::app
