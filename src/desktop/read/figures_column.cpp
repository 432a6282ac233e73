#include "desktop/read/figures_column.h"

#include <QGridLayout>
#include <QLabel>
#include <QScrollArea>
#include <QVBoxLayout>
#include <algorithm>

#include "core/figures/figure_table.h"
#include "core/quantity/daily_light.h"
#include "core/sweep/field.h"
#include "core/sweep/reduction.h"
#include "core/uncertainty/budget_words.h"
#include "desktop/paint/charts.h"
#include "desktop/read/figure_row.h"
#include "desktop/read/target_fields.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/form.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/part_read.h"

namespace sunbreak::desktop {
namespace {

QString fixed(double value, int decimals) { return QString::number(value, 'f', decimals); }
QString ppfd(double value) { return text_of(ppfd_text(value)); }

}  // namespace

FiguresColumn::FiguresColumn(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("figuresColumn");
  setAttribute(Qt::WA_StyledBackground);
  setFixedWidth(400);
  scroll_ = new QScrollArea(this);
  content_ = new QWidget(scroll_->viewport());
  scroll_->setWidget(content_);
  auto* column = new QVBoxLayout(content_);
  column->setContentsMargins(20, 12, 12, 12);
  column->setSpacing(2);
  build(column);
  column->addStretch();
  scroll_->setWidgetResizable(true);
  scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll_->setFocusPolicy(Qt::NoFocus);

  empty_ = new QWidget(this);
  auto* empty_layout = new QVBoxLayout(empty_);
  empty_layout->setContentsMargins(24, 24, 24, 24);
  empty_layout->addWidget(wrapped_label(tr("No station of this sweep is read yet. Type the readings on Walk (Alt+3), "
                                           "paste a block from a spreadsheet, or drop a CSV file on the window."),
                                        empty_));
  empty_layout->addStretch();

  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(scroll_, 1);
  layout->addWidget(empty_, 1);
  definition_ = wrapped_label({}, this);
  definition_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  definition_->setContentsMargins(24, 8, 16, 8);
  definition_->setObjectName("definition");
  definition_->setProperty("quiet", true);
  define_nothing();
}

/// Shows a definition over the column's foot; nothing moves for it.
void FiguresColumn::show_definition(const QString& words) {
  if (words.isEmpty()) return define_nothing();
  definition_->setText(words);
  place_definition();
  definition_->show();
  definition_->raise();
}

void FiguresColumn::define_nothing() {
  definition_->clear();
  definition_->hide();
}

void FiguresColumn::place_definition() {
  const int tall = std::max(definition_->heightForWidth(width()), 0);
  definition_->setGeometry(0, height() - tall, width(), tall);
}

void FiguresColumn::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  place_definition();
}

/// Gives a picture or a table of figures its definition, on hover and on focus as a figure has it.
void FiguresColumn::define(QWidget* widget, const char* id) {
  widget->setWhatsThis(definition_words(figure(id)));
  widget->setFocusPolicy(Qt::TabFocus);
  widget->installEventFilter(this);
}

bool FiguresColumn::eventFilter(QObject* watched, QEvent* event) {
  auto* widget = qobject_cast<QWidget*>(watched);
  if (widget && (event->type() == QEvent::Enter || event->type() == QEvent::FocusIn))
    show_definition(widget->whatsThis());
  if (widget && (event->type() == QEvent::Leave || event->type() == QEvent::FocusOut)) define_nothing();
  if (widget && event->type() == QEvent::FocusIn) scroll_->ensureWidgetVisible(widget, 50, definition_->height() + 16);
  return QWidget::eventFilter(watched, event);
}

FigureRow* FiguresColumn::make_row(const Figure& figure, bool large) {
  auto* row = new FigureRow(figure, large, content_);
  connect(row, &FigureRow::described, this, [this](const QString& words) { show_definition(words); });
  row->installEventFilter(this);
  rows_.emplace_back(&figure, row);
  return row;
}

void FiguresColumn::add_rows(QVBoxLayout* column, Figure::Group group) {
  for (const Figure& figure : figures())
    if (figure.value && figure.group == group) column->addWidget(make_row(figure, false));
}

void FiguresColumn::choose_lead(int index) {
  if (!desk_.test()) return;
  record::Test test = desk_.test()->test;
  test.evenness_lead = text_of(lead_->itemData(index).toString());
  desk_.edits().make(tr("ratio that leads"), [&](book::Edit& e) { e.save(test); });
}

/// The line of a section's title, for what stands beside it.
QHBoxLayout* FiguresColumn::add_section(QVBoxLayout* column, const QString& title) {
  column->addSpacing(8);
  column->addWidget(thin_rule(content_));
  column->addSpacing(6);
  auto* label = heading_label(title, content_);
  label->setContentsMargins(4, 0, 0, 2);
  auto* line = new QHBoxLayout;
  line->addWidget(label);
  column->addLayout(line);
  return line;
}

void FiguresColumn::build(QVBoxLayout* column) {
  auto* line = new QHBoxLayout;
  line->setSpacing(16);
  for (const Figure& figure : figures())
    if (figure.value && figure.group == Figure::Group::Light) line->addWidget(make_row(figure, true), 1);
  column->addLayout(line);
  warning_ = wrapped_label({}, content_);
  set_tone(warning_, "attention");
  warning_->setContentsMargins(4, 0, 0, 0);
  column->addWidget(warning_);
  grade_ = wrapped_label({}, content_);
  grade_->setObjectName("gradeLine");
  grade_->setContentsMargins(4, 0, 0, 0);
  column->addWidget(grade_);
  assumed_ = quiet_label({}, content_);
  assumed_->setObjectName("assumedLine");
  assumed_->setContentsMargins(4, 0, 0, 0);
  column->addWidget(assumed_);
  QHBoxLayout* evenness_head = add_section(column, tr("Evenness"));
  lead_ = new QComboBox(content_);
  lead_->setObjectName("evennessLead");
  lead_->setAccessibleName(tr("The ratio that leads on cards and in the report"));
  lead_->setToolTip(lead_->accessibleName());
  for (const std::string& id : record::kind_of<record::Test>().column("evenness_lead")->words)
    lead_->addItem(tr("%1 leads").arg(text_of(std::string(figure(id).label))), text_of(id));
  connect(lead_, &QComboBox::activated, this, &FiguresColumn::choose_lead);
  evenness_head->addStretch();
  evenness_head->addWidget(lead_);
  evenness_ = new QVBoxLayout;
  evenness_->setSpacing(2);
  add_rows(evenness_, Figure::Group::Evenness);
  column->addLayout(evenness_);
  reduced_ = wrapped_label({}, content_);
  reduced_->setObjectName("reducedEvenness");
  reduced_->setProperty("quiet", true);
  reduced_->setContentsMargins(4, 2, 0, 0);
  column->addWidget(reduced_);

  rings_box_ = new QWidget(content_);
  auto* rings_column = new QVBoxLayout(rings_box_);
  rings_column->setContentsMargins(0, 0, 0, 0);
  add_section(rings_column, tr("Rings, wall to center"));
  rings_unit_ = quiet_label({}, rings_box_);
  rings_unit_->setContentsMargins(4, 0, 0, 0);
  rings_column->addWidget(rings_unit_);
  rings_ = new RingsChart(rings_box_);
  define(rings_, "rings");
  rings_column->addWidget(rings_);
  column->addWidget(rings_box_);

  field_box_ = new QWidget(content_);
  auto* field_column = new QVBoxLayout(field_box_);
  field_column->setContentsMargins(0, 0, 0, 0);
  add_section(field_column, tr("Area at or above"));
  curve_ = new AreaCurveChart(field_box_);
  define(curve_, "area_curve");
  field_column->addWidget(curve_);
  column->addWidget(field_box_);

  build_target(column);

  add_section(column, tr("Readings"));
  add_rows(column, Figure::Group::Readings);
  add_section(column, tr("Balance"));
  add_rows(column, Figure::Group::Balance);
  add_section(column, tr("Light and power"));
  add_rows(column, Figure::Group::Power);
}

void FiguresColumn::build_target(QVBoxLayout* column) {
  add_section(column, tr("Crop target"));
  target_ = new Form(content_);
  add_target_fields(*target_, desk_);
  column->addWidget(target_);
  column->addSpacing(4);
  add_rows(column, Figure::Group::Target);
  coverage_words_ = wrapped_label({}, content_);
  coverage_words_->setContentsMargins(4, 0, 0, 0);
  coverage_words_->setProperty("quiet", true);
  column->addWidget(coverage_words_);
  add_section(column, tr("Nominal footprints"));
  nominal_box_ = new QWidget(content_);
  nominal_ = new QGridLayout(nominal_box_);
  nominal_->setContentsMargins(4, 0, 0, 0);
  nominal_->setHorizontalSpacing(12);
  nominal_->setVerticalSpacing(2);
  const QString heads[] = {tr("size"), tr("edge"), tr("a day"), tr("inside"), tr("in band"), tr("verdict")};
  for (int head = 0; head < 6; ++head)
    nominal_->addWidget(quiet_label(heads[head], nominal_box_), 0, head,
                        head == 0 || head == 5 ? Qt::AlignLeft : Qt::AlignRight);
  column->addWidget(nominal_box_);
  nominal_none_ = quiet_label(tr("None of the usual sizes fits in the measured area."), content_);
  column->addWidget(nominal_none_);
  nominal_rule_ = wrapped_label(tr("Edge and inside in µmol/m²/s, a day in mol/m²/d along the edge. Passes where at "
                                   "least 90 % is in band and the "
                                   "mean along its edge is at least the low end."),
                                content_);
  define(nominal_rule_, "nominal");
  nominal_rule_->setAccessibleName(tr("Rule of the nominal footprints"));
  nominal_rule_->setProperty("quiet", true);
  nominal_rule_->setContentsMargins(4, 0, 0, 0);
  column->addWidget(nominal_rule_);
  own_sizes_ = new Form(content_);
  add_own_sizes(*own_sizes_, desk_);
  column->addWidget(own_sizes_);
}

void FiguresColumn::refresh() {
  const SweepFigures* figures = desk_.figures();
  scroll_->setVisible(figures != nullptr);
  empty_->setVisible(!figures);
  if (!figures) define_nothing();
  if (!figures) return;
  show_figures(*figures);
  show_reduced();
  show_judgement();
}

void FiguresColumn::show_judgement() {
  if (!desk_.figures()) return;
  show_uncertainty(*desk_.figures());
  show_warnings(*desk_.figures());
  show_grade();
}

/// What a dense sweep comes to on coarser grids: its extremes alone compare with nothing.
void FiguresColumn::show_reduced() {
  const auto& views = desk_.worked_out().evaluation()->views();
  const auto chosen = desk_.sweep() ? views.find(desk_.sweep()->id) : views.end();
  if (chosen != views.end() && chosen->second == reduced_of_) return;  // its words stand there
  reduced_of_ = chosen != views.end() ? chosen->second : nullptr;
  const evaluation::SweepView& view = *desk_.view();
  QStringList words;
  for (const int side : {8, 12}) {
    if (view.layout.columns < 2 * side || view.layout.rows < 2 * side) continue;
    const auto reduced = reduce(view.layout, view.ppfd, side, side);
    const auto f =
        reduced ? sweep_figures(reduced.value().layout, reduced.value().ppfd, {{}, 12, {}, {}}) : std::nullopt;
    if (f) words << tr("%1 on %2 × %2").arg(fixed(f->evenness.lowest_over_mean, 2)).arg(side);
  }
  reduced_->setVisible(!words.isEmpty());
  reduced_->setText(tr("Averaged into a coarser grid's cells, lowest ÷ mean is %1: compare with sweeps of such grids.")
                        .arg(words.join(tr(", "))));
}

void FiguresColumn::show_uncertainty(const SweepFigures& f) {
  const FigureSource source(desk_.view()->layout, desk_.view()->ppfd, f);
  const Budget* budget = desk_.worked_out().budget();
  for (const auto& [figure, row] : rows_) {
    QStringList words;
    if (const std::string worked = figure->worked ? figure->worked(source) : ""; !worked.empty())
      words << tr("Here: %1.").arg(text_of(worked));
    const double value = figure->value(source), expanded = budget ? budget->expanded(figure->id) : unread;
    const Told shown = shown_told(*figure, value, expanded, desk_.units());
    const QString sure = text_of(shown.sure());
    show_value(*figure, *row, source, shown);
    row->set_uncertainty(sure);
    if (const Contribution* largest = budget ? budget->largest(figure->id) : nullptr)
      words << tr("Sure to %1 %2 with k = 2; the largest part is %3.")
                   .arg(sure, text_of(shown_unit(*figure, desk_.units())), text_of(largest->label).toLower());
    row->set_particulars(words.join(' '));
  }
  const std::string assumed = budget ? assumed_words(*budget) : std::string();
  assumed_->setText(tr("± assumes %1 of its %2 parts (4 shows which)")
                        .arg(budget ? assumed_parts(*budget) : 0)
                        .arg(budget ? static_cast<int>(budget->contributions.size()) : 0));
  assumed_->setToolTip(tr("Neither stated nor measured: %1.").arg(text_of(assumed)));
  assumed_->setVisible(!assumed.empty());
}

void FiguresColumn::show_warnings(const SweepFigures& f) {
  QStringList warnings;
  if (f.missing > 0)
    warnings << text_of(evaluation::part_read_notice(*desk_.worked_out().evaluation(), desk_.sweep()->id,
                                                     desk_.worked_out().budget(), desk_.units()));
  for (const Finding& finding : desk_.worked_out().findings())
    warnings << text_of(finding.saw + "; " + finding.remedy + ".");
  if (desk_.view()->layout.kind == GridKind::Spots) warnings << tr("Spot check: a quick look, not a survey.");
  if (desk_.view()->layout.kind == GridKind::Inset)
    warnings << tr("Mean and PPF hold inside the outer stations, %1; nothing is said about the margin.")
                    .arg(text_of(size_text(desk_.view()->layout.measured.width_m, desk_.view()->layout.measured.depth_m,
                                           desk_.units())));
  warning_->setText(warnings.isEmpty() ? QString() : marked_attention(warnings.join(QStringLiteral("\n◣ "))));
  warning_->setVisible(!warnings.isEmpty());
}

void FiguresColumn::show_grade() {
  const Evidence* evidence = desk_.worked_out().evidence_of(desk_.sweep() ? desk_.sweep()->id : 0);
  grade_->setVisible(evidence != nullptr);
  if (!evidence) return;
  const bool whole = evidence->missing() == 0;
  set_tone(grade_, whole ? "good" : "");
  const QString grade = text_of(name(evidence->grade));
  grade_->setText(whole ? tr("● Evidence: %1 grade").arg(grade)
                        : tr("○ Evidence: %1 grade, %2 missing (4 shows the way)").arg(grade).arg(evidence->missing()));
}

void FiguresColumn::show_value(const Figure& figure, FigureRow& row, const FigureSource& source, const Told& shown) {
  const bool known = !std::isnan(figure.value(source));
  // What lies in band has a paragraph of its own below.
  const bool says_where = figure.where && figure.shown != Figure::Shown::Percent;
  row.set_value(text_of(shown.value), known ? text_of(shown_unit(figure, desk_.units())) : text_of(figure.lacks),
                says_where && known ? text_of(figure.where(source, desk_.units())) : QString());
}

void FiguresColumn::show_figures(const SweepFigures& f) {
  const FigureSource source(desk_.view()->layout, desk_.view()->ppfd, f);
  for (const auto& [figure, row] : rows_) {
    show_value(*figure, *row, source, shown_told(*figure, figure->value(source), unread, desk_.units()));
  }

  rings_box_->setVisible(!f.rings.empty());
  rings_unit_->setText(tr("%1 from the wall; µmol/m²/s; in %2 h mol/m²/d")
                           .arg(text_of(symbol(surface_unit(desk_.units()))), show_number(f.photoperiod_h, 1)));
  rings_->show_rings(f.rings, desk_.scale(), desk_.band(), desk_.units(), f.photoperiod_h);
  const Field field(desk_.view()->layout, desk_.view()->ppfd);
  field_box_->setVisible(field.exists());
  curve_->show_curve(field.exists() ? std::optional(AreaCurve(field.raster())) : std::nullopt, f.area_m2,
                     f.highest.ppfd, desk_.band(), desk_.units());
  for (Form* form : {target_, own_sizes_}) {
    form->refresh();
    form->set_editable(!desk_.read_only());
  }
  lead_->setCurrentIndex(lead_->findData(text_of(desk_.test()->test.evenness_lead)));
  lead_->setEnabled(!desk_.read_only());
  order_evenness();
  show_coverage(f);
  show_nominal(f);
}

/// The figure that leads stands before the others.
void FiguresColumn::order_evenness() {
  const std::string& leads = desk_.test()->test.evenness_lead;
  if (leads == leads_) return;
  leads_ = leads;
  int place = 0;
  QWidget* before = lead_;
  for (const Figure* f : figures_led_by(leads))
    for (const auto& [figure, row] : rows_)
      if (figure == f && f->group == Figure::Group::Evenness) {
        row->set_leading(place == 0);
        evenness_->insertWidget(place++, row);
        QWidget::setTabOrder(std::exchange(before, row), row);
      }
}

void FiguresColumn::show_coverage(const SweepFigures& f) {
  if (!f.coverage) return coverage_words_->setText(tr("Coverage needs a lattice of stations and a band."));
  const Coverage& c = *f.coverage;
  const auto units = desk_.units();
  QString words = tr("%1 in band; too dim %2 %, too bright %3 %.")
                      .arg(text_of(area_text(c.in_band_m2, units)), fixed(100 * c.too_dim_share, 0),
                           fixed(100 * c.too_bright_share, 0));
  if (c.in_band_m2 > 0)
    words += "\n" + tr("Largest rectangle in band %1")
                        .arg(text_of(size_text(c.largest_rectangle.width_m, c.largest_rectangle.depth_m, units)));
  if (c.largest_centered_rectangle.area_m2() > 0)
    words +=
        tr("; centered %1, circle %2 across")
            .arg(text_of(size_text(c.largest_centered_rectangle.width_m, c.largest_centered_rectangle.depth_m, units)),
                 text_of(length_text(c.largest_centered_circle_m, units)));
  coverage_words_->setText(words);
}

void FiguresColumn::show_nominal(const SweepFigures& f) {
  nominal_rule_->setVisible(!f.nominal.empty());
  nominal_none_->setVisible(f.nominal.empty());
  nominal_box_->setVisible(!f.nominal.empty());
  while (nominal_rows_.size() < f.nominal.size()) add_nominal_row();
  for (std::size_t row = 0; row < nominal_rows_.size(); ++row) {
    const NominalRow& labels = nominal_rows_[row];
    const bool used = row < f.nominal.size();
    for (QLabel* label : {labels.size, labels.edge, labels.day, labels.inside, labels.share, labels.verdict})
      label->setVisible(used);
    if (!used) continue;
    const NominalFootprint& nominal = f.nominal[row];
    const bool known = !std::isnan(nominal.light.mean);
    labels.size->setText(text_of(size_text(nominal.size.width_m, nominal.size.depth_m, desk_.units())));
    labels.edge->setText(known ? ppfd(nominal.light.edge) : tr("–"));
    labels.day->setText(text_of(daily_light_text(dli_mol_m2_d(nominal.light.edge, f.photoperiod_h))));
    labels.inside->setText(known ? ppfd(nominal.light.mean) : tr("–"));
    labels.share->setText(text_of(share_text(nominal.light.in_band)));
    labels.verdict->setText(nominal.passes ? tr("● passes") : tr("○ no"));
    set_tone(labels.verdict, nominal.passes ? "good" : "");
  }
}

void FiguresColumn::add_nominal_row() {
  const int row = static_cast<int>(nominal_rows_.size()) + 1;
  NominalRow labels{new QLabel(nominal_box_),        heading_label({}, nominal_box_), new QLabel(nominal_box_),
                    heading_label({}, nominal_box_), heading_label({}, nominal_box_), new QLabel(nominal_box_)};
  int column = 0;
  for (QLabel* label : {labels.size, labels.edge, labels.day, labels.inside, labels.share, labels.verdict}) {
    nominal_->addWidget(label, row, column, column == 0 || column == 5 ? Qt::AlignLeft : Qt::AlignRight);
    ++column;
  }
  nominal_rows_.push_back(labels);
}

}  // namespace sunbreak::desktop
