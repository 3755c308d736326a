#include "build/history.h"

namespace mavrel::build {

namespace {
constexpr std::size_t most_steps = 500;
}

History::History(Build build) : steps_{{"", "", std::make_shared<const Build>(std::move(build))}} {
  mark_saved();
}

void History::edit(std::string name, Build build, std::string gesture) {
  steps_.resize(at_ + 1);
  auto value = std::make_shared<const Build>(std::move(build));
  if (!gesture.empty() && at_ > 0 && steps_[at_].gesture == gesture) {
    steps_[at_].build = std::move(value);
    return;
  }
  steps_.push_back({std::move(name), std::move(gesture), std::move(value)});
  if (steps_.size() > most_steps) steps_.erase(steps_.begin());
  at_ = steps_.size() - 1;
}

void History::end_gesture() {
  steps_[at_].gesture.clear();
}

void History::undo() {
  if (!can_undo()) return;
  end_gesture();
  --at_;
  end_gesture();
}

void History::redo() {
  if (!can_redo()) return;
  ++at_;
  end_gesture();
}

} // namespace mavrel::build
