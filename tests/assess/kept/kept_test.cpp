// Answers kept by what they were worked out from, and the digests that a sign-off would remember.
#include "assess/kept/digest.h"
#include "assess/kept/kept.h"

#include "assess/asked.h"
#include "build/edit.h"
#include "build/json.h"

namespace mavrel::assess {
namespace {

int asked = 0;

struct Doubling {
  struct Given {
    double number = 0;
    std::string name;
    [[nodiscard]] auto parts() const { return std::tie(number, name); }
    friend bool operator==(const Given&, const Given&) = default;
  };
  using Answer = double;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) {
    ++asked;
    return 2 * given.number;
  }
};

TEST(Kept, WorksOutOnlyWhatDiffers) {
  asked = 0;
  Kept<Doubling> kept;
  const Answered<Doubling> first = kept.ask({3, "a"});
  EXPECT_DOUBLE_EQ(*first, 6);
  EXPECT_TRUE(kept.ask({3, "a"}).same(first));
  EXPECT_EQ(asked, 1);
  const Answered<Doubling> second = kept.ask({4, "a"});
  EXPECT_DOUBLE_EQ(*second, 8);
  EXPECT_EQ(asked, 2);
  const Answered<Doubling> again = kept.ask({3, "a"});
  EXPECT_FALSE(again.same(first)) << "worked out anew";
  EXPECT_EQ(again, first) << "but from the same";
  EXPECT_DOUBLE_EQ(*first, 6) << "what somebody still holds stays";
}

struct Quadrupling {
  struct Given {
    Answered<Doubling> half;
    [[nodiscard]] auto parts() const { return std::tie(half); }
    friend bool operator==(const Given&, const Given&) = default;
  };
  using Answer = double;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return 2 * *given.half; }
};

TEST(Kept, AnAnswerStandsForWhatItWasWorkedOutFrom) {
  const auto half = [](double number, const char* name) {
    return Quadrupling::Given{Answered<Doubling>(Doubling::Given{number, name})};
  };
  Kept<Quadrupling> kept;
  const Answered<Quadrupling> first = kept.ask(half(3, "a"));
  EXPECT_DOUBLE_EQ(*first, 12);
  EXPECT_TRUE(kept.ask(half(3, "a")).same(first));
  EXPECT_FALSE(kept.ask(half(3, "b")).same(first));
  EXPECT_EQ(digest_of(first), digest_of(Answered<Quadrupling>(half(3, "a"))));
  EXPECT_NE(digest_of(first), digest_of(Answered<Quadrupling>(half(3, "b"))));
}

// ---- digests

TEST(Digest, IsTheSameOnEveryMachine) {
  // What these were when the format was made: raise `formula`, not these, when arithmetic changes.
  EXPECT_EQ(digest_of(std::string("Wayfare")).text(), "7cacaa0e1a3714d840212723cfd8ae4d");
  EXPECT_EQ(digest_of(std::tuple(1.5, std::optional<double>(), std::vector<double>{1, 2})).text(),
            "8ae7a47c9f61b468dd5c8e1f1b27e3a7");
}

TEST(Digest, TellsApartWhatIsFramedOtherwise) {
  using V = std::vector<std::string>;
  EXPECT_NE(digest_of(V{"ab", "c"}), digest_of(V{"a", "bc"}));
  EXPECT_NE(digest_of(std::vector<V>{{"a"}, {"b"}}), digest_of(std::vector<V>{{"a", "b"}, {}}));
  EXPECT_NE(digest_of(std::optional<double>(0)), digest_of(std::optional<double>()));
  EXPECT_EQ(digest_of(0.0), digest_of(-0.0));
}

TEST(Digest, FollowsEveryFieldOfTheDocumentAndNothingElse) {
  const Build& demo = test::demo_build();
  const Digest before = digest_of(demo);
  EXPECT_EQ(digest_of(build::from_json(build::to_json(demo)).value()), before) << "a saved build has the same";
  std::size_t tried = 0;
  for (const std::string& path : build::field_paths(demo.variants[0])) {
    const std::string whole = "variants.0." + path;
    const auto view = build::look_up(demo, whole, {});
    for (const char* text : {"1", "0.2", "Zz", "joined by a tee", "shut", "other", "343 mm", "1 bar", "300 N"}) {
      const auto changed = build::with_text(demo, whole, text, {});
      if (!changed || *changed == demo) continue;
      EXPECT_NE(digest_of(*changed), before) << whole;
      ++tried;
      break;
    }
  }
  EXPECT_GT(tried, 50U);
  Build other = demo;
  other.extra.emplace_back("later", "1");
  EXPECT_EQ(digest_of(other), before) << "what is not known here is not read";
}

// ---- the assessment

TEST(Assessor, KeepsEverythingWhenOnlyANoteChanges) {
  Assessor assessor;
  Build build = test::demo_build();
  const auto first = assessor.assess(build, test::demo_shelf());
  build.job.notes = "calm";
  build.variant().brief.notes = "low";
  build.body.style = build::BodyStyle::van;
  build.variants.push_back(build.variants[0]);
  EXPECT_EQ(assessor.assess(build, test::demo_shelf()), first) << "nothing that it reads has changed";
}

TEST(Assessor, WorksOutOnlyTheEndThatIsTouched) {
  Assessor assessor;
  Build build = test::demo_build();
  const auto first = assessor.assess(build, test::demo_shelf());
  build.variant().fit[1].upper_stack += 0.002;
  const auto second = assessor.assess(build, test::demo_shelf());
  EXPECT_TRUE(second->ends[0].same(first->ends[0]));
  EXPECT_FALSE(second->ends[1].same(first->ends[1]));
  EXPECT_NEAR(*second->end(End::rear).find(tracks::bag_height, 0)->at(0.37),
              *first->end(End::rear).find(tracks::bag_height, 0)->at(0.37) - 0.002, 1e-9);
  build.ends[0].rating = 900; // said by the survey alone
  const auto third = assessor.assess(build, test::demo_shelf());
  EXPECT_TRUE(third->ends[0].same(second->ends[0]));
  EXPECT_NE(finding(*third, "axle_over_rating"), nullptr);
  build.load_cases[0].name = "Nobody"; // a name is in sentences, not in heights
  const auto fourth = assessor.assess(build, test::demo_shelf());
  EXPECT_TRUE(fourth->ends[0].same(third->ends[0]) && fourth->ends[1].same(third->ends[1]));
  EXPECT_EQ(fourth->loads[0].name, "Nobody");
}

/// Changes one random field of a build, by what a person could type there.
void change_something(Build& build) {
  std::vector<std::string> paths;
  for (const std::string& path : build::field_paths(build.variants[build.active_variant]))
    paths.push_back("variants." + std::to_string(build.active_variant) + "." + path);
  for (const char* end : {"front", "rear"})
    for (const char* key :
         {"motion_ratio", "spring_length_m", "damper_length_m", "damper_open_m", "bump_stop_gap_m", "left.mass_kg",
          "right.height_m", "left.floor_m", "rating_kg", "friction_n", "bar_rate_n_m_per_rad", "roll_centre_m",
          "tyre_rate_n_per_m", "track_m", "wheel", "bag_room_m", "unsprung_kg"})
      paths.push_back(std::string(end) + "." + key);
  for (const char* key : {"body.wheelbase_m", "body.rating_kg", "body.gravity_height_m", "job.notes",
                          "load_cases.1.name", "load_cases.2.masses.1.mass_kg", "load_cases.2.masses.2.above_road_m",
                          "surroundings.altitude_m", "surroundings.night_temperature_k", "surroundings.temperature_k"})
    paths.emplace_back(key);
  const std::string path = paths[*rc::gen::inRange<std::size_t>(0, paths.size())];
  const auto text = *rc::gen::element<std::string>("", "0", "1", "0.9", "2.6 m", "300 mm", "341 mm", "410 kg", "1 bar",
                                                   "9 °C", "180 N", "Osier O-150", "205/45R17 7.5 ET35", "drop 40 mm",
                                                   "joined by a tee", "shut", "road", "parked", "20 N/mm", "3 l");
  if (auto changed = build::with_text(build, path, text, {})) build = std::move(*changed);
}

/// The same as said and drawn: what two assessments of one build must agree on.
std::string said(const Assessment& a) {
  std::string out;
  for (const Finding& f : a.findings)
    out += f.code + "|" + f.place + "|" + say(f.title) + "|" + say(f.reason) + "|" + say(f.way_out) + "\n";
  for (const End end : build::both_ends) {
    const EndAssessment& e = a.end(end);
    for (const auto* window : {&e.windows.reach, &e.windows.road})
      if (*window) out += std::to_string((*window)->low.height) + " " + std::to_string((*window)->high.height) + "\n";
    for (std::size_t c = 0; c < a.loads.size(); ++c)
      if (const Track* track = e.find(tracks::pressure, c))
        if (const auto range = track->range())
          out += std::to_string(range->first) + " " + std::to_string(range->second);
  }
  for (const CaseLoad& load : a.loads)
    out += load.name + std::to_string(load.total_mass.value_or(0)) + std::to_string(load.standing_lean.value_or(0));
  return out;
}

TEST(Assessor, AfterAnyEditsSaysWhatAFreshOneSays) {
  EXPECT_TRUE(rc::check("kept answers are never stale", [] {
    Assessor assessor;
    Build build = *rc::gen::inRange(0, 2) ? test::demo_build() : pickup();
    for (int i = 0; i < 8; ++i) {
      change_something(build);
      RC_ASSERT(said(*assessor.assess(build, test::demo_shelf())) == said(assess(build, test::demo_shelf())));
    }
  }));
}

TEST(Questions, AnswerOnlyFromWhatTheyState) {
  // Two builds that differ in everything no answer about the bags reads have equal givens, and so equal digests.
  const Build& demo = test::demo_build();
  Build other = demo;
  other.job = {};
  other.variant().name = "Z";
  other.variant().brief.notes = "other wishes";
  for (auto& end : other.ends)
    end.rating.reset();
  other.body.front_overhang.reset();
  const AnsweredEnds a = ask_ends(demo, test::demo_shelf()), b = ask_ends(other, test::demo_shelf());
  EXPECT_EQ(a, b);
  EXPECT_EQ(digest_of(a), digest_of(b));
  EXPECT_EQ(ride_given(demo, test::demo_shelf(), a, 1), ride_given(other, test::demo_shelf(), b, 1));
  EXPECT_EQ(digest_of(ride_given(demo, test::demo_shelf(), a, 1)),
            digest_of(ride_given(other, test::demo_shelf(), b, 1)));
  EXPECT_EQ(car_in_bend(demo), car_in_bend(other));
  other.ends[1].bar_rate = 1;
  EXPECT_EQ(ask_ends(other, test::demo_shelf()), a) << "a bar is for bends alone";
  EXPECT_FALSE(car_in_bend(demo) == car_in_bend(other));
}

} // namespace
} // namespace mavrel::assess
