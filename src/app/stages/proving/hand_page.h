// Hand-over: whether everything is proved, the owner's sheet as it will be printed, and the papers.
#pragma once

#include "app/kit/plain_page.h"
#include "app/stages/proving/answers.h"

class QLabel;
class QPushButton;
class QTextBrowser;

namespace mavrel::app {

class HandPage : public PlainPage {
  Q_OBJECT
public:
  HandPage(Desk& desk, ProvingAnswers& answers, QWidget* parent = nullptr);
  enum class Sheet { owner, shop };
  /// @returns whether it was written; else why not is told
  bool write(Sheet sheet, const QString& to);

protected:
  void fill() override;

private:
  void hand_over();

  ProvingAnswers& answers_;
  QLabel* summary_;
  QTextBrowser* sheet_;
  QPushButton *hand_, *owner_, *shop_;
};

} // namespace mavrel::app
