#include <fmt/format.h>

#include <QAbstractButton>
#include <QAccessible>
#include <QApplication>
#include <QLabel>
#include <QSettings>
#include <QStandardPaths>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTest>
#include <cstdio>
#include <set>

#include "desktop/audit/audit_work.h"
#include "desktop/audit/claim_list.h"
#include "desktop/lineup/lineup_strip.h"
#include "desktop/lineup/lineup_work.h"
#include "desktop/settle/settle_view.h"
#include "desktop/settle/settle_work.h"
#include "desktop/shell/main_window.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"
#include "record/json.h"

/// Tells what the window says of the tests of a lab book to whoever cannot see it: the accessible texts of its stages,
/// a line of JSON for each.
///
///     tell_window BOOK cm|in [TEST...]
namespace sunbreak::desktop {
namespace {

constexpr int patience_ms = 240000;

using record::Json;

/// The cells of a table row by row, its head first.
Json rows_of(const QTableWidget& table) {
  Json rows = Json::array();
  Json head = Json::array();
  for (int c = 0; c < table.columnCount(); ++c)
    head.push_back(table.horizontalHeaderItem(c) ? text_of(table.horizontalHeaderItem(c)->text()) : std::string());
  rows.push_back(std::move(head));
  for (int r = 0; r < table.rowCount(); ++r) {
    Json row = Json::array();
    for (int c = 0; c < table.columnCount(); ++c)
      row.push_back(table.item(r, c) ? text_of(table.item(r, c)->text()) : std::string());
    rows.push_back(std::move(row));
  }
  return rows;
}

/// Names, descriptions and values of all that is to be seen below an element.
void gather(QAccessibleInterface* element, Json& told, Json& tables) {
  if (!element || !element->isValid() || element->state().invisible) return;
  QObject* object = element->object();
  if (const auto* table = qobject_cast<QTableWidget*>(object)) {
    tables[text_of(table->objectName())] = rows_of(*table);
    return;
  }
  const auto text = [&](QAccessible::Text kind) { return text_of(element->text(kind).simplified()); };
  const std::string name = text(QAccessible::Name), description = text(QAccessible::Description),
                    value = text(QAccessible::Value);
  if (!name.empty() || !description.empty() || !value.empty())
    told.push_back(Json::array({object ? text_of(object->objectName()) : std::string(), name, description, value}));
  for (int i = 0; i < element->childCount(); ++i) gather(element->child(i), told, tables);
}

class Teller {
 public:
  Teller(const std::string& book, UnitSystem units) : window_(std::move(book::Book::open(book).value())) {
    window_.resize(1280, 1600);
    window_.show();
    (void)QTest::qWaitForWindowExposed(&window_);
    QApplication::setActiveWindow(&window_);
    if (window_.desk().units() != units) window_.findChild<QAbstractButton*>("units")->click();
  }

  bool tell(record::Id test) {
    test_ = test;
    return tell_sweeps() && tell_audit() && tell_settle() && tell_line_up();
  }

 private:
  Desk& desk() { return window_.desk(); }
  static bool wait(const std::function<bool()>& until) { return QTest::qWaitFor(until, patience_ms); }

  bool open(Stage stage) {
    bool there = false;
    window_.open_test(test_, stage, [&] { there = true; });
    return wait([&] { return there; });
  }
  void press(Qt::Key key) {
    QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : &window_, key);
    QTest::qWait(0);
  }

  void say(const char* where) {
    QTest::qWait(1);  // what was asked to be laid out is
    Json told = Json::array(), tables = Json::object();
    gather(QAccessible::queryAccessibleInterface(&window_), told, tables);
    Json line{{"where", where}, {"test", test_}, {"title", record::title_of(*desk().test())}};
    if (desk().rung() && desk().stop()) {
      line["height_m"] = desk().rung()->height_m;
      line["dimmer_pct"] = desk().stop()->percent;
    }
    line["told"] = std::move(told);
    line["tables"] = std::move(tables);
    std::puts(record::json_text(line).c_str());
  }

  bool tell_sweeps() {
    if (!open(Stage::Read)) return false;
    for (const record::Sweep& sweep : std::vector(desk().test()->sweeps)) {
      desk().choose(sweep.rung_id, sweep.stop_id);
      if (!wait([&] { return desk().worked_out().budget() && desk().worked_out().weakest(); })) return false;
      press(Qt::Key_1);
      say("read");
      press(Qt::Key_4);
      say("sure");
    }
    press(Qt::Key_3);
    say("targets");
    press(Qt::Key_5);
    const auto* light = window_.findChild<QLabel*>("lightWords");
    if (!wait([&] { return !light->text().endsWith(QChar(0x2026)); })) return false;
    say("light");
    return true;
  }

  bool tell_audit() {
    if (!open(Stage::Audit)) return false;
    const auto* work = window_.findChild<AuditWork*>();
    auto* claims = window_.findChild<ClaimList*>("claimList");
    if (desk().test()->claims.empty()) return true;
    if (!wait([&] { return work->audit() != nullptr && claims->count() > 0; })) return false;
    for (int i = 0; i < claims->count(); ++i) {
      claims->setFocus();
      press(i == 0 ? Qt::Key_Home : Qt::Key_Down);
      say("audit");
    }
    return true;
  }

  bool tell_settle() {
    if (!open(Stage::Settle)) return false;
    const auto& work = window_.findChild<SettleView*>()->work();
    if (!wait([&] {
          const auto& answers = work.answers();
          return answers && !work.filling() && answers->maps == work.maps() && answers->request == work.request();
        }))
      return false;
    say("settle");
    const std::size_t rows = desk().test()->card_rows.size();
    if (rows == 0) return true;
    press(Qt::Key_4);
    constexpr int mean_column = 6;
    const auto* card = window_.findChild<QTableWidget*>("cardTable");
    if (!wait([&] { return card->rowCount() == static_cast<int>(rows) && card->item(0, mean_column); })) return false;
    say("card");
    return true;
  }

  bool tell_line_up() {
    if (!open(Stage::LineUp)) return false;
    const auto* work = window_.findChild<LineUpWork*>();
    if (!wait([&] { return work->shown() && !work->working(); })) return false;
    if (!work->shown()->lineup) return true;
    auto* strip = window_.findChild<LineUpStrip*>("lineupStrip");
    strip->setFocus();
    press(Qt::Key_Home);
    std::set<int> seen;
    for (std::size_t i = 0; i < work->shown()->lineup->members().size(); ++i, press(Qt::Key_Down))
      if (seen.insert(strip->chosen()).second) say("line-up");
    return true;
  }

  MainWindow window_;
  record::Id test_ = 0;
};

}  // namespace
}  // namespace sunbreak::desktop

int main(int argc, char** argv) {
  using namespace sunbreak;
  if (argc < 3) return 2;
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QStandardPaths::setTestModeEnabled(true);
  QApplication app(argc, argv);
  QApplication::setOrganizationName("Sunbreak tests");
  QApplication::setApplicationName("Sunbreak tells");
  const QTemporaryDir settings;
  QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
  desktop::load_fonts();
  desktop::apply_look(app, desktop::LookChoice::Paper);
  QAccessible::setActive(true);
  desktop::Teller teller(argv[1], std::string(argv[2]) == "in" ? UnitSystem::Imperial : UnitSystem::Metric);
  for (int i = 3; i < argc; ++i)
    if (!teller.tell(std::stoll(argv[i]))) {
      fmt::print(stderr, "the window did not come to rest at test {}\n", argv[i]);
      return 1;
    }
  return 0;
}
