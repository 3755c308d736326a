#include "app/stages/bags/search/search_page.h"

#include "app/desk/edits.h"
#include "app/kit/chart.h"
#include "app/kit/list_table.h"
#include "app/kit/plain.h"
#include "app/kit/run_row.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMouseEvent>
#include <QPushButton>
#include <QVBoxLayout>

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
    : Page(desk, parent), volumes_(new QLineEdit(this)), stacks_(new QLineEdit(this)),
      sure_(new QCheckBox(tr("holds in nine of ten"), this)), choices_(new QWidget(this)), across_(new QComboBox(this)),
      up_(new QComboBox(this)), scatter_(new Chart(desk, this)),
      search_(
          desk.answers(), [this] { changed(); },
          [this] { return assess::search_given(desk_.build(), desk_.shelf(), tried_, tried_sure_); }) {
  setObjectName("search_page");
  keep_up(search_);
  wide_column()->setContentsMargins(0, desk_.look().unit() / 2, 0, 0);
  make_asks();
  run_ = new RunRow(desk_, search_, "search_go", tr("Search the shelf"), this);
  run_->set_before([this] {
    start();
    return false; // it has been asked
  });
  wide_column()->addWidget(run_);
  make_choices();
  wide_column()->addWidget(choices_, 5);
  table_ = table("search_table", tr("Every pair of bags and what became of it"),
                 {tr("front"), tr("rear"), tr("result"), tr("why")});
  table_->stretch(3);
  wide_column()->addWidget(table_, 4);
  connect(table_, &ListTable::chose, this, &SearchPage::look_at);
}

void SearchPage::make_asks() {
  const assess::SearchSpace usual;
  volumes_->setText(list_text(usual.added_volumes, Kind::volume, desk_.prefs()));
  volumes_->setAccessibleName(tr("Added volumes to try"));
  stacks_->setText(list_text(usual.upper_stacks, Kind::length, desk_.prefs()));
  stacks_->setCursorPosition(0); // read from its beginning
  stacks_->setAccessibleName(tr("Upper and lower stacks to try"));
  sure_->setObjectName("search_sure");
  sure_->setToolTip(tr("Only what passes in nine of ten cars that the readings and cards may be of"));
  auto* asks = row(wide_column());
  const auto captioned = [&](const QString& caption, QWidget* widget, int stretch) {
    auto* both = new QVBoxLayout;
    both->setSpacing(0);
    QLabel* label = quiet(caption);
    label->setBuddy(widget);
    dress(widget, TextSize::small);
    both->addWidget(label);
    both->addWidget(widget);
    asks->addLayout(both, stretch);
  };
  captioned(tr("added volumes"), volumes_, 3);
  captioned(tr("upper and lower stacks"), stacks_, 3);
  captioned(" ", sure_, 0);
}

void SearchPage::make_choices() {
  const int u = desk_.look().unit();
  auto* middle = new QHBoxLayout(choices_);
  middle->setContentsMargins(0, 0, 0, 0);
  middle->setSpacing(u);
  auto* left = new QVBoxLayout;
  left->setSpacing(u / 2);
  auto* pick = row(left);
  for (QComboBox* box : {up_, across_}) {
    for (const Axis& axis : axes)
      box->addItem(tr(axis.name));
    dress(box, TextSize::small);
    connect(box, &QComboBox::currentIndexChanged, this, &SearchPage::draw);
  }
  up_->setAccessibleName(tr("Upright axis"));
  across_->setAccessibleName(tr("Level axis"));
  up_->setCurrentIndex(3);
  across_->setCurrentIndex(1);
  pick->addWidget(up_);
  pick->addWidget(new PlainLabel(tr("against"), this));
  pick->addWidget(across_);
  pick->addStretch(1);
  left->addWidget(scatter_, 1);
  middle->addLayout(left, 3);
  auto* right = new QVBoxLayout;
  held_ = rich_words("search_held");
  held_->setFixedWidth(desk_.look().px(180));
  right->addWidget(held_, 1);
  auto* steps = row(right);
  dress(button(steps, tr("‹ Better"), "search_better", [this] { step(-1); }), TextSize::small);
  dress(button(steps, tr("Next ›"), "search_next", [this] { step(1); }), TextSize::small);
  take_ = button(right, tr("Take over as a variant"), "search_take", [this] { take(); });
  dress(take_, TextSize::small);
  middle->addLayout(right);
  scatter_->put_legend_below();
  scatter_->setFocusPolicy(Qt::NoFocus);
  scatter_->setCursor(Qt::PointingHandCursor);
  connect(scatter_, &QCustomPlot::mousePress, this, [this](QMouseEvent* event) { pick_at(event->position()); });
}

void SearchPage::step(int by) {
  if (!held_choice_ || !result()) return;
  const auto to = static_cast<long>(*held_choice_) + by;
  if (to >= 0 && to < static_cast<long>(result()->choices.size())) hold(static_cast<std::size_t>(to));
}

/// The choice of a pair that is one.
void SearchPage::look_at(std::size_t place) {
  const auto* found = result();
  if (!found || place >= found->ranking.size()) return;
  const auto& pair = found->ranking[place];
  for (std::size_t i = 0; i < found->choices.size(); ++i)
    if (found->choices[i].ends[0].bag == pair.bags[0] && found->choices[i].ends[1].bag == pair.bags[1] &&
        pair.reason.empty())
      return hold(i);
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

void SearchPage::start() {
  const auto wanted = space();
  if (!wanted) return;
  held_choice_.reset();
  desk_.document().settle(Unfinished::give_up);
  tried_ = *wanted;
  tried_sure_ = sure_->isChecked() ? assess::Sure::nine_in_ten : assess::Sure::as_read;
  search_.ask();
}

void SearchPage::stop() {
  search_.forget();
}

void SearchPage::changed() {
  if (!search_.is_running()) {
    held_choice_ = result() && !result()->choices.empty() ? std::optional<std::size_t>(0) : std::nullopt;
    emit finished();
  }
  refresh();
}

QString SearchPage::said() const {
  const assess::SearchResult* found = result();
  if (!found)
    return tr(
        "Hard limits first, then the trade-off: how low it parks, comfort, pressure left on the road, lift, air.");
  const QLocale locale;
  const auto count = [&](std::size_t n) { return locale.toString(static_cast<qulonglong>(n)); };
  const bool sure = tried_sure_ == assess::Sure::nine_in_ten;
  QString out =
      found->choices.empty()
          ? (sure ? tr("None of %1 combinations passes every hard limit in nine cases of ten of how sure readings and "
                       "cards are. The list says what each pair misses by least, the nearest first.")
                  : tr("None of %1 combinations passes every hard limit. The list says what each pair misses by least, "
                       "the nearest first."))
                .arg(count(found->tried))
          : tr("%1 combinations, %2 within every hard limit, %3 that nothing outdoes. Pick one in the scatter or the "
               "list.")
                .arg(count(found->tried), count(found->passed))
                .arg(found->choices.size());
  if (sure && !found->choices.empty())
    out += " " + tr("Within them means: in nine cases of ten of how sure readings and cards are.");
  if (found->pairs > found->ranking.size())
    out +=
        " " + tr("Of %1 pairs of bags the first %2 are listed.").arg(count(found->pairs), count(found->ranking.size()));
  return out;
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
  refresh();
}

QString SearchPage::about(const SearchChoice& c) const {
  QString text =
      QString("<b>%1</b><br>").arg(tr("Choice %1 of %2").arg(*held_choice_ + 1).arg(result()->choices.size()));
  for (const End end : build::both_ends) {
    const auto& e = c.ends[build::at(end)];
    QStringList hertz;
    for (const double f : e.ride_frequency)
      hertz << desk_.shown(f, Kind::frequency);
    const QStringList lines = {
        QString("<b>%1: %2</b>").arg(tr(build::name_of(end)), QString::fromStdString(e.bag).toHtmlEscaped()),
        tr("stacks %1 and %2").arg(desk_.shown(e.upper_stack, Kind::length), desk_.shown(e.lower_stack, Kind::length)),
        e.added_volume > 0
            ? tr("%1 added, bore %2")
                  .arg(desk_.shown(e.added_volume, Kind::volume, 1), desk_.shown(e.line_bore, Kind::length, 1))
            : tr("no added volume"),
        tr("parks at %1").arg(desk_.shown(e.lowest, Kind::length)),
        tr("ride %1").arg(hertz.join(", ")),
        tr("road pressure up to %1").arg(desk_.shown_pressure(e.road_pressure, e.beyond))};
    text += "<p>" + lines.join("<br>") + "</p>";
  }
  const SearchFigures& f = c.figures;
  text += QString("<p>%1</p>")
              .arg(tr("%1 off the comfort wanted, %2 of pressure left, %3 lift, %4 air a lift")
                       .arg(desk_.shown(f.discomfort, Kind::frequency), desk_.shown(f.reserve, Kind::share),
                            desk_.shown(f.lift, Kind::length), desk_.shown(f.air, Kind::mass, 3)));
  if (c.holds)
    text += QString("<p>%1</p>").arg(tr("It holds in %1 of cases.").arg(desk_.shown(*c.holds, Kind::share, 0)));
  return text;
}

void SearchPage::fill() {
  if (!result()) held_choice_.reset();
  run_->show_words(said(), tr("Every pair of bags with every stack and volume …"));
  choices_->setVisible(!result() || !result()->choices.empty()); // with none of them the list has all the room
  take_->setEnabled(result() && held_choice_);
  held_->setText(result() && held_choice_ ? about(result()->choices[*held_choice_]) : QString());
  fill_table();
  draw();
}

void SearchPage::fill_table() {
  const assess::SearchResult* there = result();
  const Tokens& t = desk_.look().tokens();
  table_->verticalHeader()->setDefaultSectionSize(desk_.look().px(22));
  table_->fill(there ? there->ranking.size() : 0, [&](std::size_t r, ListTable::Row& row) {
    const auto& pair = there->ranking[r];
    const bool chosen_pair = pair.best && pair.reason.empty();
    row.words(QString::fromStdString(pair.bags[0]), t.ink)
        .words(QString::fromStdString(pair.bags[1]), t.ink)
        .words(chosen_pair ? tr("○ choice")
               : pair.best ? tr("△ outdone")
                           : tr("■ fails"),
               chosen_pair ? t.good
               : pair.best ? t.caution
                           : t.stop)
        .words(chosen_pair ? tr("parks at %1, %2 off the comfort wanted")
                                 .arg(desk_.shown(pair.best->figures.lowest, Kind::length),
                                      desk_.shown(pair.best->figures.discomfort, Kind::frequency))
                           : desk_.words_of(pair.reason),
               t.ink);
    if (!held_choice_ || !chosen_pair) return;
    const auto& ends = there->choices[*held_choice_].ends;
    if (ends[0].bag == pair.bags[0] && ends[1].bag == pair.bags[1]) row.hold();
  });
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
