#include "app/stages/leveling/store_page.h"

#include "app/kit/list_table.h"
#include "link/bench_line.h"
#include "quantity/quantity.h"

#include <QHeaderView>
#include <QLabel>
#include <QVBoxLayout>

namespace mavrel::app {

StorePage::StorePage(Desk& desk, QWidget* parent)
    : Page(desk, parent), answer_(
                              desk.answers(), [this] { refresh(); }, [this] { return leveling_of(desk_); }) {
  follow(answer_);
  presets_head_ = heading(tr("What the car reads at each preset"));
  presets_ = table("stored", tr("Presets to store"),
                   {tr("preset"), tr("front"), tr("rear"), tr("FL"), tr("FR"), tr("RL"), tr("RR"), tr("counts front"),
                    tr("counts rear")});
  bursts_head_ = heading(tr("What bursts buy at road height"));
  bursts_ =
      table("bursts", tr("What bursts buy"),
            {tr("circuit"), tr("fills for"), tr("lifts"), tr("pressure"), tr("vents for"), tr("lowers"), tr("pressure"),
             tr("neighbours, lifting, %1").arg(QString::fromStdString(unit_name(Kind::length, desk.prefs())))});
  for (QWidget* one : std::initializer_list<QWidget*>{presets_head_, presets_, bursts_head_, bursts_})
    column()->addWidget(one);
  auto* both = new QWidget(this);
  auto* told = new QHBoxLayout(both);
  told->setContentsMargins(0, 0, 0, 0);
  told->setSpacing(3 * desk_.look().unit());
  before_ = rich_words("must_be_true");
  steps_ = rich_words("steps_to_store");
  for (QLabel* label : {before_, steps_}) {
    dress(label, TextSize::normal);
    told->addWidget(label, label == before_ ? 2 : 3);
  }
  column()->addWidget(scrolled(both, this), 1);
}

void StorePage::fill_presets(const assess::Calibration& c) {
  const Tokens& t = desk_.look().tokens();
  presets_->fill(c.presets.size(), [&](std::size_t r, ListTable::Row& row) {
    const assess::StoredPreset& p = c.presets[r];
    const QColor ink = p.trouble ? t.stop : t.ink;
    const QString about = p.trouble ? tr(", can't stand there") : p.on_stop ? tr(", on its stops") : QString();
    row.words(QString("%1. %2%3").arg(r + 1).arg(QString::fromStdString(p.name), about), ink);
    if (p.trouble) row.tip(desk_.words_of(*p.trouble));
    for (const double H : p.height)
      row.figure(desk_.shown(H, Kind::length), ink);
    for (const double pressure : p.pressure)
      row.figure(p.trouble ? QString("–") : desk_.shown(pressure, Kind::pressure, 2), ink);
    for (const std::size_t end : {0U, 1U}) {
      const auto &left = p.counts[2 * end], &right = p.counts[2 * end + 1];
      QString text = left ? QString::number(std::lround(*left)) : QString("–");
      if (left && right && std::lround(*left) != std::lround(*right))
        text += " / " + QString::number(std::lround(*right));
      row.figure(text, ink);
    }
  });
}

void StorePage::fill_bursts(const assess::Calibration& c) {
  const Tokens& t = desk_.look().tokens();
  bursts_->fill(c.bursts.size(), [&](std::size_t r, ListTable::Row& row) {
    const control::LearnedBurst& b = c.bursts[r];
    const auto& corners = c.circuits[r];
    row.words(corners.size() == 1 ? QString(link::corner_key(corners.front())) : tr(assess::circuit_name(corners)),
              t.ink);
    for (const control::BurstBuys* buys : {&b.up, &b.down})
      row.figure(desk_.shown(buys->seconds, Kind::time, 1), t.ink)
          .figure(desk_.shown(buys->height, Kind::length, 1), t.ink)
          .figure(desk_.shown(buys->pressure, Kind::pressure, 2), t.ink);
    QStringList others;
    for (std::size_t k = 0; k < 4; ++k)
      if (std::find(corners.begin(), corners.end(), k) == corners.end())
        others << QString("%1 %2").arg(
            link::corner_key(k),
            QString::fromStdString(show_parts(b.up.corners[k], Kind::length, desk_.prefs(), 1).number));
    row.words(others.join("  "), t.second);
  });
}

void StorePage::fill() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const assess::Calibration* c = calibration();
  for (QWidget* widget : std::initializer_list<QWidget*>{presets_head_, bursts_head_, presets_, bursts_, steps_})
    widget->setVisible(c != nullptr);
  if (!c) {
    presets_->setRowCount(0);
    bursts_->setRowCount(0);
    return before_->setText(why_not(desk_, answer_, tr("Standing the car at each preset …")).toHtmlEscaped());
  }
  fill_presets(*c);
  fill_bursts(*c);
  for (ListTable* table : {presets_, bursts_}) { // as tall as their rows; many scroll
    table->verticalHeader()->setMinimumSectionSize(look.px(20));
    table->verticalHeader()->setDefaultSectionSize(look.px(23));
    table->setFixedHeight(look.px(36 + 24 * std::clamp(table->rowCount(), 1, 6)));
  }
  const auto list = [&](const QString& head, const std::vector<assess::CalibrationStep>& steps, const char* tag) {
    QString out = QString("<b>%1</b><%2 style='margin-left:14px;-qt-list-indent:0'>").arg(head.toHtmlEscaped(), tag);
    for (const assess::CalibrationStep& step : steps)
      out += QString("<li>%1.<br><span style='color:%3'>%2</span></li>")
                 .arg(desk_.words_of(step.what).toHtmlEscaped(), desk_.words_of(step.why).toHtmlEscaped(),
                      t.second.name());
    return out + QString("</%1>").arg(tag);
  };
  before_->setText(list(tr("Before"), c->before, "ul"));
  steps_->setText(list(tr("Then, in this order"), c->steps, "ol"));
}

} // namespace mavrel::app
