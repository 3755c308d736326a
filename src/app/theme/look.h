// The look in one table: colours of both themes, sizes, and the palette and style sheet made from them.
#pragma once

#include "assess/finding/finding.h"

#include <QColor>
#include <QFont>
#include <QPalette>
#include <QString>

class QWidget;

namespace mavrel::app {

/// Every colour the program uses. A widget that needs another one needs a new row here.
struct Tokens {
  QColor ground, panel, rule, ink, second;
  QColor front, rear, stop, caution, good;
  QColor selected; // a chosen row or chip's ground
  QColor hatch_stop, hatch_reserve;
  bool dark = false;

  [[nodiscard]] QColor end(build::End e) const { return e == build::End::front ? front : rear; }
  [[nodiscard]] QColor severity(assess::Severity s) const;
};

enum class Theme { primer, night_bay };

[[nodiscard]] const Tokens& tokens_of(Theme theme);

/// Sizes at the normal text size, px; everything else follows from the font.
enum class TextSize { small, normal, large, huge };

/// Colours and fonts as they are now.
struct Look {
  Theme theme = Theme::primer;
  double scale = 1; // of the text, 0.8 to 2

  friend bool operator==(const Look&, const Look&) = default;
  [[nodiscard]] const Tokens& tokens() const { return tokens_of(theme); }
  [[nodiscard]] QFont font(TextSize size = TextSize::normal, bool bold = false) const;
  /// The grid's unit, 8 px at normal text.
  [[nodiscard]] int unit() const;
  [[nodiscard]] int px(double at_normal_size) const;
  [[nodiscard]] QPalette palette() const;
  [[nodiscard]] QString style_sheet() const;
};

/// Small text that follows when the text size changes (the window sets every such widget's font anew).
void set_small(QWidget* widget, const Look& look);
void restyle_small(const QWidget* window, const Look& look);

} // namespace mavrel::app
