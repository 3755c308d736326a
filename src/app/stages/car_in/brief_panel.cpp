#include "app/stages/car_in/brief_panel.h"

#include "app/desk/desk.h"
#include "app/desk/edits.h"
#include "app/kit/field.h"
#include "assess/end/end_answer.h"
#include "build/names.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLocale>
#include <QPushButton>
#include <QStyle>
#include <QToolButton>

namespace mavrel::app {

using build::at;

namespace {

using build::ParkedHow;
using build::PresetUse;

/// What a preset is for; parked either way.
struct UseChoice {
  PresetUse use = PresetUse::other;
  ParkedHow parked = ParkedHow::aired_out;
  QString name, key;
};
std::vector<UseChoice> use_choices() {
  std::vector<UseChoice> out;
  for (const auto& use : build::names_of(PresetUse{})) {
    out.push_back({use.value, ParkedHow::aired_out, BriefPanel::tr(use.name), use.key});
    if (use.value == PresetUse::parked)
      out.push_back({use.value, ParkedHow::held, BriefPanel::tr("parked, held"), use.key});
  }
  return out;
}

/// `↓62 2.4″ 3.4f`: against how it stood when it was surveyed, in mm, inches and fingers, as people say it.
QString change_words(Desk& desk, double by) {
  constexpr double inch = 0.0254; // m
  const double far = std::abs(by);
  if (far < 5e-4) return BriefPanel::tr("as it stood");
  const QLocale locale;
  return QString("%1%2 %3″ %4f")
      .arg(by < 0 ? "↓" : "↑", locale.toString(std::lround(far * 1000)), locale.toString(far / inch, 'f', 1),
           locale.toString(far / desk.prefs().finger, 'f', 1));
}

} // namespace

BriefPanel::BriefPanel(Desk& desk, QWidget* parent) : RowPanel(desk, parent) {
  start();
}

QString BriefPanel::shape() const {
  return QString("%1/%2 ").arg(desk().build().active_variant).arg(desk().build().variant().brief.presets.size());
}

void BriefPanel::build_rows() {
  const auto& presets = desk().build().variant().brief.presets;
  heights_.clear();
  const QString heads[] = {tr("preset"), tr("use"), tr("front wanted"), "", tr("rear wanted"), ""};
  for (int i = 0; i < 6; ++i)
    heading(heads[i], 0, i);
  int row = 1;
  for (std::size_t i = 0; i < presets.size(); ++i, ++row) {
    const QString path = QString("@.brief.presets.%1").arg(i);
    grid()->addWidget(new Field(desk(), path + ".name", {}, this), row, 0);
    auto* use = new QComboBox(this);
    use->setAccessibleName(tr("Use of %1").arg(QString::fromStdString(presets[i].name)));
    for (const UseChoice& choice : use_choices())
      use->addItem(choice.name, choice.key);
    use->setToolTip(tr("Parked: aired out, on its stops. Held: low on its air."));
    use->setProperty("path_too", path + ".parked");
    use->setObjectName(QString("use_%1").arg(i));
    use->setProperty("path", path + ".use");
    connect(use, &QComboBox::activated, this, [this, i](int chosen) {
      const auto choices = use_choices();
      build::Build build = desk().build();
      auto& all = build.variant().brief.presets;
      if (chosen < 0 || chosen >= static_cast<int>(choices.size()) || i >= all.size()) return;
      all[i].use = choices[static_cast<std::size_t>(chosen)].use;
      all[i].parked = choices[static_cast<std::size_t>(chosen)].parked;
      desk().edit(tr("What a preset is for"), std::move(build));
    });
    grid()->addWidget(use, row, 1);
    int column = 2;
    for (const End end : build::both_ends) {
      grid()->addWidget(new Field(desk(), path + "." + build::key_of(end), {}, this), row, column++);
      heights_.push_back(quiet_label());
      grid()->addWidget(heights_.back(), row, column++);
      heights_.back()->setToolTip(
          tr("Below: how far from where it stood when it was surveyed, in mm, inches, fingers."));
    }
    auto* remove =
        remover([this, i] { return QString::fromStdString(desk().build().variant().brief.presets.at(i).name); });
    connect(remove, &QToolButton::clicked, this, [this, i] { remove_preset(desk(), i); });
    grid()->addWidget(remove, row, 6);
  }
  auto* add = new QPushButton(tr("Add a preset"), this);
  add->setObjectName("add_preset");
  connect(add, &QPushButton::clicked, this, [this] { add_preset(desk()); });
  struct Item {
    const char* key;
    QString caption;
  };
  const Item items[] = {{"bump_travel_m", tr("bump kept")},
                        {"rebound_reserve_m", tr("rebound kept")},
                        {"bag_margin_m", tr("above bag down")},
                        {"bag_clearance_m", tr("around the bag")},
                        {"road_pressure_share", tr("road pressure up to")},
                        {"frequency_low_hz", tr("comfort from")},
                        {"frequency_high_hz", tr("comfort to")},
                        {"rear_quicker_low", tr("rear quicker from")},
                        {"rear_quicker_high", tr("rear quicker to")},
                        {"exponent", tr("exponent n, bump")}};
  auto* reserves = new QGridLayout;
  reserves->setSpacing(desk().look().px(4));
  int k = 0;
  for (const Item& item : items) {
    reserves->addWidget(new Field(desk(), QString("@.brief.%1").arg(item.key), item.caption, this), k / 5, k % 5);
    ++k;
  }
  grid()->addLayout(reserves, row++, 0, 1, 7);
  grid()->addWidget(new Field(desk(), "@.brief.notes", tr("wishes in words"), this), row, 0, 1, 5);
  grid()->addWidget(add, row++, 5, 1, 2, Qt::AlignRight | Qt::AlignBottom);
  grid()->setRowStretch(row, 1);
  for (const int c : {0, 2, 4})
    grid()->setColumnStretch(c, 2);
}

void BriefPanel::refresh_rows() {
  const auto& a = desk().assessment();
  for (std::size_t i = 0; i < heights_.size(); ++i) {
    const auto& presets = a.end(static_cast<End>(i % 2)).presets;
    const std::size_t p = i / 2;
    if (p >= presets.size() || !presets[p]) {
      heights_[i]->setText(tr("no height yet"));
      continue;
    }
    const bool fine = presets[p]->stands(desk().build().variant().brief.presets[p].use);
    const QString height = desk().shown(presets[p]->height, Kind::length);
    const auto& stood = a.end(static_cast<End>(i % 2)).surveyed_height;
    heights_[i]->setText((fine ? tr("= %1") : tr("%1, outside")).arg(height) +
                         (stood ? '\n' + change_words(desk(), presets[p]->height - *stood) : QString()));
    heights_[i]->setProperty("wrong", !fine);
    heights_[i]->style()->polish(heights_[i]);
  }
  for (std::size_t p = 0; p < desk().build().variant().brief.presets.size(); ++p)
    if (auto* use = findChild<QComboBox*>(QString("use_%1").arg(p))) {
      const build::Preset& preset = desk().build().variant().brief.presets[p];
      const auto choices = use_choices();
      for (std::size_t c = 0; c < choices.size(); ++c)
        if (choices[c].use == preset.use && (preset.use != PresetUse::parked || choices[c].parked == preset.parked))
          use->setCurrentIndex(static_cast<int>(c));
      use->setFont(desk().look().font(TextSize::small));
    }
}

} // namespace mavrel::app
