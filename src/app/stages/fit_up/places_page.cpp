#include "app/stages/fit_up/places_page.h"

#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"
#include "app/stages/fit_up/answers.h"
#include "build/names_fit_up.h"

#include <QGridLayout>
#include <QHeaderView>
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

PlacesPage::PlacesPage(Desk& desk, FitUpAnswers& answers, QWidget* parent)
    : FitUpPage(desk, answers, parent), view_(new WaysView(desk, answers, this)), list_(nullptr),
      said_(new QLabel(this)) {
  QStringList heads{tr("part")};
  for (const PlaceAspect a : aspects)
    heads << desk_.words_of({assess::name_of(a), {}});
  list_ = list_table("places", tr("Places"), heads, this);
  const int u = desk_.look().unit();
  QVBoxLayout* const column = this->column();
  view_->setMinimumHeight(desk_.look().px(220));
  column->addWidget(view_, 6);
  list_->setMinimumHeight(desk_.look().px(110));
  column->addWidget(list_, 4);
  said_->setWordWrap(true);
  said_->setTextFormat(Qt::RichText);
  said_->setObjectName("place_said");
  column->addWidget(said_);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  const std::pair<const char*, QString> captions[] = {
      {"x_m", tr("behind front axle")}, {"y_m", tr("left")}, {"z_m", tr("up")}};
  for (const auto& [key, caption] : captions) {
    auto* field = new Field(desk_, QString("@.air.tank_at.%1").arg(key), caption, this);
    field->setMinimumWidth(desk_.look().px(70));
    row->addWidget(field, 1);
    fields_.emplace_back(field, key);
  }
  const auto choice = [&](const char* key, const QString& name, auto e) {
    auto* box = new ChoiceBox(desk_, QString("@.air.tank_at.%1").arg(key), name, rows_of(e), this);
    box->setMinimumContentsLength(4);
    row->addWidget(box, 1, Qt::AlignBottom);
    choices_.emplace_back(box, key);
  };
  choice("room", tr("Lies in"), build::PartRoom{});
  choice("held", tr("Held"), build::PartHeld{});
  choice("lies", tr("Lies"), build::PartLies{});
  column->addLayout(row);
  auto* wishes = new QHBoxLayout;
  wishes->setSpacing(u);
  const auto wish = [&](const char* path, const QString& name, auto e) {
    auto* label = new QLabel(name, this);
    set_small(label, desk_.look());
    label->setProperty("quiet", true);
    wishes->addWidget(label);
    wishes->addWidget(new ChoiceBox(desk_, path, name, rows_of(e), this), 1);
  };
  wish("@.fit_up.shown", tr("the kit is"), build::KitShown{});
  wish("@.fit_up.handset", tr("handset"), build::HandsetBy{});
  wish("@.fit_up.metal_box", tr("behind metal"), build::YesNo{});
  column->addLayout(wishes);
  connect(list_, &QTableWidget::currentCellChanged, this, [this](int r) {
    const auto& places = answers_.places();
    if (r >= 0 && static_cast<std::size_t>(r) < places.size())
      show_place(QString::fromStdString(places[static_cast<std::size_t>(r)].place));
  });
  connect(view_, &WaysView::chose_place, this, &PlacesPage::show_place);
  refresh();
}

bool PlacesPage::go_to(const QString& path) {
  for (const char* field : {"controller_at", "handset_at"})
    if (path.contains(field)) show_place(QString("fit_up.%1").arg(field));
  return go_to_field(desk_, this, path);
}

void PlacesPage::show_place(const QString& field) {
  if (held_ != field) {
    held_ = field;
    view_->hold_place(field);
  }
  refresh();
}

void PlacesPage::fill() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  list_->setFont(look.font(TextSize::small));
  said_->setFont(look.font(TextSize::small));
  const auto& places = answers_.places();
  if (held_.isEmpty() && !places.empty()) {
    held_ = QString::fromStdString(places.front().place);
    view_->hold_place(held_);
  }
  const QSignalBlocker quiet(list_);
  list_->setRowCount(static_cast<int>(places.size()));
  const JudgedPlace* held = nullptr;
  for (int r = 0; r < list_->rowCount(); ++r) {
    const JudgedPlace& p = places[static_cast<std::size_t>(r)];
    put_cell(list_, r, 0,
             desk_.words_of(p.what) + (p.part.empty() ? QString() : " · " + QString::fromStdString(p.part)), t.ink);
    for (int c = 0; c < static_cast<int>(std::size(aspects)); ++c) {
      QString text;
      QColor ink = t.second;
      for (const assess::PlaceWord& w : p.words)
        if (w.aspect == aspects[c] && (text.isEmpty() || w.judged != PlaceJudged::good)) {
          text = sign_of(w.judged);
          ink = colour_of(w.judged, t);
        }
      put_cell(list_, r, c + 1, text, ink);
    }
    if (held_ == QString::fromStdString(p.place)) held = &p, list_->setCurrentCell(r, 0);
  }
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
