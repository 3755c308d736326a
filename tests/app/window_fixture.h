// The real main window, offscreen, with the demo shelf and nobody's own settings.
#pragma once

#include "app/desk/edits.h"
#include "app/desk/sureness.h"
#include "app/kit/field.h"
#include "app/shell/main_window.h"
#include "app/stages/bags/bags.h"
#include "app/stages/bags/edits.h"
#include "app/stages/car_in/car_in.h"
#include "app/stages/car_in/edits.h"
#include "support.h"

#include <QAbstractButton>
#include <QApplication>
#include <QComboBox>
#include <QElapsedTimer>
#include <QLabel>
#include <QLineEdit>
#include <QMessageBox>
#include <QTest>
#include <QTimer>

#include <array>
#include <functional>
#include <set>

namespace mavrel::app {

/// Presses a button of the question that comes up next, by a part of its text.
inline void answer_next(const QString& button, int tries = 100) {
  QTimer::singleShot(10, qApp, [button, tries] {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    if (!box) {
      if (tries > 0) answer_next(button, tries - 1);
      return;
    }
    for (QAbstractButton* one : box->buttons())
      if (one->text().remove('&').contains(button)) return one->click();
    ADD_FAILURE() << "no button “" << button.toStdString() << "” on: " << box->text().toStdString();
    box->reject();
  });
}

class WindowTest : public ::testing::Test {
protected:
  void SetUp() override { open_window(); }

  void open_window(const shelf::Shelf& shelf = test::demo_shelf()) {
    window_ = std::make_unique<MainWindow>(shelf, recovery());
    Sureness::of(desk()).set_wanted(false); // whoever tests it wants it
    window_->resize(1280, 800);
    window_->show();
    QApplication::setActiveWindow(window_.get());
    ASSERT_TRUE(window_->open_file(QString::fromStdString(copy().string())));
    QCoreApplication::processEvents();
  }

  /// A copy of the demo build that a test may save over.
  std::filesystem::path copy() {
    const auto file = folder_ / "wayfare.mavrel";
    if (!std::filesystem::exists(file)) std::filesystem::copy_file(test::demo_file(), file);
    return file;
  }
  std::filesystem::path recovery() { return folder_ / "recovery"; }

  Desk& desk() { return window_->desk(); }
  BagsStage* bags() { return static_cast<BagsStage*>(window_->stage("bags")); }
  CarInStage* car_in() { return static_cast<CarInStage*>(window_->stage("car_in")); }
  const build::Build& build() { return desk().build(); }

  /// The visible field bound to this path.
  Field* field(const QString& path) {
    for (Field* one : window_->findChildren<Field*>())
      if (one->isVisibleTo(window_.get()) && desk().resolve(one->path()) == desk().resolve(path)) return one;
    return nullptr;
  }

  /// Clicks into a field, types over what is there and presses Enter.
  void type(const QString& path, const QString& text) {
    Field* one = field(path);
    ASSERT_NE(one, nullptr) << path.toStdString() << " is not on screen";
    QTest::mouseClick(one->edit(), Qt::LeftButton);
    one->edit()->setFocus();
    one->edit()->selectAll();
    QTest::keyClicks(one->edit(), text);
    QTest::keyClick(one->edit(), Qt::Key_Return);
  }

  QAction* action(const QString& name) {
    for (QAction* one : window_->findChildren<QAction*>())
      if (one->text().remove('&') == name) return one;
    return nullptr;
  }
  void key(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
    QTest::keyClick(window_.get(), key, modifiers);
    QCoreApplication::processEvents();
  }
  /// Answers whoever asks to go on with what is not released. @param by  empty: it is left
  class TakesOn {
  public:
    explicit TakesOn(const QString& by, const QString& why = "the customer waits") {
      timer_.callOnTimeout([this, by, why] {
        QWidget* asked = QApplication::activeModalWidget();
        if (!asked || asked->objectName() != "take_on") return;
        missing_ = asked->findChild<QLabel*>("missing")->text();
        could_ = asked->findChild<QAbstractButton*>("take_it")->isEnabled();
        if (by.isEmpty()) return asked->findChild<QAbstractButton*>("leave_it")->click();
        asked->findChild<QComboBox*>("taken_by")->setEditText(by);
        asked->findChild<QLineEdit*>("taken_why")->setText(why);
        asked->findChild<QAbstractButton*>("take_it")->click();
      });
      timer_.start(5);
    }
    /// What was said to be missing; empty: nobody asked.
    [[nodiscard]] const QString& missing() const { return missing_; }
    /// Could it be taken on before a name and a reason stood there?
    [[nodiscard]] bool could_at_once() const { return could_; }

  private:
    QTimer timer_;
    QString missing_;
    bool could_ = false;
  };
  /// The widget of an object name.
  template <class T>
  T* named(const char* name) {
    return window_->findChild<T*>(name);
  }
  /// Presses a button that may be below the fold.
  void click(const char* name) {
    auto* button = named<QAbstractButton>(name);
    ASSERT_NE(button, nullptr) << name;
    ASSERT_TRUE(button->isEnabled()) << name;
    button->click();
    QCoreApplication::processEvents();
  }
  /// Waits until something is so, and fails where it never is.
  void wait_for(const std::function<bool()>& so, int most_ms = 8000) {
    QElapsedTimer clock;
    clock.start();
    bool is_so = so();
    while (!is_so && clock.elapsed() < most_ms) {
      QTest::qWait(10);
      is_so = so();
    }
    ASSERT_TRUE(is_so); // once is enough: a car that rings is still only for a moment
  }
  /// Is there a picture of it: more than one or two colours, all over?
  static bool is_painted(QWidget* widget) {
    const QImage all = widget->grab().toImage();
    std::array<std::set<QRgb>, 2> halves; // left and right
    for (int y = 0; y < all.height(); y += 3)
      for (int x = 0; x < all.width(); x += 3)
        halves[x > all.width() / 2].insert(all.pixel(x, y));
    return halves[0].size() > 8 && halves[1].size() > 8;
  }
  QString told() {
    const auto* label = window_->findChild<QLabel*>("told");
    return label ? label->text() : QString();
  }

  test::Folder folder_;
  std::unique_ptr<MainWindow> window_;
};

} // namespace mavrel::app
