// The build sheet on paper. Shared by the application and the command line; needs QtGui, no window.
#pragma once

#include "assess/assessment.h"
#include "assess/doubt/doubt.h"
#include "quantity/expected.h"

#include <filesystem>
#include <functional>

#include <QPageSize>

class QPagedPaintDevice;

namespace mavrel::app {

/// Makes the shipped font “Mavrel Text” known to Qt. Once is enough; more does no harm.
void use_own_fonts();

/// Pages filled by a function, which returns how many, written as PDF, atomically. Needs a QGuiApplication.
[[nodiscard]] Expected<int> write_pdf(const std::filesystem::path& path, const QString& title,
                                      QPageSize::PageSizeId paper, const std::function<int(QPagedPaintDevice&)>& fill);
/// For programs without a window: brings an application of its own, offscreen.
[[nodiscard]] Expected<int> without_window(const std::function<Expected<int>()>& write);

/// What a sheet is made of. Refers to it for one call.
struct SheetOf {
  const build::Build& build;
  const assess::Assessment& assessment;
  const UnitPrefs& prefs;
  const assess::Doubt* doubt = nullptr; // of the same build, for bands and ±; nullptr: without
};

/// Lays the sheet out on the device's pages.
/// @returns the number of pages
int print_sheet(QPagedPaintDevice& device, const SheetOf& sheet);

/// What paper lies in printers here: Letter where inches are usual, else A4.
[[nodiscard]] QPageSize::PageSizeId usual_paper();

/// Writes the sheet as PDF, atomically. Needs a QGuiApplication.
/// @returns the number of pages; or why it could not be written
[[nodiscard]] Expected<int> write_sheet(const SheetOf& sheet, const std::filesystem::path& path,
                                        QPageSize::PageSizeId paper = usual_paper());

/// The same for programs without a window: brings its own application, offscreen.
[[nodiscard]] Expected<int> write_sheet_without_window(const SheetOf& sheet, const std::filesystem::path& path,
                                                       QPageSize::PageSizeId paper = QPageSize::A4);

} // namespace mavrel::app
