#include "app/stages/air/run_view.h"

#include "app/kit/drawing.h"
#include "app/stages/air/questions.h"
#include "app/theme/text_line.h"

#include <QCoreApplication>
#include <QHelpEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>

#include <cmath>

namespace mavrel::app {

using assess::KitRole;

namespace {

constexpr int columns = 9;
constexpr int compressor_column = 0, tank_column = 4, feed_column = 5, valve_column = 6, line_column = 7,
              bag_column = 8;
constexpr double most_half = 15; // px of half the widest part

/// In a few letters, where the place says the rest.
QString short_name(KitRole role) {
  switch (role) {
  case KitRole::second_compressor:
  case KitRole::second_tank:
    return QCoreApplication::translate("RunView", "and a second");
  case KitRole::feed_fitting:
    return QCoreApplication::translate("RunView", "its fittings");
  case KitRole::feed_line:
    return QCoreApplication::translate("RunView", "feed line");
  default:
    return QCoreApplication::translate("RunView", assess::row_of(role).label);
  }
}

/// Dotted where there is none: a place to put one.
QPen hollow(const Tokens& t) {
  return {t.second, 1, Qt::DotLine};
}

} // namespace

RunView::RunView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("run_view");
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Run of air"));
  setMinimumHeight(desk_.look().px(214));
  setMaximumHeight(desk_.look().px(214));
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      setMinimumHeight(desk_.look().px(214));
      setMaximumHeight(desk_.look().px(214));
      describe();
      update();
    });
  describe();
}

const std::vector<RunView::Station>& RunView::stations() {
  static const std::vector<Station> all = {
      {KitRole::compressor, 0, 0},    {KitRole::second_compressor, 0, 1},
      {KitRole::check_valve, 1, 0},   {KitRole::trap, 2, 0},
      {KitRole::dryer, 3, 0},         {KitRole::pressure_switch, 3, 1},
      {KitRole::relief, 3, 2},        {KitRole::tank, 4, 0},
      {KitRole::second_tank, 4, 1},   {KitRole::drain, 4, 2},
      {KitRole::feed_line, 5, 0},     {KitRole::feed_fitting, 5, 1},
      {KitRole::valves, 6, 0},        {KitRole::silencer, 6, 1},
      {KitRole::gauge, 6, 2},         {KitRole::front_line, 7, 0},
      {KitRole::front_fitting, 8, 0}, {KitRole::rear_line, 7, 1},
      {KitRole::rear_fitting, 8, 1},  {KitRole::switches, 7, 2},
      {KitRole::sensor, 8, 2},
  };
  return all;
}

double RunView::run_y() const {
  return desk_.look().px(84);
}

double RunView::branch_y(int circuit, int count) const {
  const double step = desk_.look().px(count > 2 ? 24 : 44);
  return run_y() + (circuit - (count - 1) / 2.0) * step;
}

QRectF RunView::station(const Station& s) const {
  const Look& look = desk_.look();
  const double w = (width() - look.px(8)) / static_cast<double>(columns), x = look.px(4) + s.column * w;
  const bool behind = s.column >= line_column;
  if (behind) { // names of the branches stand above and below them
    const double y = s.row == 0 ? look.px(4) : s.row == 1 ? look.px(134) : look.px(172);
    return {x, y, w, static_cast<double>(look.px(32))};
  }
  if (s.row == 0) return {x, static_cast<double>(look.px(4)), w, run_y() + look.px(22) - look.px(4)};
  return {x, static_cast<double>(look.px(134 + 38 * (s.row - 1))), w, static_cast<double>(look.px(34))};
}

QRectF RunView::place_of(KitRole role) const {
  for (const Station& s : stations())
    if (s.role == role) return station(s);
  return {};
}

void RunView::hold(KitRole role) {
  held_ = role;
  describe();
  update();
}

void RunView::show_throttles(const std::vector<assess::Throttle>* throttles) {
  throttles_ = throttles;
  describe();
  update();
}

QString RunView::told(KitRole role) const {
  const assess::AirGiven& air = air_of(desk_);
  const auto& row = assess::row_of(role);
  const QString name = QString::fromStdString(air.kit.*row.name);
  QString out = tr(row.label) + ": " + (name.isEmpty() ? tr("none") : name);
  if (const shelf::Part* part = air.parts[role]) {
    if (part->conductance) out += ", " + desk_.shown(*part->conductance, Kind::conductance);
    if (part->bore) out += ", " + tr("bore %1").arg(desk_.shown(*part->bore, Kind::length, 1));
    if (part->volume) out += ", " + desk_.shown(*part->volume, Kind::volume, 1);
    if (part->cut_out)
      out += ", " + tr("on at %1, off at %2")
                        .arg(desk_.shown(*part->cut_in, Kind::pressure), desk_.shown(*part->cut_out, Kind::pressure));
  } else if (!name.isEmpty()) {
    out += ", " + tr("not on the shelf");
  }
  if (throttles_)
    for (const assess::Throttle& t : *throttles_)
      if (t.role == role) out += ", " + tr("%1 of the loss").arg(desk_.shown(t.share, Kind::share));
  return out;
}

void RunView::describe() {
  QStringList words;
  for (const Station& s : stations())
    words << told(s.role);
  setAccessibleDescription((held_ ? told(*held_) + ". " : QString()) + words.join(". "));
}

void RunView::paint_flow(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const assess::AirGiven& air = air_of(desk_);
  const double w = (width() - look.px(8)) / static_cast<double>(columns);
  const auto x_of = [&](double column) { return look.px(4) + column * w; };
  // Everything on one scale: the width is the conductance's root, as a pipe's bore is.
  double most = 1e-9;
  const auto circuits = assess::circuits_of(air);
  struct Piece {
    double from, to, C, y;
    QColor colour;
    KitRole role;
  };
  std::vector<Piece> pieces;
  const QColor main = t.second;
  for (const auto& [role, column] :
       {std::pair{KitRole::check_valve, 1.0}, std::pair{KitRole::trap, 2.0}, std::pair{KitRole::dryer, 3.0}})
    if (const shelf::Part* part = air.parts[role])
      pieces.push_back({column, column + 1, part->conductance.value_or(0), run_y(), main, role});
    else
      pieces.push_back({column, column + 1, 0, run_y(), main, role});
  for (std::size_t i = 0; i < circuits.size(); ++i) {
    const auto way = assess::way_to_bag(air, circuits[i].front());
    if (!way) continue;
    const double y = branch_y(static_cast<int>(i), static_cast<int>(circuits.size()));
    const QColor colour = t.end(circuits[i].front() < 2 ? End::front : End::rear);
    // A fitting is drawn with its line: both as one.
    const auto together = [&](KitRole line, KitRole fitting) {
      std::vector<assess::AirStep> both;
      for (const assess::AirStep& step : *way)
        if (step.role == line || step.role == fitting) both.push_back(step);
      return both.empty() ? 0 : assess::whole_way(both).conductance;
    };
    const bool front = circuits[i].front() < 2;
    if (i == 0)
      pieces.push_back({feed_column, feed_column + 1, together(KitRole::feed_line, KitRole::feed_fitting), run_y(),
                        main, KitRole::feed_line});
    pieces.push_back({valve_column + 0.35, line_column, air.parts[KitRole::valves]->conductance.value_or(0), y, colour,
                      KitRole::valves});
    pieces.push_back({line_column, bag_column + 0.45,
                      together(front ? KitRole::front_line : KitRole::rear_line,
                               front ? KitRole::front_fitting : KitRole::rear_fitting),
                      y, colour, front ? KitRole::front_line : KitRole::rear_line});
  }
  double least = 1;
  std::size_t narrowest = pieces.size();
  for (const Piece& p : pieces)
    most = std::max(most, p.C);
  for (std::size_t i = 0; i < pieces.size(); ++i) // on the way from tank to bag
    if (pieces[i].role >= KitRole::feed_fitting && pieces[i].C > 0 && pieces[i].C < least)
      least = pieces[i].C, narrowest = i;
  const double half_most = look.px(circuits.size() > 2 ? 10 : most_half);
  const auto half = [&](double C) { return std::max(1.0, half_most * std::sqrt(C / most)); };
  painter.setRenderHint(QPainter::Antialiasing);
  // From the compressor to the check valve, and inside the block from the feed to its ways.
  painter.setPen(QPen(t.second, 2));
  painter.drawLine(QPointF(x_of(compressor_column) + w * 0.5, run_y()), QPointF(x_of(1) + 2, run_y()));
  for (std::size_t i = 0; i < pieces.size(); ++i) {
    const Piece& p = pieces[i];
    if (!(p.C > 0)) {
      painter.setPen(hollow(t));
      painter.drawLine(QPointF(x_of(p.from), p.y), QPointF(x_of(p.to), p.y));
      continue;
    }
    const double h = half(p.C);
    QColor fill = p.colour;
    fill.setAlphaF(i == narrowest ? 0.95F : 0.45F);
    painter.setPen(QPen(p.colour, 1));
    painter.setBrush(fill);
    painter.drawRect(QRectF(x_of(p.from), p.y - h, x_of(p.to) - x_of(p.from), 2 * h));
  }
  // Tank and valves, over the ribbons.
  painter.setBrush(t.panel);
  painter.setPen(QPen(t.ink, 1.4));
  const double V = assess::tank_volume(air.parts);
  const QRectF tank(x_of(tank_column) + w * 0.06, run_y() - look.px(20), w * 0.88, look.px(40));
  if (!(V > 0)) painter.setPen(hollow(t));
  painter.drawRoundedRect(tank, tank.height() / 2, tank.height() / 2);
  painter.setPen(t.ink);
  painter.setFont(look.font(TextSize::normal, true));
  if (V > 0) draw_line(painter, tank, Qt::AlignCenter, desk_.shown(V, Kind::volume, 0));
  const double reach = branch_y(static_cast<int>(circuits.size()) - 1, static_cast<int>(circuits.size())) - run_y();
  const QRectF block(x_of(valve_column) + w * 0.1, run_y() - reach - look.px(12), w * 0.3, 2 * reach + look.px(24));
  painter.setPen(air.parts[KitRole::valves] ? QPen(t.ink, 1.4) : hollow(t));
  painter.setBrush(t.panel);
  painter.drawRect(block);
  painter.setPen(QPen(t.ink, 1.2));
  for (std::size_t i = 0; i < circuits.size() && air.parts[KitRole::valves]; ++i) { // a valve each: its sign is a waist
    const double y = branch_y(static_cast<int>(i), static_cast<int>(circuits.size())), s = look.px(5);
    const double x = block.center().x();
    painter.setBrush(Qt::NoBrush);
    painter.drawPolygon(
        QPolygonF{{QPointF(x - s, y - s), QPointF(x - s, y + s), QPointF(x + s, y - s), QPointF(x + s, y + s)}});
  }
  // Compressors: as many bars as there are.
  for (int i = 0; i < 2; ++i) {
    const shelf::Part* part = air.parts[i == 0 ? KitRole::compressor : KitRole::second_compressor];
    if (i == 1 && !part) continue;
    const QRectF box(x_of(compressor_column) + w * 0.22 + i * look.px(13), run_y() - look.px(15) + i * look.px(6),
                     w * 0.36, look.px(26));
    painter.setPen(part ? QPen(t.ink, 1.4) : hollow(t));
    painter.setBrush(t.panel);
    painter.drawRect(box);
    if (part)
      painter.drawLine(box.topLeft() + QPointF(0, box.height() * 0.35),
                       box.topRight() + QPointF(0, box.height() * 0.35));
  }
  // Bags, at the ends of their branches.
  for (std::size_t i = 0; i < circuits.size(); ++i) {
    const double y = branch_y(static_cast<int>(i), static_cast<int>(circuits.size()));
    const QColor colour = t.end(circuits[i].front() < 2 ? End::front : End::rear);
    for (std::size_t k = 0; k < circuits[i].size(); ++k) {
      const double x = x_of(bag_column) + w * (0.45 + 0.23 * static_cast<double>(k));
      const QRectF bag(x, y - look.px(9), w * 0.2, look.px(18));
      painter.setPen(QPen(colour, 1.6));
      painter.setBrush(t.panel);
      painter.drawRoundedRect(bag, look.px(5), look.px(5));
      painter.setFont(look.font(TextSize::small));
      const char* letters[] = {"FL", "FR", "RL", "RR"};
      painter.setPen(colour);
      draw_line(painter, bag, Qt::AlignCenter, letters[circuits[i][k]]);
    }
  }
  if (narrowest < pieces.size() && throttles_ && !throttles_->empty()) {
    const Piece& p = pieces[narrowest];
    const double x = (x_of(p.from) + x_of(p.to)) / 2 - w * 0.08, y = p.y + half(p.C) + look.px(4), s = look.px(4);
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.caution);
    painter.drawPolygon(QPolygonF{{QPointF(x, y), QPointF(x - s, y + 1.7 * s), QPointF(x + s, y + 1.7 * s)}});
  }
}

void RunView::paint_station(QPainter& painter, const Station& s) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const assess::AirGiven& air = air_of(desk_);
  const auto& row = assess::row_of(s.role);
  const QString name = QString::fromStdString(air.kit.*row.name);
  const bool missing = !name.isEmpty() && !air.parts[s.role];
  const QRectF box = station(s);
  if (held_ == s.role) {
    painter.setPen(hasFocus() ? QPen(t.front, 1.4) : QPen(t.rule, 1));
    painter.setBrush(t.selected);
    painter.setOpacity(s.row == 0 && s.column < line_column ? 0.6 : 1);
    painter.drawRect(box.adjusted(0.5, 0.5, -0.5, -0.5));
    painter.setOpacity(1);
  }
  const QRectF line(box.left() + look.px(3), box.top() + look.px(1), box.width() - look.px(6), look.px(15));
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  draw_line(painter, line, Qt::AlignLeft | Qt::AlignVCenter,
            painter.fontMetrics().elidedText(short_name(s.role), Qt::ElideRight, static_cast<int>(line.width())));
  const assess::Throttle* throttle = nullptr;
  if (throttles_)
    for (const assess::Throttle& one : *throttles_)
      if (one.role == s.role && one.share > 0.25) throttle = &one;
  if (throttle) {
    painter.setPen(t.caution);
    draw_line(painter, line, Qt::AlignRight | Qt::AlignVCenter, desk_.shown(throttle->share, Kind::share));
  }
  painter.setPen(missing ? t.stop : name.isEmpty() ? t.second : t.ink);
  painter.setFont(look.font(TextSize::small, !name.isEmpty()));
  const QString text = missing ? "□ " + name : name.isEmpty() ? tr("none") : name;

  draw_line(painter, line.translated(0, look.px(15)), Qt::AlignLeft | Qt::AlignVCenter,
            painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(line.width())));
}

void RunView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  paint_backdrop(painter, rect(), desk_.look());
  for (const Station& s : stations())
    if (held_ == s.role) paint_station(painter, s); // its ground lies under the ribbons
  paint_flow(painter);
  for (const Station& s : stations())
    if (held_ != s.role) paint_station(painter, s);
}

std::optional<KitRole> RunView::at(const QPointF& where) const {
  for (const Station& s : stations())
    if (station(s).contains(where)) return s.role;
  return std::nullopt;
}

void RunView::mousePressEvent(QMouseEvent* event) {
  const auto role = at(event->position());
  if (!role) return;
  hold(*role);
  offer();
}

void RunView::offer() {
  if (!held_) return;
  const auto& row = assess::row_of(*held_);
  const assess::AirGiven& air = air_of(desk_);
  const shelf::PartKind kind = assess::kind_for(*held_, air.kit);
  const std::string now = air.kit.*row.name;
  auto* menu = new QMenu(this);
  menu->setObjectName("part_menu");
  menu->setAttribute(Qt::WA_DeleteOnClose);
  const auto add = [&](const QString& shown, const std::string& name) {
    auto* action = menu->addAction(shown, this, [this, field = QString("@.air.%1").arg(row.field), name] {
      if (const auto wrong = desk_.type(field, QString::fromStdString(name))) desk_.refuse(*wrong);
    });
    action->setCheckable(true);
    action->setChecked(name == now);
    if (name == now) menu->setActiveAction(action);
  };
  add(tr("none"), "");
  for (const shelf::ShelfPart& part : desk_.shelf().parts) {
    if (part.part.kind != kind) continue;
    QString shown = QString::fromStdString(part.part.name);
    if (part.part.conductance) shown += " · " + desk_.shown(*part.part.conductance, Kind::conductance);
    if (part.part.volume) shown += " · " + desk_.shown(*part.part.volume, Kind::volume, 1);
    if (part.part.cut_out) shown += " · " + desk_.shown(*part.part.cut_out, Kind::pressure);
    if (part.part.opens_at) shown += " · " + desk_.shown(*part.part.opens_at, Kind::pressure);
    if (!part.part.curve.empty())
      shown += " · " + tr("%1 at %2")
                           .arg(desk_.shown(shelf::air_of(part.part, 8e5, *part.part.voltage), Kind::air_flow),
                                desk_.shown(8e5, Kind::pressure, 0));
    add(shown, part.part.name);
  }
  menu->popup(mapToGlobal(place_of(*held_).bottomLeft().toPoint()));
}

void RunView::keyPressEvent(QKeyEvent* event) {
  const auto& all = stations();
  const auto index = [&] {
    for (std::size_t i = 0; i < all.size(); ++i)
      if (held_ == all[i].role) return i;
    return all.size();
  }();
  switch (event->key()) {
  case Qt::Key_Right:
  case Qt::Key_Down:
    return hold(all[index + 1 < all.size() ? index + 1 : 0].role);
  case Qt::Key_Left:
  case Qt::Key_Up:
    return hold(all[index > 0 && index < all.size() ? index - 1 : all.size() - 1].role);
  case Qt::Key_Return:
  case Qt::Key_Enter:
  case Qt::Key_Space:
    return offer();
  case Qt::Key_Delete:
    if (held_)
      if (const auto wrong = desk_.type(QString("@.air.%1").arg(assess::row_of(*held_).field), ""))
        desk_.refuse(*wrong);
    return;
  default:
    QWidget::keyPressEvent(event);
  }
}

bool RunView::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    auto* help = static_cast<QHelpEvent*>(event);
    const auto role = at(help->pos());
    QToolTip::showText(help->globalPos(), role ? told(*role) : QString(), this);
    return true;
  }
  if (event->type() == QEvent::FocusIn || event->type() == QEvent::FocusOut) update();
  return QWidget::event(event);
}

} // namespace mavrel::app
