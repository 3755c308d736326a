#include "app/print/sheet_pdf.h"

#include "file/text_file.h"
#include "report/air_sheet.h"
#include "report/build_sheet.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QFontDatabase>
#include <QGuiApplication>
#include <QLocale>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgRenderer>
#include <QTextDocument>

#include <cmath>
#include <functional>

// Resources in a static library are only there once asked for, and outside any namespace.
static void init_fonts() {
  Q_INIT_RESOURCE(fonts);
}

namespace mavrel::app {

namespace {

constexpr double margin_mm = 16;
constexpr double points_per_inch = 72;
constexpr double foot = 24;         // points at the foot of every page
constexpr double between = 20;      // points above a section
constexpr double least_posts = 300; // points of height the posts are drawn in at least

const char* const style = R"(
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

} // namespace

void use_own_fonts() {
  static const bool once = [] {
    init_fonts();
    for (const char* name : {"Regular", "Bold", "Italic"})
      QFontDatabase::addApplicationFont(QString(":/fonts/%1.otf").arg(name));
    return true;
  }();
  Q_UNUSED(once)
}

int print_sheet(QPagedPaintDevice& device, const build::Build& build, const assess::Assessment& assessment,
                const UnitPrefs& prefs) {
  use_own_fonts();
  const report::SheetParts parts = report::build_sheet(build, assessment, prefs);
  Pages pages(device, QString::fromStdString(build.job.car + " · " + build.variant().name));
  // The first page hangs on the wall: the car's name and the posts, as large as the page allows.
  Text head(parts.head, pages.width());
  pages.add(head);
  pages.skip(between);
  if (pages.left() < least_posts) pages.new_page(); // somebody wrote a long story
  pages.fill_with(
      [&](double width, double height) { return report::windows_svg(build, assessment, prefs, width, height); });
  pages.new_page();
  for (const std::string& section : parts.sections) {
    Text text(section, pages.width());
    pages.skip(between);
    pages.add(text);
  }
  // The air's two pages come first, each with its picture.
  const std::string* pictures[] = {&parts.air_svg, &parts.wiring_svg};
  for (std::size_t i = 0; i < parts.pages.size(); ++i) {
    const std::string& page = parts.pages[i];
    pages.new_page();
    if (!parts.air_svg.empty() && i < 2 && !pictures[i]->empty())
      pages.add_picture(*pictures[i], report::run_svg_height / report::run_svg_width);
    Text text(page, pages.width());
    pages.add(text);
  }
  return pages.count();
}

QPageSize::PageSizeId usual_paper() {
  return QLocale::system().measurementSystem() == QLocale::ImperialUSSystem ? QPageSize::Letter : QPageSize::A4;
}

Expected<int> write_sheet(const build::Build& build, const assess::Assessment& assessment, const UnitPrefs& prefs,
                          const std::filesystem::path& path, QPageSize::PageSizeId paper) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  int pages = 0;
  {
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(paper));
    writer.setPageMargins(QMarginsF(margin_mm, margin_mm, margin_mm, margin_mm), QPageLayout::Millimeter);
    writer.setTitle(QString::fromStdString(build.job.car));
    writer.setCreator("Mavrel");
    pages = print_sheet(writer, build, assessment, prefs);
  }
  const auto done = write_atomically(
      path, std::string_view(buffer.data().constData(), static_cast<std::size_t>(buffer.data().size())));
  if (!done) return refuse(done.error());
  return pages;
}

Expected<int> write_sheet_without_window(const build::Build& build, const assess::Assessment& assessment,
                                         const std::filesystem::path& path, QPageSize::PageSizeId paper) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  qInstallMessageHandler(
      [](QtMsgType, const QMessageLogContext&, const QString&) {}); // the answer is all that is printed
  int count = 1;
  char name[] = "mavrel-cli";
  char* arguments[] = {name, nullptr};
  const QGuiApplication application(count, arguments);
  return write_sheet(build, assessment, {}, path, paper);
}

} // namespace mavrel::app
