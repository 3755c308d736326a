// What every page stands on, and every stage: a column beside the room of the height posts, filled anew when something
// changed and only while somebody looks; what it asks, followed; its parts made in one way and dressed in the look.
#pragma once

#include "app/desk/answers.h"
#include "app/desk/desk.h"

#include <QPointer>
#include <QWidget>

class QBoxLayout;
class QHBoxLayout;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace mavrel::app {

class Field;
class HeightPlot;
class ListTable;
enum class TextSize;

/// Something that can be found by name and gone to.
struct Findable {
  QString name, kind; // `Osier O-135`, `bag`
  std::function<void()> act;
};

class Page : public QWidget {
  Q_OBJECT
public:
  Page(Desk& desk, QWidget* parent);
  /// Room at the right that the height posts take, px: of the whole page, or beside its own plot over height.
  virtual void reserve_right(int px);
  /// Top and bottom of a height scale on the page, in the page; none when it shows none.
  [[nodiscard]] virtual std::optional<std::pair<int, int>> band() const;
  /// Are heights read here? Then the posts stand beside it, else a slim strip that opens them.
  [[nodiscard]] virtual bool reads_heights() const { return band().has_value(); }
  /// Gives the field or choice of a path the focus. @returns whether it is here
  virtual bool go_to(const QString& path);
  /// Filled although nobody looks yet: what is gone to must be there.
  void make_ready() {
    if (!isVisible()) fill();
  }
  /// Does it use the arrows itself, rather than move the pose?
  [[nodiscard]] virtual bool takes_arrows() const;
  /// What can be found here; asked each time.
  [[nodiscard]] virtual std::vector<Findable> findables() { return {}; }

signals:
  void band_moved();

protected:
  /// Everything the page shows; called while it is in sight.
  virtual void fill() {}
  /// Fills it now, or when it is next looked at.
  void refresh();
  void showEvent(QShowEvent* event) override;

  // ---- what it asks
  /// Asked by itself whenever the page is looked at and it is not the answer to what would be asked now.
  void follow(AskedAnything& asked) { wanted_.push_back(&asked); }
  /// Asked by a person; given up when what it was worked out from has changed.
  void keep_up(AskedAnything& asked) { kept_.push_back(&asked); }

  // ---- where things lie
  /// The page's column, the posts' room at its right.
  [[nodiscard]] QVBoxLayout* column();
  /// The page's column over its whole width: the posts' room is beside what `beside_posts` puts there.
  [[nodiscard]] QVBoxLayout* wide_column();
  /// A row of the column with its posts' room at the right. @returns the layout left of that room
  QVBoxLayout* beside_posts(int stretch);
  /// The plot whose heights the posts are read against, and which takes the arrows while it has the focus.
  void set_plot(HeightPlot* plot);
  void give_arrows_to(QWidget* view) { arrows_.push_back(view); }
  /// A row at the end of a layout.
  QHBoxLayout* row(QBoxLayout* into, int stretch = 0);

  // ---- what it is made of; each in the look's font from now on
  /// Words that wrap, as plain text. @param name  it is found by; nullptr: by nobody
  QLabel* words(const char* name, TextSize size, bool bold = false);
  QLabel* small_words(const char* name = nullptr);
  /// A line in the second ink that gives way where there is no room.
  QLabel* cut_words(const char* name);
  /// Words with marks of our own in them; what a person typed is escaped by whoever sets it.
  QLabel* rich_words(const char* name = nullptr);
  /// A caption or a remark in the second ink.
  QLabel* quiet(const QString& text = {});
  QLabel* heading(const QString& text, bool large = false);
  QPushButton* button(QBoxLayout* row, const QString& text, const char* name, std::function<void()> act = {});
  ListTable* table(const char* name, const QString& spoken, const QStringList& heads);
  /// Fields side by side. @param base  in front of each key
  void fields(QBoxLayout* row, const QString& base, std::initializer_list<std::pair<const char*, QString>> keys,
              int stretch = 0);
  /// A widget's font follows the look.
  void dress(QWidget* widget, TextSize size, bool bold = false);

  // ---- files
  /// Asks where to, writes text there, and tells. @returns whether it was written
  bool save_text(const QString& title, const QString& kinds, const std::string& text);
  bool save_csv(const QString& title, const std::string& text);

  Desk& desk_;

private:
  QVBoxLayout* make_column(bool beside);
  void redress();

  struct Dressed {
    QPointer<QWidget> widget;
    TextSize size;
    bool bold;
  };
  QVBoxLayout* column_ = nullptr;
  QWidget* beside_ = nullptr;
  HeightPlot* plot_ = nullptr;
  std::vector<AskedAnything*> wanted_, kept_;
  std::vector<QWidget*> arrows_;
  std::vector<Dressed> dressed_;
  bool stale_ = true;
  bool filling_ = false, again_ = false; // wanted while it was being filled
};

/// Gives the field or choice of a path on a page the focus. @returns whether it is there
bool go_to_field(const Desk& desk, const QWidget* page, const QString& path);

/// A page that scrolls up and down where its window is too low for it.
[[nodiscard]] QWidget* scrolled(QWidget* inside, QWidget* parent);

} // namespace mavrel::app
