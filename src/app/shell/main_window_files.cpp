// What the window does with files: opened, saved, recovered, printed and left.
#include "app/shell/main_window.h"

#include "app/desk/other_log.h"
#include "app/desk/sureness.h"
#include "app/kit/ask.h"
#include "app/print/sheet_pdf.h"
#include "app/shell/notice_bar.h"
#include "build/file.h"
#include "file/text_file.h"
#include "report/tracks_csv.h"

#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPrintDialog>
#include <QPrinter>

namespace mavrel::app {

namespace {

/// Between the paths of files and the text that Qt shows of them.
std::filesystem::path path_of(const QString& file) {
  return std::filesystem::path(QFile::encodeName(file).toStdString());
}
QString text_of(const std::filesystem::path& file) {
  return QFile::decodeName(QByteArray::fromStdString(file.string()));
}

} // namespace

bool MainWindow::open_file(const QString& file) {
  const auto opened = desk_.document().open(path_of(file));
  if (!opened) {
    say_why(opened.error());
    return false;
  }
  leave_start();
  settings_.add_recent(QFileInfo(file).absoluteFilePath());
  notices_->forget_said();
  remind();
  return true;
}

void MainWindow::remind() {
  for (std::size_t i = 0; i < stages_.size(); ++i)
    if (const QString said = stages_[i]->reminder(); !said.isEmpty())
      notices_->show_notice(
          {said, tr("Show"), [this, key = stage_entries()[i].key] { go_to_stage(key); }, tr("Later"), {}, false});
}

void MainWindow::say_why(const Message& what) {
  const QString sentence = desk_.words_of(what);
  desk_.tell(sentence);
  notices_->show_notice({sentence, tr("All right"), {}, {}, {}, false});
}

bool MainWindow::save_to(const QString& file) {
  const auto wrong = desk_.document().settle(Unfinished::keep);
  ReadOnly read_only = ReadOnly::refuse;
  const QString name = QFileInfo(file).fileName();
  const auto there = stamp_of(path_of(file)); // what the question below is about
  switch (desk_.document().question_before_saving(path_of(file))) {
  case build::Question::none:
    break;
  case build::Question::read_only:
    if (!ask(this, tr("Read-only"), tr("“%1” is marked read-only. Replace it anyway?").arg(name), tr("Replace it")))
      return false;
    read_only = ReadOnly::replace;
    break;
  case build::Question::changed:
    // What was written into its log meanwhile is kept whatever becomes of the rest.
    if (const int more = take_other_log(desk_, path_of(file)); more > 0)
      desk_.tell(tr("Entries that were written into its log meanwhile and are kept: %1.").arg(more));
    if (!ask(
            this, tr("Changed meanwhile"),
            tr("“%1” was changed by another window or program since it was opened here. Saving takes the place of what "
               "was written there; “Save as” keeps both.")
                .arg(name),
            tr("Save over it")))
      return false;
    break;
  }
  const auto saved = desk_.document().save(path_of(file), read_only, there);
  if (!saved) {
    say_why(saved.error());
    return false;
  }
  settings_.add_recent(QFileInfo(file).absoluteFilePath());
  notices_->forget_said();
  if (wrong)
    desk_.tell(tr("Saved as %1, but without what is half typed: %2").arg(file, *wrong));
  else if (saved->other_names)
    desk_.tell(tr("Saved as %1. The file's other names (hard links) keep what was there before.").arg(file));
  else
    desk_.tell(tr("Saved as %1").arg(file));
  return true;
}

bool MainWindow::save() {
  return desk_.document().file().empty() ? save_as() : save_to(text_of(desk_.document().file()));
}

bool MainWindow::save_as() {
  const QString file = QFileDialog::getSaveFileName(this, tr("Save the build"), text_of(desk_.document().file()),
                                                    tr("Mavrel builds (*.mavrel)"));
  return !file.isEmpty() && save_under(file);
}

bool MainWindow::save_under(const QString& chosen) {
  if (!QFileInfo(chosen).suffix().isEmpty()) return save_to(chosen); // the dialog asked about this very file
  const QString file = chosen + ".mavrel";
  if (QFileInfo::exists(file) &&
      !ask(this, tr("Replace"), tr("“%1” is there already. Replace it?").arg(QFileInfo(file).fileName()),
           tr("Replace it")))
    return false;
  return save_to(file);
}

bool MainWindow::may_leave() {
  const auto wrong = desk_.document().settle(Unfinished::give_up);
  if (wrong) desk_.tell(*wrong);
  if (desk_.document().may_close()) return true;
  QMessageBox box(QMessageBox::Question, tr("Unsaved work"),
                  tr("“%1” has changes that are in no file.").arg(QString::fromStdString(desk_.build().job.car)),
                  QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
  box.setTextFormat(Qt::PlainText);
  box.setDefaultButton(QMessageBox::Save);
  const int answer = box.exec();
  if (answer == QMessageBox::Save) return save();
  return answer == QMessageBox::Discard;
}

void MainWindow::open_dialog() {
  if (!may_leave()) return;
  const QString file = QFileDialog::getOpenFileName(
      this, tr("Open a build"), QString::fromStdString(desk_.document().file().parent_path().string()),
      tr("Mavrel builds (*.mavrel);;All files (*)"));
  if (!file.isEmpty()) open_file(file);
}

bool MainWindow::export_sheet(const QString& file) {
  if (desk_.refuses_to_write(path_of(file))) return false;
  const auto written = std::make_shared<std::optional<bool>>();
  with_doubt([this, file, written](const assess::Doubt* doubt) {
    const auto pages = write_sheet({desk_.build(), desk_.assessment(), desk_.prefs(), doubt}, path_of(file));
    desk_.tell(pages ? tr("Build sheet written: %1, %n pages", "", *pages).arg(file) : desk_.words_of(pages.error()));
    *written = pages.has_value();
  });
  return written->value_or(true);
}

/// Paper says how sure its figures are: it waits for that, beside, where it is not known yet.
void MainWindow::with_doubt(const std::function<void(const assess::Doubt*)>& act) {
  const auto done = std::make_shared<bool>(false);
  Sureness::of(desk_).once_known(this, [act, done](const assess::Doubt* doubt) {
    *done = true;
    act(doubt);
  });
  if (!*done) desk_.tell(tr("How sure the figures are is worked out first; the sheet follows by itself."));
}

bool MainWindow::export_tracks(const QString& file) {
  if (desk_.refuses_to_write(path_of(file))) return false;
  const auto done = write_atomically(path_of(file), report::tracks_csv(desk_.assessment()));
  desk_.tell(done ? tr("Tracks written: %1").arg(file) : desk_.words_of(done.error()));
  return done.has_value();
}

void MainWindow::print() {
  const auto printer = std::make_shared<QPrinter>(QPrinter::HighResolution);
  QPrintDialog dialog(printer.get(), this);
  if (dialog.exec() != QDialog::Accepted) return;
  with_doubt([this, printer](const assess::Doubt* doubt) {
    print_sheet(*printer, {desk_.build(), desk_.assessment(), desk_.prefs(), doubt});
  });
}

void MainWindow::offer_left_behind() {
  const auto left = keeper_.left_behind();
  if (left.empty()) return;
  const LeftBehind& one = left.front();
  const QString what = one.original.empty() ? tr("a build that was in no file") : text_of(one.original.filename());
  const QString more = left.size() == 1 ? QString() : tr(" %1 more are offered after it.").arg(left.size() - 1);
  notices_->show_notice({tr("Mavrel was stopped with unsaved work on %1, kept from %2.%3")
                             .arg(what, QLocale().toString(one.when, QLocale::ShortFormat), more),
                         tr("Open it"), [this, one] { recover(one); }, tr("Leave it out"),
                         [this, one] {
                           keeper_.discard(one);
                           offer_left_behind();
                         },
                         true});
}

void MainWindow::recover(const LeftBehind& left) {
  if (!may_leave()) return offer_left_behind(); // not now: it is still there
  auto build = build::load(left.kept);
  if (!build) {
    say_why(build.error());
    return offer_left_behind();
  }
  // Who saved the file after this copy was made has work in it that this has not.
  std::error_code no_copy, no_file;
  const auto copied = std::filesystem::last_write_time(left.kept, no_copy),
             saved = std::filesystem::last_write_time(left.original, no_file);
  const bool newer = !no_copy && !no_file && saved > copied;
  leave_start();
  desk_.document().put(std::move(*build), left.original, false);
  if (newer) desk_.document().distrust_file();
  // The old copy goes once this one is on the disk, under our own name or saved; not before.
  keeper_.discard_when_safe(left);
  keeper_.keep_now();
  desk_.tell(
      newer ? tr("Recovered. Its file was saved after this was kept: save it under another name, and look at both.")
            : tr("Recovered. Save it to keep it."));
  offer_left_behind();
}

// ---- left

bool MainWindow::may_lose_unkept() {
  for (const StagePage* one : stages_)
    if (const QString unkept = one->unkept(); !unkept.isEmpty() && !ask(this, tr("Not kept"), unkept, tr("Discard")))
      return false;
  return true;
}

void MainWindow::closeEvent(QCloseEvent* event) {
  if (QWidget* focus = focusWidget()) focus->clearFocus(); // lines of cards take what is typed as they are left
  if (!may_lose_unkept() || !may_leave()) {
    event->ignore();
    return;
  }
  keeper_.forget();
  event->accept();
}

} // namespace mavrel::app
