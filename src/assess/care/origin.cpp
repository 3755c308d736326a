#include "assess/care/origin.h"

#include "assess/kept/digest.h"
#include "build/care.h"
#include "build/fit_up.h"
#include "build/names.h"
#include "build/names_care.h"
#include "build/names_fit_up.h"
#include "build/proving.h"

#include <algorithm>
#include <map>

namespace mavrel::assess {

namespace {

Message named(const Message& label, const char* last) {
  if (label.empty()) return {last, {}};
  if (*last == '\0') return label;
  return {words("{0} {1}"), {label, Message{last, {}}}};
}

Digest digest_of_list(const build::Field& field, const void* in) {
  Digester digester;
  digester.add_list(field, in);
  return digester.digest();
}

/// Takes what is filled of what is measured. A usual figure and a choice are nobody's car.
void take_leaves(const build::Table& table, const void* in, const std::string& path, const Message& label,
                 std::vector<Leaf>& out) {
  using enum build::FieldType;
  for (const build::Field& field : table.fields) {
    const std::string at = path + "." + field.key;
    if (field.type == maybe_number) {
      if (const auto value = field.number(in)) out.push_back({at, named(label, field.label), digest_of(*value).text()});
    } else if (field.type == readings) {
      if (const auto& values = field.readings(in).values; !values.empty())
        out.push_back({at, named(label, field.label), digest_of(values).text()});
    } else if (field.type == object) {
      take_leaves(field.of(), field.opened(field.at(in)), at, named(label, field.label), out);
    } else if (field.type == text && std::string_view(field.key) == "wheel") {
      if (const std::string& code = field.text(in); !code.empty())
        out.push_back({at, named(label, field.label), digest_of(code).text()});
    } else if (field.type == list && field.size(in) > 0) {
      out.push_back({at, named(label, field.label), digest_of_list(field, in).text()});
    }
  }
}

} // namespace

std::vector<Leaf> measured_leaves(const build::Build& build) {
  std::vector<Leaf> out;
  take_leaves(build::table_of<build::Body>(), &build.body, "body", {}, out);
  for (const build::End end : build::both_ends)
    take_leaves(build::table_of<build::EndSurvey>(), &build.end(end), build::key_of(end), {build::key_of(end), {}},
                out);
  return out;
}

std::vector<std::pair<std::size_t, Message>> still_taken(const build::Build& build) {
  std::vector<std::pair<std::size_t, Message>> out;
  const auto& taken = build.origin->taken;
  if (taken.empty()) return out;
  std::map<std::string, const Leaf*> now;
  const auto leaves = measured_leaves(build);
  for (const Leaf& leaf : leaves)
    now.emplace(leaf.path, &leaf);
  for (std::size_t i = 0; i < taken.size(); ++i)
    if (const auto found = now.find(taken[i].path); found != now.end() && found->second->digest == taken[i].digest)
      out.emplace_back(i, found->second->name);
  return out;
}

build::Build begun_from(const build::Build& earlier, const std::string& file, const std::string& day) {
  build::Build out = earlier;
  out.job.number.clear(), out.job.owner.clear(), out.job.notes.clear();
  // The design it was built by, and no other that was only tried.
  build::Variant design = earlier.variant();
  out.variants.clear();
  for (build::EndFit& fit : design.fit) {
    fit.checks.clear();
    fit.learned_ratio.reset(), fit.learned_area.reset(), fit.learned_friction.reset();
  }
  design.air.learned_flow = {};
  build::FitUp& work = design.fit_up.own();
  work.checks.clear();
  // What was done is that car's; what somebody changed of the plan, and what jobs took, goes on.
  for (build::JobNote& j : work.jobs)
    if (j.took) j.hours = j.took;
  std::erase_if(work.jobs, [](const build::JobNote& j) {
    return j.name.empty() && !j.hours && !j.wait && !j.people && j.place == build::WorkPlace::usual && j.after.empty();
  });
  for (build::JobNote& j : work.jobs) {
    j.state = build::JobState::open;
    j.began.clear(), j.ended.clear(), j.took.reset(), j.not_before.clear(), j.who.clear(), j.reason.clear();
  }
  for (build::PartNote& p : work.parts)
    p.ordered.clear(), p.ordered_count.reset(), p.on_shelf = 0;
  design.proving = build::Proving{};
  design.name = "A";
  out.variants.push_back(std::move(design));
  out.active_variant = 0;
  build::Care& care = out.care.own();
  care.from.clear();
  care.log.clear();
  build::Origin& origin = out.origin.own();
  origin = {};
  origin.car = earlier.job.car, origin.number = earlier.job.number, origin.file = file, origin.day = day;
  for (const Leaf& leaf : measured_leaves(out))
    if (origin.taken.size() < build::most_taken) origin.taken.push_back({leaf.path, leaf.digest, {}});
  return out;
}

build::Build confirmed(const build::Build& build, std::size_t place) {
  build::Build out = build;
  auto& taken = out.origin.own().taken;
  if (place < taken.size()) taken.erase(taken.begin() + static_cast<std::ptrdiff_t>(place));
  return out;
}

} // namespace mavrel::assess
