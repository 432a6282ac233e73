#include "desktop/read/elsewhere_page.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

#include "core/figures/figure_table.h"
#include "core/quantity/uncertain_text.h"
#include "core/whole_light/reference_rooms.h"
#include "desktop/paint/light_maps.h"
#include "desktop/read/light_page.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/light_words.h"

namespace sunbreak::desktop {
namespace {

enum RoomKind { OpenFloor, WhiteTent, OwnRoom };

}  // namespace

struct ElsewherePage::Answer {
  std::shared_ptr<const Elsewhere> room;
  const evaluation::TestLight* light = nullptr;
  std::optional<evaluation::RestatedFigures> figures;
  std::optional<Problem> problem;
};

ElsewherePage::ElsewherePage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), background_(this), counting_(this) {
  setObjectName("elsewherePage");
  setAttribute(Qt::WA_StyledBackground);
  auto* outer = new QHBoxLayout(this);
  outer->setContentsMargins(0, 8, 0, 0);
  outer->setSpacing(16);
  auto* left = new QVBoxLayout;
  left->setSpacing(6);
  auto* fields = new QGridLayout;
  fields->setHorizontalSpacing(8);
  fields->setVerticalSpacing(4);
  int row = 0;
  const auto put = [&](const QString& name, bool length, QWidget* a, const QString& between = {}, QWidget* b = nullptr,
                       const QString& unit = {}) {
    QLabel* label = quiet_label(name, this);
    if (length) lengths_.emplace_back(label, name);
    fields->addWidget(label, row, 0);
    fields->addWidget(a, row, 1);
    if (b) {
      fields->addWidget(quiet_label(between, this), row, 2);
      fields->addWidget(b, row, 3);
    }
    if (!unit.isEmpty()) fields->addWidget(quiet_label(unit, this), row, b ? 4 : 2);
    ++row;
  };
  const auto field = [&](const char* object, const QString& name) {
    auto* edit = new QLineEdit(this);
    edit->setObjectName(object);
    edit->setAccessibleName(name);
    edit->setMaximumWidth(76);
    connect(edit, &QLineEdit::textEdited, this, &ElsewherePage::work);
    return edit;
  };
  room_ = new QComboBox(this);
  room_->setObjectName("otherRoom");
  room_->setAccessibleName(tr("Room"));
  room_->addItem(tr("Open floor"), OpenFloor);
  room_->addItem(tr("White tent"), WhiteTent);
  room_->addItem(tr("A room of your own"), OwnRoom);
  fields->addWidget(quiet_label(tr("Room"), this), row, 0);
  fields->addWidget(room_, row++, 1, 1, 3);
  width_ = field("otherWidth", tr("Room, from left to right"));
  depth_ = field("otherDepth", tr("Room, from the door to the back"));
  put(tr("Floor"), true, width_, QStringLiteral("×"), depth_);
  room_height_ = field("otherRoomHeight", tr("Height of the room"));
  put(tr("Ceiling at"), true, room_height_);
  walls_ = new QComboBox(this);
  walls_->setObjectName("otherWalls");
  walls_->setAccessibleName(tr("Walls"));
  for (const auto& [text, kind] : {std::pair{tr("reflective"), "reflective"}, std::pair{tr("white"), "white"},
                                   std::pair{tr("dark"), "dark"}, std::pair{tr("open"), "open"}})
    walls_->addItem(text, kind);
  fields->addWidget(quiet_label(tr("Walls"), this), row, 0);
  fields->addWidget(walls_, row++, 1, 1, 3);
  columns_ = field("otherColumns", tr("Fixtures across"));
  rows_ = field("otherRows", tr("Fixtures deep"));
  put(tr("Fixtures"), false, columns_, tr("across ×"), rows_, tr("deep"));
  column_spacing_ = field("otherColumnSpacing", tr("Spacing across, middle to middle"));
  row_spacing_ = field("otherRowSpacing", tr("Spacing deep, middle to middle"));
  put(tr("Apart"), true, column_spacing_, tr("across ×"), row_spacing_, tr("deep"));
  height_ = field("otherHeight", tr("Hanging height"));
  put(tr("Hung at"), true, height_);
  dimmer_ = field("otherDimmer", tr("Dimmer setting, %"));
  fields->addWidget(quiet_label(tr("Dimmed to"), this), row, 0);
  fields->addWidget(dimmer_, row, 1);
  fields->addWidget(quiet_label(tr("%"), this), row++, 2);
  left->addLayout(fields);
  left->addSpacing(6);
  left->addWidget(thin_rule(this));
  auto* count = new QHBoxLayout;
  count->addWidget(quiet_label(tr("How many for"), this));
  wanted_ = new QLineEdit(this);
  wanted_->setObjectName("otherWanted");
  wanted_->setAccessibleName(tr("Mean PPFD wanted"));
  wanted_->setMaximumWidth(60);
  count->addWidget(wanted_);
  count->addWidget(quiet_label(tr("µmol/m²/s?"), this));
  auto* ask = new QPushButton(tr("Work it out"), this);
  ask->setObjectName("otherCount");
  count->addWidget(ask);
  count->addStretch();
  left->addLayout(count);
  count_words_ = wrapped_label({}, this);
  count_words_->setObjectName("otherCountWords");
  left->addWidget(count_words_);
  left->addStretch();
  fields_ = new QWidget(this);
  fields_->setLayout(left);
  fields_->setFixedWidth(330);
  outer->addWidget(fields_);
  auto* right = new QVBoxLayout;
  state_ = wrapped_label({}, this);
  state_->setObjectName("otherState");
  right->addWidget(state_);
  maps_ = new LightMaps(desk_, this);
  right->addWidget(maps_, 1);
  table_ = new FiguresTable({tr("restated"), tr("value"), tr("± k = 2")}, tr("The fixture in the other room"), this);
  table_->setObjectName("otherTable");
  right->addWidget(table_);
  outer->addLayout(right, 1);
  connect(room_, &QComboBox::activated, this, [this] {
    fill_fields();
    work();
  });
  connect(walls_, &QComboBox::activated, this, &ElsewherePage::work);
  connect(ask, &QPushButton::clicked, this, &ElsewherePage::ask_count);
  connect(wanted_, &QLineEdit::returnPressed, this, &ElsewherePage::ask_count);
  connect(&desk_.worked_out(), &WorkedOut::progressed, this, [this] {
    if (isVisible()) refresh();
  });
}

void ElsewherePage::refresh() {
  if (!desk_.test()) return;
  for (const auto& [label, name] : lengths_)
    label->setText(tr("%1, %2").arg(name, text_of(symbol(surface_unit(desk_.units())))));
  const evaluation::TestLight* light = desk_.worked_out().light();
  fields_->setEnabled(light && light->found().fits);
  if (!light || !light->found().fits) {
    filled_for_ = nullptr;
    kept_.reset();
    background_.drop();
    maps_->show_maps({});
    table_->show_rows({});
    set_tone(state_, light ? "attention" : "");
    if (!light) return state_->setText(no_light_yet(desk_));
    QStringList words;
    for (const std::string& sentence : evaluation::light_sentences(*light, desk_.units())) words << text_of(sentence);
    return state_->setText(words.join(' '));
  }
  if (filled_for_ != light) {
    filled_for_ = light;
    kept_.reset();
    fill_fields();
    work();
  }
}

/// The room chosen, and the fixture as it hung, where nothing was typed yet.
void ElsewherePage::fill_fields() {
  const evaluation::TestLight* light = desk_.worked_out().light();
  if (!light || !desk_.rung() || !desk_.stop()) return;
  const Room& bench = light->question().fit.room;
  const auto kind = room_->currentData().toInt();
  const bool own = kind == OwnRoom;
  for (QWidget* w : std::initializer_list<QWidget*>{width_, depth_, room_height_, walls_}) w->setEnabled(own);
  if (!own || width_->text().isEmpty()) {
    width_->setText(show_length(bench.width_m, desk_.units()));
    depth_->setText(show_length(bench.depth_m, desk_.units()));
    room_height_->setText(show_length(reference_height_m, desk_.units()));
  }
  if (columns_->text().isEmpty()) columns_->setText("1"), rows_->setText("1");
  const FixtureOutline& o = light->question().fit.outline;
  if (column_spacing_->text().isEmpty()) {
    column_spacing_->setText(show_length(std::max(whole_width_m(o), 0.05), desk_.units()));
    row_spacing_->setText(show_length(std::max(o.depth_m, 0.05), desk_.units()));
  }
  height_->setText(show_length(desk_.between_m().value_or(desk_.rung()->height_m), desk_.units()));
  dimmer_->setText(show_number(desk_.stop()->percent));
}

Result<Room> ElsewherePage::typed_room() const {
  const auto kind = room_->currentData().toInt();
  const Room& bench = desk_.worked_out().light()->question().fit.room;
  const Footprint footprint{bench.width_m, bench.depth_m};
  if (kind == OpenFloor) return open_floor(footprint);
  if (kind == WhiteTent) return white_tent(footprint);
  const auto width = typed_length_m(width_->text(), desk_.units()),
             depth = typed_length_m(depth_->text(), desk_.units()),
             high = typed_length_m(room_height_->text(), desk_.units());
  constexpr double least_m = 0.2, most_m = 20;
  for (const auto& side : {width, depth, high})
    if (!side || *side < least_m || *side > most_m)
      return Problem{"a side of the room is not a length from 20 cm to 20 m", "", "type width, depth and height"};
  const std::string walls = text_of(walls_->currentData().toString());
  const double r = usual_reflectance(walls);
  const bool open = walls == "open";
  return Room{*width, *depth, *high, {r, r, r, r, open ? 0 : 0.7, open ? 0 : 0.2}};
}

Result<ElsewherePage::Wish> ElsewherePage::wish() const {
  const auto room = typed_room();
  if (!room) return room.problem();
  Wish w{room.value(), {}, 0, 100};
  const auto column_spacing = typed_length_m(column_spacing_->text(), desk_.units()),
             row_spacing = typed_length_m(row_spacing_->text(), desk_.units()),
             height = typed_length_m(height_->text(), desk_.units());
  bool across = false, deep = false, dimmed = false;
  w.pattern.columns = columns_->text().toInt(&across);
  w.pattern.rows = rows_->text().toInt(&deep);
  w.percent = QString(dimmer_->text()).replace(',', '.').toDouble(&dimmed);
  if (!across || !deep)
    return Problem{"how many fixtures hang there is not a whole number", "", "type 1 or more each way"};
  if (!column_spacing || !row_spacing || *column_spacing < 0 || *row_spacing < 0)
    return Problem{"the spacing is not a length", "", "type how far apart their middles are"};
  if (!height) return Problem{"the hanging height is not a length", "", "type it, such as 40"};
  if (!dimmed) return Problem{"the dimmer setting is not a number", "", "type it in %"};
  w.pattern.column_spacing_m = *column_spacing, w.pattern.row_spacing_m = *row_spacing, w.height_m = *height;
  return w;
}

void ElsewherePage::show_problem(const Problem& problem) {
  set_tone(state_, "bad");
  state_->setText(marked_attention(text_of(problem.sentence())));
}

void ElsewherePage::work() {
  const evaluation::TestLight* light = desk_.worked_out().light();
  if (!light || !light->found().fits) return;
  const auto wanted = wish();
  if (!wanted) return show_problem(wanted.problem());
  FigureContext use;
  use.told_in = desk_.units();
  background_.ask(
      [evaluation = desk_.worked_out().evaluation(), light, kept = kept_for_ == light ? kept_ : nullptr,
       wish = wanted.value(), use](std::stop_token) {
        Answer answer;
        answer.light = light;
        answer.room =
            kept && kept->room() == wish.room
                ? kept
                : std::make_shared<const Elsewhere>(light->found(), wish.room, evaluation::room_layout(wish.room));
        auto restated = light->restated(*answer.room, wish.pattern, wish.height_m, wish.percent, use);
        if (restated)
          answer.figures = restated.value();
        else
          answer.problem = restated.problem();
        return answer;
      },
      [this](Answer answer) { take(std::move(answer)); });
}

void ElsewherePage::take(Answer answer) {
  kept_ = answer.room;
  kept_for_ = answer.light;
  if (answer.problem) return show_problem(*answer.problem);
  if (!answer.figures) return;
  const evaluation::RestatedFigures& r = *answer.figures;
  set_tone(state_, "");
  state_->setText(tr("Restated, not measured: %1 of the fixture over %2, hung true at %3, %4 %")
                      .arg(r.pattern.columns * r.pattern.rows)
                      .arg(text_of(size_text(r.room.width_m, r.room.depth_m, desk_.units())),
                           text_of(length_text(r.height_m, desk_.units())), show_number(r.percent)));
  RowMap map;
  map.title = room_->currentText();
  map.foot = tr("%1 to %2 µmol/m²/s")
                 .arg(text_of(ppfd_text(r.figures.lowest.ppfd)), text_of(ppfd_text(r.figures.highest.ppfd)));
  map.layout = r.layout;
  map.values = r.ppfd;
  map.scale.range = drawing::round_range(r.figures.lowest.ppfd, r.figures.highest.ppfd);
  map.predicted = true;
  maps_->show_maps({std::move(map)});
  std::vector<std::vector<FigureCell>> rows;
  const auto add = [&](const QString& name, const FoundValue& v, int decimals, const QString& unit) {
    if (std::isnan(v.value)) return;
    const Told shown = told(v.value, v.expanded, decimals);
    rows.push_back({{name, {}, false},
                    {(text_of(shown.value) + " " + unit).trimmed(), {}, false},
                    {text_of(shown.expanded), {}, false}});
  };
  add(tr("Mean PPFD"), r.mean_ppfd, 0, "µmol/m²/s");
  add(tr("Lowest"), {r.figures.lowest.ppfd, unread}, 0, "µmol/m²/s");
  add(tr("Highest"), {r.figures.highest.ppfd, unread}, 0, "µmol/m²/s");
  add(tr("Lowest ÷ mean"), {r.figures.evenness.lowest_over_mean, unread}, 2, {});
  add(tr("Efficacy on the floor"), r.efficacy_umol_j, 2, "µmol/J");
  if (r.figures.power_w) add(tr("Watts, all together"), {*r.figures.power_w, unread}, 0, "W");
  table_->show_rows(rows);
}

void ElsewherePage::ask_count() {
  const evaluation::TestLight* light = desk_.worked_out().light();
  if (!light || !light->found().fits) return;
  bool number = false;
  const double ppfd = QString(wanted_->text()).replace(',', '.').toDouble(&number);
  const auto room = typed_room();
  set_tone(count_words_, "bad");
  if (!number || ppfd <= 0)
    return count_words_->setText(marked_attention(tr("Type the mean PPFD that is wanted, such as 400.")));
  if (!room) return count_words_->setText(marked_attention(text_of(room.problem().sentence())));
  set_tone(count_words_, "");
  count_words_->setText(tr("Trying patterns…"));
  counting_.ask([evaluation = desk_.worked_out().evaluation(), light, room = room.value(),
                 ppfd](std::stop_token) { return std::optional(light->fewest_for(room, ppfd)); },
                [this](const std::optional<Result<evaluation::RoomAnswer>>& answer) {
                  if (!answer) return;
                  if (!*answer) {
                    set_tone(count_words_, "bad");
                    return count_words_->setText(marked_attention(text_of(answer->problem().sentence())));
                  }
                  const evaluation::RoomAnswer& r = answer->value();
                  columns_->setText(QString::number(r.pattern.columns));
                  rows_->setText(QString::number(r.pattern.rows));
                  column_spacing_->setText(show_length(r.pattern.column_spacing_m, desk_.units()));
                  row_spacing_->setText(show_length(r.pattern.row_spacing_m, desk_.units()));
                  height_->setText(show_length(r.height_m, desk_.units()));
                  dimmer_->setText(show_number(r.percent, 1));
                  QString words = tr("%1: %2 across, %3 deep, hung at %4 and dimmed to %5 %: mean %6, lowest ÷ mean %7")
                                      .arg(counted(r.count(), tr("fixture"), tr("fixtures")))
                                      .arg(r.pattern.columns)
                                      .arg(r.pattern.rows)
                                      .arg(text_of(length_text(r.height_m, desk_.units())))
                                      .arg(r.percent, 0, 'f', 0)
                                      .arg(text_of(evaluation::found_text(r.mean_ppfd, 0, "µmol/m²/s")))
                                      .arg(r.lowest_over_mean, 0, 'f', 2);
                  if (r.power_w) words += tr(", %1 W together").arg(*r.power_w, 0, 'f', 0);
                  count_words_->setText(words + ".");
                  work();
                });
}

}  // namespace sunbreak::desktop
