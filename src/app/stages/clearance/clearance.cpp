#include "app/stages/clearance/clearance.h"

#include "app/kit/chips.h"
#include "app/stages/clearance/fits_page.h"
#include "app/stages/clearance/ground_page.h"
#include "app/stages/clearance/near_page.h"
#include "app/stages/clearance/section_view.h"
#include "app/stages/clearance/windows_page.h"
#include "build/names.h"
#include "build/profile_csv.h"
#include "file/text_file.h"

#include <QHBoxLayout>
#include <QLabel>

namespace mavrel::app {

using build::at;

ClearanceStage::ClearanceStage(Desk& desk, QWidget* parent)
    : PagedStage(desk, parent), ends_(new Chips(desk, tr("End"), 80, this)), about_(quiet()) {
  head()->insertWidget(0, ends_);
  about_->setWordWrap(false);
  head()->insertWidget(2, about_, 1);
  add_page(tr("Near the wheel"), near_);
  add_page(tr("What would fit"), fits_);
  add_page(tr("The ground"), ground_, {"body.underside", ".brief.grounds"});
  add_page(tr("The window"), windows_);
  connect(ends_, &Chips::chosen, this, [this](int i) { desk_.set_end(static_cast<End>(i)); });
}

void ClearanceStage::fill() {
  PagedStage::fill();
  const End end = desk_.end();
  ends_->show_choices({tr("Front"), tr("Rear")}, static_cast<int>(at(end)));
  const auto& wheel = desk_.answered(end).given().clearance.given().wheel;
  about_->setText(wheel.empty() ? tr("no tyre and wheel entered") : QString::fromStdString(wheel));
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
  return PagedStage::go_to(path);
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
