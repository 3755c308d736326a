#include "report/calendar_file.h"

#include "assess/fit_up/plan.h"
#include "assess/kept/digest.h"

#include <libical/ical.h>

#include <memory>

namespace mavrel::report {

namespace {

constexpr int rings_at = 8 * 3600; // s of its day

struct Free {
  void operator()(icalcomponent* c) const { icalcomponent_free(c); }
};
using Component = std::unique_ptr<icalcomponent, Free>;

icaltimetype day_of(work::Day day) {
  const std::string text = work::day_text(day); // 2026-11-26
  icaltimetype out = icaltime_null_date();
  out.year = std::stoi(text.substr(0, 4)), out.month = std::stoi(text.substr(5, 2)),
  out.day = std::stoi(text.substr(8, 2));
  return out;
}

icaltimetype moment_of(const work::Moment& at) {
  icaltimetype out = day_of(at.day);
  out.is_date = 0;
  out.hour = at.minute / 60, out.minute = at.minute % 60, out.second = 0;
  out.zone = icaltimezone_get_utc_timezone();
  return out;
}

} // namespace

Expected<std::string> calendar_file(const build::Job& job, const build::Shop& shop, const assess::CarePlan& plan,
                                    const std::string& now, const UnitPrefs& prefs) {
  const auto moment = work::parse_moment(now);
  if (!moment) return refuse(words("“{0}” is no moment. One such as 2026-11-26 10:15 is right."), {now});
  const std::string car = job.number.empty() ? job.car : job.number + " " + job.car;
  const Component calendar(icalcomponent_new(ICAL_VCALENDAR_COMPONENT));
  icalcomponent_add_property(calendar.get(), icalproperty_new_version("2.0"));
  icalcomponent_add_property(calendar.get(), icalproperty_new_prodid("-//Mavrel//Care//EN"));
  for (const assess::CareDue& d : plan.due) {
    const std::string mark =
        assess::digest_of(std::tuple(job.number, job.car, std::string(d.task->key))).text().substr(0, 24) + "@mavrel";
    icalcomponent* event = icalcomponent_new(ICAL_VEVENT_COMPONENT);
    icalcomponent_add_property(event, icalproperty_new_uid(mark.c_str()));
    icalcomponent_add_property(event, icalproperty_new_dtstamp(moment_of(*moment)));
    const bool late = d.due < moment->day;
    const work::Day on = late ? assess::working_day_from(shop, moment->day) : d.due;
    icalcomponent_add_property(event, icalproperty_new_dtstart(day_of(on)));
    icalcomponent_add_property(event, icalproperty_new_dtend(day_of(on + 1)));
    const std::string title = say({words("{0}: {1}"), {car, d.task->name}}, prefs);
    icalcomponent_add_property(event, icalproperty_new_summary(title.c_str()));
    std::string text = say({words("{0} {1}"), {d.task->how, d.why}}, prefs);
    if (late) text += " " + say({words("Due since {0}."), {work::day_text(d.due)}}, prefs);
    icalcomponent_add_property(event, icalproperty_new_description(text.c_str()));
    icalcomponent_add_property(event, icalproperty_new_transp(ICAL_TRANSP_TRANSPARENT));
    icalcomponent* alarm = icalcomponent_new(ICAL_VALARM_COMPONENT);
    icalcomponent_add_property(alarm, icalproperty_new_action(ICAL_ACTION_DISPLAY));
    icalcomponent_add_property(alarm, icalproperty_new_description(title.c_str()));
    icaltriggertype morning{};
    morning.time = icaltime_null_time();
    morning.duration = icaldurationtype_from_int(rings_at);
    icalcomponent_add_property(alarm, icalproperty_new_trigger(morning));
    icalcomponent_add_component(event, alarm);
    icalcomponent_add_component(calendar.get(), event); // the calendar's own from here
  }
  char* text = icalcomponent_as_ical_string_r(calendar.get());
  std::string out(text);
  icalmemory_free_buffer(text);
  return out;
}

} // namespace mavrel::report
