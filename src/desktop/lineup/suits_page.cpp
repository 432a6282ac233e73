#include "desktop/lineup/suits_page.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

#include "desktop/lineup/lineup_strip.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/flow_layout.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"
#include "evaluation/light_words.h"

namespace sunbreak::desktop {

using evaluation::Suit;
using evaluation::SuitQuestion;

SuitsPage::SuitsPage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent), background_(this) {
  setObjectName("ground");
  QVBoxLayout* column = scrolled_column(this);
  auto* fields = new QWidget(this);
  auto* flow = new FlowLayout(fields, 6);
  const auto add = [&](const QString& name, QWidget* field, int wide) {
    auto* pair = new QWidget(fields);
    auto* across = new QHBoxLayout(pair);
    across->setContentsMargins(0, 0, 8, 0);
    across->setSpacing(4);
    across->addWidget(quiet_label(name, pair));
    field->setParent(pair);
    field->setAccessibleName(name);
    if (wide > 0) field->setFixedWidth(wide);
    across->addWidget(field);
    flow->addWidget(pair);
  };
  const auto line = [&](const QString& name, const char* object, const QString& text, int wide) {
    auto* edit = new QLineEdit(text, fields);
    edit->setObjectName(object);
    connect(edit, &QLineEdit::returnPressed, this, &SuitsPage::work);
    add(name, edit, wide);
    return edit;
  };
  const auto choice = [&](const QString& name, const char* object,
                          const std::vector<std::pair<QString, QString>>& items) {
    auto* box = new QComboBox(fields);
    box->setObjectName(object);
    for (const auto& [text, value] : items) box->addItem(text, value);
    add(name, box, 0);
    return box;
  };
  const bool metric = desk_.units() == UnitSystem::Metric;
  room_ = line(tr("Room"), "suitRoom", metric ? "3 x 4 m" : "10 x 12 ft", 92);
  height_ = line(tr("high"), "suitHeight", metric ? "2.4 m" : "8 ft", 62);
  walls_ =
      choice(tr("walls"), "suitWalls",
             {{tr("white"), "white"}, {tr("reflective"), "reflective"}, {tr("dark"), "dark"}, {tr("none"), "open"}});
  low_ = line(tr("Target, µmol/m²/s, from"), "suitLow", {}, 56);
  high_ = line(tr("to"), "suitHigh", {}, 56);
  rule_ = choice(tr("met by"), "suitRule",
                 {{tr("the edge"), "edge"},
                  {tr("every place"), "every"},
                  {tr("90 % of the area"), "share:90"},
                  {tr("the mean"), "mean"}});
  hours_ = line(tr("Hours a day"), "suitHours", {}, 46);
  tariff_ = line(tr("Money a kWh"), "suitTariff", {}, 52);
  years_ = line(tr("Years"), "suitYears", {}, 40);
  budget_ = line(tr("Budget, such as 900 W or 1200"), "suitBudget", {}, 80);
  order_ = choice(tr("Ordered by"), "suitOrder",
                  {{tr("cost over the years"), "cost"},
                   {tr("watts"), "watts"},
                   {tr("how many"), "count"},
                   {tr("evenness"), "evenness"}});
  connect(order_, &QComboBox::activated, this, &SuitsPage::show_answers);
  ask_ = new QPushButton(tr("Enter  Which of them do it"), fields);
  ask_->setObjectName("suitAsk");
  connect(ask_, &QPushButton::clicked, this, &SuitsPage::work);
  flow->addWidget(ask_);
  cancel_ = new QPushButton(tr("Esc  Stop"), fields);
  cancel_->setObjectName("suitCancel");
  cancel_->hide();
  connect(cancel_, &QPushButton::clicked, this, [this] {
    background_.drop();
    tick_.stop();
    cancel_->hide();
    state_->setText(tr("Stopped."));
  });
  flow->addWidget(cancel_);
  column->addWidget(fields);
  state_ = wrapped_label(tr("The room is lit by as many of one fixture as it takes, hung in an even lattice."), this);
  state_->setObjectName("suitState");
  column->addWidget(state_);
  table_ = new FiguresTable({tr("Fixture"), tr("How many"), tr("Hung"), tr("Height"), tr("Dimmer"), tr("Mean"),
                             tr("Lowest ÷ mean"), tr("Watts"), tr("Cost over the years"), tr("Sure")},
                            tr("Which of them do it"), this);
  table_->setObjectName("suitTable");
  table_->set_spare_columns({4, 2});
  column->addWidget(table_);
  column->addStretch();
  tick_.setInterval(150);
  connect(&tick_, &QTimer::timeout, this, &SuitsPage::show_progress);
}

void SuitsPage::begin() { room_->setFocus(Qt::OtherFocusReason); }

void SuitsPage::show_scene(const LineUpScene& scene) {
  scene_ = scene;
  if (!scene.shown || filled_) return;
  filled_ = true;
  const auto& ready = scene.shown->ready;
  low_->setText(show_number(ready.question.band.low, 0));
  high_->setText(show_number(ready.question.band.high, 0));
  hours_->setText(show_number(ready.terms.photoperiod_h, 1));
  tariff_->setText(show_number(ready.terms.money.tariff_per_kwh, 4));
  years_->setText(show_number(ready.terms.money.years, 1));
}

Result<SuitQuestion> SuitsPage::question() const {
  SuitQuestion q;
  std::string room = text_of(room_->text());
  std::erase(room, ' ');
  const auto size = parse_footprint(room);
  if (!size) return size.problem();
  const auto height = typed_length_m(height_->text(), desk_.units());
  if (!height || *height < 0.3 || *height > 10)
    return Problem{"the room's height is not between 30 cm and 10 m", "", "write it like 2.4 m"};
  const auto number = [](const QLineEdit* edit, double most) {
    const auto value = typed_number(edit->text());
    return value && *value > 0 && *value <= most ? value : std::nullopt;
  };
  const auto low = number(low_, 20000), high = number(high_, 20000), hours = number(hours_, 24),
             years = number(years_, 100);
  const auto tariff = typed_number(tariff_->text());
  if (!low || !high || *high <= *low)
    return Problem{"the target has no two ends, the lower over 0", "", "write both in µmol/m²/s"};
  if (!hours || !years || !tariff || *tariff < 0)
    return Problem{"hours, years and money for a kWh are numbers", "", "write hours from 0 to 24, years up to 100"};
  q.room = evaluation::room_to_light(size.value(), *height, text_of(walls_->currentData().toString()));
  q.band = {*low, *high};
  q.rule = parse_serving_rule(text_of(rule_->currentData().toString())).value();
  q.money = {*years, *hours, *tariff, 0};
  if (scene_.shown) q.currency = scene_.shown->ready.terms.currency;
  std::string budget = text_of(budget_->text());
  std::erase(budget, ' ');
  if (auto problem = gathering::take_budget(q, budget)) return *problem;
  return q;
}

void SuitsPage::work() {
  const auto asked = question();
  if (!asked) {
    state_->setText(marked_attention(text_of(asked.problem().sentence())));
    set_tone(state_, "attention");
    return;
  }
  if (!scene_.shown || !scene_.shown->lineup) return;
  set_tone(state_, "");
  entrants_.clear(), answers_.clear();
  for (const auto& m : scene_.shown->lineup->members()) entrants_.push_back(m.entrant);
  asked_ = asked.value();
  done_->store(0);
  cancel_->show();
  tick_.start();
  show_progress();
  background_.ask(
      [entrants = entrants_, asked = asked.value(), file = desk_.book().file(), units = desk_.units(),
       done = done_](std::stop_token stop) {
        return gathering::suits_of(entrants, asked, file, units, stop,
                                   [&](const gathering::Filling& f) { done->store(f.done); });
      },
      [this](std::vector<std::optional<evaluation::SuitAnswer>> answers) {
        tick_.stop();
        cancel_->hide();
        answers_ = std::move(answers);
        show_answers();
      },
      [this] {
        tick_.stop();
        cancel_->hide();
        set_tone(state_, "attention");
        state_->setText(marked_attention(tr("They were not all hung in the room: the message below says why.")));
      });
}

void SuitsPage::show_progress() {
  state_->setText(tr("Hanging them in the room: %1 of %2 fixtures…").arg(done_->load()).arg(entrants_.size()));
}

void SuitsPage::show_answers() {
  if (!asked_ || answers_.empty()) return;
  const auto sorted =
      gathering::sorted_suits(answers_, gathering::parse_suit_order(text_of(order_->currentData().toString())).value());
  std::vector<std::vector<FigureCell>> rows;
  const auto add = [&](std::size_t i, bool meets) {
    const Suit& s = *answers_[i]->suit;
    const QString why = text_of(answers_[i]->why_not);
    rows.push_back(
        {{member_name(entrants_[i]) + (meets ? QString() : tr(" — almost: %1").arg(why)), why, !meets},
         {QString::number(s.count()), {}},
         {tr("%1 × %2").arg(s.pattern.columns).arg(s.pattern.rows),
          tr("%1 apart").arg(text_of(size_text(s.pattern.column_spacing_m, s.pattern.row_spacing_m, desk_.units())))},
         {text_of(length_text(s.height_m, desk_.units())), {}},
         {tr("%1 %").arg(s.percent, 0, 'f', 0), {}},
         {text_of(evaluation::found_text(s.mean_ppfd, 0, "")), "µmol/m²/s"},
         {QString::number(s.lowest_over_mean, 'f', 2), {}},
         {std::isnan(s.power_w.value) ? QStringLiteral("–") : text_of(evaluation::found_text(s.power_w, 0, "W")), {}},
         {s.price ? text_of(evaluation::found_text(s.cost, 0, asked_->currency)) : QStringLiteral("–"),
          s.price ? tr("of it %1 %2 to buy").arg(*s.price, 0, 'f', 0).arg(text_of(asked_->currency))
                  : tr("no price on record")},
         {text_of(chance_text(s.chance)), tr("by how sure the light is")}});
  };
  for (const std::size_t i : sorted.suit) add(i, true);
  for (const std::size_t i : sorted.almost) add(i, false);
  for (const std::size_t i : sorted.unknown) {
    std::vector<FigureCell> row{{tr("%1 — not known: %2").arg(member_name(entrants_[i]), text_of(answers_[i]->why_not)),
                                 text_of(answers_[i]->why_not), true}};
    row.resize(10);
    rows.push_back(std::move(row));
  }
  table_->show_rows(rows);
  QString words = tr("%1: %2. %3 h a day over %4 years.")
                      .arg(text_of(gathering::suit_room_words(*asked_, desk_.units())),
                           text_of(serving_rule_words(asked_->rule, asked_->band)),
                           show_number(asked_->money.hours_a_day, 1), show_number(asked_->money.years, 1));
  words.prepend(sorted.suit.empty() ? tr("None of them does it in ")
                                    : tr("%1 of %2 do it in ").arg(sorted.suit.size()).arg(answers_.size()));
  state_->setText(words + " " +
                  tr("Predicted from their whole light. Wiring and mounting so many is work for a licensed "
                     "electrician; local codes decide."));
}

}  // namespace sunbreak::desktop
