#include "desktop/settle/card_page.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QScopedValueRollback>
#include <QSignalBlocker>
#include <QStandardPaths>
#include <QTableWidget>
#include <QVBoxLayout>
#include <cmath>

#include "book/target_shelf.h"
#include "core/power/running_cost.h"
#include "core/quantity/daily_light.h"
#include "core/quantity/uncertain_text.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "exchange/files/new_file.h"
#include "record/configurations.h"
#include "report/card_section.h"

namespace sunbreak::desktop {
namespace {

enum CardColumn {
  StageColumn,
  BandColumn,
  HeightColumn,
  SettingColumn,
  HoursColumn,
  WattsColumn,
  MeanColumn,
  EdgeColumn,
  LightColumn,
  CoveredColumn,
  EnergyColumn,
  MoneyColumn,
  ChanceColumn,
  WeeksColumn,
  CardColumns
};

constexpr int widest_stage_px = 250;

bool is_typed(int column) {
  return column == HeightColumn || column == SettingColumn || column == HoursColumn || column == WeeksColumn;
}

}  // namespace

CardPage::CardPage(Desk& desk, SettleWork& work, QWidget* parent)
    : QWidget(parent), desk_(desk), work_(work), making_(this), looking_(this) {
  setObjectName("ground");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 8, 0, 0);
  column->setSpacing(8);
  auto* head = new QHBoxLayout;
  head->setSpacing(8);
  head->addWidget(quiet_label(tr("Stages of"), this));
  list_ = new QComboBox(this);
  list_->setObjectName("cardList");
  list_->setAccessibleName(tr("List of targets"));
  head->addWidget(list_);
  head->addWidget(quiet_label(tr("by"), this));
  policy_ = new QComboBox(this);
  policy_->setObjectName("cardPolicy");
  policy_->setAccessibleName(tr("What the card goes by"));
  for (const CardPolicyName& p : card_policies) policy_->addItem(text_of(p.words), text_of(p.id));
  head->addWidget(policy_);
  make_ = primary_button(tr("Make the card"), this);
  make_->setObjectName("makeCard");
  head->addWidget(make_);
  head->addStretch();
  save_ = new QPushButton(tr("Save the card…"), this);
  save_->setObjectName("saveCard");
  head->addWidget(save_);
  column->addLayout(head);
  state_ = wrapped_label({}, this);
  state_->setObjectName("cardState");
  column->addWidget(state_);
  table_ = new QTableWidget(0, CardColumns, this);
  table_->setObjectName("cardTable");
  table_->setAccessibleName(tr("Settings card"));
  table_->verticalHeader()->hide();
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setWordWrap(true);
  column->addWidget(table_, 1);
  sum_ = wrapped_label({}, this);
  sum_->setObjectName("cardSum");
  column->addWidget(sum_);
  maker_ = wrapped_label({}, this);
  maker_->setProperty("quiet", true);
  column->addWidget(maker_);
  connect(make_, &QPushButton::clicked, this, &CardPage::make_card);
  connect(save_, &QPushButton::clicked, this, &CardPage::save_card);
  connect(table_, &QTableWidget::cellChanged, this, &CardPage::take_cell);
  const auto in_sight = [this] {
    if (isVisible()) refresh();
  };
  connect(&work_, &SettleWork::field_changed, this, in_sight);
  connect(&work_, &SettleWork::answered, this, in_sight);
}

void CardPage::refresh() {
  if (!desk_.test()) return;
  const record::Settling settling = work_.settling();
  {
    const auto names = evaluation::set_names(book::crop_targets(desk_.book()));
    const QString chosen = list_->currentText();
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const std::string& name : names) list_->addItem(text_of(name));
    const int kept = list_->findText(settling.card_list.empty() ? chosen : text_of(settling.card_list));
    list_->setCurrentIndex(std::max(0, kept));
  }
  if (!settling.card_list.empty())
    policy_->setCurrentIndex(std::max(0, policy_->findData(text_of(settling.card_policy))));
  make_->setEnabled(work_.maps() && !work_.filling() && !desk_.read_only());
  QStringList heights;
  for (const std::string& claim : evaluation::claimed_heights(*desk_.test(), desk_.units())) heights << text_of(claim);
  maker_->setText(heights.isEmpty() ? QString() : tr("The maker recommends to hang it at %1.").arg(heights.join("; ")));
  look();
}

void CardPage::make_card() {
  if (!work_.maps() || !desk_.test()) return;
  const QString list = list_->currentText(), policy = policy_->currentData().toString();
  const auto targets = evaluation::targets_of_set(book::crop_targets(desk_.book()), text_of(list));
  const auto* named = std::find_if(card_policies.begin(), card_policies.end(),
                                   [&](const CardPolicyName& p) { return text_of(p.id) == policy; });
  state_->setText(tr("Looking for a way for each stage…"));
  make_->setEnabled(false);
  making_.ask(
      [maps = work_.maps(), request = work_.request(), targets, policy = named->policy,
       before = desk_.test()->card_rows, test = desk_.test()->test.id](std::stop_token stop) {
        return evaluation::made_card(*maps, request, targets, policy, before, test, stop);
      },
      [this, list, policy, shown = desk_.shown()](const std::vector<record::CardRow>& rows) {
        make_->setEnabled(true);
        if (!desk_.test() || desk_.shown() != shown) return;
        record::Settling settling = work_.settling();
        settling.card_list = text_of(list), settling.card_policy = text_of(policy);
        desk_.edits().make(tr("settings card"), [&](book::Edit& edit) {
          if (settling.id == 0)
            edit.add(settling);
          else
            edit.save(settling);
          for (const record::CardRow& old : desk_.test()->card_rows) edit.erase<record::CardRow>(old.id);
          for (record::CardRow row : rows) {
            row.configuration_id = record::configuration_of(*desk_.test());
            edit.add(row);
          }
        });
      },
      [this] {
        make_->setEnabled(true);
        state_->setText(tr("No card was made: the message below says why."));
      });
}

/// Judges the rows that are on record.
void CardPage::look() {
  const evaluation::TestLight* light = work_.light();
  if (desk_.test()->card_rows.empty() || !light) {
    card_ = {};
    return show_card();
  }
  looking_.ask([record = desk_.snapshot(), evaluation = desk_.worked_out().evaluation(),
                light](std::stop_token stop) { return evaluation::settings_card(*record, *light, *evaluation, stop); },
               [this](evaluation::SettingsCard card) {
                 card_ = std::move(card);
                 show_card();
               });
}

void CardPage::show_card() {
  const QScopedValueRollback filling(filling_, true);
  const UnitSystem units = desk_.units();
  const QString length = text_of(symbol(surface_unit(units))), money = text_of(desk_.test()->test.tariff_currency);
  const auto tariff = desk_.test()->test.tariff_per_kwh;
  table_->setHorizontalHeaderLabels({tr("stage"), tr("band,\nµmol/m²/s"), tr("height,\n%1").arg(length),
                                     tr("dimmer,\n%"), tr("hours\na day"), tr("watts"), tr("mean"), tr("edge"),
                                     tr("mol/m²/d"), tr("in band,\n%"), tr("kWh\na day"), tr("%1\na day").arg(money),
                                     tr("chance"), tr("weeks")});
  table_->setColumnHidden(MoneyColumn, !tariff);
  const int current_row = table_->currentRow(), current_column = table_->currentColumn();
  table_->setRowCount(static_cast<int>(card_.lines.size()));
  for (int r = 0; r < std::ssize(card_.lines); ++r) {
    const evaluation::CardLine& line = card_.lines[static_cast<std::size_t>(r)];
    const record::CardRow& row = line.row;
    const auto put = [&](int column, const QString& text, const QString& tip = {}) {
      auto* item = new QTableWidgetItem(text);
      Qt::ItemFlags flags = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
      if (is_typed(column) && !desk_.read_only()) flags |= Qt::ItemIsEditable;
      item->setFlags(flags);
      item->setTextAlignment((column == StageColumn ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter);
      item->setToolTip(tip);
      if (is_typed(column)) item->setFont(text_font(13, true));
      table_->setItem(r, column, item);
    };
    const QString said = text_of(evaluation::card_line_words(line)),
                  name = text_of(row.stage) + (row.own ? tr(" · typed") : QString());
    put(StageColumn, said.isEmpty() ? name : name + "\n" + (line.sure && line.within ? said : marked_attention(said)),
        said);
    put(BandColumn, QStringLiteral("%1–%2").arg(row.low_ppfd, 0, 'f', 0).arg(row.high_ppfd, 0, 'f', 0));
    put(HeightColumn, show_length(row.height_m, units));
    put(SettingColumn, show_number(row.percent, 1));
    put(HoursColumn, show_number(row.photoperiod_h, 1));
    put(WeeksColumn, show_number(row.weeks, 1));
    for (int column :
         {WattsColumn, MeanColumn, EdgeColumn, LightColumn, CoveredColumn, EnergyColumn, MoneyColumn, ChanceColumn})
      put(column, QStringLiteral("–"), text_of(line.why));
    if (!line.point) continue;
    const AreaLight& f = line.point->figures;
    put(MeanColumn, text_of(uncertain_text(f.mean, line.expanded.mean, 0)));
    put(EdgeColumn, text_of(uncertain_text(f.edge, line.expanded.edge, 0)));
    put(LightColumn, QString::number(dli_mol_m2_d(f.mean, row.photoperiod_h), 'f', 1));
    put(CoveredColumn, QString::number(100 * f.in_band, 'f', 0), text_of(area_text(f.in_band * card_.area_m2, units)));
    const QString chance = text_of(chance_text(line.point->chance));
    put(ChanceColumn, line.sure ? chance : marked_attention(chance), said.isEmpty() ? tr("the rule is met") : said);
    if (const auto watts = line.point->setting.power_w) {
      const RunningCost cost = running_cost(*watts, row.photoperiod_h, tariff.value_or(0));
      put(WattsColumn, QString::number(*watts, 'f', 0));
      put(EnergyColumn, QString::number(cost.kwh_day, 'f', 2));
      put(MoneyColumn, QString::number(cost.money_day, 'f', 2));
    }
  }
  table_->resizeColumnsToContents();
  table_->setColumnWidth(StageColumn, std::min(table_->columnWidth(StageColumn), widest_stage_px));
  table_->resizeRowsToContents();
  if (current_row >= 0 && current_row < table_->rowCount()) table_->setCurrentCell(current_row, current_column);
  save_->setEnabled(!card_.lines.empty());
  if (card_.lines.empty())
    state_->setText(tr(
        "A settings card says for each stage of growth how to hang and dim the fixture. Choose a list and make it."));
  else
    state_->setText(
        tr("Predicted where none was walked. Heights, settings, hours and weeks can be typed over. Rule: %1.")
            .arg(text_of(serving_rule_words(card_.request.rule))));
  const auto sum = evaluation::grow_sum(card_);
  QString words;
  if (sum) {
    words = tr("The whole grow: %1 days, %2 kWh").arg(sum->days, 0, 'f', 0).arg(sum->kwh, 0, 'f', 0);
    if (tariff) words += tr(", %1 %2").arg(sum->kwh * *tariff, 0, 'f', 2).arg(money);
    words += ".";
  }
  sum_->setText(words);
}

void CardPage::take_cell(int r, int column) {
  if (filling_ || !is_typed(column) || r >= std::ssize(card_.lines)) return;
  // As it is on record: what is shown may still be judged as it was before the last change.
  const auto& rows = desk_.test()->card_rows;
  const auto on_record = std::find_if(rows.begin(), rows.end(), [&](const record::CardRow& row) {
    return row.id == card_.lines[static_cast<std::size_t>(r)].row.id;
  });
  if (on_record == rows.end()) return;
  record::CardRow row = *on_record;
  const QString text = table_->item(r, column)->text().trimmed();
  const std::optional<double> value = column == HeightColumn ? typed_length_m(text, desk_.units()) : typed_number(text);
  const double most = column == HeightColumn ? 10 : column == HoursColumn ? 24 : 200;
  const bool may_be_empty = column == WeeksColumn && text.isEmpty();
  if (!may_be_empty && (!value || *value <= 0 || *value > most)) {
    desk_.warn(tr("'%1' is no %2 up to %3; the card is as it was.")
                   .arg(text, table_->horizontalHeaderItem(column)->text().replace('\n', ' '))
                   .arg(column == HeightColumn ? text_of(length_text(most, desk_.units())) : show_number(most)));
    return show_card();
  }
  if (column == HeightColumn) row.height_m = value;
  if (column == SettingColumn) row.percent = value;
  if (column == HoursColumn) row.photoperiod_h = *value;
  if (column == WeeksColumn) row.weeks = value;
  row.own = row.own || column != WeeksColumn;
  if (!desk_.edits().make(tr("settings card"), [&](book::Edit& edit) { edit.save(row); })) show_card();
}

void CardPage::save_card() {
  if (!desk_.test() || card_.lines.empty()) return;
  const QString folder = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
  const QString file =
      file_to_save(this, tr("Save the settings card"), folder + "/settings-card.html", tr("Pages (*.html)"));
  if (file.isEmpty()) return;
  const std::string page = report::settings_card_page(*desk_.test(), card_, desk_.units());
  if (const auto problem = exchange::write_new_file(text_of(file), page, exchange::Existing::Replace))
    return desk_.warn(text_of(problem->sentence()));
  desk_.say(tr("The card was written to %1.").arg(file));
}

}  // namespace sunbreak::desktop
