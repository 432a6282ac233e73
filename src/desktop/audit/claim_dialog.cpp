#include "desktop/audit/claim_dialog.h"

#include <QComboBox>
#include <QDate>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "book/target_shelf.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/audit/audit.h"
#include "evaluation/crop_targets.h"
#include "evaluation/settle_field.h"
#include "exchange/tables/sweep_table.h"

namespace sunbreak::desktop {
namespace {

using record::Claim;
using record::ClaimKind;

QLineEdit* named_line(const char* name, QWidget* parent, const QString& hint = {}) {
  auto* line = new QLineEdit(parent);
  line->setObjectName(name);
  line->setPlaceholderText(hint);
  return line;
}

QComboBox* named_box(const char* name, QWidget* parent) {
  auto* box = new QComboBox(parent);
  box->setObjectName(name);
  return box;
}

void choose_data(QComboBox* box, const QString& data) { box->setCurrentIndex(std::max(0, box->findData(data))); }

}  // namespace

ClaimDialog::ClaimDialog(Desk& desk, const Claim& claim, QWidget* parent)
    : QDialog(parent), desk_(desk), claim_(claim) {
  setObjectName("claimDialog");
  setWindowTitle(claim.id == 0 ? tr("A claim") : tr("Change a claim"));
  auto* page = new QWidget(this);
  form_ = new QFormLayout(page);
  form_->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
  kind_ = named_box("claimKind", page);
  for (const ClaimKind& k : record::claim_kinds())
    kind_->addItem(text_of(std::string(k.label)), text_of(std::string(k.name)));
  form_->addRow(tr("What is claimed"), kind_);
  value_ = named_line("claimValue", page);
  form_->addRow(tr("Figure"), value_);
  to_ = named_line("claimTo", page, tr("the upper end of a range"));
  form_->addRow(tr("to"), to_);
  presence_ = named_box("claimPresence", page);
  presence_->addItem(tr("present"), 1.0);
  presence_->addItem(tr("none"), 0.0);
  form_->addRow(tr("It is"), presence_);
  unit_ = named_box("claimUnit", page);
  form_->addRow(tr("Unit"), unit_);
  says_ = named_box("claimSays", page);
  form_->addRow(tr("Which says"), says_);
  lamp_ = named_line("claimLamp", page, tr("such as: sodium"));
  form_->addRow(tr("Kind of lamp"), lamp_);
  stage_ = named_box("claimStage", page);
  stage_->setEditable(true);
  stage_->addItem(QString());
  const auto targets = book::crop_targets(desk_.book());
  const std::string list = desk_.test() ? evaluation::target_list_of(*desk_.test(), targets) : std::string();
  for (const auto& target : evaluation::targets_of_set(targets, list)) stage_->addItem(text_of(target.name));
  form_->addRow(tr("Stage of growth"), stage_);
  size_ = named_line("claimSize", page, desk_.units() == UnitSystem::Metric ? tr("90 × 90 cm") : tr("3 × 3 ft"));
  form_->addRow(tr("Area"), size_);
  height_ = named_line("claimHeight", page, tr("the hanging height stated with it"));
  form_->addRow(tr("At a height of"), height_);
  percent_ = named_line("claimPercent", page, tr("of the dimmer, in %"));
  form_->addRow(tr("At a setting of"), percent_);
  walls_ = named_box("claimWalls", page);
  for (const auto& [text, walls] : {std::pair{tr("not said"), ""},
                                    {tr("reflective"), "reflective"},
                                    {tr("white"), "white"},
                                    {tr("dark"), "dark"},
                                    {tr("open, no walls"), "open"}})
    walls_->addItem(text, walls);
  form_->addRow(tr("Walls about it"), walls_);
  grid_ = named_box("claimGrid", page);
  grid_->addItem(tr("middles of cells that fill the area"), "cells");
  grid_->addItem(tr("points from edge to edge"), "nodes");
  form_->addRow(tr("Its places are"), grid_);
  map_ = new QPlainTextEdit(page);
  map_->setObjectName("claimMap");
  map_->setTabChangesFocus(true);
  map_->setPlaceholderText(tr("Type or paste the numbers as the map shows them, the far row first"));
  map_->setMinimumHeight(120);
  form_->addRow(tr("The map"), map_);
  map_words_ = wrapped_label({}, page);
  map_words_->setObjectName("claimMapWords");
  form_->addRow(QString(), map_words_);
  words_ = named_line("claimWords", page, tr("as it stands on the box"));
  form_->addRow(tr("In the maker's words"), words_);
  source_ = named_line("claimSource", page, tr("such as: the box, the leaflet, a page"));
  form_->addRow(tr("Source"), source_);
  stated_on_ = named_line("claimDay", page, tr("year-month-day"));
  form_->addRow(tr("Seen on"), stated_on_);
  for (int row = 0; row < form_->rowCount(); ++row)
    if (auto* field = form_->itemAt(row, QFormLayout::FieldRole))
      if (auto* label = form_->labelForField(field->widget()); label && field->widget())
        field->widget()->setAccessibleName(static_cast<QLabel*>(label)->text());

  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setFocusPolicy(Qt::NoFocus);
  scroll->setWidget(page);
  trouble_ = wrapped_label({}, this);
  trouble_->setObjectName("claimTrouble");
  set_tone(trouble_, "attention");
  auto* buttons = new QDialogButtonBox(this);
  auto* keep = primary_button(tr("Keep the claim"), this);
  keep->setObjectName("keepClaim");
  keep->setDefault(true);
  buttons->addButton(keep, QDialogButtonBox::AcceptRole);
  buttons->addButton(tr("Leave it as it was"), QDialogButtonBox::RejectRole);
  connect(buttons, &QDialogButtonBox::accepted, this, &ClaimDialog::keep);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  auto* column = new QVBoxLayout(this);
  column->addWidget(scroll, 1);
  column->addWidget(trouble_);
  column->addWidget(buttons);
  resize(560, 560);
  choose_data(kind_, text_of(claim_.kind));
  fill();
  show_kind();
  connect(kind_, &QComboBox::currentIndexChanged, this, &ClaimDialog::show_kind);
  // What is pasted is a table as a spreadsheet gives it; it is told what was understood as it changes.
  connect(map_, &QPlainTextEdit::textChanged, this, [this] { take_map(text_of(map_->toPlainText())); });
}

const ClaimKind& ClaimDialog::kind() const { return *record::claim_kind(text_of(kind_->currentData().toString())); }

void ClaimDialog::show_row(QWidget* field, bool shown) { form_->setRowVisible(field, shown); }

void ClaimDialog::show_kind() {
  const ClaimKind& k = kind();
  const bool number = k.holds == ClaimKind::Number || k.holds == ClaimKind::Lamp || k.holds == ClaimKind::Range;
  show_row(value_, number);
  value_->setPlaceholderText(text_of(std::string(k.hint)));
  show_row(to_, k.holds == ClaimKind::Range);
  show_row(presence_, k.holds == ClaimKind::Presence);
  const bool length = k.name == "height_m";
  show_row(unit_, number && k.units.size() > 1 && !length);
  unit_->clear();
  for (const record::ClaimUnit& u : k.units) unit_->addItem(text_of(std::string(u.symbol)));
  unit_->setCurrentText(text_of(std::string(record::unit_of(claim_).symbol)));
  show_row(says_, !k.sayings.empty());
  says_->clear();
  for (const record::ClaimSaying& s : k.sayings)
    says_->addItem(text_of(std::string(s.words)), text_of(std::string(s.id)));
  choose_data(says_, text_of(claim_.says));
  show_row(lamp_, k.holds == ClaimKind::Lamp);
  show_row(stage_, k.may_name_stage());
  const bool area = k.holds == ClaimKind::Size || k.holds == ClaimKind::Map;
  show_row(size_, area);
  show_row(height_, k.may_name_state());
  show_row(percent_, k.may_name_state());
  show_row(walls_, k.may_name_walls());
  for (QWidget* field : std::initializer_list<QWidget*>{grid_, map_, map_words_})
    show_row(field, k.holds == ClaimKind::Map);
}

void ClaimDialog::fill() {
  const record::ClaimUnit& unit = record::unit_of(claim_);
  const bool length = claim_.kind == "height_m";
  const auto shown = [&](const std::optional<double>& v) {
    return !v       ? QString()
           : length ? text_of(record::claimed_value_words(
                          [&] {
                            Claim one = claim_;
                            one.value = v, one.value_to.reset(), one.stage.clear();
                            return one;
                          }(),
                          desk_.units()))
                    : show_number(unit.stated(*v));
  };
  value_->setText(shown(claim_.value));
  to_->setText(shown(claim_.value_to));
  presence_->setCurrentIndex(claim_.value && *claim_.value == 0 ? 1 : 0);
  lamp_->setText(text_of(claim_.says));
  stage_->setCurrentText(text_of(claim_.stage));
  if (claim_.width_m && claim_.depth_m)
    size_->setText(text_of(size_text(*claim_.width_m, *claim_.depth_m, desk_.units())));
  if (claim_.height_m) height_->setText(text_of(length_text(*claim_.height_m, desk_.units())));
  percent_->setText(show_number(claim_.percent));
  choose_data(walls_, text_of(claim_.walls));
  choose_data(grid_, text_of(claim_.map_grid));
  words_->setText(text_of(claim_.words));
  source_->setText(text_of(claim_.source));
  stated_on_->setText(text_of(claim_.stated_on));
  const auto values = record::map_values(claim_);
  QStringList rows;
  for (int row = claim_.map_rows.value_or(0) - 1; row >= 0 && !values.empty(); --row) {
    QStringList cells;
    for (int column = 0; column < *claim_.map_columns; ++column)
      cells << QString::number(values[static_cast<std::size_t>(row * *claim_.map_columns + column)], 'g', 6);
    rows << cells.join('\t');
  }
  map_->setPlainText(rows.join('\n'));
}

bool ClaimDialog::take_map(const std::string& bytes) {
  if (text_of(bytes).trimmed().isEmpty()) {
    claim_.map_columns.reset(), claim_.map_rows.reset(), claim_.map_ppfd.clear();
    map_words_->clear();
    return true;
  }
  exchange::TableContext context;
  context.footprint = {claim_.width_m.value_or(1), claim_.depth_m.value_or(1)};
  context.units = desk_.units();
  exchange::TableOptions options;
  options.form = exchange::TableForm::Matrix;
  const auto draft = exchange::read_sweep_table(bytes, context, options);
  QString trouble;
  if (!draft) {
    trouble = text_of(draft.problem().sentence());
  } else {
    for (const exchange::Finding& f : draft.value().findings)
      if (f.refused) {
        trouble = tr("Row %1, column %2: %3").arg(f.row).arg(f.column).arg(text_of(f.words));
        break;
      }
  }
  if (!trouble.isEmpty()) {
    claim_.map_columns.reset(), claim_.map_rows.reset(), claim_.map_ppfd.clear();
    map_words_->setText(marked_attention(trouble));
    set_tone(map_words_, "attention");
    return false;
  }
  const exchange::TableDraft& d = draft.value();
  record::set_map(claim_, d.layout.columns, d.layout.rows, d.raw);
  set_tone(map_words_, "");
  map_words_->setText(tr("%1 × %2 values; the first row is the far one.").arg(d.layout.columns).arg(d.layout.rows));
  if (map_->toPlainText().isEmpty()) {
    const QSignalBlocker quiet(map_);
    map_->setPlainText(text_of(bytes));
  }
  return true;
}

bool ClaimDialog::refuse(QWidget* field, const QString& words) {
  trouble_->setText(marked_attention(words));
  field->setFocus(Qt::OtherFocusReason);
  return false;
}

std::optional<Claim> ClaimDialog::put_together() {
  const ClaimKind& k = kind();
  Claim c;
  c.id = claim_.id, c.fixture_id = claim_.fixture_id;
  c.kind = text_of(kind_->currentData().toString());
  c.words = text_of(words_->text().trimmed()), c.source = text_of(source_->text().trimmed());
  const auto number = [&](QLineEdit* field, std::optional<double>& into, bool length) {
    const QString text = field->text().trimmed();
    if (text.isEmpty()) return true;
    into = length ? typed_length_m(text, desk_.units()) : typed_number(text);
    return into ? true
                : refuse(field, length ? tr("'%1' is no length. Write it like 45 cm.").arg(text)
                                       : tr("'%1' is no number.").arg(text));
  };
  if (unit_->count() > 1 && form_->isRowVisible(unit_) && unit_->currentIndex() > 0)
    c.unit = text_of(unit_->currentText());
  const bool length = k.name == "height_m";
  if (form_->isRowVisible(value_)) {
    if (!number(value_, c.value, length) || (form_->isRowVisible(to_) && !number(to_, c.value_to, length))) return {};
    // A length keeps the unit that it was typed in.
    if (length)
      for (const record::ClaimUnit& u : k.units)
        if (value_->text().trimmed().endsWith(text_of(std::string(u.symbol)))) c.unit = std::string(u.symbol);
    const record::ClaimUnit& unit = record::unit_of(c);
    if (!length && c.value) c.value = unit.kept(*c.value);
    if (!length && c.value_to) c.value_to = unit.kept(*c.value_to);
  }
  if (k.holds == ClaimKind::Presence) c.value = presence_->currentData().toDouble();
  if (form_->isRowVisible(says_)) c.says = text_of(says_->currentData().toString());
  if (form_->isRowVisible(lamp_)) c.says = text_of(lamp_->text().trimmed());
  if (form_->isRowVisible(stage_)) c.stage = text_of(stage_->currentText().trimmed());
  if (form_->isRowVisible(size_)) {
    const QString text = size_->text().trimmed();
    if (!text.isEmpty()) {
      const auto area = evaluation::parse_area(text_of(text), {}, surface_unit(desk_.units()));
      if (!area || area.value().width_m <= 0) {
        refuse(size_, tr("'%1' is no area. Write it like 90 × 90 cm.").arg(text));
        return {};
      }
      c.width_m = area.value().width_m, c.depth_m = area.value().depth_m;
    }
  }
  if (form_->isRowVisible(height_) && (!number(height_, c.height_m, true) || !number(percent_, c.percent, false)))
    return {};
  if (form_->isRowVisible(walls_)) c.walls = text_of(walls_->currentData().toString());
  if (k.holds == ClaimKind::Map) {
    c.map_grid = text_of(grid_->currentData().toString());
    if (!map_->toPlainText().trimmed().isEmpty() && claim_.map_ppfd.empty()) {
      refuse(map_, map_words_->text());
      return {};
    }
    c.map_columns = claim_.map_columns, c.map_rows = claim_.map_rows, c.map_ppfd = claim_.map_ppfd;
  }
  const QString day = stated_on_->text().trimmed();
  if (!day.isEmpty() && !QDate::fromString(day, Qt::ISODate).isValid()) {
    refuse(stated_on_, tr("'%1' is no day. Write it as year-month-day, like 2026-03-14.").arg(day));
    return {};
  }
  c.stated_on = text_of(day);
  if (const auto expected = record::claim_fault(c)) {
    refuse(form_->isRowVisible(value_) ? static_cast<QWidget*>(value_) : size_,
           tr("That cannot be claimed of it. What can stand here is %1.").arg(text_of(*expected)));
    return {};
  }
  if (!record::is_stated(c) && c.words.empty()) {
    refuse(form_->isRowVisible(value_) ? static_cast<QWidget*>(value_) : size_,
           k.holds == ClaimKind::Map ? tr("A map needs its area, and its values or the height it was made at.")
                                     : tr("Nothing is stated yet."));
    return {};
  }
  return c;
}

void ClaimDialog::keep() {
  if (auto together = put_together()) {
    claim_ = std::move(*together);
    accept();
  }
}

}  // namespace sunbreak::desktop
