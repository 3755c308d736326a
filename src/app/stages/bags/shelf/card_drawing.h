// A bag card drawn: loads, effective area and volume over the bag's height, which stands upright as heights do
// everywhere. Stretches that the sanity check doubts are hatched, suspect figures ringed.
#pragma once

#include "air/bag_card.h"
#include "shelf/card_check.h"

#include <QWidget>

#include <optional>

namespace mavrel::app {

class Desk;

class CardDrawing : public QWidget {
  Q_OBJECT
public:
  explicit CardDrawing(Desk& desk, QWidget* parent = nullptr);
  /// @param card  sound enough to be read; none: nothing is drawn
  void show_card(const std::optional<air::BagCard>& card);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  struct Frame;
  void paint_frame(QPainter& painter, const Frame& frame, const QString& name, const QString& unit) const;

  Desk& desk_;
  std::optional<air::BagCard> card_;
  air::BagCurve curve_;
  std::vector<shelf::CardDoubt> doubts_;
  std::vector<shelf::SuspectCell> suspects_;
};

} // namespace mavrel::app
