#include "app/stages/leveling/store_page.h"

#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"
#include "link/bench_line.h"
#include "quantity/quantity.h"

#include <QHeaderView>
#include <QLabel>
#include <QVBoxLayout>

namespace mavrel::app {

StorePage::StorePage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), answer_(desk.runner(), [this] { refresh(); }), before_(new QLabel(this)),
      steps_(new QLabel(this)), presets_head_(new QLabel(tr("What the car reads at each preset"), this)),
      bursts_head_(new QLabel(tr("What bursts buy at road height"), this)),
      presets_(list_table("stored", tr("Presets to store"),
                          {tr("preset"), tr("front"), tr("rear"), tr("FL"), tr("FR"), tr("RL"), tr("RR"),
                           tr("counts front"), tr("counts rear")},
                          this)),
      bursts_(list_table(
          "bursts", tr("What bursts buy"),
          {tr("circuit"), tr("fills for"), tr("lifts"), tr("pressure"), tr("vents for"), tr("lowers"), tr("pressure"),
           tr("neighbours, lifting, %1").arg(QString::fromStdString(unit_name(Kind::length, desk.prefs())))},
          this)),
      beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(0);
  auto* layout = new QVBoxLayout;
  layout->setContentsMargins(0, 0, u, 0);
  layout->setSpacing(u / 2);
  whole->addLayout(layout, 1);
  whole->addWidget(beside_);
  layout->addWidget(presets_head_);
  layout->addWidget(presets_);
  layout->addWidget(bursts_head_);
  layout->addWidget(bursts_);
  auto* words = new QWidget(this);
  auto* told = new QHBoxLayout(words);
  told->setContentsMargins(0, 0, 0, 0);
  told->setSpacing(3 * u);
  for (QLabel* label : {before_, steps_}) {
    label->setWordWrap(true);
    label->setTextFormat(Qt::RichText);
    label->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    told->addWidget(label, label == before_ ? 2 : 3);
  }
  before_->setObjectName("must_be_true");
  steps_->setObjectName("steps_to_store");
  layout->addWidget(scrolled(words, this), 1);
  for (const auto signal : {&Desk::changed, &Desk::looked_at})
    connect(&desk_, signal, this, &StorePage::ask);
  connect(&desk_, &Desk::restyled, this, &StorePage::refresh);
  refresh();
}

void StorePage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

void StorePage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  ask();
}

const assess::Calibration* StorePage::calibration() const {
  return answer_.answer() && *answer_.answer() && **answer_.answer() ? &***answer_.answer() : nullptr;
}

void StorePage::ask() {
  if (!isVisible()) return;
  assess::LevelingGiven now = leveling_of(desk_);
  if (!answer_.was_asked() || answer_.keep_only_for(now)) return answer_.ask(std::move(now));
  refresh();
}

void StorePage::refresh() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  for (QLabel* head : {presets_head_, bursts_head_})
    head->setFont(look.font(TextSize::normal, true));
  for (QLabel* label : {before_, steps_})
    label->setFont(look.font());
  for (QTableWidget* table : {presets_, bursts_}) {
    table->setFont(look.font(TextSize::small));
    table->setWordWrap(false);
    table->verticalHeader()->setMinimumSectionSize(look.px(20));
    table->verticalHeader()->setDefaultSectionSize(look.px(23));
  }
  const assess::Calibration* c = calibration();
  for (QWidget* widget : std::initializer_list<QWidget*>{presets_head_, bursts_head_, presets_, bursts_, steps_})
    widget->setVisible(c != nullptr);
  if (!c) {
    presets_->setRowCount(0);
    bursts_->setRowCount(0);
    before_->setText(why_not(desk_, answer_, tr("Standing the car at each preset …")).toHtmlEscaped());
    return;
  }
  presets_->setRowCount(static_cast<int>(c->presets.size()));
  for (int r = 0; r < static_cast<int>(c->presets.size()); ++r) {
    const assess::StoredPreset& p = c->presets[static_cast<std::size_t>(r)];
    const QColor ink = p.trouble ? t.stop : t.ink;
    const QString about = p.trouble ? tr(", can't stand there") : p.on_stop ? tr(", on its stops") : QString();
    put_cell(presets_, r, 0, QString("%1. %2%3").arg(r + 1).arg(QString::fromStdString(p.name), about), ink);
    if (p.trouble) presets_->item(r, 0)->setToolTip(desk_.words_of(*p.trouble));
    put_cell(presets_, r, 1, desk_.shown(p.height[0], Kind::length), ink);
    put_cell(presets_, r, 2, desk_.shown(p.height[1], Kind::length), ink);
    for (int k = 0; k < 4; ++k)
      put_cell(presets_, r, 3 + k,
               p.trouble ? QString("–") : desk_.shown(p.pressure[static_cast<std::size_t>(k)], Kind::pressure, 2), ink);
    for (const std::size_t end : {0U, 1U}) {
      const auto &l = p.counts[2 * end], &rr = p.counts[2 * end + 1];
      QString text = l ? QString::number(std::lround(*l)) : QString("–");
      if (l && rr && std::lround(*l) != std::lround(*rr)) text += " / " + QString::number(std::lround(*rr));
      put_cell(presets_, r, 7 + static_cast<int>(end), text, ink);
    }
  }
  bursts_->setRowCount(static_cast<int>(c->bursts.size()));
  for (QTableWidget* table : {presets_, bursts_}) // as tall as their rows; many scroll
    table->setFixedHeight(look.px(36 + 24 * std::clamp(table->rowCount(), 1, 6)));
  for (int r = 0; r < static_cast<int>(c->bursts.size()); ++r) {
    const control::LearnedBurst& b = c->bursts[static_cast<std::size_t>(r)];
    const auto& corners = c->circuits[static_cast<std::size_t>(r)];
    put_cell(bursts_, r, 0,
             corners.size() == 1 ? QString(link::corner_key(corners.front())) : tr(assess::circuit_name(corners)),
             t.ink);
    int column = 1;
    for (const control::BurstBuys* buys : {&b.up, &b.down}) {
      put_cell(bursts_, r, column++, desk_.shown(buys->seconds, Kind::time, 1), t.ink);
      put_cell(bursts_, r, column++, desk_.shown(buys->height, Kind::length, 1), t.ink);
      put_cell(bursts_, r, column++, desk_.shown(buys->pressure, Kind::pressure, 2), t.ink);
    }
    QStringList others;
    for (std::size_t k = 0; k < 4; ++k)
      if (std::find(corners.begin(), corners.end(), k) == corners.end())
        others << QString("%1 %2").arg(
            link::corner_key(k),
            QString::fromStdString(show_parts(b.up.corners[k], Kind::length, desk_.prefs(), 1).number));
    put_cell(bursts_, r, column, others.join("  "), t.second, true);
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
