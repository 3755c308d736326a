#include "app/desk/desk.h"

#include "assess/end/end_model.h"
#include "build/names.h"
#include "shelf/card_write.h"
#include "shelf/places.h"

#include <QCoreApplication>

#include <fmt/format.h>

#include <algorithm>
#include <utility>

namespace mavrel::app {

using build::at;

Desk::Desk(shelf::Shelf shelf, QObject* parent)
    : QObject(parent), shelf_(std::move(shelf)), history_(build::empty_build()) {
  refresh();
}

// ---- what is open

void Desk::put(build::Build build, std::filesystem::path file, bool saved) {
  settle(Unfinished::give_up);
  history_ = build::History(std::move(build));
  if (!saved) history_.mark_unsaved();
  stamp_ = file.empty() ? std::nullopt : stamp_of(file);
  file_ = std::move(file);
  pose_ = {};
  load_case_ = 0;
  emit rewound();
  refresh();
}

Expected<void> Desk::open(const std::filesystem::path& file) {
  const auto stamp = stamp_of(file); // before it is read: a change behind our back shows later
  auto loaded = build::load(file);
  if (!loaded) return refuse(loaded.error());
  put(std::move(*loaded), std::filesystem::absolute(file), true);
  stamp_ = stamp;
  return {};
}

Expected<Written> Desk::save(const std::filesystem::path& file, ReadOnly read_only) {
  const auto done = build::save(build(), file, read_only);
  if (!done) return done;
  file_ = std::filesystem::absolute(file);
  stamp_ = stamp_of(file_);
  history_.mark_saved();
  emit changed();
  return done;
}

build::Question Desk::question_before_saving(const std::filesystem::path& file) const {
  const bool ours = !file_.empty() && same_place(file, file_);
  return build::question_before_saving(file, ours ? stamp_ : std::nullopt);
}

bool Desk::refuses_to_write(const std::filesystem::path& to) {
  if (file_.empty() || !same_place(to, file_)) return false;
  tell(tr("%1 is the build itself. Choose another name.").arg(QString::fromStdString(shown_path(to.filename()))));
  return true;
}

std::optional<QString> Desk::settle(Unfinished unfinished) {
  unsettled_.reset();
  emit settling(unfinished);
  return std::exchange(unsettled_, std::nullopt);
}

// ---- edits

std::optional<QString> Desk::type(const QString& path, const QString& text) {
  const std::string where = resolve(path).toStdString();
  auto changed_build = build::with_text(build(), where, text.toStdString(), prefs_);
  if (!changed_build) return words_of(changed_build.error());
  if (*changed_build == build()) return std::nullopt;
  const auto view = build::look_up(build(), where, prefs_);
  edit(tr("Change %1").arg(words_of(view->label)), std::move(*changed_build));
  return std::nullopt;
}

void Desk::edit(const QString& name, build::Build changed_build, const QString& gesture) {
  if (changed_build == build()) return;
  history_.edit(name.toStdString(), std::move(changed_build), gesture.toStdString());
  refresh();
}

void Desk::undo() {
  settle(Unfinished::give_up);
  history_.undo();
  emit rewound();
  refresh();
}

void Desk::redo() {
  settle(Unfinished::give_up);
  history_.redo();
  emit rewound();
  refresh();
}

void Desk::choose_bag(End end, const std::string& name) {
  build::Build next = build();
  next.variant().fit[at(end)].bag = name;
  if (next == build()) return;
  edit(tr("Choose %1 %2").arg(QString(build::name_of(end)).toLower(), QString::fromStdString(name)), std::move(next));
}

void Desk::drag_preset(std::size_t preset, End end, double H, const QString& gesture) {
  if (preset >= build().variant().brief.presets.size()) return; // it went while its flag was held
  build::Build next = build();
  build::Preset& moved = next.variant().brief.presets[preset];
  const auto& e = assessment_.end(end);
  moved.wish[at(end)] =
      assess::wish_for_height(H, moved.wish[at(end)].value_or(build::HeightWish{}), e.surveyed_height, e.tyre_radius);
  edit(tr("Move %1 %2").arg(QString(build::name_of(end)).toLower(), QString::fromStdString(moved.name)),
       std::move(next), gesture);
}

bool Desk::add_entry(const QString& name, const std::string& list, build::Entry entry) {
  settle(Unfinished::give_up);
  auto next = build::with_entry(build(), list, std::move(entry));
  if (!next) {
    tell(words_of(next.error()));
    return false;
  }
  edit(name, std::move(*next));
  return true;
}

void Desk::remove_entry(const QString& name, const std::string& entry) {
  settle(Unfinished::give_up);
  auto next = build::without_entry(build(), entry);
  if (!next) return tell(words_of(next.error()));
  edit(name, std::move(*next));
}

std::string Desk::in_variant(const char* list) const {
  return resolve(QString("@.") + list).toStdString();
}

void Desk::add_load_case() {
  const std::size_t before = build().load_cases.size();
  if (add_entry(tr("Add a load case"), "load_cases",
                build::LoadCase{tr("Load case %1").arg(before + 1).toStdString(), {}, {}}))
    set_load_case(before);
}

void Desk::remove_load_case(std::size_t index) {
  if (index >= build().load_cases.size()) return;
  remove_entry(tr("Remove load case %1").arg(QString::fromStdString(build().load_cases[index].name)),
               fmt::format("load_cases.{}", index));
}

void Desk::add_load_mass(std::size_t load_case) {
  if (load_case >= build().load_cases.size()) return;
  build::LoadMass mass;
  mass.name = tr("load").toStdString();
  mass.mass = 50;
  mass.x = build().body.wheelbase.value_or(2.6) / 2;
  add_entry(tr("Add a mass to %1").arg(QString::fromStdString(build().load_cases[load_case].name)),
            fmt::format("load_cases.{}.masses", load_case), std::move(mass));
}

void Desk::remove_load_mass(std::size_t load_case, std::size_t mass) {
  if (load_case >= build().load_cases.size() || mass >= build().load_cases[load_case].masses.size()) return;
  remove_entry(tr("Remove %1").arg(QString::fromStdString(build().load_cases[load_case].masses[mass].name)),
               fmt::format("load_cases.{}.masses.{}", load_case, mass));
}

void Desk::add_preset() {
  build::Preset preset{
      tr("Preset %1").arg(build().variant().brief.presets.size() + 1).toStdString(), build::PresetUse::other, {}, {}};
  for (const End end : build::both_ends)
    if (const auto H = pose(end)) preset.wish[at(end)] = build::HeightWish{build::HeightWish::As::height, *H, {}};
  add_entry(tr("Add a preset"), in_variant("brief.presets"), std::move(preset));
}

void Desk::remove_preset(std::size_t index) {
  const auto& presets = build().variant().brief.presets;
  if (index >= presets.size()) return;
  remove_entry(tr("Remove preset %1").arg(QString::fromStdString(presets[index].name)),
               in_variant("brief.presets") + fmt::format(".{}", index));
}

QString Desk::free_letter() const {
  const auto& all = build().variants;
  for (char letter = 'A'; letter < 'Z'; ++letter)
    if (std::none_of(all.begin(), all.end(), [&](const build::Variant& v) { return v.name.starts_with(letter); }))
      return QString(QChar(letter));
  return QString(QChar('Z'));
}

bool Desk::take_variant(build::Variant variant) {
  if (variant.name.empty()) variant.name = free_letter().toStdString();
  const QString name = QString::fromStdString(variant.name);
  settle(Unfinished::give_up);
  auto next = build::with_entry(build(), "variants", std::move(variant));
  if (!next) {
    tell(words_of(next.error()));
    return false;
  }
  edit(tr("Go on with variant %1").arg(name), build::with_active(*next, next->variants.size() - 1));
  return true;
}

void Desk::add_variant() {
  settle(Unfinished::give_up); // the copy has what was just typed
  build::Variant copy = build().variant();
  copy.name.clear();
  take_variant(std::move(copy));
}

void Desk::add_damper_point(End end) {
  const auto& curve = build().variant().fit[at(end)].damper_curve;
  // The next point of a usual damper: twice as fast, a little less than twice the force.
  build::DamperPoint point{0.05, 120, 220, {}};
  if (!curve.empty()) {
    point = curve.back();
    point.extra.clear();
    point.speed = std::min(5.0, point.speed * 2);
    point.bump_force = std::min(2e4, point.bump_force * 1.7);
    point.rebound_force = std::min(2e4, point.rebound_force * 1.7);
  }
  add_entry(tr("Add a damper point"), in_variant(build::key_of(end)) + ".damper_curve", std::move(point));
}

void Desk::remove_damper_point(End end, std::size_t index) {
  if (index >= build().variant().fit[at(end)].damper_curve.size()) return;
  remove_entry(tr("Remove a damper point"), in_variant(build::key_of(end)) + fmt::format(".damper_curve.{}", index));
}

void Desk::remove_variant(std::size_t index) {
  if (index >= build().variants.size()) return;
  remove_entry(tr("Remove variant %1").arg(QString::fromStdString(build().variants[index].name)),
               fmt::format("variants.{}", index));
}

void Desk::use_variant(std::size_t index) {
  if (index == build().active_variant || index >= build().variants.size()) return;
  settle(Unfinished::give_up);
  history_.look(build::with_active(build(), index));
  refresh();
}

// ---- the shelf

void Desk::reload_shelf() {
  auto folders = shelf::shelf_folders();
  if (!card_folder_.empty()) folders.back() = card_folder_;
  shelf_ = shelf::load_shelf(folders);
  refresh();
}

std::filesystem::path Desk::own_folder() const {
  return card_folder_.empty() ? shelf::user_shelf_folder() : card_folder_;
}

std::optional<air::BagCard> Desk::own_card(const std::string& name) const {
  const auto file = shelf::file_of_card(name, own_folder());
  if (!file) return std::nullopt;
  auto bag = shelf::read_bag_file(*file);
  return bag ? std::optional(std::move(bag->card)) : std::nullopt;
}

Expected<std::filesystem::path> Desk::keep_card(const air::BagCard& card) {
  auto file = shelf::save_card(card, own_folder());
  if (!file) return file;
  reload_shelf();
  return file;
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

QString Desk::shown_pressure(double value, air::Beyond beyond, int decimals) const {
  const QString bare = shown(value, Kind::pressure, decimals);
  return beyond == air::Beyond::nothing ? bare : QString("△ %1 (%2)").arg(bare, tr(air::beyond_name(beyond)));
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
