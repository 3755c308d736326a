#include "quantity/message.h"

#include "quantity/quantity.h"

#include <cctype>

namespace mavrel {

namespace {

struct Put {
  const UnitPrefs& prefs;
  std::string operator()(const std::string& text) const { return text; }
  std::string operator()(const Amount& amount) const { return show(amount.value, amount.kind, prefs, amount.decimals); }
};

} // namespace

std::string say(const Message& message, const UnitPrefs& prefs, const Translate& translate) {
  const std::string text = translate ? translate(message.text) : message.text;
  std::string out;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const bool place = text[i] == '{' && i + 2 < text.size() && text[i + 2] == '}' &&
                       std::isdigit(static_cast<unsigned char>(text[i + 1]));
    if (!place) {
      out += text[i];
      continue;
    }
    const auto index = static_cast<std::size_t>(text[i + 1] - '0');
    if (index < message.args.size()) out += std::visit(Put{prefs}, message.args[index]);
    i += 2;
  }
  return out;
}

} // namespace mavrel
