#include "app/stages/car_in/car_in.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/page_stack.h"
#include "app/kit/plain.h"
#include "app/stages/car_in/brief_panel.h"
#include "app/stages/car_in/car_drawing.h"
#include "app/stages/car_in/edits.h"
#include "app/stages/car_in/end_drawing.h"
#include "app/stages/car_in/job_panel.h"
#include "app/stages/car_in/loads_panel.h"
#include "app/stages/car_in/tape_mode.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QTabBar>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {
enum Panel { front_end, rear_end, loads, brief, job };
} // namespace

CarInStage::CarInStage(Desk& desk, QWidget* parent)
    : StagePage(desk, parent), stack_(new PageStack(this)), survey_(new QWidget(this)), tape_(new TapeMode(desk, this)),
      title_(new PlainLabel(tr("Car in"), survey_)), about_(new PlainLabel(survey_)),
      drawing_(new CarDrawing(desk, survey_)), tabs_(new QTabBar(survey_)), panels_(new PageStack(survey_)) {
  const int u = desk_.look().unit();
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->addWidget(stack_);
  // It scrolls beside the posts, never under them.
  survey_area_ = new QWidget(stack_);
  auto* beside = new QVBoxLayout(survey_area_);
  beside->setContentsMargins(0, 0, 0, 0);
  beside->addWidget(scrolled(survey_, survey_area_));
  stack_->addWidget(survey_area_);
  stack_->addWidget(tape_);
  connect(tape_, &TapeMode::left, this, &CarInStage::leave_tape);
  about_->setWordWrap(true);
  about_->setMinimumWidth(1); // it takes as many lines as it needs
  tabs_->setUsesScrollButtons(true);
  auto* layout = new QVBoxLayout(survey_);
  layout->setContentsMargins(2 * u, u, u, u);
  layout->setSpacing(u / 2);
  about_->setProperty("quiet", true);
  auto* head = new QHBoxLayout;
  head->setSpacing(u);
  head->addWidget(title_);
  head->addWidget(about_, 1);
  auto* tape = new QPushButton(tr("Tape mode"), this);
  tape->setToolTip(tr("One reading at a time, large, keyboard only (Ctrl+T)"));
  connect(tape, &QPushButton::clicked, this, &CarInStage::begin_tape);
  head->addWidget(tape);
  layout->addLayout(head);
  layout->addWidget(drawing_, 14);
  tabs_->setObjectName("car_in_tabs");
  tabs_->setAccessibleName(tr("More readings"));
  tabs_->setExpanding(false);
  for (const QString& name : {tr("Front spring"), tr("Rear spring"), tr("Loads"), tr("Brief"), tr("Job")})
    tabs_->addTab(name);
  layout->addWidget(tabs_);
  panels_->addWidget(scrolled(new EndDrawing(desk, End::front), panels_));
  panels_->addWidget(scrolled(new EndDrawing(desk, End::rear), panels_));
  panels_->addWidget(scrolled(new LoadsPanel(desk), panels_));
  panels_->addWidget(scrolled(new BriefPanel(desk), panels_));
  panels_->addWidget(scrolled(new JobPanel(desk), panels_));
  layout->addWidget(panels_, 9);
  connect(tabs_, &QTabBar::currentChanged, this, [this](int i) {
    panels_->setCurrentIndex(i);
    if (i == front_end) desk_.set_end(End::front);
    if (i == rear_end) desk_.set_end(End::rear);
  });
  connect(&desk_, &Desk::looked_at, this, [this] {
    if (tabs_->currentIndex() <= rear_end) tabs_->setCurrentIndex(desk_.end() == End::front ? front_end : rear_end);
  });
}

void CarInStage::fill() {
  title_->setFont(desk_.look().font(TextSize::large, true));
  about_->setFont(desk_.look().font(TextSize::small));
  tabs_->setFont(desk_.look().font(TextSize::normal));
  // What the readings say together.
  const auto& a = desk_.assessment();
  const auto& load = a.loads[desk_.load_case()];
  QStringList said;
  if (load.total_mass)
    said
        << tr("%1: %2 on its wheels").arg(QString::fromStdString(load.name), desk_.shown(*load.total_mass, Kind::mass));
  if (a.cross_weight) said << tr("cross weight %1").arg(desk_.shown(*a.cross_weight, Kind::share, 1));
  if (a.floor_twist) said << tr("floor twisted %1").arg(desk_.shown(2 * std::abs(*a.floor_twist), Kind::length, 1));
  about_->setText(said.isEmpty() ? tr("as it stands on its wheels, before anything is unbolted") : said.join("  ·  "));
}

void CarInStage::reserve_right(int px) {
  const int u = desk_.look().unit();
  survey_->layout()->setContentsMargins(2 * u, u, u / 2, u);
  survey_area_->layout()->setContentsMargins(0, 0, px, 0);
  tape_->reserve_right(px);
}

std::vector<Command> CarInStage::commands() {
  return {{Command::Menu::view, tr("Tape mode"), QKeySequence("Ctrl+T"), [this] { begin_tape(); }},
          {Command::Menu::edit, tr("Add a load case"), {}, [this] {
             emit called();
             add_load_case(desk_);
           }}};
}

std::vector<Findable> CarInStage::findables() {
  std::vector<Findable> out;
  for (Field* field : survey_->findChildren<Field*>())
    out.push_back({field->edit()->accessibleName(), tr("reading"),
                   [this, path = desk_.resolve(field->path())] { emit desk_.went_to("car_in", path); }});
  return out;
}

bool CarInStage::takes_arrows() const {
  return stack_->currentWidget() == tape_;
}

void CarInStage::begin_tape() {
  emit called(); // which shows the survey
  stack_->setCurrentWidget(tape_);
  tape_->begin();
  emit band_moved();
}

void CarInStage::leave_tape() {
  if (!takes_arrows()) return;
  stack_->setCurrentWidget(survey_area_);
  emit band_moved();
}

int CarInStage::panel_of(const QString& path) const {
  if (path.startsWith("load_cases.")) return loads;
  if (path.contains(".brief.")) return brief;
  if (path.startsWith("job.") || path.startsWith("surroundings.")) return job;
  return -1;
}

bool CarInStage::go_to(const QString& path) {
  leave_tape();
  // `tape:front.left.height_m;rear.spring_length_m`: to be taken again, one after the other.
  if (path.startsWith("tape:")) {
    if (!tape_->begin_with(path.mid(5).split(';'))) {
      desk_.tell(tr("None of these is taken in tape mode; the cycle sheet has its own on Swing."));
      return true;
    }
    stack_->setCurrentWidget(tape_);
    emit band_moved();
    return true;
  }
  if (path.startsWith("load_cases.")) desk_.set_load_case(static_cast<std::size_t>(path.section('.', 1, 1).toInt()));
  if (const int panel = panel_of(path); panel >= 0) tabs_->setCurrentIndex(panel);
  for (Field* field : survey_->findChildren<Field*>()) {
    if (desk_.resolve(field->path()) != path) continue;
    // A field on one of the spring panels: that panel first.
    for (int i = 0; i < panels_->count(); ++i)
      if (panels_->widget(i)->isAncestorOf(field)) tabs_->setCurrentIndex(i);
    field->edit()->setFocus(Qt::OtherFocusReason);
    return true;
  }
  return false;
}

} // namespace mavrel::app
