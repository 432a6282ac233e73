#include "desktop/shell/shots.h"

#include <QApplication>
#include <QBuffer>
#include <QCursor>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QLabel>
#include <QListWidget>
#include <QPixmap>
#include <QPushButton>
#include <QTableWidget>

#include "book/test_rows.h"
#include "desktop/audit/claim_list.h"
#include "desktop/desk/test_log.h"
#include "desktop/home/test_cards.h"
#include "desktop/lineup/lineup_work.h"
#include "desktop/publish/report_preview.h"
#include "desktop/read/read_view.h"
#include "desktop/settle/settle_view.h"
#include "desktop/settle/settle_work.h"
#include "desktop/shell/main_window.h"
#include "desktop/theme/theme.h"
#include "desktop/walk/checks_page.h"
#include "desktop/walk/walk_view.h"
#include "desktop/widgets/text.h"
#include "exchange/files/new_file.h"

namespace sunbreak::desktop {
namespace {

/// A window's picture as a PNG; false where it cannot be written.
bool keep(QWidget& window, const std::filesystem::path& file) {
  QBuffer png;
  png.open(QIODevice::WriteOnly);
  window.grab().save(&png, "PNG");
  return !exchange::write_new_file(file, png.data().toStdString(), exchange::Existing::Replace);
}

/// The test of a fixture of the sample; in another lab book the fullest that there is, 0 where there is none.
record::Id test_of(MainWindow& window, const std::string& fixture) {
  const book::Book& book = window.desk().book();
  record::Id fullest = 0;
  int most = -1;
  for (const record::Test& test : book.all<record::Test>("WHERE removed = 0 ORDER BY id")) {
    const auto of_test = book.find<record::Fixture>(test.fixture_id);
    if (of_test && of_test->name == fixture) return test.id;
    if (const int read = book::readings_of(book, test.id); read > most) most = read, fullest = test.id;
  }
  return fullest;
}

/// Lets what is worked out beside the interface arrive. The sample has all that is waited for; of another test some of
/// it may never come.
struct Patience {
  qint64 longest_ms = 0;

  void wait_while(const std::function<bool()>& missing) const {
    QElapsedTimer waited;
    waited.start();
    while (missing() && waited.elapsed() < longest_ms) QApplication::processEvents(QEventLoop::AllEvents, 100);
  }
};

void open_and_wait(const Patience& patience, MainWindow& window, record::Id test, Stage stage) {
  bool there = false;
  window.open_test(test, stage, [&] { there = true; });
  patience.wait_while([&] { return !there; });
}

/// Read in its views, each once the sweep's budget is there.
void shoot_read(const Patience& patience, MainWindow& window, record::Id test,
                const std::function<void(const char*, LookChoice)>& shoot) {
  open_and_wait(patience, window, test, Stage::Read);
  window.desk().step_rung(2);
  auto* read = window.findChild<ReadView*>();
  patience.wait_while([&] { return !window.desk().worked_out().budget() || !window.desk().worked_out().weakest(); });
  shoot("read.png", LookChoice::Paper);
  read->show_page(ReadView::SweepsPage);
  shoot("read-sweeps.png", LookChoice::Paper);
  read->show_page(ReadView::TargetPage);
  patience.wait_while([&] { return window.findChild<QTableWidget*>("targetFits")->rowCount() == 0; });
  shoot("read-targets.png", LookChoice::Paper);
  read->show_page(ReadView::SurePage);
  shoot("read-how-sure-loft.png", LookChoice::Loft);
  read->show_page(ReadView::SpectraPage);
  shoot("read-spectrum-loft.png", LookChoice::Loft);
  read->show_page(ReadView::MapPage);
}

/// Whole light of a sweep that was walked.
void shoot_light(const Patience& patience, MainWindow& window, record::Id test,
                 const std::function<void(const char*, LookChoice)>& shoot) {
  open_and_wait(patience, window, test, Stage::Read);
  auto* read = window.findChild<ReadView*>();
  read->show_page(ReadView::LightsPage);
  patience.wait_while([&] { return !window.desk().worked_out().light(); });
  shoot("read-whole-light.png", LookChoice::Paper);
  read->show_page(ReadView::MapPage);
}

/// How to run a fixture for a band that it can serve, and the card that was made of it.
void shoot_settle(const Patience& patience, MainWindow& window, record::Id test,
                  const std::function<void(const char*, LookChoice)>& shoot) {
  open_and_wait(patience, window, test, Stage::Settle);
  auto* settle = window.findChild<SettleView*>();
  record::Test with_target = window.desk().test()->test;
  with_target.target_name = "own band";
  with_target.target_low_ppfd = 400, with_target.target_high_ppfd = 700;
  window.desk().edits().make("target", [&](book::Edit& edit) { edit.save(with_target); });
  settle->work().change([](record::Settling& s) { s.sure_pct = 80; });
  const auto answered = [&] {
    const auto& answers = settle->work().answers();
    return answers && !settle->work().filling() && answers->request == settle->work().request();
  };
  patience.wait_while([&] { return !answered(); });
  settle->show_page(SettleView::OnField);
  shoot("settle.png", LookChoice::Paper);
  settle->show_page(SettleView::OnCard);
  window.findChild<QPushButton*>("makeCard")->click();
  const auto* card = window.findChild<QTableWidget*>("cardTable");
  patience.wait_while([&] { return card->rowCount() == 0; });
  shoot("settle-card.png", LookChoice::Paper);
}

/// What the maker claims, with its map beside ours.
void shoot_audit(const Patience& patience, MainWindow& window, record::Id test,
                 const std::function<void(const char*, LookChoice)>& shoot) {
  open_and_wait(patience, window, test, Stage::Audit);
  auto* claims = window.findChild<ClaimList*>();
  patience.wait_while([&] { return claims->count() == 0; });
  for (int row = 0; row < claims->count() && !(claims->chosen() && claims->chosen()->map); ++row) claims->choose(row);
  shoot("audit.png", LookChoice::Paper);
}

/// Fixtures by how even they are: ties, one that is dominated, others that may not be held against them.
void shoot_line_up(const Patience& patience, MainWindow& window, record::Id test,
                   const std::function<void(const char*, LookChoice)>& shoot) {
  open_and_wait(patience, window, test, Stage::LineUp);
  auto* work = window.findChild<LineUpWork*>();
  record::SavedLineUp asked = work->asked();
  asked.figure = "lowest_over_mean";
  work->ask(asked);
  patience.wait_while([&] { return work->working() || !work->shown(); });
  shoot("line-up.png", LookChoice::Paper);
}

}  // namespace

bool write_shots(MainWindow& window, const std::filesystem::path& folder) {
  std::filesystem::create_directories(folder);
  const QSize size = qEnvironmentVariableIsSet("SUNBREAK_SHOT_SIZE")
                         ? QSize(qEnvironmentVariable("SUNBREAK_SHOT_SIZE").section('x', 0, 0).toInt(),
                                 qEnvironmentVariable("SUNBREAK_SHOT_SIZE").section('x', 1, 1).toInt())
                         : QSize(1280, 800);
  bool all = true;
  const QString looks = qEnvironmentVariable("SUNBREAK_SHOT_LOOK");
  const UnitSystem units_before = window.desk().units();
  window.desk().set_units(qEnvironmentVariable("SUNBREAK_SHOT_UNITS") == "imperial" ? UnitSystem::Imperial
                                                                                    : UnitSystem::Metric);
  QCursor::setPos(-100, -100);  // nothing is under the pointer
  const auto shoot = [&](const char* name, LookChoice look) {
    apply_look(*qApp, looks == "loft" ? LookChoice::Loft : looks == "paper" ? LookChoice::Paper : look);
    emit window.desk().changed();
    window.resize(size);
    for (int i = 0; i < 5; ++i) QApplication::processEvents();
    all = keep(window, folder / name) && all;
  };
  const record::Id ostler = test_of(window, "Ostler Six-Bar"), marrow = test_of(window, "Marrow Row");
  const bool sample = marrow != ostler;
  const Patience patience{sample ? 30000 : 3000};
  window.show();
  QCursor::setPos(window.mapToGlobal(QPoint(size.width() / 2, size.height() - 8)));
  window.show_home();
  const auto* cards = window.findChild<TestCards*>();
  patience.wait_while([&] { return !cards->complete(); });
  shoot("home.png", LookChoice::Paper);
  const auto end = [&] {
    window.desk().set_units(units_before);
    return all;
  };
  if (ostler == 0) return end();
  open_and_wait(patience, window, ostler, Stage::Rig);
  const auto* advice = window.findChild<QLabel*>("stationsAdvice");
  patience.wait_while([&] { return advice->text().endsWith(QChar(0x2026)); });
  shoot("rig.png", LookChoice::Paper);
  const auto shoot_warm_up = [&](const char* fixture, const char* name, LookChoice look) {
    open_and_wait(patience, window, test_of(window, fixture), Stage::WarmUp);
    bool judged = false;
    const auto connection = QObject::connect(&window.log(), &TestLog::judged, &window, [&] { judged = true; });
    patience.wait_while([&] { return !judged || !window.desk().worked_out().weakest(); });
    QObject::disconnect(connection);
    shoot(name, look);
  };
  shoot_warm_up("Ostler Six-Bar", "warm-up.png", LookChoice::Paper);
  open_and_wait(patience, window, marrow, Stage::Walk);
  window.desk().step_rung(1);
  window.desk().step_stop(-1);
  shoot("walk.png", LookChoice::Paper);
  auto* walk = window.findChild<WalkView*>();
  walk->set_arms_length(true);
  window.setWindowState(Qt::WindowNoState);  // a screen of the shot's size
  shoot("walk-arms-length-loft.png", LookChoice::Loft);
  walk->set_arms_length(false);
  // Where nothing was read, nothing is worked out that could be waited for.
  if (book::readings_of(window.desk().book(), ostler) == 0) return end();
  open_and_wait(patience, window, ostler, Stage::Walk);
  patience.wait_while([&] { return window.desk().worked_out().all_findings().empty(); });
  ChecksPage checks(window.desk(), &window);
  checks.show();
  apply_look(*qApp, LookChoice::Paper);
  for (int i = 0; i < 5; ++i) QApplication::processEvents();
  all = keep(checks, folder / "checks.png") && all;
  checks.close();
  shoot_read(patience, window, ostler, shoot);
  shoot_light(patience, window, marrow, shoot);
  shoot_settle(patience, window, ostler, shoot);
  shoot_audit(patience, window, ostler, shoot);
  shoot_line_up(patience, window, ostler, shoot);
  open_and_wait(patience, window, ostler, Stage::Publish);
  window.show_stage(Stage::Publish);
  bool shown = false;
  const auto connection =
      QObject::connect(window.findChild<ReportPreview*>(), &ReportPreview::shown, [&] { shown = true; });
  patience.wait_while([&] { return !shown; });
  QObject::disconnect(connection);
  shoot("publish.png", LookChoice::Paper);
  return end();
}

}  // namespace sunbreak::desktop
