#include "app/checks/take_on.h"

#include "app/desk/desk.h"
#include "app/kit/plain.h"
#include "build/fit_up.h"

#include <QComboBox>
#include <QDialog>
#include <QFormLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {
// As long as the document keeps them: see build/fields/fit_up.cpp.
constexpr int most_name = 40, most_why = 200;
constexpr std::size_t most_said = 8;
} // namespace

std::optional<TakenOn> ask_to_take_on(QWidget* parent, const Desk& desk, const QString& what,
                                      const std::vector<Message>& missing) {
  QDialog dialog(parent);
  dialog.setObjectName("take_on");
  dialog.setWindowTitle(Desk::tr("Not released"));
  auto* column = new QVBoxLayout(&dialog);
  column->setSpacing(desk.look().unit());
  const auto say = [&](const QString& text, TextSize size, bool bold) {
    auto* label = new PlainLabel(text, &dialog);
    label->setFont(desk.look().font(size, bold));
    label->setWordWrap(true);
    column->addWidget(label);
    return label;
  };
  say(what, TextSize::large, true);
  QStringList lines;
  for (std::size_t i = 0; i < std::min(missing.size(), most_said); ++i)
    lines << "• " + desk.words_of(missing[i]);
  if (missing.size() > most_said) lines << Desk::tr("and %1 more").arg(missing.size() - most_said);
  say(lines.join('\n'), TextSize::normal, false)->setObjectName("missing");
  say(Desk::tr("It waits for that. Whoever goes on anyway signs for it and says why: it stays on the plan, "
               "on the job sheet and on the hand-over."),
      TextSize::small, false);
  auto* form = new QFormLayout;
  auto* by = new QComboBox(&dialog);
  by->setObjectName("taken_by");
  by->setEditable(true);
  for (const build::ShopPerson& person : desk.build().shop->people)
    by->addItem(QString::fromStdString(person.name));
  by->setCurrentIndex(-1);
  by->lineEdit()->setMaxLength(most_name);
  auto* why = new QLineEdit(&dialog);
  why->setObjectName("taken_why");
  why->setMaxLength(most_why);
  why->setMinimumWidth(desk.look().px(320));
  form->addRow(Desk::tr("Who takes it on"), by);
  form->addRow(Desk::tr("Why"), why);
  column->addLayout(form);
  auto* foot = new QHBoxLayout;
  auto* leave = new QPushButton(Desk::tr("Leave it"), &dialog);
  auto* take = new QPushButton(Desk::tr("Go on anyway"), &dialog);
  leave->setObjectName("leave_it");
  take->setObjectName("take_it");
  foot->addWidget(leave);
  foot->addStretch(1);
  foot->addWidget(take);
  column->addLayout(foot);
  // Enter never throws away what was typed: it takes once both stand there, and leaves before.
  const auto may = [by, why, take, leave] {
    const bool both = !by->currentText().trimmed().isEmpty() && !why->text().trimmed().isEmpty();
    take->setEnabled(both);
    (both ? take : leave)->setDefault(true);
  };
  QObject::connect(by, &QComboBox::editTextChanged, &dialog, may);
  QObject::connect(why, &QLineEdit::textChanged, &dialog, may);
  QObject::connect(leave, &QPushButton::clicked, &dialog, &QDialog::reject);
  QObject::connect(take, &QPushButton::clicked, &dialog, &QDialog::accept);
  may();
  leave->setFocus();
  if (dialog.exec() != QDialog::Accepted) return std::nullopt;
  return TakenOn{by->currentText().trimmed(), why->text().trimmed()};
}

} // namespace mavrel::app
