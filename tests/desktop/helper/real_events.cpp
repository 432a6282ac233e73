#include <fmt/format.h>

#include <QAbstractSlider>
#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QLineEdit>
#include <QPointer>
#include <QProcess>
#include <QScrollBar>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTest>

#include "book/test_rows.h"
#include "desktop/application/application.h"
#include "desktop/shell/main_window.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"

/// Turns the wheel over every field of the window and types into it, by events of a real X server that another program
/// sends; says what went where it should not. Ends with the number of faults.
///
///     real_events BOOK
namespace sunbreak::desktop {
namespace {

constexpr int patience_ms = 20000;

void xdotool(const QStringList& arguments) {
  QProcess tool;
  tool.start("xdotool", arguments);
  if (!tool.waitForFinished(patience_ms) || tool.exitCode() != 0)
    qFatal("xdotool %s: %s", qPrintable(arguments.join(' ')), tool.readAllStandardError().constData());
}

/// Counts events of a kind, so that the next step waits until they have come.
class Arrivals : public QObject {
 public:
  explicit Arrivals(QEvent::Type kind) : kind_(kind) { qApp->installEventFilter(this); }
  bool eventFilter(QObject* watched, QEvent* event) override {
    if (event->type() == kind_ && event->spontaneous() && watched->isWindowType()) ++count;
    return false;
  }
  int count = 0;

 private:
  QEvent::Type kind_;
};

class RealHands {
 public:
  explicit RealHands(const std::string& book) : window_(std::move(book::Book::open(book).value())) {
    window_.move(0, 0);
    window_.resize(1280, 800);
    window_.show();
    (void)QTest::qWaitForWindowExposed(&window_);
    xdotool({"windowfocus", "--sync", QString::number(window_.winId())});
  }

  int run() {
    for (const Stage stage : {Stage::Rig, Stage::WarmUp, Stage::Walk, Stage::Read, Stage::Settle, Stage::Audit,
                              Stage::LineUp, Stage::Publish})
      turn_over(stage);
    type_readings();
    fmt::print("{} fields turned over, {} faults\n", fields_, faults_);
    constexpr int least_fields = 25;  // that all stages together show at this size
    return fields_ >= least_fields ? faults_ : faults_ + 1;
  }

 private:
  Desk& desk() { return window_.desk(); }
  void fault(const std::string& words) { ++faults_, fmt::print("{}\n", words); }

  void open(Stage stage) {
    bool there = false;
    window_.open_test(1, stage, [&] { there = true; });
    if (!QTest::qWaitFor([&] { return there; }, patience_ms)) fault("the test does not open");
  }

  /// Six turns of the wheel over each field that is to be seen, in it or not.
  void turn_over(Stage stage) {
    open(stage);
    Arrivals wheels(QEvent::Wheel);
    const auto before = book::load_test(desk().book(), 1);
    const auto widgets = window_.findChildren<QWidget*>();
    // A form that is made anew meanwhile takes some of them away.
    for (const QPointer<QWidget>& field : QList<QPointer<QWidget>>(widgets.begin(), widgets.end())) {
      if (!field) continue;
      const bool holds = qobject_cast<QComboBox*>(field) || qobject_cast<QAbstractSpinBox*>(field) ||
                         qobject_cast<QAbstractSlider*>(field) || qobject_cast<QLineEdit*>(field);
      if (!holds || qobject_cast<QScrollBar*>(field) || !field->isVisible() || !field->isEnabled()) continue;
      const QPoint middle = field->mapToGlobal(field->rect().center());
      if (QApplication::widgetAt(middle) != field && !field->isAncestorOf(QApplication::widgetAt(middle))) continue;
      ++fields_;
      const QWidget* focus = QApplication::focusWidget();
      const QString held = held_by(field);
      const int came = wheels.count;
      xdotool({"mousemove", "--sync", QString::number(middle.x()), QString::number(middle.y()), "click", "--repeat",
               "3", "5", "click", "--repeat", "3", "4"});
      if (!QTest::qWaitFor([&] { return wheels.count >= came + 6; }, patience_ms)) fault("the wheel did not arrive");
      if (!field) continue;
      const std::string name = text_of(field->objectName() + " " + field->accessibleName());
      if (held_by(field) != held)
        fault(fmt::format("the wheel turned {} from {} to {}", name, text_of(held), text_of(held_by(field))));
      if (QApplication::focusWidget() != focus)
        fault(fmt::format("the wheel over {} brought the keyboard from {} to {}", name, named(focus),
                          named(QApplication::focusWidget())));
    }
    const auto after = book::load_test(desk().book(), 1);
    if (!before || !after || !(before->test == after->test) || before->rungs != after->rungs ||
        before->meters != after->meters)
      fault(fmt::format("the wheel changed the record on stage {}", static_cast<int>(stage)));
  }

  static std::string named(const QWidget* widget) {
    return widget ? text_of(widget->metaObject()->className() + QString(" ") + widget->objectName()) : "none";
  }

  static QString held_by(QWidget* field) {
    if (const auto* box = qobject_cast<QComboBox*>(field)) return box->currentText();
    if (const auto* spin = qobject_cast<QAbstractSpinBox*>(field)) return spin->text();
    if (const auto* slider = qobject_cast<QAbstractSlider*>(field)) return QString::number(slider->value());
    const auto* line = qobject_cast<QLineEdit*>(field);
    return line ? line->text() : QString();
  }

  /// A slip of ten by real keys, taken back by them, and the right value in its place.
  void type_readings() {
    window_.show_home();
    xdotool({"key", "ctrl+n"});
    if (!QTest::qWaitFor([&] { return desk().test() && desk().test()->readings.empty(); }, patience_ms))
      return fault("Ctrl+N begins no test");
    xdotool({"key", "alt+3"});
    auto* value = window_.findChild<QLineEdit*>("walkValue");
    if (!QTest::qWaitFor([&] { return value->hasFocus(); }, patience_ms)) return fault("Walk waits for no value");
    const std::vector<int> walk = desk().walk();
    const auto read = [&](int count) {
      return QTest::qWaitFor([&] { return desk().view() && desk().view()->read() == count; }, patience_ms);
    };
    const auto type = [&](const char* digits) {
      QStringList keys{"key"};
      for (const char* digit = digits; *digit != 0; ++digit) keys << QString(QChar(*digit));
      xdotool(keys << "Return");
    };
    int count = 0;
    for (const char* digits : {"475", "480", "476", "4780"}) {
      type(digits);
      if (!read(++count))
        return fault(fmt::format("{} was not kept: {} holds the keyboard, {} stands in the field", digits,
                                 named(QApplication::focusWidget()), text_of(value->text())));
    }
    xdotool({"key", "ctrl+z"});
    if (!read(3)) return fault("Ctrl+Z takes no reading back");
    type("478");
    if (!read(4)) return fault("478 was not kept");
    if (desk().view()->states[static_cast<std::size_t>(walk[3])].raw != 478) fault("478 went into another station");
  }

  MainWindow window_;
  int fields_ = 0, faults_ = 0;
};

}  // namespace
}  // namespace sunbreak::desktop

int main(int argc, char** argv) {
  using namespace sunbreak;
  if (argc != 2) return 2;
  QStandardPaths::setTestModeEnabled(true);
  desktop::Application app(argc, argv);
  QApplication::setOrganizationName("Sunbreak tests");
  QApplication::setApplicationName("Sunbreak by hand");
  const QTemporaryDir settings;
  QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
  QSettings().setValue("walk/silenced", true);
  desktop::load_fonts();
  desktop::apply_look(app, desktop::LookChoice::Paper);
  return desktop::RealHands(argv[1]).run();
}
