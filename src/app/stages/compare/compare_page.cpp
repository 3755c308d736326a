#include "app/stages/compare/compare_page.h"

#include "app/desk/desk.h"
#include "app/kit/height_scale.h"
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

/// Posts of both variants in the middle on one scale, figures either side of them.
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
    const Look& look = desk_.look();
    const double left = look.px(300);
    paint_choices(painter, QRectF(0, 0, left - look.px(24), height()));
    const double each = (width() - left) / 2.0;
    for (const End end : build::both_ends)
      paint_end(painter, end,
                QRectF(left + each * static_cast<double>(build::at(end)), 0, each - look.px(12), height()));
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

  void paint_choices(QPainter& painter, const QRectF& area) const {
    const Look& look = desk_.look();
    const Tokens& t = look.tokens();
    const QFont small = look.font(TextSize::small), normal = look.font(TextSize::normal),
                bold = look.font(TextSize::normal, true);
    const double line = look.px(20), half = area.width() / 2;
    double y = area.top();
    text(painter, {0, y, area.width(), line}, tr("Chosen differently"), look.font(TextSize::large, true), t.ink);
    y += line + look.px(6);
    if (comparison_->choices.empty()) {
      text(painter, {0, y, area.width(), line}, tr("Nothing: the two are alike."), normal, t.second);
      y += line;
    }
    for (const auto& choice : comparison_->choices) {
      text(painter, {0, y, area.width(), line * 0.8}, desk_.words_of(choice.label), small, t.second);
      y += line * 0.8;
      text(painter, {0, y, half - 6, line}, choice.a.empty() ? tr("none") : QString::fromStdString(choice.a), bold,
           t.ink);
      text(painter, {half, y, half, line}, choice.b.empty() ? tr("none") : QString::fromStdString(choice.b), bold,
           t.ink);
      y += line + look.px(3);
    }
    y += look.px(12);
    text(painter, {0, y, area.width(), line}, tr("What stops it"), look.font(TextSize::large, true), t.ink);
    y += line + look.px(4);
    for (std::size_t i = 0; i < 2; ++i) {
      const double x = i == 0 ? 0 : half;
      double row = y;
      text(painter, {x, row, half - 6, line},
           comparison_->stops[i] == 0   ? tr("nothing")
           : comparison_->stops[i] == 1 ? tr("1 stop")
                                        : tr("%1 stops").arg(comparison_->stops[i]),
           bold, comparison_->stops[i] == 0 ? t.good : t.stop);
      row += line;
      painter.setFont(small);
      for (const auto& f : comparison_->assessments[i]->findings) {
        if (f.severity != assess::Severity::stop || row > area.bottom() - line) continue;
        painter.setPen(t.ink);
        const QString words = desk_.words_of(f.title);
        const QRectF used = painter.boundingRect(QRectF(x, row, half - 8, 200), Qt::TextWordWrap, words);
        painter.drawText(used, Qt::TextWordWrap, words);
        row += used.height() + look.px(4);
      }
    }
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

ComparePage::ComparePage(Desk& desk, QWidget* parent)
    : StagePage(desk, parent), first_(new QComboBox(this)), second_(new QComboBox(this)),
      canvas_(new Canvas(desk, this)) {
  auto* head = row(stage_column());
  head->addWidget(heading(tr("Compare"), true));
  for (const auto& [box, name, held] :
       {std::tuple{first_, tr("First variant"), &a_}, std::tuple{second_, tr("Second variant"), &b_}}) {
    box->setAccessibleName(name);
    box->setMinimumWidth(desk_.look().px(150));
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
  stage_column()->addWidget(canvas_, 1);
  // Out of sight it shows nothing: it is asked anew when it is shown.
  for (const auto signal : {&Desk::changed, &Desk::looked_at})
    connect(&desk_, signal, this, [this] {
      if (!isVisible()) canvas_->show_nothing();
    });
}

void ComparePage::fill() {
  const auto& variants = desk_.build().variants;
  if (variants.size() < 2) return canvas_->show_nothing();
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
  canvas_->show_comparison(
      assess::compare(desk_.build(), desk_.shelf(), a_, b_, desk_.load_case(), desk_.prefs(), assessors_),
      {QString::fromStdString(variants[a_].name), QString::fromStdString(variants[b_].name)});
}

} // namespace mavrel::app
