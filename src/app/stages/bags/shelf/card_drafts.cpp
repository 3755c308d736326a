#include "app/stages/bags/shelf/card_drafts.h"

#include <algorithm>

namespace mavrel::app {

void CardDrafts::drop_unchanged() {
  current_.reset();
  std::erase_if(drafts_, [](const Draft& draft) { return !draft.is_unkept() && draft.steps.size() == 1; });
}

void CardDrafts::open(const air::BagCard& on_shelf) {
  drop_unchanged();
  const auto there =
      std::find_if(drafts_.begin(), drafts_.end(), [&](const Draft& draft) { return draft.from == on_shelf.name; });
  current_ = static_cast<std::size_t>(there - drafts_.begin());
  if (there == drafts_.end()) drafts_.push_back({on_shelf.name, {on_shelf}, 0, on_shelf});
}

void CardDrafts::add(air::BagCard card) {
  drop_unchanged();
  drafts_.push_back({"", {std::move(card)}, 0, {}});
  current_ = drafts_.size() - 1;
}

void CardDrafts::open_new(std::size_t index) {
  drop_unchanged();
  for (std::size_t i = 0; i < drafts_.size(); ++i)
    if (drafts_[i].from.empty() && index-- == 0) current_ = i;
}

void CardDrafts::change(air::BagCard card) {
  Draft& draft = drafts_[*current_];
  if (card == draft.steps[draft.at]) return;
  draft.steps.resize(draft.at + 1);
  draft.steps.push_back(std::move(card));
  ++draft.at;
}

void CardDrafts::kept(const std::optional<air::BagCard>& replaced) {
  Draft& draft = drafts_[*current_];
  draft.steps.resize(draft.at + 1); // what was undone before keeping is forgotten
  if (replaced && !(draft.steps.front() == *replaced)) draft.steps.insert(draft.steps.begin(), *replaced);
  draft.at = draft.steps.size() - 1;
  draft.on_shelf = card();
  draft.from = card().name;
  // Of two drafts of one name the one just kept is it.
  const std::string name = draft.from;
  for (std::size_t i = drafts_.size(); i-- > 0;)
    if (i != *current_ && drafts_[i].from == name) {
      drafts_.erase(drafts_.begin() + static_cast<std::ptrdiff_t>(i));
      if (i < *current_) --*current_;
    }
}

std::vector<std::string> CardDrafts::new_names() const {
  std::vector<std::string> out;
  for (const Draft& draft : drafts_)
    if (draft.from.empty()) out.push_back(draft.steps[draft.at].name);
  return out;
}

bool CardDrafts::is_edited(const std::string& name) const {
  return std::any_of(drafts_.begin(), drafts_.end(),
                     [&](const Draft& draft) { return draft.from == name && draft.is_unkept(); });
}

bool CardDrafts::any_unkept() const {
  return std::any_of(drafts_.begin(), drafts_.end(), [](const Draft& draft) { return draft.is_unkept(); });
}

std::optional<std::size_t> CardDrafts::shown_new() const {
  if (!current_ || !now().from.empty()) return std::nullopt;
  return static_cast<std::size_t>(std::count_if(drafts_.begin(),
                                                drafts_.begin() + static_cast<std::ptrdiff_t>(*current_),
                                                [](const Draft& draft) { return draft.from.empty(); }));
}

} // namespace mavrel::app
