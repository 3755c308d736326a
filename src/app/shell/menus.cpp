// The window's menus and dialogs: every command by name, with its keys.
#include "app/shell/main_window.h"

#include "app/desk/edits.h"
#include "app/desk/sureness.h"
#include "app/kit/field.h"
#include "app/kit/plain.h"
#include "app/shell/finder.h"
#include "app/shell/findings_panel.h"
#include "app/shell/next_line.h"
#include "app/shell/stages.h"
#include "app/shell/trade_words.h"
#include "app/shell/work_area.h"
#include "shelf/places.h"

#include <QActionGroup>
#include <QApplication>
#include <QCoreApplication>
#include <QFileDialog>
#include <QInputDialog>
#include <QLabel>
#include <QMenuBar>
#include <QMessageBox>
#include <QScrollArea>
#include <QVBoxLayout>

namespace mavrel::app {

QAction* MainWindow::add_action(QMenu* menu, const QString& name, const QKeySequence& keys,
                                const std::function<void()>& act) {
  auto* action = menu->addAction(name);
  action->setShortcut(keys);
  connect(action, &QAction::triggered, this, act);
  actions_.push_back(action);
  return action;
}

void MainWindow::add_commands(QMenu* menu, Command::Menu which) {
  for (StagePage* one : stages_)
    for (const Command& command : one->commands())
      if (command.menu == which) add_action(menu, command.name, command.keys, command.act);
}

void MainWindow::make_menus() {
  QMenu* file = menuBar()->addMenu(tr("&File"));
  add_action(file, tr("New car…"), QKeySequence::New, [this] { show_start(); });
  add_action(file, tr("Open…"), QKeySequence::Open, [this] { open_dialog(); });
  recent_ = file->addMenu(tr("Recent"));
  connect(recent_, &QMenu::aboutToShow, this, &MainWindow::fill_recent);
  for (const auto& [name, build] : {std::pair{tr("Open the demo estate"), "sorrel-wayfare.mavrel"},
                                    std::pair{tr("Open the demo half-ton"), "hollin-tarnway.mavrel"}})
    add_action(file, name, {}, [this, which = build] {
      if (may_leave()) open_file(QString::fromStdString((shelf::demo_folder() / which).string()));
    });
  add_commands(file, Command::Menu::file);
  file->addSeparator();
  add_action(file, tr("Save"), QKeySequence::Save, [this] { save(); });
  add_action(file, tr("Save as…"), QKeySequence("Ctrl+Shift+S"), [this] { save_as(); });
  file->addSeparator();
  add_action(file, tr("Build sheet as PDF…"), QKeySequence("Ctrl+Shift+P"), [this] {
    const QString to = QFileDialog::getSaveFileName(this, tr("Build sheet"), {}, tr("PDF (*.pdf)"));
    if (!to.isEmpty()) export_sheet(to);
  });
  add_action(file, tr("Print the build sheet…"), QKeySequence::Print, [this] { print(); });
  add_action(file, tr("Tracks as CSV…"), {}, [this] {
    const QString to = QFileDialog::getSaveFileName(this, tr("Tracks"), {}, tr("CSV (*.csv)"));
    if (!to.isEmpty()) export_tracks(to);
  });
  file->addSeparator();
  add_action(file, tr("Quit"), QKeySequence::Quit, [this] { close(); });

  QMenu* edit = menuBar()->addMenu(tr("&Edit"));
  // Some pages have work with an undo of its own, like the card on the shelf; everywhere else it is the build's.
  undo_ = add_action(edit, tr("Undo"), QKeySequence::Undo, [this] {
    if (const auto own = own_undo())
      own->undo();
    else
      desk_.document().undo();
  });
  redo_ = add_action(edit, tr("Redo"), QKeySequence("Ctrl+Shift+Z"), [this] {
    if (const auto own = own_undo())
      own->redo();
    else
      desk_.document().redo();
  });
  edit->addSeparator();
  add_action(edit, tr("Keep this design and continue on a copy"), QKeySequence("Ctrl+D"),
             [this] { add_variant(desk_); });
  add_action(edit, tr("Next variant"), QKeySequence("Ctrl+PgDown"),
             [this] { use_variant(desk_, (desk_.build().active_variant + 1) % desk_.build().variants.size()); });
  add_action(edit, tr("Name this variant…"), {}, [this] {
    bool taken = false;
    const QString path = "@.name";
    const QString name = QInputDialog::getText(this, tr("Variant"), tr("Name of this variant"), QLineEdit::Normal,
                                               QString::fromStdString(desk_.build().variant().name), &taken);
    if (!taken) return;
    if (const auto wrong = desk_.type(path, name)) desk_.refuse(*wrong);
  });
  add_action(edit, tr("Remove this variant"), {}, [this] { remove_variant(desk_, desk_.build().active_variant); });
  edit->addSeparator();
  add_action(edit, tr("Next step"), QKeySequence("Ctrl+Return"), [this] { next_->take(); });
  add_action(edit, tr("Put the next step off"), {}, [this] { next_->put_off(); });
  add_action(edit, tr("Show again what was put off"), {}, [this] { next_->take_up(); });
  edit->addSeparator();
  add_commands(edit, Command::Menu::edit);
  add_action(edit, tr("Add a preset at this pose"), {}, [this] { add_preset(desk_); });

  QMenu* view = menuBar()->addMenu(tr("&View"));
  for (const StageEntry& entry : stage_entries())
    add_action(view, QCoreApplication::translate("stages", entry.name), QKeySequence(entry.keys),
               [this, key = entry.key] { go_to_stage(key); });
  view->addSeparator();
  add_commands(view, Command::Menu::view);
  view->addSeparator();
  add_action(view, tr("Other end"), QKeySequence("Ctrl+E"),
             [this] { desk_.set_end(desk_.end() == End::front ? End::rear : End::front); });
  add_action(view, tr("Next load case"), QKeySequence("Ctrl+L"),
             [this] { desk_.set_load_case((desk_.load_case() + 1) % desk_.assessment().loads.size()); });
  add_action(view, tr("Height posts, where a strip stands for them"), QKeySequence("Ctrl+H"),
             [this] { work_->toggle_posts(); });
  add_action(view, tr("Fold what stops it"), QKeySequence("Ctrl+F"),
             [this] { findings_->set_folded(!findings_->is_folded()); });
  view->addSeparator();
  auto* themes = new QActionGroup(this);
  for (const auto& [name, theme] :
       {std::pair{tr("Primer (light)"), Theme::primer}, std::pair{tr("Night bay (dark)"), Theme::night_bay}}) {
    auto* action = add_action(view, name, {}, [this, t = theme] {
      Look look = desk_.look();
      look.theme = t;
      desk_.view().set_look(look);
    });
    action->setCheckable(true);
    action->setChecked(desk_.look().theme == theme);
    themes->addAction(action);
  }
  add_action(view, tr("Larger text"), QKeySequence("Ctrl++"), [this] { scale_text(1.1); });
  add_action(view, tr("Smaller text"), QKeySequence("Ctrl+-"), [this] { scale_text(1 / 1.1); });
  fill_units(view->addMenu(tr("Units")));

  QMenu* help = menuBar()->addMenu(tr("&Help"));
  add_action(help, tr("Find anything by name"), QKeySequence("Ctrl+K"), [this] { find_by_name(); });
  add_action(help, tr("Keys"), QKeySequence::HelpContents, [this] { show_keys(); });
  add_action(help, tr("About Mavrel"), {}, [this] {
    QMessageBox::about(
        this, tr("About Mavrel"),
        tr("Mavrel %1\n\nAir suspension for lowered cars, worked out before it is welded.\n\nGPL-3.0-or-later. Text "
           "set in Mavrel Text, made from B612 (SIL Open Font License 1.1).")
            .arg(MAVREL_VERSION));
  });
}

void MainWindow::fill_recent() {
  recent_->clear();
  for (const QString& name : settings_.recent())
    recent_->addAction(on_button(name), this, [this, name] {
      if (may_leave()) open_file(name);
    });
  if (recent_->isEmpty()) recent_->addAction(tr("none yet"))->setEnabled(false);
}

void MainWindow::fill_units(QMenu* menu) {
  const auto group = [&](const std::vector<std::pair<QString, std::function<void(UnitPrefs&)>>>& choices,
                         const std::function<bool(const UnitPrefs&, std::size_t)>& held) {
    auto* actions = new QActionGroup(menu);
    for (std::size_t i = 0; i < choices.size(); ++i) {
      auto* action = menu->addAction(choices[i].first);
      action->setCheckable(true);
      action->setChecked(held(desk_.prefs(), i));
      actions->addAction(action);
      connect(action, &QAction::triggered, this, [this, set = choices[i].second] {
        UnitPrefs prefs = desk_.prefs();
        set(prefs);
        desk_.view().set_prefs(prefs);
      });
    }
    menu->addSeparator();
  };
  group({{"mm", [](UnitPrefs& p) { p.length = LengthUnit::mm; }},
         {tr("inches, sixteenths"), [](UnitPrefs& p) { p.length = LengthUnit::inch; }}},
        [](const UnitPrefs& p, std::size_t i) { return static_cast<std::size_t>(p.length) == i; });
  group({{"bar", [](UnitPrefs& p) { p.pressure = PressureUnit::bar; }},
         {"psi", [](UnitPrefs& p) { p.pressure = PressureUnit::psi; }},
         {"kPa", [](UnitPrefs& p) { p.pressure = PressureUnit::kpa; }}},
        [](const UnitPrefs& p, std::size_t i) { return static_cast<std::size_t>(p.pressure) == i; });
  group({{"kg", [](UnitPrefs& p) { p.mass = MassUnit::kg; }}, {"lb", [](UnitPrefs& p) { p.mass = MassUnit::lb; }}},
        [](const UnitPrefs& p, std::size_t i) { return static_cast<std::size_t>(p.mass) == i; });
  group({{"°C", [](UnitPrefs& p) { p.temperature = TemperatureUnit::celsius; }},
         {"°F", [](UnitPrefs& p) { p.temperature = TemperatureUnit::fahrenheit; }}},
        [](const UnitPrefs& p, std::size_t i) { return static_cast<std::size_t>(p.temperature) == i; });
  menu->addAction(tr("Width of a finger…"), this, [this] {
    bool taken = false;
    const QString text = QInputDialog::getText(this, tr("Finger"), tr("How wide is your finger?"), QLineEdit::Normal,
                                               desk_.shown(desk_.prefs().finger, Kind::length, -2), &taken);
    if (!taken) return;
    const auto width = parse_quantity(text.toStdString(), Kind::length, desk_.prefs());
    if (!width || *width < 0.008 || *width > 0.03) {
      desk_.tell(width ? tr("A finger is between 8 and 30 mm wide.") : desk_.words_of(width.error()));
      return;
    }
    UnitPrefs prefs = desk_.prefs();
    prefs.finger = *width;
    desk_.view().set_prefs(prefs);
  });
}

void MainWindow::scale_text(double by) {
  Look look = desk_.look();
  look.scale = std::clamp(look.scale * by, 0.8, 2.0);
  desk_.view().set_look(look);
}

void MainWindow::find_by_name() {
  std::vector<Finder::Entry> entries;
  for (QAction* action : actions_)
    if (action->isEnabled())
      entries.push_back({action->text().remove('&'),
                         tr("command %1").arg(action->shortcut().toString(QKeySequence::NativeText)),
                         [action] { action->trigger(); }});
  for (std::size_t i = 0; i < stages_.size(); ++i)
    for (Findable& found : stages_[i]->findables())
      entries.push_back({std::move(found.name), std::move(found.kind),
                         [this, one = stages_[i], key = stage_entries()[i].key, act = std::move(found.act)] {
                           go_to_stage(key); // whatever is found is shown
                           if (page() == one) act();
                         }});
  for (const TradeWord& word : trade_words())
    entries.push_back({QCoreApplication::translate("trade", word.word),
                       tr("here: %1").arg(QCoreApplication::translate("trade", word.ours)),
                       [this, &word] { emit desk_.went_to(word.stage, desk_.resolve(word.place)); }});
  for (const auto& finding : Sureness::of(desk_).findings())
    entries.push_back({desk_.words_of(finding.title), tr("finding"),
                       [this, stage = QString(finding.stage->key), place = QString::fromStdString(finding.place)] {
                         emit desk_.went_to(stage, place);
                       }});
  Finder finder(std::move(entries), this);
  finder.exec();
}

void MainWindow::show_keys() {
  QString rows;
  const auto row = [&](const QString& keys, const QString& what) {
    rows += QString("<tr><td><b>%1</b>&nbsp;&nbsp;&nbsp;</td><td>%2</td></tr>")
                .arg(keys.toHtmlEscaped(), what.toHtmlEscaped());
  };
  row(tr("↑ ↓"), tr("move the pose 1 mm; with Shift 10 mm, with Alt 0.2 mm"));
  row("E", tr("other end"));
  row("L", tr("next load case"));
  row(tr("Tab, Enter, Esc"), tr("to the next reading; take what is typed; give it up"));
  for (const QAction* action : actions_)
    if (!action->shortcut().isEmpty())
      row(action->shortcut().toString(QKeySequence::NativeText), action->text().remove('&'));
  QDialog dialog(this);
  dialog.setWindowTitle(tr("Keys"));
  dialog.setObjectName("keys");
  auto* layout = new QVBoxLayout(&dialog);
  auto* area = new QScrollArea(&dialog); // there are more than a low screen has room for
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  auto* text = new PlainLabel(area);
  text->setTextFormat(Qt::RichText);
  text->setText("<table>" + rows + "</table>");
  text->setTextInteractionFlags(Qt::TextSelectableByKeyboard | Qt::TextSelectableByMouse);
  area->setWidget(text);
  layout->addWidget(area);
  const QSize most = dialog.screen()->availableSize() * 0.9;
  dialog.resize((text->sizeHint() + QSize(60, 40)).boundedTo(most));
  text->setFocus(); // the arrows scroll
  dialog.exec();
}

} // namespace mavrel::app
