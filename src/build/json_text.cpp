#include "build/json_text.h"

#include "file/text_file.h"
#include "quantity/text.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <utility>
#include <vector>

namespace mavrel::build {

namespace {

using Json = nlohmann::ordered_json;

// What a file may hold before it is read: far more than any build does, few enough to be read in a moment.
constexpr std::size_t deepest = 32;          // nesting; the format itself needs 8
constexpr std::size_t most_values = 200'000; // numbers, texts, objects and lists together
constexpr std::size_t most_keys = 200;       // of one object

/// Takes the text in one pass, bounded while it is read: counts what is there, and refuses keys given twice.
class Builder : public nlohmann::json_sax<Json> {
public:
  std::optional<Message> mistake;
  Json whole;

  bool null() override { return put(nullptr); }
  bool boolean(bool v) override { return put(v); }
  bool number_integer(number_integer_t v) override { return put(v); }
  bool number_unsigned(number_unsigned_t v) override { return put(v); }
  bool number_float(number_float_t v, const string_t&) override { return put(v); }
  bool string(string_t& v) override { return put(std::move(v)); }
  bool binary(binary_t&) override { return false; }
  bool start_object(std::size_t) override { return put(Json::object()) && go_down(); }
  bool end_object() override { return go_up(); }
  bool start_array(std::size_t) override { return put(Json::array()) && go_down(); }
  bool end_array() override { return go_up(); }
  bool key(string_t& name) override {
    const auto& there = open_.back()->get_ref<const Json::object_t&>();
    if (there.size() == most_keys)
      return no({words("One object of the file has more than {0} keys; a file of Mavrel's never has."),
                 {fmt::to_string(most_keys)}});
    for (const auto& one : there)
      if (one.first == name) return no({words("The key “{0}” stands twice in one object."), {excerpt(name, 60)}});
    key_ = std::move(name);
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
  /// Adds a value to what is open. Only what was opened last grows, so that the others stay where they are.
  bool put(Json value) {
    if (++values_ > most_values)
      return no({words("The file holds more than {0} values; a file of Mavrel's never does."),
                 {fmt::to_string(most_values)}});
    if (open_.empty()) {
      whole = std::move(value);
      last_ = &whole;
    } else if (open_.back()->is_array()) {
      auto& array = open_.back()->get_ref<Json::array_t&>();
      array.push_back(std::move(value));
      last_ = &array.back();
    } else {
      auto& object = open_.back()->get_ref<Json::object_t&>();
      object.push_back({std::move(key_), std::move(value)}); // its key is none that stands there
      last_ = &object.back().second;
    }
    return true;
  }
  bool go_down() {
    if (open_.size() == deepest)
      return no({words("The file is nested deeper than {0} levels; a file of Mavrel's never is."),
                 {fmt::to_string(deepest)}});
    open_.push_back(last_);
    return true;
  }
  bool go_up() {
    open_.pop_back();
    return true;
  }

  std::vector<Json*> open_; // from the whole to where the reader is
  Json* last_ = nullptr;
  std::string key_;
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
  Builder builder;
  if (!Json::sax_parse(text, &builder)) {
    if (builder.mistake) return refuse(*builder.mistake);
    const TextPlace at = place_in(text, builder.byte() > 0 ? builder.byte() - 1 : 0);
    const bool ends = builder.byte() > text.size();
    return refuse(
        ends ? words("The file ends too early, at line {0}, column {1}: it was cut off while being written or copied.")
             : words("The file is damaged at line {0}, column {1}: what stands there is not JSON."),
        {fmt::to_string(at.line), fmt::to_string(at.column)});
  }
  return std::move(builder.whole);
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
