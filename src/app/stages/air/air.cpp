#include "app/stages/air/air.h"

#include "app/desk/desk.h"
#include "app/stages/air/kit_page.h"
#include "app/stages/air/lift_page.h"
#include "app/stages/air/room_page.h"
#include "app/stages/air/run_view.h"
#include "app/stages/air/sizing_page.h"
#include "app/stages/air/wet_page.h"
#include "app/stages/air/wiring_page.h"
#include "file/text_file.h"
#include "report/air_sheet.h"
#include "shelf/leak_csv.h"
#include "shelf/part_file.h"

#include <QFileDialog>
#include <QFileInfo>

namespace mavrel::app {

namespace {
constexpr int lift_page = 0, kit_page = 1, sizing_page = 2, wet_page = 3, wiring_page = 4, room_page = 5;
}

AirStage::AirStage(Desk& desk, QWidget* parent) : PagedStage(desk, parent) {
  add_page<LiftPage>(tr("A lift"), lift_, [this] { return new LiftPage(desk_, this); });
  add_page<KitPage>(tr("The kit"), kit_, [this] { return new KitPage(desk_, this); });
  add_page<SizingPage>(tr("Sizing"), sizing_, [this] { return new SizingPage(desk_, this); });
  add_page<WetPage>(tr("Water and leaks"), wet_, [this] { return new WetPage(desk_, this); });
  add_page<WiringPage>(tr("Wiring"), wiring_, [this] { return new WiringPage(desk_, this); });
  add_page<RoomPage>(tr("Room"), room_, [this] { return new RoomPage(desk_, this); });
}

bool AirStage::takes_arrows() const {
  return page() == room_page || (page() == lift_page && lift_->run()->hasFocus());
}

bool AirStage::owns(const QString& path) const {
  if (path.startsWith("body.boot") || path.startsWith("body.well") || path.startsWith("body.hot")) return true;
  return path.startsWith("variants.") && (path.contains(".air.") || path.contains(".brief.air"));
}

bool AirStage::go_to(const QString& path) {
  const std::pair<int, const char*> places[] = {{sizing_page, ".brief.air.rise"},
                                                {sizing_page, ".brief.air.lifts"},
                                                {sizing_page, ".brief.air.ready"},
                                                {sizing_page, ".brief.air.current"},
                                                {sizing_page, ".brief.air.sound"},
                                                {sizing_page, ".brief.air.room"},
                                                {wiring_page, ".battery_at."},
                                                {wiring_page, ".feeds"},
                                                {wiring_page, ".volts"},
                                                {wiring_page, ".drop_allowed"},
                                                {wiring_page, ".stagger_s"},
                                                {room_page, "_at."},
                                                {room_page, "body."},
                                                {wet_page, "surroundings."},
                                                {wet_page, ".humidity"}};
  int there = kit_page;
  for (const auto& [at, part] : places)
    if (path.contains(part)) {
      there = at;
      break;
    }
  show_page(there);
  switch (there) {
  case sizing_page:
    return sizing_->go_to(path);
  case wiring_page:
    return wiring_->go_to(path);
  case room_page:
    return room_->go_to(path);
  case wet_page:
    return wet_->go_to(path);
  default:
    return kit_->go_to(path);
  }
}

std::vector<Command> AirStage::commands() {
  std::vector<Command> out = page_commands(tr("Air"));
  out.push_back({Command::Menu::file, tr("Write the move as CSV …"), {}, [this] {
                   emit called();
                   show_page(lift_page);
                   lift_->write_csv();
                 }});
  out.push_back({Command::Menu::file, tr("Take in air parts …"), {}, [this] {
                   const QString file =
                       QFileDialog::getOpenFileName(this, tr("Air parts"), {}, tr("Air parts (*.parts.json)"));
                   if (!file.isEmpty()) take_parts(file);
                 }});
  out.push_back({Command::Menu::file, tr("Write the kit's parts …"), {}, [this] { write_parts(); }});
  out.push_back({Command::Menu::file, tr("Write the kit list as CSV …"), {}, [this] { write_kit(); }});
  return out;
}

void AirStage::take_parts(const QString& file) {
  const QString name = QFileInfo(file).fileName();
  const auto text = read_text(file.toStdString(), shelf::part_file_limit);
  if (!text) return desk_.tell(desk_.words_of(text.error()));
  const auto parts = shelf::read_parts(*text);
  if (!parts) return desk_.tell(tr("%1: %2").arg(name, desk_.words_of(parts.error())));
  const auto kept = desk_.cards().keep(*parts);
  if (!kept) return desk_.tell(desk_.words_of(kept.error()));
  QStringList doubts;
  for (const shelf::Part& part : *parts)
    for (const Message& doubt : shelf::doubts_of_part(part))
      doubts << QString::fromStdString(part.name) + ": " + desk_.words_of(doubt);
  desk_.tell(
      tr("%n parts are on your shelf. %1", nullptr, static_cast<int>(parts->size())).arg(doubts.join(" ")).trimmed());
}

void AirStage::write_parts() {
  const assess::AirGiven& air = desk_.assessment().air.given().room.air;
  std::vector<shelf::Part> parts;
  for (const auto& part : air.parts.by_role)
    if (part && std::none_of(parts.begin(), parts.end(),
                             [&](const shelf::Part& o) { return o.kind == part->kind && o.name == part->name; }))
      parts.push_back(*part);
  if (parts.empty()) return desk_.tell(tr("The kit has no parts yet."));
  const QString to =
      QFileDialog::getSaveFileName(this, tr("Write the kit's parts"), {}, tr("Air parts (*.parts.json)"));
  if (to.isEmpty() || desk_.refuses_to_write(to.toStdString())) return;
  const auto done = write_atomically(to.toStdString(), shelf::write_parts(parts));
  desk_.tell(done ? tr("Written: %1").arg(to) : desk_.words_of(done.error()));
}

void AirStage::write_kit() {
  const QString to = QFileDialog::getSaveFileName(this, tr("Write the kit list"), {}, tr("CSV (*.csv)"));
  if (to.isEmpty() || desk_.refuses_to_write(to.toStdString())) return;
  const auto done = write_atomically(to.toStdString(), report::kit_csv(desk_.assessment().air.given().room.air));
  desk_.tell(done ? tr("Written: %1").arg(to) : desk_.words_of(done.error()));
}

std::vector<Findable> AirStage::findables() {
  std::vector<Findable> out;
  for (const shelf::ShelfPart& part : desk_.shelf().parts)
    out.push_back({QString::fromStdString(part.part.name), tr(shelf::part_kind_name(part.part.kind)),
                   [this, &desk = desk_, part = part.part] {
                     emit called();
                     show_page(kit_page);
                     for (const auto& row : assess::kit_roles())
                       if (assess::kind_for(row.role, desk.build().variant().air) == part.kind) {
                         kit_->go_to(desk.resolve(QString("@.air.%1").arg(row.field)));
                         return;
                       }
                   }});
  return out;
}

QStringList AirStage::take_files(const QStringList& files) {
  QStringList taken;
  for (const QString& name : files) {
    if (name.endsWith(shelf::part_suffix, Qt::CaseInsensitive)) {
      take_parts(name);
      taken << name;
      continue;
    }
    if (!name.endsWith(".csv", Qt::CaseInsensitive)) continue;
    const auto text = read_text(name.toStdString(), 1024 * 1024);
    if (!text || !shelf::read_leak_csv(*text)) continue; // other tables are other pages'
    emit called();
    show_page(wet_page);
    wet_->take_file(name);
    taken << name;
  }
  return taken;
}

} // namespace mavrel::app
