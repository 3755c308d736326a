#include "assess/proving/series.h"

#include "air/gas.h"
#include "build/proving.h"
#include "file/csv.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>

namespace mavrel::assess {

namespace {

constexpr std::size_t most_rows = 200'000;

struct Column {
  enum class What { time, pressure, height, temperature, other } what = What::other;
  std::string gauge; // empty: it does not say
  double factor = 1, offset = 0;
};

/// `front_left` from `front_left`, `fl`, `FL`; `tank` as it is.
std::optional<std::string> gauge_named(const std::string& name) {
  constexpr std::pair<const char*, const char*> names[] = {
      {"fl", "front_left"}, {"fr", "front_right"}, {"rl", "rear_left"}, {"rr", "rear_right"}, {"tank", "tank"}};
  for (const auto& [brief, whole] : names)
    if (name == brief || name == whole) return whole;
  return std::nullopt;
}

Column column_of(std::string head) {
  std::transform(head.begin(), head.end(), head.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  Column out;
  constexpr struct {
    const char* ending;
    Column::What what;
    double factor, offset;
  } units[] = {{"_bar", Column::What::pressure, 1e5, 0},
               {"_pa", Column::What::pressure, 1, 0},
               {"_kpa", Column::What::pressure, 1e3, 0},
               {"_psi", Column::What::pressure, 6894.757293168, 0},
               {"_mm", Column::What::height, 1e-3, 0},
               {"_m", Column::What::height, 1, 0},
               {"_c", Column::What::temperature, 1, air::ice_point},
               {"_k", Column::What::temperature, 1, 0},
               {"_s", Column::What::time, 1, 0},
               {"_min", Column::What::time, 60, 0},
               {"_h", Column::What::time, 3600, 0}};
  for (const auto& u : units) {
    if (!head.ends_with(u.ending)) continue;
    std::string name = head.substr(0, head.size() - std::string_view(u.ending).size());
    for (const char* front : {"pressure_", "height_"})
      if (name.starts_with(front)) name = name.substr(std::string_view(front).size());
    const auto gauge = gauge_named(name);
    const bool whole = name == "time" || name == "pressure" || name == "height" || name == "temperature";
    if (!gauge && !whole) return out;
    if ((u.what == Column::What::time) != (name == "time")) return out;
    out.what = u.what, out.factor = u.factor, out.offset = u.offset;
    if (gauge) out.gauge = *gauge;
    return out;
  }
  return out;
}

std::optional<double> number_in(const std::string& text) {
  double value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  return error == std::errc() && end == text.data() + text.size() && std::isfinite(value) ? std::optional(value)
                                                                                          : std::nullopt;
}

} // namespace

Expected<ReadSeries> read_series(std::string_view csv) {
  const auto table = read_csv(csv, {most_rows, 64, 32 * 1024 * 1024});
  if (!table) return refuse(table.error());
  std::vector<Column> columns;
  std::optional<std::size_t> time;
  bool any = false;
  for (const CsvCell& cell : table->head) {
    columns.push_back(column_of(cell.text));
    if (columns.back().what == Column::What::time && !time) time = columns.size() - 1;
    any = any || columns.back().what == Column::What::pressure || columns.back().what == Column::What::height;
  }
  if (!time) return refuse(words("The table has no column of time: one called “time_s” is right."));
  if (!any)
    return refuse(words("The table has no gauge in it: a column called “front_left_bar”, “tank_bar” or “pressure_bar” "
                        "is right, of heights “front_left_mm”."));
  if (table->rows.empty()) return refuse(words("The table has a head and no readings."));
  ReadSeries out;
  out.rows = table->rows.size();
  std::vector<std::size_t> kept;
  const std::size_t most = std::min(out.rows, build::most_proof_readings);
  for (std::size_t i = 0; i < most; ++i)
    kept.push_back(most == 1 ? 0 : i * (out.rows - 1) / (most - 1));
  out.kept = kept.size();
  std::map<std::string, std::size_t> places;
  double last = -1, first = 0;
  for (std::size_t k = 0; k < kept.size(); ++k) {
    const CsvRow& row = table->rows[kept[k]];
    const auto at = [&](std::size_t column) -> Expected<std::optional<double>> {
      const CsvCell& cell = row.cells[column];
      if (cell.text.empty()) return std::optional<double>();
      const auto value = number_in(cell.text);
      if (!value)
        return refuse(words("Line {0}, column {1}: “{2}” is no number. A number with a point is right."),
                      {std::to_string(row.line), std::to_string(cell.column), excerpt(cell.text, 24)});
      return std::optional(*value * columns[column].factor + columns[column].offset);
    };
    const auto t = at(*time);
    if (!t) return refuse(t.error());
    if (!*t) return refuse(words("Line {0}: the time is missing."), {std::to_string(row.line)});
    if (k == 0) first = **t;
    const double since = **t - first;
    if (since <= last)
      return refuse(words("Line {0}: the time does not go on. Later readings below earlier ones are right."),
                    {std::to_string(row.line)});
    if (since > 3e7) return refuse(words("Line {0}: that is more than a year on."), {std::to_string(row.line)});
    last = since;
    std::optional<double> warm;
    for (std::size_t c = 0; c < columns.size(); ++c)
      if (columns[c].what == Column::What::temperature) {
        const auto read = at(c);
        if (!read) return refuse(read.error());
        warm = *read;
        if (warm && !(*warm > 213.15 && *warm < 393.15))
          return refuse(words("Line {0}: no thermometer in a shop reads {1}."),
                        {std::to_string(row.line), Amount{*warm, Kind::temperature, 0, {}}});
      }
    for (std::size_t c = 0; c < columns.size(); ++c) {
      const Column& column = columns[c];
      if (column.what != Column::What::pressure && column.what != Column::What::height) continue;
      const auto read = at(c);
      if (!read) return refuse(read.error());
      if (!*read) continue;
      const bool pressure = column.what == Column::What::pressure;
      if (pressure ? !(**read > -1e5 && **read < 4e6) : !(**read >= 0 && **read < 2))
        return refuse(words("Line {0}, column {1}: {2} is none that a car’s gauge or tape shows."),
                      {std::to_string(row.line), std::to_string(row.cells[c].column),
                       Amount{**read, pressure ? Kind::pressure : Kind::length, -1, {}}});
      const auto [place, fresh] = places.try_emplace(column.gauge, out.series.size());
      if (fresh) {
        out.series.emplace_back().gauge = column.gauge;
        if (out.series.size() > build::most_series) return refuse(words("The table has more gauges than a car."));
      }
      auto& readings = out.series[place->second].readings;
      if (readings.empty() || readings.back().time != since) {
        readings.emplace_back().time = since;
        readings.back().temperature = warm;
      }
      (pressure ? readings.back().pressure : readings.back().height) = **read;
    }
  }
  if (out.series.empty()) return refuse(words("The table’s gauges were never read."));
  return out;
}

std::optional<Message> trouble_of(const build::ProofSeries& series) {
  for (std::size_t i = 1; i < series.readings.size(); ++i)
    if (!(series.readings[i].time > series.readings[i - 1].time))
      return Message{words("Reading {0} is not later than the one before it."), {std::to_string(i + 1)}};
  return std::nullopt;
}

std::optional<LiveLook> mean_look(const std::vector<LiveLook>& looks) {
  LiveLook out;
  for (std::size_t corner = 0; corner < 4; ++corner)
    for (const auto which : {&LiveLook::height, &LiveLook::pressure}) {
      double sum = 0, low = 1e300, high = -1e300, n = 0;
      for (const LiveLook& look : looks)
        if (const auto& v = (look.*which)[corner]) sum += *v, ++n, low = std::fmin(low, *v), high = std::fmax(high, *v);
      if (n == 0) continue;
      if (which == &LiveLook::height && high - low > live_still) return std::nullopt;
      (out.*which)[corner] = sum / n;
    }
  return out;
}

std::optional<double> mean_height(const LiveLook& look, std::span<const std::size_t> corners) {
  double sum = 0;
  for (const std::size_t c : corners) {
    if (!look.height[c]) return std::nullopt;
    sum += *look.height[c];
  }
  return corners.empty() ? std::nullopt : std::optional(sum / static_cast<double>(corners.size()));
}

std::vector<std::pair<std::size_t, double>> read_now(const FitUpGiven& given, const HoldPoint& point,
                                                     const LiveLook& look, Reached from) {
  std::vector<std::pair<std::size_t, double>> out;
  for (std::size_t corner = 0; corner < 4; ++corner) {
    std::optional<std::size_t> nearest;
    for (std::size_t i = 0; i < point.figures.size(); ++i) {
      const AskedFigure& f = point.figures[i];
      if (f.corner != corner) continue;
      if (f.read == ReadBy::height && look.height[corner] && f.designed) {
        const double off = std::abs(*look.height[corner] - *f.designed);
        if (off < live_near && (!nearest || off < std::abs(*look.height[corner] - *point.figures[*nearest].designed)))
          nearest = i;
      }
      if (f.read == ReadBy::pressure && look.pressure[corner] && look.height[corner]) {
        const auto road = given.end(corner < 2 ? End::front : End::rear)->fitted.road;
        const bool this_side = f.key.starts_with(from == Reached::below ? "up_" : "down_");
        if (road && this_side && std::abs(*look.height[corner] - *road) < live_pressure_at)
          out.emplace_back(i, *look.pressure[corner]);
      }
    }
    if (nearest) out.emplace_back(*nearest, *look.height[corner]);
  }
  return out;
}

bool stands_off(double height, double from) {
  return std::abs(height - from) > Stopwatch::near;
}

void Stopwatch::look(double time, double height, bool open) {
  if (took_ || trouble_) return;
  const bool up = to_ > from_;
  if (!began_) {
    if (open) {
      // It opened some time since the last look: halfway is as good as any.
      began_ = last_time_ ? (*last_time_ + time) / 2 : time;
      const double there = last_height_.value_or(height);
      if (ends_ == Ends::as_far) to_ += there - from_;
      if (stands_off(there, from_))
        trouble_ = Message{words("It began at {0}; {1} is right. Bring it there and let it settle."),
                           {told_from(metres(there), from_), told_from(metres(from_), there)}};
    }
  } else if (up ? height >= to_ : height <= to_) {
    const double way = height - last_height_.value_or(height);
    const double share = std::abs(way) > 1e-9 ? std::clamp((to_ - *last_height_) / way, 0.0, 1.0) : 1;
    took_ = *last_time_ + share * (time - *last_time_) - *began_;
  } else if (!open) {
    trouble_ = Message{words("The valve shut at {0}, before it stood at {1}."),
                       {told_from(metres(height), to_), told_from(metres(to_), height)}};
  }
  last_time_ = time, last_height_ = height;
}

std::optional<double> took_together(std::span<const Stopwatch> watches) {
  std::optional<double> first, last;
  for (const Stopwatch& w : watches) {
    if (!w.took()) return std::nullopt;
    first = first ? std::min(*first, *w.began()) : *w.began();
    last = last ? std::max(*last, *w.began() + *w.took()) : *w.began() + *w.took();
  }
  return first ? std::optional(*last - *first) : std::nullopt;
}

} // namespace mavrel::assess
