// Every finding there is: one car that has it, and one, as like it as can be, that has not.
#include "assess/asked.h"
#include "assess/assess.h"
#include "assess/finding/case.h"
#include "assess/motion/geometry_of.h"
#include "assess/rows.h"
#include "motion/linkage/corner.h"

#include "random_car.h"

#include <fmt/format.h>
#include <functional>
#include <regex>
#include <set>

namespace mavrel::assess {
namespace {

using build::Build;

std::vector<Case> cases() {
  std::vector<Case> out;
  for (const auto& more : {design_cases(), fit_up_cases(), proving_cases()})
    out.insert(out.end(), more.begin(), more.end());
  return out;
}

std::vector<const Finding*> of_code(const Assessment& a, const std::string& code) {
  std::vector<const Finding*> out;
  for (const Finding& f : a.findings)
    if (f.code == code) out.push_back(&f);
  return out;
}

TEST(EveryFinding, IsFoundOnTheCarThatHasItAndNotOnTheOther) {
  for (const Case& c : cases()) {
    Build has = test::demo_build(), has_not = test::demo_build();
    c.has(has);
    c.has_not(has_not);
    const Assessment with = assess(has, case_shelf()), without = assess(has_not, case_shelf());
    const auto found = of_code(with, c.code);
    EXPECT_FALSE(found.empty()) << c.code << " is not found";
    EXPECT_TRUE(of_code(without, c.code).empty()) << c.code << " is found where it is not";
    for (const Finding* f : found)
      for (const Message* part : {&f->title, &f->reason, &f->way_out}) {
        EXPECT_GT(say(*part).size(), 8U) << c.code;
        EXPECT_EQ(say(*part).find('{'), std::string::npos) << say(*part);
        EXPECT_EQ(say(*part).find('?'), std::string::npos) << say(*part);
      }
  }
}

TEST(EveryFinding, IsInTheTableAbove) {
  std::set<std::string> tried;
  for (const Case& c : cases())
    tried.insert(c.code);
  std::set<std::string> there;
  for (const FindingRow* row : all_findings())
    EXPECT_TRUE(there.insert(row->code).second) << row->code << " is in two tables";
  EXPECT_GT(there.size(), 35U);
  for (const std::string& one : there)
    EXPECT_TRUE(tried.contains(one)) << one << " has no car that has it";
  for (const std::string& one : tried)
    EXPECT_TRUE(there.contains(one)) << one << " is no finding any more";
}

TEST(EveryFinding, ReadsInInchesAsInMillimetres) {
  UnitPrefs inches;
  inches.length = LengthUnit::inch;
  inches.pressure = PressureUnit::psi;
  inches.mass = MassUnit::lb;
  inches.temperature = TemperatureUnit::fahrenheit;
  const std::regex metric(R"([0-9] (mm(?!²)|bar|kg|l|N/mm|°C)\b)");
  for (const Case& c : cases()) {
    Build has = test::demo_build();
    c.has(has);
    for (const Finding& f : assess(has, case_shelf()).findings)
      for (const Message* part : {&f.title, &f.reason, &f.way_out})
        EXPECT_FALSE(std::regex_search(say(*part, inches), metric)) << f.code << ": " << say(*part, inches);
  }
}

TEST(EveryFinding, IsTranslatedDownToTheNamesOfLimits) {
  // Every word of ours becomes a row of x: what is still to be read was typed by somebody, or is a number.
  const Translate hidden = [](const std::string& text) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
      const bool place = text[i] == '{' && i + 2 < text.size() && text[i + 2] == '}';
      if (place)
        out += text.substr(i, 3), i += 2;
      else if (std::isalpha(static_cast<unsigned char>(text[i])))
        out += 'x';
      else
        out += text[i];
    }
    return out;
  };
  const Build& demo = test::demo_build();
  for (const Finding& f : assess(demo, case_shelf()).findings)
    for (const Message* part : {&f.title, &f.reason, &f.way_out}) {
      const std::string said = say(*part, {}, hidden);
      for (const char* word : {"bag at", "Front", "Rear", "reach", "road", "bump", "height", "left"})
        EXPECT_EQ(said.find(word), std::string::npos) << f.code << ": " << said;
    }
}

} // namespace
} // namespace mavrel::assess
