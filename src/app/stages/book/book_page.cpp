#include "app/stages/book/book_page.h"

#include "app/desk/clock.h"
#include "app/kit/ask.h"
#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"
#include "assess/care/origin.h"
#include "build/care.h"
#include "build/file.h"
#include "build/names.h"

#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QHeaderView>
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
std::string findings_of(const std::string& file, const shelf::Shelf& shelf) {
  const auto build = build::load(file);
  if (!build) return {};
  std::string out;
  for (const assess::Finding& f : assess::assess(*build, shelf).findings)
    out += say(f.title) + " " + say(f.reason) + "\n";
  return out;
}

} // namespace

BookPage::BookPage(Desk& desk, QWidget* parent)
    : StagePage(parent), desk_(desk), summary_(new QLabel(this)), car_(new QLabel(this)), alike_(new QLabel(this)),
      folder_(new QLineEdit(this)), words_(new QLineEdit(this)), owner_(new QLineEdit(this)), due_(new QLineEdit(this)),
      platform_(new QComboBox(this)), layout_(new QComboBox(this)), bag_(new QComboBox(this)),
      browse_(new QPushButton(tr("Folder …"), this)), update_(new QPushButton(tr("Bring up to date"), this)),
      open_(new QPushButton(tr("Open it"), this)), begin_(new QPushButton(tr("Begin a car from it"), this)),
      list_(list_table(
          "book_cars", tr("Cars of the book"),
          {tr("car"), tr("number"), tr("platform"), tr("bags"), tr("hours"), tr("proved"), tr("due"), tr("owner")},
          this)) {
  const int u = desk_.look().unit();
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(u * 2, u * 2, u * 2, u);
  whole->setSpacing(u);
  auto* top = new QHBoxLayout;
  top->setSpacing(u);
  folder_->setObjectName("book_folder");
  folder_->setAccessibleName(tr("Folder that the shop keeps its builds in"));
  folder_->setPlaceholderText(tr("the folder that the shop keeps its builds in"));
  top->addWidget(folder_, 1);
  browse_->setObjectName("book_browse");
  top->addWidget(browse_);
  update_->setObjectName("book_update");
  top->addWidget(update_);
  whole->addLayout(top);
  auto* asks = new QHBoxLayout;
  asks->setSpacing(u);
  words_->setObjectName("book_words");
  words_->setAccessibleName(tr("Words to find"));
  words_->setPlaceholderText(tr("words in notes, lessons, logs and findings"));
  words_->setClearButtonEnabled(true);
  asks->addWidget(words_, 3);
  platform_->setObjectName("book_platform");
  platform_->setAccessibleName(tr("Platform"));
  asks->addWidget(platform_, 2);
  layout_->setObjectName("book_layout");
  layout_->setAccessibleName(tr("Suspension at either end"));
  layout_->addItem(tr("any suspension"), "");
  for (const auto& row : build::names_of(build::Layout{}))
    layout_->addItem(desk_.words_of({row.name, {}}), row.key);
  asks->addWidget(layout_, 2);
  for (QComboBox* box : {platform_, layout_, bag_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(8);
  }
  bag_->setObjectName("book_bag");
  bag_->setAccessibleName(tr("Bag"));
  asks->addWidget(bag_, 2);
  owner_->setObjectName("book_owner");
  owner_->setAccessibleName(tr("Owner"));
  owner_->setPlaceholderText(tr("owner"));
  asks->addWidget(owner_, 1);
  due_->setObjectName("book_due");
  due_->setAccessibleName(tr("Due before this day"));
  due_->setPlaceholderText(tr("due before"));
  asks->addWidget(due_, 1);
  whole->addLayout(asks);
  summary_->setObjectName("book_summary");
  summary_->setWordWrap(true);
  whole->addWidget(summary_);
  list_->setWordWrap(false);
  whole->addWidget(list_, 5);
  auto* below = new QWidget(this);
  auto* both = new QHBoxLayout(below);
  both->setContentsMargins(0, 0, 0, 0);
  both->setSpacing(u * 2);
  for (QLabel* label : {car_, alike_}) {
    label->setWordWrap(true);
    label->setTextFormat(Qt::RichText);
    label->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    both->addWidget(label, 1);
  }
  car_->setObjectName("book_car");
  alike_->setObjectName("book_alike");
  whole->addWidget(scrolled(below, this), 4);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  row->addStretch(1);
  open_->setObjectName("book_open");
  row->addWidget(open_);
  begin_->setObjectName("book_begin");
  row->addWidget(begin_);
  whole->addLayout(row);
  folder_->setText(settings().value("book/folder").toString());
  typed_.setSingleShot(true);
  typed_.setInterval(search_after_ms);
  connect(&typed_, &QTimer::timeout, this, &BookPage::search);
  for (QLineEdit* edit : {words_, owner_, due_})
    connect(edit, &QLineEdit::textChanged, this, [this] { typed_.start(); });
  for (QComboBox* box : {platform_, layout_, bag_})
    connect(box, &QComboBox::currentIndexChanged, this, &BookPage::search);
  connect(browse_, &QPushButton::clicked, this, [this] {
    const QString chosen = QFileDialog::getExistingDirectory(this, tr("Folder of builds"), folder_->text());
    if (!chosen.isEmpty()) folder_->setText(chosen), sync(chosen);
  });
  connect(update_, &QPushButton::clicked, this, [this] { sync(folder_->text()); });
  connect(folder_, &QLineEdit::returnPressed, this, [this] { sync(folder_->text()); });
  connect(list_, &QTableWidget::currentCellChanged, this, &BookPage::show_car);
  connect(list_, &QTableWidget::cellDoubleClicked, this, [this] { open(); });
  connect(open_, &QPushButton::clicked, this, &BookPage::open);
  connect(begin_, &QPushButton::clicked, this, &BookPage::begin_from);
  connect(&desk_, &Desk::restyled, this, &BookPage::fill);
  fill();
}

BookPage::~BookPage() {
  if (syncing_) desk_.runner().stop(*syncing_);
}

void BookPage::reserve_right(int) {}

std::vector<Command> BookPage::commands() {
  return {};
}

std::vector<Findable> BookPage::findables() {
  std::vector<Findable> out;
  for (std::size_t i = 0; i < found_.size(); ++i)
    out.push_back({QString::fromStdString(found_[i].car.number + " " + found_[i].car.car), tr("car of the book"),
                   [this, row = static_cast<int>(i)] { list_->setCurrentCell(row, 0); }});
  return out;
}

void BookPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (!book_ && !syncing_) search();
}

void BookPage::sync(const QString& folder) {
  if (syncing_) return;
  if (folder.trimmed().isEmpty()) {
    desk_.tell(tr("Which folder does the shop keep its builds in?"));
    return folder_->setFocus();
  }
  settings().setValue("book/folder", folder);
  folder_->setText(folder);
  book_.reset(); // the runner opens its own
  syncing_ = desk_.runner().start(
      [this, folder = folder.toStdString(), shelf = desk_.shelf(),
       remade = std::exchange(remade_, false)](const RunControl& control) -> std::function<void()> {
        QString said;
        try {
          auto book = book::Book::open(book::usual_book());
          if (!book) throw std::runtime_error(say(book.error()));
          const auto synced = book->sync(folder, [&](int done, int all) {
            control.progress(all > 0 ? 0.5 * done / all : 0.5);
            return !control.stop.stop_requested();
          });
          if (!synced) {
            said = QString::fromStdString(say(synced.error()));
          } else {
            said =
                tr("%1 builds read, %2 as they were, %3 gone.").arg(synced->taken).arg(synced->same).arg(synced->gone);
            if (synced->rebuilt || remade) said += " " + tr("The book was damaged and is made anew from the builds.");
            if (!synced->problems.empty())
              said += " " + tr("%1 could not be read, the first: %2")
                                .arg(synced->problems.size())
                                .arg(QString::fromStdString(say(synced->problems.front().what)));
          }
          // Findings take an assessment each: they follow behind.
          while (!control.stop.stop_requested()) {
            const auto files = book->without_findings(findings_in_one_go);
            if (!files || files->empty()) break;
            bool wrote = true;
            for (const std::string& file : *files) {
              if (control.stop.stop_requested()) break;
              wrote = wrote && book->take_findings(file, findings_of(file, shelf)).has_value();
            }
            if (!wrote) break; // no room, most likely: they are searched without
            control.progress(0.75);
          }
        } catch (const std::exception& what) {
          said = said.isEmpty() ? QString::fromUtf8(what.what()) : said + " " + QString::fromUtf8(what.what());
        }
        return [this, said] {
          syncing_.reset();
          desk_.tell(said);
          search();
        };
      },
      [this](double done) { summary_->setText(tr("The builds are read: %1 %").arg(qRound(done * 100))); });
  fill();
}

void BookPage::search() {
  if (syncing_) return;
  if (!book_) {
    auto opened = book::Book::open(book::usual_book());
    if (!opened) return summary_->setText(desk_.words_of(opened.error()));
    if (opened->was_rebuilt() && !folder_->text().trimmed().isEmpty()) {
      // Its file has been put aside: the builds are all that is needed to have it whole again.
      remade_ = true;
      return sync(folder_->text());
    }
    book_.emplace(std::move(*opened));
    if (const auto platforms = book_->platforms()) {
      const QSignalBlocker quiet(platform_);
      const QString held = platform_->currentData().toString();
      platform_->clear();
      platform_->addItem(tr("any platform"), "");
      for (const std::string& one : *platforms)
        platform_->addItem(QString::fromStdString(one), QString::fromStdString(one));
      platform_->setCurrentIndex(std::max(0, platform_->findData(held)));
    }
    const QSignalBlocker quiet(bag_);
    const QString held = bag_->currentData().toString();
    bag_->clear();
    bag_->addItem(tr("any bag"), "");
    for (const auto& bag : desk_.shelf().bags)
      bag_->addItem(QString::fromStdString(bag.card.name), QString::fromStdString(bag.card.name));
    bag_->setCurrentIndex(std::max(0, bag_->findData(held)));
  }
  book::BookQuery query;
  query.words = words_->text().toStdString();
  query.platform = platform_->currentData().toString().toStdString();
  query.layout = layout_->currentData().toString().toStdString();
  query.bag = bag_->currentData().toString().toStdString();
  query.owner = owner_->text().trimmed().toStdString();
  query.due_before = due_->text().trimmed().toStdString();
  if (!query.due_before.empty() && !work::parse_day(query.due_before)) query.due_before.clear(); // half typed
  auto found = book_->search(query);
  if (!found) {
    book_.reset();
    return summary_->setText(desk_.words_of(found.error()));
  }
  found_ = std::move(*found);
  fill();
}

const book::BookFound* BookPage::picked() const {
  const int row = list_->currentRow();
  return row >= 0 && static_cast<std::size_t>(row) < found_.size() ? &found_[static_cast<std::size_t>(row)] : nullptr;
}

void BookPage::fill() {
  const Tokens& t = desk_.look().tokens();
  list_->setFont(desk_.look().font(TextSize::small));
  for (QLabel* label : {car_, alike_})
    label->setFont(desk_.look().font(TextSize::small));
  update_->setEnabled(!syncing_);
  if (syncing_) return;
  const std::string today = work::day_text(clock_now().day);
  {
    const QSignalBlocker quiet(list_);
    const QString held = list_->currentRow() >= 0 && list_->item(list_->currentRow(), 0)
                             ? list_->item(list_->currentRow(), 0)->data(Qt::UserRole).toString()
                             : QString();
    list_->setRowCount(static_cast<int>(found_.size()));
    int row = 0;
    for (int r = 0; r < list_->rowCount(); ++r) {
      const book::BookCar& c = found_[static_cast<std::size_t>(r)].car;
      put_cell(list_, r, 0,
               QString::fromStdString(c.car.empty() ? QFileInfo(QString::fromStdString(c.file)).fileName().toStdString()
                                                    : c.car),
               t.ink);
      list_->item(r, 0)->setData(Qt::UserRole, QString::fromStdString(c.file));
      put_cell(list_, r, 1, QString::fromStdString(c.number), t.second, true);
      put_cell(list_, r, 2, QString::fromStdString(c.platform), t.ink, true);
      put_cell(list_, r, 3, QString::fromStdString(c.bag[0] == c.bag[1] ? c.bag[0] : c.bag[0] + " / " + c.bag[1]),
               t.ink, true);
      put_cell(list_, r, 4, c.hours > 0 ? desk_.shown(c.hours, Kind::hours, 0) : QString("–"), t.ink);
      put_cell(list_, r, 5, c.checks > 0 ? tr("%1 of %2").arg(c.proved).arg(c.checks) : QString("–"), t.ink);
      const bool late = !c.due.empty() && c.due <= today;
      put_cell(list_, r, 6, (late ? "■ " : "") + QString::fromStdString(c.due), late ? t.stop : t.second, true);
      put_cell(list_, r, 7, QString::fromStdString(c.owner), t.second, true);
      if (held == QString::fromStdString(c.file)) row = r;
    }
    if (list_->rowCount() > 0) list_->setCurrentCell(row, 0);
  }
  const int all = book_ ? book_->size().value_or(0) : 0;
  summary_->setText(
      all == 0 ? tr("The book is empty. Name the folder that the shop keeps its builds in: the book is made from "
                    "them, and can be thrown away without a loss.")
               : tr("%1 of %2 cars.").arg(found_.size()).arg(all));
  show_car();
}

void BookPage::show_car() {
  const book::BookFound* found = picked();
  open_->setEnabled(found != nullptr);
  begin_->setEnabled(found != nullptr);
  if (!found) {
    car_->clear();
    alike_->clear();
    return;
  }
  const book::BookCar& c = found->car;
  QString text = QString("<b>%1</b><br>%2")
                     .arg(QString::fromStdString(c.number + " " + c.car).toHtmlEscaped(),
                          QString::fromStdString(c.file).toHtmlEscaped());
  if (!found->snippet.empty()) {
    QString snippet = QString::fromStdString(found->snippet).toHtmlEscaped();
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
    text += "<p>" + tr("Handed over on %1.").arg(QString::fromStdString(c.handed_over)) + "</p>";
  car_->setText(text);
  if (c.platform.empty() || !book_) {
    alike_->setText(tr("No platform is typed on this car’s job: nothing is like it."));
    return;
  }
  const auto alike = book_->alike(c.platform);
  if (!alike) return alike_->setText(desk_.words_of(alike.error()).toHtmlEscaped());
  QString told =
      QString("<b>%1</b><br>")
          .arg(tr("Builds of %1: %2").arg(QString::fromStdString(c.platform)).arg(alike->builds).toHtmlEscaped());
  told += alike->timed == 1 ? tr("Work took %1.").arg(desk_.shown(alike->mean, Kind::hours, 0))
          : alike->timed > 0
              ? tr("Work took %1, from %2 to %3.")
                    .arg(desk_.shown(alike->mean, Kind::hours, 0), desk_.shown(alike->least, Kind::hours, 0),
                         desk_.shown(alike->most, Kind::hours, 0))
              : tr("Nobody noted what the work took.");
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
  alike_->setText(told);
}

void BookPage::open() {
  if (const book::BookFound* found = picked()) emit wants_open(QString::fromStdString(found->car.file));
}

void BookPage::begin_from() {
  const book::BookFound* found = picked();
  if (!found) return;
  const auto earlier = build::load(found->car.file);
  if (!earlier) return desk_.tell(desk_.words_of(earlier.error()));
  if (!desk_.document().may_close() && !app::ask(this, tr("Unsaved work"),
                                                 tr("“%1” has changes that are in no file. They would be lost.")
                                                     .arg(QString::fromStdString(desk_.build().job.car)),
                                                 tr("Begin all the same")))
    return;
  const std::string today = work::day_text(clock_now().day);
  desk_.document().put(assess::begun_from(*earlier, found->car.file, today), {}, false);
  desk_.tell(tr("Begun from %1. Figures that are that car’s until they are measured here: %2.")
                 .arg(QString::fromStdString(found->car.number.empty() ? found->car.car : found->car.number))
                 .arg(desk_.build().origin->taken.size()));
  emit desk_.went_to("car_in", "front.left.mass_kg");
}

} // namespace mavrel::app
