#include "assess/survey/stand_ins.h"

namespace mavrel::assess {

StandIns stand_ins(build::Layout layout) {
  using build::Layout;
  switch (layout) {
  case Layout::strut:
    return {{0.95, 0.04}, {0.95, 0.04}, {0.20, 0.04}, {0.085, 0.015}, {0.075, 0.015}, {0.035, 0.02}};
  case Layout::double_wishbone:
    return {{0.65, 0.10}, {0.65, 0.10}, {0.22, 0.04}, {0.080, 0.015}, {0.080, 0.015}, {0.035, 0.02}};
  case Layout::multi_link:
    return {{0.75, 0.15}, {0.85, 0.10}, {0.22, 0.04}, {0.085, 0.015}, {0.085, 0.015}, {0.040, 0.02}};
  case Layout::trailing_arm:
    return {{0.70, 0.12}, {0.85, 0.10}, {0.20, 0.04}, {0.085, 0.020}, {0.095, 0.020}, {0.040, 0.02}};
  case Layout::semi_trailing_arm:
    return {{0.65, 0.12}, {0.90, 0.10}, {0.20, 0.04}, {0.085, 0.020}, {0.095, 0.020}, {0.040, 0.02}};
  case Layout::twin_trailing_arms:
    return {{0.70, 0.12}, {0.80, 0.12}, {0.20, 0.04}, {0.075, 0.020}, {0.085, 0.020}, {0.035, 0.02}};
  case Layout::twin_beam:
    return {{0.65, 0.12}, {0.80, 0.12}, {0.22, 0.04}, {0.080, 0.020}, {0.090, 0.020}, {0.040, 0.02}};
  case Layout::torsion_beam:
    return {{0.75, 0.12}, {0.95, 0.08}, {0.20, 0.04}, {0.085, 0.020}, {0.095, 0.020}, {0.040, 0.02}};
  case Layout::axle_parallel_links:
  case Layout::axle_triangulated_links:
    return {{0.90, 0.10}, {0.85, 0.10}, {0.24, 0.05}, {0.090, 0.020}, {0.100, 0.020}, {0.050, 0.02}};
  case Layout::axle_was_leaves:
    return {{0.95, 0.08}, {0.80, 0.12}, {0.19, 0.04}, {0.090, 0.025}, {0.110, 0.025}, {0.060, 0.025}};
  }
  return {};
}

bool is_solid_axle(build::Layout layout) {
  using build::Layout;
  return layout == Layout::axle_parallel_links || layout == Layout::axle_triangulated_links ||
         layout == Layout::axle_was_leaves;
}

std::optional<double> spring_base(const build::EndSurvey& survey) {
  if (!is_solid_axle(survey.layout)) return survey.track;
  if (survey.spring_base) return survey.spring_base;
  return survey.track ? std::optional(usual_spring_base * *survey.track) : std::nullopt;
}

} // namespace mavrel::assess
