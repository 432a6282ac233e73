#include "desktop/instruments/instruments_panel.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSerialPortInfo>
#include <QSettings>

#include "desktop/desk/desk.h"
#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {

using instruments::InstrumentSettings;
using instruments::LinkState;
using instruments::Measures;
using instruments::Speaks;
using instruments::TransportKind;

InstrumentsPanel::InstrumentsPanel(InstrumentHub& hub, QWidget* parent) : QDialog(parent), hub_(hub) {
  setObjectName("instrumentsPanel");
  setWindowTitle(tr("Instruments"));
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(12);
  auto* sides = new QHBoxLayout;
  sides->setSpacing(32);
  sides->addWidget(build_side(Measures::Light, tr("Light sensor")));
  sides->addWidget(build_side(Measures::Power, tr("Wall meter")));
  layout->addLayout(sides);
  layout->addWidget(thin_rule(this));
  auto* third = new QHBoxLayout;
  third->addWidget(new QLabel(tr("Spectrometer is on"), this));
  spectrometer_ = new QLineEdit(this);
  spectrometer_->setObjectName("spectrometerAddress");
  spectrometer_->setAccessibleName(tr("Where the spectrometer is"));
  spectrometer_->setPlaceholderText(tr("a port, or a line such as /dev/ttyUSB1"));
  third->addWidget(spectrometer_, 1);
  spectrometer_told_ = quiet_label(tr("Spectrum on Read asks it for a spectrum."), this);
  third->addWidget(spectrometer_told_);
  layout->addLayout(third);
  connect(spectrometer_, &QLineEdit::editingFinished, this, [this] {
    const bool taken = hub_.simulated() || hub_.set_spectrometer(spectrometer_->text());
    spectrometer_told_->setText(taken ? tr("Spectrum on Read asks it for a spectrum.")
                                      : tr("That is no port of this machine and no path of a serial line."));
    set_tone(spectrometer_told_, taken ? "" : "bad");
  });
  layout->addWidget(thin_rule(this));
  auto* row = new QHBoxLayout;
  simulate_ = primary_button(tr("Start the simulated bench"), this);
  simulate_->setObjectName("simulate");
  simulate_->setAutoDefault(false);
  row->addWidget(simulate_);
  row->addWidget(quiet_label(tr("Practice ground: a computed bench that behaves like a real one."), this));
  row->addStretch();
  auto* done = new QPushButton(tr("Done"), this);
  done->setAutoDefault(false);
  row->addWidget(done);
  layout->addLayout(row);
  connect(done, &QPushButton::clicked, this, &QDialog::accept);
  connect(simulate_, &QPushButton::clicked, this, [this] {
    if (!hub_.simulated()) return hub_.start_simulated_bench();
    hub_.disconnect_from(Measures::Light);
    hub_.disconnect_from(Measures::Power);
    hub_.stop_simulated_bench();
  });
  connect(&hub_, &InstrumentHub::changed, this, &InstrumentsPanel::refresh);
  resize(760, 480);
  refresh();
}

QWidget* InstrumentsPanel::build_side(Measures what, const QString& title) {
  auto* box = new QWidget(this);
  box->setObjectName(what == Measures::Light ? "lightSide" : "powerSide");
  Side& s = sides_[static_cast<int>(what)];
  const InstrumentSettings& now = hub_.channel(what).settings;
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(4);
  grid->setColumnMinimumWidth(0, 96);
  int row = 0;
  grid->addWidget(heading_label(title, box), row++, 0, 1, 2);
  s.value = figure_label(32, box);
  s.value->setAccessibleName(tr("%1, live value").arg(title));
  grid->addWidget(s.value, row++, 0, 1, 2);
  s.state = wrapped_label({}, box);
  grid->addWidget(s.state, row++, 0, 1, 2);
  const auto field = [&](const QString& name, QWidget* editor) {
    editor->setAccessibleName(title + ", " + name);
    grid->addWidget(quiet_label(name, box), row, 0);
    grid->addWidget(editor, row++, 1);
  };
  s.name = new QLineEdit(now.name, box);
  field(tr("Name"), s.name);
  s.kind = new QComboBox(box);
  s.kind->addItem(tr("a port of this machine"), static_cast<int>(TransportKind::Tcp));
  s.kind->addItem(tr("a serial line"), static_cast<int>(TransportKind::Serial));
  s.kind->addItem(tr("a file that grows"), static_cast<int>(TransportKind::File));
  s.kind->setCurrentIndex(static_cast<int>(now.address.kind));
  field(tr("Is on"), s.kind);
  s.address = new QLineEdit(now.address.kind == TransportKind::Tcp
                                ? (now.address.port ? instruments::tcp_words(now.address) : QString())
                                : now.address.path,
                            box);
  s.address->setObjectName(what == Measures::Light ? "lightAddress" : "powerAddress");
  field(tr("Where"), s.address);
  s.baud = new QLineEdit(QString::number(now.address.baud), box);
  field(tr("Baud"), s.baud);
  s.speaks = new QComboBox(box);
  s.speaks->addItem(tr("when asked, by commands"), static_cast<int>(Speaks::Commands));
  s.speaks->addItem(tr("by itself, a line a value"), static_cast<int>(Speaks::Stream));
  s.speaks->setCurrentIndex(static_cast<int>(now.speaks));
  field(tr("Speaks"), s.speaks);
  s.separator = new QComboBox(box);
  for (const auto& [words, c] :
       {std::pair{tr("comma"), ','}, {tr("semicolon"), ';'}, {tr("tab"), '\t'}, {tr("blank"), ' '}})
    s.separator->addItem(words, static_cast<int>(c));
  field(tr("Cells between"), s.separator);
  s.column = new QLineEdit(QString::number(now.format.column), box);
  field(tr("Value in column"), s.column);
  s.factor = new QLineEdit(QString::number(now.format.factor), box);
  field(what == Measures::Light ? tr("Factor to µmol/m²/s") : tr("Factor to W"), s.factor);
  s.heard = wrapped_label({}, box);
  s.heard->setProperty("quiet", true);
  s.heard->setMinimumHeight(60);
  s.heard->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  s.heard->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  field(tr("It sends"), s.heard);
  s.problem = wrapped_label({}, box);
  set_tone(s.problem, "bad");
  grid->addWidget(s.problem, row++, 0, 1, 2);
  auto* buttons = new QHBoxLayout;
  buttons->setSpacing(8);
  s.connect_button = new QPushButton(tr("Connect"), box);
  s.disconnect_button = new QPushButton(tr("Disconnect"), box);
  for (QPushButton* button : {s.connect_button, s.disconnect_button}) {
    button->setAutoDefault(false);
    buttons->addWidget(button);
  }
  buttons->addStretch();
  grid->addLayout(buttons, row++, 0, 1, 2);
  grid->setRowStretch(row, 1);
  connect(s.connect_button, &QPushButton::clicked, this, [this, what] { connect_side(what); });
  connect(s.disconnect_button, &QPushButton::clicked, this, [this, what] { hub_.disconnect_from(what); });
  connect(s.kind, &QComboBox::activated, this, [this, &s] { fit_fields(s); });
  connect(s.speaks, &QComboBox::activated, this, [this, &s] { fit_fields(s); });
  fit_fields(s);
  return box;
}

void InstrumentsPanel::fit_fields(Side& s) {
  const auto kind = static_cast<TransportKind>(s.kind->currentData().toInt());
  const bool file = kind == TransportKind::File;
  if (file) s.speaks->setCurrentIndex(1);
  s.speaks->setEnabled(!file);
  s.baud->setEnabled(kind == TransportKind::Serial);
  const bool stream = s.speaks->currentIndex() == 1;
  for (QWidget* widget : std::initializer_list<QWidget*>{s.separator, s.column, s.factor}) widget->setEnabled(stream);
  QString hint = kind == TransportKind::Tcp ? tr("port, or [::1]:port")
                 : file                     ? tr("path of the table")
                                            : tr("such as /dev/ttyUSB0");
  const auto found = QSerialPortInfo::availablePorts();
  if (kind == TransportKind::Serial && !found.isEmpty()) hint = tr("found: %1").arg(found.first().systemLocation());
  s.address->setPlaceholderText(hint);
}

void InstrumentsPanel::connect_side(Measures what) {
  Side& s = sides_[static_cast<int>(what)];
  InstrumentSettings settings;
  settings.name = s.name->text();
  settings.measures = what;
  settings.speaks = static_cast<Speaks>(s.speaks->currentData().toInt());
  settings.address.kind = static_cast<TransportKind>(s.kind->currentData().toInt());
  settings.address.path = s.address->text().trimmed();
  bool baud_ok = true, column_ok = true, factor_ok = true;
  QString problem;
  if (settings.address.kind == TransportKind::Tcp) {
    if (const auto address = instruments::tcp_address(s.address->text()))
      settings.address = *address;
    else
      problem = tr("'%1' is no port of this machine; give a number from 1 to 65535, or an address of this machine with "
                   "one, such as [::1]:5025.")
                    .arg(s.address->text());
  }
  settings.address.baud = s.baud->text().toInt(&baud_ok);
  settings.format.separator = static_cast<char>(s.separator->currentData().toInt());
  settings.format.column = s.column->text().toInt(&column_ok);
  settings.format.factor = QString(s.factor->text()).replace(',', '.').toDouble(&factor_ok);
  if (settings.address.kind != TransportKind::Tcp && settings.address.path.isEmpty())
    problem = tr("It is not said where the device is; give its path.");
  if (!baud_ok || settings.address.baud <= 0) problem = tr("'%1' is no baud rate; 9600 is usual.").arg(s.baud->text());
  if (!column_ok || settings.format.column < 1)
    problem = tr("'%1' is no column; they count from 1.").arg(s.column->text());
  if (!factor_ok || settings.format.factor == 0)
    problem = tr("'%1' is no factor; 1 leaves values as they are.").arg(s.factor->text());
  s.problem->setText(problem);
  if (problem.isEmpty()) hub_.connect_to(settings);
}

void InstrumentsPanel::refresh() {
  for (const Measures what : {Measures::Light, Measures::Power}) {
    Side& s = sides_[static_cast<int>(what)];
    const Channel& c = hub_.channel(what);
    const QString unit = what == Measures::Light ? tr("µmol/m²/s") : tr("W");
    s.value->setText(c.last ? QString::number(c.last->value, 'f', 1) + " " + unit : QStringLiteral("–"));
    const bool sound = c.state == LinkState::Live && !c.impossible();
    set_tone(s.value, sound ? "" : "attention");
    s.state->setText((sound                       ? QStringLiteral("● ")
                      : c.state == LinkState::Off ? QStringLiteral("○ ")
                                                  : QStringLiteral("◣ ")) +
                     (c.impossible() ? tr("%1 %2 cannot be, and is not taken: look at its column, its factor and the "
                                          "device itself")
                                           .arg(QString::number(c.last->value, 'f', 1), unit)
                                     : c.words) +
                     (c.identity.isEmpty() ? QString() : "\n" + c.identity));
    set_tone(s.state, sound ? "good" : c.state == LinkState::Off ? "" : "attention");
    s.heard->setText(c.heard.isEmpty()
                         ? QStringLiteral("–")
                         : QStringList(c.heard.mid(std::max<qsizetype>(0, c.heard.size() - 3))).join('\n'));
    s.disconnect_button->setEnabled(c.state != LinkState::Off);
  }
  if (!spectrometer_->hasFocus()) spectrometer_->setText(hub_.spectrometer());
  spectrometer_->setReadOnly(hub_.simulated());
  simulate_->setText(hub_.simulated() ? tr("Stop the simulated bench") : tr("Start the simulated bench"));
}

}  // namespace sunbreak::desktop
