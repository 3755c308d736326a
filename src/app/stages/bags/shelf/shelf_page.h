// The shelf: every card there is, drawn, checked and editable; imported from files, exported, duplicated, kept on the
// user's own shelf, or made from a bench test.
#pragma once

#include "app/kit/page.h"
#include "app/stages/bags/shelf/card_drafts.h"
#include "shelf/card_csv.h"

class QCheckBox;
class QComboBox;
class QLineEdit;
class QListWidget;
class QStackedWidget;

namespace mavrel::app {

class BenchPanel;
class CardCells;
class CardDrawing;

class ShelfPage : public Page {
  Q_OBJECT
public:
  explicit ShelfPage(Desk& desk, QWidget* parent = nullptr);

  /// Reads card files onto the user's shelf; what can't be read is said with its place and nothing else is lost.
  /// @returns how many cards were kept
  int import(const QStringList& files);
  bool export_to(const QString& file);
  void show_bag(const std::string& name);
  /// The card as edited here; none while nothing is chosen.
  [[nodiscard]] std::optional<air::BagCard> draft() const;
  [[nodiscard]] const CardDrafts& drafts() const { return drafts_; }
  void duplicate();
  /// Keeps the draft on the user's shelf. @returns whether it is kept
  bool keep();
  void undo();
  void redo();

signals:
  void edited(); // a card changed, or another is shown

protected:
  void fill() override;

private:
  void refresh_list();
  void make_head(QVBoxLayout* into);
  void make_foot(QVBoxLayout* into);
  QPushButton* small_button(QBoxLayout* row, const QString& text, const char* name, std::function<void()> act);
  void show_edits();
  void change(air::BagCard card);
  void show_draft();
  void key_edited(int key);
  void refuse(QLineEdit& line, const QString& why);
  void check();

  QListWidget* list_;
  QStackedWidget* stack_;
  CardDrawing* drawing_;
  CardCells* cells_;
  std::vector<QLineEdit*> keys_;
  QComboBox* kind_;
  QCheckBox* stop_;
  QLabel* verdict_;
  QPushButton *keep_, *undo_, *redo_;
  BenchPanel* bench_;
  CardDrafts drafts_;
};

} // namespace mavrel::app
