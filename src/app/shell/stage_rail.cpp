#include "app/shell/stage_rail.h"

#include "app/desk/sureness.h"
#include "app/shell/stages.h"

#include <QCoreApplication>
#include <QPainter>
#include <QToolButton>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {

/// One stage: a ring on the line, its name, and how many stops and cautions stand there.
class StageButton : public QToolButton {
public:
  StageButton(Desk& desk, const StageEntry& entry, QWidget* parent) : QToolButton(parent), desk_(desk), entry_(entry) {
    setText(QCoreApplication::translate("stages", entry.name));
    setCheckable(true);
    setAutoExclusive(true);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  }
  [[nodiscard]] QSize sizeHint() const override { return {desk_.look().px(104), desk_.look().px(40)}; }

  void show_state(const assess::Assessment& weighed) {
    stops_ = cautions_ = 0;
    if (entry_.stage) standing_ = assess::stage_state(weighed, *entry_.stage);
    for (const auto& f : weighed.findings) {
      if (f.stage != entry_.stage) continue;
      stops_ += f.severity == assess::Severity::stop;
      cautions_ += f.severity == assess::Severity::caution;
    }
    QString state;
    if (entry_.stage)
      state = stops_ == 1                                ? tr("1 stop")
              : stops_ > 1                               ? tr("%1 stops").arg(stops_)
              : cautions_ == 1                           ? tr("1 caution")
              : cautions_ > 1                            ? tr("%1 cautions").arg(cautions_)
              : standing_ == assess::StageState::unknown ? tr("not known yet")
                                                         : tr("nothing stops it");
    setToolTip(state);
    const QString says = text() + (state.isEmpty() ? "" : ", " + state);
    if (says == accessibleName() && standing_ == shown_ && look_ == desk_.look()) return;
    shown_ = standing_;
    look_ = desk_.look();
    setAccessibleName(says);
    updateGeometry();
    update();
  }

protected:
  void paintEvent(QPaintEvent*) override {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Look& look = desk_.look();
    const Tokens& t = look.tokens();
    const QRectF area(look.px(4), look.px(3), width() - look.px(8), height() - look.px(6));
    if (isChecked() || underMouse()) painter.fillRect(area, t.selected);
    if (hasFocus()) {
      painter.setPen(QPen(t.front, 1));
      painter.drawRect(area);
    }
    const double middle = height() / 2.0, r = look.px(5);
    const QPointF centre(look.px(18), middle);
    using assess::StageState;
    const QColor state = standing_ == StageState::stop      ? t.stop
                         : standing_ == StageState::caution ? t.caution
                         : standing_ == StageState::good    ? t.good
                                                            : t.second;
    if (!entry_.stage) {
      painter.setPen(QPen(isChecked() ? t.ink : t.second, 1.6));
      painter.drawLine(centre + QPointF(-r, -r * 0.5), centre + QPointF(r, -r * 0.5));
      painter.drawLine(centre + QPointF(-r, r * 0.5), centre + QPointF(r * 0.4, r * 0.5));
    } else {
      // Nothing known is neither good nor bad: a broken ring with nothing in it.
      const bool unknown = standing_ == StageState::unknown;
      painter.setPen(QPen(state, 2, unknown ? Qt::DotLine : Qt::SolidLine));
      painter.setBrush(isChecked() && !unknown ? QBrush(state) : QBrush(t.panel));
      painter.drawEllipse(centre, r, r);
    }
    painter.setPen(t.ink);
    painter.setFont(look.font(TextSize::normal, isChecked()));
    painter.drawText(QRectF(look.px(31), 0, width(), height()), Qt::AlignLeft | Qt::AlignVCenter, text());
    const int count = stops_ > 0 ? stops_ : cautions_;
    if (count == 0) return;
    // The count in the severity's own shape: a square for stops, a triangle's slant for cautions.
    const QFont figures = look.font(TextSize::small, true);
    const double wide =
        std::max<double>(look.px(17), QFontMetricsF(figures).horizontalAdvance(QString::number(count)) + look.px(11));
    const QRectF badge(width() - look.px(8) - wide, middle - look.px(8), wide, look.px(16));
    painter.setPen(Qt::NoPen);
    painter.setBrush(state);
    if (stops_ > 0)
      painter.drawRect(badge);
    else
      painter.drawPolygon(
          QPolygonF{{badge.topLeft() + QPointF(look.px(4), 0), badge.topRight() - QPointF(look.px(4), 0),
                     badge.bottomRight(), badge.bottomLeft()}});
    painter.setPen(t.panel);
    painter.setFont(figures);
    painter.drawText(badge, Qt::AlignCenter, QString::number(count));
  }

private:
  Desk& desk_;
  const StageEntry& entry_;
  int stops_ = 0, cautions_ = 0;
  Look look_; // as last painted
  assess::StageState shown_ = assess::StageState::unknown;
  assess::StageState standing_ = assess::StageState::unknown;
};

} // namespace

StageRail::StageRail(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("stage_rail");
  setAccessibleName(tr("Stages"));
  setAttribute(Qt::WA_StyledBackground);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, desk_.look().unit(), 0, desk_.look().unit());
  layout->setSpacing(0);
  for (const StageEntry& entry : stage_entries()) {
    auto* button = new StageButton(desk_, entry, this);
    button->setObjectName(QString("stage_") + entry.key);
    connect(button, &QToolButton::clicked, this, [this, key = entry.key] { emit chosen(key); });
    buttons_.push_back(button);
    layout->addWidget(button);
  }
  layout->addStretch();
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, &StageRail::refresh);
  connect(&Sureness::of(desk_), &Sureness::changed, this, &StageRail::refresh);
  refresh();
}

void StageRail::set_current(const QString& key) {
  for (std::size_t i = 0; i < buttons_.size(); ++i)
    buttons_[i]->setChecked(stage_entries()[i].key == key);
}

void StageRail::refresh() {
  setFixedWidth(desk_.look().px(118));
  // As the panel beside it has them: one count, wherever it stands.
  assess::Assessment weighed = desk_.assessment();
  weighed.findings = Sureness::of(desk_).findings();
  for (std::size_t i = 0; i < buttons_.size(); ++i) {
    static_cast<StageButton*>(buttons_[i])->show_state(weighed);
    buttons_[i]->setVisible(stage_entries()[i].closed(desk_).isEmpty());
  }
}

} // namespace mavrel::app
