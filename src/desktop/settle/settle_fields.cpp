#include "desktop/settle/settle_fields.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <cmath>
#include <utility>

#include "book/target_shelf.h"
#include "core/figures/nominal.h"
#include "desktop/read/target_fields.h"
#include "desktop/settle/band_slider.h"
#include "desktop/widgets/elided_combo.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/flow_layout.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

bool takes_number(ServingRule::Kind kind) {
  return kind == ServingRule::Kind::Share || kind == ServingRule::Kind::Corners || kind == ServingRule::Kind::Center;
}

/// A label and what belongs to it, kept together where the line is broken.
QWidget* kept_together(QWidget* parent, const std::vector<QWidget*>& parts) {
  auto* group = new QWidget(parent);
  group->setObjectName("ground");
  auto* row = new QHBoxLayout(group);
  row->setContentsMargins(0, 0, 10, 0);
  row->setSpacing(5);
  for (QWidget* part : parts) row->addWidget(part);
  return group;
}

}  // namespace

SettleFields::SettleFields(Desk& desk, SettleWork& work, QWidget* parent) : QWidget(parent), desk_(desk), work_(work) {
  setObjectName("ground");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(2);
  auto* strip = new QWidget(this);
  strip->setObjectName("ground");
  auto* flow = new FlowLayout(strip, 2);
  target_ = new ElidedCombo(this);
  target_->setObjectName("settleTarget");
  target_->setAccessibleName(tr("Target"));
  target_->setMaximumWidth(260);
  connect(target_, &QComboBox::activated, this, &SettleFields::choose_target);
  band_ = new BandSlider(this);
  connect(band_, &BandSlider::dragged, this, [this](double low, double high) { work_.try_band(Band{low, high}); });
  connect(band_, &BandSlider::chosen, this, &SettleFields::choose_band);
  hours_ = number_field("settleHours", tr("Hours of light a day"));
  connect(hours_, &QLineEdit::editingFinished, this, [this] {
    if (!hours_->isModified() || !desk_.test()) return;
    const auto hours = typed_number(hours_->text());
    if (!hours || *hours <= 0 || *hours > 24) return refuse(hours_, tr("The hours run from more than 0 to 24."));
    accept(hours_);
    record::Test test = desk_.test()->test;
    evaluation::set_photoperiod(test, *hours);
    desk_.edits().make(tr("photoperiod"), [&](book::Edit& edit) { edit.save(test); });
  });
  flow->addWidget(kept_together(strip, {quiet_label(tr("For"), this), target_, band_,
                                        quiet_label(tr("µmol/m²/s"), this), hours_, quiet_label(tr("h a day"), this)}));
  rule_ = new QComboBox(this);
  rule_->setObjectName("settleRule");
  rule_->setAccessibleName(tr("Rule"));
  for (const auto& [text, kind] : {std::pair{tr("the edge's mean ≥ low, none over high"), ServingRule::Kind::Edge},
                                   std::pair{tr("every station in band"), ServingRule::Kind::Every},
                                   std::pair{tr("a share of the area in band"), ServingRule::Kind::Share},
                                   std::pair{tr("the mean in band"), ServingRule::Kind::Mean},
                                   std::pair{tr("the corners at least"), ServingRule::Kind::Corners},
                                   std::pair{tr("the center reads"), ServingRule::Kind::Center}})
    rule_->addItem(text, static_cast<int>(kind));
  connect(rule_, &QComboBox::activated, this, &SettleFields::take_rule);
  rule_value_ = number_field("settleRuleValue", tr("Share or PPFD of the rule"));
  connect(rule_value_, &QLineEdit::editingFinished, this, [this] {
    if (rule_value_->isModified()) take_rule();
  });
  rule_unit_ = quiet_label({}, this);
  flow->addWidget(kept_together(strip, {quiet_label(tr("met where"), this), rule_, rule_value_, rule_unit_}));
  area_ = new QComboBox(this);
  area_->setObjectName("settleArea");
  area_->setAccessibleName(tr("Area"));
  area_->setEditable(true);
  area_->setInsertPolicy(QComboBox::NoInsert);
  area_->setMaximumWidth(160);
  area_->setToolTip(
      tr("Such as 100 × 100, about the middle, or 100 × 60 @ 10 × 20, with its place from the left and the front"));
  connect(area_, &QComboBox::activated, this, &SettleFields::take_area);
  connect(area_->lineEdit(), &QLineEdit::editingFinished, this, [this] {
    if (area_->lineEdit()->isModified()) take_area();
  });
  flow->addWidget(kept_together(strip, {quiet_label(tr("over"), this), area_}));
  sure_ = new QComboBox(this);
  sure_->setObjectName("settleSure");
  sure_->setAccessibleName(tr("How sure"));
  for (const int pct : {50, 80, 90, 95}) sure_->addItem(tr("%1 % sure").arg(pct), pct);
  connect(sure_, &QComboBox::activated, this,
          [this] { work_.change([this](record::Settling& s) { s.sure_pct = sure_->currentData().toDouble(); }); });
  flow->addWidget(kept_together(strip, {sure_}));
  low_height_ = number_field("settleMinHeight", tr("Lowest height"));
  high_height_ = number_field("settleMaxHeight", tr("Highest height"));
  most_watts_ = number_field("settleMaxWatts", tr("Most watts"));
  most_ppfd_ = number_field("settleMaxPpfd", tr("Highest PPFD allowed"));
  length_unit_ = quiet_label({}, this);
  flow->addWidget(kept_together(strip, {quiet_label(tr("between"), this), low_height_, quiet_label(tr("and"), this),
                                        high_height_, length_unit_}));
  flow->addWidget(kept_together(strip, {quiet_label(tr("at most"), this), most_watts_, quiet_label(tr("W"), this)}));
  flow->addWidget(
      kept_together(strip, {quiet_label(tr("no place over"), this), most_ppfd_, quiet_label(tr("µmol/m²/s"), this)}));
  beyond_ = new QCheckBox(tr("beyond what was walked, too"), this);
  beyond_->setObjectName("settleBeyond");
  beyond_->setToolTip(
      tr("Answers keep to the walked heights, and to 1.5 times the widest gap between emitters or more, "
         "unless this is ticked; what lies beyond is marked."));
  connect(beyond_, &QCheckBox::clicked, this,
          [this](bool on) { work_.change([on](record::Settling& s) { s.beyond_walked = on; }); });
  flow->addWidget(kept_together(strip, {beyond_}));
  for (const auto& [edit, member, length] : {std::tuple{low_height_, &record::Settling::min_height_m, true},
                                             std::tuple{high_height_, &record::Settling::max_height_m, true},
                                             std::tuple{most_watts_, &record::Settling::max_power_w, false},
                                             std::tuple{most_ppfd_, &record::Settling::max_ppfd, false}})
    connect(edit, &QLineEdit::editingFinished, this, [this, edit, member, length] {
      if (edit->isModified()) take_limit(edit, member, length);
    });
  column->addWidget(strip);
  problem_ = wrapped_label({}, this);
  problem_->setObjectName("settleProblem");
  set_tone(problem_, "bad");
  problem_->hide();
  column->addWidget(problem_);
}

QLineEdit* SettleFields::number_field(const char* object, const QString& name) {
  auto* edit = new QLineEdit(this);
  edit->setObjectName(object);
  edit->setAccessibleName(name);
  edit->setFixedWidth(44);
  return edit;
}

void SettleFields::refuse(QWidget* at, const QString& why) {
  at->setProperty("wrong", true);
  set_tone(at, "bad");
  problem_->setText(marked_attention(why));
  problem_->show();
}

void SettleFields::accept(QWidget* at) {
  at->setProperty("wrong", false);
  set_tone(at, "");
  problem_->hide();
}

void SettleFields::refresh() {
  if (!desk_.test()) return;
  const record::Settling s = work_.settling();
  const UnitSystem units = desk_.units();
  // What was refused on another test is not this one's.
  if (const auto shown = desk_.shown(); std::exchange(shown_, shown) != shown)
    for (QWidget* field : findChildren<QWidget*>())
      if (field->property("wrong").toBool()) accept(field);
  const auto fill = [](QLineEdit* edit, const QString& text) {
    if (edit->hasFocus() && edit->isModified()) return;
    if (edit->property("wrong").toBool()) return;
    edit->setText(text);
  };
  const auto shelf = book::crop_targets(desk_.book());
  {
    const QSignalBlocker quiet(target_);
    target_->clear();
    target_->addItem(tr("own band"), QVariant(qlonglong(0)));
    for (const record::CropTarget& t : shelf) target_->addItem(target_words(t), QVariant(qlonglong(t.id)));
    const auto present = evaluation::target_of(shelf, desk_.test()->test);
    target_->setCurrentIndex(std::max(0, target_->findData(QVariant(qlonglong(present ? present->id : 0)))));
  }
  const Band band = desk_.band().value_or(Band{});
  double highest = 1.3 * band.high;
  if (const auto& maps = work_.maps(); maps && !maps->heights.empty() && !maps->steps.empty())
    highest = std::max(highest, 1.1 * settle_figures(*maps->heights.front(), maps->steps.back(), band).highest);
  band_->show_band(band, highest);
  fill(hours_, show_number(desk_.test()->test.photoperiod_h, 1));
  const auto parsed = parse_serving_rule(s.rule);
  const ServingRule rule = parsed ? parsed.value() : ServingRule{};
  rule_->setCurrentIndex(rule_->findData(static_cast<int>(rule.kind)));
  rule_value_->setVisible(takes_number(rule.kind));
  rule_unit_->setVisible(takes_number(rule.kind));
  rule_unit_->setText(rule.kind == ServingRule::Kind::Share ? QStringLiteral("%") : tr("µmol/m²/s"));
  fill(rule_value_, show_number(rule.kind == ServingRule::Kind::Share ? 100 * rule.share : rule.ppfd, 0));
  const QString unit = text_of(symbol(surface_unit(units)));
  length_unit_->setText(unit);
  fill(low_height_, show_length(s.min_height_m, units));
  fill(high_height_, show_length(s.max_height_m, units));
  beyond_->setChecked(s.beyond_walked);
  fill(most_watts_, show_number(s.max_power_w, 0));
  fill(most_ppfd_, show_number(s.max_ppfd, 0));
  const auto circuit = evaluation::circuit_limit_w(desk_.test()->test);
  most_watts_->setPlaceholderText(circuit ? show_number(*circuit, 0) : QString());
  most_watts_->setToolTip(
      circuit
          ? tr("The circuit carries %1 W for hours by a widespread rule; local ones decide.").arg(*circuit, 0, 'f', 0)
          : QString());
  sure_->setCurrentIndex(std::max(0, sure_->findData(qRound(s.sure_pct))));
  {
    const QSignalBlocker quiet(area_);
    area_->clear();
    area_->addItem(tr("the whole footprint"), QString());
    const auto& bench = desk_.test()->bench;
    for (const Footprint& size : units == UnitSystem::Metric ? usual_metric_sizes() : usual_foot_sizes())
      if (size.width_m < bench.width_m + fit_slack_m && size.depth_m < bench.depth_m + fit_slack_m &&
          (size.width_m < bench.width_m - fit_slack_m || size.depth_m < bench.depth_m - fit_slack_m)) {
        const QString words =
            QStringLiteral("%1 × %2").arg(show_length(size.width_m, units), show_length(size.depth_m, units));
        area_->addItem(words + " " + unit, words);
      }
    QString now = tr("the whole footprint");
    if (s.area_width_m && s.area_depth_m) {
      now = QStringLiteral("%1 × %2").arg(show_length(s.area_width_m, units), show_length(s.area_depth_m, units));
      if (s.area_left_m && s.area_front_m)
        now += QStringLiteral(" @ %1 × %2").arg(show_length(s.area_left_m, units), show_length(s.area_front_m, units));
      now += " " + unit;
    }
    if (!(area_->lineEdit()->hasFocus() && area_->lineEdit()->isModified())) area_->setEditText(now);
    area_->lineEdit()->setModified(false);
  }
}

void SettleFields::choose_target() {
  const auto target = desk_.book().find<record::CropTarget>(target_->currentData().toLongLong());
  if (!target || !desk_.test()) return refresh();
  record::Test test = desk_.test()->test;
  evaluation::set_target(test, *target);
  desk_.edits().make(tr("crop target"), [&](book::Edit& edit) { edit.save(test); });
}

void SettleFields::choose_band(double low_ppfd, double high_ppfd) {
  if (!desk_.test()) return;
  record::Test test = desk_.test()->test;
  test.target_low_ppfd = low_ppfd, test.target_high_ppfd = high_ppfd;
  test.target_by_daily_light = false;
  test.target_name = "own band";
  desk_.edits().make(tr("crop target"), [&](book::Edit& edit) { edit.save(test); });
  work_.try_band({});
}

void SettleFields::take_rule() {
  ServingRule rule;
  rule.kind = static_cast<ServingRule::Kind>(rule_->currentData().toInt());
  const auto before = parse_serving_rule(work_.settling().rule);
  const auto typed = typed_number(rule_value_->text());
  const bool same_kind = before && before.value().kind == rule.kind;
  if (takes_number(rule.kind) && same_kind) {
    const bool share = rule.kind == ServingRule::Kind::Share;
    if (!typed || *typed <= 0 || *typed > (share ? 100 : 20000))
      return refuse(rule_value_, share ? tr("The share runs from more than 0 to 100 %.") : tr("Type a PPFD over 0."));
    (share ? rule.share : rule.ppfd) = share ? *typed / 100 : *typed;
  } else if (takes_number(rule.kind)) {
    rule.ppfd = std::round(rule.kind == ServingRule::Kind::Center ? desk_.test()->test.target_high_ppfd
                                                                  : desk_.test()->test.target_low_ppfd);
  }
  accept(rule_value_);
  rule_value_->setModified(false);
  work_.change([&](record::Settling& s) { s.rule = serving_rule_id(rule); });
}

void SettleFields::take_area() {
  if (!desk_.test()) return;
  const int chosen = area_->findText(area_->currentText());
  const QString text = chosen >= 0 ? area_->itemData(chosen).toString() : area_->currentText();
  if (text.isEmpty()) {
    accept(area_);
    work_.change([](record::Settling& s) { s.area_left_m = s.area_front_m = s.area_width_m = s.area_depth_m = {}; });
    return;
  }
  const Rectangle whole{0, 0, desk_.test()->bench.width_m, desk_.test()->bench.depth_m};
  const auto area = evaluation::parse_area(text_of(text), whole, surface_unit(desk_.units()));
  if (!area) return refuse(area_, text_of(area.problem().sentence()));
  if (const auto* light = work_.light(); light && light->left_out_known())
    if (const auto problem = evaluation::problem_of_area(*light, area.value(), desk_.units()))
      return refuse(area_, text_of(problem->sentence()));
  accept(area_);
  work_.change([&](record::Settling& s) {
    s.area_width_m = area.value().width_m, s.area_depth_m = area.value().depth_m;
    const bool placed = text.contains('@');
    s.area_left_m = placed ? std::optional(area.value().left_m) : std::nullopt;
    s.area_front_m = placed ? std::optional(area.value().front_m) : std::nullopt;
  });
}

void SettleFields::take_limit(QLineEdit* edit, std::optional<double> record::Settling::*member, bool length) {
  std::optional<double> value;
  if (!edit->text().trimmed().isEmpty()) {
    value = length ? typed_length_m(edit->text(), desk_.units()) : typed_number(edit->text());
    if (!value || *value <= 0 || (length && *value > 10) || *value > 20000)
      return refuse(edit, length ? tr("'%1' is no height up to 10 m. Leave it empty for no limit.").arg(edit->text())
                                 : tr("'%1' is no number over 0. Leave it empty for no limit.").arg(edit->text()));
  }
  accept(edit);
  edit->setModified(false);
  work_.change([&](record::Settling& s) { s.*member = value; });
}

}  // namespace sunbreak::desktop
