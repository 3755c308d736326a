#include "app/stages/bags/shelf/bench_panel.h"

#include "app/desk/desk.h"
#include "app/kit/ask.h"
#include "app/kit/cell_editing.h"
#include "app/kit/plain.h"
#include "app/stages/bags/shelf/card_drawing.h"
#include "quantity/quantity.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStyle>
#include <QTableWidget>

namespace mavrel::app {

namespace {

struct BenchKey {
  const char* caption;
  const char* usual;
  Kind kind;
};
constexpr BenchKey bench_keys[] = {{QT_TRANSLATE_NOOP("bench", "name"), "Bench bag", Kind::plain},
                                   {QT_TRANSLATE_NOOP("bench", "collapsed"), "65 mm", Kind::length},
                                   {QT_TRANSLATE_NOOP("bench", "full height"), "210 mm", Kind::length},
                                   {QT_TRANSLATE_NOOP("bench", "over all"), "140 mm", Kind::length},
                                   {QT_TRANSLATE_NOOP("bench", "least pressure"), "0.4 bar", Kind::pressure},
                                   {QT_TRANSLATE_NOOP("bench", "most pressure"), "8 bar", Kind::pressure}};
constexpr Kind columns[] = {Kind::length, Kind::force, Kind::pressure, Kind::volume};
constexpr int most_rows = 30;

int reading_row(const QString& key) {
  return key.section('/', 0, 0).toInt();
}
int reading_column(const QString& key) {
  return key.section('/', 1, 1).toInt();
}

} // namespace

BenchPanel::BenchPanel(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), kind_(new QComboBox(this)), table_(new QTableWidget(most_rows, 5, this)),
      said_(new PlainLabel(this)), drawing_(new CardDrawing(desk, this)),
      make_(new QPushButton(tr("Make the card"), this)) {
  setObjectName("bench_panel");
  const int u = desk_.look().unit();
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(u / 2);
  auto* head = new QGridLayout;
  head->setHorizontalSpacing(u / 2);
  head->setVerticalSpacing(0);
  for (int i = 0; i < static_cast<int>(std::size(bench_keys)); ++i) {
    auto* label = new PlainLabel(tr(bench_keys[i].caption), this);
    label->setProperty("quiet", true);
    set_small(label, desk_.look());
    auto* edit = new QLineEdit(bench_keys[i].usual, this);
    edit->setObjectName(QString("bench_key_%1").arg(i));
    edit->setAccessibleName(tr(bench_keys[i].caption));
    connect(edit, &QLineEdit::editingFinished, this, &BenchPanel::refresh);
    head->addWidget(label, 0, i);
    head->addWidget(edit, 1, i);
    keys_.push_back(edit);
  }
  for (const auto kind : {air::BagKind::single_bellows, air::BagKind::double_bellows, air::BagKind::triple_bellows,
                          air::BagKind::sleeve, air::BagKind::slim_bellows})
    kind_->addItem(tr(air::bag_kind_name(kind)), static_cast<int>(kind));
  kind_->setCurrentIndex(1);
  set_small(kind_, desk_.look());
  kind_->setAccessibleName(tr("kind"));
  head->addWidget(kind_, 1, static_cast<int>(std::size(bench_keys)));
  column->addLayout(head);
  auto* caution = new PlainLabel(
      tr("A bag under pressure can burst or leave its plates: a guarded press, and nobody in line with it."), this);
  caution->setProperty("quiet", true);
  set_small(caution, desk_.look());
  caution->setWordWrap(true);
  column->addWidget(caution);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  table_->setObjectName("bench_table");
  table_->setAccessibleName(tr("Readings"));
  table_->setHorizontalHeaderLabels(
      {tr("height"), tr("load"), tr("pressure"), tr("volume, if taken"), tr("off the fit")});
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  set_small(table_->horizontalHeader(), desk_.look());
  table_->verticalHeader()->setDefaultSectionSize(desk_.look().px(22));
  edit_cells(desk, *table_,
             {[](const QModelIndex& at) {
                return at.column() < 4 ? QString("%1/%2").arg(at.row()).arg(at.column()) : QString();
              },
              [this](const QString& key) {
                const QTableWidgetItem* cell = table_->item(reading_row(key), reading_column(key));
                return cell ? cell->text() : QString();
              },
              [this](const QString& key) {
                return tr("%1, reading %2")
                    .arg(table_->horizontalHeaderItem(reading_column(key))->text())
                    .arg(reading_row(key) + 1);
              },
              [this](const QString& key, const QString& text) -> std::optional<QString> {
                if (!text.trimmed().isEmpty())
                  if (const auto value =
                          parse_quantity(text.toStdString(), columns[reading_column(key)], desk_.prefs());
                      !value)
                    return desk_.words_of(value.error());
                if (!table_->item(reading_row(key), reading_column(key)))
                  table_->setItem(reading_row(key), reading_column(key), new QTableWidgetItem);
                table_->item(reading_row(key), reading_column(key))->setText(text.trimmed());
                return std::nullopt;
              }});
  connect(table_, &QTableWidget::cellChanged, this, &BenchPanel::refresh);
  row->addWidget(table_, 1);
  said_->setWordWrap(true);
  said_->setTextFormat(Qt::RichText);
  said_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  said_->setFixedWidth(desk_.look().px(190));
  row->addWidget(said_);
  column->addLayout(row, 5);
  column->addWidget(drawing_, 4);
  auto* foot = new QHBoxLayout;
  auto* back = new QPushButton(tr("Back to the cards"), this);
  set_small(back, desk_.look());
  connect(back, &QPushButton::clicked, this, &BenchPanel::left);
  foot->addWidget(back);
  auto* clear_all = new QPushButton(tr("Clear the readings"), this);
  clear_all->setObjectName("bench_clear");
  set_small(clear_all, desk_.look());
  connect(clear_all, &QPushButton::clicked, this, &BenchPanel::clear);
  foot->addWidget(clear_all);
  foot->addStretch(1);
  set_small(make_, desk_.look());
  make_->setObjectName("bench_make");
  connect(make_, &QPushButton::clicked, this, [this] {
    if (answer_.fit && answer_.fit->card) emit made(*answer_.fit->card);
  });
  foot->addWidget(make_);
  column->addLayout(foot);
  refresh();
}

void BenchPanel::clear() {
  if (!readings().empty() &&
      !ask(this, tr("Clear the readings"), tr("Clear every reading of this bench test?"), tr("Clear")))
    return;
  const QSignalBlocker quiet(table_);
  table_->clearContents();
  refresh();
}

air::BagCard BenchPanel::about() {
  air::BagCard out;
  heads_right_ = true;
  out.name = keys_[0]->text().trimmed().toStdString();
  out.kind = static_cast<air::BagKind>(kind_->currentData().toInt());
  double* const to[] = {nullptr,           &out.collapsed_height, &out.max_height,
                        &out.max_diameter, &out.min_pressure,     &out.max_pressure};
  for (std::size_t i = 1; i < std::size(bench_keys); ++i) {
    auto value = parse_quantity(keys_[i]->text().toStdString(), bench_keys[i].kind, desk_.prefs());
    const bool wrong = !value || !(*value > 0);
    keys_[i]->setProperty("wrong", wrong); // what was typed stays, to be put right
    keys_[i]->style()->polish(keys_[i]);
    if (wrong) {
      desk_.tell(value ? tr("%1 is above 0.").arg(tr(bench_keys[i].caption)) : desk_.words_of(value.error()));
      heads_right_ = false;
      value = parse_quantity(bench_keys[i].usual, bench_keys[i].kind);
    }
    *to[i] = *value;
  }
  return out;
}

std::vector<shelf::BenchReading> BenchPanel::readings() {
  std::vector<shelf::BenchReading> out;
  rows_.clear();
  for (int r = 0; r < table_->rowCount(); ++r) {
    double figures[4] = {};
    bool filled[4] = {}, wrong = false;
    for (int c = 0; c < 4; ++c) {
      const QTableWidgetItem* item = table_->item(r, c);
      if (!item || item->text().trimmed().isEmpty()) continue;
      const auto value = parse_quantity(item->text().toStdString(), columns[c], desk_.prefs());
      if (!value) {
        wrong = true;
        desk_.tell(tr("Reading %1: %2").arg(r + 1).arg(desk_.words_of(value.error())));
        continue;
      }
      figures[c] = *value;
      filled[c] = true;
    }
    if (wrong || !filled[0] || !filled[1] || !filled[2]) continue; // still being typed
    shelf::BenchReading reading{figures[0], figures[1], figures[2], {}};
    if (filled[3]) reading.volume = figures[3];
    out.push_back(reading);
    rows_.push_back(r);
  }
  return out;
}

void BenchPanel::refresh() {
  const QSignalBlocker quiet(table_);
  const Look& look = desk_.look();
  table_->setFont(look.font(TextSize::normal));
  said_->setFont(look.font(TextSize::small));
  const air::BagCard bag = about();
  answer_ = shelf::fit_bench_test(readings(), bag);
  for (int r = 0; r < table_->rowCount(); ++r)
    delete table_->takeItem(r, 4);
  QString text;
  if (answer_.fit) {
    for (std::size_t i = 0; i < answer_.fit->off.size(); ++i) {
      const double off = answer_.fit->off[i];
      auto* item = new QTableWidgetItem((off < 0 ? "−" : "+") + desk_.shown(std::abs(off), Kind::share, 1));
      item->setFlags(Qt::ItemIsEnabled);
      item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
      if (i == answer_.fit->worst_reading && std::abs(off) > 0.04) item->setForeground(look.tokens().stop);
      table_->setItem(rows_[i], 4, item);
    }
    text =
        answer_.fit->spare == 0
            ? tr("<p><b>The fit goes through every reading</b>; there are none to spare that would show its error.</p>")
            : tr("<p><b>The fit is %1 off its readings</b> on the mean, %2 at worst.</p>")
                  .arg(desk_.shown(answer_.fit->rms, Kind::share, 1),
                       desk_.shown(std::abs(answer_.fit->worst), Kind::share, 1));
  }
  if (!answer_.wanted.empty()) {
    text += tr("<p>Wanted next:</p>");
    for (const Message& message : answer_.wanted)
      text += "<p>" + desk_.words_of(message).toHtmlEscaped() + "</p>";
  } else if (answer_.fit) {
    text += tr("<p>Nothing is missing.</p>");
  }
  said_->setText(text);
  const bool sound = heads_right_ && answer_.fit && answer_.fit->card && !bag.name.empty() &&
                     bag.max_height > bag.collapsed_height && bag.max_pressure > bag.min_pressure;
  make_->setEnabled(sound);
  drawing_->show_card(sound ? answer_.fit->card : std::nullopt);
  drawing_->setVisible(sound);
}

} // namespace mavrel::app
