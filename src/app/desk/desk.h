// The desk: the document, how it is looked at, the shelf, and what all of it comes to, in one place that widgets read
// from. They emit edits to it and redraw when it says that something changed. It computes nothing of the trade itself.
//
// It belongs to the interface's thread; what it gives by reference stays valid until it next says `changed`.
#pragma once

#include "app/desk/answers.h"
#include "app/desk/card_shelf.h"
#include "app/desk/document.h"
#include "app/desk/runner.h"
#include "app/desk/view_state.h"
#include "assess/assess.h"
#include "assess/kept/kept.h"
#include "build/edit.h"

#include <QObject>
#include <QString>

namespace mavrel::air {
enum class Beyond;
} // namespace mavrel::air
namespace mavrel::assess {
struct EndQuestion; // assess/end/end_answer.h
} // namespace mavrel::assess

namespace mavrel::app {

class Desk : public QObject {
  Q_OBJECT
public:
  explicit Desk(shelf::Shelf shelf, QObject* parent = nullptr);

  [[nodiscard]] Document& document() { return document_; }
  [[nodiscard]] const Document& document() const { return document_; }
  [[nodiscard]] ViewState& view() { return view_; }
  [[nodiscard]] CardShelf& cards() { return cards_; }
  /// Where everything is asked that is worked out from what is open.
  [[nodiscard]] Answers& answers() const { return *answers_; }
  /// Long work of every stage, one after the other.
  [[nodiscard]] Runner& runner() { return runner_; }

  // ---- what most widgets read
  [[nodiscard]] const build::Build& build() const { return document_.build(); }
  [[nodiscard]] const shelf::Shelf& shelf() const { return cards_.shelf(); }
  [[nodiscard]] const assess::Assessment& assessment() const { return *assessment_; }
  /// One end with all that it was worked out from: what deeper questions start from.
  [[nodiscard]] const assess::Answered<assess::EndQuestion>& answered(End end) const;
  [[nodiscard]] std::size_t load_case() const { return view_.load_case(); }
  [[nodiscard]] End end() const { return view_.end(); }
  [[nodiscard]] std::optional<double> pose(End end) const { return view_.pose(end); }
  [[nodiscard]] std::pair<double, double> height_range() const { return view_.height_range(); }
  [[nodiscard]] const UnitPrefs& prefs() const { return view_.prefs(); }
  [[nodiscard]] const Look& look() const { return view_.look(); }
  void set_load_case(std::size_t index) { view_.set_load_case(index); }
  void set_end(End end) { view_.set_end(end); }
  void set_pose(End end, double H) { view_.set_pose(end, H); }

  // ---- edits, each undoable by name
  /// Types text into a field. `@.` at the front of a path stands for the active variant.
  /// @returns what is wrong with the text; none when it was taken
  [[nodiscard]] std::optional<QString> type(const QString& path, const QString& text);
  void edit(const QString& name, build::Build build, const QString& gesture = {}) {
    document_.edit(name, std::move(build), gesture);
  }
  /// Adds to a list of the document, or takes from it; tells why not. `@.` stands for the active variant.
  /// @returns whether it was done
  bool add_entry(const QString& name, const QString& list, build::Entry entry);
  bool remove_entry(const QString& name, const QString& entry);

  /// The open build's file is no place for anything else: then it tells so. @returns whether it is that file
  [[nodiscard]] bool refuses_to_write(const std::filesystem::path& to);

  // ---- words
  [[nodiscard]] QString resolve(const QString& path) const;
  [[nodiscard]] build::FieldView field(const QString& path) const;
  /// Said of a field's figure that is another car's, or a usual one, and neither measured here nor confirmed; empty: it
  /// is this one's.
  [[nodiscard]] QString not_of_this_car(const QString& path) const;
  [[nodiscard]] QString words_of(const Message& message) const;
  [[nodiscard]] QString shown(double value, Kind kind, int decimals = -1) const;
  /// A pressure, with a mark and the words in front where it lies beyond what the bag's card knows or allows.
  [[nodiscard]] QString shown_pressure(double value, air::Beyond beyond, int decimals = -1) const;
  /// A sentence for the person, shown for a while at the foot of the window.
  void tell(const QString& sentence) { emit told(sentence); }
  /// Why what a person just did was not taken: shown where they did it, and at the foot of the window.
  void refuse(const QString& sentence) {
    emit told(sentence);
    emit refused(sentence);
  }

signals:
  void changed();   // the build or its assessment
  void rewound();   // undone, redone or replaced: a drag under way has lost what it held
  void posed();     // a pose moved
  void looked_at(); // another end or load case
  void restyled();  // units, theme or text size
  void told(const QString& sentence);
  void refused(const QString& sentence);
  void went_to(const QString& stage, const QString& place); // somebody asked to be taken there

private:
  void refresh();

  Document document_;
  CardShelf cards_;
  ViewState view_;
  assess::Assessor assessor_;
  std::shared_ptr<const assess::Assessment> assessment_;
  Runner runner_;                    // its thread ends before what it may be asked about goes
  std::unique_ptr<Answers> answers_; // first of all stops what is under way
};

} // namespace mavrel::app
