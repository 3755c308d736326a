#include "build/table.h"

#include "build/brief.h"

#include <charconv>

namespace mavrel::build {

double* Field::number_to_change(void* in) const {
  if (type == FieldType::number) return &get<double>(in);
  auto& value = get<std::optional<double>>(in);
  return value ? &*value : nullptr;
}

void Field::set_number(void* in, std::optional<double> value) const {
  if (type == FieldType::maybe_number)
    get<std::optional<double>>(in) = value;
  else if (value)
    get<double>(in) = *value;
}

const Field* Table::find(std::string_view key) const {
  for (const Field& field : fields)
    if (field.type != FieldType::extra && field.key == key) return &field;
  return nullptr;
}

namespace {

std::string_view first_step(std::string_view path) {
  return path.substr(0, path.find('.'));
}
std::string_view later_steps(std::string_view path) {
  const std::size_t dot = path.find('.');
  return dot == std::string_view::npos ? std::string_view{} : path.substr(dot + 1);
}

Message named(const Message& label, Message last) {
  if (label.empty()) return last;
  if (last.empty()) return label;
  return {words("{0} {1}"), {label, std::move(last)}};
}

Message name_of_entry(const Field& list, const Table& of, const void* entry) {
  // A variant's own name in front of every edit made in it would say nothing: one is active at a time.
  if (of.find("brief")) return {};
  if (of.name && !of.name->text(entry).empty()) return {"{0}", {of.name->text(entry)}};
  return {list.label, {}};
}

/// @param own  whether what is on the way is made the copy's own; `in` may then be changed
std::optional<FoundField> walk(const Table& table, const void* in, bool own, std::string_view path, Message label) {
  const std::string_view step = first_step(path), rest = later_steps(path);
  const Field* field = table.find(step);
  if (!field || field->type == FieldType::index) return std::nullopt;
  void* const place = field->at(const_cast<void*>(in));
  if (field->type == FieldType::object) {
    if (rest.empty()) return std::nullopt;
    return walk(field->of(), own ? field->own(place) : field->opened(place), own, rest,
                named(label, {field->label, {}}));
  }
  if (path == step) return FoundField{field, in, named(label, {field->label, {}})};
  if (field->type != FieldType::list) return std::nullopt;
  std::size_t i = 0;
  const std::string_view number = first_step(rest);
  const auto [end, error] = std::from_chars(number.data(), number.data() + number.size(), i);
  if (error != std::errc() || end != number.data() + number.size() || i >= field->list->size(place))
    return std::nullopt;
  const Table& of = field->list->of();
  const void* entry = field->list->at(place, i);
  Message name = named(label, name_of_entry(*field, of, entry));
  if (own) entry = field->list->own(place, i);
  return walk(of, entry, own, later_steps(rest), std::move(name));
}

} // namespace

std::optional<FoundField> find_field(const Table& table, const void* root, std::string_view path) {
  return walk(table, root, false, path, {});
}

std::optional<FoundField> find_field_to_change(const Table& table, void* root, std::string_view path) {
  return walk(table, root, true, path, {});
}

} // namespace mavrel::build
