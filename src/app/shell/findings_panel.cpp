#include "app/shell/findings_panel.h"

#include "app/desk/desk.h"
#include "app/desk/sureness.h"
#include "app/kit/plain.h"
#include "build/names.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPixmapCache>
#include <QStyledItemDelegate>
#include <QTextLayout>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

using assess::Finding;
using assess::Severity;

namespace {

QString where_of(const Finding& f) {
  const QString end = f.end ? QCoreApplication::translate("core", build::name_of(*f.end))
                            : QCoreApplication::translate("findings", "Whole car");
  const QString stage = QCoreApplication::translate("stages", f.stage->name);
  return end + " · " + stage;
}

/// A shape a severity, drawn the same wherever severities are shown.
void paint_mark(QPainter& painter, const QRectF& rect, Severity severity, const QColor& colour) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(Qt::NoPen);
  painter.setBrush(colour);
  if (severity == Severity::stop)
    painter.drawRect(rect);
  else if (severity == Severity::caution)
    painter.drawPolygon(QPolygonF{{QPointF(rect.center().x(), rect.top()), rect.bottomRight(), rect.bottomLeft()}});
  else {
    painter.setPen(QPen(colour, 1.6));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(rect.adjusted(1, 1, -1, -1));
  }
  painter.restore();
}

class FindingDelegate : public QStyledItemDelegate {
public:
  FindingDelegate(Desk& desk, QObject* parent) : QStyledItemDelegate(parent), desk_(desk) {}

  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const auto* view = qobject_cast<const QListView*>(option.widget);
    const int width = view ? view->viewport()->width() : desk_.look().px(230);
    const QString key = key_of(index, width);
    // While a flag is dragged most findings stay as they are: only what changed is laid out again.
    if (heights_.size() > most_remembered) heights_.clear();
    auto height = heights_.constFind(key);
    if (height == heights_.cend())
      height = heights_.insert(key, static_cast<int>(std::ceil(lay_out(nullptr, QRectF(0, 0, width, 0), index))));
    return {width, *height};
  }

  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const Tokens& t = desk_.look().tokens();
    const bool held = option.state & (QStyle::State_Selected | QStyle::State_MouseOver);
    const double ratio = painter->device()->devicePixelRatioF();
    const QString key = QString("finding %1 %2 %3").arg(key_of(index, option.rect.width())).arg(held).arg(ratio);
    QPixmap card;
    if (!QPixmapCache::find(key, &card)) {
      card = QPixmap(option.rect.size() * ratio);
      card.setDevicePixelRatio(ratio);
      card.fill(t.panel);
      QPainter on_card(&card);
      const QRectF whole(QPointF(0, 0), option.rect.size());
      on_card.fillRect(whole.adjusted(0, 0, 0, -desk_.look().px(6)), held ? t.selected : t.ground);
      lay_out(&on_card, whole, index);
      on_card.end();
      QPixmapCache::insert(key, card);
    }
    painter->drawPixmap(option.rect.topLeft(), card);
  }

private:
  static constexpr int most_remembered = 400;

  /// Everything that a card's picture depends on.
  QString key_of(const QModelIndex& index, int width) const {
    const Look& look = desk_.look();
    return QString("%1|%2|%3|%4")
        .arg(index.data(Qt::AccessibleTextRole).toString())
        .arg(width)
        .arg(static_cast<int>(look.theme))
        .arg(look.scale);
  }

  /// Draws the card, or only measures it when there is no painter. @returns its height
  double lay_out(QPainter* painter, const QRectF& rect, const QModelIndex& index) const {
    const Look& look = desk_.look();
    const Tokens& t = look.tokens();
    const Finding& f = static_cast<const FindingsModel*>(index.model())->finding(index.row());
    const double pad = look.px(8), mark = look.px(9);
    const double left = rect.left() + pad + mark + look.px(7);
    const double width = rect.right() - pad - left;
    double y = rect.top() + look.px(6);
    const double first_line = y;
    const auto put = [&](const QString& text, const QFont& font, const QColor& colour) {
      if (text.isEmpty()) return;
      QTextLayout layout(text, font);
      layout.beginLayout();
      double height = 0;
      for (QTextLine line = layout.createLine(); line.isValid(); line = layout.createLine()) {
        line.setLineWidth(width);
        line.setPosition(QPointF(0, height));
        height += line.height() + 1;
      }
      layout.endLayout();
      if (painter) {
        painter->setPen(colour);
        layout.draw(painter, QPointF(left, y));
      }
      y += height + 2;
    };
    put(desk_.words_of(f.title), look.font(TextSize::normal, true), t.ink);
    const QFont small = look.font(TextSize::small);
    put(desk_.words_of(f.reason), small, t.ink);
    put(desk_.words_of(f.way_out), small, t.ink);
    put(where_of(f), small, t.second);
    if (painter)
      paint_mark(*painter, QRectF(rect.left() + pad, first_line + look.px(4), mark, mark), f.severity,
                 t.severity(f.severity));
    return y - rect.top() + look.px(10);
  }

  Desk& desk_;
  mutable QHash<QString, int> heights_;
};

} // namespace

FindingsModel::FindingsModel(Desk& desk, QObject* parent) : QAbstractListModel(parent), desk_(desk) {}

int FindingsModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(findings_.size());
}

QVariant FindingsModel::data(const QModelIndex& index, int role) const {
  if (!index.isValid() || index.row() >= rowCount()) return {};
  const Finding& f = finding(index.row());
  if (role == Qt::DisplayRole) return desk_.words_of(f.title);
  if (role == Qt::AccessibleTextRole || role == Qt::AccessibleDescriptionRole)
    return QString("%1: %2. %3 %4 %5")
        .arg(assess::severity_key(f.severity), desk_.words_of(f.title), desk_.words_of(f.reason),
             desk_.words_of(f.way_out), where_of(f));
  return {};
}

void FindingsModel::refresh(const assess::StageRow* first) {
  beginResetModel();
  findings_ = Sureness::of(desk_).findings();
  std::stable_partition(findings_.begin(), findings_.end(), [&](const Finding& f) { return f.stage == first; });
  endResetModel();
}

FindingsPanel::FindingsPanel(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), model_(new FindingsModel(desk, this)), list_(new QListView(this)),
      title_(new PlainLabel(this)), fold_(new QToolButton(this)) {
  setObjectName("findings");
  setAttribute(Qt::WA_StyledBackground);
  list_->setModel(model_);
  list_->setItemDelegate(new FindingDelegate(desk, list_));
  list_->setAccessibleName(tr("What stops it"));
  list_->setMouseTracking(true);
  list_->setResizeMode(QListView::Adjust);
  list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  fold_->setProperty("plain", true);
  connect(list_, &QListView::clicked, this, &FindingsPanel::go);
  connect(list_, &QListView::activated, this, &FindingsPanel::go);
  connect(fold_, &QToolButton::clicked, this, [this] { set_folded(!folded_); });
  auto* head = new QHBoxLayout;
  head->addWidget(title_, 1);
  head->addWidget(fold_);
  auto* layout = new QVBoxLayout(this);
  const int u = desk_.look().unit();
  layout->setContentsMargins(u, u, u / 2, 0);
  layout->setSpacing(u / 2);
  layout->addLayout(head);
  layout->addWidget(list_, 1);
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, &FindingsPanel::refresh);
  connect(&Sureness::of(desk_), &Sureness::changed, this, &FindingsPanel::refresh);
  refresh();
  show_folded(false);
}

void FindingsPanel::refresh() {
  title_->setFont(desk_.look().font(TextSize::large, true));
  // What is held is a finding, not a place in the list: another one never takes its Enter.
  const int row = list_->currentIndex().row();
  const std::optional<Finding> held = row >= 0 ? std::optional(model_->finding(row)) : std::nullopt;
  model_->refresh(stage_);
  const auto& findings = model_->findings();
  const auto stops =
      std::count_if(findings.begin(), findings.end(), [](const Finding& f) { return f.severity == Severity::stop; });
  title_->setText(stops > 0 ? tr("What stops it (%1)").arg(stops) : tr("What stops it"));
  int kept = -1;
  for (int i = 0; held && kept < 0 && i < model_->rowCount(); ++i) {
    const Finding one = model_->finding(i);
    if (one.code == held->code && one.end == held->end && one.place == held->place) kept = i;
  }
  list_->setCurrentIndex(kept >= 0 ? model_->index(kept, 0) : QModelIndex());
}

void FindingsPanel::show_stage(const assess::StageRow* stage) {
  if (stage == stage_) return;
  stage_ = stage;
  refresh();
  list_->scrollToTop();
}

void FindingsPanel::set_folded(bool fold) {
  chosen_ = true;
  show_folded(fold);
}

void FindingsPanel::fit_to(int window_width) {
  show_folded(chosen_ ? folded_ : window_width < desk_.look().px(1200));
}

void FindingsPanel::show_folded(bool fold) {
  folded_ = fold;
  list_->setVisible(!fold);
  title_->setVisible(!fold);
  fold_->setText(fold ? QString("‹") : QString("›"));
  fold_->setToolTip(fold ? tr("Show what stops it (Ctrl+F)") : tr("Fold away (Ctrl+F)"));
  fold_->setAccessibleName(fold ? tr("Show findings") : tr("Fold findings"));
  setFixedWidth(desk_.look().px(fold ? 40 : 236));
  emit folded(fold);
}

void FindingsPanel::go(const QModelIndex& index) {
  if (!index.isValid()) return;
  const Finding f = model_->finding(index.row()); // going there may change the list
  if (f.end) desk_.set_end(*f.end);
  emit desk_.went_to(f.stage->key, QString::fromStdString(f.place));
}

} // namespace mavrel::app
