#include "app/stages/air/air.h"

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
enum AirPage { lift_page, kit_page, sizing_page, wet_page };
}

AirStage::AirStage(Desk& desk, QWidget* parent) : PagedStage(desk, parent) {
  add_page(tr("A lift"), lift_);
  add_page(tr("The kit"), kit_);
  add_page(tr("Sizing"), sizing_,
           {".brief.air.rise", ".brief.air.lifts", ".brief.air.ready", ".brief.air.current", ".brief.air.sound",
            ".brief.air.room"});
  add_page(tr("Water and leaks"), wet_, {"surroundings.", ".humidity"});
  add_page(tr("Wiring"), wiring_,
           {".battery_at.", ".feeds", ".volts", ".drop_allowed", ".stagger_s", ".battery_as", ".battery_age_s",
            ".battery_cut_v"});
  add_page(tr("Room"), room_, {"_at.", "body."});
  set_home(kit_page);
}

bool AirStage::owns(const QString& path) const {
  if (path.startsWith("body.boot") || path.startsWith("body.well") || path.startsWith("body.hot")) return true;
  return path.startsWith("variants.") && (path.contains(".air.") || path.contains(".brief.air"));
}

std::vector<Command> AirStage::commands() {
  std::vector<Command> out = page_commands(tr("Air"));
  out.push_back(file_command(tr("Write the move as CSV …"), lift_page, [this] { lift_->write_csv(); }));
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
  const assess::AirGiven& air = air_of(desk_);
  std::vector<shelf::Part> parts;
  for (const auto& part : air.parts.by_role)
    if (part && std::none_of(parts.begin(), parts.end(),
                             [&](const shelf::Part& o) { return o.kind == part->kind && o.name == part->name; }))
      parts.push_back(*part);
  if (parts.empty()) return desk_.tell(tr("The kit has no parts yet."));
  save_text(tr("Write the kit's parts"), tr("Air parts (*.parts.json)"), shelf::write_parts(parts));
}

void AirStage::write_kit() {
  save_csv(tr("Write the kit list"), report::kit_csv(air_of(desk_)));
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
