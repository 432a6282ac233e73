#include <fmt/format.h>

#include <QDir>
#include <QLineEdit>
#include <QPushButton>
#include <QSlider>
#include <QTableWidget>
#include <cmath>
#include <map>

#include "book/demo/demo_book.h"
#include "desktop/audit/audit_work.h"
#include "desktop/audit/claim_list.h"
#include "desktop/home/test_cards.h"
#include "desktop/lineup/lineup_view.h"
#include "desktop/lineup/lineup_work.h"
#include "desktop/publish/report_preview.h"
#include "desktop/read/read_view.h"
#include "desktop/read/targets_page.h"
#include "desktop/settle/settle_view.h"
#include "desktop/settle/settle_work.h"
#include "desktop/watched_application.h"
#include "desktop/window_fixture.h"

namespace sunbreak::desktop {
namespace {

constexpr double longest_task_ms = 50;

/// Ten heights by six settings of side × side stations.
record::Id add_lattice(book::Book& book, int side) {
  record::Id test_id = 0;
  book.edit("lattice", [&](book::Edit& e) {
    record::Test test;
    test.fixture_id = e.add(record::Fixture{});
    test.bench_id = e.add(record::Bench{});
    test.name = "Lattice";
    test.columns = test.rows = side;
    test_id = test.id = e.add(test);
    const Layout layout = lay_out({1.2, 1.2}, {GridKind::Cells, side, side, 0, 0, {}}).value();
    std::vector<record::Id> stops;
    for (int s = 0; s < 6; ++s) stops.push_back(e.add(record::Stop{0, test_id, 100 - 15.0 * s}));
    for (int h = 0; h < 10; ++h) {
      const record::Id rung = e.add(record::Rung{0, test_id, 0.9 - 0.06 * h});
      for (int s = 0; s < 6; ++s) {
        record::Sweep sweep;
        sweep.test_id = test_id;
        sweep.rung_id = rung;
        sweep.stop_id = stops[static_cast<std::size_t>(s)];
        sweep.columns = sweep.rows = side;
        sweep.power_w = 400 - 50.0 * s;
        sweep.id = e.add(sweep);
        const int open = h == 9 && s == 5 ? 20 : 0;
        for (int i = open; i < side * side; ++i) {
          const Station& at = layout.stations[static_cast<std::size_t>(i)];
          const double bell = std::exp(-2 * std::pow(at.x_m - 0.6, 2) - 2 * std::pow(at.y_m - 0.6, 2));
          e.accept({0, sweep.id, i, std::round(10 * (1 - 0.12 * s) * (400 + 40 * h + 500 * bell)) / 10, "file",
                    record::utc_text(1.78e9 + i)});
        }
      }
    }
  });
  return test_id;
}

}  // namespace

class NoLongTaskTest : public WindowTest {
 protected:
  static WatchedApplication& app() { return static_cast<WatchedApplication&>(*qApp); }

  /// Runs a step as the event loop would, then lets all that it set off come in.
  void step(const std::string& name, const std::function<void()>& act, const std::function<bool()>& done = {}) {
    app().watch(longest_task_ms);
    QMetaObject::invokeMethod(window_.get(), act, Qt::QueuedConnection);
    QApplication::processEvents();
    if (done) {
      EXPECT_TRUE(QTest::qWaitFor(done, 60000)) << name;
    }
    // All is in where nothing was done for a while; what comes later still is told, of the step after.
    int quiet = 0;
    for (int waits = 0; waits < 5 && quiet < 2; ++waits) {
      const int before = app().tasks();
      QTest::qWait(20);
      quiet = app().tasks() == before ? quiet + 1 : 0;
    }
    for (const auto& task : app().slow())
      slow_[name + ": " + task.what] =
          fmt::format("{:.1f} ms, and waited for {:.1f} ms", task.computed_ms, task.waited_ms);
    app().watch_no_more();
  }

  void walk_read_target_publish(const std::string& of, record::Id test) {
    const auto on_desk = [&] { return desk().test() && desk().test()->test.id == test; };
    step(
        of + " opened on Walk", [&] { window_->open_test(test, Stage::Walk); }, on_desk);
    for (int i = 0; i < 3; ++i)
      step(of + " walked", [&] {
        auto* value = find<QLineEdit>("walkValue");
        value->setFocus();
        QTest::keyClicks(value, "512.5");
        QTest::keyClick(value, Qt::Key_Return);
      });
    step(of + " read", [&] { window_->show_stage(Stage::Read); });
    for (int i = 0; i < 3; ++i) step(of + " next height", [&] { desk().step_rung(i == 0 ? -1 : 1); });
    auto* read = window_->findChild<ReadView*>();
    for (const auto page : {ReadView::SweepsPage, ReadView::TargetPage, ReadView::SurePage})
      step(
          of + " page " + std::to_string(page), [&] { read->show_page(page); },
          [&] { return page != ReadView::SurePage || desk().worked_out().budget() != nullptr; });
    for (const auto page : {ReadView::LightsPage, ReadView::RoomsPage})
      step(
          of + " page " + std::to_string(page), [&] { read->show_page(page); },
          [&] { return desk().worked_out().light() != nullptr; });
    step(of + " between", [&] {
      read->show_page(ReadView::LightsPage);
      desk().stand_between(desk().rung()->height_m + 0.01);
    });
    for (const auto page : {ReadView::RetestsPage, ReadView::PhotosPage})
      step(of + " page " + std::to_string(page), [&] { read->show_page(page); });
    step(of + " targets", [&] { read->show_page(ReadView::TargetPage); });
    for (int v = 20; v < 24; ++v) step(of + " hours", [&] { find<QSlider>("photoperiodSlider")->setValue(v); });
    step(of + " map", [&] { read->show_page(ReadView::MapPage); });
    const auto settled = [&] {
      SettleWork& work = window_->findChild<SettleView*>()->work();
      return !work.filling() && (work.problem() || work.answers());
    };
    step(
        of + " settle", [&] { window_->show_stage(Stage::Settle); }, settled);
    auto* settle = window_->findChild<SettleView*>();
    for (const double low : {200.0, 300.0, 400.0})
      step(of + " band dragged", [&] { settle->work().try_band(Band{low, low + 300}); });
    step(
        of + " band let go", [&] { settle->work().try_band({}); }, settled);
    for (const int by : {-3, 5, -1}) step(of + " point moved", [&] { settle->work().step(by, by); });
    for (const auto page : {SettleView::InCurves, SettleView::AsQuestions, SettleView::OnCard, SettleView::OnField})
      step(of + " settle page " + std::to_string(page), [&] { settle->show_page(page); });
    step(
        of + " audit", [&] { window_->show_stage(Stage::Audit); },
        [&] { return window_->findChild<AuditWork*>()->audit() != nullptr; });
    auto* claims = window_->findChild<ClaimList*>();
    for (int row = 0; row < claims->count(); ++row)
      step(of + " claim " + std::to_string(row), [&] { claims->choose(row); });
    step(
        of + " line-up", [&] { window_->show_stage(Stage::LineUp); },
        [&] { return window_->findChild<LineUpWork*>()->shown() && !window_->findChild<LineUpWork*>()->working(); });
    auto* lineup = window_->findChild<LineUpView*>();
    for (const auto page : {LineUpView::AsMaps, LineUpView::AsScatter, LineUpView::AsCurves, LineUpView::AsPair,
                            LineUpView::AsSuits, LineUpView::OverTime, LineUpView::OnStrip})
      step(of + " line-up page " + std::to_string(page), [&] { lineup->show_page(page); });
    bool shown = false;
    auto* preview = window_->findChild<ReportPreview*>();
    const auto connection = QObject::connect(preview, &ReportPreview::shown, preview, [&] { shown = true; });
    step(
        of + " previewed", [&] { window_->show_stage(Stage::Publish); }, [&] { return shown; });
    QObject::disconnect(connection);
    find<QLineEdit>("publishFolder")->setText(path("out"));
    for (const char* button : {"writePage", "writePackage", "writeTable"})
      step(
          of + " " + button, [&] { QTest::mouseClick(find<QPushButton>(button), Qt::LeftButton); },
          [&] { return find<QLabel>("written")->text().startsWith("Written:"); });
    step(of + " home", [&] { window_->show_home(); });
  }

  /// What the computer does beside makes a task long now and then; what a task computes, it computes each time. So a
  /// task is too long that is so in each of three tries, every one with a lab book and a window of its own.
  void no_long_task(const std::function<void()>& walk) {
    for (int tries = 1; tries <= 3; ++tries) {
      const auto before = std::exchange(slow_, {});
      walk();
      if (tries > 1) std::erase_if(slow_, [&](const auto& task) { return !before.contains(task.first); });
      if (slow_.empty()) return;
      if (tries < 3) anew();
    }
    for (const auto& [task, took] : slow_) ADD_FAILURE() << task << ", " << took;
  }

 private:
  void anew() {
    window_.reset();
    for (const QFileInfo& file : QDir(folder_.path()).entryInfoList(QDir::AllEntries | QDir::NoDotAndDotDot))
      file.isDir() ? QDir(file.filePath()).removeRecursively() : QFile::remove(file.filePath());
    SetUp();
  }

  std::map<std::string, std::string> slow_;  ///< the step and the task, and how long it took
};

TEST_F(NoLongTaskTest, TheSampleBook) {
  no_long_task([&] {
    book::fill_demo(desk().book());
    auto* cards = window_->findChild<TestCards*>();
    step(
        "Home", [&] { window_->show_home(); }, [&] { return cards->complete(); });
    for (const char* words : {"b", "be", "bes", ""}) step("search", [&] { find<QLineEdit>("search")->setText(words); });
    for (const record::Test& test : desk().book().all<record::Test>("ORDER BY id LIMIT 2"))
      walk_read_target_publish(test.name, test.id);
  });
}

TEST_F(NoLongTaskTest, ALatticeOfSixtyDenseSweeps) {
  no_long_task([&] {
    const record::Id test = add_lattice(desk().book(), 48);
    auto* cards = window_->findChild<TestCards*>();
    step(
        "Home", [&] { window_->show_home(); }, [&] { return cards->complete(); });
    walk_read_target_publish("lattice", test);
  });
}

}  // namespace sunbreak::desktop
