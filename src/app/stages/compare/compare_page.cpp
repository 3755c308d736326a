#include "app/stages/compare/compare_page.h"

#include "app/desk/desk.h"
#include "app/kit/height_scale.h"
#include "app/kit/list_table.h"
#include "app/kit/plain.h"
#include "assess/end/end_answer.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

using assess::Comparison;

/// Posts of both variants on one scale, an end beside the other, their figures below.
class ComparePage::Canvas : public QWidget {
public:
  Canvas(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) { setAccessibleName(tr("Comparison")); }

  /// @param names  of the two, as they are now: what is painted is of this moment, whatever the build is by then
  void show_comparison(Comparison comparison, std::array<QString, 2> names) {
    comparison_ = std::move(comparison);
    names_ = std::move(names);
    QString text;
    for (const auto& f : comparison_->figures)
      if (f.differs())
        text += tr("%1 %2: %3 against %4. ")
                    .arg(tr(f.end ? build::name_of(*f.end) : ""), desk_.words_of(f.what), figure(f.a, f.kind),
                         figure(f.b, f.kind));
    setAccessibleDescription(text);
    update();
  }
  void show_nothing() {
    comparison_.reset();
    setAccessibleDescription({});
    update();
  }

protected:
  void paintEvent(QPaintEvent*) override {
    if (!comparison_) return;
    QPainter painter(this);
    const double each = width() / 2.0;
    for (const End end : build::both_ends)
      paint_end(painter, end,
                QRectF(each * static_cast<double>(build::at(end)), 0, each - desk_.look().px(12), height()));
  }

private:
  /// A mark in front of what lies beyond the bag's card.
  [[nodiscard]] static QString marked(const QString& figure, air::Beyond beyond) {
    return beyond == air::Beyond::nothing ? figure : "△ " + figure;
  }
  [[nodiscard]] QString figure(const std::optional<double>& v, Kind kind) const {
    return v ? desk_.shown(*v, kind) : tr("none");
  }
  [[nodiscard]] const QString& name(std::size_t i) const { return names_[i]; }

  void text(QPainter& painter, const QRectF& rect, const QString& words, const QFont& font, const QColor& colour,
            int flags = Qt::AlignLeft | Qt::AlignVCenter) const {
    painter.setFont(font);
    painter.setPen(colour);
    painter.drawText(rect, flags,
                     painter.fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(rect.width())));
  }

  void paint_end(QPainter& painter, End end, const QRectF& area) const {
    const Look& look = desk_.look();
    const Tokens& t = look.tokens();
    const double line = look.px(20), table = 8 * line + look.px(34);
    text(painter, {area.left(), area.top(), area.width(), line}, tr(build::name_of(end)),
         look.font(TextSize::large, true), t.end(end));
    paint_posts(
        painter, end,
        QRectF(area.left(), area.top() + line + look.px(22), area.width(), area.height() - table - line - look.px(44)));
    double y = area.bottom() - table;
    const double c0 = area.width() * 0.46, c = (area.width() - c0) / 2;
    const QFont small = look.font(TextSize::small);
    for (std::size_t i = 0; i < 2; ++i)
      text(painter, {area.left() + c0 + c * static_cast<double>(i), y, c - 4, line}, name(i), small, t.second,
           Qt::AlignRight | Qt::AlignVCenter);
    y += line;
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(area.left(), y), QPointF(area.right(), y));
    for (const auto& f : comparison_->figures) {
      if (f.end != end) continue;
      const bool differs = f.differs();
      text(painter, {area.left(), y, c0, line}, desk_.words_of(f.what), look.font(TextSize::normal), t.ink);
      text(painter, {area.left() + c0, y, c - 4, line}, marked(figure(f.a, f.kind), f.beyond[0]),
           look.font(TextSize::normal, false), differs ? t.ink : t.second, Qt::AlignRight | Qt::AlignVCenter);
      text(painter, {area.left() + c0 + c, y, c - 4, line}, marked(figure(f.b, f.kind), f.beyond[1]),
           look.font(TextSize::normal, differs), differs ? t.ink : t.second, Qt::AlignRight | Qt::AlignVCenter);
      y += line;
    }
  }

  void paint_posts(QPainter& painter, End end, const QRectF& area) const {
    const Look& look = desk_.look();
    const Tokens& t = look.tokens();
    double low = 1e9, high = -1e9;
    for (const auto& a : comparison_->assessments)
      for (const End one : build::both_ends)
        if (const auto& e = a->end(one); e.has_domain())
          low = std::min(low, e.windows.reach ? e.windows.reach->low.height - 0.02 : e.domain_low),
          high = std::max(high, e.windows.reach ? e.windows.reach->high.height + 0.02 : e.domain_high);
    if (!(high > low)) return;
    const HeightScale s{low, high, area.top(), area.bottom()};
    const double w = look.px(24);
    for (std::size_t i = 0; i < 2; ++i) {
      const auto& e = comparison_->assessments[i]->end(end);
      const double x = area.left() + area.width() * (i == 0 ? 0.22 : 0.68) - w / 2;
      const QRectF post(x, area.top(), w, area.height());
      text(painter,
           {post.center().x() - look.px(60), area.top() - look.px(20), static_cast<double>(look.px(120)),
            static_cast<double>(look.px(16))},
           name(i), look.font(TextSize::small, true), t.ink, Qt::AlignCenter);
      painter.fillRect(post, t.panel);
      const auto between = [&](double from, double to) {
        return QRectF(x, s.clamped_y(to), w, s.clamped_y(from) - s.clamped_y(to));
      };
      for (const auto& [from, to] : joined(e.windows.reach_blocked))
        hatch(painter, stretch_rect(s, post, from, to, e.domain_low, e.domain_high), t.hatch_stop, false, look.px(6));
      QColor fill = t.end(end);
      fill.setAlphaF(0.28F);
      if (e.windows.road) painter.fillRect(between(e.windows.road->low.height, e.windows.road->high.height), fill);
      painter.setPen(QPen(t.rule, 1));
      painter.drawRect(post);
      std::vector<double> wanted;
      std::vector<QString> labels;
      const auto label = [&](const std::optional<assess::Window>& window) {
        if (!window) return;
        for (const double H : {window->low.height, window->high.height})
          wanted.push_back(s.clamped_y(H)), labels.push_back(desk_.shown(H, Kind::length));
      };
      label(e.windows.reach);
      label(e.windows.road);
      const auto y = spread_apart(wanted, look.px(14), area.top() + 4, area.bottom() - 4);
      for (std::size_t k = 0; k < labels.size(); ++k) {
        painter.setPen(QPen(k < 2 ? t.stop : t.end(end), 2));
        painter.drawLine(QPointF(x, wanted[k]), QPointF(x + w, wanted[k]));
        text(
            painter,
            {x + w + look.px(6), y[k] - look.px(8), static_cast<double>(look.px(60)), static_cast<double>(look.px(16))},
            labels[k], look.font(TextSize::small), k < 2 ? t.stop : t.end(end));
      }
      for (const auto& preset : e.presets)
        if (preset) {
          painter.setPen(QPen(t.ink, 1.4));
          painter.drawLine(QPointF(x - look.px(8), s.clamped_y(preset->height)),
                           QPointF(x, s.clamped_y(preset->height)));
        }
    }
  }

  Desk& desk_;
  std::optional<Comparison> comparison_;
  std::array<QString, 2> names_;
};

namespace {

/// Where it is chosen.
QString stage_of(assess::ChoiceAbout about) {
  switch (about) {
  case assess::ChoiceAbout::bags:
  case assess::ChoiceAbout::heights:
    return "bags";
  case assess::ChoiceAbout::air:
    return "air";
  case assess::ChoiceAbout::control:
    return "leveling";
  case assess::ChoiceAbout::fit_up:
    return "fit_up";
  }
  return "bags";
}

} // namespace

ComparePage::ComparePage(Desk& desk, QWidget* parent)
    : StagePage(desk, parent), first_(new QComboBox(this)), second_(new QComboBox(this)),
      canvas_(new Canvas(desk, this)) {
  auto* head = row(stage_column());
  head->addWidget(heading(tr("Compare"), true));
  for (const auto& [box, name, held] :
       {std::tuple{first_, tr("First variant"), &a_}, std::tuple{second_, tr("Second variant"), &b_}}) {
    box->setAccessibleName(name);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(14);
    dress(box, TextSize::small);
    head->addWidget(box);
    if (box == first_) head->addWidget(new PlainLabel(tr("against"), this));
    connect(box, &QComboBox::activated, this, [this, variant = held](int i) {
      *variant = static_cast<std::size_t>(i);
      refresh();
    });
  }
  about_ = small_words("compare_about");
  about_->setWordWrap(false);
  head->addWidget(about_, 1);
  auto* both = row(stage_column(), 1);
  both->setSpacing(desk_.look().px(24));
  auto* lists = new QVBoxLayout;
  both->addLayout(lists, 5);
  both->addWidget(canvas_, 7);
  differ_ = heading({});
  differ_->setObjectName("compare_differ");
  lists->addWidget(differ_);
  choices_ = table("compare_choices", tr("What is chosen differently"), {tr("of"), tr("choice"), {}, {}});
  choices_->stretch(1);
  connect(choices_, &ListTable::picked, this, [this](std::size_t i) {
    const assess::ComparedChoice& one = comparison_->choices[i];
    emit desk_.went_to(stage_of(one.about), "@." + QString::fromStdString(one.path));
  });
  lists->addWidget(choices_, 3);
  lists->addWidget(heading(tr("What stops it")));
  stops_ = table("compare_stops", tr("What stops them"), {tr("finding"), {}, {}});
  lists->addWidget(stops_, 2);
  // Out of sight it shows nothing: it is asked anew when it is shown.
  for (const auto signal : {&Desk::changed, &Desk::looked_at})
    connect(&desk_, signal, this, [this] {
      if (!isVisible()) show_nothing();
    });
}

void ComparePage::fill() {
  const auto& variants = desk_.build().variants;
  if (variants.size() < 2) return show_nothing();
  a_ = std::min(a_, variants.size() - 1);
  b_ = std::min(b_, variants.size() - 1);
  if (a_ == b_) b_ = a_ == 0 ? 1 : 0;
  for (const auto& [box, held] : {std::pair{first_, a_}, std::pair{second_, b_}}) {
    box->clear();
    for (const auto& variant : variants)
      box->addItem(QString::fromStdString(variant.name));
    box->setCurrentIndex(static_cast<int>(held));
  }
  about_->setText(tr("comfort and pressures in %1, windows in every load case")
                      .arg(QString::fromStdString(desk_.assessment().loads[desk_.load_case()].name)));
  const std::array names{QString::fromStdString(variants[a_].name), QString::fromStdString(variants[b_].name)};
  comparison_ = assess::compare(desk_.build(), desk_.shelf(), a_, b_, desk_.load_case(), desk_.prefs(), assessors_);
  canvas_->show_comparison(*comparison_, names);
  fill_lists(names);
}

void ComparePage::show_nothing() {
  canvas_->show_nothing();
  choices_->fill(0, {});
  stops_->fill(0, {});
  comparison_.reset();
}

void ComparePage::fill_lists(const std::array<QString, 2>& names) {
  const Tokens& t = desk_.look().tokens();
  const Comparison& c = *comparison_;
  for (int i = 0; i < 2; ++i) {
    choices_->horizontalHeaderItem(2 + i)->setText(names[static_cast<std::size_t>(i)]);
    stops_->horizontalHeaderItem(1 + i)->setText(names[static_cast<std::size_t>(i)]);
  }
  differ_->setText(c.choices.empty()       ? tr("Nothing is chosen differently")
                   : c.choices.size() == 1 ? tr("One thing is chosen differently")
                                           : tr("%1 things are chosen differently").arg(c.choices.size()));
  choices_->fill(c.choices.size(), [&](std::size_t i, ListTable::Row& row) {
    const assess::ComparedChoice& one = c.choices[i];
    row.words(tr(assess::name_of(one.about)), t.second).words(desk_.words_of(one.label), t.ink);
    for (const std::size_t side : {0U, 1U}) {
      const std::string& chosen = side == 0 ? one.a : one.b;
      const auto& points = one.points[side];
      const QString said = points           ? *points == 1 ? tr("1 point") : tr("%1 points").arg(*points)
                                     : chosen.empty() ? tr("none")
                                            : QString::fromStdString(chosen);
      const bool elsewhere = side == 1 && points && points == one.points[0];
      row.words(elsewhere ? tr("%1, elsewhere").arg(said) : said, t.ink);
    }
  });
  stops_->fill(c.stopped.size(), [&](std::size_t i, ListTable::Row& row) {
    const assess::ComparedStop& one = c.stopped[i];
    row.words(desk_.words_of(one.title), t.ink);
    for (const bool stops : one.stops)
      row.words(stops ? tr("■ stops it") : "–", stops ? t.stop : t.second);
  });
}

} // namespace mavrel::app
