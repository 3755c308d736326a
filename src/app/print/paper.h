// What goes on paper: rich text laid out in points, and pages that are filled from the top. Shared by the sheets.
#pragma once

#include <QAbstractTextDocumentLayout>
#include <QImage>
#include <QPageLayout>
#include <QPagedPaintDevice>
#include <QPainter>
#include <QSvgRenderer>
#include <QTextDocument>

#include <cmath>
#include <functional>
#include <string>
#include <utility>

namespace mavrel::app::paper {

inline constexpr double margin_mm = 16;
inline constexpr double points_per_inch = 72;
inline constexpr double foot = 24; // points at the foot of every page

inline const char* const style = R"(
  body, p, td, th, h1, h2 { font-family: 'Mavrel Text'; color: #1C2426; }
  body { font-size: 9pt; }
  h1 { font-size: 24pt; margin-top: 0px; margin-bottom: 4px; }
  h2 { font-size: 13pt; margin-top: 0px; margin-bottom: 6px; }
  p { margin-top: 0px; margin-bottom: 5px; }
  .second { color: #5B6663; }
  table { border-collapse: collapse; margin-bottom: 6px; }
  th { font-weight: bold; color: #5B6663; border-bottom: 1px solid #1C2426; }
  td { border-bottom: 0.5px solid #C8CDC4; }
)";

/// A text laid out in points, whatever it is painted on.
class Text {
public:
  Text(const std::string& html, double width) : canvas_(1, 1, QImage::Format_ARGB32) {
    canvas_.setDotsPerMeterX(static_cast<int>(std::lround(points_per_inch / 0.0254)));
    canvas_.setDotsPerMeterY(canvas_.dotsPerMeterX());
    document_.documentLayout()->setPaintDevice(&canvas_);
    document_.setDefaultStyleSheet(style);
    document_.setDocumentMargin(0);
    QFont font("Mavrel Text");
    font.setPointSizeF(9);
    document_.setDefaultFont(font);
    document_.setHtml(QString::fromStdString("<html><body>" + html + "</body></html>"));
    document_.setTextWidth(width);
  }
  [[nodiscard]] double height() const { return document_.size().height(); }
  /// Cut into pages of this height, rows whole, heads repeated. @returns how many
  int cut(double page_height) {
    document_.setPageSize(QSizeF(document_.textWidth(), page_height));
    return document_.pageCount();
  }
  /// @param slice  of the text, which is painted at the painter's origin
  void paint(QPainter& painter, const QRectF& slice) {
    painter.save();
    painter.translate(0, -slice.top());
    painter.setClipRect(slice);
    QAbstractTextDocumentLayout::PaintContext context;
    context.clip = slice;
    context.palette.setColor(QPalette::Text, QColor("#1C2426"));
    document_.documentLayout()->draw(&painter, context);
    painter.restore();
  }

private:
  QImage canvas_;
  QTextDocument document_;
};

/// The pages as they are filled from the top.
class Pages {
public:
  Pages(QPagedPaintDevice& device, QString name)
      : device_(device), painter_(&device), name_(std::move(name)),
        size_(device.pageLayout().paintRect(QPageLayout::Point).size()) {
    const double scale = device.logicalDpiX() / points_per_inch;
    painter_.scale(scale, scale);
    write_foot();
  }
  [[nodiscard]] double width() const { return size_.width(); }
  [[nodiscard]] double height() const { return size_.height() - foot; }
  [[nodiscard]] double left() const { return height() - y_; }
  [[nodiscard]] int count() const { return count_; }

  void new_page() {
    device_.newPage();
    ++count_;
    y_ = 0;
    write_foot();
  }
  void skip(double by) {
    if (y_ > 0) y_ += by;
  }

  /// On this page if it fits, else on the next; what fits on no page is cut between its rows.
  void add(Text& text) {
    const double whole = text.height();
    if (whole > left() && y_ > 0) new_page();
    if (whole <= left()) {
      paint_at(text, QRectF(0, 0, width(), whole));
      return;
    }
    const int pages = text.cut(height());
    for (int i = 0; i < pages; ++i) {
      if (i > 0) new_page();
      const double from = i * height(), used = std::min(height(), text.height() - from);
      paint_at(text, QRectF(0, from, width(), used));
    }
  }

  /// A picture as wide as the page.
  void add_picture(const std::string& svg, double height_over_width) {
    const QRectF room(0, y_, width(), width() * height_over_width);
    QSvgRenderer renderer(QByteArray::fromStdString(svg));
    renderer.render(&painter_, room);
    y_ = room.bottom();
  }
  /// A picture over the rest of the page.
  void fill_with(const std::function<std::string(double width, double height)>& svg) {
    const QRectF room(0, y_, width(), left());
    QSvgRenderer renderer(QByteArray::fromStdString(svg(room.width(), room.height())));
    renderer.render(&painter_, room);
    y_ = height();
  }

private:
  void paint_at(Text& text, const QRectF& slice) {
    painter_.save();
    painter_.translate(0, y_);
    text.paint(painter_, slice);
    painter_.restore();
    y_ += slice.height();
  }
  void write_foot() {
    QFont small("Mavrel Text");
    small.setPixelSize(8);
    painter_.setFont(small);
    painter_.setPen(QColor("#5B6663"));
    const QRectF line(0, size_.height() - 12, size_.width(), 12);
    painter_.drawText(line, Qt::AlignLeft | Qt::AlignBottom, name_);
    painter_.drawText(line, Qt::AlignRight | Qt::AlignBottom, QString::number(count_));
  }

  QPagedPaintDevice& device_;
  QPainter painter_;
  QString name_;
  QSizeF size_;
  double y_ = 0;
  int count_ = 1;
};

} // namespace mavrel::app::paper
