#include "app/shell/start_page.h"

#include "app/desk/desk.h"
#include "app/kit/choice_box.h"
#include "app/kit/plain.h"
#include "app/theme/look.h"
#include "build/names.h"
#include "shelf/places.h"

#include <QComboBox>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {

constexpr int most_recent_shown = 5;

template <class Value>
QComboBox* choice_of(Desk& desk, const QString& name, QWidget* parent) {
  auto* box = new QComboBox(parent);
  box->setAccessibleName(name);
  for (const auto& row : build::names_of(Value{}))
    box->addItem(desk.words_of({row.name, {}}), static_cast<int>(row.value));
  return box;
}
void put(QComboBox* box, int value) {
  box->setCurrentIndex(box->findData(value));
}

} // namespace

StartPage::StartPage(Desk& desk, QWidget* parent) : QScrollArea(parent), desk_(desk) {
  setObjectName("start_page");
  const int u = desk_.look().unit();
  auto* inside = new QWidget(this);
  setWidget(inside);
  setWidgetResizable(true);
  setFrameShape(QFrame::NoFrame);
  auto* all = new QVBoxLayout(inside);
  all->setContentsMargins(6 * u, 4 * u, 6 * u, 4 * u);
  all->setSpacing(2 * u);
  const auto title = [&](const QString& text, TextSize size, QVBoxLayout* to) {
    auto* label = new PlainLabel(text, this);
    titles_.emplace_back(label, size);
    to->addWidget(label);
  };
  const auto quiet = [&](const QString& text, QVBoxLayout* to) {
    auto* label = new PlainLabel(text, this);
    label->setProperty("quiet", true);
    label->setWordWrap(true);
    to->addWidget(label);
  };
  title(tr("Mavrel"), TextSize::huge, all);
  quiet(tr("Air suspension for lowered cars, worked out before it is welded."), all);
  auto* columns = new QHBoxLayout;
  columns->setSpacing(8 * u);
  all->addLayout(columns);

  auto* begin = new QVBoxLayout;
  begin->setSpacing(u);
  columns->addLayout(begin, 3);
  title(tr("A new car"), TextSize::large, begin);
  quiet(tr("Say what it is. Usual figures stand in until you take your own; each is marked until then."), begin);
  style_ = choice_of<build::BodyStyle>(desk_, tr("Body"), this);
  style_->setObjectName("style");
  for (const build::End end : build::both_ends) {
    layout_[build::at(end)] = choice_of<build::Layout>(
        desk_, end == build::End::front ? tr("Front suspension") : tr("Rear suspension"), this);
    layout_[build::at(end)]->setObjectName(end == build::End::front ? "layout_front" : "layout_rear");
  }
  use_ = new QComboBox(this);
  use_->setObjectName("use");
  use_->setAccessibleName(tr("Built for"));
  for (const assess::CarUsedFor use : assess::all_uses)
    use_->addItem(desk_.words_of({assess::name_of(use), {}}), static_cast<int>(use));
  auto* form = new QGridLayout;
  form->setHorizontalSpacing(2 * u);
  int row = 0;
  for (const auto& [name, box] : {std::pair{tr("Body"), style_},
                                  {tr("Front suspension"), layout_[0]},
                                  {tr("Rear suspension"), layout_[1]},
                                  {tr("Built for"), use_}}) {
    form->addWidget(new PlainLabel(name, this), row, 0);
    form->addWidget(box, row++, 1);
  }
  form->setColumnStretch(1, 1);
  begin->addLayout(form);
  const auto button = [&](const QString& name, const char* object, QVBoxLayout* to, auto act) {
    auto* made = new QPushButton(name, this);
    made->setObjectName(object);
    connect(made, &QPushButton::clicked, this, act);
    auto* line = new QHBoxLayout;
    line->addWidget(made);
    line->addStretch(1);
    to->addLayout(line);
    return made;
  };
  button(tr("Start this car"), "start_usual", begin, [this] {
    emit wants_new(assess::usual_car(what()));
  })->setDefault(true);
  button(tr("Start with nothing filled in"), "start_empty", begin, [this] { emit wants_new(build::empty_build()); });
  begin->addStretch(1);

  auto* there = new QVBoxLayout;
  there->setSpacing(u);
  columns->addLayout(there, 2);
  title(tr("A car that is there"), TextSize::large, there);
  button(tr("Open a file…"), "start_open", there, [this] { emit wants_open(); });
  button(tr("Look in the book of cars"), "start_book", there, [this] { emit wants_book(); });
  title(tr("Open last"), TextSize::normal, there);
  recent_ = new QVBoxLayout;
  there->addLayout(recent_);
  title(tr("Demo cars"), TextSize::normal, there);
  for (const auto& [name, file] : {std::pair{tr("Sorrel Wayfare, an estate on struts"), "sorrel-wayfare.mavrel"},
                                   {tr("Hollin Tarnway, a half-ton pickup"), "hollin-tarnway.mavrel"}})
    button(name, file, there,
           [this, which = file] { emit wants_file(QString::fromStdString((shelf::demo_folder() / which).string())); });
  back_ = button(tr("Back to the car that is open"), "start_back", there, [this] { emit closed(); });
  there->addStretch(1);
  columns->addStretch(1);
  all->addStretch(1);
  connect(style_, &QComboBox::currentIndexChanged, this, &StartPage::follow_style);
  put(style_, static_cast<int>(build::BodyStyle::hatchback));
  follow_style();
  connect(&desk_, &Desk::restyled, this, &StartPage::restyle);
  restyle();
}

void StartPage::restyle() {
  for (const auto& [label, size] : titles_)
    label->setFont(desk_.look().font(size, true));
}

void StartPage::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape && !back_->isHidden()) return emit closed();
  QScrollArea::keyPressEvent(event);
}

void StartPage::follow_style() {
  const auto usual = assess::usual_for(static_cast<build::BodyStyle>(style_->currentData().toInt()));
  for (std::size_t e = 0; e < 2; ++e)
    put(layout_[e], static_cast<int>(usual.layout[e]));
  put(use_, static_cast<int>(usual.use));
}

assess::WhatItIs StartPage::what() const {
  const auto layout = [&](std::size_t e) { return static_cast<build::Layout>(layout_[e]->currentData().toInt()); };
  return {static_cast<build::BodyStyle>(style_->currentData().toInt()),
          {layout(0), layout(1)},
          static_cast<assess::CarUsedFor>(use_->currentData().toInt())};
}

void StartPage::show_recent(const QStringList& recent, const QString& car) {
  back_->setVisible(!car.isEmpty());
  back_->setText(on_button(tr("Back to %1").arg(car)));
  while (QLayoutItem* item = recent_->takeAt(0)) {
    delete item->widget();
    delete item;
  }
  for (const QString& file : recent.mid(0, most_recent_shown)) {
    auto* open = new QPushButton(on_button(QFileInfo(file).fileName()), this);
    open->setToolTip(file);
    open->setProperty("plain", true);
    connect(open, &QPushButton::clicked, this, [this, file] { emit wants_file(file); });
    recent_->addWidget(open, 0, Qt::AlignLeft);
  }
  if (recent.isEmpty()) {
    auto* none = new PlainLabel(tr("Nothing yet."), this);
    none->setProperty("quiet", true);
    recent_->addWidget(none);
  }
}

} // namespace mavrel::app
