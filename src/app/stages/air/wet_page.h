// Where the water goes, by climate; and what leaks, by readings.
#pragma once

#include "app/kit/page.h"
#include "app/stages/air/questions.h"
#include "assess/air/leaking.h"
#include "assess/air/wet.h"

class QComboBox;

namespace mavrel::app {

class Chart;

class WetPage : public Page {
  Q_OBJECT
public:
  explicit WetPage(Desk& desk, QWidget* parent = nullptr);
  /// Readings of a leak. Tells what is wrong with the file.
  void take_file(const QString& file);
  [[nodiscard]] QString leak_words() const;

protected:
  void fill() override;

private:
  void open();
  void fill_water();
  void fill_leak();
  [[nodiscard]] std::size_t place() const;

  std::vector<std::vector<air::LeakReading>> readings_ =
      std::vector<std::vector<air::LeakReading>>(assess::leak_places);    // by place
  std::vector<QString> from_ = std::vector<QString>(assess::leak_places); // the files they are of
  ListTable* table_;
  QLabel *water_, *leak_;
  QComboBox* place_;
  Chart* chart_;
};

} // namespace mavrel::app
