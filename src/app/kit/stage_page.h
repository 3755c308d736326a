// One stage of the work: a page in the workspace, and all that the window around it wants to know of it. The window
// knows stages by this alone; which there are stands in shell/stages.cpp.
#pragma once

#include "app/kit/page.h"

#include <QKeySequence>
#include <QString>
#include <QStringList>

namespace mavrel::app {

/// Something that can be done on a page by name, whatever is shown at the time.
struct Command {
  enum class Menu { file, edit, view };
  Menu menu = Menu::view;
  QString name;
  QKeySequence keys;
  std::function<void()> act;
};

/// An undo of the page's own, for work that is not in the build.
struct OwnUndo {
  QString what; // `edit of the card`
  bool can_undo = false, can_redo = false;
  std::function<void()> undo, redo;
};

class StagePage : public Page {
  Q_OBJECT
public:
  using Page::Page;
  /// Whether what stands in its band is over height, so that the pose line is read across it and the posts.
  [[nodiscard]] virtual bool reads_across() const { return band().has_value(); }
  /// Whether the height posts stand beside it; a page that draws posts of its own says no.
  [[nodiscard]] virtual bool wants_posts() const { return true; }
  /// Is this field entered here, whatever stage it troubles?
  [[nodiscard]] virtual bool owns(const QString&) const { return false; }
  /// The page is gone to by name: it shows itself as one first meets it.
  virtual void arrive() {}

  /// What can be done here; asked once, when the menus are made.
  [[nodiscard]] virtual std::vector<Command> commands() { return {}; }
  /// Undo and redo while the page is shown; none: the build's.
  [[nodiscard]] virtual std::optional<OwnUndo> own_undo() { return std::nullopt; }
  /// Files dropped on the window. @returns which of them it took
  virtual QStringList take_files(const QStringList&) { return {}; }
  /// A sentence to be said when a build is opened: something is due. Empty: nothing.
  [[nodiscard]] virtual QString reminder() { return {}; }
  /// A sentence about work here that would be lost by closing; empty: none.
  [[nodiscard]] virtual QString unkept() const { return {}; }

signals:
  /// It wants to be shown: a command of it was used.
  void called();
  /// What can be undone here has changed.
  void undo_changed();
  /// Somebody wants this build opened.
  void wants_open(const QString& file);

protected:
  /// The stage's column has the margins of a stage.
  [[nodiscard]] QVBoxLayout* stage_column();
};

} // namespace mavrel::app
