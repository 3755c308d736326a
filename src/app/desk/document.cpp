#include "app/desk/document.h"

#include "file/held_file.h"

#include <chrono>
#include <utility>

namespace mavrel::app {

Document::Document(QObject* parent) : QObject(parent), history_(build::empty_build()) {}

void Document::put(build::Build build, std::filesystem::path file, bool saved) {
  settle(Unfinished::give_up);
  history_ = build::History(std::move(build));
  if (!saved) history_.mark_unsaved();
  stamp_ = file.empty() ? std::nullopt : stamp_of(file);
  file_ = std::move(file);
  emit put_down();
  emit rewound();
  emit changed();
}

Expected<void> Document::open(const std::filesystem::path& file) {
  const auto stamp = stamp_of(file); // before it is read: a change behind our back shows later
  auto loaded = build::load(file);
  if (!loaded) return refuse(loaded.error());
  put(std::move(*loaded), std::filesystem::absolute(file), true);
  stamp_ = stamp;
  return {};
}

Expected<Written> Document::save(const std::filesystem::path& file, ReadOnly read_only,
                                 const std::optional<FileStamp>& asked) {
  constexpr std::chrono::milliseconds patience{400}; // the window stands still meanwhile
  const HeldFile held(file, patience);
  if (held.is_refused())
    return refuse(words("{0} is being written by another program. Save once more."), {shown_path(file.filename())});
  const auto done = build::save(build(), file, read_only, asked);
  if (!done) return done;
  file_ = std::filesystem::absolute(file);
  stamp_ = stamp_of(file_);
  history_.mark_saved();
  emit changed();
  return done;
}

bool Document::is_file(const std::filesystem::path& file) const {
  return !file_.empty() && same_place(file, file_);
}

build::Question Document::question_before_saving(const std::filesystem::path& file) const {
  return build::question_before_saving(file, is_file(file) ? stamp_ : std::nullopt);
}

std::optional<QString> Document::settle(Unfinished unfinished) {
  unsettled_.reset();
  emit settling(unfinished);
  return std::exchange(unsettled_, std::nullopt);
}

void Document::edit(const QString& name, build::Build build, const QString& gesture) {
  if (build == history_.now()) return;
  history_.edit(name.toStdString(), std::move(build), gesture.toStdString());
  emit changed();
}

void Document::end_gesture() {
  if (history_.end_gesture()) emit changed(); // undo and redo are others now
}

std::optional<Message> Document::add(const QString& name, const std::string& list, build::Entry entry) {
  settle(Unfinished::give_up);
  auto next = build::with_entry(build(), list, std::move(entry));
  if (!next) return next.error();
  edit(name, std::move(*next));
  return std::nullopt;
}

std::optional<Message> Document::remove(const QString& name, const std::string& entry) {
  settle(Unfinished::give_up);
  auto next = build::without_entry(build(), entry);
  if (!next) return next.error();
  edit(name, std::move(*next));
  return std::nullopt;
}

void Document::look(build::Build build) {
  settle(Unfinished::give_up);
  history_.look(std::move(build));
  emit changed();
}

void Document::undo() {
  settle(Unfinished::give_up);
  history_.undo();
  emit rewound();
  emit changed();
}

void Document::redo() {
  settle(Unfinished::give_up);
  history_.redo();
  emit rewound();
  emit changed();
}

} // namespace mavrel::app
