// Hand-over: whether everything is proved, the owner's sheet as it will be printed, and the papers.
#pragma once

#include "app/kit/page.h"
#include "app/stages/proving/questions.h"

class QTextBrowser;

namespace mavrel::app {

class HandPage : public Page {
  Q_OBJECT
public:
  explicit HandPage(Desk& desk, QWidget* parent = nullptr);
  enum class Sheet { owner, shop };
  /// @returns whether it was written; else why not is told
  bool write(Sheet sheet, const QString& to);

protected:
  void fill() override;

private:
  void hand_over();
  void ask_and_write(Sheet sheet, const QString& name);
  [[nodiscard]] QString said(const assess::HandOver& over) const;

  QLabel* summary_;
  QTextBrowser* sheet_;
};

} // namespace mavrel::app
