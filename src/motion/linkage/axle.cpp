#include "motion/linkage/axle.h"

#include "motion/linkage/solve.h"

#include <cmath>
#include <vector>

namespace mavrel::motion {

namespace {

using J = Joint;

constexpr double exact = 1e-11;       // m left over in a solved pose
constexpr double longest_step = 0.02; // m of height taken at once
constexpr double least_step = 2e-5;   // m; smaller, and it is at its end
constexpr int most_rounds = 30;
constexpr double most_give = 0.006; // m that joints give before a bar is at its end
constexpr double same_rank = 1e-3;  // links that hold the axle less than this do not hold it
// Where several turns and shifts would do, the axle rather shifts than rolls: springs hold it level.
constexpr double dear_roll = 0.05;

struct Bar {
  Vector3d body, axle; // axle end from the axle's middle
  double length = 0;
  Joint joint = J::wheel_centre;
};

using Matrix5 = Eigen::Matrix<double, 5, 5>;
using Vector5 = Eigen::Matrix<double, 5, 1>;
using Unknowns = Eigen::Matrix<double, Eigen::Dynamic, 1, 0, 5, 1>;
using Left = Eigen::Matrix<double, Eigen::Dynamic, 1, 0, 6, 1>;
using Jacobian = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor, 6, 5>;

} // namespace

/// The axle's place is its turn R and its middle p, whose height is given: five unknowns, x, y and the turn; with the
/// roll given too, four.
struct AxleLinkage::Solver {
  Geometry g;
  std::array<Geometry, 2> side; // right as measured, y negative
  std::vector<Bar> bars;
  Vector3d middle;

  struct State {
    Vector3d p;
    Matrix3d R;
  };

  Solver(const Geometry& geometry, const Geometry* right) : g(geometry) {
    side[0] = g;
    side[1] = right ? *right : g;
    if (!right)
      for (auto& p : side[1].points)
        if (p) p = mirrored(*p);
    middle = 0.5 * (vec(*side[0].at(J::wheel_centre)) + vec(*side[1].at(J::wheel_centre)));
    for (const Geometry& s : side) {
      bar(s, J::lower_body, J::lower_axle);
      bar(s, J::upper_body, J::upper_axle);
    }
    if (g.at(J::bar_body) && g.at(J::bar_axle)) bar(g, J::bar_body, J::bar_axle);
  }
  [[nodiscard]] State surveyed() const { return {middle, Matrix3d::Identity()}; }
  void bar(const Geometry& from, J body, J axle) {
    const Vector3d a = vec(*from.at(body)), b = vec(*from.at(axle));
    bars.push_back({a, b - middle, (b - a).norm(), axle});
  }

  void equations(const State& s, Left& left, Jacobian& jacobian, Left* by_height) const {
    const auto n = static_cast<Eigen::Index>(bars.size());
    left.resize(n);
    jacobian.resize(n, 5);
    if (by_height) by_height->resize(n);
    for (Eigen::Index i = 0; i < n; ++i) {
      const Bar& b = bars[static_cast<std::size_t>(i)];
      const Vector3d u = s.R * b.axle, r = s.p + u - b.body;
      const double now = r.norm();
      const Vector3d d = r / now;
      left[i] = now - b.length;
      jacobian(i, 0) = d.x();
      jacobian(i, 1) = d.y();
      jacobian.row(i).tail<3>() = u.cross(d).transpose();
      if (by_height) (*by_height)[i] = d.z();
    }
  }

  /// The least change that does it, rolling least of all. @param rolls  else its roll stays
  static Unknowns least_change(const Jacobian& jacobian, const Left& right, bool rolls) {
    if (rolls && jacobian.rows() >= 4) {
      Matrix5 square = Matrix5::Zero();
      Vector5 wanted = Vector5::Zero();
      square.topRows(jacobian.rows()) = jacobian;
      wanted.head(right.size()) = right;
      if (jacobian.rows() == 4) square(4, 2) = 1; // nothing holds it sideways: it stays level
      const Eigen::PartialPivLU<Matrix5> lu(square);
      if (lu.rcond() > same_rank) return lu.solve(wanted);
    }
    if (!rolls) { // x, y and two turns, by what all bars would have
      Eigen::Matrix<double, Eigen::Dynamic, 4, 0, 6, 4> four(jacobian.rows(), 4);
      four << jacobian.leftCols(2), jacobian.rightCols(2);
      const Eigen::LDLT<Eigen::Matrix4d> ldlt(four.transpose() * four);
      if (ldlt.rcond() > same_rank * same_rank) {
        const Eigen::Vector4d d = ldlt.solve(four.transpose() * right);
        Unknowns out(5);
        out << d[0], d[1], 0, d[2], d[3];
        return out;
      }
    }
    Eigen::MatrixXd weighed = jacobian;
    weighed.col(2) *= rolls ? dear_roll : 0.0;
    const auto x =
        curve::least_change_to(columns_of(weighed), {right.data(), static_cast<std::size_t>(right.size())}, same_rank);
    Unknowns d = Eigen::Map<const Eigen::VectorXd>(x.data(), static_cast<Eigen::Index>(x.size()));
    d[2] *= rolls ? dear_roll : 0.0;
    return d;
  }

  /// Gauss–Newton to the least misfit.
  bool settle(State& s, bool rolls) const {
    Left left;
    Jacobian jacobian;
    double before = INFINITY;
    for (int round = 0; round < most_rounds; ++round) {
      equations(s, left, jacobian, nullptr);
      if (!left.allFinite()) return false;
      const double now = left.norm();
      if (now < exact) return true;
      const Unknowns d = least_change(jacobian, -left, rolls);
      if (!d.allFinite() || d.cwiseAbs().maxCoeff() > 0.2) return false;
      s.p.x() += d[0];
      s.p.y() += d[1];
      s.R = turn_by(d.tail<3>()) * s.R;
      if (d.cwiseAbs().maxCoeff() < 1e-12 || (round > 6 && std::abs(before - now) < 1e-13)) return true;
      before = now;
    }
    return false;
  }

  static Unknowns way(const Solver& solver, const State& s, bool rolls) {
    Left left, by_height;
    Jacobian jacobian;
    solver.equations(s, left, jacobian, &by_height);
    return least_change(jacobian, by_height, rolls); // H grows as the axle sinks against the body
  }

  [[nodiscard]] Joint stopped_by(const State& s) const {
    Left left;
    Jacobian jacobian;
    equations(s, left, jacobian, nullptr);
    const Eigen::MatrixXd whole = jacobian;
    return bars[strongest_of(curve::direction_of(columns_of(whole), 4))].joint;
  }

  [[nodiscard]] double misfit(const State& s) const {
    Left left;
    Jacobian jacobian;
    equations(s, left, jacobian, nullptr);
    const double most = left.cwiseAbs().maxCoeff();
    return most < 1e-9 ? 0 : most;
  }

  tl::expected<State, OutOfReach> walk(double dh, State s, bool rolls) const {
    double done = middle.z() - s.p.z(), step = longest_step;
    while (done != dh) {
      const double to = std::abs(dh - done) <= step ? dh : done + std::copysign(step, dh - done);
      State next = s;
      const Unknowns d = way(*this, s, rolls) * (to - done);
      bool went = d.allFinite() && d.tail<3>().norm() < 0.3;
      if (went) {
        next.p += Vector3d(d[0], d[1], 0);
        next.p.z() = middle.z() - to;
        next.R = turn_by(d.tail<3>()) * next.R;
        // Where bars no more fit, one of them has come to its end.
        went = settle(next, rolls) && misfit(next) < (rolls ? 1e-6 : most_give);
      }
      if (went) {
        s = next;
        done = to;
        step = std::min(1.5 * step, longest_step);
        continue;
      }
      step /= 2;
      if (step < least_step) return tl::unexpected(OutOfReach{done, stopped_by(s)});
    }
    return s;
  }

  [[nodiscard]] Placed placed_of(const State& s) const { return placed(s.R, s.p - s.R * middle); }

  /// About the car's length, after the pinion's turn.
  static double roll_of(const State& s) { return std::atan2(s.R(2, 1), s.R(2, 2)); }

  [[nodiscard]] AxlePose pose_of(const State& s, bool rolls) const {
    AxlePose out;
    out.dh = middle.z() - s.p.z();
    out.axle = placed_of(s);
    out.shift = point(s.p - middle);
    const Vector3d nose = s.R * Vector3d::UnitX();
    out.pinion = std::atan2(nose.z(), nose.x());
    out.roll = roll_of(s);
    out.misfit = misfit(s);
    const Unknowns d = way(*this, s, rolls);
    const Vector3d v(d[0], d[1], -1), w = d.tail<3>();
    const std::array spring = struts(J::spring_body, J::spring_foot, s, v, w);
    const std::array damper = struts(J::damper_body, J::damper_foot, s, v, w);
    out.springs = spring, out.dampers = damper;
    out.spring = mean(spring), out.damper = mean(damper);
    return out;
  }

  /// Left and right.
  [[nodiscard]] std::array<std::optional<Strut>, 2> struts(J top, J foot, const State& s, const Vector3d& v,
                                                           const Vector3d& w) const {
    std::array<std::optional<Strut>, 2> out;
    for (std::size_t i = 0; i < 2; ++i) {
      if (!side[i].at(top) || !side[i].at(foot)) continue;
      const Vector3d u = s.R * (vec(*side[i].at(foot)) - middle), r = vec(*side[i].at(top)) - s.p - u;
      const double l = r.norm();
      if (l > 1e-9) out[i] = Strut{l, -r.dot(v + w.cross(u)) / l};
    }
    return out;
  }
  static std::optional<Strut> mean(const std::array<std::optional<Strut>, 2>& of) {
    if (!of[0] || !of[1]) return std::nullopt;
    return Strut{(of[0]->length + of[1]->length) / 2, (of[0]->ratio + of[1]->ratio) / 2};
  }
};

AxleLinkage::AxleLinkage(const Geometry& geometry, const Geometry* right)
    : solver_(std::make_unique<const Solver>(geometry, right)) {}
AxleLinkage::~AxleLinkage() = default;
AxleLinkage::AxleLinkage(AxleLinkage&&) noexcept = default;
AxleLinkage& AxleLinkage::operator=(AxleLinkage&&) noexcept = default;

tl::expected<AxlePose, OutOfReach> AxleLinkage::solve(double dh) const {
  const auto s = solver_->walk(dh, solver_->surveyed(), true);
  if (!s) return tl::unexpected(s.error());
  return solver_->pose_of(*s, true);
}

tl::expected<AxlePose, OutOfReach> AxleLinkage::solve_level(double dh, const AxlePose* near) const {
  Solver::State start = solver_->surveyed();
  if (near) start = {solver_->middle + vec(near->shift), turn_of(near->axle)};
  const auto s = solver_->walk(dh, start, false);
  if (!s) return tl::unexpected(s.error());
  return solver_->pose_of(*s, false);
}

tl::expected<AxlePose, OutOfReach> AxleLinkage::solve_rolled(double dh, double roll) const {
  auto s = solver_->walk(dh, solver_->surveyed(), false);
  if (!s) return tl::unexpected(s.error());
  s->R = turn_by(Vector3d::UnitX() * roll) * s->R;
  if (!solver_->settle(*s, false)) return tl::unexpected(OutOfReach{dh, solver_->stopped_by(*s)});
  return solver_->pose_of(*s, false);
}

Point AxleLinkage::joint(Joint joint, const AxlePose& pose, bool left) const {
  const Solver& solver = *solver_;
  const bool bar = joint == J::bar_body || joint == J::bar_axle;
  const Point now = *(left || bar ? solver.g : solver.side[1]).at(joint);
  Part on = Part::body;
  for (const JointRow& row : joints_of(Shape::solid_axle))
    if (row.joint == joint) on = row.part;
  return on == Part::axle ? pose.axle.place(now) : now;
}

const Geometry& AxleLinkage::geometry() const {
  return solver_->g;
}

} // namespace mavrel::motion
