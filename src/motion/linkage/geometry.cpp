#include "motion/linkage/geometry.h"

#include "quantity/message.h"

#include <cmath>

namespace mavrel::motion {

namespace {

using J = Joint;

constexpr const char* joint_keys[] = {
    "lower_front", "lower_rear",  "lower_outer",  "upper_front", "upper_rear",  "upper_outer", "strut_top",
    "strut_lower", "rod_inner",   "rod_outer",    "link1_inner", "link1_outer", "link2_inner", "link2_outer",
    "link3_inner", "link3_outer", "link4_inner",  "link4_outer", "link5_inner", "link5_outer", "hinge_inner",
    "hinge_outer", "king_lower",  "king_upper",   "lower_body",  "lower_axle",  "upper_body",  "upper_axle",
    "bar_body",    "bar_axle",    "wheel_centre", "spring_body", "spring_foot", "damper_body", "damper_foot",
};
static_assert(std::size(joint_keys) == joint_count);

constexpr const char* part_keys[] = {"body",  "upright", "lower_arm", "upper_arm", "arm", "link1",
                                     "link2", "link3",   "link4",     "link5",     "axle"};
constexpr const char* part_names[] = {words("body"),   words("upright"), words("lower arm"), words("upper arm"),
                                      words("arm"),    words("link 1"),  words("link 2"),    words("link 3"),
                                      words("link 4"), words("link 5"),  words("axle")};

// Every shape ends with the same five.
template <std::size_t N>
constexpr std::array<JointRow, N + 5> with_ends(const JointRow (&own)[N], Part carrier) {
  std::array<JointRow, N + 5> out{};
  for (std::size_t i = 0; i < N; ++i)
    out[i] = own[i];
  out[N] = {J::wheel_centre, words("wheel centre"), carrier, true};
  out[N + 1] = {J::spring_body, words("spring, upper seat"), Part::body, false};
  out[N + 2] = {J::spring_foot, words("spring, lower seat"), carrier, false};
  out[N + 3] = {J::damper_body, words("damper, upper eye"), Part::body, false};
  out[N + 4] = {J::damper_foot, words("damper, lower eye"), carrier, false};
  return out;
}

constexpr auto strut_joints = with_ends(
    {
        {J::lower_front, words("lower arm, front pivot"), Part::body, true},
        {J::lower_rear, words("lower arm, rear pivot"), Part::body, true},
        {J::lower_outer, words("lower ball joint"), Part::upright, true},
        {J::strut_top, words("strut top"), Part::body, true},
        {J::strut_lower, words("strut foot"), Part::upright, true},
        {J::rod_inner, words("track rod, inner end"), Part::body, true},
        {J::rod_outer, words("track rod, outer end"), Part::upright, true},
    },
    Part::upright);
constexpr auto double_arm_joints = with_ends(
    {
        {J::lower_front, words("lower arm, first pivot"), Part::body, true},
        {J::lower_rear, words("lower arm, second pivot"), Part::body, true},
        {J::lower_outer, words("lower ball joint"), Part::upright, true},
        {J::upper_front, words("upper arm, first pivot"), Part::body, true},
        {J::upper_rear, words("upper arm, second pivot"), Part::body, true},
        {J::upper_outer, words("upper ball joint"), Part::upright, true},
        {J::rod_inner, words("track rod, inner end"), Part::body, true},
        {J::rod_outer, words("track rod, outer end"), Part::upright, true},
    },
    Part::upright);
constexpr auto multi_link_joints = with_ends(
    {
        {J::link1_inner, words("link 1, inner"), Part::body, true},
        {J::link1_outer, words("link 1, outer"), Part::upright, true},
        {J::link2_inner, words("link 2, inner"), Part::body, true},
        {J::link2_outer, words("link 2, outer"), Part::upright, true},
        {J::link3_inner, words("link 3, inner"), Part::body, true},
        {J::link3_outer, words("link 3, outer"), Part::upright, true},
        {J::link4_inner, words("link 4, inner"), Part::body, true},
        {J::link4_outer, words("link 4, outer"), Part::upright, true},
        {J::link5_inner, words("link 5, inner"), Part::body, true},
        {J::link5_outer, words("link 5, outer"), Part::upright, true},
    },
    Part::upright);
constexpr auto hinge_joints = with_ends(
    {
        {J::hinge_inner, words("hinge, inner end"), Part::body, true},
        {J::hinge_outer, words("hinge, outer end"), Part::body, true},
    },
    Part::arm);
constexpr auto king_beam_joints = with_ends(
    {
        {J::hinge_inner, words("beam pivot"), Part::body, true},
        {J::hinge_outer, words("radius arm pivot"), Part::body, true},
        {J::king_lower, words("kingpin, lower end"), Part::upright, true},
        {J::king_upper, words("kingpin, upper end"), Part::upright, true},
        {J::rod_inner, words("track rod, inner end"), Part::body, true},
        {J::rod_outer, words("track rod, outer end"), Part::upright, true},
    },
    Part::upright);
constexpr auto solid_axle_joints = with_ends(
    {
        {J::lower_body, words("lower link, body end"), Part::body, true},
        {J::lower_axle, words("lower link, axle end"), Part::axle, true},
        {J::upper_body, words("upper link, body end"), Part::body, true},
        {J::upper_axle, words("upper link, axle end"), Part::axle, true},
        {J::bar_body, words("lateral bar, body end"), Part::body, false},
        {J::bar_axle, words("lateral bar, axle end"), Part::axle, false},
    },
    Part::axle);

constexpr Part strut_parts[] = {Part::upright, Part::lower_arm};
constexpr Part double_arm_parts[] = {Part::lower_arm, Part::upper_arm, Part::upright};
constexpr Part multi_link_parts[] = {Part::upright, Part::link1, Part::link2, Part::link3, Part::link4, Part::link5};
constexpr Part hinge_parts[] = {Part::arm};
constexpr Part king_beam_parts[] = {Part::arm, Part::upright};
constexpr Part solid_axle_parts[] = {Part::axle};

constexpr BarRow strut_bars[] = {
    {J::lower_front, J::lower_outer, words("lower arm, front"), Part::lower_arm},
    {J::lower_rear, J::lower_outer, words("lower arm, rear"), Part::lower_arm},
    {J::rod_inner, J::rod_outer, words("track rod"), Part::body},
};
constexpr BarRow double_arm_bars[] = {
    {J::lower_front, J::lower_outer, words("lower arm, first leg"), Part::lower_arm},
    {J::lower_rear, J::lower_outer, words("lower arm, second leg"), Part::lower_arm},
    {J::upper_front, J::upper_outer, words("upper arm, first leg"), Part::upper_arm},
    {J::upper_rear, J::upper_outer, words("upper arm, second leg"), Part::upper_arm},
    {J::rod_inner, J::rod_outer, words("track rod"), Part::body},
};
constexpr BarRow multi_link_bars[] = {
    {J::link1_inner, J::link1_outer, words("link 1"), Part::link1},
    {J::link2_inner, J::link2_outer, words("link 2"), Part::link2},
    {J::link3_inner, J::link3_outer, words("link 3"), Part::link3},
    {J::link4_inner, J::link4_outer, words("link 4"), Part::link4},
    {J::link5_inner, J::link5_outer, words("link 5"), Part::link5},
};
constexpr BarRow hinge_bars[] = {
    {J::hinge_inner, J::wheel_centre, words("arm, inner leg"), Part::arm},
    {J::hinge_outer, J::wheel_centre, words("arm, outer leg"), Part::arm},
};
constexpr BarRow king_beam_bars[] = {
    {J::hinge_inner, J::king_lower, words("beam"), Part::arm},
    {J::hinge_outer, J::king_lower, words("radius arm"), Part::arm},
    {J::hinge_inner, J::king_upper, words("beam"), Part::arm},
    {J::hinge_outer, J::king_upper, words("radius arm"), Part::arm},
    {J::rod_inner, J::rod_outer, words("track rod"), Part::body},
};
constexpr BarRow solid_axle_bars[] = {
    {J::lower_body, J::lower_axle, words("lower link"), Part::body},
    {J::upper_body, J::upper_axle, words("upper link"), Part::body},
    {J::bar_body, J::bar_axle, words("lateral bar"), Part::body},
};

struct ShapeRow {
  std::span<const JointRow> joints;
  std::span<const Part> parts;
  std::span<const BarRow> bars;
};
constexpr ShapeRow shape_rows[shape_count] = {
    {strut_joints, strut_parts, strut_bars},
    {double_arm_joints, double_arm_parts, double_arm_bars},
    {multi_link_joints, multi_link_parts, multi_link_bars},
    {hinge_joints, hinge_parts, hinge_bars},
    {king_beam_joints, king_beam_parts, king_beam_bars},
    {solid_axle_joints, solid_axle_parts, solid_axle_bars},
};
const ShapeRow& row_of(Shape shape) {
  return shape_rows[static_cast<std::size_t>(shape)];
}

} // namespace

std::span<const JointRow> joints_of(Shape shape) {
  return row_of(shape).joints;
}
std::span<const Part> parts_of(Shape shape) {
  return row_of(shape).parts;
}
std::span<const BarRow> bars_of(Shape shape) {
  return row_of(shape).bars;
}

const char* key_of(Joint joint) {
  return joint_keys[static_cast<std::size_t>(joint)];
}
std::optional<Joint> joint_from(std::string_view key) {
  for (std::size_t i = 0; i < joint_count; ++i)
    if (key == joint_keys[i]) return static_cast<Joint>(i);
  return std::nullopt;
}
const char* key_of(Part part) {
  return part_keys[static_cast<std::size_t>(part)];
}
const char* name_of(Part part) {
  return part_names[static_cast<std::size_t>(part)];
}
std::optional<Part> part_from(std::string_view key) {
  for (std::size_t i = 0; i < std::size(part_keys); ++i)
    if (key == part_keys[i]) return static_cast<Part>(i);
  return std::nullopt;
}
const char* name_of(Shape shape, Joint joint) {
  for (const JointRow& row : joints_of(shape))
    if (row.joint == joint) return row.name;
  return key_of(joint);
}

namespace {

/// How far a point lies from the line through two others, m; those two must be apart.
double off_line(const Point& p, const Point& a, const Point& b) {
  return length(cross(b - a, p - a)) / length(b - a);
}

class Check {
public:
  explicit Check(const Geometry& g) : g_(g) {}

  std::optional<GeometryMistake> find() {
    for (const JointRow& row : joints_of(g_.shape)) {
      const auto& p = g_.at(row.joint);
      if (!p && row.needed) return GeometryMistake{row.joint, {words("{0}: its place is missing."), {row.name}}};
      if (p && !(std::isfinite(p->x) && std::isfinite(p->y) && std::isfinite(p->z)))
        return GeometryMistake{row.joint, {words("{0}: its place is no number."), {row.name}}};
    }
    for (const auto& pair : {std::pair{J::spring_body, J::spring_foot}, std::pair{J::damper_body, J::damper_foot},
                             std::pair{J::bar_body, J::bar_axle}})
      if (auto wrong = both_or_none(pair.first, pair.second)) return wrong;
    for (const BarRow& bar : bars_of(g_.shape))
      if (auto wrong = apart(bar.from, bar.to)) return wrong;
    for (const Part part : {g_.spring_top, g_.spring_foot, g_.damper_top, g_.damper_foot})
      if (auto wrong = has(part)) return wrong;
    switch (g_.shape) {
    case Shape::strut:
      if (auto wrong = apart(J::strut_lower, J::strut_top)) return wrong;
      if (auto wrong = apart(J::lower_outer, J::strut_top)) return wrong;
      return arm(J::lower_front, J::lower_rear, J::lower_outer);
    case Shape::double_arm:
      if (auto wrong = apart(J::lower_outer, J::upper_outer)) return wrong;
      if (auto wrong = arm(J::lower_front, J::lower_rear, J::lower_outer)) return wrong;
      return arm(J::upper_front, J::upper_rear, J::upper_outer);
    case Shape::multi_link:
      return std::nullopt;
    case Shape::hinge:
      return arm(J::hinge_inner, J::hinge_outer, J::wheel_centre);
    case Shape::king_beam:
      if (auto wrong = apart(J::king_lower, J::king_upper)) return wrong;
      if (auto wrong = arm(J::hinge_inner, J::hinge_outer, J::king_lower)) return wrong;
      return arm(J::hinge_inner, J::hinge_outer, J::king_upper);
    case Shape::solid_axle:
      if (g_.at(J::wheel_centre)->y < least_bar)
        return GeometryMistake{J::wheel_centre,
                               {words("{0}: it must lie left of the middle of the car."), {name(J::wheel_centre)}}};
      return std::nullopt;
    }
    return std::nullopt;
  }

private:
  using Found = std::optional<GeometryMistake>;
  [[nodiscard]] const char* name(Joint j) const { return name_of(g_.shape, j); }

  Found both_or_none(Joint a, Joint b) const {
    if (g_.at(a).has_value() == g_.at(b).has_value()) return std::nullopt;
    const Joint missing = g_.at(a) ? b : a;
    return GeometryMistake{missing, {words("{0}: its place is missing; the other end is known."), {name(missing)}}};
  }
  Found apart(Joint a, Joint b) const {
    if (!g_.at(a) || !g_.at(b) || length(*g_.at(a) - *g_.at(b)) >= least_bar) return std::nullopt;
    return GeometryMistake{b, {words("{0} lies on {1}."), {name(b), name(a)}}};
  }
  Found arm(Joint a, Joint b, Joint outer) const {
    if (auto wrong = apart(a, b)) return wrong;
    if (off_line(*g_.at(outer), *g_.at(a), *g_.at(b)) >= least_bar) return std::nullopt;
    return GeometryMistake{outer, {words("{0} lies on the axis that its arm turns about."), {name(outer)}}};
  }
  Found has(Part part) const {
    if (part == Part::body || (part == Part::upright && g_.shape == Shape::hinge)) return std::nullopt;
    for (const Part known : parts_of(g_.shape))
      if (known == part) return std::nullopt;
    return GeometryMistake{std::nullopt,
                           {words("This suspension has no {0} to carry a spring or damper."), {name_of(part)}}};
  }

  const Geometry& g_;
};

} // namespace

std::optional<GeometryMistake> mistake_in(const Geometry& geometry) {
  return Check(geometry).find();
}

} // namespace mavrel::motion
