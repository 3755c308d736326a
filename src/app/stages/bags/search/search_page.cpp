#include "app/stages/bags/search/search_page.h"

#include "app/desk/desk.h"
#include "app/desk/edits.h"
#include "app/kit/chart.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMouseEvent>
#include <QProgressBar>
#include <QPushButton>
#include <QTableWidget>

#include <tuple>

namespace mavrel::app {

using assess::SearchChoice;
using assess::SearchFigures;

namespace {

/// A figure that choices are weighed by.
struct Axis {
  const char* name;
  Kind kind;
  double SearchFigures::*what;
  int decimals;
};
constexpr Axis axes[] = {
    {QT_TRANSLATE_NOOP("search", "lowest parked height"), Kind::length, &SearchFigures::lowest, -1},
    {QT_TRANSLATE_NOOP("search", "off the comfort wanted"), Kind::frequency, &SearchFigures::discomfort, 2},
    {QT_TRANSLATE_NOOP("search", "air a lift"), Kind::mass, &SearchFigures::air, 3},
    {QT_TRANSLATE_NOOP("search", "road pressure left"), Kind::share, &SearchFigures::reserve, 0},
    {QT_TRANSLATE_NOOP("search", "lift above road"), Kind::length, &SearchFigures::lift, -1},
};

QString list_text(const std::vector<double>& values, Kind kind, const UnitPrefs& prefs) {
  QStringList out;
  for (const double v : values)
    out << QString::fromStdString(show_exact(v, kind, prefs));
  return out.join("; ");
}

} // namespace

SearchPage::SearchPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), volumes_(new QLineEdit(this)), stacks_(new QLineEdit(this)),
      sure_(new QCheckBox(tr("holds in nine of ten"), this)), choices_(new QWidget(this)), go_(new QPushButton(this)),
      take_(new QPushButton(tr("Take over as a variant"), this)), progress_(new QProgressBar(this)),
      said_(new QLabel(this)), held_(new QLabel(this)), across_(new QComboBox(this)), up_(new QComboBox(this)),
      scatter_(new Chart(desk, this)), table_(new QTableWidget(this)), search_(desk.runner(), [this] { moved(); }) {
  setObjectName("search_page");
  const int u = desk_.look().unit();
  const assess::SearchSpace usual;
  volumes_->setText(list_text(usual.added_volumes, Kind::volume, desk_.prefs()));
  volumes_->setAccessibleName(tr("Added volumes to try"));
  stacks_->setText(list_text(usual.upper_stacks, Kind::length, desk_.prefs()));
  stacks_->setCursorPosition(0); // read from its beginning
  stacks_->setAccessibleName(tr("Upper and lower stacks to try"));
  go_->setObjectName("search_go");
  take_->setObjectName("search_take");
  table_->setObjectName("search_table");
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, u / 2, 0, 0);
  layout->setSpacing(u / 2);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  const auto captioned = [&](const QString& caption, QWidget* widget) {
    auto* column = new QVBoxLayout;
    column->setSpacing(0);
    auto* label = new QLabel(caption, this);
    label->setProperty("quiet", true);
    set_small(label, desk_.look());
    label->setBuddy(widget);
    column->addWidget(label);
    column->addWidget(widget);
    return column;
  };
  row->addLayout(captioned(tr("added volumes"), volumes_), 3);
  row->addLayout(captioned(tr("upper and lower stacks"), stacks_), 3);
  sure_->setObjectName("search_sure");
  sure_->setToolTip(tr("Only what passes in nine of ten cars that the readings and cards may be of"));
  row->addLayout(captioned(" ", sure_));
  row->addLayout(captioned(" ", go_));
  layout->addLayout(row);
  progress_->setTextVisible(false);
  progress_->setFixedHeight(desk_.look().px(4));
  progress_->setRange(0, 1000);
  layout->addWidget(progress_);
  said_->setWordWrap(true);
  layout->addWidget(said_);
  auto* middle = new QHBoxLayout(choices_);
  middle->setContentsMargins(0, 0, 0, 0);
  middle->setSpacing(u);
  auto* left = new QVBoxLayout;
  left->setSpacing(u / 2);
  auto* pick = new QHBoxLayout;
  for (QComboBox* box : {up_, across_}) {
    for (const Axis& axis : axes)
      box->addItem(tr(axis.name));
    connect(box, &QComboBox::currentIndexChanged, this, &SearchPage::draw);
  }
  up_->setAccessibleName(tr("Upright axis"));
  across_->setAccessibleName(tr("Level axis"));
  up_->setCurrentIndex(3);
  across_->setCurrentIndex(1);
  pick->addWidget(up_);
  pick->addWidget(new QLabel(tr("against"), this));
  pick->addWidget(across_);
  pick->addStretch(1);
  left->addLayout(pick);
  left->addWidget(scatter_, 1);
  middle->addLayout(left, 3);
  auto* right = new QVBoxLayout;
  held_->setWordWrap(true);
  held_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  held_->setFixedWidth(desk_.look().px(212));
  right->addWidget(held_, 1);
  auto* steps = new QHBoxLayout;
  for (const auto& [name, object, by] :
       {std::tuple{tr("‹ Better"), "search_better", -1}, std::tuple{tr("Next ›"), "search_next", 1}}) {
    auto* step = new QPushButton(name, this);
    step->setObjectName(object);
    set_small(step, desk_.look());
    connect(step, &QPushButton::clicked, this, [this, way = by] {
      if (!held_choice_) return;
      const auto to = static_cast<long>(*held_choice_) + way;
      if (to >= 0 && to < static_cast<long>(result()->choices.size())) hold(static_cast<std::size_t>(to));
    });
    steps->addWidget(step);
  }
  right->addLayout(steps);
  right->addWidget(take_);
  middle->addLayout(right);
  layout->addWidget(choices_, 5);
  table_->setColumnCount(4);
  table_->setAccessibleName(tr("Every pair of bags and what became of it"));
  table_->verticalHeader()->hide();
  table_->setShowGrid(false);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setTabKeyNavigation(false);
  table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  table_->horizontalHeader()->setHighlightSections(false);
  table_->horizontalHeader()->setStretchLastSection(true);
  layout->addWidget(table_, 4);
  scatter_->put_legend_below();
  scatter_->setFocusPolicy(Qt::NoFocus);
  scatter_->setCursor(Qt::PointingHandCursor);
  connect(scatter_, &QCustomPlot::mousePress, this, [this](QMouseEvent* event) { pick_at(event->position()); });
  connect(table_, &QTableWidget::currentCellChanged, this, [this](int r) {
    const auto* found = result();
    if (!found || r < 0 || static_cast<std::size_t>(r) >= found->ranking.size()) return;
    const auto& pair = found->ranking[static_cast<std::size_t>(r)];
    for (std::size_t i = 0; i < found->choices.size(); ++i)
      if (found->choices[i].ends[0].bag == pair.bags[0] && found->choices[i].ends[1].bag == pair.bags[1] &&
          pair.reason.empty())
        return hold(i);
  });
  connect(go_, &QPushButton::clicked, this, [this] { is_running() ? stop() : start(); });
  connect(take_, &QPushButton::clicked, this, &SearchPage::take);
  connect(&desk_, &Desk::changed, this, [this] {
    // An edit of anything the answer was worked out from, another variant, another shelf.
    if (search_.was_asked() &&
        search_.keep_only_for(assess::search_given(desk_.build(), desk_.shelf(), tried_, tried_sure_)))
      said_->setText(tr("What was searched has changed since; search again."));
  });
  connect(&desk_, &Desk::restyled, this, &SearchPage::refresh);
  refresh();
}

void SearchPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

std::optional<std::size_t> SearchPage::chosen() const {
  return held_choice_;
}

std::optional<assess::SearchSpace> SearchPage::space() {
  assess::SearchSpace out;
  const auto volumes = parse_readings(volumes_->text().toStdString(), Kind::volume, desk_.prefs());
  const auto stacks = parse_readings(stacks_->text().toStdString(), Kind::length, desk_.prefs());
  for (const auto* list : {&volumes, &stacks})
    if (!*list) {
      desk_.tell(desk_.words_of(list->error()));
      return std::nullopt;
    }
  const auto believable = [](const std::vector<double>& values, double most) {
    return !values.empty() && values.size() <= 20 &&
           std::all_of(values.begin(), values.end(), [&](double v) { return v >= 0 && v <= most; });
  };
  if (!believable(*volumes, 0.1) || !believable(*stacks, 0.4)) {
    desk_.tell(tr("Try 1 to 20 volumes from nothing to 100 l and 1 to 20 stacks from nothing to 400 mm, for example 0; "
                  "2 l; 5 l."));
    return std::nullopt;
  }
  out.added_volumes = *volumes;
  out.upper_stacks = out.lower_stacks = *stacks;
  return out;
}

const assess::SearchResult* SearchPage::result() const {
  const auto& answer = search_.answer();
  return answer && *answer ? &**answer : nullptr;
}

void SearchPage::start() {
  const auto wanted = space();
  if (!wanted) return;
  held_choice_.reset();
  desk_.document().settle(Unfinished::give_up);
  tried_ = *wanted;
  tried_sure_ = sure_->isChecked() ? assess::Sure::nine_in_ten : assess::Sure::as_read;
  search_.ask(assess::search_given(desk_.build(), desk_.shelf(), tried_, tried_sure_));
}

void SearchPage::stop() {
  search_.forget();
  said_->setText(tr("Stopped. Nothing was changed."));
  emit finished();
}

void SearchPage::moved() {
  progress_->setValue(is_running() ? static_cast<int>(search_.done() * 1000) : 0);
  const bool ended = was_running_ && !is_running();
  if (is_running() && was_running_) return; // only the bar moved
  was_running_ = is_running();
  if (!result()) held_choice_.reset();
  if (ended && search_.answer()) found();
  if (const auto trouble = search_.trouble()) said_->setText(desk_.words_of(*trouble));
  refresh();
  if (ended && search_.answer()) emit finished();
}

void SearchPage::found() {
  const auto& answer = *search_.answer();
  if (!answer) return said_->setText(desk_.words_of(answer.error()));
  const QLocale locale;
  const auto count = [&](std::size_t n) { return locale.toString(static_cast<qulonglong>(n)); };
  const bool sure = tried_sure_ == assess::Sure::nine_in_ten;
  QString said =
      answer->choices.empty()
          ? (sure ? tr("None of %1 combinations passes every hard limit in nine cases of ten of how sure readings and "
                       "cards are. The list says what each pair misses by least, the nearest first.")
                  : tr("None of %1 combinations passes every hard limit. The list says what each pair misses by least, "
                       "the nearest first."))
                .arg(count(answer->tried))
          : tr("%1 combinations, %2 within every hard limit, %3 that nothing outdoes. Pick one in the scatter or the "
               "list.")
                .arg(count(answer->tried), count(answer->passed))
                .arg(answer->choices.size());
  if (sure && !answer->choices.empty())
    said += " " + tr("Within them means: in nine cases of ten of how sure readings and cards are.");
  if (answer->pairs > answer->ranking.size())
    said += " " +
            tr("Of %1 pairs of bags the first %2 are listed.").arg(count(answer->pairs), count(answer->ranking.size()));
  said_->setText(said);
  if (!answer->choices.empty()) held_choice_ = 0;
}

void SearchPage::take() {
  if (!result() || !held_choice_) return;
  const SearchChoice choice = result()->choices[*held_choice_];
  build::Variant variant = assess::with_choice(desk_.build().variant(), choice);
  variant.name = tr("%1, found").arg(free_letter(desk_)).toStdString();
  if (!take_variant(desk_, std::move(variant))) return; // there was no room for it; the desk said so
  desk_.tell(tr("Taken over as variant %1. The design before it stays.")
                 .arg(QString::fromStdString(desk_.build().variant().name)));
  emit taken();
}

void SearchPage::hold(std::size_t choice) {
  held_choice_ = choice;
  draw();
  refresh();
}

void SearchPage::refresh() {
  const Look& look = desk_.look();
  go_->setText(is_running() ? tr("Stop") : tr("Search the shelf"));
  for (QWidget* widget :
       std::initializer_list<QWidget*>{said_, held_, volumes_, stacks_, sure_, up_, across_, go_, take_})
    widget->setFont(look.font(widget == said_ ? TextSize::normal : TextSize::small));
  if (said_->text().isEmpty())
    said_->setText(
        tr("Hard limits first, then the trade-off: how low it parks, comfort, pressure left on the road, lift, air."));
  choices_->setVisible(!result() || !result()->choices.empty()); // with none of them the list has all the room
  take_->setEnabled(result() && held_choice_);
  if (!result() || !held_choice_) {
    held_->clear();
  } else {
    const SearchChoice& c = result()->choices[*held_choice_];
    QString text =
        QString("<b>%1</b><br>").arg(tr("Choice %1 of %2").arg(*held_choice_ + 1).arg(result()->choices.size()));
    for (const End end : build::both_ends) {
      const auto& e = c.ends[build::at(end)];
      text +=
          QString("<p><b>%1: %2</b><br>").arg(tr(build::name_of(end)), QString::fromStdString(e.bag).toHtmlEscaped());
      text += tr("stacks %1 and %2")
                  .arg(desk_.shown(e.upper_stack, Kind::length), desk_.shown(e.lower_stack, Kind::length)) +
              "<br>";
      text += e.added_volume > 0
                  ? tr("%1 added, bore %2")
                        .arg(desk_.shown(e.added_volume, Kind::volume, 1), desk_.shown(e.line_bore, Kind::length, 1))
                  : tr("no added volume");
      text += "<br>" + tr("parks at %1").arg(desk_.shown(e.lowest, Kind::length)) + "<br>";
      QStringList hertz;
      for (const double f : e.ride_frequency)
        hertz << desk_.shown(f, Kind::frequency);
      text += tr("ride %1").arg(hertz.join(", ")) + "<br>" +
              tr("road pressure up to %1").arg(desk_.shown_pressure(e.road_pressure, e.beyond)) + "</p>";
    }
    const SearchFigures& f = c.figures;
    text += QString("<p>%1</p>")
                .arg(tr("%1 off the comfort wanted, %2 of pressure left, %3 lift, %4 air a lift")
                         .arg(desk_.shown(f.discomfort, Kind::frequency), desk_.shown(f.reserve, Kind::share),
                              desk_.shown(f.lift, Kind::length), desk_.shown(f.air, Kind::mass, 3)));
    if (c.holds)
      text += QString("<p>%1</p>").arg(tr("It holds in %1 of cases.").arg(desk_.shown(*c.holds, Kind::share, 0)));
    held_->setText(text);
  }
  fill_table();
  draw();
}

void SearchPage::fill_table() {
  const assess::SearchResult* there = this->result();
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QSignalBlocker quiet(table_);
  table_->setFont(look.font(TextSize::normal));
  table_->horizontalHeader()->setFont(look.font(TextSize::small));
  table_->verticalHeader()->setDefaultSectionSize(look.px(22));
  table_->setHorizontalHeaderLabels({tr("front"), tr("rear"), tr("result"), tr("why")});
  for (int i = 0; i < 4; ++i)
    table_->horizontalHeaderItem(i)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  table_->setColumnWidth(0, look.px(112));
  table_->setColumnWidth(1, look.px(112));
  table_->setColumnWidth(2, look.px(84));
  table_->setRowCount(result() ? static_cast<int>(there->ranking.size()) : 0);
  if (!result()) return;
  for (std::size_t r = 0; r < there->ranking.size(); ++r) {
    const auto& pair = there->ranking[r];
    const bool chosen_pair = pair.best && pair.reason.empty();
    const QString result = chosen_pair ? tr("○ choice") : pair.best ? tr("△ outdone") : tr("■ fails");
    const QColor colour = chosen_pair ? t.good : pair.best ? t.caution : t.stop;
    const QString why = chosen_pair ? tr("parks at %1, %2 off the comfort wanted")
                                          .arg(desk_.shown(pair.best->figures.lowest, Kind::length),
                                               desk_.shown(pair.best->figures.discomfort, Kind::frequency))
                                    : desk_.words_of(pair.reason);
    const QString cells[] = {QString::fromStdString(pair.bags[0]), QString::fromStdString(pair.bags[1]), result, why};
    for (int c = 0; c < 4; ++c) {
      auto* item = new QTableWidgetItem(cells[c]);
      if (c >= 2) item->setForeground(c == 2 ? colour : t.ink);
      if (c == 3) item->setFont(look.font(TextSize::small));
      if (c == 3) item->setToolTip(why);
      table_->setItem(static_cast<int>(r), c, item);
    }
    if (held_choice_) {
      const auto& held_ends = there->choices[*held_choice_].ends;
      if (chosen_pair && held_ends[0].bag == pair.bags[0] && held_ends[1].bag == pair.bags[1])
        table_->selectRow(static_cast<int>(r));
    }
  }
}

void SearchPage::draw() {
  const Tokens& t = desk_.look().tokens();
  const Axis &x = axes[std::max(0, across_->currentIndex())], &y = axes[std::max(0, up_->currentIndex())];
  scatter_->clear_all();
  const auto unit = [&](const Axis& axis) {
    return QString("%1, %2").arg(tr(axis.name), unit_name(axis.kind, desk_.prefs()).c_str());
  };
  scatter_->xAxis->setLabel(unit(x));
  scatter_->yAxis->setLabel(unit(y));
  if (result() && !result()->choices.empty()) {
    // Ring, square, triangle by whether volumes stand beside the bags, so that kinds of choice show.
    struct Group {
      QString name;
      QCPScatterStyle::ScatterShape shape;
      QVector<double> xs, ys;
    };
    Group groups[] = {{tr("no added volume"), QCPScatterStyle::ssCircle, {}, {}},
                      {tr("at one end"), QCPScatterStyle::ssTriangle, {}, {}},
                      {tr("at both"), QCPScatterStyle::ssSquare, {}, {}}};
    for (const SearchChoice& choice : result()->choices) {
      Group& group = groups[(choice.ends[0].added_volume > 0) + (choice.ends[1].added_volume > 0)];
      group.xs << in_shown_unit(choice.figures.*x.what, x.kind, desk_.prefs());
      group.ys << in_shown_unit(choice.figures.*y.what, y.kind, desk_.prefs());
    }
    for (const Group& group : groups) {
      if (group.xs.isEmpty()) continue;
      QCPGraph* graph = scatter_->addGraph();
      graph->setLineStyle(QCPGraph::lsNone);
      graph->setScatterStyle(QCPScatterStyle(group.shape, QPen(t.front, 1.6), t.panel, desk_.look().px(9)));
      graph->setData(group.xs, group.ys);
      graph->setName(group.name);
    }
    if (held_choice_) {
      const SearchFigures& f = result()->choices[*held_choice_].figures;
      QCPGraph* graph = scatter_->addGraph();
      graph->setLineStyle(QCPGraph::lsNone);
      graph->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDisc, QPen(t.ink, 1), t.ink, desk_.look().px(11)));
      graph->addData(in_shown_unit(f.*x.what, x.kind, desk_.prefs()), in_shown_unit(f.*y.what, y.kind, desk_.prefs()));
      graph->setName(tr("held"));
    }
    scatter_->rescaleAxes();
    for (QCPAxis* axis : {scatter_->xAxis, scatter_->yAxis})
      axis->range().size() < 1e-9 ? axis->setRange(axis->range().center() - 1, axis->range().center() + 1)
                                  : axis->scaleRange(1.15);
  }
  scatter_->setAccessibleName(tr("Choices: %1 against %2").arg(tr(y.name), tr(x.name)));
  scatter_->redraw();
}

void SearchPage::pick_at(const QPointF& where) {
  if (!result()) return;
  const Axis &x = axes[std::max(0, across_->currentIndex())], &y = axes[std::max(0, up_->currentIndex())];
  std::optional<std::size_t> nearest;
  double best = std::pow(desk_.look().px(16), 2);
  for (std::size_t i = 0; i < result()->choices.size(); ++i) {
    const SearchFigures& f = result()->choices[i].figures;
    const double dx = scatter_->xAxis->coordToPixel(in_shown_unit(f.*x.what, x.kind, desk_.prefs())) - where.x();
    const double dy = scatter_->yAxis->coordToPixel(in_shown_unit(f.*y.what, y.kind, desk_.prefs())) - where.y();
    if (dx * dx + dy * dy < best) best = dx * dx + dy * dy, nearest = i;
  }
  if (nearest) hold(*nearest);
}

} // namespace mavrel::app
