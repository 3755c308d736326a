// A choice of the build where it is made: which of a few, or which part of the shelf. Bound to a field by its path.
#pragma once

#include "build/names.h"

#include <QComboBox>
#include <QCoreApplication>

#include <functional>
#include <vector>

namespace mavrel::app {

class Desk;

class ChoiceBox : public QComboBox {
  Q_OBJECT
public:
  /// One row: what is shown, and what is typed into the field for it.
  struct Row {
    QString shown, typed;
  };
  /// @param path  of the field; `@.` for the active variant
  /// @param rows  asked anew whenever something changed
  ChoiceBox(Desk& desk, QString path, const QString& accessible_name, std::function<std::vector<Row>()> rows,
            QWidget* parent = nullptr);
  [[nodiscard]] const QString& path() const { return path_; }
  void refresh();
  /// Another field of the same choices.
  void bind(const QString& path);
  /// What is chosen is never cut, unless it is long.
  [[nodiscard]] QSize minimumSizeHint() const override;

protected:
  void showEvent(QShowEvent* event) override;
  void wheelEvent(QWheelEvent* event) override; // the page scrolls; a choice is not made by that

private:
  Desk& desk_;
  QString path_;
  std::function<std::vector<Row>()> rows_;
  bool stale_ = true;
};

/// The rows of a box over one of the document's enumerations.
template <class Enum>
[[nodiscard]] std::function<std::vector<ChoiceBox::Row>()> rows_of(Enum) {
  return [] {
    std::vector<ChoiceBox::Row> out;
    using build::names_of; // and those that stand beside other enumerations
    for (const auto& row : names_of(Enum{}))
      out.push_back({QCoreApplication::translate("QObject", row.name), QString::fromUtf8(row.key)});
    return out;
  };
}

} // namespace mavrel::app
