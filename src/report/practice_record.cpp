#include "report/practice_record.h"

#include "build/json_text.h"
#include "report/json_tree.h"

#include <algorithm>

namespace mavrel::report {

namespace {

std::vector<std::string> keys_of(const std::vector<assess::FaultAt>& faults) {
  std::vector<std::string> out;
  for (const assess::FaultAt& f : faults)
    out.push_back(assess::fault_key(f));
  return out;
}

} // namespace

PracticeEntry entry_of(const assess::PracticeScore& score, const assess::PracticeAsked& asked, std::string car,
                       std::string day) {
  return {std::move(day),       std::move(car), asked.seed,    asked.level,        keys_of(score.truth),
          keys_of(score.named), score.right,    score.minutes, score.best_minutes, score.share};
}

std::string record_text(const std::vector<PracticeEntry>& entries) {
  Json list = Json::array();
  for (const PracticeEntry& e : entries)
    list.push_back({{"day", e.day},
                    {"car", e.car},
                    {"seed", e.seed},
                    {"level", assess::level_key(e.level)},
                    {"fault", e.truth},
                    {"named", e.named},
                    {"right", e.right},
                    {"minutes", e.minutes},
                    {"best_minutes", e.best_minutes},
                    {"share", e.share}});
  return Json{{"mavrel_practice", 1}, {"cars", std::move(list)}}.dump(2, ' ', false, Json::error_handler_t::replace) +
         "\n";
}

Expected<std::vector<PracticeEntry>> read_record(std::string_view text) {
  const auto read = build::read_json_text(text); // bounded, whatever somebody put there
  if (!read) return refuse(words("The record of practice: {0}"), {read.error()});
  const Json& json = *read;
  const auto wrong = [](std::size_t at) {
    return refuse(words("The record of practice: car {0} can't be read."), {std::to_string(at + 1)});
  };
  if (!json.is_object() || !json.contains("mavrel_practice") || !json.contains("cars") || !json["cars"].is_array() ||
      json["cars"].size() > most_practised)
    return refuse(words("That is no record of practice: “mavrel_practice” and a list of “cars” are right."));
  std::vector<PracticeEntry> out;
  for (std::size_t i = 0; i < json["cars"].size(); ++i) {
    const Json& one = json["cars"][i];
    PracticeEntry e;
    try {
      e.day = one.at("day").get<std::string>();
      e.car = one.at("car").get<std::string>();
      e.seed = one.at("seed").get<std::uint64_t>();
      const auto level = assess::level_of(one.at("level").get<std::string>());
      if (!level) return wrong(i);
      e.level = *level;
      e.truth = one.at("fault").get<std::vector<std::string>>();
      e.named = one.at("named").get<std::vector<std::string>>();
      e.right = one.at("right").get<bool>();
      e.minutes = one.at("minutes").get<double>();
      e.best_minutes = one.at("best_minutes").get<double>();
      e.share = one.at("share").get<double>();
    } catch (const Json::exception&) {
      return wrong(i);
    }
    out.push_back(std::move(e));
  }
  return out;
}

std::vector<PracticeWeakness> weak_at(const std::vector<PracticeEntry>& entries) {
  std::vector<PracticeWeakness> out;
  for (const PracticeEntry& e : entries)
    for (const std::string& key : e.truth) {
      const auto fault = assess::fault_of(key);
      if (!fault) continue;
      auto row = std::find_if(out.begin(), out.end(), [&](const auto& w) { return w.family == fault->cause->family; });
      if (row == out.end()) row = out.insert(out.end(), {fault->cause->family, 0, 0, 0});
      row->share = (row->share * row->cars + e.share) / (row->cars + 1);
      row->cars += 1;
      row->right += e.right;
    }
  std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.share < b.share; });
  return out;
}

} // namespace mavrel::report
