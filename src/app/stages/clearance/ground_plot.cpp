#include "app/stages/clearance/ground_plot.h"

#include "app/desk/desk.h"
#include "app/theme/text_line.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QMouseEvent>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::GroundPlane;
using build::at;
using build::End;

namespace {
constexpr double past_reach = 0.03; // m looked at above what is known: what would get over it is worth knowing
} // namespace

GroundPlot::GroundPlot(Desk& desk, QWidget* parent)
    : HeightPlot(desk, parent), planes_(
                                    desk.answers(),
                                    [this] {
                                      redraw();
                                      emit answered();
                                    },
                                    [this] { return given(); }) {
  planes_.set_moved([this] { redraw(); });
  setObjectName("ground_plot");
  setAccessibleName(tr("Front against rear height"));
  setCursor(Qt::CrossCursor);
  for (const auto signal : {&Desk::changed, &Desk::looked_at})
    connect(&desk_, signal, this, &GroundPlot::ask);
}

void GroundPlot::showEvent(QShowEvent* event) {
  HeightPlot::showEvent(event);
  ask();
}

End GroundPlot::other() const {
  return desk_.end() == End::front ? End::rear : End::front;
}

void GroundPlot::set_order(assess::Order order) {
  order_ = order;
  redraw();
  emit answered();
}

void GroundPlot::ask() {
  if (isVisible()) planes_.want();
}

std::optional<GroundsGiven> GroundPlot::given() const {
  GroundsGiven out{desk_.assessment().ground.given(), {}, {}, 14};
  if (out.ground.grounds.empty() || !desk_.assessment().ground->known) return std::nullopt;
  for (const End end : build::both_ends) {
    const auto& e = desk_.assessment().end(end);
    if (!e.has_domain()) return std::nullopt;
    out.low[at(end)] = e.domain_low;
    out.high[at(end)] = e.domain_high + past_reach;
  }
  return out;
}

HeightPlot::Column GroundPlot::column() const {
  Column c;
  c.rect = plot();
  c.kind = Kind::length;
  const auto& e = desk_.assessment().end(other());
  c.low = e.domain_low;
  c.high = e.domain_high;
  return c;
}

QPointF GroundPlot::place_of(const std::array<double, 2>& H) const {
  return {column().x(H[at(other())]), scale().y(H[at(desk_.end())])};
}

QString GroundPlot::summary() const {
  const auto& ground = desk_.assessment().ground;
  if (ground.given().grounds.empty())
    return tr("Nothing on the ground to get over yet: add a speed bump, a kerb, a ramp.");
  if (!ground->known) return tr("What of the car is low, or a preset, is missing: nothing can be driven over yet.");
  QStringList parts;
  for (const assess::Crossing& c : ground->crossings) {
    const build::Ground& g = ground.given().grounds[c.ground];
    const QString name = QString::fromStdString(g.name);
    if (!c.gap)
      parts << tr("%1: too steep to stand on").arg(name);
    else if (c.gap->gap < 0)
      parts << tr("%1: %2 touches by %3")
                   .arg(name, QString::fromStdString(c.point), desk_.shown(-c.gap->gap, Kind::length, 0));
    else
      parts << tr("%1: %2 clears by %3")
                   .arg(name, QString::fromStdString(c.point), desk_.shown(c.gap->gap, Kind::length, 0));
  }
  return parts.join("; ") + (parts.isEmpty() ? tr("No preset is for any of it.") : QString("."));
}

void GroundPlot::paint_ground(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  paint_axis(painter);
  const Column c = column();
  const HeightScale s = scale();
  painter.fillRect(c.rect, t.panel);
  painter.setPen(QPen(t.rule, 1));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(c.rect);
  paint_head(painter, c.rect,
             tr("%1 height upwards, %2 height sideways")
                 .arg(tr(build::name_of(desk_.end())), tr(build::name_of(other())).toLower()),
             QString::fromStdString(unit_name(Kind::length, desk_.prefs())));
  const auto& ground = desk_.assessment().ground;
  if (!c.has_values() || ground.given().grounds.empty() || !ground->known) {
    painter.setFont(look.font());
    painter.setPen(t.second);
    painter.drawText(c.rect.adjusted(20, 0, -20, 0), Qt::AlignCenter | Qt::TextWordWrap, summary());
    return;
  }
  paint_values(painter, c);
  painter.save();
  painter.setClipRect(c.rect);
  // What each thing forbids: hatched, one leaning against the other, and named at its border.
  struct Label {
    QPointF at;
    QString text;
  };
  std::vector<Label> labels;
  if (planes_.value()) {
    const auto& planes = planes_.value()->planes;
    for (std::size_t g = 0; g < planes.size() && g < ground.given().grounds.size(); ++g) {
      if (!planes[g]) continue;
      const GroundPlane& p = *planes[g];
      const bool front_up = desk_.end() == End::front;
      const auto& up = front_up ? p.front : p.rear;
      const auto& across = front_up ? p.rear : p.front;
      QPolygonF edge; // for each place across, the lowest height that clears
      for (std::size_t k = 0; k < across.size(); ++k) {
        const auto gap = [&](std::size_t i) { return front_up ? p.at(i, k) : p.at(k, i); };
        double H = up.back() + 0.05;
        for (std::size_t i = up.size(); i-- > 0;) {
          if (gap(i) < 0) {
            if (i + 1 < up.size()) H = std::lerp(up[i], up[i + 1], -gap(i) / (gap(i + 1) - gap(i)));
            break;
          }
          H = i == 0 ? up.front() - 0.05 : H;
        }
        edge << QPointF(c.x(across[k]), s.y(H));
      }
      QPolygonF region = edge;
      region.prepend(QPointF(c.rect.left(), edge.front().y()));
      region.append(QPointF(c.rect.right(), edge.back().y()));
      QPolygonF border = region;
      region << c.rect.bottomRight() << c.rect.bottomLeft();
      QPainterPath path;
      path.addPolygon(region);
      painter.save();
      painter.setClipPath(path, Qt::IntersectClip);
      hatch(painter, c.rect, g % 2 ? t.hatch_reserve : t.hatch_stop, g % 2,
            look.px(9 + 2.0 * static_cast<double>(g / 2)));
      painter.restore();
      painter.setRenderHint(QPainter::Antialiasing);
      painter.setPen(QPen(g % 2 ? t.caution : t.stop, 1.6, g % 2 ? Qt::DashLine : Qt::SolidLine));
      painter.drawPolyline(border);
      const QPointF middle =
          edge[static_cast<qsizetype>(std::min<std::size_t>(static_cast<std::size_t>(edge.size()) - 1, 1 + 3 * g))];
      labels.push_back({middle, QString::fromStdString(ground.given().grounds[g].name)});
    }
  } else if (planes_.is_running()) {
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.second);
    draw_line(painter, c.rect, Qt::AlignCenter,
              tr("driving over all of it … %1 %").arg(std::lround(100 * planes_.done())));
  }
  painter.setRenderHint(QPainter::Antialiasing);
  // Presets, and the ways between them.
  const auto& presets = desk_.build().variant().brief.presets;
  struct Spot {
    std::array<double, 2> H;
    QString name;
  };
  std::vector<Spot> spots;
  for (std::size_t i = 0; i < ground.given().presets.size() && i < presets.size(); ++i) {
    const auto& H = ground.given().presets[i].H;
    if (H[0] && H[1]) spots.push_back({{*H[0], *H[1]}, QString::fromStdString(presets[i].name)});
  }
  for (std::size_t i = 1; i < spots.size(); ++i) {
    const auto &from = spots[i - 1].H, &to = spots[i].H;
    QPolygonF way;
    way << place_of(from);
    if (order_ == assess::Order::front_first) way << place_of({to[0], from[1]});
    if (order_ == assess::Order::rear_first) way << place_of({from[0], to[1]});
    way << place_of(to);
    const auto least = assess::least_on_the_way(ground.given(), {}, 0, from, to, order_);
    const bool touches = least && least->gap < 0;
    painter.setPen(QPen(touches ? t.stop : t.ink, touches ? 2.2 : 1.4, Qt::DotLine));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(way);
  }
  painter.setFont(look.font(TextSize::small, true));
  std::vector<QRectF> written;
  const auto write = [&](QRectF box, const QString& text, const QColor& ink) {
    box.moveLeft(std::clamp(box.left(), c.rect.left() + 2, c.rect.right() - box.width() - 2));
    box.moveTop(std::clamp(box.top(), c.rect.top() + 2, c.rect.bottom() - box.height() - 2));
    for (int round = 0; round < 4; ++round)
      for (const QRectF& other : written)
        if (other.intersects(box)) box.moveTop(other.bottom() + 1);
    if (box.bottom() > c.rect.bottom()) return;
    written.push_back(box);
    QColor paper = t.panel;
    paper.setAlphaF(0.92F);
    painter.fillRect(box, paper);
    painter.setPen(ink);
    draw_line(painter, box, Qt::AlignCenter, text);
  };
  for (const Spot& spot : spots) {
    const QPointF p = place_of(spot.H);
    painter.setPen(QPen(t.ink, 1.6));
    painter.setBrush(t.panel);
    painter.drawEllipse(p, look.px(4.5), look.px(4.5));
    const double w = QFontMetricsF(painter.font()).horizontalAdvance(spot.name) + look.px(6);
    write({p.x() + look.px(7), p.y() - look.px(16), w, double(look.px(15))}, spot.name, t.ink);
  }
  painter.setFont(look.font(TextSize::small));
  for (const Label& label : labels) {
    const double w = QFontMetricsF(painter.font()).horizontalAdvance(label.text) + look.px(6);
    write({label.at.x() - w / 2, label.at.y() + look.px(4), w, double(look.px(15))}, label.text, t.second);
  }
  painter.restore();
}

void GroundPlot::paint_figures(QPainter& painter, double y) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const Column c = column();
  const auto H = desk_.pose(other());
  if (!H || !c.has_values()) return;
  const double x = c.x(*H);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(t.end(other()), 1.2, other() == End::front ? Qt::SolidLine : Qt::DashLine));
  painter.drawLine(QPointF(x, c.rect.top()), QPointF(x, c.rect.bottom()));
  painter.setPen(QPen(t.end(desk_.end()), 2));
  painter.setBrush(t.panel);
  painter.drawEllipse(QPointF(x, y), look.px(5), look.px(5));
}

void GroundPlot::pose_other(double x) {
  const Column c = column();
  if (!c.has_values() || c.rect.width() <= 0) return;
  const double H = c.low + (x - c.rect.left()) / c.rect.width() * (c.high - c.low);
  desk_.set_pose(other(), std::round(H * 1e3) * 1e-3);
}

void GroundPlot::mousePressEvent(QMouseEvent* event) {
  HeightPlot::mousePressEvent(event);
  if (event->button() == Qt::LeftButton) pose_other(event->position().x());
}

void GroundPlot::mouseMoveEvent(QMouseEvent* event) {
  HeightPlot::mouseMoveEvent(event);
  if (event->buttons() & Qt::LeftButton) pose_other(event->position().x());
}

} // namespace mavrel::app
