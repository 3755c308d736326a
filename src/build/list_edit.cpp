#include "build/list_edit.h"

#include "quantity/text.h"

#include <cassert>
#include <charconv>

namespace mavrel::build {

namespace {

tl::unexpected<Message> no_such_list(std::string_view path) {
  return refuse(words("There is no list “{0}”."), {excerpt(path, 80)});
}

} // namespace

Expected<Build> with_entry(const Build& build, std::string_view path, Entry entry) {
  Build out = build;
  const auto found = find_field_to_change(table_of<Build>(), &out, path);
  if (!found || found->field->type != FieldType::list || &found->field->list->of() != &entry.table())
    return no_such_list(path);
  const Field& list = *found->field;
  if (list.size(found->in) >= list.most)
    return refuse(words("No further {0}: {1} are the most that are kept there. Remove one first."),
                  {list.label, std::to_string(list.most)});
  list.list->push(list.at(found->own()), entry.value());
  return out;
}

Expected<Build> without_entry(const Build& build, std::string_view entry) {
  const std::size_t dot = entry.rfind('.');
  std::size_t index = 0;
  const std::string_view step = dot == std::string_view::npos ? std::string_view{} : entry.substr(dot + 1);
  const auto [end, error] = std::from_chars(step.data(), step.data() + step.size(), index);
  if (step.empty() || error != std::errc() || end != step.data() + step.size()) return no_such_list(entry);
  Build out = build;
  const std::string_view path = entry.substr(0, dot);
  const auto found = find_field_to_change(table_of<Build>(), &out, path);
  if (!found || found->field->type != FieldType::list || index >= found->field->size(found->in))
    return no_such_list(entry);
  const Field& list = *found->field;
  if (list.size(found->in) <= list.least)
    return refuse(words("The last {0} stays: a build has at least {1}."), {list.label, std::to_string(list.least)});
  list.list->erase(list.at(found->own()), index);
  if (path == "variants" && (out.active_variant > index || out.active_variant == out.variants.size()))
    --out.active_variant;
  return out;
}

Build with_active(const Build& build, std::size_t index) {
  assert(index < build.variants.size());
  Build out = build;
  out.active_variant = index;
  return out;
}

} // namespace mavrel::build
