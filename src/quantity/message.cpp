#include "quantity/message.h"

#include "quantity/quantity.h"
#include "quantity/text.h"

#include <cctype>

namespace mavrel {

bool operator==(const Argument& a, const Argument& b) {
  return a.what == b.what;
}

bool operator==(const Message& a, const Message& b) {
  return a.text == b.text && a.args == b.args;
}

namespace {

constexpr int most_decimals = 9;

std::string amount_in_words(const Amount& amount, const UnitPrefs& prefs) {
  const std::string usual = show(amount.value, amount.kind, prefs, amount.decimals);
  if (!amount.unlike || *amount.unlike == amount.value) return usual;
  if (show(*amount.unlike, amount.kind, prefs, amount.decimals) != usual) return usual;
  for (int decimals = amount.decimals < 0 ? 1 : amount.decimals + 1; decimals <= most_decimals; ++decimals) {
    std::string finer = show(amount.value, amount.kind, prefs, decimals);
    if (finer != show(*amount.unlike, amount.kind, prefs, decimals)) return finer;
  }
  return usual;
}

std::string in_words(const Message& message, const UnitPrefs& prefs, const Translate& translate);

std::string in_words(const Argument& argument, const UnitPrefs& prefs, const Translate& translate, bool begins) {
  if (const auto* typed = std::get_if<std::string>(&argument.what)) return presentable(*typed);
  if (const auto* amount = std::get_if<Amount>(&argument.what)) return amount_in_words(*amount, prefs);
  std::string part = in_words(std::get<Message>(argument.what), prefs, translate);
  return begins ? capitalised(std::move(part)) : part;
}

std::string in_words(const Message& message, const UnitPrefs& prefs, const Translate& translate) {
  const std::string text = translate && !message.text.empty() ? translate(message.text) : message.text;
  std::string out;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const bool place =
        text[i] == '{' && i + 2 < text.size() && text[i + 2] == '}' && text[i + 1] >= '0' && text[i + 1] <= '9';
    if (!place) {
      out += text[i];
      continue;
    }
    const auto index = static_cast<std::size_t>(text[i + 1] - '0');
    // Words of ours begin a sentence with a capital, wherever in the message the sentence begins.
    const bool begins = i >= 2 && text[i - 1] == ' ' && text[i - 2] == '.';
    if (index < message.args.size()) out += in_words(message.args[index], prefs, translate, begins);
    i += 2;
  }
  return out;
}

} // namespace

std::string say(const Message& message, const UnitPrefs& prefs, const Translate& translate) {
  return presentable(in_words(message, prefs, translate));
}

Message list_of(std::vector<Message> parts) {
  if (parts.empty()) return {};
  Message out = std::move(parts.front());
  for (std::size_t i = 1; i < parts.size(); ++i)
    out = Message{words("{0}, {1}"), {std::move(out), std::move(parts[i])}};
  return out;
}

} // namespace mavrel
