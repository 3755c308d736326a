// Feeds damaged text to every reader below the application and checks what must hold of whatever comes out.
//   mavrel-fuzz [--seconds 5] [--seed 1] [--only build|card|sheet|quantity]
// Each round prints nothing; the first broken promise prints the text it was broken by and ends with 1.
#include "fuzz/mutate.h"

#include "assess/assess.h"
#include "assess/ground/ground.h"
#include "build/cycle_csv.h"
#include "build/edit.h"
#include "build/json.h"
#include "build/points_csv.h"
#include "build/profile_csv.h"
#include "motion/wheel.h"
#include "quantity/quantity.h"
#include "quantity/text.h"
#include "shelf/card_csv.h"
#include "shelf/card_write.h"
#include "shelf/leak_csv.h"
#include "shelf/part_file.h"

#include <fmt/format.h>

#include <chrono>
#include <cmath>
#include <cstdlib>
#include <fstream>
#include <functional>
#include <iterator>
#include <optional>
#include <string_view>

namespace {

using namespace mavrel;
using fuzz::below;
using fuzz::Random;

std::string text_of(const std::string& file) {
  std::ifstream in(file, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

using Broken = std::optional<std::string>; // what was promised and not kept

Broken sentence(const Message& message) {
  const std::string said = say(message);
  if (said.size() < 4) return "a mistake without a sentence";
  if (first_bad_utf8(said)) return "a sentence that is not UTF-8";
  for (const char c : said)
    if (static_cast<unsigned char>(c) < 0x20) return "a sentence with a control character";
  return {};
}

Broken try_build(const std::string& text) {
  const auto read = build::from_json(text);
  if (!read) return sentence(read.error());
  const std::string written = build::to_json(*read);
  if (written.size() > build::file_limit) return "it was read, but is too large to be read again";
  const auto again = build::from_json(written);
  if (!again) return "it was read, but not again: " + say(again.error());
  if (!(*again == *read)) return "reading again gave another build";
  static const shelf::Shelf shelf = [] {
    const std::filesystem::path folders[] = {std::filesystem::path(MAVREL_DEMO) / "shelf"};
    return shelf::load_shelf(folders);
  }();
  const assess::Assessment a = assess::assess(*read, shelf);
  for (const auto& end : a.ends)
    if (!std::isfinite(end->assessment.domain_low) || !std::isfinite(end->assessment.domain_high))
      return "heights that are no numbers";
  for (const auto& f : a.findings)
    for (const Message* part : {&f.title, &f.reason, &f.way_out})
      if (const auto wrong = sentence(*part)) return wrong;
  return {};
}

Broken try_card(const std::string& text) {
  for (const auto& reading : shelf::read_cards(text)) {
    for (const auto* notes : {&reading.mistakes, &reading.doubts})
      for (const auto& note : *notes)
        if (const auto wrong = sentence(shelf::with_place(note))) return wrong;
    if (!reading.card && reading.mistakes.empty()) return "neither a card nor a mistake";
    if (!reading.card) continue;
    const air::BagCurve curve(*reading.card);
    for (int i = 0; i <= 20; ++i) {
      const auto at = curve.section(std::lerp(curve.lowest(), curve.highest(), i / 20.0));
      if (!(at.volume > 0) || !(at.volume_slope >= 0)) return "a volume that shrinks";
    }
  }
  return {};
}

Broken try_quantity(const std::string& text) {
  for (int kind = 0; kind <= static_cast<int>(Kind::plain); ++kind) {
    const auto value = parse_quantity(text, static_cast<Kind>(kind));
    if (!value) {
      if (const auto wrong = sentence(value.error())) return wrong;
    } else if (!std::isfinite(*value) || std::abs(*value) > 1e12) {
      return "a quantity that is no number";
    }
  }
  if (const auto code = motion::parse_wheel(text); !code) {
    if (const auto wrong = sentence(code.error())) return wrong;
  } else if (!std::isfinite(motion::wheel_space(*code).diameter)) {
    return "a wheel without a diameter";
  }
  (void)build::parse_wish(text, {});
  (void)parse_readings(text, Kind::length);
  return {};
}

/// Cycle sheets and hard points: what is read is written so that it reads again.
Broken try_sheet(const std::string& text) {
  if (const auto rows = build::read_cycle_csv(text); !rows) {
    if (const auto wrong = sentence(rows.error())) return wrong;
  } else {
    List<build::CycleRow> list;
    for (const build::CycleRow& row : *rows)
      list.push_back(row);
    if (!build::read_cycle_csv(build::cycle_csv(list))) return "a cycle sheet that does not read again";
  }
  if (const auto points = build::read_points_csv(text); !points) {
    if (const auto wrong = sentence(points.error())) return wrong;
  } else {
    build::HardPoints all;
    for (const build::HardPoint& p : points->left)
      all.left.push_back(p);
    for (const build::HardPoint& p : points->right)
      all.right.push_back(p);
    if (!build::read_points_csv(build::points_csv(all))) return "joints that do not read again";
  }
  if (const auto profile = build::read_profile_csv(text); !profile) {
    if (const auto wrong = sentence(profile.error())) return wrong;
  } else {
    build::Ground ground;
    ground.points = *profile;
    if (!assess::profile_of(ground)) return "a profile that is none";
  }
  return {};
}

/// Air parts and readings of a leak.
Broken try_air(const std::string& text) {
  if (const auto parts = shelf::read_parts(text); !parts) {
    if (const auto wrong = sentence(parts.error())) return wrong;
  } else {
    const auto again = shelf::read_parts(shelf::write_parts(*parts));
    if (!again || *again != *parts) return "parts that do not read again as they were";
    for (const shelf::Part& part : *parts)
      for (const Message& doubt : shelf::doubts_of_part(part))
        if (const auto wrong = sentence(doubt)) return wrong;
  }
  if (const auto readings = shelf::read_leak_csv(text); !readings) {
    if (const auto wrong = sentence(readings.error())) return wrong;
  } else if (const auto leak = air::find_leak(*readings, 2e-3); leak) {
    if (!std::isfinite(leak->loss) || !std::isfinite(leak->loss_sd)) return "a leak that is no number";
  } else if (const auto wrong = sentence(leak.error())) {
    return wrong;
  }
  return {};
}

struct Target {
  std::string_view name;
  Broken (*trial)(const std::string&);
  std::vector<std::string> seeds;
};

std::vector<Target> targets() {
  const std::string demo = MAVREL_DEMO;
  return {
      {"build", try_build, {text_of(demo + "/sorrel-wayfare.mavrel"), text_of(demo + "/hollin-tarnway.mavrel")}},
      {"card", try_card, {text_of(demo + "/shelf/osier-o135.csv"), text_of(demo + "/shelf/fennick-r118.csv")}},
      {"sheet",
       try_sheet,
       {text_of(std::string(MAVREL_TEST_DATA) + "/reference/cycle-sheets/rear-arm.csv"),
        "height_mm,spring_mm,camber_deg,tyre_to_liner_mm\n320,140,-1.2,12\n350,168,,\n380,197,-0.6,31\n",
        "joint,x_mm,y_mm,z_mm,side,turn_allowed_deg\nlower_outer,0,720.5,185,,22\nlower_outer,0,-718,185,right,\n",
        "x_m,z_m\n0,0\n0.3,-0.02\n0.36,0.01\n2.6,0.52\n"}},
      {"air",
       try_air,
       {text_of(demo + "/shelf/tanks.parts.json"), text_of(demo + "/shelf/compressors.parts.json"),
        text_of(demo + "/overnight-rear-right.csv"), "time_s,pressure_bar,temperature_c\n0,3,20\n60,3,19\n90,3,18\n"}},
      {"quantity",
       try_quantity,
       {"5/8\"", "2 3/16 in", "4 f", "38psi", "2,6 bar", "410 kg", "5 ft 3 in", "-6C", "1e-3 m", "343; 344 mm",
        "gap 30 mm", "205/45R17 7.5 ET35", "½ in", "9.5kN"}}};
}

} // namespace

int main(int argc, char** argv) {
  double seconds = 5;
  std::uint64_t seed = 1;
  std::string_view only;
  for (int i = 1; i + 1 < argc; i += 2) {
    const std::string_view option = argv[i];
    if (option == "--seconds") seconds = std::atof(argv[i + 1]);
    if (option == "--seed") seed = std::strtoull(argv[i + 1], nullptr, 10);
    if (option == "--only") only = argv[i + 1];
  }
  Random random(seed);
  std::vector<Target> all = targets();
  std::size_t rounds = 0;
  const auto end = std::chrono::steady_clock::now() + std::chrono::duration<double>(seconds);
  while (std::chrono::steady_clock::now() < end) {
    for (Target& target : all) {
      if (!only.empty() && target.name != only) continue;
      const std::string& from = target.seeds[below(random, target.seeds.size())];
      const std::string text = fuzz::mutated(from, target.seeds[below(random, target.seeds.size())], random);
      ++rounds;
      if (const Broken broken = target.trial(text)) {
        fmt::print(stderr, "{}: {}\nseed {}, round {}. The text:\n{}\n", target.name, *broken, seed, rounds, text);
        return 1;
      }
      // What got through may lead farther when it is damaged again.
      if (target.seeds.size() < 200 && below(random, 50) == 0) target.seeds.push_back(text);
    }
  }
  fmt::print("{} texts, no promise broken\n", rounds);
  return rounds > 100 ? 0 : 1;
}
