#include "assess/proving/learning.h"

#include "assess/fit_up/asking.h"
#include "assess/proving/predictions.h"
#include "build/names.h"
#include "curve/pchip.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stop_token>

namespace mavrel::assess {

namespace {

constexpr double tape_doubt = 0.0015, bag_tape_doubt = 0.002;     // m
constexpr double watch_doubt = 0.05, watch_least = 0.05;          // share, s
constexpr std::array flow_knots{-1.6, -0.9, -0.4, 0.0, 0.4, 0.9}; // ln of a way's flow over the kit's

/// One figure of the model, by how it stands in the list of those that are learned or only reckoned with.
struct Unknown {
  std::optional<LearnedFigure> learned; // none: a load, which nobody learns
  double prior_sd = 1;                  // of `figure`, below
  /// Mean 0: a share's or a flow's logarithm, a load's kg.
};

class Learner {
public:
  Learner(const LearningGiven& given, const std::stop_token& stop)
      : build_(given.build), designed_(without_learned(given.build)), given_(fit_up_given(designed_, given.shelf)),
        rolling_(leveling_given(designed_, given_.air(), 0)), stop_(stop) {}

  std::optional<Expected<Learning>> learn() {
    for (const HoldPoint& p : hold_points(given_)) {
      const std::string_view key = p.row->key;
      for (std::size_t i = 0; i < p.figures.size(); ++i)
        if (p.measured[i] && key == "pressures")
          take_pressure(p.figures[i], *p.measured[i]);
        else if (p.measured[i] && key == "times" && p.figures[i].corner)
          take_time(p.figures[i], *p.measured[i]);
      if (key == "stop_first") take_stop(p);
      if (stopped()) return std::nullopt;
    }
    if (observed_.empty())
      return refuse(words("Nothing that was measured teaches anything yet: pressures at road height, times of single "
                          "corners, or the bag’s height where the stop meets would."));
    const auto learnt = curve::learn([this](const std::vector<double>& x) { return said(x); }, observed_, priors());
    if (stopped()) return std::nullopt;
    if (!learnt) return refuse(words("The model has no answer where these figures were measured."));
    return answer(*learnt);
  }

private:
  [[nodiscard]] bool stopped() const { return stop_.stop_requested(); }

  /// What one observed figure is worked out from.
  struct Reading {
    enum class What { pressure, bag_height, fill, vent } what = What::pressure;
    End end = End::front;
    bool right = false, up = false;
    std::size_t circuit = 0;
    double H = 0; // m
    Message name;
    Kind kind = Kind::pressure;
    std::size_t ratio = 0, area = 0, friction = 0, load = 0, flow = 0; // places among the unknowns
  };

  std::size_t unknown(Learns what, End end, std::size_t corner) {
    const bool flow = what == Learns::flow;
    const char* names[] = {"ratio", "area", "friction", "flow"};
    const std::string at = flow ? std::string(corner_line_key(corner)) : std::string(build::key_of(end));
    const std::string key = at + "." + names[static_cast<int>(what)];
    for (std::size_t i = 0; i < unknowns_.size(); ++i)
      if (unknowns_[i].learned && unknowns_[i].learned->key == key) return i;
    Unknown u;
    LearnedFigure& f = u.learned.emplace();
    f.what = what, f.key = key, f.end = end, f.corner = corner;
    const build::EndFit& now = build_.variant().fit[build::at(end)];
    switch (what) {
    case Learns::ratio:
      f.name = {words("{0}: motion ratio"), {build::name_of(end)}};
      f.was = now.learned_ratio.value_or(1);
      u.prior_sd = ratio_sd(end);
      break;
    case Learns::area:
      f.name = {words("{0}: bag’s effective area"), {build::name_of(end)}};
      f.was = now.learned_area.value_or(1);
      u.prior_sd = area_doubt;
      break;
    case Learns::friction:
      f.name = {words("{0}: friction at the wheel"), {build::name_of(end)}};
      f.kind = Kind::force;
      f.designed = given_.survey(end).friction;
      f.was = now.learned_friction.value_or(f.designed);
      u.prior_sd = friction_doubt_ln;
      break;
    case Learns::flow:
      f.name = {words("{0}: flow of its line and valve"), {corner_name(corner)}};
      f.was = build_.variant().air.learned_flow[corner].value_or(1);
      u.prior_sd = flow_doubt_ln;
      break;
    }
    unknowns_.push_back(std::move(u));
    return unknowns_.size() - 1;
  }
  /// The load of one corner: weighed so well, and never learned.
  std::size_t load_of(End end, bool right) {
    auto& place = loads_[2 * build::at(end) + (right ? 1 : 0)];
    if (!place) {
      place = unknowns_.size();
      unknowns_.push_back({std::nullopt, std::fmax(given_.load_doubt, 0.1)});
    }
    return *place;
  }
  [[nodiscard]] double ratio_sd(End end) const {
    return given_.end(end)->assessment.spring_from == MapSource::single_reading ? one_reading_doubt : ratio_doubt;
  }

  void take_pressure(const AskedFigure& f, double measured) {
    const End end = *f.corner < 2 ? End::front : End::rear;
    const bool right = *f.corner % 2 == 1, up = f.key.starts_with("up_");
    const FittedEnd& fitted = given_.end(end)->fitted;
    if (!pressure_at(fitted, right, up)) return;
    Reading r;
    r.what = Reading::What::pressure, r.end = end, r.right = right, r.up = up, r.H = *fitted.road, r.name = f.name;
    r.ratio = unknown(Learns::ratio, end, 0), r.area = unknown(Learns::area, end, 0);
    r.friction = unknown(Learns::friction, end, 0), r.load = load_of(end, right);
    readings_.push_back(std::move(r));
    observed_.push_back({measured, std::fmax(given_.gauge_error / 2, 500)});
  }
  void take_stop(const HoldPoint& p) {
    const FittedEnd& fitted = given_.end(*p.end)->fitted;
    if (!fitted.bag || !fitted.model.map) return;
    for (const build::Side side : build::both_sides) {
      std::optional<double> H, bag;
      Message name;
      for (std::size_t i = 0; i < p.figures.size(); ++i) {
        if (p.figures[i].key == fmt::format("stop_height_{}", build::key_of(side))) H = p.measured[i];
        if (p.figures[i].key == fmt::format("bag_height_{}", build::key_of(side)))
          bag = p.measured[i], name = {words("{0}: {1}"), {build::name_of(*p.end), p.figures[i].name}};
      }
      if (!H || !bag || !fitted.model.map->contains(*H)) continue;
      Reading r;
      r.what = Reading::What::bag_height, r.end = *p.end, r.H = *H, r.name = name, r.kind = Kind::length;
      r.ratio = unknown(Learns::ratio, *p.end, 0);
      readings_.push_back(std::move(r));
      observed_.push_back({*bag, std::hypot(bag_tape_doubt, tape_doubt)});
    }
  }
  void take_time(const AskedFigure& f, double measured) {
    const auto circuits = circuits_of(given_.air().kit);
    for (std::size_t i = 0; i < circuits.size(); ++i) {
      if (circuits[i].front() != *f.corner || !(measured > 0)) continue;
      if (!timed(i)) return;
      Reading r;
      r.what = f.read == ReadBy::fill ? Reading::What::fill : Reading::What::vent;
      r.circuit = i, r.name = f.name, r.kind = Kind::time;
      r.flow = unknown(Learns::flow, *f.corner < 2 ? End::front : End::rear, *f.corner);
      readings_.push_back(std::move(r));
      observed_.push_back({measured, std::hypot(watch_doubt * measured, watch_least)});
    }
  }

  /// A circuit's times against its flow, simulated once.
  struct Timed {
    curve::PchipTable ln_times; // fill, vent, by ln of the flow
  };
  const Timed* timed(std::size_t circuit) {
    if (timed_.size() <= circuit) timed_.resize(circuit + 1);
    auto& out = timed_[circuit];
    if (out) return out->ln_times.columns() == 0 ? nullptr : &*out;
    out.emplace();
    std::vector<double> at, fill, vent;
    for (const double ln : flow_knots) {
      if (stopped()) break;
      const auto times = corner_times(rolling_, circuit, std::exp(ln));
      if (!times) continue; // so pinched that it never gets there
      at.push_back(ln), fill.push_back(std::log(times->fill)), vent.push_back(std::log(times->vent));
    }
    if (at.size() < 3 || at.back() < 0) return nullptr;
    out->ln_times = curve::PchipTable(at, {fill, vent});
    return &*out;
  }

  [[nodiscard]] std::optional<double> said(const Reading& r, const std::vector<double>& x) const {
    switch (r.what) {
    case Reading::What::bag_height: {
      const FittedEnd& e = given_.end(r.end)->fitted;
      return ratio_applied(e, r.H, std::exp(x[r.ratio]));
    }
    case Reading::What::pressure: {
      const FittedEnd& e = given_.end(r.end)->fitted;
      const double ratio = std::exp(x[r.ratio]);
      const double bag = ratio_applied(e, r.H, ratio);
      if (!e.bag->curve.contains(bag)) return std::nullopt;
      const double mass = e.model.bag_masses(*e.model.loads[0])[r.right ? 1 : 0] + x[r.load];
      const double friction =
          given_.survey(r.end).friction * std::exp(x[r.friction]) * (r.up ? 1 : -1) / standard_gravity;
      const auto at = e.model.map->at(r.H);
      const double force = e.model.spring_force(mass + friction, r.H, at) / ratio / std::exp(x[r.area]);
      if (!(force > 0)) return std::nullopt; // other springs carry it all
      return air::pressure_for_load(e.bag->curve.section(bag), force);
    }
    case Reading::What::fill:
    case Reading::What::vent: {
      const Timed& t = *timed_[r.circuit];
      const double ln = x[r.flow], low = t.ln_times.front(), high = t.ln_times.back();
      const double inside = std::clamp(ln, low, high);
      const auto read = t.ln_times.read(inside, r.what == Reading::What::fill ? 0 : 1);
      return std::exp(read.value + read.slope * (ln - inside));
    }
    }
    return std::nullopt;
  }
  /// m that the bag is high at H with another motion ratio: the spring is as long as surveyed where it was surveyed.
  [[nodiscard]] static double ratio_applied(const FittedEnd& e, double H, double ratio) {
    const double surveyed =
        std::clamp(e.model.surveyed_height.value_or(H), e.model.map->lowest(), e.model.map->highest());
    const double there = e.model.map->at(surveyed).spring_length, here = e.model.map->at(H).spring_length;
    return there + ratio * (here - there) - e.stack;
  }
  [[nodiscard]] std::optional<std::vector<double>> said(const std::vector<double>& x) const {
    std::vector<double> out;
    for (const Reading& r : readings_) {
      const auto one = said(r, x);
      if (!one) return std::nullopt;
      out.push_back(*one);
    }
    return out;
  }
  [[nodiscard]] std::vector<curve::Prior> priors() const {
    std::vector<curve::Prior> out;
    for (const Unknown& u : unknowns_)
      out.push_back({0, u.prior_sd});
    return out;
  }

  [[nodiscard]] Learning answer(const curve::Learnt& learnt) const {
    Learning out;
    out.misfit = learnt.misfit;
    for (std::size_t i = 0; i < unknowns_.size(); ++i) {
      if (!unknowns_[i].learned) continue;
      LearnedFigure f = *unknowns_[i].learned;
      f.is = f.designed * std::exp(learnt.mean[i]);
      f.was_sd = f.designed * unknowns_[i].prior_sd;
      f.is_sd = f.is * learnt.sd[i];
      f.told = learnt.sd[i] < tells_below * unknowns_[i].prior_sd;
      f.too_far = std::abs(learnt.mean[i]) > most_doubts * unknowns_[i].prior_sd;
      for (std::size_t k = 0; k < unknowns_.size(); ++k)
        if (k != i && unknowns_[k].learned && std::abs(learnt.together[i][k]) > blurred_above)
          f.blurred.push_back(unknowns_[k].learned->key);
      out.figures.push_back(std::move(f));
    }
    // End by end, then corner by corner.
    std::stable_sort(out.figures.begin(), out.figures.end(), [](const LearnedFigure& a, const LearnedFigure& b) {
      const auto place = [](const LearnedFigure& f) {
        return std::tuple(f.what == Learns::flow, f.end, f.what == Learns::flow ? f.corner : 0, f.what);
      };
      return place(a) < place(b);
    });
    for (std::size_t i = 0; i < readings_.size(); ++i)
      out.from.push_back({readings_[i].name, readings_[i].kind, observed_[i].value, learnt.before[i], learnt.after[i]});
    return out;
  }

  const build::Build& build_;
  build::Build designed_;
  FitUpGiven given_;
  LevelingGiven rolling_;
  std::stop_token stop_;
  std::vector<Unknown> unknowns_;
  std::array<std::optional<std::size_t>, 4> loads_;
  std::vector<Reading> readings_;
  std::vector<curve::Observed> observed_;
  std::vector<std::optional<Timed>> timed_;
};

/// Where the document keeps a learned figure.
std::optional<double>& kept(build::Variant& v, const LearnedFigure& f) {
  build::EndFit& fit = v.fit[build::at(f.end)];
  switch (f.what) {
  case Learns::ratio:
    return fit.learned_ratio;
  case Learns::area:
    return fit.learned_area;
  case Learns::friction:
    return fit.learned_friction;
  case Learns::flow:
    break;
  }
  return v.air.learned_flow[f.corner];
}

} // namespace

bool operator==(const LearningGiven& a, const LearningGiven& b) {
  return a.build == b.build && a.shelf.bags == b.shelf.bags && a.shelf.parts == b.shelf.parts;
}

bool Learning::any() const {
  return std::any_of(figures.begin(), figures.end(), [](const LearnedFigure& f) { return f.told && !f.too_far; });
}

std::optional<Expected<Learning>> learn_from(const LearningGiven& given, const std::stop_token& stop) {
  return Learner(given, stop).learn();
}

build::Build with_learned(const build::Build& build, const Learning& learning, const std::vector<std::string>& keys,
                          const std::string& by, const std::string& day) {
  build::Build out = build;
  auto& notes = out.variant().proving.own().learned;
  for (const LearnedFigure& f : learning.figures) {
    if (!f.told || f.too_far || std::find(keys.begin(), keys.end(), f.key) == keys.end()) continue;
    kept(out.variant(), f) = f.is;
    build::LearnedNote note;
    note.what = f.key, note.by = by, note.day = day;
    note.was = f.was, note.is = f.is, note.was_sd = f.was_sd, note.is_sd = f.is_sd;
    note.figures = static_cast<double>(learning.from.size());
    std::erase_if(notes, [&](const build::LearnedNote& n) { return n.what == f.key; });
    notes.push_back(std::move(note));
  }
  return out;
}

build::Build without_learned(const build::Build& build) {
  build::Build out = build;
  if (!has_learned(build.variant())) return out;
  for (build::EndFit& fit : out.variant().fit)
    fit.learned_ratio.reset(), fit.learned_area.reset(), fit.learned_friction.reset();
  out.variant().air.learned_flow = {};
  return out;
}

bool has_learned(const build::Variant& v) {
  for (const build::EndFit& fit : v.fit)
    if (fit.learned_ratio || fit.learned_area || fit.learned_friction) return true;
  return std::any_of(v.air.learned_flow.begin(), v.air.learned_flow.end(), [](const auto& f) { return f.has_value(); });
}

} // namespace mavrel::assess
