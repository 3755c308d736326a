// Templates: plates, brackets and feet drawn from their numbers, and written true to scale.
#pragma once

#include "app/kit/page.h"
#include "assess/fit_up/templates.h"

namespace mavrel::app {

class ChoiceBox;
/// One drawing, as large as there is room, with its measures.
class TemplateView : public QWidget {
  Q_OBJECT
public:
  TemplateView(Desk& desk, QWidget* parent);
  /// Shown until the next; its own copy.
  void show_template(std::optional<assess::Template> shown, const QString& why);
  QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  Desk& desk_;
  std::optional<assess::Template> shown_;
  QString why_; // in place of it
};

class TemplatesPage : public Page {
  Q_OBJECT
public:
  explicit TemplatesPage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  void show_template(const QString& key);
  void write_pdf_of_all();
  void write_dxf();
  void write_svg();

protected:
  void fill() override;

private:
  [[nodiscard]] QWidget* make_plates();
  [[nodiscard]] QString key_of(std::size_t row) const;
  void fill_list();
  void show_held();
  void bind(End end);
  void write_folder(const QString& title, const char* ending, std::string (*text)(const assess::Template&));

  TemplateView* view_;
  ListTable* list_;
  QLabel* measures_;
  std::vector<std::pair<Field*, QString>> fields_; // of the plates, with the last step of their path
  std::vector<std::pair<ChoiceBox*, QString>> choices_;
  QString held_;
  End end_ = End::rear;
};

} // namespace mavrel::app
