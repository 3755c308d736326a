#include "app/theme/look.h"

#include <QWidget>

#include <cmath>
#include <map>
#include <utility>

// Resources in a static library are only there once asked for, and outside any namespace.
static void init_icons() {
  Q_INIT_RESOURCE(icons);
}

namespace mavrel::app {

QColor Tokens::severity(assess::Severity s) const {
  switch (s) {
  case assess::Severity::stop:
    return stop;
  case assess::Severity::caution:
    return caution;
  case assess::Severity::note:
    return second;
  }
  return second;
}

const Tokens& tokens_of(Theme theme) {
  static const Tokens primer{QColor("#E8EAE4"), QColor("#F7F8F4"),
                             QColor("#C8CDC4"), QColor("#1C2426"),
                             QColor("#56615E"), QColor("#0E6A75"),
                             QColor("#8C4A12"), QColor("#A8281F"),
                             QColor("#8A5A0E"), QColor("#2D6A3C"),
                             QColor("#DBE5E3"), QColor("#D98F88"),
                             QColor("#D6B678"), false};
  static const Tokens night{QColor("#14191B"), QColor("#1D2427"),
                            QColor("#3A4447"), QColor("#E6EAE4"),
                            QColor("#9FABA7"), QColor("#5FC4CF"),
                            QColor("#E2A063"), QColor("#F08A80"),
                            QColor("#DFB05A"), QColor("#86C795"),
                            QColor("#27373B"), QColor("#8A3F39"),
                            QColor("#6E5626"), true};
  return theme == Theme::night_bay ? night : primer;
}

QFont Look::font(TextSize size, bool bold) const {
  static constexpr double sizes[] = {10.5, 12, 14, 18};
  const int pixels = static_cast<int>(std::lround(sizes[static_cast<int>(size)] * scale));
  // Finding a font by its name costs more than writing a word with it: each is found once.
  static std::map<std::pair<int, bool>, QFont> found; // of the interface's thread
  const auto [at, fresh] = found.try_emplace({pixels, bold});
  QFont& font = at->second;
  if (fresh) {
    font = QFont("Mavrel Text");
    font.setPixelSize(pixels);
    font.setBold(bold);
  }
  return font;
}

int Look::px(double at_normal_size) const {
  return static_cast<int>(std::lround(at_normal_size * scale));
}
int Look::unit() const {
  return px(8);
}

QPalette Look::palette() const {
  const Tokens& t = tokens();
  QPalette p;
  p.setColor(QPalette::Window, t.ground);
  p.setColor(QPalette::WindowText, t.ink);
  p.setColor(QPalette::Base, t.panel);
  p.setColor(QPalette::AlternateBase, t.ground);
  p.setColor(QPalette::Text, t.ink);
  p.setColor(QPalette::Button, t.panel);
  p.setColor(QPalette::ButtonText, t.ink);
  p.setColor(QPalette::ToolTipBase, t.panel);
  p.setColor(QPalette::ToolTipText, t.ink);
  p.setColor(QPalette::PlaceholderText, t.second);
  p.setColor(QPalette::Highlight, t.front);
  p.setColor(QPalette::HighlightedText, t.panel);
  p.setColor(QPalette::Link, t.front);
  p.setColor(QPalette::Mid, t.rule);
  p.setColor(QPalette::Light, t.panel);
  p.setColor(QPalette::Dark, t.rule);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
    p.setColor(QPalette::Disabled, role, t.second);
  return p;
}

QString Look::style_sheet() const {
  init_icons();
  const Tokens& t = tokens();
  QString sheet = R"(
    #stage_rail, #findings, #top_strip { background: @panel; }
    #stage_rail { border-right: 1px solid @rule; }
    #findings { border-left: 1px solid @rule; }
    #top_strip { border-bottom: 1px solid @rule; }
    #notice { background: @selected; }
    QMenuBar, QMenu { background: @panel; color: @ink; }
    QMenuBar { border-bottom: 1px solid @rule; }
    QMenuBar::item { padding: @3px @8px; background: transparent; }
    QMenuBar::item:selected, QMenu::item:selected { background: @selected; color: @ink; }
    QMenu { border: 1px solid @rule; }
    QMenu::item { padding: @5px @24px @5px @20px; }
    QMenu::item:disabled { color: @second; }
    QMenu::separator { height: 1px; background: @rule; margin: @3px 0; }
    QToolTip { background: @panel; color: @ink; border: 1px solid @rule; padding: @4px; }
    QLabel[quiet="true"] { color: @second; }
    QLabel[wrong="true"] { color: @stop; }
    QPushButton, QToolButton, QComboBox { background: @panel; color: @ink; border: 1px solid @rule; padding: @3px @8px; }
    QPushButton:hover, QToolButton:hover, QComboBox:hover { border-color: @second; }
    QPushButton:focus, QToolButton:focus, QComboBox:focus, QLineEdit:focus, QPlainTextEdit:focus { border: 1px solid @front; }
    QPushButton:checked, QToolButton:checked { background: @ink; color: @panel; border-color: @ink; }
    QPushButton:disabled, QToolButton:disabled { color: @second; }
    QPushButton[plain="true"], QToolButton[plain="true"] { border: 1px solid transparent; background: transparent; padding: @3px @6px; }
    QPushButton[plain="true"]:hover, QToolButton[plain="true"]:hover { background: @selected; }
    QPushButton[plain="true"]:focus, QToolButton[plain="true"]:focus { border: 1px solid @front; }
    #next_line QPushButton { padding: 0 @6px; }
    #next_step { color: @front; }
    QToolButton::menu-indicator { image: none; }
    QComboBox::drop-down { border: none; width: @20px; }
    QComboBox::down-arrow { image: url(:/icons/chevron-@mode.svg); width: @10px; height: @10px; }
    QComboBox QAbstractItemView { background: @panel; color: @ink; border: 1px solid @rule; selection-background-color: @selected; selection-color: @ink; }
    QLineEdit, QPlainTextEdit { background: @panel; color: @ink; border: 1px solid @rule; padding: @2px @4px; selection-background-color: @front; selection-color: @panel; }
    QLineEdit[wrong="true"] { border: 1px solid @stop; }
    QHeaderView { background: @ground; }
    QTableCornerButton::section { background: @ground; border: none; border-bottom: 1px solid @rule; }
    QHeaderView::section { background: @ground; color: @second; border: none; border-bottom: 1px solid @rule; padding: @3px @4px; }
    QTableView { background: @ground; color: @ink; border: none; selection-background-color: @selected; selection-color: @ink; outline: none; }
    QListView { background: transparent; color: @ink; border: none; outline: none; selection-background-color: @selected; selection-color: @ink; }
    QScrollArea { border: none; background: transparent; }
    QAbstractScrollArea::corner { background: transparent; border: none; }
    QScrollBar:vertical { background: transparent; width: @9px; margin: 0; }
    QScrollBar::handle:vertical { background: @rule; min-height: @24px; margin: 1px; }
    QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
    QScrollBar:horizontal { background: transparent; height: @9px; }
    QScrollBar::handle:horizontal { background: @rule; min-width: @24px; margin: 1px; }
    QTabBar { qproperty-drawBase: 0; }
    QTabBar::tab { background: transparent; color: @second; padding: @4px @10px; border: none; border-bottom: 2px solid transparent; }
    QTabBar::tab:selected { color: @ink; border-bottom: 2px solid @ink; }
    QTabBar::tab:focus { color: @front; }
    QProgressBar { background: @rule; border: none; }
    QProgressBar::chunk { background: @front; }
    QTableWidget { gridline-color: @rule; }
    QListWidget { background: transparent; }
    QDialog { background: @ground; }
    QStatusBar { background: @panel; color: @ink; border-top: 1px solid @rule; }
  )";
  // Lengths: @4px scales with the text.
  for (const int n : {24, 20, 10, 9, 8, 6, 5, 4, 3, 2})
    sheet.replace(QString("@%1px").arg(n), QString("%1px").arg(px(n)));
  sheet.replace("@mode", t.dark ? "dark" : "light");
  const std::pair<const char*, QColor> colours[] = {
      {"@selected", t.selected}, {"@second", t.second}, {"@ground", t.ground}, {"@panel", t.panel},
      {"@front", t.front},       {"@rule", t.rule},     {"@stop", t.stop},     {"@ink", t.ink}};
  for (const auto& [name, colour] : colours)
    sheet.replace(name, colour.name());
  return sheet;
}

void set_small(QWidget* widget, const Look& look) {
  widget->setProperty("small", true);
  widget->setFont(look.font(TextSize::small));
}

void restyle_small(const QWidget* window, const Look& look) {
  for (QWidget* widget : window->findChildren<QWidget*>())
    if (widget->property("small").toBool()) widget->setFont(look.font(TextSize::small));
}

} // namespace mavrel::app
