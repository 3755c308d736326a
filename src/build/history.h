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

  /// Makes `build` the present state. What had been undone is forgotten.
  /// @param gesture  not empty: edits of the same gesture (one drag) become one step
  void edit(std::string name, Build build, std::string gesture = {});
  /// The next edit begins a step of its own, even under the same gesture name.
  void end_gesture();

  [[nodiscard]] bool can_undo() const { return at_ > 0; }
  [[nodiscard]] bool can_redo() const { return at_ + 1 < steps_.size(); }
  /// Name of the edit that undo takes back, or redo does again; only when it can.
  [[nodiscard]] const std::string& undo_name() const { return steps_[at_].name; }
  [[nodiscard]] const std::string& redo_name() const { return steps_[at_ + 1].name; }
  void undo();
  void redo();

  /// Marks the present state as the one in the file.
  void mark_saved() { saved_ = steps_[at_].build; }
  [[nodiscard]] bool is_saved() const { return saved_ == steps_[at_].build || (saved_ && *saved_ == now()); }
  /// A recovered build is in no file.
  void mark_unsaved() { saved_.reset(); }

private:
  struct Step {
    std::string name;
    std::string gesture;
    std::shared_ptr<const Build> build;
  };
  std::vector<Step> steps_;
  std::size_t at_ = 0;
  std::shared_ptr<const Build> saved_;
};

} // namespace mavrel::build
