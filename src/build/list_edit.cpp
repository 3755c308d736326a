#include "build/list_edit.h"

#include "build/finder.h"
#include "quantity/text.h"

#include <cassert>

namespace mavrel::build {

namespace {

tl::unexpected<Message> no_such_list(std::string_view path) {
  return refuse(words("There is no list “{0}”."), {excerpt(path, 80)});
}

/// Acts on whole lists; of other fields it only says that they are none.
struct ListAct {
  std::optional<Message> mistake;
  bool done = false;

  void text(auto&, const Message&, std::size_t) {}
  void number(auto&, const Message&, const NumberSpec&) {}
  void readings(auto&, const Message&, const NumberSpec&) {}
  void choice(auto&, const Message&) {}
  void wish(auto&, const Message&) {}
};

struct Adding : ListAct {
  Entry entry;

  template <class L>
  void list(L& values, const char* label, std::size_t, std::size_t most) {
    const auto* fits = std::get_if<typename L::value_type>(&entry);
    if (!fits) return;
    done = true;
    if (values.size() >= most)
      mistake = Message{words("No further {0}: {1} are the most that are kept there. Remove one first."),
                        {label, std::to_string(most)}};
    else
      values.push_back(std::move(*fits));
  }
};

struct Removing : ListAct {
  std::size_t index = 0;

  void list(auto& values, const char* label, std::size_t least, std::size_t) {
    if (index >= values.size()) return;
    done = true;
    if (values.size() <= least)
      mistake = Message{words("The last {0} stays: a build has at least {1}."), {label, std::to_string(least)}};
    else
      values.erase(values.begin() + static_cast<std::ptrdiff_t>(index));
  }
};

} // namespace

Expected<Build> with_entry(const Build& build, std::string_view list, Entry entry) {
  Build out = build;
  Adding adding{{}, std::move(entry)};
  Finder finder(list, adding);
  fields(finder, out);
  if (!adding.done) return no_such_list(list);
  if (adding.mistake) return refuse(*adding.mistake);
  return out;
}

Expected<Build> without_entry(const Build& build, std::string_view entry) {
  const std::size_t dot = entry.rfind('.');
  Removing removing;
  const std::string_view step = dot == std::string_view::npos ? std::string_view{} : entry.substr(dot + 1);
  const auto [end, error] = std::from_chars(step.data(), step.data() + step.size(), removing.index);
  if (step.empty() || error != std::errc() || end != step.data() + step.size()) return no_such_list(entry);
  Build out = build;
  const std::string_view list = entry.substr(0, dot);
  Finder finder(list, removing);
  fields(finder, out);
  if (!removing.done) return no_such_list(entry);
  if (removing.mistake) return refuse(*removing.mistake);
  if (list == "variants" && (out.active_variant > removing.index || out.active_variant == out.variants.size()))
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
