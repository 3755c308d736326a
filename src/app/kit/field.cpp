#include "app/kit/field.h"

#include "app/desk/desk.h"
#include "app/kit/long_text.h"
#include "app/kit/plain.h"

#include <QApplication>
#include <QEvent>
#include <QKeyEvent>
#include <QPainter>
#include <QStyle>
#include <QVBoxLayout>

namespace mavrel::app {

Field::Field(Desk& desk, QString path, QString caption, QWidget* parent)
    : QWidget(parent), desk_(desk), path_(std::move(path)), caption_(new PlainLabel(std::move(caption), this)),
      edit_(new QLineEdit(this)) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(caption_);
  layout->addWidget(edit_);
  caption_->setVisible(!caption_->text().isEmpty());
  caption_->setBuddy(edit_);
  caption_->setProperty("quiet", true);
  edit_->installEventFilter(this);
  setFocusProxy(edit_);
  connect(edit_, &QLineEdit::textEdited, this, [this] { clear_wrong(); });
  connect(edit_, &QLineEdit::returnPressed, this, [this] {
    if (editing_ && !commit(false)) emit taken();
  });
  connect(qApp, &QApplication::focusChanged, this, [this](QWidget*, QWidget* now) {
    // Why it was refused never lies over what is typed next; it is there again when somebody comes back.
    if (!bubble_ || !now || now == edit_ || now->window() != window()) return;
    const QRect typed_in(now->mapTo(window(), QPoint(0, 0)), now->size());
    bubble_->setVisible(!bubble_->geometry().intersects(typed_in));
  });
  connect(&desk_, &Desk::changed, this, &Field::refresh);
  connect(&desk_, &Desk::restyled, this, &Field::restyle);
  connect(&desk_.document(), &Document::settling, this,
          [this](Unfinished unfinished) { settle(unfinished == Unfinished::give_up); });
  restyle();
}

void Field::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (stale_) refresh();
}

void Field::bind(const QString& path) {
  if (path == path_) return;
  settle(true); // what was typed belongs to the old place
  path_ = path;
  refresh();
}

void Field::set_placeholder(const QString& text) {
  if (text == placeholder_) return;
  placeholder_ = text;
  refresh();
}

void Field::set_prominent(bool prominent) {
  prominent_ = prominent;
  restyle();
}

void Field::restyle() {
  const Look& look = desk_.look();
  caption_->setFont(look.font(prominent_ ? TextSize::large : TextSize::small));
  edit_->setFont(look.font(prominent_ ? TextSize::huge : TextSize::normal, true));
  says_.clear(); // its figure wants another room now
  refresh();
}

void Field::refresh() {
  // Most fields are out of sight while a flag is dragged; they catch up when they are shown.
  stale_ = !isVisible() && !edit_->accessibleName().isEmpty();
  if (stale_) return;
  const build::FieldView view = desk_.field(path_);
  const QString name = desk_.words_of(view.label);
  const QString other = desk_.not_of_this_car(path_);
  // At every move of a hand every field is asked; most say what they said before.
  const QString says =
      QString("%1\n%2\n%3\n%4\n%5")
          .arg(name, QString::fromStdString(view.shown), QString::fromStdString(view.editable), placeholder_, other);
  if (!editing_ && says == says_) return;
  says_ = says;
  edit_->setAccessibleName(name.isEmpty() ? caption_->text() : name);
  edit_->setPlaceholderText(!placeholder_.isEmpty() ? placeholder_ : view.is_text ? tr("type") : tr("not taken"));
  QString tip = name;
  if (view.readings > 1)
    tip += tr("\nMean of %1 readings, %2 apart: %3")
               .arg(view.readings)
               .arg(desk_.shown(view.spread, view.kind, -2), QString::fromStdString(view.editable));
  else if (!view.is_text && !view.is_wish)
    tip += tr("\nSeveral readings: separate them with ;  Add one with + in front.");
  else if (view.is_wish)
    tip += tr("\nA height (343 mm), a gap (gap 30 mm, or 2 f for fingers), or a drop (drop 60 mm).");
  if (!other.isEmpty()) tip += '\n' + other;
  other_ = other;
  edit_->setToolTip(tip);
  edit_->setAccessibleDescription(tip);
  if (is_touched()) return;
  editing_ = false;
  edit_->setText(QString::fromStdString(view.shown));
  edit_->setCursorPosition(0);
  take_room();
  update();
  if (edit_->hasFocus()) begin(); // nothing typed yet: go on with the new value
}

/// A figure or a name is never cut; long texts may be.
void Field::take_room() {
  const QFontMetrics metrics = edit_->fontMetrics();
  const QString says_now = edit_->text().isEmpty() ? edit_->placeholderText() : edit_->text();
  const QString whole = says_now.size() <= never_cut ? says_now : QString(12, 'x');
  const int around = edit_->sizeHint().width() - 17 * metrics.horizontalAdvance('x'); // the hint's own letters
  edit_->setMinimumWidth(std::max(metrics.horizontalAdvance(whole) + around, 4 * metrics.averageCharWidth()));
}

void Field::begin() {
  if (editing_) return;
  editing_ = true;
  began_at_ = desk_.resolve(path_);
  began_with_ = QString::fromStdString(desk_.field(path_).editable);
  edit_->setText(began_with_);
  edit_->selectAll();
}

std::optional<QString> Field::commit(bool leaving) {
  if (!editing_) return std::nullopt;
  if (is_touched()) {
    const QString text = edit_->text();
    began_with_ = text; // taken once, whatever hears of the change
    if (auto wrong = desk_.type(began_at_, text)) {
      began_with_ = QString::fromStdString(desk_.field(began_at_).editable);
      mark_wrong(*wrong);
      desk_.tell(*wrong);
      return wrong; // what was typed stays to be put right, and says why
    }
  }
  clear_wrong();
  editing_ = false;
  says_.clear(); // the line may show its readings, or the figure without its unit
  refresh();
  if (!leaving) begin();
  return std::nullopt;
}

void Field::settle(bool give_up_wrong) {
  if (!is_touched()) return;
  const auto wrong = commit(true);
  if (wrong && give_up_wrong) give_up(); // the last good value stands; the sentence stays at the foot of the window
  if (wrong) desk_.document().could_not_take(*wrong);
}

void Field::give_up() {
  clear_wrong();
  edit_->setText(began_with_);
  editing_ = false;
  says_.clear();
  refresh();
}

void Field::mark_wrong(const QString& sentence) {
  edit_->setProperty("wrong", true);
  edit_->style()->polish(edit_);
  if (!bubble_) {
    bubble_ = new PlainLabel(window());
    bubble_->setWordWrap(true);
    bubble_->setMargin(desk_.look().px(6));
    bubble_->setAttribute(Qt::WA_TransparentForMouseEvents);
  }
  const Tokens& t = desk_.look().tokens();
  bubble_->setStyleSheet(
      QString("background: %1; color: %2; border: 1px solid %2;").arg(t.panel.name(), t.stop.name()));
  bubble_->setFont(desk_.look().font(TextSize::small));
  bubble_->setText(sentence);
  const int width = desk_.look().px(280);
  bubble_->setFixedWidth(width);
  bubble_->adjustSize();
  QPoint at = mapTo(window(), QPoint(0, height() + 2));
  at.setX(std::clamp(at.x(), 0, std::max(0, window()->width() - width - 4)));
  if (at.y() + bubble_->height() > window()->height())
    at.setY(mapTo(window(), QPoint(0, 0)).y() - bubble_->height() - 2);
  bubble_->move(at);
  bubble_->show();
  bubble_->raise();
  edit_->setAccessibleDescription(sentence);
}

void Field::clear_wrong() {
  if (edit_->property("wrong").toBool()) {
    edit_->setProperty("wrong", false);
    edit_->style()->polish(edit_);
  }
  delete bubble_;
}

bool Field::eventFilter(QObject* watched, QEvent* event) {
  if (watched == edit_ && (event->type() == QEvent::Polish || event->type() == QEvent::StyleChange)) {
    take_room(); // with the room around its letters that its style asks for
  } else if (event->type() == QEvent::FocusIn) {
    begin();
    if (bubble_) bubble_->show();
  } else if (event->type() == QEvent::FocusOut) {
    // Another window in front takes nothing: half a figure waits until somebody comes back to it.
    const Qt::FocusReason reason = static_cast<QFocusEvent*>(event)->reason();
    if (reason != Qt::PopupFocusReason && reason != Qt::ActiveWindowFocusReason) commit(true);
  } else if (event->type() == QEvent::ShortcutOverride && !is_touched()) {
    // Undo and redo are the line's own only while something is typed in it; else they are the build's.
    auto* key = static_cast<QKeyEvent*>(event);
    if (key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo)) {
      key->ignore();
      return true;
    }
  } else if (event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
    give_up();
    begin();
    return true;
  }
  return QWidget::eventFilter(watched, event);
}

void Field::paintEvent(QPaintEvent*) {
  const build::FieldView view = desk_.field(path_);
  const bool many = view.readings > 1 && !editing_;
  if (!many && other_.isEmpty()) return;
  // At the caption's right: that the figure is another car's, and how many readings stand behind the mean.
  QPainter painter(this);
  painter.setFont(desk_.look().font(TextSize::small));
  QRect room(0, 0, width() - 2, caption_->height());
  if (many) {
    const QString count = QString("×%1").arg(view.readings);
    painter.setPen(desk_.look().tokens().second);
    painter.drawText(room, Qt::AlignRight | Qt::AlignVCenter, count);
    room.setRight(room.right() - painter.fontMetrics().horizontalAdvance(count) - 4);
  }
  if (other_.isEmpty()) return;
  painter.setPen(desk_.look().tokens().caution);
  painter.drawText(room, Qt::AlignRight | Qt::AlignVCenter, "≈");
}

} // namespace mavrel::app
