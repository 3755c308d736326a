#include "app/stages/swing/motion_sheet.h"

#include "app/desk/desk.h"
#include "app/theme/text_line.h"
#include "assess/end/end_answer.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <cmath>

namespace mavrel::app {

using assess::Track;
using assess::TrackRow;
namespace tracks = assess::tracks;

namespace {

constexpr double centimetre = 0.010; // m, the next one down

/// The rows shown, those that matter most first; what an end has not is left out.
constexpr const TrackRow* rows[] = {
    &tracks::motion_ratio,   &tracks::bag_tilt,       &tracks::bag_offset, &tracks::camber,        &tracks::toe,
    &tracks::damper_to_shut, &tracks::damper_to_open, &tracks::pinion,     &tracks::wheel_outward, &tracks::shaft_angle,
    &tracks::hose_slack,     &tracks::bar_link_angle, &tracks::caster,     &tracks::shaft_plunge,  &tracks::poke,
};

/// Spring length by the solved joints, linear between them: they lie close.
std::optional<double> joints_spring(const std::vector<assess::EndPose>& poses, double H) {
  const auto above =
      std::lower_bound(poses.begin(), poses.end(), H, [](const assess::EndPose& p, double h) { return p.H < h; });
  if (above == poses.begin() || above == poses.end()) return std::nullopt;
  const assess::EndPose &a = *std::prev(above), &b = *above;
  return std::lerp(a.spring->length, b.spring->length, (H - a.H) / (b.H - a.H));
}

} // namespace

MotionSheet::MotionSheet(Desk& desk, QWidget* parent) : PagedPlot(desk, 92, parent) {
  setObjectName("motion_sheet");
  setAccessibleName(tr("Motion over height"));
}

std::vector<MotionSheet::Strip> MotionSheet::all_strips() const {
  std::vector<Strip> out;
  const auto& answered = desk_.answered(desk_.end());
  const auto& e = answered->assessment;
  const assess::SurveyedEnd& read = *answered.given().survey();
  const auto& survey = answered.given().survey().given().survey;
  if (!e.has_domain()) return out;
  const double drop = answered.given().motion().given().drop_spindle; // what was read lies so much lower in the design
  const auto add = [&](QString name, Kind kind, std::function<std::optional<double>(double)> at, double from,
                       double to) -> Strip& {
    Strip& s = out.emplace_back();
    s.name = std::move(name);
    s.kind = kind;
    s.at = std::move(at);
    s.from = from, s.to = to;
    return s;
  };
  // A cycle sheet first: the readings themselves, on their curve.
  if (read.spring_fit) {
    Strip& s = add(
        tr("spring seats"), Kind::length,
        [fit = *read.spring_fit, drop](double height) -> std::optional<double> {
          const double H = height + drop;
          return H >= fit.lowest - 0.015 && H <= fit.highest + 0.015 ? std::optional(fit.length.read(H).value)
                                                                     : std::nullopt;
        },
        read.spring_fit->lowest, read.spring_fit->highest);
    const assess::EndMotion& motion = *answered.given().motion();
    if (motion.joints && motion.poses.size() > 1 && motion.poses.front().spring)
      s.other = [&motion](double H) { return joints_spring(motion.poses, H); };
    for (std::size_t i = 0; i < read.spring_rows.size(); ++i) {
      const build::CycleRow& row = survey.cycle[read.spring_rows[i]];
      const auto& again = read.spring_fit->measure_again;
      s.dots.push_back({row.height - drop, *row.spring, std::find(again.begin(), again.end(), i) != again.end()});
    }
  }
  const air::BagCard* card = answered->fitted.bag ? &answered->fitted.bag->card : nullptr;
  for (const TrackRow* row : rows) {
    const Track* track = e.find(*row, desk_.load_case());
    if (!track || track->pieces.empty()) continue;
    Strip& s = add(
        tr(row->name), row->kind, [track](double H) { return track->at(H); }, track->pieces.front().from,
        track->pieces.back().to());
    if (row == &tracks::motion_ratio)
      if (const Track* doubt = e.find(tracks::motion_ratio_doubt, desk_.load_case()))
        s.doubt = [doubt](double H) { return doubt->at(H); };
    if (row == &tracks::bag_tilt && card) s.most = assess::alignment_limits(*card).tilt;
    if (row == &tracks::bag_offset && card) s.most = assess::alignment_limits(*card).offset;
    if (row == &tracks::camber && read.camber_fit)
      for (const build::CycleRow& r : survey.cycle)
        if (r.camber) s.dots.push_back({r.height - drop, *r.camber, false});
  }
  for (const auto& gap : read.gap_fits) {
    Strip& s = add(
        QString::fromStdString(gap.name), Kind::length,
        [fit = gap.fit, drop](double height) -> std::optional<double> {
          const double H = height + drop;
          return H >= fit.lowest - 1e-6 && H <= fit.highest + 1e-6 ? std::optional(fit.length.read(H).value)
                                                                   : std::nullopt;
        },
        gap.fit.lowest, gap.fit.highest);
    for (const build::CycleRow& row : survey.cycle)
      for (const build::CycleGap& g : row.gaps)
        if (g.name == gap.name) s.dots.push_back({row.height - drop, g.value, false});
  }
  return out;
}

std::vector<MotionSheet::Strip> MotionSheet::strips() const {
  auto out = all_strips();
  const auto& e = desk_.assessment().end(desk_.end());
  const auto [first, each] = shown();
  out = {std::make_move_iterator(out.begin() + static_cast<std::ptrdiff_t>(first)),
         std::make_move_iterator(out.begin() + static_cast<std::ptrdiff_t>(first + each))};
  if (out.empty()) return out;
  const auto rects = split(plot().left(), static_cast<int>(out.size()));
  for (std::size_t i = 0; i < out.size(); ++i) {
    Strip& s = out[i];
    s.rect = rects[i];
    bool any = false;
    const auto hold = [&](double v) {
      s.low = any ? std::min(s.low, v) : v;
      s.high = any ? std::max(s.high, v) : v;
      any = true;
    };
    for (int k = 0; k <= 60; ++k) {
      const double H = std::lerp(e.domain_low, e.domain_high, k / 60.0);
      const auto v = s.at(H);
      if (!v) continue;
      const double d = s.doubt ? s.doubt(H).value_or(0) : 0;
      hold(*v - d), hold(*v + d);
    }
    for (const Dot& dot : s.dots)
      hold(dot.value);
    if (!any) continue;
    if (s.most) hold(*s.most);
    const bool left = rects.size() > 0 && s.kind == Kind::length && s.low >= 0 && s.low < 0.3 * s.high;
    const double room = std::max(s.kind == Kind::plain ? 0.01 : 1e-4, 0.10 * (s.high - s.low));
    s.low = left ? 0 : s.low - room;
    s.high += room;
  }
  return out;
}

QStringList MotionSheet::names() const {
  QStringList out;
  for (const Strip& s : strips())
    out << s.name;
  return out;
}

QString MotionSheet::summary() const {
  const auto& e = desk_.assessment().end(desk_.end());
  if (!e.has_domain()) return tr("The height is missing on Car in.");
  switch (e.spring_from) {
  case assess::MapSource::cycle_sheet:
    return tr("By the cycle sheet. Under each figure: what the next centimetre down changes.");
  case assess::MapSource::hard_points:
    return tr("By the joints, solved. Under each figure: what the next centimetre down changes.");
  case assess::MapSource::single_reading:
    return tr(
        "One reading and its ratio stand for the whole travel. Jack the wheel through it, or measure the joints.");
  }
  return {};
}

QString MotionSheet::described() const {
  const auto H = desk_.pose(desk_.end());
  if (!H) return {};
  QString text = tr("%1 at %2: ").arg(tr(build::name_of(desk_.end())), desk_.shown(*H, Kind::length));
  for (const Strip& s : strips())
    if (const auto v = s.at(*H)) text += QString("%1 %2, ").arg(s.name, desk_.shown(*v, s.kind));
  return text;
}

void MotionSheet::paint_ground(QPainter& painter) const {
  paint_axis(painter);
  const auto all = strips();
  if (all.empty()) {
    const Look& look = desk_.look();
    painter.setFont(look.font());
    painter.setPen(look.tokens().second);
    paint_words(painter, plot(), Qt::AlignCenter | Qt::TextWordWrap, summary());
    return;
  }
  std::vector<QRectF> rects;
  for (const Strip& s : all)
    rects.push_back(s.rect);
  paint_blocked(painter, rects);
  for (const Strip& s : all)
    paint_strip(painter, s);
}

void MotionSheet::paint_strip(QPainter& painter, const Strip& strip) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const HeightScale s = scale();
  paint_head(painter, strip.rect, strip.name, QString::fromStdString(unit_name(strip.kind, desk_.prefs())));
  if (!strip.has_values()) return;
  paint_values(painter, strip);
  painter.save();
  painter.setClipRect(strip.rect);
  painter.setRenderHint(QPainter::Antialiasing);
  if (strip.low < 0 && strip.high > 0) {
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(strip.x(0), strip.rect.top()), QPointF(strip.x(0), strip.rect.bottom()));
  }
  if (strip.most) { // what it bears
    const double x = strip.x(*strip.most);
    painter.setPen(QPen(t.stop, 1.6));
    painter.drawLine(QPointF(x, strip.rect.top()), QPointF(x, strip.rect.bottom()));
    painter.setFont(look.font(TextSize::small));
    draw_line(painter, QRectF(x - look.px(50), strip.rect.top() + 2, look.px(48), look.px(14)),
              Qt::AlignRight | Qt::AlignVCenter, tr("bears"));
  }
  QPolygonF line, more, less;
  for (double y = s.top; y <= s.bottom; y += 3) {
    const double H = s.H(y);
    const auto v = strip.at(H);
    if (!v) continue;
    line << QPointF(strip.x(*v), y);
    if (const auto d = strip.doubt ? strip.doubt(H) : std::nullopt) {
      more << QPointF(strip.x(*v + *d), y);
      less << QPointF(strip.x(*v - *d), y);
    }
  }
  if (more.size() > 1) {
    QPolygonF band = more;
    for (auto it = less.crbegin(); it != less.crend(); ++it)
      band << *it;
    QColor fill = t.end(desk_.end());
    fill.setAlphaF(0.20F);
    painter.setPen(Qt::NoPen);
    painter.setBrush(fill);
    painter.drawPolygon(band);
  }
  if (strip.other) { // dotted under the tape's own curve: where they part, one of them is doubtful
    for (double y = s.top; y < s.bottom; y += look.px(5))
      if (const auto v = strip.other(s.H(y))) painter.fillRect(QRectF(strip.x(*v) - 1, y - 1, 2.2, 2.2), t.ink);
  }
  painter.setPen(line_pen(2));
  painter.drawPolyline(line);
  for (const Dot& dot : strip.dots) {
    const QPointF p(strip.x(dot.value), s.y(dot.H));
    painter.setBrush(t.panel);
    if (dot.doubtful) { // a triangle: not by colour alone
      const double r = look.px(5);
      painter.setPen(QPen(t.caution, 2));
      painter.drawPolygon(QPolygonF({p + QPointF(0, -r), p + QPointF(r, r * 0.8), p + QPointF(-r, r * 0.8)}));
    } else {
      painter.setPen(QPen(t.end(desk_.end()), 1.4));
      painter.drawEllipse(p, look.px(2.6), look.px(2.6));
    }
  }
  painter.restore();
}

void MotionSheet::paint_figures(QPainter& painter, double y) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const double H = scale().H(y);
  for (const Strip& strip : strips()) {
    const auto v = strip.has_values() ? strip.at(H) : std::nullopt;
    if (!v) continue;
    paint_figure(painter, strip, *v, y,
                 strip.kind == Kind::plain   ? 3
                 : strip.kind == Kind::angle ? 1
                                             : -1,
                 strip.most && *v > *strip.most ? QString("△ ") : QString());
    const auto next = strip.at(H - centimetre);
    if (!next) continue;
    const double by = *next - *v;
    const QString text = tr("−1 cm: %1%2")
                             .arg(by >= 0 ? "+" : "", QString::fromStdString(show_parts(by, strip.kind, desk_.prefs(),
                                                                                        strip.kind == Kind::plain   ? 3
                                                                                        : strip.kind == Kind::angle ? 2
                                                                                                                    : 1)
                                                                                 .number));
    painter.setFont(look.font(TextSize::small));
    const double h = look.px(14);
    const bool below = y + h + 4 < strip.rect.bottom();
    const QRectF box(strip.rect.left() + 1, below ? y + 3 : y - h - look.px(24), strip.rect.width() - 2, h);
    QColor ground = t.panel;
    ground.setAlphaF(0.86F);
    painter.fillRect(box, ground);
    painter.setPen(t.second);
    draw_line(painter, box, Qt::AlignCenter, text);
  }
}

} // namespace mavrel::app
