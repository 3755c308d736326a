#include "app/desk/edits.h"

#include "assess/end/end_answer.h"
#include "build/names.h"

#include <QCoreApplication>

#include <algorithm>

namespace mavrel::app {

using build::at;

namespace {
QString tr(const char* text) {
  return QCoreApplication::translate("edits", text);
}
QString low_name(End end) {
  return QString(build::name_of(end)).toLower();
}
} // namespace

void drag_preset(Desk& desk, std::size_t preset, End end, double H, const QString& gesture) {
  if (preset >= desk.build().variant().brief.presets.size()) return; // it went while its flag was held
  build::Build next = desk.build();
  build::Preset& moved = next.variant().brief.presets[preset];
  const auto& e = desk.assessment().end(end);
  moved.wish[at(end)] =
      assess::wish_for_height(H, moved.wish[at(end)].value_or(build::HeightWish{}), e.surveyed_height, e.tyre_radius);
  const QString name = QString::fromStdString(moved.name);
  desk.edit(tr("Move %1 %2").arg(low_name(end), name), std::move(next), gesture);
}

void add_preset(Desk& desk) {
  build::Preset preset{tr("Preset %1").arg(desk.build().variant().brief.presets.size() + 1).toStdString(),
                       build::PresetUse::other,
                       {},
                       {},
                       {}};
  for (const End end : build::both_ends)
    if (const auto H = desk.pose(end)) preset.wish[at(end)] = build::HeightWish{build::HeightWish::As::height, *H, {}};
  desk.add_entry(tr("Add a preset"), "@.brief.presets", std::move(preset));
}

void remove_preset(Desk& desk, std::size_t index) {
  const auto& presets = desk.build().variant().brief.presets;
  if (index >= presets.size()) return;
  desk.remove_entry(tr("Remove preset %1").arg(QString::fromStdString(presets[index].name)),
                    QString("@.brief.presets.%1").arg(index));
}

QString free_letter(const Desk& desk) {
  const auto& all = desk.build().variants;
  for (char letter = 'A'; letter < 'Z'; ++letter)
    if (std::none_of(all.begin(), all.end(), [&](const build::Variant& v) { return v.name.starts_with(letter); }))
      return QString(QChar(letter));
  return QString(QChar('Z'));
}

bool take_variant(Desk& desk, build::Variant variant) {
  if (variant.name.empty()) variant.name = free_letter(desk).toStdString();
  const QString name = QString::fromStdString(variant.name);
  desk.document().settle(Unfinished::give_up);
  auto next = build::with_entry(desk.build(), "variants", std::move(variant));
  if (!next) {
    desk.tell(desk.words_of(next.error()));
    return false;
  }
  desk.edit(tr("Go on with variant %1").arg(name), build::with_active(*next, next->variants.size() - 1));
  return true;
}

void add_variant(Desk& desk) {
  desk.document().settle(Unfinished::give_up); // the copy has what was just typed
  build::Variant copy = desk.build().variant();
  copy.name.clear();
  take_variant(desk, std::move(copy));
}

void remove_variant(Desk& desk, std::size_t index) {
  if (index >= desk.build().variants.size()) return;
  desk.remove_entry(tr("Remove variant %1").arg(QString::fromStdString(desk.build().variants[index].name)),
                    QString("variants.%1").arg(index));
}

void use_variant(Desk& desk, std::size_t index) {
  if (index == desk.build().active_variant || index >= desk.build().variants.size()) return;
  desk.document().settle(Unfinished::give_up);
  desk.document().look(build::with_active(desk.build(), index));
}

} // namespace mavrel::app
