#include "app/print/fit_up_pdf.h"

#include "app/print/paper.h"
#include "report/drawing_files.h"

#include <QPainterPath>

#include <algorithm>
#include <numbers>

namespace mavrel::app {

using namespace assess;

namespace {

// All in mm of paper.
constexpr double overlap = 10, head = 18, ruler_room = 16, ruler = 100, mark = 4, thin = 0.15, thick = 0.3;

/// One template over pages of a size.
class Tiles {
public:
  Tiles(QPagedPaintDevice& device, QPainter& painter, const QString& foot)
      : device_(device), painter_(painter), foot_(foot) {
    const QSizeF paper = device.pageLayout().paintRect(QPageLayout::Millimeter).size();
    width_ = paper.width();
    height_ = paper.height() - head - ruler_room;
  }

  void draw(const Template& t, int& pages) {
    const double w = t.width() * 1e3, h = t.height() * 1e3;
    int across = tiles(w, width_), up = tiles(h, height_);
    // Turned where that spares joining pages.
    turned_ = across * up > 1 && tiles(h, width_) * tiles(w, height_) == 1;
    if (turned_) across = up = 1;
    for (int row = 0; row < up; ++row)
      for (int column = 0; column < across; ++column) {
        if (pages++ > 0) device_.newPage();
        page(t, column, row, across, up);
      }
  }

private:
  static int tiles(double size, double room) {
    return size <= room ? 1 : 1 + static_cast<int>(std::ceil((size - room) / (room - overlap) - 1e-9));
  }

  void page(const Template& t, int column, int row, int across, int up) {
    painter_.save();
    const double mm = device_.logicalDpiX() / 25.4;
    painter_.scale(mm, mm);
    const bool tiled = across * up > 1;
    text(0, 5, QString::fromStdString(say(t.title)), 4.5, true);
    QString line = QString("%1 × · %2 mm").arg(t.count).arg(t.thickness * 1e3, 0, 'g', 3);
    if (!t.stamp.empty()) line += " · " + QString::fromStdString(t.stamp);
    if (tiled)
      line += QString(" · page %1/%2 (%3 from left, %4 from below)")
                  .arg(row * across + column + 1)
                  .arg(across * up)
                  .arg(column + 1)
                  .arg(row + 1);
    text(0, 10, line, 3, false);
    QStringList measures;
    for (const std::string& measure : report::measures_of(t))
      measures << QString::fromStdString(measure);
    text(0, 14.5, measures.join(" · "), 2.8, false);
    // The tile: what of the drawing lies on this page, its lower left corner at the room's.
    const double left = column * (width_ - overlap), below = row * (height_ - overlap);
    painter_.save();
    painter_.setClipRect(QRectF(0, head, width_, height_));
    painter_.translate(turned_ ? t.height() * 1e3 : 0, head + height_);
    if (turned_) painter_.rotate(-90);
    shapes(t, left, below);
    painter_.restore();
    if (tiled) marks(column, row, across, up);
    scale_ruler();
    painter_.restore();
  }

  void shapes(const Template& t, double left, double below) {
    const auto at = [&](const Flat& p) {
      return QPointF((p.x - t.low.x) * 1e3 - left, -((p.y - t.low.y) * 1e3 - below));
    };
    for (const DrawnShape& s : t.shapes) {
      QPen pen(s.layer == Layer::cut    ? QColor("#1C2426")
               : s.layer == Layer::etch ? QColor("#2D6A3C")
                                        : QColor("#A8281F"),
               s.layer == Layer::cut ? thick : thin);
      painter_.setPen(pen);
      painter_.setBrush(Qt::NoBrush);
      if (const auto* l = std::get_if<DrawnLine>(&s.what)) painter_.drawLine(at(l->from), at(l->to));
      if (const auto* c = std::get_if<DrawnCircle>(&s.what)) {
        const double r = c->radius * 1e3;
        painter_.drawEllipse(at(c->centre), r, r);
        if (s.layer == Layer::drill) { // where the punch goes
          painter_.drawLine(at(c->centre) - QPointF(2, 0), at(c->centre) + QPointF(2, 0));
          painter_.drawLine(at(c->centre) - QPointF(0, 2), at(c->centre) + QPointF(0, 2));
        }
      }
      if (const auto* a = std::get_if<DrawnArc>(&s.what)) {
        const double r = a->radius * 1e3, degree = 180 / std::numbers::pi;
        const QPointF c = at(a->centre);
        QPainterPath path;
        path.arcMoveTo(QRectF(c.x() - r, c.y() - r, 2 * r, 2 * r), a->from * degree);
        path.arcTo(QRectF(c.x() - r, c.y() - r, 2 * r, 2 * r), a->from * degree, (a->to - a->from) * degree);
        painter_.drawPath(path);
      }
    }
    for (const DrawnText& d : t.texts) {
      painter_.save();
      painter_.translate(at(d.at));
      text(0, 0, QString::fromStdString(d.text), d.height * 1e3 / 0.72, false);
      painter_.restore();
    }
  }

  /// Crosses in the middle of each overlap: laid over one another the pages join.
  void marks(int column, int row, int across, int up) {
    painter_.setPen(QPen(QColor("#5B6663"), thin));
    const auto cross = [&](double x, double y) {
      painter_.drawLine(QPointF(x - mark, y), QPointF(x + mark, y));
      painter_.drawLine(QPointF(x, y - mark), QPointF(x, y + mark));
    };
    const double bottom = head + height_;
    for (const double share : {0.2, 0.8}) {
      if (column > 0) cross(overlap / 2, bottom - share * height_);
      if (column + 1 < across) cross(width_ - overlap / 2, bottom - share * height_);
      if (row > 0) cross(share * width_, bottom - overlap / 2);
      if (row + 1 < up) cross(share * width_, head + overlap / 2);
    }
  }

  void scale_ruler() {
    const double y = head + height_ + 6;
    painter_.setPen(QPen(QColor("#1C2426"), thin));
    painter_.drawLine(QPointF(0, y), QPointF(ruler, y));
    for (int i = 0; i <= 10; ++i)
      painter_.drawLine(QPointF(i * ruler / 10, y), QPointF(i * ruler / 10, y + (i % 5 == 0 ? 4 : 2)));
    text(ruler + 3, y + 3, "100 mm: measure it; else print without scaling", 3, false);
    text(0, y + 9, foot_, 2.6, false);
  }

  void text(double x, double y, const QString& words, double mm, bool bold) {
    // Letters are sized in whole pixels: drawn large and made smaller.
    constexpr int large = 100;
    QFont font("Mavrel Text");
    font.setPixelSize(large);
    font.setBold(bold);
    painter_.save();
    painter_.setPen(QColor("#1C2426"));
    painter_.translate(x, y);
    painter_.scale(mm / large, mm / large);
    painter_.setFont(font);
    painter_.drawText(QPointF(0, 0), words);
    painter_.restore();
  }

  QPagedPaintDevice& device_;
  QPainter& painter_;
  QString foot_;
  double width_ = 0, height_ = 0;
  bool turned_ = false; // the template that is drawn now
};

} // namespace

int print_templates(QPagedPaintDevice& device, std::span<const Template> templates, const QString& foot) {
  use_own_fonts();
  QPainter painter(&device);
  Tiles tiles(device, painter, foot);
  int pages = 0;
  for (const Template& t : templates)
    tiles.draw(t, pages);
  return pages;
}

Expected<int> write_templates(std::span<const Template> templates, const QString& title,
                              const std::filesystem::path& path, QPageSize::PageSizeId paper) {
  if (templates.empty()) return refuse(words("There is nothing to draw: the design asks for no plates."));
  return write_pdf(path, title, paper,
                   [&](QPagedPaintDevice& device) { return print_templates(device, templates, title); });
}

int print_leaves(QPagedPaintDevice& device, const std::vector<report::Leaf>& leaves, const QString& foot) {
  use_own_fonts();
  constexpr double apart = 16; // points between two on one page
  paper::Pages pages(device, foot);
  for (std::size_t i = 0; i < leaves.size(); ++i) {
    if (i > 0 && leaves[i].begins) pages.new_page();
    pages.skip(apart);
    paper::Text text(leaves[i].html, pages.width());
    pages.add(text);
  }
  return pages.count();
}

Expected<int> write_leaves(const std::vector<report::Leaf>& leaves, const QString& title,
                           const std::filesystem::path& path, QPageSize::PageSizeId paper) {
  if (leaves.empty()) return refuse(words("Nothing to hang up: every job is done."));
  return write_pdf(path, title, paper, [&](QPagedPaintDevice& device) { return print_leaves(device, leaves, title); });
}

} // namespace mavrel::app
