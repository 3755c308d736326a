#include "app/stages/bags/bags.h"

#include "app/stages/bags/questions/comfort_view.h"
#include "app/stages/bags/questions/gauge_view.h"
#include "app/stages/bags/questions/lean_view.h"
#include "app/stages/bags/questions/stroke_view.h"
#include "app/stages/bags/questions/volume_view.h"
#include "app/stages/bags/questions/weather_view.h"
#include "app/desk/desk.h"
#include "app/stages/bags/search/search_page.h"
#include "app/stages/bags/shelf/shelf_page.h"
#include "app/stages/bags/bag_table.h"
#include "app/kit/chips.h"
#include "app/kit/field.h"
#include "app/stages/bags/questions/height_sheet.h"
#include "build/names.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QStackedWidget>
#include <QTabBar>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

using build::at;

namespace {
constexpr const char* side_keys[] = {"corner", "search", "shelf"};
} // namespace

template <class T>
void BagsStage::add_view(const QString& key, const QString& name, std::function<QString(T*)> summary) {
  auto* widget = new T(desk_, views_stack_);
  HeightPlot* plot = nullptr;
  if constexpr (std::is_base_of_v<HeightPlot, T>) {
    plot = widget;
    connect(plot, &HeightPlot::band_moved, this, &StagePage::band_moved);
  }
  views_stack_->addWidget(widget);
  tabs_->addTab(name);
  views_.push_back({key, name, widget, plot, [widget, summary] { return summary(widget); }, {}});
}

void BagsStage::add_field(const QString& path, const QString& caption, const QString& empty, const QStringList& views) {
  auto* field = new Field(desk_, QString(path).replace("#", "front"), caption, this);
  if (!empty.isEmpty()) field->set_placeholder(empty);
  fit_fields_.emplace_back(path, field);
  fit_row_->addWidget(field);
  for (View& view : views_)
    if (views.contains(view.key)) view.fields.push_back(field);
}

BagsStage::BagsStage(Desk& desk, QWidget* parent)
    : StagePage(parent), desk_(desk), title_(new QLabel(this)), about_(new QLabel(this)),
      sheet_title_(new QLabel(this)), sheet_about_(new QLabel(this)), ends_(new Chips(desk, tr("End"), 80, this)),
      pages_(new Chips(desk, tr("Part of the stage"), 130, this)), stack_(new QStackedWidget(this)),
      table_(new BagTable(desk, this)), tabs_(new QTabBar(this)), views_stack_(new QStackedWidget(this)),
      beside_(new QWidget(this)), search_(new SearchPage(desk, this)), shelf_(new ShelfPage(desk, this)) {
  const int u = desk_.look().unit();
  for (QLabel* label : {about_, sheet_about_})
    label->setProperty("quiet", true);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(2 * u, u, 0, u);
  layout->setSpacing(u / 2);
  auto* head = new QHBoxLayout;
  head->setSpacing(u);
  head->addWidget(ends_);
  head->addWidget(title_);
  about_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred); // gives way to the chips
  head->addWidget(about_, 1);
  head->addWidget(pages_);
  head->setContentsMargins(0, 0, u, 0);
  layout->addLayout(head);
  layout->addWidget(stack_, 1);
  corner_ = make_corner();
  stack_->addWidget(corner_);
  stack_->addWidget(search_);
  stack_->addWidget(shelf_);
  connect(ends_, &Chips::chosen, this, [this](int i) { desk_.set_end(static_cast<End>(i)); });
  connect(pages_, &Chips::chosen, this, [this](int i) { show_side(side_keys[i]); });
  connect(search_, &SearchPage::taken, this, [this] { show_side("corner"); });
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &BagsStage::refresh);
  connect(&desk_, &Desk::posed, this, &BagsStage::refresh_summary);
  refresh();
}

QWidget* BagsStage::make_corner() {
  const int u = desk_.look().unit();
  auto* corner = new QWidget(stack_);
  auto* layout = new QVBoxLayout(corner);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  layout->addWidget(table_);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  row->setContentsMargins(0, 0, u, 0);
  row->addWidget(sheet_title_, 1);
  fit_row_ = row;
  layout->addLayout(row);
  tabs_->setObjectName("bag_views");
  tabs_->setAccessibleName(tr("Questions about the bag"));
  tabs_->setExpanding(false);
  add_view<HeightSheet>("height", tr("At every height"), [this](HeightSheet*) {
    return desk_.assessment().end(desk_.end()).has_domain()
               ? tr("Drag the line, or ↑ ↓. Everything is read at that height.")
               : tr("Readings are missing on Car in.");
  });
  add_view<VolumeView>("volume", tr("Added volume"), [](VolumeView* v) { return v->summary(); });
  add_view<StrokeView>("stroke", tr("Stroke"), [](StrokeView* v) { return v->summary(); });
  add_view<WeatherView>("weather", tr("Weather"), [](WeatherView* v) { return v->summary(); });
  add_view<GaugeView>("gauge", tr("Gauge"), [](GaugeView* v) { return v->summary(); });
  add_view<ComfortView>("comfort", tr("Comfort"), [](ComfortView* v) { return v->summary(); });
  add_view<LeanView>("lean", tr("Lean"), [](LeanView* v) { return v->summary(); });
  const QStringList all = {"height", "volume", "stroke", "weather", "gauge", "comfort", "lean"};
  add_field("@.#.upper_stack_m", tr("upper stack"), {}, all);
  add_field("@.#.lower_stack_m", tr("lower stack"), {}, all);
  add_field("@.#.damper_open_m", tr("other damper, open"), tr("as surveyed"), {"height", "stroke"});
  add_field("@.#.damper_shut_m", tr("other damper, shut"), tr("as surveyed"), {"height", "stroke"});
  add_field("#.tyre_rate_n_per_m", tr("tyre's rate"), tr("usual"), {"volume"});
  add_field("surroundings.night_temperature_k", tr("cold night"), {}, {"weather"});
  add_field("surroundings.shut_off_above_k", tr("shut off warmer by"), {}, {"weather"});
  add_field("surroundings.pass_altitude_m", tr("mountain pass"), {}, {"weather"});
  add_field("surroundings.worked_temperature_k", tr("worked air"), {}, {"weather"});
  add_field("@.brief.gauge_error_pa", tr("gauge error ±"), {}, {"gauge"});
  add_field("#.friction_n", tr("friction at wheel"), {}, {"gauge"});
  add_field("@.brief.load_doubt_kg", tr("load known to ±"), {}, {"gauge"});
  add_field("#.bump_stop_give_m", tr("bump stop gives"), {}, {"stroke"});
  add_field("@.#.damper_gas_n", tr("damper's gas force"), {}, {"height"});
  layout->addWidget(tabs_);
  sheet_about_->setWordWrap(true);
  sheet_about_->setContentsMargins(0, 0, u, 0);
  sheet_about_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
  auto* foot = new QHBoxLayout;
  foot->setSpacing(0);
  auto* views = new QVBoxLayout;
  views->setSpacing(0);
  views->addWidget(sheet_about_);
  views->addWidget(views_stack_, 1);
  foot->addLayout(views, 1);
  foot->addWidget(beside_);
  layout->addLayout(foot, 1);
  connect(tabs_, &QTabBar::currentChanged, this, [this](int i) {
    views_stack_->setCurrentIndex(i);
    refresh();
    emit band_moved();
  });
  return corner;
}

void BagsStage::show_view(const QString& key) {
  show_side("corner");
  for (std::size_t i = 0; i < views_.size(); ++i)
    if (views_[i].key == key) tabs_->setCurrentIndex(static_cast<int>(i));
}

void BagsStage::show_side(const QString& key) {
  for (int i = 0; i < 3; ++i)
    if (key == side_keys[i]) stack_->setCurrentIndex(i);
  reserve_right(reserved_);
  refresh();
  emit band_moved();
}

void BagsStage::refresh() {
  const Look& look = desk_.look();
  const End end = desk_.end();
  const QString key = build::key_of(end);
  const int side = stack_->currentIndex();
  ends_->show_choices({tr("Front"), tr("Rear")}, static_cast<int>(at(end)));
  ends_->setVisible(side == 0);
  pages_->show_choices({tr("On this corner"), tr("Find what fits"), tr("The shelf")}, side);
  title_->setFont(look.font(TextSize::large, true));
  title_->setText(side == 1           ? tr("Find what fits")
                  : side == 2         ? tr("The shelf")
                  : end == End::front ? tr("Front bag")
                                      : tr("Rear bag"));
  for (QLabel* label : {about_, sheet_about_})
    label->setFont(look.font(TextSize::small));
  tabs_->setFont(look.font(TextSize::normal));
  fit_table();
  const auto& a = desk_.assessment();
  const QString load = QString::fromStdString(a.loads[desk_.load_case()].name);
  const auto& l = a.loads[desk_.load_case()].ends[at(end)];
  if (side == 1)
    about_->setText(tr("both ends, every load case"));
  else if (side == 2)
    about_->setText(tr("%1 bags").arg(desk_.shelf().bags.size()));
  else if (table_->model()->rowCount() == 0)
    about_->setText(desk_.shelf().bags.empty() ? tr("the shelf is empty")
                                               : tr("needs height, motion ratio and spring seat from Car in"));
  else
    about_->setText(l ? tr("the shelf on this corner, %1, %2 sprung").arg(load, desk_.shown(l->sprung_mass, Kind::mass))
                      : tr("weights are missing"));
  const auto& bag = desk_.build().variant().fit[at(end)].bag;
  sheet_title_->setFont(look.font(TextSize::large, true));
  sheet_title_->setText(
      bag.empty() ? tr("No bag chosen")
                  : tr("%1, %2, %3").arg(QString::fromStdString(bag), tr(build::name_of(end)).toLower(), load));
  const View& shown = views_[static_cast<std::size_t>(std::max(0, tabs_->currentIndex()))];
  for (const auto& [path, field] : fit_fields_) {
    field->bind(QString(path).replace("#", key));
    field->setFixedWidth(look.px(112));
    field->setVisible(std::find(shown.fields.begin(), shown.fields.end(), field) != shown.fields.end());
  }
  sheet_about_->setFixedHeight(look.px(30)); // two lines: the plots must not jump as its words change
  refresh_summary();
}

void BagsStage::refresh_summary() {
  if (!isVisible() || stack_->currentIndex() != 0) return;
  const auto i = static_cast<std::size_t>(std::max(0, tabs_->currentIndex()));
  const QString text = views_[i].summary();
  sheet_about_->setText(text);
  sheet_about_->setToolTip(text);
}

void BagsStage::reserve_right(int px) {
  reserved_ = px;
  beside_->setFixedWidth(px);
  const int u = desk_.look().unit();
  // The search and the shelf have no height scale of their own: the posts stand beside the whole page.
  layout()->setContentsMargins(2 * u, u, stack_->currentIndex() == 0 ? 0 : px, u);
}

std::optional<std::pair<int, int>> BagsStage::band() const {
  if (stack_->currentIndex() != 0) return std::nullopt;
  // Every view keeps the band of a height plot, so that the posts stay where they are.
  const int top = views_stack_->mapTo(this, QPoint(0, 0)).y(), bottom = top + views_stack_->height();
  return std::pair{top + desk_.look().px(HeightPlot::head_room), bottom - desk_.look().px(HeightPlot::foot_room)};
}

bool BagsStage::reads_across() const {
  return stack_->currentIndex() == 0 && views_[static_cast<std::size_t>(std::max(0, tabs_->currentIndex()))].plot;
}

void BagsStage::resizeEvent(QResizeEvent* event) {
  StagePage::resizeEvent(event);
  fit_table();
}

void BagsStage::fit_table() {
  // Whole rows only, about a third of the page.
  const Look& look = desk_.look();
  const int row = look.px(23), rows = std::max(4, (height() * 30 / 100 - look.px(22)) / row);
  table_->setFixedHeight(look.px(22) + rows * row + 2);
}

bool BagsStage::go_to(const QString& path) {
  const auto focus = [&](Field* field) {
    field->edit()->setFocus(Qt::OtherFocusReason);
    return true;
  };
  if (path.endsWith(".bag")) {
    show_side("corner");
    table_->setFocus(Qt::OtherFocusReason);
    return true;
  }
  if (path.endsWith(".sides")) {
    show_view("lean");
    return true;
  }
  for (const View& view : views_)
    for (Field* field : view.fields)
      if (desk_.resolve(field->path()) == path) {
        show_view(view.key);
        return focus(field);
      }
  for (const View& view : views_)
    for (Field* field : view.widget->findChildren<Field*>())
      if (desk_.resolve(field->path()) == path) {
        show_view(view.key);
        return focus(field);
      }
  return false;
}

} // namespace mavrel::app
