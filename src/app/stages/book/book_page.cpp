#include "app/stages/book/book_page.h"

#include "app/desk/clock.h"
#include "app/desk/home.h"
#include "app/kit/ask.h"
#include "app/kit/list_table.h"
#include "assess/book_notes.h"
#include "assess/care/origin.h"
#include "build/care.h"
#include "build/file.h"
#include "build/names.h"

#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include <utility>

namespace mavrel::app {

namespace {

constexpr std::size_t findings_in_one_go = 50;
constexpr int search_after_ms = 120;

QSettings settings() {
  return {QSettings::IniFormat, QSettings::UserScope, "mavrel", "mavrel"};
}

/// All that a car's assessment says, to be searched.
book::BookFindings findings_of(const std::string& file, const shelf::Shelf& shelf) {
  const auto build = build::load(file);
  if (!build) return {};
  const assess::BookNotes notes = assess::book_notes(*build, shelf, clock_now().day);
  return {notes.findings, notes.due, notes.proved, notes.proofs};
}

/// The book as it stands; what is asked of it.
template <class Answer, class Ask>
Expected<Answer> of_book(const Ask& ask) {
  auto opened = book::Book::open(book::usual_book());
  if (!opened) return refuse(opened.error());
  return ask(*opened);
}

} // namespace

BookQuestion::Answer BookQuestion::answer(const Given& given, const RunControl&) {
  return of_book<Found>([&](book::Book& book) -> Expected<Found> {
    Found out;
    out.was_rebuilt = book.was_rebuilt();
    auto cars = book.search(given.query);
    if (!cars) return refuse(cars.error());
    out.cars = std::move(*cars);
    auto platforms = book.platforms();
    if (!platforms) return refuse(platforms.error());
    out.platforms = std::move(*platforms);
    out.size = book.size().value_or(0);
    return out;
  });
}

AlikeQuestion::Answer AlikeQuestion::answer(const Given& given, const RunControl&) {
  return of_book<book::Alike>([&](book::Book& book) { return book.alike(given.platform); });
}

BookSync::Answer BookSync::answer(const Given& given, const RunControl& control) {
  return of_book<Message>([&](book::Book& book) -> Expected<Message> {
    const auto synced = book.sync(given.folder, [&](int done, int all) {
      control.progress(all > 0 ? 0.5 * done / all : 0.5);
      return !control.stop.stop_requested();
    });
    if (!synced) return refuse(synced.error());
    // Findings take an assessment each: they follow behind.
    while (!control.stop.stop_requested()) {
      const auto files = book.without_findings(findings_in_one_go);
      if (!files || files->empty()) break;
      bool wrote = true;
      for (const std::string& file : *files) {
        if (control.stop.stop_requested()) break;
        wrote = wrote && book.take_findings(file, findings_of(file, given.shelf)).has_value();
      }
      if (!wrote) break; // no room, most likely: they are searched without
      control.progress(0.75);
    }
    const auto number = [](int n) { return Argument(std::to_string(n)); };
    std::vector<Argument> args{number(synced->taken), number(synced->same), number(synced->gone)};
    const bool anew = synced->rebuilt || given.remade;
    if (synced->problems.empty())
      return Message{anew ? words("{0} builds read, {1} as they were, {2} gone. The book was damaged and is made again "
                                  "from the builds.")
                          : words("{0} builds read, {1} as they were, {2} gone."),
                     args};
    args.push_back(number(static_cast<int>(synced->problems.size())));
    args.push_back(synced->problems.front().what);
    return Message{
        anew ? words("{0} builds read, {1} as they were, {2} gone. The book was damaged and is made again from "
                     "the builds. {3} could not be read, the first: {4}")
             : words("{0} builds read, {1} as they were, {2} gone. {3} could not be read, the first: {4}"),
        args};
  });
}

BookPage::BookPage(Desk& desk, QWidget* parent)
    : StagePage(desk, parent), found_(
                                   desk.answers(), [this] { came(); }, [this] { return query(); }),
      alike_of_(desk.answers(), [this] { refresh(); }), sync_(desk.answers(), [this] { synced(); }),
      folder_(new QLineEdit(this)), words_(new QLineEdit(this)), owner_(new QLineEdit(this)), due_(new QLineEdit(this)),
      platform_(new QComboBox(this)), layout_(new QComboBox(this)), bag_(new QComboBox(this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const all = stage_column();
  all->setContentsMargins(0, u, 2 * u, 0);
  auto* top = row(all);
  folder_->setObjectName("book_folder");
  folder_->setAccessibleName(tr("Folder that the shop keeps its builds in"));
  folder_->setPlaceholderText(tr("the folder that the shop keeps its builds in"));
  top->addWidget(folder_, 1);
  button(top, tr("Folder …"), "book_browse", [this] {
    const QString chosen = QFileDialog::getExistingDirectory(this, tr("Folder of builds"), from_home(folder_->text()));
    if (!chosen.isEmpty()) sync(chosen);
  });
  update_ = button(top, tr("Bring up to date"), "book_update", [this] { sync(from_home(folder_->text())); });
  make_asks();
  summary_ = words("book_summary", TextSize::normal);
  all->addWidget(summary_);
  list_ =
      table("book_cars", tr("Cars of the book"),
            {tr("car"), tr("number"), tr("platform"), tr("bags"), tr("hours"), tr("proved"), tr("due"), tr("owner")});
  all->addWidget(list_, 5);
  auto* below = new QWidget(this);
  auto* both = new QHBoxLayout(below);
  both->setContentsMargins(0, 0, 0, 0);
  both->setSpacing(u * 2);
  car_ = rich_words("book_car");
  alike_ = rich_words("book_alike");
  both->addWidget(car_, 1);
  both->addWidget(alike_, 1);
  all->addWidget(scrolled(below, this), 4);
  auto* foot = row(all);
  foot->addStretch(1);
  open_ = button(foot, tr("Open it"), "book_open", [this] { open(); });
  begin_ = button(foot, tr("Start a car from it"), "book_begin", [this] { begin_from(); });
  folder_->setText(at_home(settings().value("book/folder").toString()));
  sync_.set_moved([this] { summary_->setText(tr("The builds are read: %1 %").arg(qRound(sync_.done() * 100))); });
  typed_.setSingleShot(true);
  typed_.setInterval(search_after_ms);
  connect(&typed_, &QTimer::timeout, this, &BookPage::search);
  for (QLineEdit* edit : {words_, owner_, due_})
    connect(edit, &QLineEdit::textChanged, this, [this] { typed_.start(); });
  for (QComboBox* box : {platform_, layout_, bag_})
    connect(box, &QComboBox::currentIndexChanged, this, &BookPage::search);
  connect(folder_, &QLineEdit::returnPressed, this, [this] { sync(from_home(folder_->text())); });
  connect(list_, &ListTable::chose, this, &BookPage::fill_car);
  connect(list_, &ListTable::picked, this, &BookPage::open);
}

void BookPage::make_asks() {
  auto* asks = row(column());
  words_->setPlaceholderText(tr("words in notes, lessons, logs and findings"));
  words_->setClearButtonEnabled(true);
  owner_->setPlaceholderText(tr("owner"));
  due_->setPlaceholderText(tr("due before"));
  const std::tuple<QWidget*, const char*, QString, int> parts[] = {
      {words_, "book_words", tr("Words to find"), 3},
      {platform_, "book_platform", tr("Platform"), 2},
      {layout_, "book_layout", tr("Suspension at either end"), 2},
      {bag_, "book_bag", tr("Bag"), 2},
      {owner_, "book_owner", tr("Owner"), 1},
      {due_, "book_due", tr("Due before this day"), 1}};
  for (const auto& [widget, name, spoken, stretch] : parts) {
    widget->setObjectName(name);
    widget->setAccessibleName(spoken);
    asks->addWidget(widget, stretch);
  }
  for (QComboBox* box : {platform_, layout_, bag_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(12);
  }
  platform_->addItem(tr("any platform"), "");
  bag_->addItem(tr("any bag"), "");
  layout_->addItem(tr("any suspension"), "");
  for (const auto& row : build::names_of(build::Layout{}))
    layout_->addItem(desk_.words_of({row.name, {}}), row.key);
}

std::vector<Findable> BookPage::findables() {
  std::vector<Findable> out;
  if (const BookQuestion::Found* found = found_.last())
    for (std::size_t i = 0; i < found->cars.size(); ++i)
      out.push_back({QString::fromStdString(found->cars[i].car.number + " " + found->cars[i].car.car),
                     tr("car of the book"), [this, i] { list_->hold(i); }});
  return out;
}

// ---- asking the book

BookQuestion::Given BookPage::query() const {
  BookQuestion::Given out;
  out.edition = edition_;
  out.query.words = words_->text().toStdString();
  out.query.platform = platform_->currentData().toString().toStdString();
  out.query.layout = layout_->currentData().toString().toStdString();
  out.query.bag = bag_->currentData().toString().toStdString();
  out.query.owner = owner_->text().trimmed().toStdString();
  out.query.due_before = due_->text().trimmed().toStdString();
  if (!work::parse_day(out.query.due_before)) out.query.due_before.clear(); // half typed
  return out;
}

void BookPage::search() {
  typed_.stop();
  if (!is_syncing()) found_.want();
}

void BookPage::sync(const QString& folder) {
  if (is_syncing()) return;
  if (folder.trimmed().isEmpty()) {
    desk_.tell(tr("Which folder does the shop keep its builds in?"));
    return folder_->setFocus();
  }
  settings().setValue("book/folder", folder);
  folder_->setText(at_home(folder));
  const BookQuestion::Found* found = found_.value();
  sync_.ask({folder.toStdString(), desk_.shelf(), ++edition_, found && found->was_rebuilt});
  refresh();
}

void BookPage::synced() {
  if (is_syncing()) return refresh();
  if (sync_.value()) desk_.tell(desk_.words_of(*sync_.value()));
  if (const auto trouble = sync_.trouble()) desk_.tell(desk_.words_of(*trouble));
  search();
  refresh();
}

/// What was looked for came in. A book whose file was put aside is made again by itself: its builds are all it takes.
void BookPage::came() {
  const BookQuestion::Found* found = found_.value();
  if (found && found->was_rebuilt && !folder_->text().trimmed().isEmpty() && !sync_.was_asked())
    return sync(from_home(folder_->text()));
  refresh();
}

const book::BookFound* BookPage::picked() {
  const BookQuestion::Found* found = found_.last();
  const auto row = list_->held();
  return found && row && *row < found->cars.size() ? &found->cars[*row] : nullptr;
}

// ---- shown

void BookPage::fill() {
  update_->setEnabled(!is_syncing());
  if (is_syncing()) return;
  if (!found_.was_asked()) search();
  const BookQuestion::Found* found = found_.last();
  const auto trouble = found_.trouble();
  if (trouble) return summary_->setText(desk_.words_of(*trouble));
  if (!found) return summary_->setText(tr("The book is opened …"));
  fill_list(*found);
  summary_->setText(found->size == 0
                        ? tr("The book is empty. Name the folder that the shop keeps its builds in: the book is made "
                             "from them, and can be thrown away without a loss.")
                        : tr("%1 of %2 cars.").arg(found->cars.size()).arg(found->size));
  fill_car();
}

void BookPage::fill_list(const BookQuestion::Found& found) {
  const Tokens& t = desk_.look().tokens();
  const auto offer = [](QComboBox* box, const std::vector<std::string>& names) {
    QStringList wanted, there;
    for (const std::string& one : names)
      wanted << QString::fromStdString(one);
    for (int i = 1; i < box->count(); ++i)
      there << box->itemText(i);
    if (there == wanted) return;
    const QSignalBlocker quiet(box);
    const QString held = box->currentData().toString();
    while (box->count() > 1)
      box->removeItem(1);
    for (const QString& one : wanted)
      box->addItem(one, one);
    box->setCurrentIndex(std::max(0, box->findData(held)));
  };
  offer(platform_, found.platforms);
  std::vector<std::string> bags;
  for (const auto& bag : desk_.shelf().bags)
    bags.push_back(bag.card.name);
  offer(bag_, bags);
  const std::string today = work::day_text(clock_now().day);
  const QString held = list_->property("held").toString();
  list_->fill(found.cars.size(), [&](std::size_t r, ListTable::Row& row) {
    const book::BookCar& c = found.cars[r].car;
    const bool late = !c.due.empty() && c.due <= today;
    row.words(c.car.empty() ? QFileInfo(QString::fromStdString(c.file)).fileName() : QString::fromStdString(c.car),
              t.ink)
        .words(QString::fromStdString(c.number), t.second)
        .words(QString::fromStdString(c.platform), t.ink)
        .words(QString::fromStdString(c.bag[0] == c.bag[1] ? c.bag[0] : c.bag[0] + " / " + c.bag[1]), t.ink)
        .figure(c.hours > 0 ? desk_.shown(c.hours, Kind::hours, 0) : QString("–"), t.ink)
        .figure(c.checks > 0 ? tr("%1 of %2").arg(c.proved).arg(c.checks) : QString("–"), t.ink)
        .words((late ? "■ " : "") + QString::fromStdString(c.due), late ? t.stop : t.second)
        .words(QString::fromStdString(c.owner), t.second);
    if (held == QString::fromStdString(c.file)) row.hold(); // the car, wherever it stands now
  });
}

void BookPage::fill_car() {
  const book::BookFound* found = picked();
  open_->setEnabled(found != nullptr);
  begin_->setEnabled(found != nullptr);
  list_->setProperty("held", found ? QString::fromStdString(found->car.file) : QString());
  car_->setText(found ? about(*found) : QString());
  alike_->setText(found ? about_alike(found->car.platform) : QString());
}

QString BookPage::about(const book::BookFound& found) const {
  const book::BookCar& c = found.car;
  QString text = QString("<b>%1</b><br>%2")
                     .arg(QString::fromStdString(c.number + " " + c.car).toHtmlEscaped(),
                          at_home(QString::fromStdString(c.file)).toHtmlEscaped());
  if (!found.snippet.empty()) {
    QString snippet = QString::fromStdString(found.snippet).toHtmlEscaped();
    snippet.replace(QString::fromUtf8("‹"), "<b>").replace(QString::fromUtf8("›"), "</b>");
    text += "<p>" + snippet + "</p>";
  }
  const auto layout_name = [&](const std::string& key) {
    for (const auto& row : build::names_of(build::Layout{}))
      if (key == row.key) return desk_.words_of({row.name, {}});
    return QString::fromStdString(key);
  };
  text +=
      "<p>" + tr("Front %1, rear %2.").arg(layout_name(c.layout[0]), layout_name(c.layout[1])).toHtmlEscaped() + "</p>";
  if (!c.lesson_text.empty())
    text += "<p>" + tr("Lessons") + "<br>• " +
            QString::fromStdString(c.lesson_text).trimmed().toHtmlEscaped().replace("\n", "<br>• ") + "</p>";
  if (!c.handed_over.empty())
    text += "<p>" + tr("Handed over on %1.").arg(QString::fromStdString(c.handed_over)).toHtmlEscaped() + "</p>";
  return text;
}

QString BookPage::about_alike(const std::string& platform) {
  if (platform.empty()) return tr("No platform is typed on this car’s job: nothing is like it.");
  const AlikeQuestion::Given wanted{platform, edition_};
  if (!alike_of_.given() || !(*alike_of_.given() == wanted)) alike_of_.ask(wanted);
  if (const auto trouble = alike_of_.trouble()) return desk_.words_of(*trouble).toHtmlEscaped();
  const book::Alike* alike = alike_of_.value();
  if (!alike) return {};
  QString told =
      QString("<b>%1</b><br>")
          .arg(tr("Builds of %1: %2").arg(QString::fromStdString(platform)).arg(alike->builds).toHtmlEscaped());
  told += alike->timed == 1 ? tr("Work took %1.").arg(desk_.shown(alike->mean, Kind::hours, 0))
          : alike->timed > 0
              ? tr("Work took %1, from %2 to %3.")
                    .arg(desk_.shown(alike->mean, Kind::hours, 0), desk_.shown(alike->least, Kind::hours, 0),
                         desk_.shown(alike->most, Kind::hours, 0))
              : tr("Nobody noted how long the work took.");
  told += "<br>";
  if (!alike->bags.empty()) told += "<br>" + tr("Bags") + "<br>";
  for (const auto& bags : alike->bags)
    told += "• " +
            (bags.checks > 0 ? tr("%1 / %2: %3 ×, %4 of %5 checks passed")
                                   .arg(QString::fromStdString(bags.bag[0]), QString::fromStdString(bags.bag[1]))
                                   .arg(bags.builds)
                                   .arg(bags.proved)
                                   .arg(bags.checks)
                             : tr("%1 / %2: %3 ×, not proved yet")
                                   .arg(QString::fromStdString(bags.bag[0]), QString::fromStdString(bags.bag[1]))
                                   .arg(bags.builds))
                .toHtmlEscaped() +
            "<br>";
  if (!alike->lessons.empty()) told += "<br>" + tr("What had to be changed") + "<br>";
  for (const std::string& lesson : alike->lessons)
    told += "• " + QString::fromStdString(lesson).toHtmlEscaped() + "<br>";
  return told;
}

void BookPage::open() {
  if (const book::BookFound* found = picked()) emit wants_open(QString::fromStdString(found->car.file));
}

void BookPage::begin_from() {
  const book::BookFound* found = picked();
  if (!found) return;
  const std::string file = found->car.file;
  const auto earlier = build::load(file);
  if (!earlier) return desk_.tell(desk_.words_of(earlier.error()));
  if (!desk_.document().may_close() && !app::ask(this, tr("Unsaved work"),
                                                 tr("“%1” has changes that are in no file. They would be lost.")
                                                     .arg(QString::fromStdString(desk_.build().job.car)),
                                                 tr("Start anyway")))
    return;
  const std::string today = work::day_text(clock_now().day);
  desk_.document().put(assess::begun_from(*earlier, file, today), {}, false);
  desk_.tell(tr("Begun from %1. Figures that are that car’s until they are measured here: %2.")
                 .arg(QString::fromStdString(earlier->job.number.empty() ? earlier->job.car : earlier->job.number))
                 .arg(desk_.build().origin->taken.size()));
  emit desk_.went_to("car_in", "front.left.mass_kg");
}

} // namespace mavrel::app
