#include "app/stages/clearance/fits_page.h"

#include "app/desk/desk.h"
#include "app/stages/clearance/edits.h"
#include "build/names.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

namespace {
constexpr double inch = 0.0254;
constexpr double leaning = 0.0349065850; // rad, two degrees that the top may lean in further
} // namespace

FitsPage::FitsPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), answer_(desk.runner(), [this] { refresh(); }), chart_(new FitsChart(desk, this)),
      title_(new QLabel(this)), about_(new QLabel(this)), legend_(new QLabel(this)), take_(new QPushButton(this)),
      camber_(new QPushButton(this)), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(0);
  auto* layout = new QVBoxLayout;
  layout->setContentsMargins(0, 0, u, 0);
  layout->setSpacing(u / 2);
  auto* head = new QHBoxLayout;
  title_->setWordWrap(true);
  head->addWidget(title_, 1);
  camber_->setObjectName("lean_in");
  camber_->setCheckable(true);
  camber_->setText(tr("Camber up to 2° more"));
  camber_->setToolTip(tr("Let the top lean in further where that makes a fitting clear"));
  connect(camber_, &QPushButton::toggled, this, &FitsPage::ask);
  head->addWidget(camber_);
  layout->addLayout(head);
  layout->addWidget(chart_, 1);
  legend_->setProperty("quiet", true);
  legend_->setWordWrap(true);
  layout->addWidget(legend_);
  auto* foot = new QHBoxLayout;
  about_->setWordWrap(true);
  foot->addWidget(about_, 1);
  take_->setObjectName("take_fitting");
  take_->setText(tr("Take it as a variant"));
  connect(take_, &QPushButton::clicked, this, &FitsPage::take_over);
  foot->addWidget(take_);
  layout->addLayout(foot);
  whole->addLayout(layout, 1);
  whole->addWidget(beside_);
  connect(chart_, &FitsChart::chose, this, &FitsPage::refresh);
  connect(chart_, &FitsChart::taken, this, &FitsPage::take_over);
  for (const auto signal : {&Desk::changed, &Desk::looked_at})
    connect(&desk_, signal, this, &FitsPage::ask);
  connect(&desk_, &Desk::restyled, this, &FitsPage::refresh);
  refresh();
}

void FitsPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

void FitsPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  ask();
}

void FitsPage::ask() {
  if (!isVisible()) return;
  auto now = assess::usual_fits(desk_.answered(desk_.end()));
  if (!now) {
    if (answer_.was_asked()) answer_.forget();
    return refresh();
  }
  // Cells lie on sizes that rims are made in.
  const auto down = [](double v, double step) { return std::floor(v / step + 1e-9) * step; };
  now->width_low = down(now->width_low, 0.25 * inch);
  now->width_high = now->width_low + 6 * inch;
  now->offset_low = down(now->offset_low, 0.001);
  now->offset_high = now->offset_low + 0.080;
  if (camber_->isChecked()) now->camber_most = leaning;
  if (answer_.was_asked() && !answer_.keep_only_for(*now)) return;
  answer_.ask(*now);
}

void FitsPage::refresh() {
  const Look& look = desk_.look();
  title_->setFont(look.font(TextSize::normal));
  legend_->setFont(look.font(TextSize::small));
  const auto& answered = desk_.answered(desk_.end());
  const auto code = motion::parse_wheel(answered.given().clearance.given().wheel);
  const assess::WhatFits* fits = answer_.answer() && *answer_.answer() ? &**answer_.answer() : nullptr;
  chart_->show_fits(fits, code ? *code : motion::WheelCode{});
  if (!code)
    title_->setText(tr("Enter the tyre and wheel first."));
  else if (!fits)
    title_->setText(answer_.is_running() ? tr("Trying rims …")
                                         : tr("Nothing near the wheel has a place yet: add solids on Near the wheel."));
  else {
    std::size_t clear = 0;
    for (const auto& f : fits->fittings)
      clear += f.clears();
    title_->setText(tr("The tyre stays %1 on rims of every width and offset: %2 of %3 clear.")
                        .arg(QString::fromStdString(answered.given().clearance.given().wheel).section(' ', 0, 0))
                        .arg(clear)
                        .arg(fits->fittings.size()));
  }
  QStringList letters;
  if (fits)
    for (std::size_t w = 0; w < fits->what.size(); ++w)
      letters << QString("%1 %2").arg(chart_->letter_of(w), desk_.words_of(fits->what[w].told()));
  QStringList left_out;
  if (fits)
    for (const assess::Near& near : fits->left_out)
      left_out << desk_.words_of(near.told());
  if (fits)
    legend_->setText(
        tr("Letters say what has least room: %1. Looked at straight ahead from %2 to %3%4.")
            .arg(letters.join(", "), desk_.shown(fits->low, Kind::length), desk_.shown(fits->high, Kind::length),
                 fits->driven_from ? tr(", and at every lock from road height, %1, up")
                                         .arg(desk_.shown(*fits->driven_from, Kind::length))
                                   : QString()) +
        (left_out.isEmpty() ? QString()
                            : " " + tr("Not looked at, known by the tape alone: %1.").arg(left_out.join(", "))));
  else
    legend_->clear();
  take_->setEnabled(fits && chart_->chosen());
  if (!fits || !chart_->chosen()) {
    about_->setText(fits ? tr("Click a fitting, or use the arrows.") : QString());
    return;
  }
  const auto [o, w] = *chart_->chosen();
  const assess::Fitting& f = fits->at(o, w);
  QString text = tr("%1 in wide, ET%2: ").arg(f.rim_width / inch, 0, 'f', 2).arg(f.offset * 1e3, 0, 'f', 0);
  if (f.which == assess::not_listed)
    text += tr("nothing is near.");
  else {
    const QString near = desk_.words_of(fits->what[f.which].told());
    const QString where = f.lock == assess::Lock::straight ? tr("straight ahead")
                          : f.lock == assess::Lock::left   ? tr("at left lock")
                                                           : tr("at right lock");
    if (f.clears())
      text += tr("clears; least to spare is %1 at the %2, at %3 %4.")
                  .arg(desk_.shown(f.spare, Kind::length, 1), near, desk_.shown(f.height, Kind::length), where);
    else
      text += tr("does not clear the %1 at %2, %3.").arg(near, desk_.shown(f.height, Kind::length), where);
    if (f.camber > 0) text += " " + tr("With %1 more camber.").arg(desk_.shown(f.camber, Kind::angle, 1));
  }
  if (answered.given().clearance->lip)
    text += " " +
            (f.poke > 0 ? tr("Pokes %1 past the arch at road height.") : tr("Tucks %1 inside the arch at road height."))
                .arg(desk_.shown(std::abs(f.poke), Kind::length, 0));
  about_->setText(text);
}

void FitsPage::take_over() {
  const assess::WhatFits* fits = answer_.answer() && *answer_.answer() ? &**answer_.answer() : nullptr;
  if (!fits || !chart_->chosen()) return;
  const auto [o, w] = *chart_->chosen();
  const assess::Fitting& f = fits->at(o, w);
  const QString tyre =
      QString::fromStdString(desk_.answered(desk_.end()).given().clearance.given().wheel).section(' ', 0, 0);
  QString width = QString::number(f.rim_width / inch, 'f', 2);
  while (width.contains('.') && (width.endsWith('0') || width.endsWith('.')))
    width.chop(1);
  try_wheel(desk_, desk_.end(), QString("%1 %2 ET%3").arg(tyre, width).arg(std::lround(f.offset * 1e3)));
}

} // namespace mavrel::app
