#include "desktop/meters/check_lamp_dialog.h"

#include <QApplication>
#include <QComboBox>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "book/lamp_corrections.h"
#include "desktop/desk/desk.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/meters/meter_boxes.h"
#include "desktop/paint/drawn_widget.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "drawing/control_chart.h"
#include "exchange/files/read_file.h"
#include "exchange/tables/meter_tables.h"
#include "record/spectrum_samples.h"
#include "record/utc.h"

namespace sunbreak::desktop {
namespace {

QString chart_name(const LampChart& chart) {
  return QObject::tr("%1: %2").arg(text_of(chart.meter), text_of(chart.lamp.empty() ? "check lamp" : chart.lamp));
}

}  // namespace

CheckLampDialog::CheckLampDialog(Desk& desk, InstrumentHub& hub, QWidget* parent)
    : QDialog(parent), desk_(desk), hub_(hub) {
  setObjectName("checkLampDialog");
  setWindowTitle(tr("Check lamp"));
  resize(980, 660);
  build();
  refresh();
  connect(&desk_, &Desk::changed, this, &CheckLampDialog::refresh);
  connect(&hub_, &InstrumentHub::changed, this, &CheckLampDialog::show_live);
}

void CheckLampDialog::build() {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(8);
  layout->addWidget(wrapped_label(tr("One minute before each day's work: the same lamp, warm, at the same place and "
                                     "setting, read at the center and "
                                     "at two stations beside it. A sensor that drifts shows here first."),
                                  this));
  layout->addWidget(build_reading());
  auto* middle = new QHBoxLayout;
  middle->setSpacing(16);
  charts_ = new QListWidget(this);
  charts_->setObjectName("lampCharts");
  charts_->setAccessibleName(tr("Charts, by lamp and sensor"));
  charts_->setFixedWidth(240);
  charts_->setWordWrap(true);
  charts_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  middle->addWidget(charts_);
  auto* right = new QVBoxLayout;
  picture_ = new DrawnWidget(tr("Chart of the check lamp"), this);
  picture_->setMinimumHeight(240);
  right->addWidget(picture_, 1);
  told_ = wrapped_label({}, this);
  told_->setObjectName("lampTold");
  right->addWidget(told_);
  middle->addLayout(right, 1);
  layout->addLayout(middle, 1);
  auto* buttons = new QHBoxLayout;
  correct_ = new QPushButton(this);
  correct_->setObjectName("correctTests");
  correct_->setAutoDefault(false);
  bring_ = new QPushButton(tr("Bring in a table…"), this);
  bring_->setAutoDefault(false);
  buttons->addWidget(correct_);
  buttons->addWidget(bring_);
  buttons->addStretch();
  auto* done = new QPushButton(tr("Done"), this);
  done->setAutoDefault(false);
  buttons->addWidget(done);
  layout->addLayout(buttons);
  connect(done, &QPushButton::clicked, this, &QDialog::accept);
  connect(charts_, &QListWidget::currentRowChanged, this, &CheckLampDialog::show_chart);
  connect(correct_, &QPushButton::clicked, this, &CheckLampDialog::correct);
  connect(bring_, &QPushButton::clicked, this, &CheckLampDialog::bring_in);
  center_->setFocus();
}

QWidget* CheckLampDialog::build_reading() {
  auto* box = new QWidget(this);
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(8);
  lamp_ = new QComboBox(box);
  lamp_->setObjectName("lampName");
  lamp_->setEditable(true);
  lamp_->setMinimumContentsLength(20);
  lamp_->lineEdit()->setPlaceholderText(tr("its name, place and setting"));
  meter_ = meter_box(desk_, {"quantum", "spectrometer"}, {}, "lampMeter", box);
  int column = 0;
  const auto field = [&](const QString& name, QWidget* editor) {
    editor->setAccessibleName(name);
    grid->addWidget(quiet_label(name, box), 0, column);
    grid->addWidget(editor, 1, column++);
  };
  field(tr("Lamp"), lamp_);
  field(tr("Sensor"), meter_);
  for (const auto& [line, name, object] : {std::tuple{&center_, tr("Center, µmol/m²/s"), "lampCenter"},
                                           {&left_, tr("Left"), "lampLeft"},
                                           {&right_, tr("Right"), "lampRight"},
                                           {&watts_, tr("Watts"), "lampWatts"}}) {
    *line = new QLineEdit(box);
    (*line)->setObjectName(object);
    (*line)->setFixedWidth(line == &center_ ? 120 : 84);
    field(name, *line);
  }
  live_ = new QPushButton(tr("Live (F5)"), box);
  live_->setAutoDefault(false);
  live_->setFocusPolicy(Qt::NoFocus);  // the field at hand stays at hand
  live_->setToolTip(tr("Puts what the sensor or the wall meter shows into the field at hand, and goes on to the next"));
  keep_ = primary_button(tr("Keep today's reading"), box);
  keep_->setObjectName("keepLamp");
  grid->addWidget(live_, 1, column++);
  grid->addWidget(keep_, 1, column++);
  grid->setColumnStretch(0, 1);
  problem_ = wrapped_label({}, box);
  problem_->setObjectName("lampProblem");
  set_tone(problem_, "bad");
  grid->addWidget(problem_, 2, 0, 1, column);
  problem_->hide();
  connect(keep_, &QPushButton::clicked, this, &CheckLampDialog::keep);
  connect(live_, &QPushButton::clicked, this, &CheckLampDialog::take_live);
  connect(new QShortcut(QKeySequence(Qt::Key_F5), this), &QShortcut::activated, this, &CheckLampDialog::take_live);
  return box;
}

void CheckLampDialog::refresh() {
  const auto rows = desk_.book().all<record::CheckLampReading>("ORDER BY taken_at");
  const auto meters = desk_.book().all<record::Meter>("ORDER BY id");
  auto board = evaluation::lamp_board(rows, meters);
  const QString lamp = lamp_->currentText();
  const QSignalBlocker quiet_lamp(lamp_), quiet_charts(charts_);
  const int row = charts_->currentRow();
  charts_->clear();
  lamp_->clear();
  board_ = board ? std::move(board.value()) : evaluation::LampBoard();
  for (const LampChart& chart : board_.charts) {
    charts_->addItem((chart.move ? QStringLiteral("◣ ") : QString()) + chart_name(chart));
    if (lamp_->findText(text_of(chart.lamp)) < 0) lamp_->addItem(text_of(chart.lamp));
  }
  if (!lamp.isEmpty()) lamp_->setEditText(lamp);
  // What has moved is looked at first.
  const auto moved = std::ranges::find_if(board_.charts, [](const LampChart& c) { return c.move.has_value(); });
  const int first = moved == board_.charts.end() ? 0 : static_cast<int>(moved - board_.charts.begin());
  charts_->setCurrentRow(board_.charts.empty() ? -1 : row < 0 ? first : std::min(row, charts_->count() - 1));
  lamp_->lineEdit()->setCursorPosition(0);
  if (!board) {
    problem_->setText(text_of(board.problem().sentence()));
    problem_->show();
  }
  keep_->setEnabled(!desk_.read_only());
  bring_->setEnabled(!desk_.read_only());
  show_live();
  show_chart();
}

void CheckLampDialog::show_live() {
  live_->setEnabled(hub_.channel(instruments::Measures::Light).live() ||
                    hub_.channel(instruments::Measures::Power).live());
}

const LampChart* CheckLampDialog::chosen() const {
  const int row = charts_->currentRow();
  return row >= 0 && row < std::ssize(board_.charts) ? &board_.charts[static_cast<std::size_t>(row)] : nullptr;
}

const LampFinding* CheckLampDialog::finding_of(const LampChart& chart) const {
  if (!chart.move) return nullptr;
  const double since_day = board_.readings[chart.readings[chart.move->since]].day;
  const LampFinding* nearest = nullptr;
  for (const LampFinding& f : board_.findings)
    if (f.who == (f.mover == Mover::Lamp ? chart.lamp : chart.meter) &&
        (!nearest || std::fabs(f.since_day - since_day) < std::fabs(nearest->since_day - since_day)))
      nearest = &f;
  return nearest;
}

void CheckLampDialog::show_chart() {
  const LampChart* chart = chosen();
  const int learned = static_cast<int>(chart_learns_from);
  QString told = tr("No check lamp was read yet. Type its first reading above: the chart learns from %1 and watches "
                    "each later one.")
                     .arg(learned);
  const LampFinding* finding = nullptr;
  if (chart) {
    const auto drawn = drawing::control_chart(board_, *chart);
    picture_->show_drawing(
        [drawn](drawing::Canvas& c, const drawing::Box& room) { drawing::draw_control_chart(c, room, drawn); },
        tr("%1 readings").arg(drawn.values.size()));
    finding = finding_of(*chart);
    told = finding ? text_of(finding->words)
                   : tr("%1, %2 % from day to day. Nothing has moved.")
                         .arg(counted(static_cast<qsizetype>(chart->readings.size()), tr("reading"), tr("readings")))
                         .arg(100 * chart->sd, 0, 'f', 2);
    if (!finding && chart->readings.size() <= chart_learns_from)
      told = tr("%1 of the %2 readings that the chart learns from; it watches each later one.")
                 .arg(chart->readings.size())
                 .arg(learned);
  } else {
    picture_->show_drawing({}, told);
  }
  told_->setText(told);
  set_tone(told_, finding ? "attention" : "");
  const bool of_sensor = finding && (finding->mover == Mover::Sensor || finding->mover == Mover::Both);
  const auto tests = of_sensor ? book::tests_since(desk_.book(), *finding).size() : 0;
  correct_->setVisible(of_sensor);
  correct_->setEnabled(tests > 0 && !desk_.read_only());
  if (of_sensor)
    correct_->setText(tests == 0 ? tr("No test since is uncorrected")
                                 : tr("Correct %1 since then by × %2 ± %3 %")
                                       .arg(counted(static_cast<qsizetype>(tests), tr("test"), tr("tests")))
                                       .arg(drift_correction(*finding).factor, 0, 'f', 4)
                                       .arg(100 * finding->expanded, 0, 'f', 1));
}

void CheckLampDialog::correct() {
  const LampChart* chart = chosen();
  const LampFinding* finding = chart ? finding_of(*chart) : nullptr;
  if (!finding) return;
  const DriftCorrection correction = drift_correction(*finding);
  const auto tests = book::tests_since(desk_.book(), *finding);
  const bool kept = desk_.edits().make(tr("correction by the check lamp"), [&](book::Edit& e) {
    for (const record::Test& test : tests) book::correct_by_lamp(e, desk_.book(), test, correction);
  });
  if (kept)
    desk_.say(tr("%1 corrected by the check lamp; their ± has what it adds. Ctrl+Z takes it back.")
                  .arg(counted(static_cast<qsizetype>(tests.size()), tr("test is"), tr("tests are"))));
}

void CheckLampDialog::take_live() {
  QWidget* at = QApplication::focusWidget();
  const bool of_watts = at == watts_;
  const auto what = of_watts ? instruments::Measures::Power : instruments::Measures::Light;
  const auto live = of_watts ? hub_.channel(what).live()
                             : live_light(hub_, desk_.book().find<record::Meter>(meter_->currentData().toLongLong()));
  auto* line = qobject_cast<QLineEdit*>(at);
  if (line != left_ && line != right_ && line != watts_) line = center_;
  if (!live) {
    problem_->setText(of_watts ? tr("No wall meter is connected, or it is silent. Type the watts.") : no_live_light());
    return problem_->show();
  }
  line->setText(QString::number(*live, 'f', 1));
  live_read_ = true;
  simulated_ = simulated_ || hub_.computed(what);
  QLineEdit* next = line == center_ ? left_ : line == left_ ? right_ : watts_;
  if (line == watts_)
    keep_->setFocus();
  else
    next->setFocus();
}

void CheckLampDialog::keep() {
  const auto refuse = [&](const QString& words, QWidget* at) {
    problem_->setText(words);
    problem_->show();
    at->setFocus();
  };
  const record::Id meter = meter_->currentData().toLongLong();
  if (lamp_->currentText().trimmed().isEmpty())
    return refuse(tr("The lamp has no name. Name it with its place and setting, always the same."), lamp_);
  if (meter == 0) return refuse(tr("No sensor is on the shelf. Add it there first."), meter_);
  std::vector<double> light;
  for (const QLineEdit* line : {center_, left_, right_}) {
    const QString text = line->text().trimmed();
    const auto value = typed_number(text);
    if (text.isEmpty() && line != center_) continue;
    if (!value || !(*value > 0 && *value < 20000))
      return refuse(tr("'%1' is no light of a lit lamp. Type what the sensor shows, in µmol/m²/s.").arg(text.left(40)),
                    const_cast<QLineEdit*>(line));
    light.push_back(*value);
  }
  const QString watts_text = watts_->text().trimmed();
  const auto watts = typed_number(watts_text);
  if (!watts_text.isEmpty() && !(watts && *watts > 0 && *watts < 100000))
    return refuse(tr("'%1' is no power. Leave it empty where it was not read.").arg(watts_text.left(40)), watts_);
  record::CheckLampReading row;
  row.meter_id = meter;
  row.lamp = text_of(lamp_->currentText().trimmed());
  row.taken_at = desk_.clock().utc_text();
  row.light = record::text_of_numbers(light);
  if (watts) row.watts = *watts;
  row.source = simulated_ ? "simulated" : live_read_ ? "live" : "typed";
  for (const LampChart& chart : board_.charts)
    if (chart.lamp == row.lamp && board_.readings[chart.readings.front()].light.size() != light.size())
      return refuse(tr("This lamp is read at %1 each time, and here are %2. Read the same stations, or give the lamp "
                       "another name.")
                        .arg(counted(static_cast<qsizetype>(board_.readings[chart.readings.front()].light.size()),
                                     tr("station"), tr("stations")))
                        .arg(light.size()),
                    center_);
  if (!desk_.edits().make(tr("reading of the check lamp"), [&](book::Edit& e) { e.add(row); })) return;
  for (QLineEdit* line : {center_, left_, right_, watts_}) line->clear();
  live_read_ = simulated_ = false;
  problem_->hide();
  const QString meter_name = meter_->currentText();
  for (int i = 0; i < std::ssize(board_.charts); ++i)
    if (board_.charts[static_cast<std::size_t>(i)].lamp == row.lamp &&
        text_of(board_.charts[static_cast<std::size_t>(i)].meter) == meter_name)
      charts_->setCurrentRow(i);
  center_->setFocus();
  desk_.say(tr("The check lamp is read. Ctrl+Z takes the reading back."));
}

void CheckLampDialog::bring_in() {
  const QString path =
      file_to_open(this, tr("Bring in readings of a check lamp"), {}, tr("Tables (*.csv *.txt *.tsv);;All files (*)"));
  if (path.isEmpty()) return;
  const auto refuse = [&](const QString& words) { problem_->setText(words), problem_->show(); };
  const auto bytes = exchange::read_file(text_of(path));
  if (!bytes) return refuse(text_of(bytes.problem().sentence()));
  const auto draft = exchange::read_check_readings(bytes.value());
  if (!draft) return refuse(text_of(draft.problem().sentence()));
  const record::Id usual = meter_->currentData().toLongLong();
  const auto meters = desk_.book().all<record::Meter>("WHERE removed = 0");
  std::vector<record::CheckLampReading> rows;
  std::size_t undated = 0;
  for (std::size_t i = 0; i < draft.value().readings.size(); ++i) {
    const CheckReading& r = draft.value().readings[i];
    record::CheckLampReading row;
    const auto named = std::ranges::find(meters, r.meter, &record::Meter::name);
    row.meter_id = named != meters.end() ? named->id : usual;
    row.lamp = r.lamp.empty() ? text_of(lamp_->currentText().trimmed()) : r.lamp;
    // Readings of one day keep their order, a minute apart.
    const double day_s = record::seconds_of(draft.value().days[i].substr(0, 10) + "T08:00:00.000Z");
    const auto same_day = std::ranges::count_if(rows, [&](const record::CheckLampReading& other) {
      return other.lamp == row.lamp && other.meter_id == row.meter_id &&
             other.taken_at.substr(0, 10) == draft.value().days[i].substr(0, 10);
    });
    row.taken_at = std::isnan(day_s) ? std::string() : record::utc_text(day_s + 60.0 * static_cast<double>(same_day));
    row.light = record::text_of_numbers(r.light);
    row.watts = r.watts;
    row.source = "file";
    if (std::isnan(record::seconds_of(row.taken_at)) || row.meter_id == 0 || row.lamp.empty())
      ++undated;
    else
      rows.push_back(row);
  }
  if (!desk_.edits().make(tr("readings of the check lamp"), [&](book::Edit& e) {
        for (const record::CheckLampReading& row : rows) e.add(row);
      }))
    return;
  problem_->setVisible(undated > 0 || !draft.value().findings.empty());
  problem_->setText(tr("%1 taken; %2 left out: their day is no date such as 2026-03-14, or lamp or sensor is not known "
                       "here; %3 rows of the table were not understood.")
                        .arg(counted(static_cast<qsizetype>(rows.size()), tr("reading"), tr("readings")))
                        .arg(undated)
                        .arg(draft.value().findings.size()));
}

}  // namespace sunbreak::desktop
