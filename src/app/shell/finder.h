// Find anything by name: stages, actions, readings, bags, findings. Type, arrow, Enter.
#pragma once

#include <QDialog>

#include <functional>
#include <vector>

class QLineEdit;
class QListWidget;

namespace mavrel::app {

class Finder : public QDialog {
  Q_OBJECT
public:
  struct Entry {
    QString name, kind; // `front left weight`, `reading`
    std::function<void()> go;
  };
  Finder(std::vector<Entry> entries, QWidget* parent = nullptr);
  [[nodiscard]] QLineEdit* line() const { return line_; }

protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  void filter();
  void go();

  std::vector<Entry> entries_;
  QLineEdit* line_;
  QListWidget* list_;
};

} // namespace mavrel::app
