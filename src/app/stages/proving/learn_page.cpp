#include "app/stages/proving/learn_page.h"

#include "app/checks/signer.h"
#include "app/desk/clock.h"
#include "app/kit/list_table.h"
#include "app/theme/text_line.h"

#include <QComboBox>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

using assess::LearnedFigure;

namespace {

QString figure_shown(const Desk& desk, const LearnedFigure& f, double value) {
  return desk.shown(value, f.kind, f.kind == Kind::share ? 1 : 0);
}

QString verdict(const LearnedFigure& f) {
  if (f.too_far) return Desk::tr("beyond its doubt: look for a mistake or a fault first");
  if (!f.told) return Desk::tr("these figures say nothing of it: it stays");
  if (f.blurred.empty()) return Desk::tr("learned");
  QStringList others;
  for (const std::string& key : f.blurred)
    others << (key.ends_with(".ratio")      ? Desk::tr("the motion ratio")
               : key.ends_with(".area")     ? Desk::tr("the bag’s area")
               : key.ends_with(".friction") ? Desk::tr("friction")
                                            : Desk::tr("flow"));
  return Desk::tr("learned, though not told apart from %1").arg(others.join(", "));
}

} // namespace

LearnedPlot::LearnedPlot(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("learned_plot");
}

void LearnedPlot::show_learning(const assess::Learning* learning) {
  figures_ = learning ? learning->figures : std::vector<LearnedFigure>{};
  const Look& look = desk_.look();
  setFixedHeight(figures_.empty() ? 0 : look.px(26) + static_cast<int>(figures_.size()) * look.px(26));
  QStringList said;
  for (const LearnedFigure& f : figures_)
    said << QString("%1 %2").arg(desk_.words_of(f.name), figure_shown(desk_, f, f.is));
  setAccessibleName(said.join(", "));
  update();
}

void LearnedPlot::paintEvent(QPaintEvent*) {
  if (figures_.empty()) return;
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const double name = look.px(210), figure = look.px(150), left = name, right = width() - figure;
  constexpr double most = 3.2; // doubts either way
  const auto x = [&](double doubts) {
    return (left + right) / 2 + std::clamp(doubts, -most, most) / most * (right - left) / 2;
  };
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  draw_line(painter, {left, 0, right - left, double(look.px(18))}, Qt::AlignCenter, tr("design"));
  draw_line(painter, {left, 0, right - left, double(look.px(18))}, Qt::AlignLeft | Qt::AlignVCenter, tr("less"));
  draw_line(painter, {left, 0, right - left, double(look.px(18))}, Qt::AlignRight | Qt::AlignVCenter, tr("more"));
  for (std::size_t i = 0; i < figures_.size(); ++i) {
    const LearnedFigure& f = figures_[i];
    const double y = look.px(26) + look.px(26) * static_cast<double>(i) + look.px(12);
    const bool flow = f.what == assess::Learns::flow, front = flow ? f.corner < 2 : f.end == End::front;
    const QColor ink = t.end(front ? End::front : End::rear);
    painter.setPen(t.ink);
    draw_line(painter, {0, y - look.px(12), name - 8, double(look.px(24))}, Qt::AlignLeft | Qt::AlignVCenter,
              painter.fontMetrics().elidedText(desk_.words_of(f.name), Qt::ElideRight, static_cast<int>(name) - 10));
    // Its doubt before: as far as twice either way; within it is what it may be learned to.
    QColor doubt = t.rule;
    painter.fillRect(QRectF(x(-2), y - 6, x(2) - x(-2), 12), doubt);
    painter.setPen(QPen(t.second, 1));
    painter.drawLine(QPointF(x(0), y - 9), QPointF(x(0), y + 9));
    const double sd = f.was_sd / f.designed;
    const double at = std::log(f.is / f.designed) / sd, spread = f.is_sd / f.is / sd;
    painter.setPen(QPen(f.told && !f.too_far ? ink : t.second, 2));
    painter.drawLine(QPointF(x(at - 2 * spread), y), QPointF(x(at + 2 * spread), y));
    painter.setBrush(f.told && !f.too_far ? QBrush(ink) : QBrush(Qt::NoBrush));
    if (f.too_far)
      painter.drawRect(QRectF(x(at) - 4, y - 4, 8, 8));
    else
      painter.drawEllipse(QPointF(x(at), y), 4.5, 4.5);
    painter.setPen(t.ink);
    draw_line(painter, {right + 8, y - look.px(12), figure - 8, double(look.px(24))}, Qt::AlignRight | Qt::AlignVCenter,
              QString("%1 ± %2").arg(figure_shown(desk_, f, f.is), figure_shown(desk_, f, 2 * f.is_sd)));
  }
}

LearnPage::LearnPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), by_(new QComboBox(this)), plot_(new LearnedPlot(desk, this)) {
  auto& asked = desk_.answers().of_the_car<LearnQuestion>();
  keep_up(asked);
  QLabel* summary = words(nullptr, TextSize::normal);
  summary->setText(tr("Pressures at road height, times of single corners and the bag’s height where the stop meets say "
                      "something of this very car. Each figure moves within its doubt only, and you agree to each."));
  column()->addWidget(summary);
  auto* line = row(column());
  work_out_ = button(line, tr("Work it out"), "learn", [&asked] { asked.ask(); });
  line->addStretch(1);
  dress_signer(*by_, "learned_by");
  line->addWidget(by_);
  take_ = button(line, tr("Let predictions follow"), "take_learned", [this] { take(); });
  forget_ = button(line, tr("Forget it"), "forget_learned", [this] { forget(); });
  said_ = words("learned_words", TextSize::normal);
  column()->addWidget(said_);
  column()->addWidget(plot_);
  figures_ = table("learned_figures", tr("What could be learned"),
                   {tr("figure"), tr("predictions go by"), tr("what its figures say")});
  column()->addWidget(figures_, 3);
  from_ = table("learned_from", tr("What it is learned from"),
                {tr("measured figure"), tr("predicted"), tr("measured"), tr("predicted then")});
  column()->addWidget(from_, 4);
  kept_ = quiet();
  column()->addWidget(kept_);
}

void LearnPage::forget() {
  build::Build build = assess::without_learned(desk_.build());
  build.variant().proving.own().learned.clear();
  desk_.edit(tr("Forget what was learned"), std::move(build));
}

void LearnPage::take() {
  const assess::Learning* learned = desk_.answers().of_the_car<LearnQuestion>().value();
  if (!learned) return;
  std::vector<std::string> keys;
  for (int r = 0; r < figures_->rowCount(); ++r)
    if (figures_->item(r, 0)->checkState() == Qt::Checked)
      keys.push_back(figures_->item(r, 0)->data(Qt::UserRole).toString().toStdString());
  if (keys.empty()) return desk_.tell(tr("No figure is ticked."));
  desk_.edit(tr("Let predictions follow this car"),
             assess::with_learned(desk_.build(), *learned, keys, by_->currentText().trimmed().left(40).toStdString(),
                                  work::moment_text(clock_now())));
  desk_.tell(tr("Predictions follow this car now, figures learned: %1. Undo takes it back.").arg(keys.size()));
}

QString LearnPage::said() const {
  const auto& asked = desk_.answers().of_the_car<LearnQuestion>();
  const assess::Learning* learned = asked.value();
  if (asked.is_running()) return tr("Worked out beside …");
  if (const auto trouble = asked.trouble()) return desk_.words_of(*trouble);
  if (!learned)
    return assess::has_learned(desk_.build().variant())
               ? tr("Predictions follow this car already; what is measured since can be worked out again.")
               : QString();
  if (!learned->any())
    return tr(
        "Nothing is learned: the figures tell nothing of the car beyond its doubt, or lie so far off that something "
        "is wrong first.");
  return tr("After it, measured and predicted lie %1 doubts apart in the mean.")
      .arg(std::sqrt(learned->misfit), 0, 'f', 1);
}

/// What predictions follow already.
QString LearnPage::kept() const {
  QStringList kept;
  for (const Message& m : assess::hand_over(proving_of(desk_), {}, std::nullopt).learned)
    kept << desk_.words_of(m);
  if (kept.isEmpty()) return {};
  const auto& last = desk_.build().variant().proving->learned.back();
  return tr("Learned, last by %1 on %2: %3.")
      .arg(QString::fromStdString(last.by), QString::fromStdString(last.day), kept.join("; "));
}

void LearnPage::fill() {
  show_signers(*by_, desk_);
  const auto& asked = desk_.answers().of_the_car<LearnQuestion>();
  const assess::Learning* learned = asked.value();
  work_out_->setEnabled(!asked.is_running());
  forget_->setEnabled(assess::has_learned(desk_.build().variant()));
  said_->setText(said());
  said_->setVisible(!said_->text().isEmpty());
  plot_->show_learning(learned);
  take_->setEnabled(learned && learned->any());
  figures_->setVisible(learned);
  from_->setVisible(learned);
  if (learned) fill_figures(*learned), fill_from(*learned);
  kept_->setText(kept());
  kept_->setVisible(!kept_->text().isEmpty());
}

void LearnPage::fill_figures(const assess::Learning& learned) {
  const Tokens& t = desk_.look().tokens();
  // Whoever declined a figure has declined it, whatever else comes in meanwhile.
  QStringList declined;
  for (int r = 0; r < figures_->rowCount(); ++r)
    if (const auto* item = figures_->item(r, 0);
        item->data(Qt::CheckStateRole).isValid() && item->checkState() == Qt::Unchecked)
      declined << item->data(Qt::UserRole).toString();
  figures_->fill(learned.figures.size(), [&](std::size_t r, ListTable::Row& row) {
    const LearnedFigure& f = learned.figures[r];
    const bool may = f.told && !f.too_far;
    const QString key = QString::fromStdString(f.key);
    row.words(desk_.words_of(f.name), may ? t.ink : t.second);
    row.figure(figure_shown(desk_, f, f.was), t.ink).words(verdict(f), f.too_far ? t.caution : t.second);
    auto* item = figures_->item(static_cast<int>(r), 0);
    item->setFlags(may ? item->flags() | Qt::ItemIsUserCheckable : item->flags() & ~Qt::ItemIsUserCheckable);
    item->setData(Qt::UserRole, key);
    item->setData(Qt::CheckStateRole,
                  may ? QVariant(declined.contains(key) ? Qt::Unchecked : Qt::Checked) : QVariant());
  });
}

void LearnPage::fill_from(const assess::Learning& learned) {
  const Tokens& t = desk_.look().tokens();
  from_->fill(learned.from.size(), [&](std::size_t r, ListTable::Row& row) {
    const assess::LearnedFrom& f = learned.from[r];
    const int digits = f.kind == Kind::length ? 1 : 2;
    row.words(desk_.words_of(f.name), t.ink)
        .figure(desk_.shown(f.before, f.kind, digits), t.second)
        .figure(desk_.shown(f.measured, f.kind, digits), t.ink)
        .figure(desk_.shown(f.after, f.kind, digits), t.ink);
  });
}

} // namespace mavrel::app
