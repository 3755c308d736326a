#include "assess/care/origin.h"

#include "assess/kept/digest.h"

#include <algorithm>
#include <map>

namespace mavrel::assess {

namespace {

/// Walks the document's fields and takes what is filled of what is measured.
class Leaves {
public:
  Leaves(std::string front, Message label, std::vector<Leaf>& out)
      : front_(std::move(front)), label_(std::move(label)), out_(out) {}

  void text(const char*, const std::string&, const char*, std::size_t) {}
  void number(const char* key, const std::optional<double>& value, const build::NumberSpec& spec) {
    if (value) add(key, spec.label, digest_of(*value));
  }
  void number(const char*, double, const build::NumberSpec&) {} // a usual figure is nobody's car
  void readings(const char* key, const build::Readings& value, const build::NumberSpec& spec) {
    if (!value.values.empty()) add(key, spec.label, digest_of(value.values));
  }
  template <class Enum>
  void choice(const char*, Enum, const char*) {}
  void wish(const char*, const std::optional<build::HeightWish>&, const char*) {}
  void index(const char*, std::size_t, std::size_t) {}
  template <class T>
  void object(const char* key, const T& value, const char* label) {
    Leaves inner(path(key), named(label), out_);
    build::fields(inner, opened(value));
  }
  template <class L>
  void list(const char* key, const L& values, const char* label, std::size_t, std::size_t) {
    if (values.size() > 0) add(key, label, digest_of(values));
  }
  void extra(const build::Extra&) {}

private:
  [[nodiscard]] std::string path(const char* key) const { return front_.empty() ? key : front_ + "." + key; }
  [[nodiscard]] Message named(const char* label) const {
    if (label_.empty()) return {label, {}};
    if (*label == '\0') return label_;
    return {words("{0} {1}"), {label_, Message{label, {}}}};
  }
  void add(const char* key, const char* label, const Digest& digest) {
    out_.push_back({path(key), named(label), digest.text()});
  }

  std::string front_;
  Message label_;
  std::vector<Leaf>& out_;
};

} // namespace

std::vector<Leaf> measured_leaves(const build::Build& build) {
  std::vector<Leaf> out;
  Leaves body("body", {}, out);
  build::fields(body, build.body);
  Leaves front("front", {words("front"), {}}, out);
  build::fields(front, build.end(build::End::front));
  Leaves rear("rear", {words("rear"), {}}, out);
  build::fields(rear, build.end(build::End::rear));
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
    p.ordered.clear(), p.on_shelf = 0;
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
