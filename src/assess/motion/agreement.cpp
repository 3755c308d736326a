#include "assess/motion/agreement.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using motion::Geometry;
using motion::Joint;
using motion::Point;

constexpr double nudge = 0.001;       // m that a joint is moved by to see what it does
constexpr double believable = 0.08;   // m that a joint may be misread by
constexpr double least_effect = 0.02; // of a length for each metre of a joint: less, and it explains nothing

/// One length as the joints have it at each row's height.
using Lengths = std::vector<std::optional<double>>;

Lengths lengths_of(const Geometry& g, const std::vector<double>& dh, bool damper) {
  Lengths out;
  const auto put = [&](const auto& pose) {
    const auto& strut = damper ? pose.damper : pose.spring;
    out.push_back(strut ? std::optional(strut->length) : std::nullopt);
  };
  if (g.shape == motion::Shape::solid_axle) {
    const motion::AxleLinkage linkage(g);
    for (const double at : dh)
      if (const auto pose = linkage.solve_level(at))
        put(*pose);
      else
        out.emplace_back();
  } else {
    const motion::CornerLinkage linkage(g);
    for (const double at : dh)
      if (const auto pose = linkage.solve(at))
        put(*pose);
      else
        out.emplace_back();
  }
  return out;
}

struct Row {
  std::size_t row;  // of the sheet
  double dh, taped; // m
};

double furthest(const std::vector<double>& of) {
  double most = 0;
  for (const double v : of)
    most = std::max(most, std::abs(v));
  return most;
}

class Comparison {
public:
  Comparison(const Geometry& g, std::vector<Row> rows, bool damper) : g_(g), rows_(std::move(rows)), damper_(damper) {
    for (const Row& row : rows_)
      dh_.push_back(row.dh);
    said_ = lengths_of(g_, dh_, damper_);
  }

  std::optional<Disagreement> find() {
    drop_unreachable();
    if (rows_.size() < 3) return std::nullopt;
    std::vector<double> apart;
    for (std::size_t i = 0; i < rows_.size(); ++i)
      apart.push_back(rows_[i].taped - *said_[i]);
    if (furthest(apart) <= tape_error) return std::nullopt;
    Disagreement out;
    out.damper = damper_;
    for (std::size_t i = 0; i < apart.size(); ++i)
      if (std::abs(apart[i]) > std::abs(out.worst)) out.worst = apart[i], out.worst_row = rows_[i].row;
    if (!one_reading(apart, out)) one_joint(apart, out);
    return out;
  }

private:
  void drop_unreachable() {
    for (std::size_t i = rows_.size(); i-- > 0;)
      if (!said_[i]) {
        rows_.erase(rows_.begin() + static_cast<std::ptrdiff_t>(i));
        said_.erase(said_.begin() + static_cast<std::ptrdiff_t>(i));
        dh_.erase(dh_.begin() + static_cast<std::ptrdiff_t>(i));
      }
  }

  /// All but one agree.
  static bool only_one(const std::vector<double>& apart, std::size_t i) {
    for (std::size_t k = 0; k < apart.size(); ++k)
      if (k != i && std::abs(apart[k]) > tape_error) return false;
    return true;
  }
  bool one_reading(const std::vector<double>& apart, Disagreement& out) const {
    for (std::size_t i = 0; i < apart.size(); ++i)
      if (std::abs(apart[i]) > tape_error && only_one(apart, i)) {
        out.doubtful_row = rows_[i].row;
        return true;
      }
    return false;
  }

  /// The one coordinate of one joint that, moved, leaves least between tape and joints.
  void one_joint(const std::vector<double>& apart, Disagreement& out) const {
    double best = tape_error;
    for (const motion::JointRow& row : motion::joints_of(g_.shape)) {
      if (!g_.at(row.joint) || row.joint == Joint::wheel_centre) continue;
      for (const auto& [axis, to] : {std::pair{'x', &Point::x}, std::pair{'y', &Point::y}, std::pair{'z', &Point::z}}) {
        const auto moved = [&](double by) {
          Geometry g = g_;
          (*g.at(row.joint)).*to += by;
          return motion::mistake_in(g) ? Lengths(rows_.size()) : lengths_of(g, dh_, damper_);
        };
        // Lengths do not follow a joint in a straight line: what is left is asked again from where it was moved to.
        double shift = 0;
        std::vector<double> left = apart;
        for (int round = 0; round < 3; ++round) {
          const auto further = shift_that_explains(left, moved(shift), moved(shift + nudge));
          if (!further || !(std::abs(shift + *further) <= believable)) break;
          shift += *further;
          const Lengths there = moved(shift);
          for (std::size_t i = 0; i < rows_.size(); ++i)
            left[i] = there[i] ? rows_[i].taped - *there[i] : INFINITY;
        }
        if (shift == 0) continue;
        if (const double most = furthest(left); most < best) {
          best = most;
          out.doubtful_joint = row.joint;
          out.axis = axis;
          out.shift = shift;
        }
      }
    }
  }

  static std::optional<double> shift_that_explains(const std::vector<double>& apart, const Lengths& before,
                                                   const Lengths& nudged) {
    double product = 0, square = 0;
    for (std::size_t i = 0; i < apart.size(); ++i) {
      if (!nudged[i] || !before[i] || !std::isfinite(apart[i])) return std::nullopt;
      const double effect = (*nudged[i] - *before[i]) / nudge;
      product += effect * apart[i];
      square += effect * effect;
    }
    if (square < least_effect * least_effect) return std::nullopt;
    return product / square;
  }

  const Geometry& g_;
  std::vector<Row> rows_;
  bool damper_;
  std::vector<double> dh_;
  Lengths said_;
};

} // namespace

std::vector<Disagreement> disagreements(const SurveyedEnd& read, const build::EndSurvey& survey) {
  std::vector<Disagreement> out;
  if (!read.height || survey.cycle.empty() || survey.points->left.empty()) return out;
  const auto joints = joints_of_end(survey);
  if (!joints) return out;
  for (const bool damper : {false, true}) {
    std::vector<Row> rows;
    for (std::size_t i = 0; i < survey.cycle.size(); ++i)
      if (const auto& taped = damper ? survey.cycle[i].damper : survey.cycle[i].spring)
        rows.push_back({i, survey.cycle[i].height - *read.height, *taped});
    if (auto found = Comparison(joints->side[0], std::move(rows), damper).find()) out.push_back(*found);
  }
  return out;
}

} // namespace mavrel::assess
