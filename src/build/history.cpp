#include "build/history.h"

namespace mavrel::build {

namespace {
constexpr std::size_t most_steps = 500;
}

History::History(Build build) : steps_{{"", "", std::make_shared<const Build>(std::move(build))}} {
  mark_saved();
}

void History::edit(std::string name, Build build, std::string gesture) {
  if (build == now()) return;
  auto value = std::make_shared<const Build>(std::move(build));
  if (!gesture.empty() && at_ > 0 && steps_[at_].gesture == gesture) {
    steps_[at_].build = std::move(value);
    return;
  }
  end_gesture();
  const auto undone = steps_.begin() + static_cast<std::ptrdiff_t>(at_ + 1);
  undone_before_.assign(std::make_move_iterator(undone), std::make_move_iterator(steps_.end()));
  steps_.resize(at_ + 1);
  steps_.push_back({std::move(name), std::move(gesture), std::move(value)});
  if (steps_.size() > most_steps) steps_.erase(steps_.begin());
  at_ = steps_.size() - 1;
}

bool History::end_gesture() {
  const bool open = !steps_[at_].gesture.empty();
  steps_[at_].gesture.clear();
  const bool nothing = open && at_ > 0 && *steps_[at_].build == *steps_[at_ - 1].build;
  if (nothing) {
    // Back where it began: as if it had never been touched.
    steps_.pop_back();
    --at_;
    for (Step& step : undone_before_)
      steps_.push_back(std::move(step));
  }
  undone_before_.clear();
  return nothing;
}

bool History::is_saved() const {
  if (!saved_ || saved_ == steps_[at_].build) return saved_ != nullptr;
  if (saved_->active_variant == now().active_variant) return *saved_ == now();
  if (saved_->variants.size() != now().variants.size()) return false;
  Build looked_at_alike = *saved_;
  looked_at_alike.active_variant = now().active_variant;
  return looked_at_alike == now();
}

void History::look(Build build) {
  const bool saved = is_saved();
  steps_[at_].build = std::make_shared<const Build>(std::move(build));
  if (saved) mark_saved();
}

void History::undo() {
  end_gesture();
  if (!can_undo()) return;
  --at_;
}

void History::redo() {
  end_gesture();
  if (!can_redo()) return;
  ++at_;
}

} // namespace mavrel::build
