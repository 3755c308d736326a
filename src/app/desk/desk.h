// The desk: what is open, how it is looked at, and the only way to change either. Widgets read from it, emit edits
// to it, and redraw when it says that something changed. It computes nothing of the trade itself.
#pragma once

#include "app/desk/depth.h"
#include "app/theme/look.h"
#include "assess/assess.h"
#include "assess/bags/judge.h"
#include "build/edit.h"
#include "build/file.h"
#include "build/history.h"
#include "build/list_edit.h"
#include "shelf/shelf.h"

#include <QObject>
#include <QString>

#include <filesystem>
#include <functional>
#include <optional>

namespace mavrel::app {

using build::End;

class Desk : public QObject {
  Q_OBJECT
public:
  explicit Desk(shelf::Shelf shelf, QObject* parent = nullptr);

  // ---- what is open
  [[nodiscard]] const build::Build& build() const { return history_.now(); }
  [[nodiscard]] const assess::Assessment& assessment() const { return assessment_; }
  [[nodiscard]] const shelf::Shelf& shelf() const { return shelf_; }
  [[nodiscard]] const build::History& history() const { return history_; }
  [[nodiscard]] const std::filesystem::path& file() const { return file_; }
  [[nodiscard]] bool is_saved() const { return history_.is_saved() && !file_.empty(); }
  /// Nothing would be lost by closing: saved, or a new build nobody touched.
  [[nodiscard]] bool may_close() const { return history_.is_saved(); }

  /// Replaces what is open. @param file  empty for a build that is in no file yet
  void put(build::Build build, std::filesystem::path file, bool saved);
  /// Opens a file; what is open stays if it can't be read.
  [[nodiscard]] Expected<void> open(const std::filesystem::path& file);
  [[nodiscard]] Expected<Written> save(const std::filesystem::path& file, ReadOnly read_only = ReadOnly::refuse);
  /// What to ask before saving over this file: whether it is read-only, or was changed by somebody else since.
  [[nodiscard]] build::Question question_before_saving(const std::filesystem::path& file) const;

  /// The open build's file is no place for anything else: then it tells so. @returns whether it is that file
  [[nodiscard]] bool refuses_to_write(const std::filesystem::path& to);

  /// Everything half typed is taken where it was begun, before what is open or looked at changes under it.
  enum class Unfinished {
    give_up, // what can't be taken is given up; its sentence is told
    keep,    // it stays in its field
  };
  /// @returns what was wrong with a text that could not be taken
  std::optional<QString> settle(Unfinished unfinished);
  /// To be called by whoever could not take what was typed there, while settling.
  void could_not_take(const QString& sentence) { unsettled_ = sentence; }

  // ---- edits, each undoable by name
  /// Types text into a field. `@.` at the front of a path stands for the active variant.
  /// @returns what is wrong with the text; none when it was taken
  [[nodiscard]] std::optional<QString> type(const QString& path, const QString& text);
  /// @param gesture  one drag or one key held: becomes one step of undo
  void edit(const QString& name, build::Build build, const QString& gesture = {});
  void end_gesture() {
    if (history_.end_gesture()) emit changed(); // undo and redo are others now
  }
  void undo();
  void redo();

  void choose_bag(End end, const std::string& name);
  void drag_preset(std::size_t preset, End end, double H, const QString& gesture);
  void add_load_case();
  void remove_load_case(std::size_t index);
  void add_load_mass(std::size_t load_case);
  void remove_load_mass(std::size_t load_case, std::size_t mass);
  void add_preset();
  void remove_preset(std::size_t index);
  void add_variant();
  void remove_variant(std::size_t index);
  /// Looks at another variant: no edit, and nothing to save.
  void use_variant(std::size_t index);

  // ---- how it is looked at
  [[nodiscard]] std::size_t load_case() const { return load_case_; }
  void set_load_case(std::size_t index);
  [[nodiscard]] End end() const { return end_; }
  void set_end(End end);
  /// H each end is posed at, m; none while nothing is known of that end's heights.
  [[nodiscard]] std::optional<double> pose(End end) const;
  void set_pose(End end, double H);
  /// Moves the active end's pose.
  void nudge_pose(double by);
  /// Heights shown everywhere, m: both ends on one scale.
  [[nodiscard]] std::pair<double, double> height_range() const { return height_range_; }

  [[nodiscard]] const UnitPrefs& prefs() const { return prefs_; }
  void set_prefs(const UnitPrefs& prefs);
  [[nodiscard]] const Look& look() const { return look_; }
  void set_look(const Look& look);

  /// Every bag judged on the active end and load case, in the order wanted.
  [[nodiscard]] const std::vector<assess::BagVerdict>& verdicts() const;
  [[nodiscard]] assess::BagOrder bag_order() const { return bag_order_; }
  void set_bag_order(assess::BagOrder order);

  /// Deeper answers about the chosen bags.
  [[nodiscard]] Depth& depth() { return depth_; }

  // ---- the shelf
  /// Reads the shelf's folders again.
  void reload_shelf();
  /// Writes a card to the user's shelf and puts it on this one. @returns the file; or why not
  [[nodiscard]] Expected<std::filesystem::path> keep_card(const air::BagCard& card);
  /// The card of this name on the user's own shelf, as its file has it; none where there is none.
  [[nodiscard]] std::optional<air::BagCard> own_card(const std::string& name) const;
  /// The folder user cards go to.
  [[nodiscard]] const std::filesystem::path& card_folder() const { return card_folder_; }
  void set_card_folder(std::filesystem::path folder) { card_folder_ = std::move(folder); }
  /// A letter that no variant's name begins with yet.
  [[nodiscard]] QString free_letter() const;
  /// Takes a design over as a new variant; one without a name gets a letter. @returns whether there was room for it;
  /// else it is told
  bool take_variant(build::Variant variant);
  void add_damper_point(End end);
  void remove_damper_point(End end, std::size_t index);

  // ---- words
  [[nodiscard]] QString resolve(const QString& path) const;
  [[nodiscard]] build::FieldView field(const QString& path) const;
  [[nodiscard]] QString words_of(const Message& message) const;
  [[nodiscard]] QString shown(double value, Kind kind, int decimals = -1) const;
  /// A pressure, with a mark and the words in front where it lies beyond what the bag's card knows or allows.
  [[nodiscard]] QString shown_pressure(double value, air::Beyond beyond, int decimals = -1) const;
  /// A sentence for the person, shown for a while at the foot of the window.
  void tell(const QString& sentence) { emit told(sentence); }

signals:
  void changed(); // the build or its assessment
  void rewound(); // undone, redone or replaced: a drag under way has lost what it held
  void settling(mavrel::app::Desk::Unfinished unfinished); // take what is half typed, now
  void posed();                                            // a pose moved
  void looked_at();                                        // end, load case or order of bags
  void restyled();                                         // units, theme or text size
  void told(const QString& sentence);
  void went_to(const QString& stage, const QString& place); // somebody asked to be taken there

private:
  void refresh();
  /// Adds to a list of the document, or tells that it is full. @returns whether there was room
  bool add_entry(const QString& name, const std::string& list, build::Entry entry);
  void remove_entry(const QString& name, const std::string& entry);
  [[nodiscard]] std::filesystem::path own_folder() const;
  /// Path of a list of the active variant.
  [[nodiscard]] std::string in_variant(const char* list) const;
  void find_height_range();

  Depth depth_{*this}; // hears of changes before any view asks it
  shelf::Shelf shelf_;
  std::filesystem::path card_folder_;
  build::History history_;
  assess::Assessment assessment_;
  std::filesystem::path file_;
  std::optional<FileStamp> stamp_; // of the file when it was read or written here
  std::optional<QString> unsettled_;
  std::size_t load_case_ = 0;
  End end_ = End::front;
  std::array<std::optional<double>, 2> pose_;
  std::pair<double, double> height_range_{0.25, 0.45};
  UnitPrefs prefs_;
  Look look_;
  assess::BagOrder bag_order_ = assess::BagOrder::best;
  mutable std::optional<std::vector<assess::BagVerdict>> verdicts_;
};

} // namespace mavrel::app
