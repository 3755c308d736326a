// Finds one field of the document by its path and lets somebody act there. For this folder's own use.
#pragma once

#include "build/fields.h"

#include <charconv>
#include <string>
#include <string_view>

namespace mavrel::build {

inline std::string_view first_step(std::string_view path) {
  return path.substr(0, path.find('.'));
}
inline std::string_view later_steps(std::string_view path) {
  const std::size_t dot = path.find('.');
  return dot == std::string_view::npos ? std::string_view{} : path.substr(dot + 1);
}

/// Walks the list of fields to one path and does `Act` there. Act has one overload a type of field, and `list` if it
/// wants whole lists.
template <class Act>
class Finder {
public:
  /// @param label  of what `path` starts in; empty for the document itself
  Finder(std::string_view path, Act& act, Message label = {}) : path_(path), act_(act), label_(std::move(label)) {}

  [[nodiscard]] bool found() const { return found_; }

  void text(const char* key, auto& value, const char* label, std::size_t most) {
    if (here(key)) act_.text(value, named(label), most);
  }
  void number(const char* key, auto& value, const NumberSpec& spec) {
    if (here(key)) act_.number(value, named(spec.label), spec);
  }
  void readings(const char* key, auto& value, const NumberSpec& spec) {
    if (here(key)) act_.readings(value, named(spec.label), spec);
  }
  void choice(const char* key, auto& value, const char* label) {
    if (here(key)) act_.choice(value, named(label));
  }
  void wish(const char* key, auto& value, const char* label) {
    if (here(key)) act_.wish(value, named(label));
  }
  void index(const char*, auto&, std::size_t) {}
  void object(const char* key, auto& value, const char* label) {
    if (first_step(path_) != key || later_steps(path_).empty()) return;
    descend(opened(value), later_steps(path_), named(label));
  }
  void list(const char* key, auto& values, const char* label, std::size_t least, std::size_t most) {
    if constexpr (requires { act_.list(values, label, least, most); })
      if (here(key)) return act_.list(values, label, least, most);
    if (first_step(path_) != key) return;
    const std::string_view rest = later_steps(path_);
    std::size_t i = 0;
    const std::string_view step = first_step(rest);
    const auto [end, error] = std::from_chars(step.data(), step.data() + step.size(), i);
    if (error != std::errc() || end != step.data() + step.size() || i >= values.size()) return;
    Message name{label, {}};
    if constexpr (requires { values[i].name; })
      if (!values[i].name.empty()) name = {"{0}", {values[i].name}};
    // A variant's own name in front of every edit made in it would say nothing: one is active at a time.
    if constexpr (requires { values[i].brief; }) name = {};
    descend(values[i], later_steps(rest), named(std::move(name)));
  }
  void extra(auto&) {}

private:
  bool here(std::string_view key) {
    if (path_ != key) return false;
    found_ = true;
    return true;
  }
  Message named(const char* label) const { return named(Message{label, {}}); }
  Message named(Message last) const {
    if (label_.empty()) return last;
    if (last.empty()) return label_;
    return {words("{0} {1}"), {label_, std::move(last)}};
  }
  void descend(auto& value, std::string_view path, Message label) {
    Finder inner(path, act_, std::move(label));
    fields(inner, value);
    found_ = found_ || inner.found_;
  }

  std::string_view path_;
  Act& act_;
  Message label_;
  bool found_ = false;
};

} // namespace mavrel::build
