// Cards being edited, each with its own undo, until they are kept on the shelf or given up. Looking at another card
// loses nothing.
#pragma once

#include "air/bag_card.h"

#include <optional>
#include <string>
#include <vector>

namespace mavrel::app {

class CardDrafts {
public:
  /// Shows the card of this name on the shelf: its draft if it has one, else the card itself.
  void open(const air::BagCard& on_shelf);
  /// Shows a card that is on no shelf yet.
  void add(air::BagCard card);
  /// Shows a draft that is on no shelf yet, by its place among them.
  void open_new(std::size_t index);

  [[nodiscard]] bool has_card() const { return current_.has_value(); }
  [[nodiscard]] const air::BagCard& card() const { return now().steps[now().at]; }
  void change(air::BagCard card);
  [[nodiscard]] bool can_undo() const { return has_card() && now().at > 0; }
  [[nodiscard]] bool can_redo() const { return has_card() && now().at + 1 < now().steps.size(); }
  void undo() { --drafts_[*current_].at; }
  void redo() { ++drafts_[*current_].at; }
  /// The card shown was kept: it is on the shelf as it is now. Its steps stay, so that keeping can be taken back.
  /// @param replaced  the card of its name that was there before: the step before all others
  void kept(const std::optional<air::BagCard>& replaced = {});

  /// Name on the shelf of the card shown; empty for one on none.
  [[nodiscard]] const std::string& shelf_name() const { return now().from; }
  /// Names of drafts on no shelf, in the order made.
  [[nodiscard]] std::vector<std::string> new_names() const;
  /// Has the shelf's card of this name edits that were not kept?
  [[nodiscard]] bool is_edited(const std::string& name) const;
  [[nodiscard]] bool any_unkept() const;
  /// Is the card shown on no shelf yet, and which of those is it?
  [[nodiscard]] std::optional<std::size_t> shown_new() const;

private:
  struct Draft {
    std::string from; // name on the shelf; empty: on none
    std::vector<air::BagCard> steps;
    std::size_t at = 0;
    air::BagCard on_shelf; // as the shelf has it, where it is on one
    [[nodiscard]] bool is_unkept() const { return from.empty() || !(steps[at] == on_shelf); }
  };
  [[nodiscard]] const Draft& now() const { return drafts_[*current_]; }
  void drop_unchanged();

  std::vector<Draft> drafts_;
  std::optional<std::size_t> current_;
};

} // namespace mavrel::app
