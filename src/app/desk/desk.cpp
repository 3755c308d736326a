#include "app/desk/desk.h"

#include "assess/next/usual_car.h"

#include "assess/assessment.h"
#include "assess/care/care_findings.h"
#include "assess/end/end_answer.h"
#include "build/care.h"

#include <QCoreApplication>

namespace mavrel::app {

Desk::Desk(shelf::Shelf shelf, QObject* parent)
    : QObject(parent), cards_(std::move(shelf)), answers_(std::make_unique<Answers>(*this, runner_)) {
  assessment_ = assessor_.assess(build(), this->shelf());
  view_.show(assessment_);
  connect(&document_, &Document::put_down, &view_, &ViewState::forget_poses);
  connect(&document_, &Document::rewound, this, &Desk::rewound);
  connect(&document_, &Document::changed, this, &Desk::refresh);
  connect(&cards_, &CardShelf::changed, this, &Desk::refresh);
  connect(&view_, &ViewState::posed, this, &Desk::posed);
  connect(&view_, &ViewState::looked_at, this, &Desk::looked_at);
  connect(&view_, &ViewState::restyled, this, &Desk::restyled);
}

const assess::AnsweredEnd& Desk::answered(End end) const {
  return assessment_->ends[build::at(end)];
}

void Desk::refresh() {
  assessment_ = assessor_.assess(build(), shelf());
  view_.show(assessment_);
  emit changed();
}

QString Desk::not_of_this_car(const QString& path) const {
  const build::Origin& origin = *build().origin;
  if (origin.taken.empty()) return {};
  const std::string where = resolve(path).toStdString();
  for (const assess::StillTaken& still : assessment_->care.given().taken) {
    const std::string& leaf = origin.taken[still.place].path; // a list is one leaf
    if (where == leaf || (where.starts_with(leaf) && where[leaf.size()] == '.'))
      return assess::begun_from_usual(build())
                 ? tr("≈ A usual figure of such a car: not measured on this one.")
                 : tr("≈ Of %1, another car: not measured on this one.")
                       .arg(QString::fromStdString(origin.number.empty() ? origin.car : origin.number));
  }
  return {};
}

std::optional<QString> Desk::type(const QString& path, const QString& text) {
  const std::string where = resolve(path).toStdString();
  auto changed_build = build::with_text(build(), where, text.toStdString(), prefs());
  if (!changed_build) return words_of(changed_build.error());
  if (*changed_build == build()) return std::nullopt;
  const auto view = build::look_up(build(), where, prefs());
  edit(tr("Change %1").arg(words_of(view->label)), std::move(*changed_build));
  return std::nullopt;
}

bool Desk::add_entry(const QString& name, const QString& list, build::Entry entry) {
  const auto wrong = document_.add(name, resolve(list).toStdString(), std::move(entry));
  if (wrong) refuse(words_of(*wrong));
  return !wrong;
}

bool Desk::remove_entry(const QString& name, const QString& entry) {
  const auto wrong = document_.remove(name, resolve(entry).toStdString());
  if (wrong) refuse(words_of(*wrong));
  return !wrong;
}

bool Desk::refuses_to_write(const std::filesystem::path& to) {
  if (!document_.is_file(to)) return false;
  tell(tr("%1 is the build itself. Choose another name.").arg(QString::fromStdString(shown_path(to.filename()))));
  return true;
}

QString Desk::resolve(const QString& path) const {
  if (!path.startsWith("@.")) return path;
  return QString("variants.%1.%2").arg(build().active_variant).arg(path.mid(2));
}

build::FieldView Desk::field(const QString& path) const {
  return build::look_up(build(), resolve(path).toStdString(), prefs()).value_or(build::FieldView{});
}

QString Desk::words_of(const Message& message) const {
  const Translate translate = [](const std::string& text) {
    return QCoreApplication::translate("core", text.c_str()).toStdString();
  };
  return QString::fromStdString(say(message, prefs(), translate));
}

QString Desk::shown(double value, Kind kind, int decimals) const {
  return QString::fromStdString(show(value, kind, prefs(), decimals));
}

QString Desk::shown_pressure(double value, air::Beyond beyond, int decimals) const {
  const QString bare = shown(value, Kind::pressure, decimals);
  return beyond == air::Beyond::nothing ? bare : QString("△ %1 (%2)").arg(bare, tr(air::beyond_name(beyond)));
}

} // namespace mavrel::app
