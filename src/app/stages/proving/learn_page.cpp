#include "app/stages/proving/learn_page.h"

#include "app/desk/clock.h"
#include "app/kit/list_table.h"
#include "app/kit/signer.h"
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

QString verdict(const Desk& desk, const LearnedFigure& f) {
  if (f.too_far) return Desk::tr("beyond its doubt: look for a mistake or a fault first");
  if (!f.told) return Desk::tr("these figures say nothing of it: it stays");
  if (f.blurred.empty()) return Desk::tr("learned");
  Q_UNUSED(desk);
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

LearnPage::LearnPage(Desk& desk, ProvingAnswers& answers, QWidget* parent)
    : PlainPage(desk, parent), answers_(answers), summary_(new QLabel(this)), said_(new QLabel(this)),
      kept_(new QLabel(this)), work_out_(new QPushButton(tr("Work it out"), this)),
      take_(new QPushButton(tr("Let predictions follow"), this)), forget_(new QPushButton(tr("Forget it"), this)),
      by_(new QComboBox(this)), plot_(new LearnedPlot(desk, this)),
      figures_(list_table("learned_figures", tr("What could be learned"),
                          {tr("figure"), tr("predictions go by"), tr("what its figures say")}, this)),
      from_(list_table("learned_from", tr("What it is learned from"),
                       {tr("measured figure"), tr("predicted"), tr("measured"), tr("predicted then")}, this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const both = column();
  for (QTableWidget* table : {figures_, from_})
    table->setWordWrap(false);
  summary_->setWordWrap(true);
  both->addWidget(summary_);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  work_out_->setObjectName("learn");
  row->addWidget(work_out_);
  row->addStretch(1);
  dress_signer(*by_, "learned_by");
  row->addWidget(by_);
  take_->setObjectName("take_learned");
  row->addWidget(take_);
  forget_->setObjectName("forget_learned");
  row->addWidget(forget_);
  both->addLayout(row);
  said_->setWordWrap(true);
  both->addWidget(said_);
  both->addWidget(plot_);
  both->addWidget(figures_, 3);
  both->addWidget(from_, 4);
  kept_->setWordWrap(true);
  kept_->setProperty("quiet", true);
  both->addWidget(kept_);
  connect(work_out_, &QPushButton::clicked, &answers_, &ProvingAnswers::learn);
  connect(take_, &QPushButton::clicked, this, &LearnPage::take);
  connect(forget_, &QPushButton::clicked, this, [this] {
    build::Build build = assess::without_learned(desk_.build());
    build.variant().proving.own().learned.clear();
    desk_.edit(tr("Forget what was learned"), std::move(build));
  });
  connect(&answers_, &ProvingAnswers::changed, this, &LearnPage::refresh);
  refresh();
}

void LearnPage::take() {
  const auto* learned = answers_.learned();
  if (!learned || !*learned) return;
  std::vector<std::string> keys;
  for (int r = 0; r < figures_->rowCount(); ++r)
    if (figures_->item(r, 0)->checkState() == Qt::Checked)
      keys.push_back((*learned)->figures[static_cast<std::size_t>(r)].key);
  if (keys.empty()) return desk_.tell(tr("No figure is ticked."));
  desk_.edit(tr("Let predictions follow this car"),
             assess::with_learned(desk_.build(), **learned, keys, by_->currentText().trimmed().left(40).toStdString(),
                                  work::moment_text(clock_now())));
  desk_.tell(tr("Predictions follow this car now, figures learned: %1. Undo takes it back.").arg(keys.size()));
}

void LearnPage::fill() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  for (QTableWidget* table : {figures_, from_})
    table->setFont(look.font(TextSize::small));
  show_signers(*by_, desk_);
  const auto* learned = answers_.learned();
  const bool any = assess::has_learned(desk_.build().variant());
  summary_->setText(
      tr("Pressures at road height, times of single corners and the bag’s height where the stop meets say "
         "something of this very car. Each figure moves within its doubt only, and you agree to each."));
  work_out_->setEnabled(!answers_.learning());
  forget_->setEnabled(any);
  QString said;
  if (answers_.learning())
    said = tr("Worked out beside …");
  else if (!learned)
    said = any ? tr("Predictions follow this car already; what is measured since can be worked out anew.") : QString();
  else if (!*learned)
    said = desk_.words_of(learned->error());
  else if (!(*learned)->any())
    said =
        tr("Nothing is learned: the figures tell nothing of the car beyond its doubt, or lie so far off that something "
           "is wrong first.");
  else
    said = tr("After it, measured and predicted lie %1 doubts apart in the mean.")
               .arg(std::sqrt((*learned)->misfit), 0, 'f', 1);
  said_->setText(said);
  said_->setVisible(!said.isEmpty());
  const bool there = learned && *learned;
  plot_->show_learning(there ? &**learned : nullptr);
  take_->setEnabled(there && (*learned)->any());
  figures_->setVisible(there);
  from_->setVisible(there);
  if (there) {
    const auto& all = (*learned)->figures;
    figures_->setRowCount(static_cast<int>(all.size()));
    for (int r = 0; r < figures_->rowCount(); ++r) {
      const LearnedFigure& f = all[static_cast<std::size_t>(r)];
      const bool may = f.told && !f.too_far;
      put_cell(figures_, r, 0, desk_.words_of(f.name), may ? t.ink : t.second);
      auto* item = figures_->item(r, 0);
      item->setFlags(may ? item->flags() | Qt::ItemIsUserCheckable : item->flags() & ~Qt::ItemIsUserCheckable);
      // Whoever declined a figure has declined it, whatever else comes in meanwhile.
      const QString key = QString::fromStdString(f.key);
      const bool declined = item->data(Qt::UserRole).toString() == key && item->data(Qt::CheckStateRole).isValid() &&
                            item->checkState() == Qt::Unchecked;
      item->setData(Qt::UserRole, key);
      if (may)
        item->setCheckState(declined ? Qt::Unchecked : Qt::Checked);
      else
        item->setData(Qt::CheckStateRole, {});
      put_cell(figures_, r, 1, figure_shown(desk_, f, f.was), t.ink);
      put_cell(figures_, r, 2, verdict(desk_, f), f.too_far ? t.caution : t.second, true);
    }
    const auto& from = (*learned)->from;
    from_->setRowCount(static_cast<int>(from.size()));
    for (int r = 0; r < from_->rowCount(); ++r) {
      const assess::LearnedFrom& f = from[static_cast<std::size_t>(r)];
      const int digits = f.kind == Kind::length ? 1 : 2;
      put_cell(from_, r, 0, desk_.words_of(f.name), t.ink);
      put_cell(from_, r, 1, desk_.shown(f.before, f.kind, digits), t.second);
      put_cell(from_, r, 2, desk_.shown(f.measured, f.kind, digits), t.ink);
      put_cell(from_, r, 3, desk_.shown(f.after, f.kind, digits), t.ink);
    }
  }
  QStringList kept;
  for (const Message& m : assess::hand_over(answers_.given(), {}, std::nullopt).learned)
    kept << desk_.words_of(m);
  const auto& notes = desk_.build().variant().proving->learned;
  kept_->setText(kept.isEmpty() ? QString()
                                : tr("Learned, last by %1 on %2: %3.")
                                      .arg(QString::fromStdString(notes.back().by),
                                           QString::fromStdString(notes.back().day), kept.join("; ")));
  kept_->setVisible(!kept.isEmpty());
}

} // namespace mavrel::app
