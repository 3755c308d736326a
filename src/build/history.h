// Undo and redo: every state the build went through, each step with the name of the edit that made it.
#pragma once

#include "build/build.h"

#include <memory>
#include <string>
#include <vector>

namespace mavrel::build {

class History {
public:
  explicit History(Build build);

  [[nodiscard]] const Build& now() const { return *steps_[at_].build; }
  [[nodiscard]] std::shared_ptr<const Build> shared_now() const { return steps_[at_].build; }

  /// Makes `build` the present state. What had been undone is forgotten. A build equal to the present one is no edit.
  /// @param gesture  not empty: edits of the same gesture (one drag) become one step
  void edit(std::string name, Build build, std::string gesture = {});
  /// The next edit begins a step of its own, even under the same gesture name. A gesture that came back to where it
  /// began leaves no step, and what had been undone before it can be done again. @returns whether it left none
  bool end_gesture();
  /// Changes how the present state is looked at (the active variant): no step, and as saved as it was.
  void look(Build build);

  [[nodiscard]] bool can_undo() const { return at_ > 0; }
  [[nodiscard]] bool can_redo() const { return at_ + 1 < steps_.size(); }
  /// Name of the edit that undo takes back, or redo does again; only when it can.
  [[nodiscard]] const std::string& undo_name() const { return steps_[at_].name; }
  [[nodiscard]] const std::string& redo_name() const { return steps_[at_ + 1].name; }
  void undo();
  void redo();

  /// Marks the present state as the one in the file.
  void mark_saved() { saved_ = steps_[at_].build; }
  /// Is it what the file holds, whichever variant is looked at?
  [[nodiscard]] bool is_saved() const;
  /// A recovered build is in no file.
  void mark_unsaved() { saved_.reset(); }

private:
  struct Step {
    std::string name;
    std::string gesture;
    std::shared_ptr<const Build> build;
  };
  std::vector<Step> steps_;
  std::vector<Step> undone_before_; // the gesture under way
  std::size_t at_ = 0;
  std::shared_ptr<const Build> saved_;
};

} // namespace mavrel::build
