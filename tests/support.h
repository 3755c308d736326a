// What several tests need: the shipped shelf and demo build, temporary folders, and random cards.
#pragma once

#include "air/bag_card.h"
#include "build/file.h"
#include "shelf/shelf.h"

#include <gtest/gtest.h>
#include <rapidcheck.h>

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <stop_token>
#include <string>

namespace mavrel::test {

inline std::filesystem::path data(const std::string& name) {
  return std::filesystem::path(MAVREL_TEST_DATA) / name;
}
inline std::filesystem::path demo_file() {
  return std::filesystem::path(MAVREL_DEMO) / "sorrel-wayfare.mavrel";
}

/// What somebody has asked to stop already.
inline std::stop_token stopped() {
  std::stop_source source;
  source.request_stop();
  return source.get_token();
}

inline std::string text_of(const std::filesystem::path& file) {
  std::ifstream in(file, std::ios::binary);
  std::ostringstream out;
  out << in.rdbuf();
  return out.str();
}

inline void write(const std::filesystem::path& file, const std::string& text) {
  std::ofstream(file, std::ios::binary) << text;
}

/// A car with nothing near its wheels and nothing on the ground.
inline build::Build with_nothing_near(build::Build build) {
  for (const build::End end : build::both_ends) {
    build::EndSurvey& survey = build.end(end);
    survey.obstacles = {};
    survey.arch = {};
    if (survey.points->left.empty()) survey.points = Shared<build::HardPoints>(); // the lock alone
    for (build::CycleRow& row : survey.cycle)
      row.gaps.clear();
  }
  build.body.underside = {};
  for (build::Variant& variant : build.variants)
    variant.brief.grounds = {};
  return build;
}

/// A car as one reading of each length tells it: straight lines, whose figures are worked out by hand.
inline build::Build read_once(build::Build build) {
  build = with_nothing_near(std::move(build));
  for (const build::End end : build::both_ends) {
    build::EndSurvey& survey = build.end(end);
    survey.cycle = survey.cycle_right = {};
    survey.points = Shared<build::HardPoints>();
    survey.bar_link = {}, survey.hose = {}, survey.shaft = {};
  }
  for (build::Variant& variant : build.variants) {
    variant.air = {}; // nothing of it in the load cases
    variant.fit_up = {};
    for (build::EndFit& fit : variant.fit)
      fit.mounting = {}, fit.workshop = {};
  }
  return build;
}

inline build::Build loaded(const std::filesystem::path& file) {
  auto build = build::load(file);
  if (!build) throw std::runtime_error(say(build.error()));
  return *build;
}

/// The demo estate, read once.
inline const build::Build& demo_build() {
  static const build::Build build = read_once(loaded(demo_file()));
  return build;
}
/// The same with its cycle sheets.
inline const build::Build& demo_with_sheets() {
  static const build::Build build = with_nothing_near(loaded(demo_file()));
  return build;
}
/// And with all that is near its wheels.
inline const build::Build& demo_whole() {
  static const build::Build build = loaded(demo_file());
  return build;
}
/// The demo pickup with its joints.
inline const build::Build& pickup_with_joints() {
  static const build::Build build =
      with_nothing_near(loaded(std::filesystem::path(MAVREL_DEMO) / "hollin-tarnway.mavrel"));
  return build;
}
inline const build::Build& pickup_whole() {
  static const build::Build build = loaded(std::filesystem::path(MAVREL_DEMO) / "hollin-tarnway.mavrel");
  return build;
}

inline const shelf::Shelf& demo_shelf() {
  static const shelf::Shelf shelf = [] {
    const std::filesystem::path folders[] = {std::filesystem::path(MAVREL_DEMO) / "shelf"};
    return shelf::load_shelf(folders);
  }();
  return shelf;
}

/// A folder that goes when the test does.
class Folder {
public:
  Folder() {
    std::string name = (std::filesystem::temp_directory_path() / "mavrel-test-XXXXXX").string();
    path_ = ::mkdtemp(name.data());
  }
  Folder(const Folder&) = delete;
  Folder& operator=(const Folder&) = delete;
  ~Folder() {
    std::error_code error;
    std::filesystem::remove_all(path_, error);
  }
  [[nodiscard]] std::filesystem::path operator/(const std::string& name) const { return path_ / name; }
  [[nodiscard]] const std::filesystem::path& path() const { return path_; }

private:
  std::filesystem::path path_;
};

inline double between(double low, double high) {
  return low + (high - low) * (*rc::gen::inRange(0, 1000001)) * 1e-6;
}

/// A card that a bag could have: area falling with height and a little with pressure, volume its integral.
inline air::BagCard random_card() {
  air::BagCard card;
  card.name = "random";
  card.collapsed_height = between(0.04, 0.12);
  card.max_height = card.collapsed_height + between(0.06, 0.25);
  card.max_diameter = between(0.09, 0.2);
  card.min_pressure = 0.4e5;
  card.max_pressure = between(6e5, 10e5);
  const int rows = *rc::gen::inRange(4, 14), columns = *rc::gen::inRange(1, 6);
  const double A0 = between(0.005, 0.03), A1 = A0 * between(0.45, 1.05), shape = between(0.7, 1.6),
               softening = between(0, 0.01);
  const auto area = [&](double t, double bar) { return (A0 + (A1 - A0) * std::pow(t, shape)) * (1 - softening * bar); };
  for (int j = 0; j < columns; ++j)
    card.pressures.push_back((1.0 + 2.0 * j) * 1e5);
  card.loads.resize(card.pressures.size());
  double V = between(0.2e-3, 2e-3);
  for (int i = 0; i < rows; ++i) {
    const double t = static_cast<double>(i) / (rows - 1);
    card.heights.push_back(card.collapsed_height + t * (card.max_height - card.collapsed_height));
    if (i > 0) V += (card.heights[i] - card.heights[i - 1]) * area(t - 0.5 / (rows - 1), 3);
    card.volumes.push_back(V);
    for (std::size_t j = 0; j < card.pressures.size(); ++j)
      card.loads[j].push_back(card.pressures[j] * area(t, card.pressures[j] / 1e5));
  }
  return card;
}

} // namespace mavrel::test
