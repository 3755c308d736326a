// Proving, care, and the car a build was begun from.
#include "build/fields/maker.h"

#include "build/care.h"
#include "build/names_care.h"
#include "build/proving.h"

namespace mavrel::build {

static void fields(TableMaker& v, ProofReading& r) {
  v.number("time_s", r.time, {Kind::time, 0, 3e7, words("time")});
  v.number("pressure_pa", r.pressure, {Kind::pressure, -1e5, 4e6, words("gauge")});
  v.number("temperature_k", r.temperature, {Kind::temperature, 213.15, 393.15, words("temperature")});
  v.number("height_m", r.height, {Kind::length, 0, 2, words("height")});
  v.extra(r.extra);
}

static void fields(TableMaker& v, ProofSeries& s) {
  v.text("check", s.check, words("check"), 60);
  v.text("gauge", s.gauge, words("gauge"), 40);
  v.text("from", s.from, words("readings from"), 120);
  v.text("began", s.began, words("began"), 16);
  v.list("readings", s.readings, words("reading"), 0, most_proof_readings);
  v.extra(s.extra);
}

static void fields(TableMaker& v, LearnedNote& n) {
  v.text("what", n.what, words("what was learned"), 40);
  v.text("by", n.by, words("by"), 40);
  v.text("day", n.day, words("on"), 16);
  v.number("was_si", n.was, {Kind::plain, -1e7, 1e7, words("was")});
  v.number("is_si", n.is, {Kind::plain, -1e7, 1e7, words("is")});
  v.number("was_sd_si", n.was_sd, {Kind::plain, 0, 1e7, words("its doubt before")});
  v.number("is_sd_si", n.is_sd, {Kind::plain, 0, 1e7, words("its doubt since")});
  v.number("figures", n.figures, {Kind::plain, 0, 1e4, words("figures it is from")});
  v.extra(n.extra);
}

static void fields(TableMaker& v, Proving& p) {
  v.list("series", p.series, words("series of readings"), 0, most_series);
  v.list("learned", p.learned, words("learned figure"), 0, most_learned_notes);
  v.text("handed_over", p.handed_over, words("handed over on"), 10);
  v.text("to", p.to, words("handed over to"), 80);
  v.text("listen", p.listen, words("what else to listen for"), 400);
  v.text("inspect", p.inspect, words("what else the inspection must see"), 400);
  v.extra(p.extra);
}

static void fields(TableMaker& v, LogEntry& e) {
  v.text("id", e.id, words("mark of the entry"), 40);
  v.text("day", e.day, words("day"), 16);
  v.choice("kind", e.kind, words("kind of entry"));
  v.text("what", e.what, words("what"), 60);
  v.text("where", e.where, words("where"), 40);
  v.number("odometer_m", e.odometer, {Kind::distance, 0, 3e9, words("odometer")});
  v.number("height_m", e.height, {Kind::length, 0, 2, words("height")});
  v.number("pressure_pa", e.pressure, {Kind::pressure, -1e5, 4e6, words("gauge")});
  v.number("temperature_k", e.temperature, {Kind::temperature, 213.15, 393.15, words("temperature")});
  v.number("seconds_s", e.seconds, {Kind::time, 0, 3e7, words("took")});
  v.number("hourly_loss", e.hourly_loss, {Kind::share, -1, 1, words("air lost an hour")});
  v.number("water_kg", e.water, {Kind::mass, 0, 20, words("water drained")});
  v.text("by", e.by, words("by"), 40);
  v.text("text", e.text, words("remark"), 1000);
  v.extra(e.extra);
}

static void fields(TableMaker& v, CareInterval& i) {
  v.text("task", i.task, words("task"), 40);
  v.choice("wanted", i.wanted, words("comes round"));
  v.number("days_s", i.days, {Kind::days, 86400, 3.2e9, words("every")});
  v.number("distance_m", i.distance, {Kind::distance, 1e4, 1e9, words("or every")});
  v.extra(i.extra);
}

static void fields(TableMaker& v, Lesson& l) {
  v.text("day", l.day, words("day"), 10);
  v.text("what", l.what, words("what had to be changed"), 300);
  v.text("why", l.why, words("why"), 500);
  v.text("where", l.where, words("where"), 20);
  v.text("stage", l.stage, words("stage"), 20);
  v.number("hours_s", l.hours, {Kind::hours, 0, 3.6e6, words("cost")});
  v.text("by", l.by, words("by"), 40);
  v.extra(l.extra);
}

static void fields(TableMaker& v, Care& c) {
  v.text("from", c.from, words("on the road since"), 10);
  v.number("distance_year_m", c.distance_year, {Kind::distance, 0, 3e8, words("driven per year")});
  v.number("winter_temperature_k", c.winter_temperature,
           {Kind::temperature, 213.15, 323.15, words("mean of the coldest month")});
  v.number("summer_temperature_k", c.summer_temperature,
           {Kind::temperature, 213.15, 323.15, words("mean of the warmest month")});
  v.number("winter_humidity", c.winter_humidity, {Kind::share, 0, 1, words("its humidity in winter")});
  v.number("summer_humidity", c.summer_humidity, {Kind::share, 0, 1, words("its humidity in summer")});
  v.choice("winter_in_july", c.winter_in_july, words("winter is in July"));
  v.choice("rests_in_winter", c.rests_in_winter, words("stands over winter"));
  v.number("soon_s", c.soon, {Kind::days, 0, 3.2e7, words("warn ahead by")});
  v.list("intervals", c.intervals, words("interval"), 0, most_intervals);
  v.list("log", c.log, words("entry of the log"), 0, most_log);
  v.list("lessons", c.lessons, words("lesson"), 0, most_lessons);
  v.extra(c.extra);
}

static void fields(TableMaker& v, Taken& t) {
  v.text("path", t.path, words("figure"), 120);
  v.text("digest", t.digest, words("what it was"), 40);
  v.extra(t.extra);
}

static void fields(TableMaker& v, Origin& o) {
  v.text("car", o.car, words("begun from"), 80);
  v.text("number", o.number, words("its job number"), 40);
  v.text("file", o.file, words("its file"), 400);
  v.text("day", o.day, words("begun on"), 10);
  v.list("taken", o.taken, words("figure of another car"), 0, most_taken);
  v.extra(o.extra);
}

template <>
const Table& table_of<ProofReading>() {
  return made_table<ProofReading>();
}
template <>
const Table& table_of<ProofSeries>() {
  return made_table<ProofSeries>();
}
template <>
const Table& table_of<LearnedNote>() {
  return made_table<LearnedNote>();
}
template <>
const Table& table_of<Proving>() {
  return made_table<Proving>();
}
template <>
const Table& table_of<LogEntry>() {
  return made_table<LogEntry>();
}
template <>
const Table& table_of<CareInterval>() {
  return made_table<CareInterval>();
}
template <>
const Table& table_of<Lesson>() {
  return made_table<Lesson>();
}
template <>
const Table& table_of<Care>() {
  return made_table<Care>();
}
template <>
const Table& table_of<Taken>() {
  return made_table<Taken>();
}
template <>
const Table& table_of<Origin>() {
  return made_table<Origin>();
}

} // namespace mavrel::build
