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
    : Page(desk, parent), answer_(
                              desk.answers(), [this] { refresh(); }, [this] { return given(); }),
      chart_(new FitsChart(desk, this)) {
  follow(answer_);
  give_arrows_to(chart_);
  auto* head = row(column());
  title_ = words("fits_title", TextSize::normal);
  head->addWidget(title_, 1);
  camber_ = button(head, tr("Camber up to 2° more"), "lean_in");
  camber_->setCheckable(true);
  camber_->setToolTip(tr("Let the top lean in further where that makes a fitting clear"));
  connect(camber_, &QPushButton::toggled, this, &FitsPage::refresh);
  column()->addWidget(chart_, 1);
  legend_ = quiet();
  column()->addWidget(legend_);
  auto* foot = row(column());
  about_ = words("fits_about", TextSize::normal);
  foot->addWidget(about_, 1);
  take_ = button(foot, tr("Take it as a variant"), "take_fitting", [this] { take_over(); });
  connect(chart_, &FitsChart::chose, this, &FitsPage::refresh);
  connect(chart_, &FitsChart::taken, this, &FitsPage::take_over);
}

std::optional<assess::FitsGiven> FitsPage::given() const {
  auto out = assess::usual_fits(desk_.answered(desk_.end()));
  if (!out) return std::nullopt;
  // Cells lie on sizes that rims are made in.
  const auto down = [](double v, double step) { return std::floor(v / step + 1e-9) * step; };
  out->width_low = down(out->width_low, 0.25 * inch);
  out->width_high = out->width_low + 6 * inch;
  out->offset_low = down(out->offset_low, 0.001);
  out->offset_high = out->offset_low + 0.080;
  if (camber_->isChecked()) out->camber_most = leaning;
  return out;
}

const assess::Fitting* FitsPage::chosen() const {
  const assess::WhatFits* fits = answer_.value();
  if (!fits || !chart_->chosen()) return nullptr;
  return &fits->at(chart_->chosen()->first, chart_->chosen()->second);
}

QString FitsPage::title(const assess::WhatFits* fits) const {
  const auto& wheel = desk_.answered(desk_.end()).given().clearance.given().wheel;
  if (!motion::parse_wheel(wheel)) return tr("Enter the tyre and wheel first.");
  if (const auto trouble = answer_.trouble()) return desk_.words_of(*trouble);
  if (!fits)
    return answer_.is_running() ? tr("Trying rims …")
                                : tr("Nothing near the wheel has a place yet: add solids on Near the wheel.");
  const auto clear =
      std::count_if(fits->fittings.begin(), fits->fittings.end(), [](const auto& f) { return f.clears(); });
  return tr("The tyre stays %1 on rims of every width and offset: %2 of %3 clear.")
      .arg(QString::fromStdString(wheel).section(' ', 0, 0))
      .arg(clear)
      .arg(fits->fittings.size());
}

QString FitsPage::legend(const assess::WhatFits& fits) const {
  QStringList letters, left_out;
  for (std::size_t w = 0; w < fits.what.size(); ++w)
    letters << QString("%1 %2").arg(chart_->letter_of(w), desk_.words_of(fits.what[w].told()));
  for (const assess::Near& near : fits.left_out)
    left_out << desk_.words_of(near.told());
  const QString out =
      tr("Letters say what has least room: %1. Looked at straight ahead from %2 to %3%4.")
          .arg(
              letters.join(", "), desk_.shown(fits.low, Kind::length), desk_.shown(fits.high, Kind::length),
              fits.driven_from
                  ? tr(", and at every lock from road height, %1, up").arg(desk_.shown(*fits.driven_from, Kind::length))
                  : QString());
  return left_out.isEmpty() ? out
                            : out + " " + tr("Not looked at, known by the tape alone: %1.").arg(left_out.join(", "));
}

QString FitsPage::about(const assess::WhatFits& fits, const assess::Fitting& f) const {
  QString out = tr("%1 in wide, ET%2: ").arg(f.rim_width / inch, 0, 'f', 2).arg(f.offset * 1e3, 0, 'f', 0);
  if (f.which == assess::not_listed) {
    out += tr("nothing is near.");
  } else {
    const QString near = desk_.words_of(fits.what[f.which].told());
    const QString where = f.lock == assess::Lock::straight ? tr("straight ahead")
                          : f.lock == assess::Lock::left   ? tr("at left lock")
                                                           : tr("at right lock");
    out += f.clears()
               ? tr("clears; least to spare is %1 at the %2, at %3 %4.")
                     .arg(desk_.shown(f.spare, Kind::length, 1), near, desk_.shown(f.height, Kind::length), where)
               : tr("does not clear the %1 at %2, %3.").arg(near, desk_.shown(f.height, Kind::length), where);
    if (f.camber > 0) out += " " + tr("With %1 more camber.").arg(desk_.shown(f.camber, Kind::angle, 1));
  }
  if (desk_.answered(desk_.end()).given().clearance->lip)
    out += " " +
           (f.poke > 0 ? tr("Pokes %1 past the arch at road height.") : tr("Tucks %1 inside the arch at road height."))
               .arg(desk_.shown(std::abs(f.poke), Kind::length, 0));
  return out;
}

void FitsPage::fill() {
  const assess::WhatFits* fits = answer_.value();
  const auto code = motion::parse_wheel(desk_.answered(desk_.end()).given().clearance.given().wheel);
  chart_->show_fits(fits, code ? *code : motion::WheelCode{});
  title_->setText(title(fits));
  legend_->setText(fits ? legend(*fits) : QString());
  const assess::Fitting* held = chosen();
  take_->setEnabled(held);
  about_->setText(!fits ? QString() : held ? about(*fits, *held) : tr("Click a fitting, or use the arrows."));
}

void FitsPage::take_over() {
  const assess::Fitting* f = chosen();
  if (!f) return;
  const QString tyre =
      QString::fromStdString(desk_.answered(desk_.end()).given().clearance.given().wheel).section(' ', 0, 0);
  QString width = QString::number(f->rim_width / inch, 'f', 2);
  while (width.contains('.') && (width.endsWith('0') || width.endsWith('.')))
    width.chop(1);
  try_wheel(desk_, desk_.end(), QString("%1 %2 ET%3").arg(tyre, width).arg(std::lround(f->offset * 1e3)));
}

} // namespace mavrel::app
