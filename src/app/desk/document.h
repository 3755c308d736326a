// What is open: the build with its undo steps, the file it is in, and the only way to change either.
#pragma once

#include "build/file.h"
#include "build/history.h"
#include "build/list_edit.h"

#include <QObject>
#include <QString>

#include <filesystem>
#include <optional>

namespace mavrel::app {

/// What becomes of a text that is half typed and can't be taken.
enum class Unfinished {
  give_up, // it is given up; its sentence is told
  keep,    // it stays in its field
};

class Document : public QObject {
  Q_OBJECT
public:
  explicit Document(QObject* parent = nullptr);

  [[nodiscard]] const build::Build& build() const { return history_.now(); }
  [[nodiscard]] const build::History& history() const { return history_; }
  [[nodiscard]] const std::filesystem::path& file() const { return file_; }
  [[nodiscard]] bool is_saved() const { return history_.is_saved() && !file_.empty(); }
  /// Nothing would be lost by closing: saved, or a new build nobody touched.
  [[nodiscard]] bool may_close() const { return history_.is_saved(); }

  /// Replaces what is open. @param file  empty for a build that is in no file yet
  void put(build::Build build, std::filesystem::path file, bool saved);
  /// What stands in the file is not what this was begun from: saving over it is asked about.
  void distrust_file() { stamp_ = FileStamp{}; }
  /// Opens a file; what is open stays if it can't be read.
  [[nodiscard]] Expected<void> open(const std::filesystem::path& file);
  /// Saves while no other program of ours holds the file.
  /// @param asked  what stood there when a person was asked; none: nobody was
  [[nodiscard]] Expected<Written> save(const std::filesystem::path& file, ReadOnly read_only = ReadOnly::refuse,
                                       const std::optional<FileStamp>& asked = {});
  /// What to ask before saving over this file: whether it is read-only, or was changed by somebody else since.
  [[nodiscard]] build::Question question_before_saving(const std::filesystem::path& file) const;
  /// Is this file the one that is open?
  [[nodiscard]] bool is_file(const std::filesystem::path& file) const;

  /// Everything half typed is taken where it was begun, before what is open or looked at changes under it.
  /// @returns what was wrong with a text that could not be taken
  std::optional<QString> settle(Unfinished unfinished);
  /// To be called by whoever could not take what was typed there, while settling.
  void could_not_take(const QString& sentence) { unsettled_ = sentence; }

  // ---- edits, each undoable by name
  /// @param gesture  one drag or one key held: becomes one step of undo
  void edit(const QString& name, build::Build build, const QString& gesture = {});
  void end_gesture();
  /// Adds to a list of the document, or takes from it. @returns why not: it is full, or must stay
  [[nodiscard]] std::optional<Message> add(const QString& name, const std::string& list, build::Entry entry);
  [[nodiscard]] std::optional<Message> remove(const QString& name, const std::string& entry);
  /// Changes how it is looked at (the active variant): no edit, and nothing to save.
  void look(build::Build build);
  void undo();
  void redo();

signals:
  void changed();  // the build, or whether it is saved
  void rewound();  // undone, redone or replaced: a drag under way has lost what it held
  void put_down(); // another build is open
  void settling(mavrel::app::Unfinished unfinished); // take what is half typed, now

private:
  build::History history_;
  std::filesystem::path file_;
  std::optional<FileStamp> stamp_; // of the file when it was read or written here
  std::optional<QString> unsettled_;
};

} // namespace mavrel::app
