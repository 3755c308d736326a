#include "build/json_text.h"

#include "file/text_file.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <set>

namespace mavrel::build {

namespace {

using Json = nlohmann::ordered_json;

// What a file may hold before it is read: far more than any build does, few enough to be read in a moment.
constexpr std::size_t deepest = 32;          // nesting; the format itself needs 8
constexpr std::size_t most_values = 200'000; // numbers, texts, objects and lists together
constexpr std::size_t most_keys = 200;       // of one object

/// A first pass over the text that builds nothing: counts what is there, bounds it, and refuses keys given twice.
class Guard : public nlohmann::json_sax<Json> {
public:
  std::optional<Message> mistake;

  bool null() override { return value(); }
  bool boolean(bool) override { return value(); }
  bool number_integer(number_integer_t) override { return value(); }
  bool number_unsigned(number_unsigned_t) override { return value(); }
  bool number_float(number_float_t, const string_t&) override { return value(); }
  bool string(string_t&) override { return value(); }
  bool binary(binary_t&) override { return value(); }
  bool start_object(std::size_t) override { return value() && go_down(); }
  bool end_object() override { return go_up(); }
  bool start_array(std::size_t) override { return value() && go_down(); }
  bool end_array() override { return go_up(); }
  bool key(string_t& name) override {
    auto& keys = keys_.back();
    if (keys.size() == most_keys)
      return no({words("One object of the file has more than {0} keys; a file of Mavrel's never has."),
                 {fmt::to_string(most_keys)}});
    if (!keys.insert(name).second) return no({words("The key “{0}” stands twice in one object."), {excerpt(name, 60)}});
    return true;
  }
  bool parse_error(std::size_t byte, const std::string&, const Json::exception& error) override {
    if (error.id == 406) return no({words("The file holds a number too large for any computer to read."), {}});
    byte_ = byte;
    return false;
  }
  /// Where the text stopped being JSON, when no other mistake was found.
  [[nodiscard]] std::size_t byte() const { return byte_; }

private:
  bool no(Message why) {
    mistake = std::move(why);
    return false;
  }
  bool value() {
    if (++values_ > most_values)
      return no({words("The file holds more than {0} values; a file of Mavrel's never does."),
                 {fmt::to_string(most_values)}});
    return true;
  }
  bool go_down() {
    if (keys_.size() == deepest)
      return no({words("The file is nested deeper than {0} levels; a file of Mavrel's never is."),
                 {fmt::to_string(deepest)}});
    keys_.emplace_back();
    return true;
  }
  bool go_up() {
    keys_.pop_back();
    return true;
  }

  std::vector<std::set<std::string, std::less<>>> keys_;
  std::size_t values_ = 0, byte_ = 0;
};

} // namespace

Expected<Json> read_json_text(std::string_view text) {
  if (text.find_first_not_of(" \t\r\n") == std::string_view::npos) return refuse(words("The file is empty."));
  if (const auto bad = first_bad_utf8(text)) {
    const TextPlace at = place_in(text, *bad);
    return refuse(words("Line {0}, column {1}: this is not UTF-8 text."),
                  {fmt::to_string(at.line), fmt::to_string(at.column)});
  }
  Guard guard;
  if (!Json::sax_parse(text, &guard)) {
    if (guard.mistake) return refuse(*guard.mistake);
    const TextPlace at = place_in(text, guard.byte() > 0 ? guard.byte() - 1 : 0);
    const bool ends = guard.byte() > text.size();
    return refuse(
        ends ? words("The file ends too early, at line {0}, column {1}: it was cut off while being written or copied.")
             : words("The file is damaged at line {0}, column {1}: what stands there is not JSON."),
        {fmt::to_string(at.line), fmt::to_string(at.column)});
  }
  return Json::parse(text);
}

Message kind_of(const Json& value) {
  if (value.is_string()) return {words("the text “{0}”"), {excerpt(value.get_ref<const std::string&>(), 40)}};
  if (value.is_number()) return {words("the number {0}"), {value.dump()}};
  if (value.is_boolean()) return {value.get<bool>() ? "true" : "false", {}};
  if (value.is_array()) return {words("a list"), {}};
  if (value.is_object()) return {words("an object"), {}};
  return {words("nothing (null)"), {}};
}

} // namespace mavrel::build
