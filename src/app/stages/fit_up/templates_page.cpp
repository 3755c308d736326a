#include "app/stages/fit_up/templates_page.h"

#include "app/kit/choice_box.h"
#include "app/kit/drawing.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/print/fit_up_pdf.h"
#include "app/stages/fit_up/questions.h"
#include "app/theme/text_line.h"
#include "build/names_fit_up.h"
#include "file/text_file.h"
#include "report/drawing_files.h"

#include <QFileDialog>
#include <QGridLayout>
#include <QLabel>
#include <QPainter>
#include <QPainterPath>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::app {

using assess::Layer;
using assess::Template;

TemplateView::TemplateView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("template_view");
  connect(&desk_, &Desk::restyled, this, qOverload<>(&TemplateView::update));
}

QSize TemplateView::sizeHint() const {
  return {desk_.look().px(360), desk_.look().px(280)};
}

void TemplateView::show_template(std::optional<Template> shown, const QString& why) {
  shown_ = std::move(shown);
  why_ = why;
  setAccessibleName(shown_ ? tr("Drawing of %1").arg(desk_.words_of(shown_->title)) : why_);
  update();
}

void TemplateView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  paint_backdrop(painter, rect(), look);
  if (!shown_) return paint_instead(painter, rect(), look, why_);
  const double margin = look.px(46);
  const double scale = std::min((width() - 2 * margin) / shown_->width(), (height() - 2 * margin) / shown_->height());
  const double left = (width() - shown_->width() * scale) / 2,
               bottom = height() - (height() - shown_->height() * scale) / 2;
  const auto at = [&](const assess::Flat& p) {
    return QPointF(left + (p.x - shown_->low.x) * scale, bottom - (p.y - shown_->low.y) * scale);
  };
  for (const assess::DrawnShape& s : shown_->shapes) {
    painter.setPen(QPen(s.layer == Layer::cut    ? t.ink
                        : s.layer == Layer::etch ? t.second
                                                 : t.stop,
                        s.layer == Layer::cut ? 2 : 1.2, s.layer == Layer::etch ? Qt::DashLine : Qt::SolidLine));
    if (const auto* l = std::get_if<assess::DrawnLine>(&s.what)) painter.drawLine(at(l->from), at(l->to));
    if (const auto* c = std::get_if<assess::DrawnCircle>(&s.what)) {
      painter.drawEllipse(at(c->centre), c->radius * scale, c->radius * scale);
      if (s.layer == Layer::drill) {
        const double h = c->radius * scale + look.px(4);
        painter.setPen(QPen(t.stop, 0.8));
        painter.drawLine(at(c->centre) - QPointF(h, 0), at(c->centre) + QPointF(h, 0));
        painter.drawLine(at(c->centre) - QPointF(0, h), at(c->centre) + QPointF(0, h));
        painter.setFont(look.font(TextSize::small));
        // On paper of its own, so that no edge runs through it.
        const QString across = "⌀ " + desk_.shown(2 * c->radius, Kind::length, 1);
        const QRectF label(at(c->centre) + QPointF(h + 2, -look.px(16)),
                           QSizeF(painter.fontMetrics().horizontalAdvance(across) + 4, look.px(14)));
        painter.fillRect(label, t.panel);
        draw_line(painter, label, Qt::AlignLeft | Qt::AlignVCenter, across);
      }
    }
    if (const auto* a = std::get_if<assess::DrawnArc>(&s.what)) {
      const double r = a->radius * scale, degree = 180 / std::numbers::pi;
      const QPointF c = at(a->centre);
      QPainterPath path;
      path.arcMoveTo(QRectF(c.x() - r, c.y() - r, 2 * r, 2 * r), a->from * degree);
      path.arcTo(QRectF(c.x() - r, c.y() - r, 2 * r, 2 * r), a->from * degree, (a->to - a->from) * degree);
      painter.drawPath(path);
    }
  }
  for (const assess::DrawnText& d : shown_->texts) {
    painter.setPen(t.second);
    QFont font = look.font(TextSize::small);
    font.setPixelSize(std::max(4, static_cast<int>(std::lround(d.height * scale / 0.72))));
    painter.setFont(font);
    painter.drawText(at(d.at), QString::fromStdString(d.text));
  }
  // What it measures over all, as on a shop drawing.
  painter.setFont(look.font(TextSize::small));
  painter.setPen(QPen(t.second, 1));
  const QPointF a = at(shown_->low), b = at(shown_->high);
  const double below = a.y() + look.px(18), beside = b.x() + look.px(16);
  painter.drawLine(QPointF(a.x(), below), QPointF(b.x(), below));
  for (const double x : {a.x(), b.x()})
    painter.drawLine(QPointF(x, below - look.px(5)), QPointF(x, below + look.px(5)));
  painter.drawLine(QPointF(beside, a.y()), QPointF(beside, b.y()));
  for (const double y : {a.y(), b.y()})
    painter.drawLine(QPointF(beside - look.px(5), y), QPointF(beside + look.px(5), y));
  painter.setPen(t.ink);
  draw_line(painter, QRectF(a.x(), below + look.px(2), b.x() - a.x(), look.px(16)), Qt::AlignHCenter | Qt::AlignVCenter,
            desk_.shown(shown_->width(), Kind::length, 1));
  painter.save();
  painter.translate(beside + look.px(12), (a.y() + b.y()) / 2);
  painter.rotate(-90);
  draw_line(painter, QRectF(-look.px(60), -look.px(8), look.px(120), look.px(16)), Qt::AlignHCenter | Qt::AlignVCenter,
            desk_.shown(shown_->height(), Kind::length, 1));
  painter.restore();
}

TemplatesPage::TemplatesPage(Desk& desk, QWidget* parent) : Page(desk, parent), view_(new TemplateView(desk, this)) {
  auto* head = row(column());
  measures_ = small_words("template_measures");
  head->addWidget(measures_, 1);
  button(head, tr("PDF 1:1 …"), "templates_pdf", [this] { write_pdf_of_all(); });
  button(head, tr("DXF …"), "templates_dxf", [this] { write_dxf(); });
  button(head, tr("SVG …"), "templates_svg", [this] { write_svg(); });
  auto* upper = row(column(), 5);
  list_ = table("templates", tr("Templates"), {tr("template"), tr("make"), tr("thick"), tr("size")});
  upper->addWidget(list_, 5);
  upper->addWidget(view_, 5);
  column()->addWidget(scrolled(make_plates(), this), 3);
  connect(list_, &ListTable::chose, this, [this](std::size_t row) { show_template(key_of(row)); });
  connect(&desk_, &Desk::looked_at, this, [this] { bind(desk_.end()); });
}

QWidget* TemplatesPage::make_plates() {
  auto* plates = new QWidget(this);
  auto* grid = new QGridLayout(plates);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setSpacing(desk_.look().unit() / 2);
  const std::pair<const char*, QString> captions[] = {{"thickness_m", tr("plate thick")},
                                                      {"diameter_m", tr("plate across")},
                                                      {"bolts", tr("bolts")},
                                                      {"bolt_circle_m", tr("bolt circle")},
                                                      {"bolt_hole_m", tr("bolt hole")},
                                                      {"port_hole_m", tr("port hole")},
                                                      {"port_out_m", tr("port from axis")},
                                                      {"port_turn_rad", tr("port turned")},
                                                      {"bracket_leg_m", tr("bracket leg")},
                                                      {"bracket_width_m", tr("bracket wide")},
                                                      {"bend_radius_m", tr("bend inside")},
                                                      {"gussets", tr("gussets")},
                                                      {"gusset_height_m", tr("gusset high")},
                                                      {"gusset_length_m", tr("gusset long")},
                                                      {"gusset_thickness_m", tr("gusset thick")},
                                                      {"studs", tr("mount studs")},
                                                      {"stud_circle_m", tr("stud circle")},
                                                      {"stud_hole_m", tr("stud hole")},
                                                      {"bearing_hole_m", tr("bearing hole")},
                                                      {"rail_height_m", tr("rail high")},
                                                      {"links", tr("links a side")},
                                                      {"tube_outer_m", tr("link tube")},
                                                      {"tube_wall_m", tr("its wall")},
                                                      {"weld_gap_m", tr("root gap")}};
  int n = 0;
  for (const auto& [key, caption] : captions) {
    auto* field = new Field(desk_, QString("@.fit_up.rear_plates.%1").arg(key), caption, plates);
    const QString what = key;
    if (what == "diameter_m") field->set_placeholder(tr("by the bag"));
    if (what.startsWith("bolt") || what.startsWith("port")) field->set_placeholder(tr("by its card"));
    grid->addWidget(field, n / 6, n % 6);
    fields_.emplace_back(field, key);
    ++n;
  }
  for (const auto& [key, name] : {std::pair("upper", tr("Upper plate is")), std::pair("lower", tr("Lower plate is"))}) {
    auto* box =
        new ChoiceBox(desk_, QString("@.fit_up.rear_plates.%1").arg(key), name, rows_of(build::Fixing{}), plates);
    box->setToolTip(name);
    auto* cell = new QVBoxLayout;
    cell->setSpacing(0);
    cell->addWidget(quiet(name));
    cell->addWidget(box);
    grid->addLayout(cell, n / 6, (n % 6), 1, 2);
    choices_.emplace_back(box, key);
    n += 2;
  }
  return plates;
}

void TemplatesPage::bind(End end) {
  end_ = end;
  const QString path = QString("@.fit_up.%1_plates.").arg(build::key_of(end));
  for (const auto& [field, key] : fields_)
    field->bind(path + key);
  for (const auto& [box, key] : choices_)
    box->bind(path + key);
}

bool TemplatesPage::go_to(const QString& path) {
  if (path.contains("front_plates")) bind(End::front);
  if (path.contains("rear_plates")) bind(End::rear);
  return Page::go_to(path);
}

void TemplatesPage::show_template(const QString& key) {
  if (key.isEmpty()) return;
  held_ = key;
  refresh();
}

QString TemplatesPage::key_of(std::size_t row) const {
  const auto& all = templates_of(desk_);
  if (row < all.made.size()) return QString::fromStdString(all.made[row].key);
  row -= all.made.size();
  return row < all.refused.size() ? QString::fromStdString(all.refused[row].key) : QString();
}

void TemplatesPage::fill() {
  fill_list();
  show_held();
}

/// Those that are drawn, and behind them those that can't be.
void TemplatesPage::fill_list() {
  const Tokens& t = desk_.look().tokens();
  const auto& all = templates_of(desk_);
  list_->fill(all.made.size() + all.refused.size(), [&](std::size_t i, ListTable::Row& row) {
    if (key_of(i) == held_) row.hold();
    if (i >= all.made.size()) {
      row.words("✗ " + desk_.words_of(all.refused[i - all.made.size()].title), t.stop);
      for (int c = 1; c < 4; ++c)
        row.figure("–", t.stop);
      return;
    }
    const Template& one = all.made[i];
    row.words(desk_.words_of(one.title), t.ink)
        .figure(tr("%1 ×").arg(one.count), t.ink)
        .figure(desk_.shown(one.thickness, Kind::length, 0), t.ink)
        .figure(tr("%1 × %2").arg(desk_.shown(one.width(), Kind::length, 0).section(' ', 0, 0),
                                  desk_.shown(one.height(), Kind::length, 0)),
                t.ink);
  });
}

void TemplatesPage::show_held() {
  const auto& all = templates_of(desk_);
  const auto row = list_->held();
  if (row) held_ = key_of(*row);
  if (!row || *row >= all.made.size()) {
    view_->show_template(std::nullopt,
                         row ? desk_.words_of(all.refused[*row - all.made.size()].why)
                             : tr("The design asks for no plates yet: choose bags in Bags, a tank in Air."));
    measures_->clear();
    if (row) bind(held_.startsWith("front") ? End::front : End::rear);
    return;
  }
  const Template& one = all.made[*row];
  if (one.end && *one.end != end_) bind(*one.end);
  view_->show_template(one, {});
  QStringList said;
  for (const assess::DrawnMeasure& m : one.measures)
    said << tr("%1 %2").arg(desk_.words_of(m.what), desk_.shown(m.value, m.kind, 1));
  if (one.drawn_for) said << tr("drawn for H %1").arg(desk_.shown(*one.drawn_for, Kind::length));
  measures_->setText(said.join(" · "));
}

void TemplatesPage::write_pdf_of_all() {
  const QString to = QFileDialog::getSaveFileName(this, tr("Templates, true to scale"), {}, tr("PDF (*.pdf)"));
  if (to.isEmpty() || desk_.refuses_to_write(to.toStdString())) return;
  const auto done = write_templates(
      templates_of(desk_).made, QString::fromStdString(desk_.build().job.car + " · " + desk_.build().variant().name),
      to.toStdString());
  desk_.tell(done ? tr("Written: %1, %2 pages. Print without scaling and measure the ruler.").arg(to).arg(*done)
                  : desk_.words_of(done.error()));
}

void TemplatesPage::write_folder(const QString& title, const char* ending, std::string (*text)(const Template&)) {
  const QString to = QFileDialog::getExistingDirectory(this, title);
  if (to.isEmpty()) return;
  int count = 0;
  for (const Template& one : templates_of(desk_).made) {
    const QString file = to + "/" + QString::fromStdString(one.key) + ending;
    const auto done = write_atomically(file.toStdString(), text(one));
    if (!done) return desk_.tell(desk_.words_of(done.error()));
    ++count;
  }
  desk_.tell(tr("Written: %1 files in %2").arg(count).arg(to));
}
void TemplatesPage::write_dxf() {
  write_folder(tr("A DXF of each into"), ".dxf", &report::template_dxf);
}
void TemplatesPage::write_svg() {
  write_folder(tr("An SVG of each into"), ".svg", &report::template_svg);
}

} // namespace mavrel::app
