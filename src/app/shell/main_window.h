// The window: strip on top, stages at the left, the work in the middle, the height posts always in sight, what stops
// it at the right.
#pragma once

#include "app/desk/desk.h"
#include "app/kit/stage_page.h"
#include "app/shell/keeper.h"
#include "app/shell/settings.h"

#include <QMainWindow>

#include <functional>

class QLabel;
class QMenu;
class QPushButton;

namespace mavrel::assess {
struct Doubt;
}

namespace mavrel::app {

class FindingsPanel;
class NextLine;
class NoticeBar;
class StageRail;
class StartPage;
class TopStrip;
class WorkArea;

class MainWindow : public QMainWindow {
  Q_OBJECT
public:
  /// @param recovery  folder for unsaved work; the usual one when empty
  explicit MainWindow(shelf::Shelf shelf, std::filesystem::path recovery = {}, QWidget* parent = nullptr);
  ~MainWindow() override;

  [[nodiscard]] Desk& desk() { return desk_; }
  [[nodiscard]] Keeper& keeper() { return keeper_; }
  /// Opens a file, or says why not. @returns whether it is open
  bool open_file(const QString& file);
  void go_to_stage(const QString& key);
  /// Shows what there is to begin with, instead of the car that is open.
  void show_start();
  /// The page of a stage, by its key; nullptr: there is none.
  [[nodiscard]] StagePage* stage(const QString& key) const;
  /// Writes the build sheet, once it is known how sure its figures are; says so or why not. @returns whether it is or
  /// will be written
  bool export_sheet(const QString& file);
  bool export_tracks(const QString& file);
  /// Saves there; asks where the file is read-only or was changed by others.
  bool save_to(const QString& file);
  /// Saves under a name chosen in a dialog, with its ending added; asks before that takes another file's place.
  bool save_under(const QString& chosen);
  /// Offers what a killed program left, if anything.
  void offer_left_behind();
  /// Opens what the notice offers.
  void recover(const LeftBehind& left);

protected:
  bool focusNextPrevChild(bool next) override; // in reading order
  void closeEvent(QCloseEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

private:
  void make_menus();
  QAction* add_action(QMenu* menu, const QString& name, const QKeySequence& keys, const std::function<void()>& act);
  /// What the stages can do, into one of the menus.
  void add_commands(QMenu* menu, Command::Menu which);
  void restyle();
  void refresh_title();
  void leave_what_closed();
  void show_keys();
  void find_by_name();
  void fill_recent();
  void fill_units(QMenu* menu);
  void scale_text(double by);
  /// Says what did not work at the foot of the window and in a row of its own.
  /// Says what is due on the car that was opened.
  void remind();
  void say_why(const Message& what);
  bool handle_pose_key(QKeyEvent* event);
  bool save();
  bool save_as();
  void fit_next();
  void leave_start();
  void begin(const build::Build& build);
  void open_dialog();
  void print();
  void with_doubt(const std::function<void(const assess::Doubt*)>& act);
  [[nodiscard]] bool may_leave();
  [[nodiscard]] bool may_lose_unkept();
  [[nodiscard]] StagePage* page() const;
  void make_stages();
  /// Takes the person to a field, or to a stage: wherever it is entered.
  void go_to(const QString& stage, const QString& place);
  /// Undo and redo of the page shown, if it has its own.
  [[nodiscard]] std::optional<OwnUndo> own_undo() const;

  Settings settings_;
  Desk desk_;
  Keeper keeper_;
  TopStrip* strip_;
  NextLine* next_;
  StartPage* start_;
  StageRail* rail_;
  WorkArea* work_;
  std::vector<StagePage*> stages_; // as in shell/stages.cpp
  FindingsPanel* findings_;
  NoticeBar* notices_;
  QLabel* told_;
  QString tip_; // of what has the focus
  QTimer told_timer_;
  QMenu* recent_ = nullptr;
  QAction *undo_ = nullptr, *redo_ = nullptr;
  std::vector<QAction*> actions_;
};

} // namespace mavrel::app
