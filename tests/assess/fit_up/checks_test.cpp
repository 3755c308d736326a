#include "assess/fit_up/cars.h"

#include "build/edit.h"

#include <fmt/format.h>

#include <map>

namespace mavrel::assess {
namespace {

TEST(HoldPoints, EveryFigureIsAskedForOnceAndItsTwinIsTheOtherSide) {
  for (const Build& b : {fresh_estate(), fresh_half_ton()}) {
    const auto points = hold_points(fit_up_of(b));
    EXPECT_GT(points.size(), 12U);
    for (const HoldPoint& p : points) {
      EXPECT_EQ(p.state, CheckState::open) << p.id;
      EXPECT_LE(p.figures.size(), 24U);
      for (std::size_t i = 0; i < p.figures.size(); ++i) {
        const AskedFigure& f = p.figures[i];
        for (std::size_t k = 0; k < i; ++k)
          EXPECT_NE(f.key, p.figures[k].key) << p.id;
        if (f.twin) {
          EXPECT_LT(*f.twin, i);
        }
        if (f.least && f.most) {
          EXPECT_LE(*f.least, *f.most) << p.id << " " << f.key;
        }
        EXPECT_LE(f.key.size(), 80U);
      }
    }
  }
}

TEST(HoldPoints, FiguresAreThoseOfTheDesign) {
  const Build b = fresh_half_ton();
  const FitUpGiven given = fit_up_of(b);
  const auto points = hold_points(given);
  const EndAssessment& rear = given.end(End::rear)->assessment;
  const FittedEnd& fitted = given.end(End::rear)->fitted;
  const HoldPoint& stop = point_in(points, "rear.stop_first");
  EXPECT_NEAR(*stop.figures[0].designed, *fitted.model.stop_height, 1e-12);
  EXPECT_NEAR(*stop.figures[2].designed, fitted.on().bag_height(*fitted.model.stop_height), 1e-12);
  EXPECT_NEAR(*stop.figures[2].least, fitted.on().least_bag_height(), 1e-12);
  // Of the gaps the least over the heights it reaches, against the room that is wanted.
  for (const AskedFigure& f : point_in(points, "rear.gaps").figures) {
    bool found = false;
    for (const GapCurve& gap : rear.gaps) {
      if (!gap.least || f.key != std::string(key_of(gap.mover)) + ":" + say(gap.near.told())) continue;
      double least = 1e9;
      for (std::size_t i = 0; i < gap.least->values.size(); ++i)
        if (rear.windows.reach->contains(gap.least->from + gap.least->step * static_cast<double>(i)))
          least = std::min(least, gap.least->values[i]);
      found = found || (std::abs(least - *f.designed) < 1e-12 && std::abs(gap.near.room - *f.least) < 1e-12);
    }
    EXPECT_TRUE(found) << f.key;
  }
  const HoldPoint& heights = point_in(points, "heights");
  for (const AskedFigure& f : heights.figures)
    if (f.key == "rear_road_left") {
      EXPECT_NEAR(*f.designed, *fitted.road, 1e-12);
    }
}

TEST(HoldPoints, PassWhereEveryFigureIsRightAndFailWhereOneIsNot) {
  std::set<std::string> tried; // a kind of check once, on the car that has it first
  for (const Build& b : {fresh_estate(), fresh_half_ton()})
    for (const HoldPoint& p : hold_points(fit_up_of(b))) {
      if (!tried.insert(p.id).second) continue;
      EXPECT_EQ(state_of(signed_off(b, p.id), p.id), CheckState::passed) << p.id;
      const AskedFigure& first = p.figures[0];
      if (first.least || first.most || p.figures.size() > 1) {
        EXPECT_EQ(state_of(signed_off(b, p.id, false), p.id), CheckState::failed) << p.id;
      }
    }
}

TEST(HoldPoints, SidesThatAreNotAlikeFail) {
  Build b = fresh_estate(); // nobody knows its plates' angles: only that both sides are alike
  b = signed_off(b, "front.angles");
  EXPECT_EQ(state_of(b, "front.angles"), CheckState::passed);
  build::HoldCheck& check = b.variant().fit_up.own().checks[0];
  *check.figures[1].angle += 0.02; // 1.1°
  const auto points = hold_points(fit_up_of(b));
  EXPECT_FALSE(point_in(points, "front.angles").wrong.empty());
}

TEST(HoldPoints, AreNotSignedHalfMeasuredOrByNobody) {
  const Build b = fresh_estate();
  const auto points = hold_points(fit_up_of(b));
  const HoldPoint& p = point_in(points, "front.stop_first");
  build::HoldCheck note;
  note.check = p.id;
  const auto none = signed_check(p, note, {}, "Tamsin", "");
  ASSERT_FALSE(none);
  EXPECT_NE(say(none.error()).find("still to be measured"), std::string::npos);
  for (const AskedFigure& f : p.figures)
    note.figures.push_back(figure_of(f, measured_for(f, true)));
  EXPECT_TRUE(signed_check(p, note, {}, "Tamsin", ""));
  EXPECT_FALSE(signed_check(p, note, {}, "", ""));
}

TEST(HoldPoints, ABagStalesWhatReadsItAndNothingElse) {
  Build b = fresh_half_ton();
  for (const HoldPoint& p : hold_points(fit_up_of(b)))
    b = signed_off(b, p.id);
  for (const HoldPoint& p : hold_points(fit_up_of(b)))
    EXPECT_EQ(p.state, CheckState::passed) << p.id;
  b.variant().fit[1].bag = "Osier O-150";
  const auto points = hold_points(fit_up_of(b));
  for (const char* id : {"rear.stop_first", "rear.gaps", "leak_hold"})
    EXPECT_EQ(point_in(points, id).state, CheckState::stale) << id;
  for (const char* id :
       {"front.stop_first", "front.gaps", "front.angles", "rear.angles", "rear.still", "rear.heat", "heights", "lines"})
    EXPECT_EQ(point_in(points, id).state, CheckState::passed) << id;
  // It says what moved, and by how much.
  const HoldPoint& stop = point_in(points, "rear.stop_first");
  ASSERT_FALSE(stop.moved.empty());
  for (const MovedFigure& m : stop.moved)
    if (m.was && m.is) {
      EXPECT_NE(*m.was, *m.is);
    }
  // Back as it was, it stands again.
  b.variant().fit[1].bag = fresh_half_ton().variant().fit[1].bag;
  EXPECT_EQ(state_of(b, "rear.stop_first"), CheckState::passed);
}

TEST(HoldPoints, LinesAreAskedForAgainWhereALoomsEndMoves) {
  const auto digest = [](const Build& b) {
    const auto points = hold_points(fit_up_of(b));
    const auto lines = std::find_if(points.begin(), points.end(), [](const HoldPoint& p) { return p.id == "lines"; });
    EXPECT_NE(lines, points.end());
    return lines == points.end() ? Digest{} : lines->digest;
  };
  const Build start = fresh_estate();
  const Digest before = digest(start);
  Build moved = start;
  moved.variant().fit_up.own().controller_at.x += 0.1;
  EXPECT_FALSE(digest(moved) == before);
  moved = start;
  moved.variant().fit_up.own().handset_at.z += 0.1;
  EXPECT_FALSE(digest(moved) == before);
  moved = start;
  moved.variant().fit_up.own().routes.clear();
  EXPECT_EQ(digest(moved) == before, start.variant().fit_up->routes.empty());
}

TEST(HoldPoints, ARaisedFormulaAsksAgain) {
  Build b = signed_off(fresh_estate(), "front.stop_first");
  b.variant().fit_up.own().checks[0].formula = 2;
  EXPECT_EQ(state_of(b, "front.stop_first"), CheckState::stale);
}

/// Digest, and what each figure says, of every check.
std::map<std::string, std::pair<Digest, std::vector<std::optional<double>>>> read(const Build& b) {
  std::map<std::string, std::pair<Digest, std::vector<std::optional<double>>>> out;
  for (const HoldPoint& p : hold_points(fit_up_of(b))) {
    auto& one = out[p.id];
    one.first = p.digest;
    for (const AskedFigure& f : p.figures)
      for (const auto& v : {f.designed, f.least, f.most})
        one.second.push_back(v);
  }
  return out;
}
/// What a check's row says it reads, as text: an independent look at the same things.
std::map<std::string, std::string> inputs(const Build& b) {
  std::map<std::string, std::string> out;
  const FitUpGiven given = fit_up_of(b);
  for (const HoldPoint& p : hold_points(given)) {
    std::string text;
    for (const End e : build::both_ends) {
      if (p.end && *p.end != e) continue;
      const EndGiven& g = given.end(e).given();
      const auto add = [&](Reads piece, const Digest& d) {
        if (p.row->reads & static_cast<unsigned>(piece)) text += d.text() + ";";
      };
      add(Reads::motion, digest_of(g.motion().given()));
      add(Reads::mounting, digest_of(b.variant().fit[build::at(e)].mounting));
      add(Reads::end, digest_of(g));
      add(Reads::plates, digest_of(b.variant().fit_up->plates[build::at(e)]));
      add(Reads::workshop, digest_of(b.variant().fit[build::at(e)].workshop));
      std::string wishes;
      for (const build::Preset& preset : b.variant().brief.presets)
        if (const auto& w = preset.wish[build::at(e)])
          wishes += fmt::format("{} {} {:.17g},", static_cast<int>(preset.use), static_cast<int>(w->as), w->value);
        else
          wishes += fmt::format("{} -,", static_cast<int>(preset.use));
      if (p.row->reads & static_cast<unsigned>(Reads::presets))
        text += wishes + b.variant().fit[build::at(e)].wheel + "|" + b.end(e).wheel;
    }
    if (!(p.row->reads & (Reads::air | Reads::sensors | Reads::controller | Reads::gauge))) out[p.id] = text;
  }
  return out;
}

TEST(HoldPoints, NoRandomEditLeavesASignatureOnOtherFiguresNorTakesOneAwayForNothing) {
  std::vector<std::string> paths;
  for (const std::string& path : build::field_paths(fresh_half_ton().variant()))
    if (!path.starts_with("fit_up.jobs") && !path.starts_with("fit_up.checks") && path != "name" &&
        path != "brief.notes" &&
        path.find("learned") == std::string::npos) // predictions that learn leave what was measured alone
      paths.push_back("variants.0." + path);
  for (const char* end : {"front", "rear"})
    for (const char* field : {"left.height_m", "right.mass_kg", "spring_length_m", "bump_stop_gap_m", "bag_room_m",
                              "wheel", "friction_n", "track_m", "bar_rate_n_m_per_rad"})
      paths.push_back(std::string(end) + "." + field);
  const Build start = fresh_half_ton();
  const auto before = read(start);
  const auto inputs_before = inputs(start);
  EXPECT_TRUE(rc::check("random edits", [&] {
    Build b = start;
    for (int i = 0; i < *rc::gen::inRange(1, 4); ++i) {
      const std::string& path = *rc::gen::elementOf(paths);
      const auto view = build::look_up(b, path, {});
      if (!view || view->is_text) continue;
      const double by = *rc::gen::inRange(-3, 4) * 0.01;
      if (view->is_wish) {
        const auto next = build::with_text(b, path, fmt::format("{} mm", 420 + 100 * by), {});
        if (next) b = *next;
        continue;
      }
      // A number a little off, in whatever unit it is shown in.
      double number = 0;
      const std::string shown = view->editable;
      const auto space = shown.find(' ');
      try {
        number = std::stod(shown);
      } catch (...) {
        continue;
      }
      const std::string typed =
          fmt::format("{}{}", number * (1 + by) + by, space == std::string::npos ? "" : shown.substr(space));
      if (const auto next = build::with_text(b, path, typed, {})) b = *next;
    }
    const auto after = read(b);
    const auto inputs_after = inputs(b);
    for (const auto& [id, was] : before) {
      const auto now = after.find(id);
      if (now == after.end()) continue;
      // What says something else than before is asked for again.
      if (was.second != now->second.second) {
        RC_ASSERT(!(was.first == now->second.first));
      }
      // And where nothing that it reads has changed, it stands.
      if (inputs_before.contains(id) && inputs_after.contains(id) && inputs_before.at(id) == inputs_after.at(id)) {
        RC_ASSERT(was.first == now->second.first);
      }
    }
  }));
}

} // namespace
} // namespace mavrel::assess
