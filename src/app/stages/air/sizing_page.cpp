#include "app/stages/air/sizing_page.h"

#include "app/desk/edits.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {
constexpr int most_rows = 300;
}

SizingPage::SizingPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk),
      answer_(desk.runner(), [this] { refresh(); }), asked_{air_of(desk), {}, {}, {}, {}, {}, 0},
      find_(new QPushButton(this)), take_(new QPushButton(tr("Go on with it as a variant"), this)),
      progress_(new QProgressBar(this)), about_(new QLabel(this)),
      table_(list_table("kits", tr("Kits"),
                        {tr("kit"), tr("rise"), tr("lifts"), tr("full again"), tr("draws"), tr("sound"), tr("room"),
                         tr("mass"), tr("price")},
                        this)),
      beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(0);
  auto* layout = new QVBoxLayout;
  layout->setContentsMargins(0, 0, u, 0);
  layout->setSpacing(u / 2);
  whole->addLayout(layout, 1);
  whole->addWidget(beside_);
  auto* wishes = new QHBoxLayout;
  wishes->setSpacing(u / 2);
  const std::pair<const char*, QString> fields[] = {
      {"rise_s", tr("rises within")},     {"lifts", tr("lifts from full")},  {"ready_s", tr("full again within")},
      {"current_a", tr("draws at most")}, {"sound_db", tr("sound at most")}, {"room_m3", tr("room at most")}};
  for (const auto& [key, caption] : fields)
    wishes->addWidget(new Field(desk_, QString("@.brief.air.%1").arg(key), caption, this));
  layout->addLayout(wishes);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  find_->setObjectName("find_kits");
  row->addWidget(find_);
  progress_->setTextVisible(false);
  progress_->setFixedHeight(u);
  progress_->setRange(0, 1000);
  row->addWidget(progress_, 1);
  about_->setWordWrap(true);
  row->addWidget(about_, 3);
  take_->setObjectName("take_kit");
  row->addWidget(take_);
  layout->addLayout(row);
  table_->setWordWrap(true);
  layout->addWidget(table_, 1);
  connect(find_, &QPushButton::clicked, this, [this] {
    if (answer_.is_running())
      answer_.forget();
    else
      search();
  });
  connect(take_, &QPushButton::clicked, this, [this] { take(table_->currentRow()); });
  connect(table_, &QTableWidget::cellDoubleClicked, this, [this](int r) { take(r); });
  connect(table_, &QTableWidget::currentCellChanged, this, [this] { take_->setEnabled(table_->currentRow() >= 0); });
  connect(&desk_, &Desk::changed, this, [this] {
    if (answer_.was_asked() && isVisible()) answer_.keep_only_for(given());
  });
  for (const auto signal : {&Desk::restyled, &Desk::changed})
    connect(&desk_, signal, this, &SizingPage::refresh);
  refresh();
}

void SizingPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

assess::SizingGiven SizingPage::given() const {
  return assess::sizing_given(desk_.build(), desk_.shelf(), air_of(desk_));
}

bool SizingPage::go_to(const QString& path) {
  return go_to_field(desk_, this, path);
}

void SizingPage::search() {
  asked_ = given();
  answer_.ask(asked_);
}

const assess::Sizing* SizingPage::sizing() const {
  return answer_.answer() && *answer_.answer() ? &**answer_.answer() : nullptr;
}

void SizingPage::refresh() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  about_->setFont(look.font(TextSize::small));
  table_->setFont(look.font(TextSize::small));
  find_->setText(answer_.is_running() ? tr("Stop") : tr("Find kits"));
  progress_->setVisible(answer_.is_running());
  progress_->setValue(static_cast<int>(answer_.done() * 1000));
  const assess::Sizing* sizing = this->sizing();
  take_->setEnabled(sizing && table_->currentRow() >= 0);
  if (!sizing) {
    table_->setRowCount(0);
    about_->setText(
        answer_.is_running() ? tr("Every compressor, tank, valve and line of the shelf …")
        : answer_.trouble()
            ? desk_.words_of(*answer_.trouble())
            : tr("Tries every compressor, once and twice, with every tank, valve and line of the shelf, at the "
                 "heaviest load. What is not searched stays as the kit has it."));
    return;
  }
  if (sizing->trouble) {
    table_->setRowCount(0);
    about_->setText(desk_.words_of(*sizing->trouble));
    return;
  }
  std::size_t meets = 0, best = 0;
  for (const assess::KitChoice& c : sizing->choices)
    meets += c.meets, best += c.best;
  about_->setText(
      meets > 0
          ? tr("%1 kits tried: %2 do all that is wished for, %3 of them are bettered by no other (●).")
                .arg(sizing->tried)
                .arg(meets)
                .arg(best)
          : tr("%1 kits tried, none does all that is wished for. The nearest come first, each with what it lacks most.")
                .arg(sizing->tried));
  const int rows = std::min<int>(most_rows, static_cast<int>(sizing->choices.size()));
  if (table_->rowCount() == rows && table_->property("of").toULongLong() == reinterpret_cast<quintptr>(sizing)) return;
  table_->setProperty("of", QVariant::fromValue<qulonglong>(reinterpret_cast<quintptr>(sizing)));
  table_->verticalHeader()->setDefaultSectionSize(look.px(36));
  table_->setRowCount(rows);
  for (int r = 0; r < rows; ++r) {
    const assess::KitChoice& c = sizing->choices[static_cast<std::size_t>(r)];
    QString name = QString("%1%2, %3, %4, %5")
                       .arg(c.compressors > 1 ? QString("2 × ") : QString(),
                            QString::fromStdString(asked_.compressors[c.compressor].name),
                            QString::fromStdString(asked_.tanks[c.tank].name),
                            QString::fromStdString(asked_.valves[c.valves].name),
                            QString::fromStdString(asked_.lines[c.line].name));
    if (!c.lost.empty()) name += " — " + desk_.words_of(c.lost);
    const QColor ink = c.best ? t.ink : c.meets ? t.second : t.caution;
    put_cell(table_, r, 0, (c.best ? "● " : c.meets ? "○ " : "△ ") + name, ink);
    put_cell(table_, r, 1, c.rise ? desk_.shown(*c.rise, Kind::time) : tr("never"), ink);
    put_cell(table_, r, 2, QString::number(c.lifts), ink);
    put_cell(table_, r, 3, c.ready ? desk_.shown(*c.ready, Kind::minutes) : tr("never"), ink);
    put_cell(table_, r, 4, desk_.shown(c.current, Kind::current, 0), ink);
    put_cell(table_, r, 5, c.sound ? desk_.shown(*c.sound, Kind::sound) : "–", ink);
    put_cell(table_, r, 6, desk_.shown(c.room, Kind::volume, 0), ink);
    put_cell(table_, r, 7, desk_.shown(c.mass, Kind::mass, 1), ink);
    put_cell(table_, r, 8, c.price ? QString::number(*c.price, 'f', 0) : "–", ink);
  }
}

void SizingPage::take(int row) {
  const assess::Sizing* sizing = this->sizing();
  if (!sizing || row < 0 || row >= static_cast<int>(sizing->choices.size())) return;
  build::Variant next = desk_.build().variant();
  const assess::KitChoice& choice = sizing->choices[static_cast<std::size_t>(row)];
  next.air = assess::kit_of(asked_, choice);
  next.name = (free_letter(desk_) + ", " + QString::fromStdString(asked_.compressors[choice.compressor].name))
                  .left(40)
                  .toStdString();
  take_variant(desk_, std::move(next));
}

} // namespace mavrel::app
