#include "report/job_sheets.h"

#include "build/names.h"
#include "build/names_fit_up.h"
#include "report/html_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

namespace mavrel::report {

using namespace assess;

namespace {

class JobSheetMaker {
public:
  JobSheetMaker(const FitUpGiven& given, const Plan& plan, const UnitPrefs& prefs)
      : given_(given), plan_(plan), prefs_(prefs) {}

  [[nodiscard]] std::string told(const Message& m) const { return escaped(say(m, prefs_)); }

  [[nodiscard]] std::string head(const std::string& title) const {
    const std::string car = given_.number.empty() ? given_.car : given_.number + " · " + given_.car;
    return fmt::format("<p class='second'>{}</p><h1>{}</h1>", escaped(car), title);
  }

  /// What one person does on a day. @param who  empty: what nobody was given yet
  [[nodiscard]] std::string day(int d, const std::string& who, const std::vector<std::size_t>& jobs) const {
    std::string out;
    const auto line = [&](int points, const std::string& text, const char* kind = "", bool bold = false) {
      out += fmt::format("<p{}><span style='font-size:{}pt{}'>{}</span></p>", kind, points,
                         bold ? ";font-weight:bold" : "", text);
    };
    line(28, told(day_name(plan_, d)) + (who.empty() ? "" : " · " + escaped(who)), "", true);
    for (const std::size_t i : jobs) {
      const Job& j = plan_.jobs[i];
      const PlannedJob& p = plan_.planned[i];
      const bool begins = p.start >= 24.0 * d;
      const int from = clock_minute(plan_, std::fmax(p.start, 24.0 * d));
      out += fmt::format("<p><span style='font-size:20pt;font-weight:bold'>{}</span><span style='font-size:20pt'>"
                         "&nbsp;&nbsp;{}</span></p>",
                         begins ? fmt::format("{:02}:{:02}", from / 60, from % 60) : std::string("…"), told(j.name));
      std::string how = fmt::format("{:g} h", std::round(j.hours * 100) / 100);
      for (const std::string& name : p.who)
        if (name != who) how += " · with " + name;
      if (j.place != build::WorkPlace::none) how += std::string(" · ") + build::name_of(j.place);
      if (j.wait > 0) how += fmt::format(" · then {:g} h by the clock", j.wait);
      line(14, escaped(how));
      line(12, told(j.why), " class='second'");
      if (!j.tools.text.empty() || !j.parts.text.empty())
        line(12, "☐ " + told(j.tools) + (j.tools.text.empty() || j.parts.text.empty() ? "" : " · ") + told(j.parts));
      if (!j.note.taken_by.empty())
        line(12, told({words("Taken on by {0} before everything was ready: {1}"), {j.note.taken_by, j.note.taken_why}}),
             "", true);
      for (const std::string& check : j.checks)
        line(14, "◆ " + told(check_name(check)), "", true);
      out += "<p style='font-size:5pt'>&nbsp;</p>";
    }
    return out;
  }
  /// What passes by itself on a day; empty: nothing does.
  [[nodiscard]] std::string passing(const std::vector<std::size_t>& jobs) const {
    std::string out;
    for (const std::size_t i : jobs)
      if (plan_.jobs[i].by_the_clock) out += (out.empty() ? "" : ", ") + told(plan_.jobs[i].name);
    return out.empty() ? out : "<p class='second'><span style='font-size:12pt'>by the clock: " + out + "</span></p>";
  }

  [[nodiscard]] std::string hold_point(const HoldPoint& point) const {
    std::string out = fmt::format("<p><span style='font-size:20pt;font-weight:bold'>◆ {}</span></p>", told(point.name));
    out += fmt::format("<p style='font-size:12pt'>{}</p>", escaped(point.row->how));
    Table table({"measure", "design", "right is", "measured"});
    for (const AskedFigure& f : point.figures) {
      const auto amount = [&](double v) { return say({words("{0}"), {Amount{v, f.kind, -1, {}}}}, prefs_); };
      std::string right;
      if (f.yes_no)
        right = "yes";
      else if (f.least && f.most)
        right = amount(*f.least) + " – " + amount(*f.most);
      else if (f.least)
        right = "≥ " + amount(*f.least);
      else if (f.most)
        right = "≤ " + amount(*f.most);
      if (f.twin) right += (right.empty() ? "± " : ", ± ") + amount(f.alike) + " of the other side";
      table.row({say(f.name, prefs_), f.yes_no || !f.designed ? "" : amount(*f.designed), right,
                 f.yes_no ? "☐ yes   ☐ no" : "………………"});
    }
    return out + "<div style='font-size:12pt'>" + table.text() +
           "</div><p style='font-size:12pt'>signed ………………………… on "
           "……………………</p>"
           "<p class='second'>Made on " +
           point.digest.text().substr(0, 12) + "</p>";
  }

  [[nodiscard]] std::string cut_page(const CutList& cut) const {
    std::string out = head("Cut list");
    for (const CutStock& stock : cut.stocks) {
      if (!stock.plan) continue;
      out += fmt::format("<h2>{}</h2>", escaped(stock.name));
      Table table({"bar", "from", "cut", "left"});
      for (std::size_t b = 0; b < stock.plan->bars.size(); ++b) {
        const work::CutBar& bar = stock.plan->bars[b];
        std::string pieces;
        for (const std::size_t i : bar.pieces)
          pieces += (pieces.empty() ? "" : " · ") + say({words("{0}"), {metres(stock.pieces[i].length, 1)}}, prefs_) +
                    " " + stock.pieces[i].mark;
        table.row({std::to_string(b + 1),
                   say({bar.leftover ? words("{0} left over") : words("{0} new"), {metres(bar.length, 0)}}, prefs_),
                   pieces, say({words("{0}"), {metres(bar.left, 0)}}, prefs_)});
      }
      out += table.text();
    }
    return out;
  }

  /// Labels to cut out: one for each end of each line.
  [[nodiscard]] std::string labels(const std::vector<JudgedRoute>& routes) const {
    std::string out = head("Labels");
    out += "<table width='100%' cellspacing='0' cellpadding='8' border='1'>";
    int column = 0;
    for (const JudgedRoute& r : routes)
      for (int end = 0; end < 2; ++end) {
        if (column == 0) out += "<tr>";
        out += fmt::format("<td width='25%'><span style='font-size:20pt'><b>{}</b></span><br/>{} → {}<br/>{}</td>",
                           escaped(r.mark), told(end == 0 ? r.from_name : r.to_name),
                           told(end == 0 ? r.to_name : r.from_name),
                           escaped(say({words("{0}"), {metres(r.length, 0)}}, prefs_)));
        column = (column + 1) % 4;
        if (column == 0) out += "</tr>";
      }
    if (column != 0) out += "</tr>";
    return out + "</table>";
  }

private:
  const FitUpGiven& given_;
  const Plan& plan_;
  const UnitPrefs& prefs_;
};

} // namespace

std::vector<Leaf> page_each(const std::vector<std::string>& html) {
  std::vector<Leaf> out;
  for (const std::string& one : html)
    out.push_back({one, true});
  return out;
}

JobSheets job_sheets(const FitUpGiven& given, const Plan& plan, const std::vector<HoldPoint>& checks,
                     const CutList& cut, const std::vector<JudgedRoute>& routes, const UnitPrefs& prefs, int from,
                     int days) {
  const JobSheetMaker maker(given, plan, prefs);
  JobSheets out;
  for (int d = std::max(0, from); d < plan.days() && days > 0; ++d) {
    std::vector<std::size_t> there;
    for (const std::size_t i : jobs_on(plan, d))
      if (plan.planned[i].stands != JobStands::done && (plan.worked(d) || plan.jobs[i].by_the_clock))
        there.push_back(i);
    // By person, in the order in which they begin; a job of two is on both their sheets.
    std::vector<std::pair<std::string, std::vector<std::size_t>>> people;
    for (const std::size_t i : there) {
      if (plan.jobs[i].by_the_clock) continue;
      std::vector<std::string> who = plan.planned[i].who;
      if (who.empty()) who.emplace_back();
      for (const std::string& name : who) {
        auto at = std::find_if(people.begin(), people.end(), [&](const auto& one) { return one.first == name; });
        if (at == people.end()) at = people.insert(at, {name, {}});
        at->second.push_back(i);
      }
    }
    if (people.empty()) continue; // a day on which things only pass by the clock needs no sheet
    for (const auto& [name, jobs] : people)
      out.leaves.push_back({maker.day(d, name, jobs)});
    out.leaves.back().html += maker.passing(there);
    --days;
  }
  bool first = true;
  for (const HoldPoint& point : checks)
    if (point.state != CheckState::passed) out.leaves.push_back({maker.hold_point(point), std::exchange(first, false)});
  if (!cut.stocks.empty()) out.leaves.push_back({maker.cut_page(cut), true});
  if (!routes.empty()) out.leaves.push_back({maker.labels(routes), true});
  return out;
}

} // namespace mavrel::report
