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

HandPage::HandPage(Desk& desk, ProvingAnswers& answers, QWidget* parent)
    : PlainPage(desk, parent), answers_(answers), summary_(new QLabel(this)), sheet_(new QTextBrowser(this)),
      hand_(new QPushButton(tr("Handed over today"), this)), owner_(new QPushButton(tr("Owner’s sheet …"), this)),
      shop_(new QPushButton(tr("Shop’s sheet …"), this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const both = column();
  summary_->setObjectName("hand_summary");
  summary_->setWordWrap(true);
  both->addWidget(summary_);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  row->addWidget(new Field(desk, "@.proving.to", tr("handed over to"), this), 2);
  row->addWidget(new Field(desk, "@.proving.handed_over", tr("on"), this), 1);
  hand_->setObjectName("hand_over");
  row->addWidget(hand_, 0, Qt::AlignBottom);
  row->addStretch(1);
  owner_->setObjectName("owner_sheet");
  row->addWidget(owner_, 0, Qt::AlignBottom);
  shop_->setObjectName("shop_sheet");
  row->addWidget(shop_, 0, Qt::AlignBottom);
  both->addLayout(row);
  auto* words = new QHBoxLayout;
  words->setSpacing(u);
  words->addWidget(new Field(desk, "@.proving.listen", tr("what to listen for besides"), this), 1);
  words->addWidget(new Field(desk, "@.proving.inspect", tr("what the inspection must see besides"), this), 1);
  both->addLayout(words);
  sheet_->setObjectName("owner_preview");
  sheet_->setAccessibleName(tr("The owner’s sheet"));
  sheet_->setOpenLinks(false);
  both->addWidget(sheet_, 1);
  connect(hand_, &QPushButton::clicked, this, &HandPage::hand_over);
  for (auto [button, sheet, name] :
       {std::tuple(owner_, Sheet::owner, tr("Owner’s sheet")), std::tuple(shop_, Sheet::shop, tr("Shop’s sheet"))})
    connect(button, &QPushButton::clicked, this, [this, sheet, name] {
      const QString to = QFileDialog::getSaveFileName(this, name, {}, tr("PDF (*.pdf)"));
      if (!to.isEmpty()) write(sheet, to);
    });
  connect(&answers_, &ProvingAnswers::changed, this, &HandPage::refresh);
  refresh();
}

void HandPage::hand_over() {
  // What is not proved is not handed over.
  const assess::HandOver over = answers_.hand_over();
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
  const assess::HandOver over = answers_.hand_over();
  const auto sheets = report::hand_over_sheets(desk_.build(), answers_.given(), over, answers_.proofs(), desk_.prefs(),
                                               work::day_text(clock_now().day));
  const build::Job& job = desk_.build().job;
  const auto pages = write_job_sheets(
      sheet == Sheet::owner ? sheets.owner : sheets.shop,
      QString::fromStdString(job.number.empty() ? job.car : job.number + " · " + job.car), to.toStdString());
  desk_.tell(pages ? tr("Written: %1").arg(to) : desk_.words_of(pages.error()));
  return pages.has_value();
}

void HandPage::fill() {
  const Tokens& t = desk_.look().tokens();
  const assess::HandOver over = answers_.hand_over();
  QString text;
  if (over.proofs.empty())
    text = tr("Nothing is to be handed over yet: choose bags in Bags and a kit in Air.");
  else if (over.all_proved())
    text = tr("✓ All %1 proofs stand.").arg(over.proofs.size());
  else {
    QStringList open;
    for (const assess::HandedProof& p : over.proofs)
      if (p.state != assess::CheckState::passed && open.size() < 4) open << desk_.words_of(p.name);
    const auto left = over.proofs.size() - over.proved;
    text = tr("■ %1 of %2 proofs stand. Not to be handed over before: %3%4")
               .arg(over.proved)
               .arg(over.proofs.size())
               .arg(open.join(", "), left > static_cast<std::size_t>(open.size())
                                         ? tr(" and %1 more.").arg(left - open.size())
                                         : QString("."));
  }
  summary_->setText(text);
  QPalette palette = summary_->palette();
  palette.setColor(QPalette::WindowText, over.all_proved() ? t.good : t.stop);
  summary_->setPalette(palette);
  const auto sheets = report::hand_over_sheets(desk_.build(), answers_.given(), over, answers_.proofs(), desk_.prefs(),
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
