#include "app/print/sheet_pdf.h"

#include "app/print/paper.h"
#include "file/text_file.h"
#include "report/air_sheet.h"
#include "report/build_sheet.h"

#include <QBuffer>
#include <QFontDatabase>
#include <QGuiApplication>
#include <QLocale>
#include <QPdfWriter>

#include <cmath>
#include <functional>

// Resources in a static library are only there once asked for, and outside any namespace.
static void init_fonts() {
  Q_INIT_RESOURCE(fonts);
}

namespace mavrel::app {

namespace {

constexpr double between = 20;      // points above a section
constexpr double least_posts = 300; // points of height the posts are drawn in at least

using paper::Pages, paper::Text, paper::margin_mm;

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

int print_sheet(QPagedPaintDevice& device, const SheetOf& sheet) {
  use_own_fonts();
  const auto& [build, assessment, prefs, doubt] = sheet;
  const report::SheetParts parts = report::build_sheet(build, assessment, prefs, doubt);
  Pages pages(device, QString::fromStdString(build.job.car + " · " + build.variant().name));
  // The first page hangs on the wall: the car's name and the posts, as large as the page allows.
  Text head(parts.head, pages.width());
  pages.add(head);
  pages.skip(between);
  if (pages.left() < least_posts) pages.new_page(); // somebody wrote a long story
  pages.fill_with([&sheet](double width, double height) {
    return report::windows_svg(sheet.build, sheet.assessment, sheet.prefs, width, height, sheet.doubt);
  });
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

Expected<int> write_pdf(const std::filesystem::path& path, const QString& title, QPageSize::PageSizeId paper,
                        const std::function<int(QPagedPaintDevice&)>& fill) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  int pages = 0;
  {
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(paper));
    writer.setPageMargins(QMarginsF(margin_mm, margin_mm, margin_mm, margin_mm), QPageLayout::Millimeter);
    writer.setTitle(title);
    writer.setCreator("Mavrel");
    pages = fill(writer);
  }
  const auto done = write_atomically(
      path, std::string_view(buffer.data().constData(), static_cast<std::size_t>(buffer.data().size())));
  if (!done) return refuse(done.error());
  return pages;
}

Expected<int> write_sheet(const SheetOf& sheet, const std::filesystem::path& path, QPageSize::PageSizeId paper) {
  return write_pdf(path, QString::fromStdString(sheet.build.job.car), paper,
                   [&](QPagedPaintDevice& device) { return print_sheet(device, sheet); });
}

Expected<int> without_window(const std::function<Expected<int>()>& write) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  qInstallMessageHandler(
      [](QtMsgType, const QMessageLogContext&, const QString&) {}); // the answer is all that is printed
  int count = 1;
  char name[] = "mavrel-cli";
  char* arguments[] = {name, nullptr};
  const QGuiApplication application(count, arguments);
  return write();
}

Expected<int> write_sheet_without_window(const SheetOf& sheet, const std::filesystem::path& path,
                                         QPageSize::PageSizeId paper) {
  return without_window([&] { return write_sheet(sheet, path, paper); });
}

} // namespace mavrel::app
