#include "app/stages/proving/hand_page.h"

#include "app/desk/clock.h"
#include "app/kit/field.h"
#include "app/print/fit_up_pdf.h"
#include "build/care.h"
#include "report/hand_over_sheet.h"

#include <QFileDialog>
#include <QLabel>
#include <QPushButton>
#include <QTextBrowser>
#include <QVBoxLayout>

namespace mavrel::app {

HandPage::HandPage(Desk& desk, QWidget* parent) : Page(desk, parent), sheet_(new QTextBrowser(this)) {
  summary_ = words("hand_summary", TextSize::normal);
  column()->addWidget(summary_);
  auto* head = row(column());
  head->addWidget(new Field(desk, "@.proving.to", tr("handed over to"), this), 2);
  head->addWidget(new Field(desk, "@.proving.handed_over", tr("on"), this), 1);
  QPushButton* const buttons[] = {
      button(nullptr, tr("Handed over today"), "hand_over", [this] { hand_over(); }),
      button(nullptr, tr("Owner’s sheet …"), "owner_sheet",
             [this] { ask_and_write(Sheet::owner, tr("Owner’s sheet")); }),
      button(nullptr, tr("Shop’s sheet …"), "shop_sheet", [this] { ask_and_write(Sheet::shop, tr("Shop’s sheet")); })};
  for (QPushButton* one : buttons) {
    head->addWidget(one, 0, Qt::AlignBottom);
    if (one == buttons[0]) head->addStretch(1);
  }
  auto* besides = row(column());
  fields(besides, "@.proving.",
         {{"listen", tr("what else to listen for")}, {"inspect", tr("what else the inspection must see")}}, 1);
  sheet_->setObjectName("owner_preview");
  sheet_->setAccessibleName(tr("The owner’s sheet"));
  sheet_->setOpenLinks(false);
  column()->addWidget(sheet_, 1);
}

void HandPage::ask_and_write(Sheet sheet, const QString& name) {
  const QString to = QFileDialog::getSaveFileName(this, name, {}, tr("PDF (*.pdf)"));
  if (!to.isEmpty()) write(sheet, to);
}

void HandPage::hand_over() {
  // What is not proved is not handed over.
  const assess::HandOver over = hand_over_of(desk_);
  if (!over.all_proved())
    return desk_.tell(
        tr("%1 of %2 proofs stand: what is not proved is not handed over.").arg(over.proved).arg(over.proofs.size()));
  build::Build build = desk_.build();
  const std::string today = work::day_text(clock_now().day);
  build.variant().proving.own().handed_over = today;
  if (build.care->from.empty()) build.care.own().from = today;
  desk_.edit(tr("Hand the car over"), std::move(build));
  desk_.tell(tr("Handed over. Its care counts from today."));
}

bool HandPage::write(Sheet sheet, const QString& to) {
  if (desk_.refuses_to_write(to.toStdString())) return false;
  const assess::HandOver over = hand_over_of(desk_);
  const auto sheets = report::hand_over_sheets(desk_.build(), proving_of(desk_), over, proofs_of(desk_), desk_.prefs(),
                                               work::day_text(clock_now().day));
  const build::Job& job = desk_.build().job;
  const auto pages = write_leaves(report::page_each(sheet == Sheet::owner ? sheets.owner : sheets.shop),
                                  QString::fromStdString(job.number.empty() ? job.car : job.number + " · " + job.car),
                                  to.toStdString());
  desk_.tell(pages ? tr("Written: %1").arg(to) : desk_.words_of(pages.error()));
  return pages.has_value();
}

QString HandPage::said(const assess::HandOver& over) const {
  if (over.proofs.empty()) return tr("Nothing is to be handed over yet: choose bags in Bags and a kit in Air.");
  if (over.all_proved()) return tr("✓ All %1 proofs stand.").arg(over.proofs.size());
  QStringList open;
  for (const assess::HandedProof& p : over.proofs)
    if (p.state != assess::CheckState::passed && open.size() < 4) open << desk_.words_of(p.name);
  const auto left = over.proofs.size() - over.proved;
  return tr("■ %1 of %2 proofs stand. Not to be handed over before: %3%4")
      .arg(over.proved)
      .arg(over.proofs.size())
      .arg(open.join(", "),
           left > static_cast<std::size_t>(open.size()) ? tr(" and %1 more.").arg(left - open.size()) : QString("."));
}

void HandPage::fill() {
  const Tokens& t = desk_.look().tokens();
  const assess::HandOver over = hand_over_of(desk_);
  summary_->setText(said(over));
  QPalette palette = summary_->palette();
  palette.setColor(QPalette::WindowText, over.all_proved() ? t.good : t.stop);
  summary_->setPalette(palette);
  const auto sheets = report::hand_over_sheets(desk_.build(), proving_of(desk_), over, proofs_of(desk_), desk_.prefs(),
                                               work::day_text(clock_now().day));
  sheet_->document()->setDefaultStyleSheet(
      QString("h1 { font-size: 18pt; } h2 { font-size: 12pt; } .second { color: %1; } "
              "th { color: %1; } body, p, td, li { color: %2; }")
          .arg(t.second.name(), t.ink.name()));
  const QString html = QString::fromStdString(sheets.owner.front());
  if (sheet_->property("html").toString() != html + t.ink.name()) {
    sheet_->setHtml(html);
    sheet_->setProperty("html", html + t.ink.name());
  }
}

} // namespace mavrel::app
