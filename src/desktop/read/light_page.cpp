#include "desktop/read/light_page.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "core/figures/figure_table.h"
#include "core/quantity/uncertain_text.h"
#include "desktop/paint/light_maps.h"
#include "desktop/read/light_side.h"
#include "desktop/read/shown_values.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"
#include "evaluation/light_words.h"

namespace sunbreak::desktop {
namespace {

QLineEdit* small_field(const char* object, const QString& name, QWidget* parent) {
  auto* edit = new QLineEdit(parent);
  edit->setObjectName(object);
  edit->setAccessibleName(name);
  edit->setMaximumWidth(80);
  return edit;
}

/// Deviations on a scale that is the same both ways.
drawing::ValueScale around_zero(const std::vector<double>& values) {
  double most = 1;
  for (const double v : values)
    if (!std::isnan(v)) most = std::max(most, std::abs(v));
  drawing::ValueScale scale;
  scale.diverging = true;
  scale.range = {-std::ceil(most), std::ceil(most)};
  return scale;
}

}  // namespace

QString no_light_yet(const Desk& desk) {
  return desk.worked_out().any_read() ? LightPage::tr("Fitting beam, room and hanging to all readings of the test…")
                                      : LightPage::tr("No sweep has a reading. Walk one (Alt+3).");
}

LightPage::LightPage(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk), predicting_(this) {
  setObjectName("lightPage");
  auto* column = scrolled_column(this);
  QWidget* content = column->parentWidget();
  words_ = wrapped_label({}, content);
  words_->setObjectName("lightWords");
  column->addWidget(words_);

  auto* found = new QHBoxLayout;
  found->setSpacing(16);
  auto* left = new QVBoxLayout;
  table_ = new FiguresTable({tr("found"), tr("value"), tr("± k = 2")}, tr("What was found"), content);
  table_->setObjectName("lightTable");
  left->addWidget(table_);
  left_out_ = wrapped_label({}, content);
  left_out_->setObjectName("leftOutWords");
  left_out_->setProperty("quiet", true);
  left->addWidget(left_out_);
  left->addStretch();
  found->addLayout(left, 2);
  auto* right = new QVBoxLayout;
  auto* top = new QHBoxLayout;
  top->setSpacing(16);
  side_ = new LightSide(desk_, content);
  top->addWidget(side_, 1);
  auto* beside = new QVBoxLayout;
  beside->addWidget(heading_label(tr("Between the heights"), content));
  auto* between = new QHBoxLayout;
  height_ = small_field("betweenHeight", tr("Height to predict"), content);
  dimmer_ = small_field("betweenDimmer", tr("Dimmer setting to predict, %"), content);
  between->addWidget(height_);
  height_words_ = quiet_label({}, content);
  between->addWidget(height_words_);
  between->addWidget(dimmer_);
  between->addWidget(quiet_label(tr("%"), content));
  between->addStretch();
  beside->addLayout(between);
  between_words_ = wrapped_label({}, content);
  between_words_->setObjectName("betweenWords");
  beside->addWidget(between_words_);
  auto* back = new QPushButton(tr("Back to the sweep"), content);
  back->setObjectName("betweenBack");
  beside->addWidget(back, 0, Qt::AlignLeft);
  beside->addStretch();
  top->addLayout(beside, 1);
  right->addLayout(top);
  maps_ = new LightMaps(desk_, content);
  right->addWidget(maps_);
  right->addStretch();
  found->addLayout(right, 3);
  column->addLayout(found);
  for (QLineEdit* edit : {height_, dimmer_}) connect(edit, &QLineEdit::returnPressed, this, &LightPage::take_between);
  connect(back, &QPushButton::clicked, this, [this] { desk_.stand_between({}); });
  column->addStretch();
  connect(&desk_.worked_out(), &WorkedOut::progressed, this, [this] {
    if (isVisible()) refresh();
  });
}

void LightPage::refresh() {
  if (!desk_.test()) return;
  show_found();
  ask_between();
  show_between();
  show_maps();
}

void LightPage::ask_between() {
  std::optional<Between> now;
  if (desk_.worked_out().light() && desk_.between_m())
    now = {desk_.worked_out().evaluation(), *desk_.between_m(), *desk_.between_percent()};
  if (now == asked_ && !missed_) return;
  asked_ = now;
  missed_ = false;
  predicted_.reset();
  predicting_.drop();
  if (!now) return;
  predicting_.ask(
      [at = *now, units = desk_.units()](std::stop_token) -> Predicted {
        FigureContext use = evaluation::figure_context(at.of->record().test);
        use.told_in = units;
        return at.of->light_so_far()->between(at.height_m, at.percent, use);
      },
      [this](Predicted predicted) {
        predicted_ = std::move(predicted);
        show_between();
        show_maps();
      },
      [this] {
        missed_ = true;
        predicted_ = Problem{"this height could not be predicted", "the message below says why",
                             "come back to this page to try again"};
        show_between();
        show_maps();
      });
}

void LightPage::show_found() {
  const evaluation::TestLight* light = desk_.worked_out().light();
  const bool fits = light && light->found().fits;
  side_->setVisible(fits);
  table_->setVisible(fits);
  side_->update();
  if (!light) {
    words_->setText(no_light_yet(desk_));
    set_tone(words_, "");
    left_out_->clear();
    return;
  }
  QStringList sentences;
  for (const std::string& sentence : evaluation::light_sentences(*light, desk_.units())) sentences << text_of(sentence);
  words_->setText(sentences.join('\n'));
  set_tone(words_, fits ? "" : "attention");
  std::vector<std::vector<FigureCell>> rows;
  for (const evaluation::LightEstimate& e : evaluation::light_estimates(*light, desk_.units())) {
    const QString unit = text_of(e.unit);
    const bool known = !std::isnan(e.value.value);
    const Told shown = told(e.value.value, e.value.expanded, e.decimals);
    rows.push_back(
        {{text_of(e.name), {}, false},
         {known ? text_of(shown.value) + (unit == QStringLiteral("°") ? "" : " ") + unit : tr("–"), {}, false},
         {text_of(shown.expanded), {}, false}});
  }
  table_->show_rows(rows);
  QStringList words;
  for (const LeftOutHeight& left : light->left_out()) {
    const bool model = light->way() == BetweenWay::Model;
    const double rms = model ? left.rms : left.cubic_rms, mean = model ? left.mean : left.cubic_mean;
    if (!std::isnan(rms))
      words << tr("%1: %2 % RMS, mean %3 %")
                   .arg(text_of(length_text(left.height_m, desk_.units())))
                   .arg(100 * rms, 0, 'f', 1)
                   .arg(text_of(evaluation::plain_number(100 * mean, 1)));
  }
  left_out_->setText(
      light->left_out().empty() ? tr("A second height would show how well heights are predicted from each other.")
      : words.isEmpty()         ? tr("No height can be held against the others: these alone do not fix the beam.")
                                : tr("Each height predicted from the others, off by: %1.").arg(words.join("; ")));
}

void LightPage::show_between() {
  const evaluation::TestLight* light = desk_.worked_out().light();
  const bool standing = desk_.between_m().has_value();
  if (auto* back = findChild<QPushButton*>("betweenBack")) back->setVisible(standing);
  if (!height_->hasFocus() && desk_.rung())
    height_->setText(show_length(desk_.between_m().value_or(desk_.rung()->height_m), desk_.units()));
  if (!dimmer_->hasFocus() && desk_.stop())
    dimmer_->setText(show_number(desk_.between_percent().value_or(desk_.stop()->percent)));
  // A length in feet and inches has its marks.
  height_words_->setText(desk_.units() == UnitSystem::Metric ? tr("cm high, at") : tr("high, at"));
  height_->setEnabled(light);
  dimmer_->setEnabled(light);
  if (!light) return between_words_->clear();
  set_tone(between_words_, "");
  if (!standing) {
    const auto [low, high] = light->heights_m();
    const QString from = text_of(length_text(low, desk_.units())), to = text_of(length_text(high, desk_.units()));
    return between_words_->setText(
        low < high
            ? tr("Type a height from %1 to %2, or click between the mast's rungs, for a predicted sweep.").arg(from, to)
            : tr("Only %1 was walked: once a second height is, sweeps between them are predicted.").arg(from));
  }
  if (!predicted_) return between_words_->setText(tr("Predicting…"));
  if (!*predicted_) {
    set_tone(between_words_, "bad");
    return between_words_->setText(marked_attention(text_of(predicted_->problem().sentence())));
  }
  const evaluation::PredictedFigures& p = predicted_->value();
  QStringList words;
  const FigureSource source(p.layout, p.ppfd, p.figures);
  for (const char* id : {"mean_ppfd", "lowest_ppfd", "highest_ppfd", "lowest_over_mean", "canopy_efficacy_umol_j"}) {
    const Figure& f = figure(id);
    const double value = f.value(source);
    if (std::isnan(value)) continue;
    const Told shown =
        shown_told(f, value, p.figure_expanded[static_cast<std::size_t>(figure_index(id))], desk_.units());
    words << text_of(std::string(f.label) + " " + shown.text() + " " + shown_unit(f, desk_.units())).simplified();
  }
  between_words_->setText(
      tr("Predicted, not measured, by the %1: %2.")
          .arg(p.way == BetweenWay::Model ? tr("fitted room model") : tr("monotone cubic of each station"),
               words.join(QStringLiteral(" · "))));
}

void LightPage::take_between() {
  const auto height = typed_length_m(height_->text(), desk_.units());
  bool number = false;
  const double percent = QString(dimmer_->text()).replace(',', '.').toDouble(&number);
  if (!height || !number) {
    set_tone(between_words_, "bad");
    return between_words_->setText(
        marked_attention(tr("Height and setting are to be numbers, such as 40 and 100; the prediction stays.")));
  }
  setFocus();
  desk_.stand_between(*height, percent);
}

void LightPage::show_maps() {
  if (asked_ && !predicted_) return;  // those of the place before stay until the answer is there
  const evaluation::TestLight* light = desk_.worked_out().light();
  std::vector<RowMap> maps;
  if (predicted_) {
    if (*predicted_) {
      const evaluation::PredictedFigures& p = predicted_->value();
      RowMap map;
      map.title =
          tr("Predicted · %1 · %2 %").arg(text_of(length_text(p.height_m, desk_.units())), show_number(p.percent));
      const double sure = p.expanded.front() / p.ppfd.front();
      map.foot = tr("%1 to %2 µmol/m²/s, each ± %3 %")
                     .arg(text_of(ppfd_text(p.figures.lowest.ppfd)), text_of(ppfd_text(p.figures.highest.ppfd)))
                     .arg(100 * sure, 0, 'f', 0);
      map.layout = p.layout;
      map.values = p.ppfd;
      map.scale.range = desk_.scale();
      map.predicted = true;
      maps.push_back(std::move(map));
    }
  } else if (const std::vector<double>* off =
                 light && light->found().fits && desk_.sweep() ? light->residuals(desk_.sweep()->id) : nullptr) {
    const auto& question = light->question();
    const auto at =
        static_cast<std::size_t>(std::find(question.sweep_ids.begin(), question.sweep_ids.end(), desk_.sweep()->id) -
                                 question.sweep_ids.begin());
    RowMap read;
    read.title = tr("Read");
    read.foot =
        tr("%1 to %2 µmol/m²/s")
            .arg(text_of(ppfd_text(desk_.figures()->lowest.ppfd)), text_of(ppfd_text(desk_.figures()->highest.ppfd)));
    read.layout = question.fit.sweeps[at].layout;
    read.values = question.fit.sweeps[at].ppfd;
    read.scale.range = desk_.scale();
    RowMap fitted = read;
    fitted.title = tr("Fitted");
    fitted.foot = tr("µmol/m²/s, on the same scale");
    fitted.values = light->fitted_ppfd(desk_.sweep()->id);
    fitted.predicted = true;
    RowMap residual = read;
    residual.title = tr("Read beside fitted");
    residual.foot = tr("%, over the test %1 % RMS").arg(100 * light->found().residual_rms, 0, 'f', 1);
    for (std::size_t i = 0; i < residual.values.size(); ++i) residual.values[i] = 100 * (*off)[i];
    residual.scale = around_zero(residual.values);
    residual.text = {1, true, "%"};
    maps = {std::move(read), std::move(fitted), std::move(residual)};
  }
  maps_->setVisible(!maps.empty());
  maps_->show_maps(std::move(maps));
}

}  // namespace sunbreak::desktop
