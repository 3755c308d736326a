#include "app/print/sheet_pdf.h"

#include "file/text_file.h"
#include "report/build_sheet.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QFontDatabase>
#include <QGuiApplication>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgRenderer>
#include <QTextDocument>

#include <cmath>

// Resources in a static library are only there once asked for, and outside any namespace.
static void init_fonts() {
  Q_INIT_RESOURCE(fonts);
}

namespace mavrel::app {

namespace {

constexpr double margin_mm = 14;
constexpr double points_per_inch = 72;
constexpr int picture_scale = 4; // picture pixels a point: crisp at 288 dpi

const char* const style = R"(
  body { font-family: Mavrel Text; font-size: 7.6pt; color: #1C2426; }
  h1 { font-size: 17pt; margin-bottom: 0; }
  h2 { font-size: 10pt; margin-top: 9pt; margin-bottom: 2pt; }
  p { margin-top: 2pt; margin-bottom: 2pt; }
  .second { color: #5B6663; }
  th { font-weight: bold; }
)";

QImage picture(const std::string& svg) {
  QSvgRenderer renderer(QByteArray::fromStdString(svg));
  QImage image(renderer.defaultSize() * picture_scale, QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::white);
  QPainter painter(&image);
  renderer.render(&painter);
  return image;
}

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
  QTextDocument document;
  document.setDefaultStyleSheet(style);
  document.setDocumentMargin(0);
  QImage windows = picture(report::windows_svg(build, assessment, prefs));
  // Widths in the text are points; the picture keeps its pixels and says how large it wants to be.
  QString html = QString::fromStdString(report::build_sheet_html(build, assessment, prefs));
  const double page_width = device.pageLayout().paintRect(QPageLayout::Point).width();
  const double page_height = device.pageLayout().paintRect(QPageLayout::Point).height();
  const double shown = std::min(page_width, windows.width() / static_cast<double>(picture_scale));
  html.replace("<img src='windows.svg'>", QString("<img src='windows.svg' width='%1'>").arg(static_cast<int>(shown)));
  document.addResource(QTextDocument::ImageResource, QUrl("windows.svg"), windows);
  QFont font("Mavrel Text");
  font.setPointSizeF(7.6);
  document.setDefaultFont(font);
  document.setHtml(html);

  // The document is laid out at 72 dpi in points and scaled to the device, so that paper and PDF agree.
  QPainter painter(&device);
  const double scale = device.logicalDpiX() / points_per_inch;
  QImage points(1, 1, QImage::Format_ARGB32);
  points.setDotsPerMeterX(static_cast<int>(std::lround(points_per_inch / 0.0254)));
  points.setDotsPerMeterY(points.dotsPerMeterX());
  document.documentLayout()->setPaintDevice(&points);
  const double foot = 16;
  document.setPageSize(QSizeF(page_width, page_height - foot));
  const int pages = document.pageCount();
  painter.scale(scale, scale);
  for (int page = 0; page < pages; ++page) {
    if (page > 0) device.newPage();
    painter.save();
    const QRectF view(0, page * (page_height - foot), page_width, page_height - foot);
    painter.translate(0, -view.top());
    painter.setClipRect(view);
    QAbstractTextDocumentLayout::PaintContext context;
    context.clip = view;
    context.palette.setColor(QPalette::Text, QColor("#1C2426"));
    document.documentLayout()->draw(&painter, context);
    painter.restore();
    QFont small = font;
    small.setPixelSize(7);
    painter.setFont(small);
    painter.setPen(QColor("#5B6663"));
    const QString name = QString::fromStdString(build.job.car + " · " + build.variant().name);
    painter.drawText(QRectF(0, page_height - foot + 4, page_width, foot - 4), Qt::AlignLeft | Qt::AlignBottom, name);
    painter.drawText(QRectF(0, page_height - foot + 4, page_width, foot - 4), Qt::AlignRight | Qt::AlignBottom,
                     QString("%1 / %2").arg(page + 1).arg(pages));
  }
  return pages;
}

Expected<int> write_sheet(const build::Build& build, const assess::Assessment& assessment, const UnitPrefs& prefs,
                          const std::filesystem::path& path) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  int pages = 0;
  {
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(QPageSize::A4));
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
                                         const std::filesystem::path& path) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  qInstallMessageHandler(
      [](QtMsgType, const QMessageLogContext&, const QString&) {}); // the answer is all that is printed
  int count = 1;
  char name[] = "mavrel-cli";
  char* arguments[] = {name, nullptr};
  const QGuiApplication application(count, arguments);
  return write_sheet(build, assessment, {}, path);
}

} // namespace mavrel::app
