#include "app/kit/height_posts.h"

#include "app/desk/desk.h"
#include "app/desk/edits.h"
#include "app/desk/sureness.h"
#include "app/theme/text_line.h"
#include "assess/end/end_answer.h"
#include "build/names.h"
#include "quantity/quantity.h"
#include "report/sure.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainterPath>

#include <cmath>

namespace mavrel::app {

using build::at;

HeightPosts::HeightPosts(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("height_posts");
  setAttribute(Qt::WA_OpaquePaintEvent); // it paints all of itself: nothing under it need be
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setAccessibleName(tr("Height posts"));
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      stale_ = true;
      describe();
      update();
    });
  connect(&desk_, &Desk::posed, this, [this] {
    describe();
    update();
  });
  connect(&Sureness::of(desk_), &Sureness::changed, this, [this] {
    stale_ = true;
    describe();
    update();
  });
  connect(&desk_.view(), &ViewState::read, this, qOverload<>(&QWidget::update));
  // What was held may not be there any more, or be another of its number.
  connect(&desk_, &Desk::rewound, this, [this] { grip_.reset(); });
  describe();
}

void HeightPosts::describe() {
  QString text;
  for (const End end : build::both_ends) {
    const auto H = desk_.pose(end);
    if (!H) continue;
    text += tr("%1 stands at %2. ").arg(tr(build::name_of(end)), desk_.shown(*H, Kind::length));
    const auto& w = desk_.assessment().end(end).windows;
    if (w.road)
      text += tr("Road window %1 to %2. ")
                  .arg(desk_.shown(w.road->low.height, Kind::length), desk_.shown(w.road->high.height, Kind::length));
    if (w.reach)
      text += tr("Reach %1 to %2. ")
                  .arg(desk_.shown(w.reach->low.height, Kind::length), desk_.shown(w.reach->high.height, Kind::length));
  }
  if (const assess::Doubt* doubt = Sureness::of(desk_).doubt())
    for (const End end : build::both_ends) {
      for (std::size_t p = 0; p < desk_.build().variant().brief.presets.size(); ++p)
        if (const auto odds = doubt->odds_of_preset(end, p))
          text +=
              tr("%1 %2 stands in %3 of cases. ")
                  .arg(tr(build::name_of(end)), QString::fromStdString(desk_.build().variant().brief.presets[p].name),
                       desk_.shown(*odds, Kind::share, 0));
      for (const char* edge : {".road.low", ".road.high"})
        if (const auto* a = doubt->find(std::string(build::key_of(end)) + edge); a && a->value)
          text += tr("%1: %2. ").arg(desk_.words_of(a->words), shown_with_doubt(desk_, *a->value, a->sd, a->kind));
    }
  setAccessibleDescription(text);
}

QSize HeightPosts::sizeHint() const {
  return {desk_.look().px(314), desk_.look().px(500)};
}

void HeightPosts::set_band(int top, int bottom, bool aligned) {
  if (top == top_ && bottom == bottom_ && aligned == aligned_) return;
  aligned_ = aligned;
  top_ = top;
  bottom_ = bottom;
  stale_ = true;
  update();
}

HeightScale HeightPosts::scale() const {
  const auto [low, high] = desk_.height_range();
  return {low, high, static_cast<double>(top_), static_cast<double>(bottom_)};
}

QRectF HeightPosts::post_rect(End end) const {
  const double half = width() / 2.0;
  const double left = half * static_cast<double>(at(end)) + desk_.look().px(54);
  return {left, static_cast<double>(top_), static_cast<double>(desk_.look().px(22)),
          static_cast<double>(bottom_ - top_)};
}

QRectF HeightPosts::flag_rect(End end, std::size_t preset) const {
  const auto& presets = desk_.assessment().end(end).presets;
  if (preset >= presets.size() || !presets[preset]) return {};
  const double y = scale().clamped_y(presets[preset]->height);
  const QRectF post = post_rect(end);
  const double w = desk_.look().px(52), h = desk_.look().px(18);
  return {post.left() - w, y - h / 2, w, h};
}

// ---- painting

void HeightPosts::paintEvent(QPaintEvent*) {
  if (stale_ || ground_.size() != size() * devicePixelRatioF()) {
    ground_ = QPixmap(size() * devicePixelRatioF());
    ground_.setDevicePixelRatio(devicePixelRatioF());
    QPainter painter(&ground_);
    painter.fillRect(rect(), desk_.look().tokens().ground);
    for (const End end : build::both_ends)
      if (desk_.assessment().end(end).has_domain()) paint_post(painter, end);
    stale_ = false;
  }
  QPainter painter(this);
  painter.drawPixmap(0, 0, ground_);
  // Lines first: words stand on them and are never struck through.
  for (const End end : build::both_ends)
    paint_pose(painter, end);
  for (const End end : build::both_ends) {
    paint_head(painter, end);
    if (!desk_.assessment().end(end).has_domain()) continue;
    paint_limits(painter, end);
    paint_flags(painter, end);
    paint_live(painter, end);
  }
  if (hasFocus()) {
    painter.setPen(QPen(desk_.look().tokens().front, 1, Qt::DotLine));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(rect().adjusted(1, 1, -2, -2));
  }
}

void HeightPosts::paint_head(QPainter& painter, End end) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const double left = width() / 2.0 * static_cast<double>(at(end));
  const QRectF area(left, std::max(0, top_ - look.px(52)), width() / 2.0, look.px(18));
  const bool active = desk_.end() == end;
  painter.setFont(look.font(TextSize::normal, true));
  painter.setPen(t.end(end));
  const QString name = tr(build::name_of(end)).toUpper();
  const QRectF post = post_rect(end);
  const double middle = post.center().x();
  draw_line(painter, {middle - look.px(60), area.top(), double(look.px(120)), area.height()}, Qt::AlignCenter, name);
  if (active) {
    const double half = painter.fontMetrics().horizontalAdvance(name) / 2.0;
    painter.fillRect(QRectF(middle - half, area.bottom(), 2 * half, 2), t.end(end));
  }
  const QRectF figure(middle - look.px(60), area.bottom() + 2, look.px(120), look.px(24));
  const auto H = desk_.pose(end);
  if (!H) {
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.second);
    painter.drawText(QRectF(left + 4, top_, width() / 2.0 - 8, look.px(60)), Qt::AlignHCenter | Qt::TextWordWrap,
                     tr("The height is missing: hub centre to arch."));
    return;
  }
  const Shown parts = show_parts(*H, Kind::length, desk_.prefs());
  const QString number = QString::fromStdString(parts.number), unit = QString::fromStdString(parts.unit);
  const QFont big = look.font(TextSize::huge, true), small = look.font(TextSize::small);
  const double number_width = QFontMetricsF(big).horizontalAdvance(number),
               unit_width = QFontMetricsF(small).horizontalAdvance(unit) + 4;
  const double x = middle - (number_width + unit_width) / 2;
  painter.setPen(t.ink);
  painter.setFont(big);
  draw_line(painter, {x, figure.top(), number_width + 2, figure.height()}, Qt::AlignLeft | Qt::AlignVCenter, number);
  painter.setFont(small);
  painter.setPen(t.second);
  draw_line(painter, {x + number_width + 4, figure.top() + look.px(2), unit_width, figure.height()},
            Qt::AlignLeft | Qt::AlignVCenter, unit);
  if (!desk_.assessment().end(end).rough() || desk_.view().live()) return;
  // At the post's foot: what it shows rests on usual figures.
  painter.setPen(t.caution);
  draw_line(painter, {middle - look.px(60), double(bottom_ + look.px(3)), double(look.px(120)), double(look.px(14))},
            Qt::AlignHCenter | Qt::AlignTop, tr("≈ rough"));
}

void HeightPosts::paint_post(QPainter& painter, End end) const {
  const Tokens& t = desk_.look().tokens();
  const auto& e = desk_.assessment().end(end);
  const HeightScale s = scale();
  const QRectF post = post_rect(end);
  const auto between = [&](double from, double to) {
    return stretch_rect(s, post, from, to, e.domain_low, e.domain_high);
  };
  painter.setBrush(Qt::NoBrush);
  painter.fillRect(post, t.panel);
  painter.save();
  painter.setClipRect(post);
  const double step = desk_.look().px(6);
  for (const auto& [from, to] : joined(e.windows.road_blocked))
    hatch(painter, between(from, to), t.hatch_reserve, true, step);
  for (const auto& [from, to] : joined(e.windows.reach_blocked)) {
    painter.fillRect(between(from, to), t.panel);
    hatch(painter, between(from, to), t.hatch_stop, false, step);
  }
  for (const auto& [from, to] : unknown(e.windows.reach_blocked))
    dots(painter, between(from, to), t.panel, t.second, step);
  if (e.windows.road) {
    QColor fill = t.end(end);
    fill.setAlphaF(t.dark ? 0.38F : 0.24F);
    const QRectF road = between(e.windows.road->low.height, e.windows.road->high.height);
    painter.fillRect(road, t.panel);
    painter.fillRect(road, fill);
  }
  painter.restore();
  painter.setPen(QPen(t.rule, 1));
  painter.drawRect(post);
  const auto edge = [&](const std::optional<assess::Window>& window, const QColor& colour, int weight) {
    if (!window) return;
    for (const double H : {window->low.height, window->high.height}) {
      if (H < s.low || H > s.high) continue;
      painter.setPen(QPen(colour, weight, e.rough() ? Qt::DotLine : Qt::SolidLine));
      painter.drawLine(QPointF(post.left(), s.y(H)), QPointF(post.right(), s.y(H)));
    }
  };
  edge(e.windows.reach, t.stop, 2);
  edge(e.windows.road, t.end(end), 2);
  paint_doubt(painter, end);
}

/// Where the windows' edges lie in nine cases of ten: a bar on the post's inner edge, with a foot at either end.
void HeightPosts::paint_doubt(QPainter& painter, End end) const {
  const assess::Doubt* doubt = Sureness::of(desk_).doubt();
  if (!doubt) return;
  const Tokens& t = desk_.look().tokens();
  const HeightScale s = scale();
  const QRectF post = post_rect(end);
  for (const auto& [road, low, high] : assess::edge_bands(*doubt, end)) {
    const double top = s.clamped_y(high), bottom = s.clamped_y(low);
    const double width = desk_.look().px(7), left = road ? post.right() - width : post.left();
    QColor fill = road ? t.end(end) : t.stop;
    painter.setPen(Qt::NoPen);
    fill.setAlphaF(0.55F);
    painter.fillRect(QRectF(left, top, width, std::max(1.0, bottom - top)), fill);
    painter.setPen(QPen(road ? t.end(end) : t.stop, 1));
    painter.drawLine(QPointF(left - 1, top), QPointF(left + width + 1, top));
    painter.drawLine(QPointF(left - 1, bottom), QPointF(left + width + 1, bottom));
  }
}

void HeightPosts::paint_pose(QPainter& painter, End end) const {
  const auto H = desk_.pose(end);
  if (!H) return;
  const QRectF post = post_rect(end);
  const double y = scale().clamped_y(*H);
  const bool active = desk_.end() == end;
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(desk_.look().tokens().ink, active ? 1.6 : 1.2));
  painter.setBrush(Qt::NoBrush);
  const double r = desk_.look().px(8);
  painter.drawRoundedRect(QRectF(post.left() - 4, y - r, post.width() + 8, 2 * r), 4, 4);
  painter.setRenderHint(QPainter::Antialiasing, false);
  painter.drawLine(QPointF(active && aligned_ ? 0 : post.left() - 4, y), QPointF(post.right() + 4, y));
}

/// What is read of the car itself: a wedge on either side of the post, left and right, and the pressures under it.
void HeightPosts::paint_live(QPainter& painter, End end) const {
  const auto& live = desk_.view().live();
  if (!live) return;
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QRectF post = post_rect(end);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(t.panel, 1));
  painter.setBrush(t.caution);
  const double w = look.px(9), h = look.px(5);
  QStringList pressures;
  for (const std::size_t side : {0U, 1U}) {
    const std::size_t corner = 2 * at(end) + side;
    if (live->pressure[corner]) pressures << desk_.shown(*live->pressure[corner], Kind::pressure, 1);
    if (!live->height[corner]) continue;
    const double y = scale().clamped_y(*live->height[corner]);
    const double tip = side == 0 ? post.left() + 3 : post.right() - 3, foot = side == 0 ? tip - w : tip + w;
    painter.drawPolygon(QPolygonF{{tip, y}, {foot, y - h}, {foot, y + h}});
  }
  painter.setRenderHint(QPainter::Antialiasing, false);
  if (pressures.size() == 2 && pressures[0] == pressures[1]) pressures.removeLast();
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.caution);
  draw_line(painter,
            {post.center().x() - look.px(60), double(bottom_ + look.px(3)), double(look.px(120)), double(look.px(14))},
            Qt::AlignHCenter | Qt::AlignTop, pressures.join(" / "));
}

std::vector<HeightPosts::Label> HeightPosts::labels(End end) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto& e = desk_.assessment().end(end);
  const QRectF post = post_rect(end);
  std::vector<Label> out;
  std::vector<double> wanted;
  const assess::Doubt* doubt = Sureness::of(desk_).doubt();
  const std::string key = build::key_of(end);
  const auto add = [&](const assess::Edge& edge, const QColor& colour, const char* answer) {
    Label& label = out.emplace_back();
    const assess::DoubtAnswer* a = report::doubt_of(doubt, key + answer, edge.height);
    const QString number =
        a ? QString::fromStdString(report::number_with_doubt(edge.height, a->sd, Kind::length, desk_.prefs()))
          : QString::fromStdString(show_parts(edge.height, Kind::length, desk_.prefs()).number);
    label.number = (e.rough() ? "≈ " : "") + number;
    label.name = tr(assess::short_name(edge));
    label.colour = colour;
    label.at = scale().clamped_y(edge.height);
    wanted.push_back(label.at);
  };
  if (const auto& reach = e.windows.reach)
    add(reach->high, t.stop, ".reach.high"), add(reach->low, t.stop, ".reach.low");
  if (const auto& road = e.windows.road)
    add(road->high, t.end(end), ".road.high"), add(road->low, t.end(end), ".road.low");
  // Two lines a label, and a little air between labels: they never touch.
  const double line = QFontMetricsF(look.font(TextSize::small)).height() - 1;
  const auto y = spread_apart(wanted, 2 * line + look.px(3), top_ + line, bottom_ - line);
  const double x = post.right() + look.px(8), room = width() / 2.0 * static_cast<double>(at(end) + 1) - x;
  for (std::size_t i = 0; i < out.size(); ++i)
    out[i].box = {x, y[i] - line, room, 2 * line};
  return out;
}

void HeightPosts::paint_limits(QPainter& painter, End end) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QRectF post = post_rect(end);
  const QFont small = look.font(TextSize::small), bold = look.font(TextSize::small, true);
  for (const Label& label : labels(end)) {
    const double line = label.box.height() / 2, x = label.box.left();
    painter.setFont(small);
    const double wide = std::min(label.box.width(), painter.fontMetrics().horizontalAdvance(label.name) + 2.0);
    painter.fillRect(label.box.adjusted(-1, 1, wide - label.box.width(), -1), t.ground); // a pose line may run under it
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(post.right() + 1, label.at), QPointF(x - 2, label.box.center().y()));
    painter.setPen(label.colour);
    draw_line(painter, label.box.adjusted(0, line, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, label.name);
    painter.setFont(bold);
    draw_line(painter, label.box.adjusted(0, 0, 0, -line), Qt::AlignLeft | Qt::AlignVCenter, label.number);
  }
  if (desk_.assessment().end(end).windows.reach) return;
  painter.setPen(t.stop);
  painter.setFont(bold);
  const double x = post.right() + look.px(8), room = width() / 2.0 * static_cast<double>(at(end) + 1) - x;
  painter.drawText(QRectF(x, (top_ + bottom_) / 2.0 - look.px(14), room, look.px(44)), Qt::AlignLeft | Qt::TextWordWrap,
                   tr("no height is left"));
}

void HeightPosts::paint_flags(QPainter& painter, End end) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto& e = desk_.assessment().end(end);
  const auto& presets = desk_.build().variant().brief.presets;
  const QRectF post = post_rect(end);
  std::vector<std::size_t> shown;
  std::vector<double> wanted;
  for (std::size_t i = 0; i < e.presets.size(); ++i)
    if (e.presets[i]) {
      shown.push_back(i);
      wanted.push_back(scale().clamped_y(e.presets[i]->height));
    }
  // What stands in doubt has its odds under its name.
  const assess::Doubt* doubt = Sureness::of(desk_).doubt();
  const auto odds_of = [&](std::size_t preset) {
    const auto odds = doubt ? doubt->odds_of_preset(end, preset) : std::nullopt;
    return odds && assess::in_doubt(*odds) ? desk_.shown(*odds, Kind::share, 0) : QString();
  };
  const bool any_odds = std::any_of(shown.begin(), shown.end(), [&](std::size_t p) { return !odds_of(p).isEmpty(); });
  const auto y = spread_apart(wanted, look.px(any_odds ? 27 : 14), top_, bottom_);
  painter.setRenderHint(QPainter::Antialiasing);
  for (std::size_t k = 0; k < shown.size(); ++k) {
    const auto& preset = *e.presets[shown[k]];
    const bool fine = preset.stands(presets[shown[k]].use);
    const double tip = post.left() - 1, at_y = wanted[k], w = look.px(9), h = look.px(5);
    QPainterPath flag(QPointF(tip, at_y));
    flag.lineTo(tip - w * 0.6, at_y - h);
    flag.lineTo(tip - w * 1.2, at_y - h);
    flag.lineTo(tip - w * 1.2, at_y + h);
    flag.lineTo(tip - w * 0.6, at_y + h);
    flag.closeSubpath();
    painter.setPen(QPen(fine ? t.end(end) : t.stop, 1.2));
    painter.setBrush(fine ? QBrush(t.end(end)) : QBrush(t.panel)); // a flag outside its window is hollow
    painter.drawPath(flag);
    painter.setFont(look.font(TextSize::small));
    const QRectF room(post.left() - look.px(54), y[k] - look.px(8), look.px(41), look.px(16));
    const QString name = QString::fromStdString(presets[shown[k]].name);
    const double w_name = std::min(room.width(), painter.fontMetrics().horizontalAdvance(name) + 3.0);
    painter.fillRect(QRectF(room.right() - w_name, room.top() + 2, w_name, room.height() - 3),
                     t.ground); // the pose line runs under it
    painter.setPen(fine ? t.ink : t.stop);
    draw_line(painter, room, Qt::AlignRight | Qt::AlignVCenter, name);
    const QString odds = odds_of(shown[k]);
    if (odds.isEmpty()) continue;
    const QRectF under = room.translated(0, look.px(13));
    const double w_odds = std::min(under.width(), painter.fontMetrics().horizontalAdvance(odds) + 3.0);
    painter.fillRect(QRectF(under.right() - w_odds, under.top() + 2, w_odds, under.height() - 3), t.ground);
    painter.setPen(t.caution);
    draw_line(painter, under, Qt::AlignRight | Qt::AlignVCenter, odds);
  }
  painter.setRenderHint(QPainter::Antialiasing, false);
}

// ---- hands

End HeightPosts::end_at(double x) const {
  return x < width() / 2.0 ? End::front : End::rear;
}

std::optional<std::size_t> HeightPosts::flag_at(QPointF where, End end) const {
  std::optional<std::size_t> best;
  double nearest = 1e9;
  for (std::size_t i = 0; i < desk_.build().variant().brief.presets.size(); ++i) {
    const QRectF flag = flag_rect(end, i);
    const double away = std::abs(flag.center().y() - where.y());
    if (flag.contains(where) && away < nearest) nearest = away, best = i;
  }
  return best;
}

void HeightPosts::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  const End end = end_at(event->position().x());
  desk_.set_end(end);
  const auto pose = desk_.pose(end);
  if (!pose) return;
  const double H = scale().H(event->position().y());
  const auto preset = flag_at(event->position(), end);
  ++drag_;
  if (preset) {
    grip_ = Grip{end, preset, desk_.assessment().end(end).presets[*preset]->height - H};
    desk_.set_pose(end, desk_.assessment().end(end).presets[*preset]->height);
    return;
  }
  if (event->position().y() < top_ - 12 || event->position().y() > bottom_ + 12) return;
  const bool on_pose = std::abs(scale().y(*pose) - event->position().y()) < desk_.look().px(9);
  grip_ = Grip{end, {}, on_pose ? *pose - H : 0};
  if (!on_pose) desk_.set_pose(end, H);
}

void HeightPosts::mouseMoveEvent(QMouseEvent* event) {
  if (!grip_) {
    const End end = end_at(event->position().x());
    setCursor(flag_at(event->position(), end) || post_rect(end).adjusted(-6, -6, 6, 6).contains(event->position())
                  ? Qt::SizeVerCursor
                  : Qt::ArrowCursor);
    return;
  }
  // Whole millimetres: what a tape can check.
  const double H = std::round((scale().H(event->position().y()) + grip_->offset) * 1e3) * 1e-3;
  if (grip_->preset) {
    const auto [low, high] = desk_.height_range();
    drag_preset(desk_, *grip_->preset, grip_->end, std::clamp(H, low, high), QString("flag %1").arg(drag_));
  }
  desk_.set_pose(grip_->end, H);
}

void HeightPosts::mouseReleaseEvent(QMouseEvent*) {
  if (grip_ && grip_->preset) desk_.document().end_gesture();
  grip_.reset();
}

void HeightPosts::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Left)
    desk_.set_end(End::front);
  else if (event->key() == Qt::Key_Right)
    desk_.set_end(End::rear);
  else
    QWidget::keyPressEvent(event);
}

bool HeightPosts::event(QEvent* event) {
  if (event->type() == QEvent::FontChange || event->type() == QEvent::PaletteChange) stale_ = true, update();
  return QWidget::event(event);
}

} // namespace mavrel::app
