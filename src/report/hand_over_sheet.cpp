#include "report/hand_over_sheet.h"

#include "build/names.h"
#include "report/html_table.h"

#include <fmt/format.h>

#include <algorithm>

namespace mavrel::report {

using namespace assess;

namespace {

class HandOverMaker {
public:
  HandOverMaker(const build::Build& build, const FitUpGiven& given, const HandOver& over,
                const std::vector<HoldPoint>& points, const UnitPrefs& prefs, const std::string& today)
      : build_(build), given_(given), over_(over), points_(points), prefs_(prefs), today_(today) {}

  [[nodiscard]] std::string owner() const {
    const build::Proving& proving = *given_.proving;
    std::string out = head(say({words("Your car’s air suspension"), {}}));
    if (!over_.all_proved()) out += unproved();
    out += heights();
    out += list(words("Never"), over_.never, 13);
    out += list(words("Listen for"), over_.listen, 11, proving.listen);
    std::vector<Message> care;
    if (over_.drain && over_.drain->known)
      care.push_back({words("Drain the tank about every {0}; sooner in damp weather, and before frost."),
                      {Amount{over_.drain->days * 86400, Kind::days, 0, {}}}});
    else if (over_.drain)
      care.push_back({words("Drain the tank once a month until you know how much comes out."), {}});
    care.push_back({words("Come back after two weeks or 100 km: bolts are torqued again, heights looked at."), {}});
    if (over_.least_standing)
      care.push_back({words("Standing for weeks, keep {0} in its bags."),
                      {Amount{*over_.least_standing, Kind::pressure, -1, {}}}});
    care.push_back(
        {words("After other wheels, a knock or a crash: have its clearances proved again before you drive on."), {}});
    out += list(words("Care"), care, 11);
    out += list(words("For the local inspection"), over_.inspect, 11, proving.inspect);
    out +=
        fmt::format("<p class='second'>{}</p>",
                    told({words("Law and licensed practice where you are decide what is allowed on the road."), {}}));
    return out;
  }

  [[nodiscard]] std::vector<std::string> shop() const {
    std::vector<std::string> out;
    std::string first = head(say({words("Proof and hand-over, for the shop"), {}}));
    if (!over_.all_proved()) first += unproved();
    Table proofs({say({words("proof"), {}}), say({words("stands"), {}}), say({words("signed"), {}})});
    for (const HandedProof& p : over_.proofs)
      proofs.row({say(p.name, prefs_), say({name_of(p.state), {}}), p.by.empty() ? "" : p.by + ", " + p.day});
    first += proofs.text();
    first += heights();
    if (!over_.taken.empty()) first += list(words("Gone on with before it was released"), over_.taken, 10);
    if (!over_.learned.empty()) first += list(words("Predictions follow this car"), over_.learned, 10);
    out.push_back(first);
    std::string figures = "<h2>" + told({words("Predicted and measured"), {}}) + "</h2>";
    for (const HoldPoint& p : points_) {
      if (!is_proof(p) || !p.note) continue;
      figures +=
          fmt::format("<p><b>{}</b> <span class='second'>{}</span></p>", told(p.name), told({name_of(p.state), {}}));
      Table table({say({words("figure"), {}}), say({words("predicted"), {}}), say({words("right is"), {}}),
                   say({words("measured"), {}})});
      for (std::size_t i = 0; i < p.figures.size(); ++i) {
        const AskedFigure& f = p.figures[i];
        const auto amount = [&](const std::optional<double>& v) {
          if (!v) return std::string("–");
          if (f.yes_no) return say({*v > 0.5 ? words("yes") : words("no"), {}});
          return say({words("{0}"), {Amount{*v, f.kind, -1, {}}}}, prefs_);
        };
        const std::string right = f.yes_no            ? say({words("yes"), {}})
                                  : f.least && f.most ? amount(f.least) + " – " + amount(f.most)
                                  : f.least           ? "≥ " + amount(f.least)
                                  : f.most            ? "≤ " + amount(f.most)
                                                      : "";
        const bool wrong = std::find(p.wrong.begin(), p.wrong.end(), i) != p.wrong.end();
        table.row({say(f.name, prefs_), f.yes_no ? "" : amount(f.designed), right,
                   amount(p.measured[i]) + (wrong ? " ✗" : "")});
      }
      figures += table.text();
    }
    out.push_back(figures);
    return out;
  }

private:
  [[nodiscard]] std::string told(const Message& m) const { return escaped(say(m, prefs_)); }

  [[nodiscard]] std::string head(const std::string& title) const {
    const build::Job& job = build_.job;
    std::string who = job.number.empty() ? job.car : job.number + " · " + job.car;
    if (!job.owner.empty()) who += " · " + job.owner;
    std::string out = fmt::format("<p class='second'>{}</p><h1>{}</h1>", escaped(who), escaped(title));
    const std::string& day = given_.proving->handed_over.empty() ? today_ : given_.proving->handed_over;
    std::string line = job.shop;
    if (!day.empty()) line += (line.empty() ? "" : " · ") + day;
    if (!given_.proving->to.empty())
      line += (line.empty() ? "" : " · ") + say({words("handed to {0}"), {given_.proving->to}});
    if (!line.empty()) out += fmt::format("<p>{}</p>", escaped(line));
    return out;
  }

  [[nodiscard]] std::string unproved() const {
    std::vector<Message> open;
    for (const HandedProof& p : over_.proofs)
      if (p.state != CheckState::passed) open.push_back(p.name);
    std::string out = fmt::format("<p><span style='font-size:14pt;font-weight:bold;color:#A8281F'>{}</span></p>",
                                  told({words("NOT PROVED: not to be driven on the road"), {}}));
    out += "<p>" +
           (open.empty() ? told({words("Nothing of it was proved yet."), {}})
                         : told({words("Still to be proved: {0}."), {list_of(std::move(open))}})) +
           "</p>";
    return out;
  }

  [[nodiscard]] std::string heights() const {
    const auto end = [&](End e) { return say({words("{0}: hub to arch"), {build::name_of(e)}}); };
    Table table({say({words("height"), {}}), end(End::front), end(End::rear), say({words("gauges to expect"), {}}),
                 say({words("what it is for"), {}})});
    for (const HandedPreset& p : over_.presets) {
      const auto length = [&](double v) { return say({words("{0}"), {metres(v)}}, prefs_); };
      std::string gauges;
      for (const std::size_t e : {0, 1}) {
        const auto &l = p.pressure[2 * e], &r = p.pressure[2 * e + 1];
        if (!l || !r) continue;
        gauges += (gauges.empty() ? "" : "; ") +
                  say({words("{0} {1} and {2}"),
                       {build::name_of(e == 0 ? End::front : End::rear), Amount{*l, Kind::pressure, -1, {}},
                        Amount{*r, Kind::pressure, -1, {}}}},
                      prefs_);
      }
      table.row({p.name, length(p.height[0]), length(p.height[1]),
                 gauges.empty() ? say({words("on its stops"), {}}) : gauges, say(p.what_for, prefs_)});
    }
    return "<h2>" + told({words("Heights"), {}}) + "</h2>" + table.text();
  }

  [[nodiscard]] std::string list(const char* title, const std::vector<Message>& lines, int points,
                                 const std::string& more = "") const {
    std::string out = "<h2>" + told({title, {}}) + "</h2><ul>";
    for (const Message& m : lines)
      out += fmt::format("<li><span style='font-size:{}pt'>{}</span></li>", points, told(m));
    if (!more.empty()) out += fmt::format("<li><span style='font-size:{}pt'>{}</span></li>", points, escaped(more));
    return out + "</ul>";
  }

  const build::Build& build_;
  const FitUpGiven& given_;
  const HandOver& over_;
  const std::vector<HoldPoint>& points_;
  const UnitPrefs& prefs_;
  std::string today_;
};

} // namespace

HandOverSheets hand_over_sheets(const build::Build& build, const FitUpGiven& given, const HandOver& over,
                                const std::vector<HoldPoint>& points, const UnitPrefs& prefs,
                                const std::string& today) {
  const HandOverMaker maker(build, given, over, points, prefs, today);
  return {{maker.owner()}, maker.shop()};
}

} // namespace mavrel::report
