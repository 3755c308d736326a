#include "motion/linkage/corner.h"

#include "motion/linkage/solve.h"

#include <cmath>

namespace mavrel::motion {

namespace {

using J = Joint;
using Matrix5 = Eigen::Matrix<double, 5, 5>;
using Vector5 = Eigen::Matrix<double, 5, 1>;

constexpr double exact = 1e-11;       // m or rad left over in a solved pose
constexpr double longest_step = 0.03; // m of height or rack taken at once
constexpr double least_step = 2e-5;   // m; smaller, and it is at its end
constexpr int most_rounds = 12;

/// A bar from the body to the upright: how long it is and where its ends are.
struct Bar {
  Vector3d inner, outer; // outer in the upright, from the wheel centre
  double length = 0;
  Joint joint = J::wheel_centre; // that is named when this bar stops it
  bool steered = false;
};

/// A way of the upright: the speed of its wheel centre and its turning, for a metre of something.
struct Motion {
  Vector3d v, w;
};

} // namespace

/// The upright's place is its turn R and its wheel centre p. Five constraints hold it; its height is given, which
/// leaves five unknowns.
struct CornerLinkage::Solver {
  Geometry g;
  std::vector<Bar> bars;       // five, or three with the strut's sliding
  bool slides = false;         // a strut
  Vector3d top, along, e1, e2; // strut: its top on the body; in the upright: direction, and two across it
  Vector3d strut_foot;         // in the upright, from the wheel centre
  Vector3d centre;             // of the wheel, as measured
  Vector3d axle;               // the wheel's own axis outward, as measured
  std::optional<std::pair<J, J>> steering_axis;
  // A hinge instead of bars:
  bool hinged = false;
  Vector3d on_axis, axis; // unit

  explicit Solver(const Geometry& geometry) : g(geometry) {
    centre = at(J::wheel_centre);
    const double c = g.camber, t = g.toe;
    axle = {std::sin(t) * std::cos(c), std::cos(t) * std::cos(c), -std::sin(c)};
    switch (g.shape) {
    case Shape::strut:
      arm(J::lower_front, J::lower_rear, J::lower_outer);
      bar(J::rod_inner, J::rod_outer, true);
      slider();
      steering_axis = {J::lower_outer, J::strut_top};
      break;
    case Shape::double_arm:
      arm(J::lower_front, J::lower_rear, J::lower_outer);
      arm(J::upper_front, J::upper_rear, J::upper_outer);
      bar(J::rod_inner, J::rod_outer, true);
      steering_axis = {J::lower_outer, J::upper_outer};
      break;
    case Shape::king_beam:
      arm(J::hinge_inner, J::hinge_outer, J::king_lower);
      arm(J::hinge_inner, J::hinge_outer, J::king_upper);
      bar(J::rod_inner, J::rod_outer, true);
      steering_axis = {J::king_lower, J::king_upper};
      break;
    case Shape::multi_link:
      bar(J::link1_inner, J::link1_outer);
      bar(J::link2_inner, J::link2_outer);
      bar(J::link3_inner, J::link3_outer);
      bar(J::link4_inner, J::link4_outer);
      bar(J::link5_inner, J::link5_outer);
      break;
    case Shape::hinge:
      hinged = true;
      on_axis = at(J::hinge_inner);
      axis = (at(J::hinge_outer) - on_axis).normalized();
      break;
    case Shape::solid_axle:
      break; // has a linkage of its own
    }
  }

  [[nodiscard]] Vector3d at(Joint j) const { return vec(*g.at(j)); }

  void bar(Joint inner, Joint outer, bool steered = false) {
    bars.push_back({at(inner), at(outer) - centre, (at(outer) - at(inner)).norm(), outer, steered});
  }
  void arm(Joint a, Joint b, Joint outer) {
    bar(a, outer);
    bar(b, outer);
  }
  void slider() {
    slides = true;
    top = at(J::strut_top);
    strut_foot = at(J::strut_lower) - centre;
    along = (top - at(J::strut_lower)).normalized();
    e1 = along.unitOrthogonal();
    e2 = along.cross(e1);
  }

  struct State {
    Vector3d p;
    Matrix3d R;
    double rack = 0;
  };

  /// What is left over of each constraint, and its change with (px, py, turn) in J and with pz, rack beside.
  void equations(const State& s, Vector5& left, Matrix5& jacobian, Vector5* by_height, Vector5* by_rack) const {
    int row = 0;
    for (const Bar& b : bars) {
      const Vector3d u = s.R * b.outer;
      Vector3d r = s.p + u - b.inner;
      if (b.steered) r.y() -= s.rack;
      const double now = r.norm();
      const Vector3d d = r / now;
      left[row] = now - b.length;
      jacobian(row, 0) = d.x();
      jacobian(row, 1) = d.y();
      jacobian.row(row).tail<3>() = u.cross(d).transpose();
      if (by_height) (*by_height)[row] = d.z();
      if (by_rack) (*by_rack)[row] = b.steered ? -d.y() : 0;
      ++row;
    }
    if (!slides) return;
    for (const Vector3d* e : {&e1, &e2}) {
      const Vector3d n = s.R * *e, to_top = top - s.p;
      left[row] = n.dot(to_top) - e->dot(strut_foot);
      jacobian(row, 0) = -n.x();
      jacobian(row, 1) = -n.y();
      jacobian.row(row).tail<3>() = n.cross(to_top).transpose();
      if (by_height) (*by_height)[row] = -n.z();
      if (by_rack) (*by_rack)[row] = 0;
      ++row;
    }
  }

  static void advance(State& s, const Vector5& d) {
    s.p.x() += d[0];
    s.p.y() += d[1];
    s.R = turn_by(d.tail<3>()) * s.R;
  }

  /// Newton at this height and rack. @returns false where it does not settle
  bool settle(State& s) const {
    Vector5 left;
    Matrix5 jacobian;
    for (int round = 0; round < most_rounds; ++round) {
      equations(s, left, jacobian, nullptr, nullptr);
      if (!left.allFinite()) return false;
      if (left.cwiseAbs().maxCoeff() < exact) return true;
      const Vector5 d = jacobian.partialPivLu().solve(-left);
      if (!d.allFinite() || d.cwiseAbs().maxCoeff() > 0.2) return false; // it would jump to another assembly
      advance(s, d);
    }
    return false;
  }

  /// How the upright goes for a metre of height, and for one of rack. @returns false where that is endless
  bool motions(const State& s, Motion& by_height, Motion* by_rack) const {
    Vector5 left, of_height, of_rack;
    Matrix5 jacobian;
    equations(s, left, jacobian, &of_height, &of_rack);
    const Eigen::PartialPivLU<Matrix5> lu(jacobian);
    // H grows as the wheel centre sinks against the body.
    const Vector5 h = lu.solve(of_height);
    by_height = {{h[0], h[1], -1}, h.tail<3>()};
    if (by_rack) {
      const Vector5 r = lu.solve(-of_rack);
      *by_rack = {{r[0], r[1], 0}, r.tail<3>()};
    }
    return h.allFinite() && h.cwiseAbs().maxCoeff() < 200;
  }

  /// The joint whose bar pulls most when the height is forced on past the end.
  [[nodiscard]] Joint stopped_by(const State& s) const {
    Vector5 left;
    Matrix5 jacobian;
    equations(s, left, jacobian, nullptr, nullptr);
    const std::size_t most = strongest_of(curve::direction_of(columns_of(jacobian), 4));
    return most < bars.size() ? bars[most].joint : J::strut_top;
  }

  [[nodiscard]] static double dh_of(const State& s, double z0) { return z0 - s.p.z(); }

  tl::expected<State, OutOfReach> walk(State s, double dh, double rack) const {
    const double from_dh = centre.z() - s.p.z(), from_rack = s.rack;
    double done = 0;
    const double way = std::max(std::abs(dh - from_dh), std::abs(rack - from_rack));
    double part = way > longest_step ? longest_step / way : 1;
    while (done < 1) {
      const double to = std::min(1.0, done + part);
      State next = s;
      const double ddh = (dh - from_dh) * (to - done), drack = (rack - from_rack) * (to - done);
      Motion by_height, by_rack;
      bool went = motions(s, by_height, &by_rack);
      if (went) {
        const Vector3d v = by_height.v * ddh + by_rack.v * drack, w = by_height.w * ddh + by_rack.w * drack;
        next.p += v;
        next.p.z() = centre.z() - std::lerp(from_dh, dh, to);
        next.rack = std::lerp(from_rack, rack, to);
        next.R = turn_by(w) * next.R;
        went = w.norm() < 0.3 && settle(next) && follows(s, next, by_height.w * ddh + by_rack.w * drack);
      }
      if (went) {
        s = next;
        done = to;
        part = std::min(1.5 * part, longest_step / std::max(way, longest_step));
        continue;
      }
      part = std::min(part, 1 - done) / 2;
      if (part * way < least_step || way == 0) return tl::unexpected(OutOfReach{dh_of(s, centre.z()), stopped_by(s)});
    }
    return s;
  }

  /// Did it go where it was heading? A linkage that snaps over to its other assembly turns otherwise.
  static bool follows(const State& from, const State& to, const Vector3d& foreseen) {
    const Eigen::AngleAxisd turned(to.R * from.R.transpose());
    const Vector3d w = turned.angle() * turned.axis();
    return (w - foreseen).norm() <= 0.5 * foreseen.norm() + 2e-3;
  }

  [[nodiscard]] Placed upright_of(const State& s) const { return placed(s.R, s.p - s.R * centre); }
  [[nodiscard]] State state_of(const CornerPose& pose) const {
    return {vec(pose.upright.place(*g.at(J::wheel_centre))), turn_of(pose.upright), pose.rack};
  }

  // ---- a hinge, in closed form

  /// Height of the wheel centre over the hinge's turn: c + a·cos φ + b·sin φ.
  [[nodiscard]] tl::expected<State, OutOfReach> swing(double dh) const {
    const Vector3d r = centre - on_axis, along_axis = axis * axis.dot(r), across = r - along_axis;
    const Vector3d side = axis.cross(across);
    const double a = across.z(), b = side.z(), reach = std::hypot(a, b);
    const double wanted = across.z() - dh; // of a·cos φ + b·sin φ
    // At its top or bottom the wheel centre moves only along the car: nothing beyond.
    if (!(std::abs(wanted) < reach * (1 - 1e-9))) {
      const double end = std::copysign(reach, wanted);
      return tl::unexpected(OutOfReach{a - end, J::hinge_outer});
    }
    const double middle = std::atan2(b, a), away = std::acos(wanted / reach);
    // Of the two turns the one on the same side of the top as it stands.
    const double phi = std::remainder(middle > 0 ? middle - away : middle + away, 2 * M_PI);
    const Matrix3d R = turn_by(axis * phi);
    return State{on_axis + R * r, R, 0};
  }
  [[nodiscard]] Motion hinge_motion(const State& s) const {
    const Vector3d v = axis.cross(s.p - on_axis);
    const double w = -1 / v.z();
    return {v * w, axis * w};
  }

  // ---- parts that are carried

  struct Arm {
    J a, b, outer;
  };
  [[nodiscard]] Arm arm_of(Part part) const {
    if (part == Part::upper_arm) return {J::upper_front, J::upper_rear, J::upper_outer};
    if (part == Part::arm) return {J::hinge_inner, J::hinge_outer, J::king_lower};
    return {J::lower_front, J::lower_rear, J::lower_outer};
  }
  static J link_inner(Part part) {
    const int k = static_cast<int>(part) - static_cast<int>(Part::link1);
    return static_cast<J>(static_cast<int>(J::link1_inner) + 2 * k);
  }

  /// Where a part stands, and, with `of` the upright's motion, how a place u of it moves.
  Placed part_at(Part part, const State& s) const {
    switch (part) {
    case Part::body:
      return {};
    case Part::lower_arm:
    case Part::upper_arm:
    case Part::arm: {
      if (hinged) return upright_of(s);
      const Arm arm = arm_of(part);
      const Vector3d on = at(arm.a), way = (at(arm.b) - on).normalized();
      const Vector3d r0 = at(arm.outer) - on, r1 = s.p + s.R * (at(arm.outer) - centre) - on;
      const Vector3d c0 = r0 - way * way.dot(r0), c1 = r1 - way * way.dot(r1);
      const double phi = std::atan2(way.dot(c0.cross(c1)), c0.dot(c1));
      const Matrix3d R = turn_by(way * phi);
      return placed(R, on - R * on);
    }
    case Part::link1:
    case Part::link2:
    case Part::link3:
    case Part::link4:
    case Part::link5: {
      const J in = link_inner(part), out = static_cast<J>(static_cast<int>(in) + 1);
      const Vector3d on = at(in), u0 = (at(out) - on).normalized(),
                     u1 = (s.p + s.R * (at(out) - centre) - on).normalized();
      const Matrix3d R = Eigen::Quaterniond::FromTwoVectors(u0, u1).toRotationMatrix();
      return placed(R, on - R * on);
    }
    case Part::upright:
    case Part::axle:
      return upright_of(s);
    }
    return {};
  }

  /// How a place u of a part (as measured) moves when the upright moves so.
  [[nodiscard]] Vector3d speed(Part part, const Vector3d& u, const State& s, const Motion& m) const {
    switch (part) {
    case Part::body:
      return Vector3d::Zero();
    case Part::lower_arm:
    case Part::upper_arm:
    case Part::arm: {
      if (hinged) break;
      const Arm arm = arm_of(part);
      const Vector3d on = at(arm.a), way = (at(arm.b) - on).normalized();
      const Vector3d outer = s.R * (at(arm.outer) - centre), around = way.cross(s.p + outer - on);
      const double turning = (m.v + m.w.cross(outer)).dot(around) / around.squaredNorm();
      const Placed now = part_at(part, s);
      return turning * way.cross(vec(now.place(point(u))) - on);
    }
    case Part::link1:
    case Part::link2:
    case Part::link3:
    case Part::link4:
    case Part::link5: {
      const J in = link_inner(part), out = static_cast<J>(static_cast<int>(in) + 1);
      const Vector3d on = at(in), outer = s.R * (at(out) - centre);
      const Vector3d a = (at(out) - on).normalized(), span = s.p + outer - on, b = span.normalized();
      const Vector3d db = (m.v + m.w.cross(outer)) / span.norm();
      // The least turn from a to b is I + [w] + [w]²/(1 + c), w = a×b, c = a·b; a link does not spin about itself.
      const Vector3d w = a.cross(b), dw = a.cross(db);
      const double c = a.dot(b), dc = a.dot(db);
      const Matrix3d W = cross_matrix(w), dW = cross_matrix(dw);
      const Matrix3d dR = dW + (dW * W + W * dW) / (1 + c) - W * W * (dc / ((1 + c) * (1 + c)));
      return dR * (u - on);
    }
    case Part::upright:
    case Part::axle:
      break;
    }
    return m.v + m.w.cross(s.R * (u - centre));
  }

  [[nodiscard]] std::optional<Strut> strut(J top_end, Part top_on, J foot, Part foot_on, const State& s,
                                           const Motion& m) const {
    if (!g.at(top_end) || !g.at(foot)) return std::nullopt;
    const Vector3d r = vec(part_at(top_on, s).place(*g.at(top_end))) - vec(part_at(foot_on, s).place(*g.at(foot)));
    const double l = r.norm();
    if (l < 1e-9) return std::nullopt;
    const Vector3d rate = speed(top_on, at(top_end), s, m) - speed(foot_on, at(foot), s, m);
    return Strut{l, r.dot(rate) / l};
  }

  [[nodiscard]] CornerPose pose_of(const State& s) const {
    CornerPose out;
    out.dh = dh_of(s, centre.z());
    out.rack = s.rack;
    out.upright = upright_of(s);
    const Vector3d a = s.R * axle;
    out.camber = -std::asin(std::clamp(a.z(), -1.0, 1.0));
    out.toe = std::atan2(a.x(), a.y());
    if (steering_axis) {
      const auto place = [&](J j) { return j == J::strut_top ? top : Vector3d(s.p + s.R * (at(j) - centre)); };
      const Vector3d k = place(steering_axis->second) - place(steering_axis->first);
      out.caster = std::atan2(-k.x(), k.z());
      out.kingpin = std::atan2(-k.y(), k.z());
    }
    out.wheel_shift = point(s.p - centre);
    Motion m;
    if (hinged)
      m = hinge_motion(s);
    else
      motions(s, m, nullptr);
    out.spring = strut(J::spring_body, g.spring_top, J::spring_foot, g.spring_foot, s, m);
    out.damper = strut(J::damper_body, g.damper_top, J::damper_foot, g.damper_foot, s, m);
    return out;
  }
};

CornerLinkage::CornerLinkage(const Geometry& geometry) : solver_(std::make_unique<const Solver>(geometry)) {}
CornerLinkage::~CornerLinkage() = default;
CornerLinkage::CornerLinkage(CornerLinkage&&) noexcept = default;
CornerLinkage& CornerLinkage::operator=(CornerLinkage&&) noexcept = default;

tl::expected<CornerPose, OutOfReach> CornerLinkage::solve(double dh, double rack, const CornerPose* near) const {
  const Solver& solver = *solver_;
  if (solver.hinged) {
    const auto s = solver.swing(dh);
    if (!s) return tl::unexpected(s.error());
    return solver.pose_of(*s);
  }
  const Solver::State start = near ? solver.state_of(*near) : Solver::State{solver.centre, Matrix3d::Identity(), 0};
  const auto s = solver.walk(start, dh, rack);
  if (!s) return tl::unexpected(s.error());
  return solver.pose_of(*s);
}

bool CornerLinkage::steers() const {
  return solver_->steering_axis.has_value();
}

std::optional<double> CornerLinkage::rack_for(double angle) const {
  if (!steers()) return std::nullopt;
  // Steer is toe out of the way it was measured; a wheel turned left has its toe grow less.
  double rack = 0;
  const double toe = solver_->g.toe - angle;
  CornerPose at;
  for (int round = 0; round < 40; ++round) {
    auto pose = solve(0, rack, round == 0 ? nullptr : &at);
    if (!pose) return std::nullopt;
    at = *pose;
    const double wrong = std::remainder(at.toe - toe, 2 * M_PI);
    if (std::abs(wrong) < 1e-9) return rack;
    Motion by_height, by_rack;
    const Solver::State s = solver_->state_of(at);
    if (!solver_->motions(s, by_height, &by_rack)) return std::nullopt;
    const Vector3d a = s.R * solver_->axle, da = by_rack.w.cross(a);
    const double slope = (da.x() * a.y() - a.x() * da.y()) / (a.x() * a.x() + a.y() * a.y());
    if (!(std::abs(slope) > 1e-3)) return std::nullopt;
    rack -= std::clamp(wrong / slope, -0.04, 0.04);
  }
  return std::nullopt;
}

Placed CornerLinkage::part(Part part, const CornerPose& pose) const {
  return solver_->part_at(part, solver_->state_of(pose));
}

Point CornerLinkage::joint(Joint joint, const CornerPose& pose) const {
  const Geometry& g = solver_->g;
  Point now = *g.at(joint);
  Part on = Part::body;
  for (const JointRow& row : joints_of(g.shape))
    if (row.joint == joint) on = row.part;
  if (joint == J::spring_body) on = g.spring_top;
  if (joint == J::spring_foot) on = g.spring_foot;
  if (joint == J::damper_body) on = g.damper_top;
  if (joint == J::damper_foot) on = g.damper_foot;
  if (on == Part::upright)
    now = pose.upright.place(now);
  else if (on != Part::body)
    now = part(on, pose).place(now);
  if (joint == J::rod_inner) now.y += pose.rack;
  return now;
}

const Geometry& CornerLinkage::geometry() const {
  return solver_->g;
}

PoseGrid solve_grid(const CornerLinkage& linkage, std::vector<double> dh, std::vector<double> rack) {
  PoseGrid out{std::move(dh), std::move(rack), {}};
  out.poses.resize(out.dh.size() * out.rack.size());
  const auto nearest_zero = [](const std::vector<double>& of) {
    std::size_t best = 0;
    for (std::size_t i = 1; i < of.size(); ++i)
      if (std::abs(of[i]) < std::abs(of[best])) best = i;
    return best;
  };
  const std::size_t h0 = nearest_zero(out.dh), r0 = nearest_zero(out.rack);
  const auto cell = [&](std::size_t h, std::size_t r) -> std::optional<CornerPose>& {
    return out.poses[h * out.rack.size() + r];
  };
  const auto solve = [&](std::size_t h, std::size_t r, const std::optional<CornerPose>& from) {
    if (auto pose = linkage.solve(out.dh[h], out.rack[r], from ? &*from : nullptr)) cell(h, r) = *pose;
  };
  // Along the travel with the wheels straight ahead, then from there to either lock: each from its neighbour.
  solve(h0, r0, std::nullopt);
  for (std::size_t h = h0 + 1; h < out.dh.size(); ++h)
    solve(h, r0, cell(h - 1, r0));
  for (std::size_t h = h0; h-- > 0;)
    solve(h, r0, cell(h + 1, r0));
  for (std::size_t h = 0; h < out.dh.size(); ++h) {
    if (!cell(h, r0)) continue;
    for (std::size_t r = r0 + 1; r < out.rack.size(); ++r)
      if (cell(h, r - 1)) solve(h, r, cell(h, r - 1));
    for (std::size_t r = r0; r-- > 0;)
      if (cell(h, r + 1)) solve(h, r, cell(h, r + 1));
  }
  return out;
}

} // namespace mavrel::motion
