#include "app/stages/fit_up/places_page.h"

#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/stages/fit_up/questions.h"
#include "build/names_fit_up.h"

#include <QGridLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace mavrel::app {

using assess::JudgedPlace;
using assess::PlaceAspect;
using assess::PlaceJudged;

namespace {

constexpr PlaceAspect aspects[] = {PlaceAspect::room,  PlaceAspect::drain,   PlaceAspect::heat,  PlaceAspect::shake,
                                   PlaceAspect::sound, PlaceAspect::service, PlaceAspect::radio, PlaceAspect::seen};

QString sign_of(PlaceJudged judged) {
  return judged == PlaceJudged::good ? "✓" : judged == PlaceJudged::care ? "△" : "✗";
}
QColor colour_of(PlaceJudged judged, const Tokens& t) {
  return judged == PlaceJudged::good ? t.good : judged == PlaceJudged::care ? t.caution : t.stop;
}

} // namespace

PlacesPage::PlacesPage(Desk& desk, QWidget* parent) : Page(desk, parent), view_(new WaysView(desk, this)) {
  give_arrows_to(view_);
  view_->setMinimumHeight(desk_.look().px(220));
  column()->addWidget(view_, 6);
  QStringList heads{tr("part")};
  for (const PlaceAspect a : aspects)
    heads << desk_.words_of({assess::name_of(a), {}});
  list_ = table("places", tr("Places"), heads);
  list_->setMinimumHeight(desk_.look().px(110));
  column()->addWidget(list_, 4);
  said_ = rich_words("place_said");
  column()->addWidget(said_);
  make_fields();
  connect(list_, &ListTable::chose, this, [this](std::size_t row) {
    const auto& places = places_of(desk_);
    if (row < places.size()) show_place(QString::fromStdString(places[row].place));
  });
  connect(view_, &WaysView::chose_place, this, &PlacesPage::show_place);
}

void PlacesPage::make_fields() {
  auto* of_place = row(column());
  const std::pair<const char*, QString> captions[] = {
      {"x_m", tr("behind axle")}, {"y_m", tr("left")}, {"z_m", tr("up")}};
  for (const auto& [key, caption] : captions) {
    auto* field = new Field(desk_, QString("@.air.tank_at.%1").arg(key), caption, this);
    of_place->addWidget(field, 1);
    fields_.emplace_back(field, key);
  }
  auto* of_choice = row(column());
  const auto choice = [&](const char* key, const QString& name, auto e) {
    auto* box = new ChoiceBox(desk_, QString("@.air.tank_at.%1").arg(key), name, rows_of(e), this);
    box->setMinimumContentsLength(4);
    of_choice->addWidget(box, 1);
    choices_.emplace_back(box, key);
  };
  choice("room", tr("Lies in"), build::PartRoom{});
  choice("held", tr("Held"), build::PartHeld{});
  choice("lies", tr("Lies"), build::PartLies{});
  auto* wishes = row(column());
  const auto wish = [&](const char* path, const QString& name, auto e) {
    QLabel* caption = quiet(name);
    caption->setWordWrap(false);
    wishes->addWidget(caption);
    wishes->addWidget(new ChoiceBox(desk_, path, name, rows_of(e), this), 1);
  };
  wish("@.fit_up.shown", tr("the kit is"), build::KitShown{});
  wish("@.fit_up.handset", tr("handset"), build::HandsetBy{});
  wish("@.fit_up.metal_box", tr("behind metal"), build::YesNo{});
}

bool PlacesPage::go_to(const QString& path) {
  for (const char* field : {"controller_at", "handset_at"})
    if (path.contains(field)) show_place(QString("fit_up.%1").arg(field));
  return Page::go_to(path);
}

void PlacesPage::show_place(const QString& field) {
  if (held_ != field) {
    held_ = field;
    view_->hold_place(field);
  }
  refresh();
}

void PlacesPage::fill() {
  const Tokens& t = desk_.look().tokens();
  const auto& places = places_of(desk_);
  if (held_.isEmpty() && !places.empty()) {
    held_ = QString::fromStdString(places.front().place);
    view_->hold_place(held_);
  }
  const JudgedPlace* held = nullptr;
  list_->fill(places.size(), [&](std::size_t r, ListTable::Row& row) {
    const JudgedPlace& p = places[r];
    row.words(desk_.words_of(p.what) + (p.part.empty() ? QString() : " · " + QString::fromStdString(p.part)), t.ink);
    for (const PlaceAspect aspect : aspects) {
      QString text;
      QColor ink = t.second;
      for (const assess::PlaceWord& w : p.words)
        if (w.aspect == aspect && (text.isEmpty() || w.judged != PlaceJudged::good))
          text = sign_of(w.judged), ink = colour_of(w.judged, t);
      row.figure(text, ink);
    }
    if (held_ == QString::fromStdString(p.place)) held = &p, row.hold();
  });
  QString said;
  if (held)
    for (const assess::PlaceWord& w : held->words)
      said += QString("<span style='color:%1'>%2</span> <b>%3</b>: %4 &nbsp; ")
                  .arg(colour_of(w.judged, t).name(), sign_of(w.judged),
                       desk_.words_of({assess::name_of(w.aspect), {}}).toHtmlEscaped(),
                       desk_.words_of(w.said).toHtmlEscaped());
  said_->setText(places.empty() ? tr("No kit yet: it is chosen in Air.") : said);
  if (!held) return;
  for (const auto& [field, key] : fields_)
    field->bind(QString("@.%1.%2").arg(QString::fromStdString(held->place), key));
  for (const auto& [box, key] : choices_)
    box->bind(QString("@.%1.%2").arg(QString::fromStdString(held->place), key));
}

} // namespace mavrel::app
