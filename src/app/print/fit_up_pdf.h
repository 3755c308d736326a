// Fit-up on paper: templates true to scale over as many pages as they take, and job sheets for the wall.
#pragma once

#include "app/print/sheet_pdf.h"
#include "assess/fit_up/templates.h"
#include "report/job_sheets.h"

#include <span>

namespace mavrel::app {

/// Draws templates at 1:1 with a ruler beside each to check the printer by; larger ones over several pages, which
/// overlap by 10 mm and carry marks to join them by.
/// @returns the number of pages
int print_templates(QPagedPaintDevice& device, std::span<const assess::Template> templates, const QString& foot);
[[nodiscard]] Expected<int> write_templates(std::span<const assess::Template> templates, const QString& title,
                                            const std::filesystem::path& path,
                                            QPageSize::PageSizeId paper = usual_paper());

/// One after the other, as many on a page as fit. @returns the number of pages
int print_leaves(QPagedPaintDevice& device, const std::vector<report::Leaf>& leaves, const QString& foot);
[[nodiscard]] Expected<int> write_leaves(const std::vector<report::Leaf>& leaves, const QString& title,
                                         const std::filesystem::path& path,
                                         QPageSize::PageSizeId paper = usual_paper());

} // namespace mavrel::app
