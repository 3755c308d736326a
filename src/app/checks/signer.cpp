#include "app/checks/signer.h"

#include "app/desk/desk.h"
#include "assess/fit_up/checks.h"

#include <QComboBox>

#include <cmath>

namespace mavrel::app {

using assess::AskedFigure;

void dress_signer(QComboBox& box, const char* name) {
  box.setEditable(true);
  box.setObjectName(name);
  box.setAccessibleName(Desk::tr("Who signs"));
  box.setMinimumContentsLength(14);
}

void show_signers(QComboBox& box, const Desk& desk) {
  const QString typed = box.currentText();
  QStringList people, there;
  for (const auto& one : desk.build().shop->people)
    people << QString::fromStdString(one.name);
  for (int i = 0; i < box.count(); ++i)
    there << box.itemText(i);
  if (people != there) {
    box.clear();
    box.addItems(people);
    if (!typed.isEmpty()) box.setEditText(typed);
  }
}

QString stale_words(const Desk& desk, const assess::HoldPoint& point) {
  const build::HoldCheck& note = desk.build().variant().fit_up->checks[*point.note];
  QStringList moved;
  for (const assess::MovedFigure& m : point.moved) {
    const AskedFigure& f = point.figures[m.figure];
    const auto told = [&](const std::optional<double>& v) { return v ? desk.shown(*v, f.kind) : Desk::tr("nothing"); };
    QString line =
        Desk::tr("%1 was %2, is %3").arg(desk.words_of(assess::name_of_moved(f, m.what)), told(m.was), told(m.is));
    if (m.was && m.is && !f.yes_no)
      line += Desk::tr(" (%1)").arg((*m.is > *m.was ? "+" : "−") + desk.shown(std::abs(*m.is - *m.was), f.kind));
    moved << line;
  }
  return moved.isEmpty()
             ? Desk::tr("≠ What it reads has changed since %1 signed it, though its figures came out the same.")
                   .arg(QString::fromStdString(note.by))
             : Desk::tr("≠ Since %1 signed it: %2.").arg(QString::fromStdString(note.by), moved.join("; "));
}

} // namespace mavrel::app
