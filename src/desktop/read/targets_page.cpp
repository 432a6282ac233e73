#include "desktop/read/targets_page.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSlider>
#include <QTableWidget>
#include <QVBoxLayout>
#include <limits>

#include "core/quantity/daily_light.h"
#include "desktop/read/shown_values.h"
#include "desktop/read/target_sets_dialog.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

constexpr int slider_steps_an_hour = 2, target_row_px = 26;

QString in_percent(double share) { return text_of(share_text(share)); }

}  // namespace

TargetsPage::TargetsPage(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk), background_(this) {
  setObjectName("targetsPage");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 8, 0, 0);
  column->setSpacing(8);
  auto* head = new QHBoxLayout;
  head->setSpacing(8);
  head->addWidget(quiet_label(tr("Target list"), this));
  set_ = new QComboBox(this);
  set_->setObjectName("targetSet");
  set_->setAccessibleName(tr("Target list"));
  head->addWidget(set_);
  edit_ = new QPushButton(tr("Edit lists…"), this);
  edit_->setObjectName("editTargets");
  head->addWidget(edit_);
  head->addStretch();
  column->addLayout(head);
  reason_ = wrapped_label({}, this);
  reason_->setProperty("quiet", true);
  column->addWidget(reason_);
  auto* light = new QHBoxLayout;
  light->setSpacing(8);
  hours_words_ = quiet_label({}, this);
  hours_ = new QSlider(Qt::Horizontal, this);
  hours_->setObjectName("photoperiodSlider");
  hours_->setAccessibleName(tr("Photoperiod that bands of daily light are worked out for"));
  hours_->setRange(4 * slider_steps_an_hour, 24 * slider_steps_an_hour);
  hours_->setMaximumWidth(260);
  own_hours_ = new QPushButton(tr("Each its own"), this);
  own_hours_->setProperty("plain", true);
  light->addWidget(quiet_label(tr("Photoperiod"), this));
  light->addWidget(hours_, 1);
  light->addWidget(hours_words_);
  light->addWidget(own_hours_);
  light->addStretch();
  column->addLayout(light);
  table_ = new QTableWidget(this);
  table_->setObjectName("targetFits");
  table_->setAccessibleName(tr("Share of the footprint in band, by sweep and target"));
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setTabKeyNavigation(false);
  table_->setShowGrid(false);
  table_->verticalHeader()->setDefaultSectionSize(target_row_px);
  table_->verticalHeader()->setDefaultAlignment(Qt::AlignRight | Qt::AlignVCenter);
  table_->horizontalHeader()->setHighlightSections(false);
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  table_->installEventFilter(this);
  column->addWidget(table_, 1);
  details_ = wrapped_label({}, this);
  details_->setMinimumHeight(56);
  details_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  details_->setObjectName("targetDetails");
  column->addWidget(details_);
  connect(set_, &QComboBox::currentTextChanged, this, &TargetsPage::work_out);
  connect(hours_, &QSlider::valueChanged, this, [this](int value) {
    tried_hours_ = static_cast<double>(value) / slider_steps_an_hour;
    work_out();
  });
  connect(own_hours_, &QPushButton::clicked, this, [this] {
    tried_hours_.reset();
    refresh();
  });
  connect(edit_, &QPushButton::clicked, this, [this] {
    TargetSetsDialog dialog(desk_, set_->currentText(), this);
    dialog.exec();
    refresh();
  });
  connect(table_, &QTableWidget::currentCellChanged, this, [this] { describe(); });
  connect(table_, &QTableWidget::cellDoubleClicked, this, [this] { take(); });
}

double TargetsPage::hours_of(const record::CropTarget& target) const {
  return tried_hours_.value_or(target.photoperiod_h);
}

void TargetsPage::refresh() {
  if (!desk_.test()) return;
  const auto shelf = book::crop_targets(desk_.book());
  const auto names = evaluation::set_names(shelf);
  QString wanted = set_->currentText();
  if (wanted.isEmpty())
    if (const auto present = evaluation::target_of(shelf, desk_.test()->test)) wanted = text_of(present->set_name);
  const QSignalBlocker quiet(set_), still(hours_);
  set_->clear();
  for (const std::string& name : names) set_->addItem(text_of(name));
  set_->setCurrentIndex(std::max(0, set_->findText(wanted)));
  edit_->setEnabled(!desk_.read_only());
  hours_->setValue(static_cast<int>(tried_hours_.value_or(desk_.test()->test.photoperiod_h) * slider_steps_an_hour));
  work_out();
}

void TargetsPage::work_out() {
  targets_ = evaluation::targets_of_set(book::crop_targets(desk_.book()), text_of(set_->currentText()));
  bands_.clear();
  for (const record::CropTarget& t : targets_) bands_.push_back(evaluation::band_of(t, hours_of(t)));
  reason_->setText(targets_.empty() ? tr("This list is empty. Edit lists… adds targets.")
                                    : text_of(targets_.front().reason) +
                                          tr(". ● serves the whole footprint by the test's rule; bold: the best of its "
                                             "column."));
  hours_words_->setText(tried_hours_ ? tr("%1 h a day").arg(show_number(*tried_hours_, 1)) : tr("each target's own"));
  own_hours_->setVisible(tried_hours_.has_value());
  if (!desk_.test()) return;
  std::vector<std::pair<Row, record::Id>> asked;
  for (const record::Rung& rung : desk_.test()->rungs)
    for (const record::Stop& stop : desk_.test()->stops) {
      const record::Sweep* sweep = desk_.test()->sweep(rung.id, stop.id);
      const evaluation::SweepView* view = sweep ? desk_.view_of(sweep->id) : nullptr;
      if (view && view->read() > 0) asked.push_back({{rung.id, stop.id, sweep->power_w, {}}, sweep->id});
    }
  background_.ask(
      [evaluation = desk_.worked_out().evaluation(), bands = bands_, asked = std::move(asked)](std::stop_token stop) {
        std::vector<Row> rows;
        for (const auto& [row, sweep_id] : asked) {
          if (stop.stop_requested()) break;
          rows.push_back(row);
          rows.back().fits = evaluation->target_fits(sweep_id, bands);
        }
        return rows;
      },
      [this](std::vector<Row> rows) {
        rows_ = std::move(rows);
        find_best();
        fill_table();
        emit filled();
      });
}

void TargetsPage::find_best() {
  best_.clear();
  for (std::size_t t = 0; t < targets_.size(); ++t) {
    std::vector<TargetFit> fits;
    std::vector<double> watts;
    for (const Row& row : rows_) {
      fits.push_back(t < row.fits.size() ? row.fits[t] : TargetFit{});
      watts.push_back(row.power_w.value_or(std::numeric_limits<double>::infinity()));
    }
    best_.push_back(best_fit(fits, watts));
  }
}

void TargetsPage::fill_table() {
  const int row_before = table_->currentRow(), column_before = table_->currentColumn();
  const QSignalBlocker quiet(table_);
  table_->setColumnCount(static_cast<int>(targets_.size()));
  table_->setRowCount(static_cast<int>(rows_.size()));
  QStringList heads, sides;
  for (std::size_t t = 0; t < targets_.size(); ++t)
    heads << tr("%1\n%2–%3\n%4 h")
                 .arg(text_of(targets_[t].name).replace(" & ", " &\n"), show_number(bands_[t].low, 0),
                      show_number(bands_[t].high, 0), show_number(hours_of(targets_[t]), 1));
  for (const Row& row : rows_) {
    const record::Sweep* sweep = desk_.test()->sweep(row.rung, row.stop);
    sides << sweep_words(desk_, sweep->id) + (row.power_w ? tr(" · %1 W").arg(show_number(row.power_w, 0)) : QString());
  }
  table_->setHorizontalHeaderLabels(heads);
  table_->setVerticalHeaderLabels(sides);
  for (int r = 0; r < table_->rowCount(); ++r)
    for (int t = 0; t < table_->columnCount(); ++t) {
      const bool known = t < std::ssize(rows_[r].fits), best = best_[t] == r;
      const bool serves = known && rows_[r].fits[t].passes;
      auto* item = new QTableWidgetItem(known ? (serves ? QStringLiteral("● ") : QString()) +
                                                    text_of(in_band_text(rows_[r].fits[t].coverage))
                                              : tr("–"));
      item->setTextAlignment(Qt::AlignCenter);
      if (best) item->setFont(text_font(13, true));
      if (serves) {
        item->setForeground(theme().good);
      } else if (known && rows_[r].fits[t].coverage.in_band_share < 0.005) {
        item->setForeground(theme().quiet);
      }
      table_->setItem(r, t, item);
    }
  if (row_before < 0)
    select_present();
  else if (table_->rowCount() > 0 && table_->columnCount() > 0)
    table_->setCurrentCell(std::clamp(row_before, 0, table_->rowCount() - 1),
                           std::clamp(column_before, 0, table_->columnCount() - 1));
  describe();
}

/// The chosen sweep and the test's own target, where the table has them.
void TargetsPage::select_present() {
  int row = 0, column = 0;
  for (int r = 0; r < std::ssize(rows_); ++r)
    if (desk_.rung() && desk_.stop() && rows_[r].rung == desk_.rung()->id && rows_[r].stop == desk_.stop()->id) row = r;
  for (int t = 0; t < std::ssize(targets_); ++t)
    if (targets_[t].name == desk_.test()->test.target_name) column = t;
  if (table_->rowCount() > 0 && table_->columnCount() > 0) table_->setCurrentCell(row, column);
}

void TargetsPage::describe() {
  const int r = table_->currentRow(), t = table_->currentColumn();
  if (r < 0 || t < 0 || r >= std::ssize(rows_) || t >= std::ssize(rows_[r].fits))
    return details_->setText(rows_.empty() ? tr("No sweep of this test is read yet: walk one (Alt+3).") : QString());
  const TargetFit& fit = rows_[r].fits[t];
  const Coverage& c = fit.coverage;
  const auto units = desk_.units();
  QString words =
      tr("%1 at %2: %3 in band (%4), too dim %5, too bright %6; edge mean %7 µmol/m²/s")
          .arg(text_of(targets_[t].name), sweep_words(desk_, desk_.test()->sweep(rows_[r].rung, rows_[r].stop)->id),
               text_of(in_band_text(c)), text_of(area_text(c.in_band_m2, units)), in_percent(c.too_dim_share),
               in_percent(c.too_bright_share), text_of(ppfd_text(fit.light.edge)));
  const ServingRule rule = evaluation::serving_rule_of(*desk_.test());
  words += fit.passes
               ? tr(". ● Serves the whole footprint (%1).").arg(text_of(serving_rule_words(rule, c.band)))
               : tr(". ○ Does not serve the whole footprint: %1 (%2).")
                     .arg(text_of(lacking_words(rule, c.band, fit.light)), text_of(serving_rule_words(rule, c.band)));
  if (c.in_band_m2 > 0)
    words += tr(" Largest rectangle %1, centered circle %2.")
                 .arg(text_of(size_text(c.largest_rectangle.width_m, c.largest_rectangle.depth_m, units)),
                      text_of(length_text(c.largest_centered_circle_m, units)));
  words += tr("\nDaily light of the band: %1 to %2 mol/m²/d. Enter shows it on the map.")
               .arg(dli_mol_m2_d(bands_[t].low, hours_of(targets_[t])), 0, 'f', 1)
               .arg(dli_mol_m2_d(bands_[t].high, hours_of(targets_[t])), 0, 'f', 1);
  details_->setText(words);
  table_->setAccessibleDescription(words);
}

void TargetsPage::take() {
  const int r = table_->currentRow(), t = table_->currentColumn();
  if (r < 0 || t < 0 || r >= std::ssize(rows_) || t >= std::ssize(targets_)) return;
  const Row row = rows_[r];
  record::Test test = desk_.test()->test;
  evaluation::set_target(test, targets_[t]);
  if (tried_hours_) evaluation::set_photoperiod(test, *tried_hours_);
  if (!(test == desk_.test()->test) && !desk_.read_only())
    desk_.edits().make(tr("crop target"), [&](book::Edit& e) { e.save(test); });
  desk_.choose(row.rung, row.stop);
  emit opened();
}

bool TargetsPage::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
      take();
      return true;
    }
    // The table's own search by typing would take the keys that lead to the other pages.
    if (key >= Qt::Key_0 && key <= Qt::Key_Z) {
      event->ignore();
      return true;
    }
  }
  return QWidget::eventFilter(watched, event);
}

}  // namespace sunbreak::desktop
