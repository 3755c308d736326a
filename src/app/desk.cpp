#include "app/desk.h"

#include "assess/end_model.h"
#include "build/file.h"
#include "build/names.h"
#include "shelf/card_write.h"
#include "shelf/places.h"

#include <QCoreApplication>

#include <algorithm>

namespace mavrel::app {

using build::at;

Desk::Desk(shelf::Shelf shelf, QObject* parent)
    : QObject(parent), shelf_(std::move(shelf)), history_(build::empty_build()) {
  refresh();
}

// ---- what is open

void Desk::put(build::Build build, std::filesystem::path file, bool saved) {
  history_ = build::History(std::move(build));
  if (!saved) history_.mark_unsaved();
  file_ = std::move(file);
  pose_ = {};
  load_case_ = 0;
  refresh();
}

Expected<void> Desk::open(const std::filesystem::path& file) {
  auto loaded = build::load(file);
  if (!loaded) return refuse(loaded.error());
  put(std::move(*loaded), std::filesystem::absolute(file), true);
  return {};
}

Expected<void> Desk::save(const std::filesystem::path& file) {
  const auto done = build::save(build(), file);
  if (!done) return done;
  file_ = std::filesystem::absolute(file);
  history_.mark_saved();
  emit changed();
  return {};
}

// ---- edits

std::optional<QString> Desk::type(const QString& path, const QString& text) {
  const std::string where = resolve(path).toStdString();
  auto changed_build = build::with_text(build(), where, text.toStdString(), prefs_);
  if (!changed_build) return words_of(changed_build.error());
  if (*changed_build == build()) return std::nullopt;
  const auto view = build::look_up(build(), where, prefs_);
  edit(tr("Change %1").arg(QString::fromStdString(view->label)), std::move(*changed_build));
  return std::nullopt;
}

void Desk::edit(const QString& name, build::Build changed_build, const QString& gesture) {
  history_.edit(name.toStdString(), std::move(changed_build), gesture.toStdString());
  refresh();
}

void Desk::undo() {
  history_.undo();
  refresh();
}

void Desk::redo() {
  history_.redo();
  refresh();
}

void Desk::choose_bag(End end, const std::string& name) {
  build::Build next = build();
  next.variant().fit[at(end)].bag = name;
  if (next == build()) return;
  edit(tr("Choose %1 %2").arg(QString(build::name_of(end)).toLower(), QString::fromStdString(name)), std::move(next));
}

void Desk::drag_preset(std::size_t preset, End end, double H, const QString& gesture) {
  build::Build next = build();
  build::Preset& moved = next.variant().brief.presets.at(preset);
  const auto& e = assessment_.end(end);
  moved.wish[at(end)] =
      assess::wish_for_height(H, moved.wish[at(end)].value_or(build::HeightWish{}), e.surveyed_height, e.tyre_radius);
  edit(tr("Move %1 %2").arg(QString(build::name_of(end)).toLower(), QString::fromStdString(moved.name)),
       std::move(next), gesture);
}

void Desk::add_load_case() {
  build::Build next = build();
  next.load_cases.push_back({tr("Load case %1").arg(next.load_cases.size() + 1).toStdString(), {}, {}});
  load_case_ = next.load_cases.size() - 1;
  edit(tr("Add a load case"), std::move(next));
}

void Desk::remove_load_case(std::size_t index) {
  build::Build next = build();
  const auto name = QString::fromStdString(next.load_cases.at(index).name);
  next.load_cases.erase(next.load_cases.begin() + static_cast<std::ptrdiff_t>(index));
  edit(tr("Remove load case %1").arg(name), std::move(next));
}

void Desk::add_load_mass(std::size_t load_case) {
  build::Build next = build();
  const double middle = next.body.wheelbase.value_or(2.6) / 2;
  next.load_cases.at(load_case).masses.push_back({tr("load").toStdString(), 50, middle, 0, {}});
  edit(tr("Add a mass to %1").arg(QString::fromStdString(next.load_cases[load_case].name)), build::Build(next));
}

void Desk::remove_load_mass(std::size_t load_case, std::size_t mass) {
  build::Build next = build();
  auto& masses = next.load_cases.at(load_case).masses;
  const auto name = QString::fromStdString(masses.at(mass).name);
  masses.erase(masses.begin() + static_cast<std::ptrdiff_t>(mass));
  edit(tr("Remove %1").arg(name), std::move(next));
}

void Desk::add_preset() {
  build::Build next = build();
  build::Preset preset{
      tr("Preset %1").arg(next.variant().brief.presets.size() + 1).toStdString(), build::PresetUse::other, {}, {}};
  for (const End end : build::both_ends)
    if (const auto H = pose(end)) preset.wish[at(end)] = build::HeightWish{build::HeightWish::As::height, *H, {}};
  next.variant().brief.presets.push_back(std::move(preset));
  edit(tr("Add a preset"), std::move(next));
}

void Desk::remove_preset(std::size_t index) {
  build::Build next = build();
  auto& presets = next.variant().brief.presets;
  const auto name = QString::fromStdString(presets.at(index).name);
  presets.erase(presets.begin() + static_cast<std::ptrdiff_t>(index));
  edit(tr("Remove preset %1").arg(name), std::move(next));
}

void Desk::add_variant() {
  build::Build next = build();
  if (next.variants.size() >= 26) {
    tell(tr("A build holds up to 26 variants. Remove one first."));
    return;
  }
  build::Variant copy = next.variant();
  copy.name = std::string(1, static_cast<char>('A' + next.variants.size()));
  next.variants.push_back(std::move(copy));
  next.active_variant = next.variants.size() - 1;
  const auto name = QString::fromStdString(next.variant().name);
  edit(tr("Keep and go on as variant %1").arg(name), std::move(next));
}

void Desk::take_variant(build::Variant variant) {
  build::Build next = build();
  if (next.variants.size() >= 26) {
    tell(tr("A build holds up to 26 variants. Remove one first."));
    return;
  }
  const QString letter(QChar('A' + static_cast<int>(next.variants.size())));
  variant.name = tr("%1, found").arg(letter).toStdString();
  const auto name = QString::fromStdString(variant.name);
  next.variants.push_back(std::move(variant));
  next.active_variant = next.variants.size() - 1;
  edit(tr("Take over variant %1").arg(name), std::move(next));
}

void Desk::add_damper_point(End end) {
  build::Build next = build();
  auto& curve = next.variant().fit[at(end)].damper_curve;
  // The next point of a usual damper: twice as fast, a little less than twice the force.
  build::DamperPoint point{0.05, 120, 220, {}};
  if (!curve.empty()) {
    point = curve.back();
    point.extra.clear();
    point.speed = std::min(5.0, point.speed * 2);
    point.bump_force = std::min(2e4, point.bump_force * 1.7);
    point.rebound_force = std::min(2e4, point.rebound_force * 1.7);
  }
  curve.push_back(point);
  edit(tr("Add a damper point"), std::move(next));
}

void Desk::remove_damper_point(End end, std::size_t index) {
  build::Build next = build();
  auto& curve = next.variant().fit[at(end)].damper_curve;
  if (index >= curve.size()) return;
  curve.erase(curve.begin() + static_cast<std::ptrdiff_t>(index));
  edit(tr("Remove a damper point"), std::move(next));
}

// ---- the shelf

void Desk::reload_shelf() {
  auto folders = shelf::shelf_folders();
  if (!card_folder_.empty()) folders.back() = card_folder_;
  shelf_ = shelf::load_shelf(folders);
  refresh();
}

Expected<std::filesystem::path> Desk::keep_card(const air::BagCard& card) {
  auto file = shelf::save_card(card, card_folder_.empty() ? shelf::user_shelf_folder() : card_folder_);
  if (!file) return file;
  reload_shelf();
  return file;
}

void Desk::remove_variant(std::size_t index) {
  build::Build next = build();
  if (next.variants.size() < 2) return;
  const auto name = QString::fromStdString(next.variants.at(index).name);
  next.variants.erase(next.variants.begin() + static_cast<std::ptrdiff_t>(index));
  if (next.active_variant > index || next.active_variant == next.variants.size()) --next.active_variant;
  edit(tr("Remove variant %1").arg(name), std::move(next));
}

void Desk::use_variant(std::size_t index) {
  if (index == build().active_variant || index >= build().variants.size()) return;
  build::Build next = build();
  next.active_variant = index;
  const auto name = QString::fromStdString(next.variant().name);
  edit(tr("Switch to variant %1").arg(name), std::move(next));
}

// ---- how it is looked at

void Desk::set_load_case(std::size_t index) {
  if (index == load_case_ || index >= assessment_.loads.size()) return;
  load_case_ = index;
  verdicts_.reset();
  emit looked_at();
}

void Desk::set_end(End end) {
  if (end == end_) return;
  end_ = end;
  verdicts_.reset();
  emit looked_at();
}

std::optional<double> Desk::pose(End end) const {
  const auto& e = assessment_.end(end);
  if (!e.has_domain()) return std::nullopt;
  const auto resting = [&] {
    const auto& presets = build().variant().brief.presets;
    for (std::size_t i = 0; i < presets.size(); ++i)
      if (presets[i].use == build::PresetUse::road && e.presets[i]) return e.presets[i]->height;
    return e.surveyed_height.value_or((e.domain_low + e.domain_high) / 2);
  };
  return std::clamp(pose_[at(end)] ? *pose_[at(end)] : resting(), e.domain_low, e.domain_high);
}

void Desk::set_pose(End end, double H) {
  const auto& e = assessment_.end(end);
  if (!e.has_domain()) return;
  pose_[at(end)] =
      std::clamp(H, std::max(e.domain_low, height_range_.first), std::min(e.domain_high, height_range_.second));
  emit posed();
}

void Desk::nudge_pose(double by) {
  if (const auto H = pose(end_)) set_pose(end_, *H + by);
}

void Desk::set_prefs(const UnitPrefs& prefs) {
  prefs_ = prefs;
  emit restyled();
}

void Desk::set_look(const Look& look) {
  look_ = look;
  emit restyled();
}

const std::vector<assess::BagVerdict>& Desk::verdicts() const {
  if (!verdicts_) {
    verdicts_ = assess::judge_shelf(build(), shelf_, end_, load_case_);
    assess::sort_verdicts(*verdicts_, bag_order_);
  }
  return *verdicts_;
}

void Desk::set_bag_order(assess::BagOrder order) {
  bag_order_ = order;
  verdicts_.reset();
  emit looked_at();
}

// ---- words

QString Desk::resolve(const QString& path) const {
  if (!path.startsWith("@.")) return path;
  return QString("variants.%1.%2").arg(build().active_variant).arg(path.mid(2));
}

build::FieldView Desk::field(const QString& path) const {
  return build::look_up(build(), resolve(path).toStdString(), prefs_).value_or(build::FieldView{});
}

QString Desk::words_of(const Message& message) const {
  const Translate translate = [](const std::string& text) {
    return QCoreApplication::translate("core", text.c_str()).toStdString();
  };
  return QString::fromStdString(say(message, prefs_, translate));
}

QString Desk::shown(double value, Kind kind, int decimals) const {
  return QString::fromStdString(show(value, kind, prefs_, decimals));
}

// ----

void Desk::refresh() {
  assessment_ = assess::assess(build(), shelf_);
  load_case_ = std::min(load_case_, assessment_.loads.size() - 1);
  verdicts_.reset();
  find_height_range();
  emit changed();
}

void Desk::find_height_range() {
  double low = 1e9, high = -1e9;
  const auto hold = [&](double H) {
    low = std::min(low, H);
    high = std::max(high, H);
  };
  constexpr double beyond = 0.026; // room for the hatched ends and their names
  for (const auto& e : assessment_.ends) {
    if (!e.has_domain()) continue;
    const auto& reach = e.windows.reach;
    hold(reach ? std::max(e.domain_low, reach->low.height - beyond) : e.domain_low);
    hold(reach ? std::min(e.domain_high, reach->high.height + beyond) : e.domain_high);
    for (const auto& preset : e.presets)
      if (preset) hold(preset->height - 0.008), hold(preset->height + 0.008);
  }
  if (high > low) height_range_ = {low, high};
}

} // namespace mavrel::app
