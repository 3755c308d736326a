#include "app/stages/air/sizing_page.h"

#include "app/desk/edits.h"
#include "app/kit/list_table.h"
#include "app/kit/run_row.h"

#include <QHeaderView>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {
constexpr std::size_t most_rows = 300;
}

SizingPage::SizingPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), answer_(
                              desk.answers(), [this] { refresh(); },
                              [this] { return assess::sizing_given(desk_.build(), desk_.shelf(), air_of(desk_)); }) {
  keep_up(answer_);
  fields(row(column()), "@.brief.air.",
         {{"rise_s", tr("rises within")},
          {"lifts", tr("lifts per tank")},
          {"ready_s", tr("refill within")},
          {"current_a", tr("draws at most")},
          {"sound_db", tr("noise at most")},
          {"room_m3", tr("room at most")}});
  run_ = new RunRow(desk_, answer_, "find_kits", tr("Find kits"), this);
  take_ = button(run_->row(), tr("Go on with it as a variant"), "take_kit", [this] {
    if (const auto choice = table_->held()) take(*choice);
  });
  column()->addWidget(run_);
  added_ = words("kits_added", TextSize::small);
  column()->addWidget(added_);
  table_ = table("kits", tr("Kits"),
                 {tr("kit"), tr("rise"), tr("lifts"), tr("full again"), tr("draws"), tr("sound"), tr("room"),
                  tr("mass"), tr("a burst"), tr("price")});
  table_->setWordWrap(true);
  column()->addWidget(table_, 1);
  connect(table_, &ListTable::picked, this, &SizingPage::take);
}

QString SizingPage::said(const assess::Sizing& sizing) const {
  if (sizing.trouble) return desk_.words_of(*sizing.trouble);
  const assess::SizingGiven* from = answer_.given();
  const QString load = from ? QString::fromStdString(assess::case_name(from->air, from->load_case)) : QString();
  std::size_t meets = 0, best = 0;
  for (const assess::KitChoice& c : sizing.choices)
    meets += c.meets, best += c.best;
  return meets > 0
             ? tr("%1 kits tried at the load “%4”: %2 do all that is wished for, %3 of them are bettered by no other "
                  "(●).")
                   .arg(sizing.tried)
                   .arg(meets)
                   .arg(best)
                   .arg(load)
             : tr("%1 kits tried at the load “%2”, none does all that is wished for. The nearest come first, each with "
                  "what it lacks most.")
                   .arg(sizing.tried)
                   .arg(load);
}

void SizingPage::fill() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const assess::Sizing* sizing = this->sizing();
  run_->show_words(sizing
                       ? said(*sizing)
                       : tr("Tries every compressor, once and twice, with every tank, valve and line of the shelf, at "
                            "the heaviest load. What is not searched stays as the kit has it."),
                   tr("Every compressor, tank, valve and line of the shelf …"));
  QStringList added;
  if (const assess::SizingGiven* from = sizing ? answer_.given() : nullptr) {
    for (const assess::AddedPart& part : from->added)
      added << tr("%1 %2 (%3)")
                   .arg(tr(assess::row_of(part.role).label), QString::fromStdString(part.name),
                        desk_.words_of(part.why));
    for (const Message& what : from->lacks)
      added << desk_.words_of(what);
  }
  added_->setText(added.isEmpty() ? QString()
                                  : tr("Added by rule, to be changed like any other: %1").arg(added.join(" · ")));
  added_->setVisible(!added.isEmpty());
  const bool any = sizing && !sizing->trouble && !sizing->choices.empty();
  take_->setEnabled(any);
  if (any && filled_ == answer_.token()) return;
  filled_ = answer_.token();
  table_->verticalHeader()->setDefaultSectionSize(look.px(36));
  const assess::SizingGiven* from = answer_.given();
  const auto name_of = [&](const assess::KitChoice& c) {
    QString name =
        QString("%1%2, %3, %4, %5")
            .arg(c.compressors > 1 ? QString("2 × ") : QString(),
                 QString::fromStdString(from->compressors[c.compressor].name),
                 QString::fromStdString(from->tanks[c.tank].name), QString::fromStdString(from->valves[c.valves].name),
                 QString::fromStdString(from->lines[c.line].name));
    return c.lost.empty() ? name : name + " — " + desk_.words_of(c.lost);
  };
  table_->fill(any ? std::min(most_rows, sizing->choices.size()) : 0, [&](std::size_t r, ListTable::Row& row) {
    const assess::KitChoice& c = sizing->choices[r];
    const QColor ink = c.best ? t.ink : c.meets ? t.second : t.caution;
    row.words((c.best    ? "● "
               : c.meets ? "○ "
                         : "△ ") +
                  name_of(c),
              ink)
        .figure(c.rise ? desk_.shown(*c.rise, Kind::time) : tr("never"), ink)
        .figure(QString::number(c.lifts), ink)
        .figure(c.ready ? desk_.shown(*c.ready, Kind::minutes) : tr("never"), ink)
        .figure(desk_.shown(c.current, Kind::current, 0), ink)
        .figure(c.sound ? desk_.shown(*c.sound, Kind::sound) : "–", ink)
        .figure(desk_.shown(c.room, Kind::volume, 0), ink)
        .figure(desk_.shown(c.mass, Kind::mass, 1), ink)
        .figure(desk_.shown(c.burst, Kind::length), ink)
        .figure((c.unpriced > 0 ? "≥ " : "") + QString::number(c.price, 'f', 0), ink);
  });
}

void SizingPage::take(std::size_t place) {
  const assess::Sizing* sizing = this->sizing();
  if (!sizing || place >= sizing->choices.size()) return;
  const assess::SizingGiven& from = *answer_.given();
  const assess::KitChoice& choice = sizing->choices[place];
  build::Variant next = desk_.build().variant();
  next.air = assess::kit_of(from, choice);
  next.name = (free_letter(desk_) + ", " + QString::fromStdString(from.compressors[choice.compressor].name))
                  .left(40)
                  .toStdString();
  take_variant(desk_, std::move(next));
}

} // namespace mavrel::app
