#include "app/stages/clearance/clearance.h"

#include "app/desk/desk.h"
#include "app/kit/chips.h"
#include "app/stages/clearance/fits_page.h"
#include "app/stages/clearance/ground_page.h"
#include "app/stages/clearance/near_page.h"
#include "app/stages/clearance/section_view.h"
#include "app/stages/clearance/windows_page.h"
#include "build/names.h"
#include "build/profile_csv.h"
#include "file/text_file.h"

#include <QLabel>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace mavrel::app {

using build::at;

ClearanceStage::ClearanceStage(Desk& desk, QWidget* parent)
    : StagePage(parent), desk_(desk), ends_(new Chips(desk, tr("End"), 80, this)),
      pages_(new Chips(desk, tr("Page"), 130, this)), title_(new QLabel(this)), about_(new QLabel(this)),
      stack_(new QStackedWidget(this)), near_(new NearPage(desk, this)), fits_(new FitsPage(desk, this)),
      ground_(new GroundPage(desk, this)), windows_(new WindowsPage(desk, this)) {
  const int u = desk_.look().unit();
  about_->setProperty("quiet", true);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(2 * u, u, 0, u);
  layout->setSpacing(u / 2);
  auto* head = new QHBoxLayout;
  head->setSpacing(u);
  head->setContentsMargins(0, 0, u, 0);
  head->addWidget(ends_);
  title_->hide(); // the chips say it
  about_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  head->addWidget(pages_);
  head->addWidget(about_, 1);
  layout->addLayout(head);
  layout->addWidget(stack_, 1);
  stack_->addWidget(near_);
  stack_->addWidget(fits_);
  stack_->addWidget(ground_);
  stack_->addWidget(windows_);
  connect(ends_, &Chips::chosen, this, [this](int i) { desk_.set_end(static_cast<End>(i)); });
  connect(pages_, &Chips::chosen, this, &ClearanceStage::show_page);
  connect(near_, &NearPage::band_moved, this, &StagePage::band_moved);
  connect(ground_, &GroundPage::band_moved, this, &StagePage::band_moved);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &ClearanceStage::refresh);
  refresh();
}

void ClearanceStage::show_page(int page) {
  stack_->setCurrentIndex(page);
  refresh();
  emit band_moved();
}

void ClearanceStage::refresh() {
  const Look& look = desk_.look();
  const End end = desk_.end();
  ends_->show_choices({tr("Front"), tr("Rear")}, static_cast<int>(at(end)));
  pages_->show_choices({tr("Near the wheel"), tr("What would fit"), tr("The ground"), tr("The window")},
                       stack_->currentIndex());
  title_->setFont(look.font(TextSize::large, true));
  title_->setText(end == End::front ? tr("Front") : tr("Rear"));
  about_->setFont(look.font(TextSize::small));
  const auto& given = desk_.answered(end).given().clearance.given();
  about_->setText(given.wheel.empty() ? tr("no tyre and wheel entered") : QString::fromStdString(given.wheel));
}

std::optional<std::pair<int, int>> ClearanceStage::band() const {
  std::pair<int, int> band;
  const QWidget* page = stack_->currentWidget();
  if (page == near_)
    band = near_->band();
  else if (page == ground_)
    band = ground_->band();
  else
    return std::nullopt;
  const int y = page->mapTo(this, QPoint(0, 0)).y();
  return std::pair{y + band.first, y + band.second};
}

bool ClearanceStage::reads_across() const {
  return stack_->currentWidget() == near_ || stack_->currentWidget() == ground_;
}

void ClearanceStage::reserve_right(int px) {
  near_->reserve_right(px);
  fits_->reserve_right(px);
  ground_->reserve_right(px);
  windows_->reserve_right(px);
}

bool ClearanceStage::takes_arrows() const {
  const QWidget* page = stack_->currentWidget();
  if (page == near_) return near_->takes_arrows();
  if (page == ground_) return ground_->takes_arrows();
  return page == fits_;
}

std::vector<Command> ClearanceStage::commands() {
  std::vector<Command> out;
  const auto page = [&](const QString& name, int index, const QKeySequence& keys) {
    out.push_back({Command::Menu::view, name, keys, [this, index] {
                     emit called();
                     show_page(index);
                   }});
  };
  page(tr("Clearance: near the wheel"), 0, {});
  page(tr("Clearance: what would fit"), 1, {});
  page(tr("Clearance: the ground"), 2, {});
  page(tr("Why not lower"), 3, {});
  const auto near = [&](const QString& name, const QKeySequence& keys, std::function<void()> act) {
    out.push_back({Command::Menu::view, name, keys, [this, act = std::move(act)] {
                     emit called();
                     show_page(0);
                     act();
                   }});
  };
  near(tr("Steer further left"), QKeySequence("Ctrl+["), [this] { near_->steer_by(0.25); });
  near(tr("Steer further right"), QKeySequence("Ctrl+]"), [this] { near_->steer_by(-0.25); });
  near(tr("Tyre and wheel"), {}, [this] { near_->show_panel(1); });
  near(tr("Room wanted"), {}, [this] { near_->show_panel(2); });
  return out;
}

bool ClearanceStage::owns(const QString& path) const {
  for (const char* part : {".obstacles", ".arch", ".thickness", ".brief.rooms", ".brief.grounds", "body.underside",
                           ".lip_rolled_m", ".front.checks", ".rear.checks", ".legal_height_m"})
    if (path.contains(part)) return true;
  return path.startsWith("variants.") && (path.endsWith(".wheel") || path.endsWith(".tyre_width_m"));
}

bool ClearanceStage::go_to(const QString& path) {
  // The end it is about goes in front.
  for (const End end : build::both_ends)
    if (path.startsWith(QString(build::key_of(end)) + ".") || path.contains(QString(".%1.").arg(build::key_of(end))))
      desk_.set_end(end);
  if (path.startsWith("body.underside") || path.contains(".brief.grounds")) {
    show_page(2);
    return ground_->go_to(path);
  }
  show_page(0);
  return near_->go_to(path);
}

QStringList ClearanceStage::take_files(const QStringList& files) {
  QStringList taken;
  for (const QString& name : files) {
    if (!name.endsWith(".csv", Qt::CaseInsensitive)) continue;
    // A profile says so in its head; of other sheets other pages know more.
    const auto text = read_text(name.toStdString(), 1024 * 1024);
    if (!text || !build::is_profile_csv(*text)) continue;
    emit called();
    show_page(2);
    ground_->take_file(name);
    taken << name;
  }
  return taken;
}

} // namespace mavrel::app
