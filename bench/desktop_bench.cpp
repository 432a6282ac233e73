#include <benchmark/benchmark.h>
#include <fcntl.h>
#include <unistd.h>

#include <QApplication>
#include <QLineEdit>
#include <QMouseEvent>
#include <QSettings>
#include <QTemporaryDir>
#include <QTest>
#include <cmath>

#include "book/demo/demo_book.h"
#include "core/sweep/field.h"
#include "desktop/lineup/lineup_strip.h"
#include "desktop/lineup/lineup_work.h"
#include "desktop/paint/sweep_map.h"
#include "desktop/read/field_map.h"
#include "desktop/read/read_view.h"
#include "desktop/settle/settle_view.h"
#include "desktop/settle/settle_work.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/mast.h"
#include "desktop/theme/theme.h"
#include "desktop/warmup/trace_chart.h"
#include "evaluation/wall_log.h"
#include "many_tests.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

/// A test of `heights` sweeps, each of side × side stations all read but for `left_open` of them in the last.
record::Id add_dense_test(book::Book& book, int heights, int side, int left_open) {
  record::Id test_id = 0;
  book.edit("dense test", [&](book::Edit& e) {
    record::Test test;
    test.fixture_id = e.add(record::Fixture{});
    test.bench_id = e.add(record::Bench{});
    test.columns = test.rows = side;
    test.opening_probe = false;
    test.reference_every = 0;
    test_id = test.id = e.add(test);
    const record::Id stop = e.add(record::Stop{0, test_id, 100});
    const std::string now = book::utc_now();
    for (int h = 0; h < heights; ++h) {
      record::Sweep sweep;
      sweep.test_id = test_id;
      sweep.rung_id = e.add(record::Rung{0, test_id, 0.9 - 0.06 * h});
      sweep.stop_id = stop;
      sweep.columns = sweep.rows = side;
      sweep.id = e.add(sweep);
      const Layout layout = lay_out({1.2, 1.2}, {GridKind::Cells, side, side, 0, 0, {}}).value();
      // The walk ends at the door: the stations left open are the last ones of the front row.
      for (int i = h + 1 == heights ? left_open : 0; i < side * side; ++i) {
        const Station& s = layout.stations[i];
        const double ppfd = 400 + 40 * h + 500 * std::exp(-2 * std::pow(s.x_m - 0.6, 2) - 2 * std::pow(s.y_m - 0.6, 2));
        e.accept({0, sweep.id, i, std::round(10 * ppfd) / 10, "file", now});
      }
    }
  });
  return test_id;
}

/// Opens a test and lets it come: a large one is read on another thread.
void open_and_wait(MainWindow& window, record::Id test, Stage stage) {
  bool there = false;
  window.open_test(test, stage, [&] { there = true; });
  while (!there) QApplication::processEvents(QEventLoop::WaitForMoreEvents);
}

/// The window on a book of 100,000 readings, at a test of 23,040.
struct Bench {
  Bench() {
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, folder.path());
    QSettings().setValue("walk/silenced", true);
    auto book = std::move(book::Book::open(folder.filePath("book.sunbreak").toStdString()).value());
    for (int i = 0; i < 4; ++i) add_dense_test(*book, 9, 48, 0);
    typed_test = add_dense_test(*book, 1, 12, 140);
    dense_test = add_dense_test(*book, 10, 48, 40);
    window = std::make_unique<MainWindow>(std::move(book));
    window->resize(1280, 800);
    window->show();
    QApplication::processEvents();
  }
  QTemporaryDir folder;
  record::Id typed_test = 0, dense_test = 0;
  std::unique_ptr<MainWindow> window;
};

Bench& the_bench() {
  static Bench bench;
  return bench;
}

/// Enter pressed on a typed value, until the reading is on disk and the window shows the next station.
void key_to_painted(benchmark::State& state, record::Id test) {
  Bench& b = the_bench();
  open_and_wait(*b.window, test, Stage::Walk);
  auto* value = b.window->findChild<QLineEdit*>("walkValue");
  for (int i = 0; i < 20; ++i) QApplication::processEvents();
  for (auto _ : state) {
    state.PauseTiming();
    value->setFocus();
    QTest::keyClicks(value, "612.5");
    QApplication::processEvents();
    state.ResumeTiming();
    QTest::keyClick(value, Qt::Key_Return);
    QApplication::processEvents();
  }
}
void key_in_a_book_of_100000(benchmark::State& state) { key_to_painted(state, the_bench().typed_test); }
void key_in_a_test_of_23040(benchmark::State& state) { key_to_painted(state, the_bench().dense_test); }
BENCHMARK(key_in_a_book_of_100000)
    ->Unit(benchmark::kMillisecond)
    ->Iterations(1)
    ->Repetitions(41)
    ->ReportAggregatesOnly();
BENCHMARK(key_in_a_test_of_23040)
    ->Unit(benchmark::kMillisecond)
    ->Iterations(1)
    ->Repetitions(31)
    ->ReportAggregatesOnly();

/// What the disk alone takes: a small write made durable.
void write_and_sync(benchmark::State& state) {
  const QByteArray file = the_bench().folder.filePath("sync").toLocal8Bit();
  const int fd = open(file.constData(), O_RDWR | O_CREAT, 0600);
  const std::string page(4096, 'x');
  for (auto _ : state) {
    benchmark::DoNotOptimize(pwrite(fd, page.data(), page.size(), 0));
    fsync(fd);
  }
  close(fd);
}
BENCHMARK(write_and_sync)->Unit(benchmark::kMillisecond)->Iterations(1)->Repetitions(41)->ReportAggregatesOnly();

/// Pages up and down through the heights of the test on the desk.
class Pager {
 public:
  void step(Desk& desk) {
    const auto* before = desk.rung();
    desk.step_rung(way_);
    if (before == desk.rung()) way_ = -way_;
  }

 private:
  int way_ = 1;
};

/// One frame of mast and map while the heights of a 23,040-reading test are paged through.
template <typename Map>
void frame_of_mast_and_map(benchmark::State& state, Stage stage) {
  Bench& b = the_bench();
  open_and_wait(*b.window, b.dense_test, stage);
  QApplication::processEvents();
  auto* mast = b.window->findChild<Mast*>();
  Map* map = nullptr;
  for (Map* m : b.window->findChildren<Map*>())
    if (m->isVisible()) map = m;
  QImage canvas(1280, 800, QImage::Format_ARGB32_Premultiplied);
  Pager pager;
  for (auto _ : state) {
    state.PauseTiming();
    pager.step(b.window->desk());
    state.ResumeTiming();
    mast->render(&canvas);
    map->render(&canvas);
  }
}
void frame_on_walk(benchmark::State& state) { frame_of_mast_and_map<SweepMap>(state, Stage::Walk); }
void frame_on_read(benchmark::State& state) { frame_of_mast_and_map<FieldMap>(state, Stage::Read); }
BENCHMARK(frame_on_walk)->Unit(benchmark::kMillisecond);
BENCHMARK(frame_on_read)->Unit(benchmark::kMillisecond);

/// The map of a 48 × 48 sweep with contours and numbers: painted for the first time, nothing kept of it.
void first_paint_of_contours_and_numbers(benchmark::State& state) {
  Bench& b = the_bench();
  open_and_wait(*b.window, b.dense_test, Stage::Read);
  auto* read = b.window->findChild<ReadView*>();
  read->settings().contours = read->settings().numbers = true;
  read->settings_changed();
  QApplication::processEvents();
  auto* map = b.window->findChild<FieldMap*>();
  QImage canvas(map->size(), QImage::Format_ARGB32_Premultiplied);
  for (auto _ : state) {
    state.PauseTiming();
    map->renew();
    state.ResumeTiming();
    map->render(&canvas);
  }
}
BENCHMARK(first_paint_of_contours_and_numbers)->Unit(benchmark::kMillisecond);

/// The pointer moved from station to station over that map: found, read out, ringed, painted.
void hover_over_the_dense_map(benchmark::State& state) {
  Bench& b = the_bench();
  auto* map = b.window->findChild<FieldMap*>();
  QImage canvas(map->size(), QImage::Format_ARGB32_Premultiplied);
  map->render(&canvas);
  int x = 0;
  for (auto _ : state) {
    x = (x + 17) % map->width();
    const QPointF at(x, map->height() * 0.4);
    QMouseEvent move(QEvent::MouseMove, at, map->mapToGlobal(at), Qt::NoButton, Qt::NoButton, Qt::NoModifier);
    QApplication::sendEvent(map, &move);
    map->render(&canvas);
  }
}
BENCHMARK(hover_over_the_dense_map)->Unit(benchmark::kMillisecond);

/// The whole of paging to the next height: figures, checks and all of the window painted.
void page_to_the_next_height(benchmark::State& state) {
  Bench& b = the_bench();
  open_and_wait(*b.window, b.dense_test, Stage::Read);
  Pager pager;
  for (auto _ : state) {
    pager.step(b.window->desk());
    QApplication::processEvents();
  }
}
BENCHMARK(page_to_the_next_height)->Unit(benchmark::kMillisecond);

/// The band of Settle's target dragged: field, figures and map of the whole page painted again, on the sample book's
/// two-panel fixture with its whole field there.
void drag_the_band(benchmark::State& state) {
  Bench& b = the_bench();
  static const record::Id marrow = [&] {
    book::fill_demo(b.window->desk().book());
    record::Id id = 0;
    for (const record::Test& test : b.window->desk().book().all<record::Test>("ORDER BY id"))
      if (b.window->desk().book().find<record::Fixture>(test.fixture_id)->name == "Marrow Row") id = test.id;
    return id;
  }();
  open_and_wait(*b.window, marrow, Stage::Settle);
  SettleWork& work = b.window->findChild<SettleView*>()->work();
  while (!work.answers() || work.filling()) QApplication::processEvents(QEventLoop::WaitForMoreEvents, 100);
  QImage canvas(b.window->size(), QImage::Format_ARGB32_Premultiplied);
  double low = 200;
  for (auto _ : state) {
    low = low > 400 ? 200 : low + 5;
    work.try_band(Band{low, 700});
    b.window->render(&canvas);
  }
  work.try_band({});
}
BENCHMARK(drag_the_band)->Name("settle-drag")->Unit(benchmark::kMillisecond);

/// A log of 24 hours at one sample a second, as meter and sensor show it.
record::Id add_day_log(book::Book& book) {
  record::Id test_id = 0;
  book.edit("day log", [&](book::Edit& e) {
    record::Test test;
    test.fixture_id = e.add(record::Fixture{});
    test.bench_id = e.add(record::Bench{});
    test_id = test.id = e.add(test);
    e.add(record::Rung{0, test_id, 0.45});
    e.add(record::Stop{0, test_id, 100});
    e.add(record::LampEvent{0, test_id, "on", 100.0, record::utc_text(1'773'478'800)});
    constexpr int a_part = 3600;
    for (int from = 0; from < 86400; from += a_part) {
      std::vector<record::LogSample> samples;
      for (int t = from; t < from + a_part; ++t) {
        const double wander = std::sin(t * 0.7) + std::sin(t * 0.013) + std::sin(t * 1.9);
        record::LogSample s;
        s.time_s = 1'773'478'800.0 + t;
        s.light_raw = std::round(7000 * (1 + 0.05 * std::exp(-t / 900.0) + 0.001 * wander)) / 10;
        s.power_w = std::round(3220 * (1 + 0.03 * std::exp(-t / 900.0) + 0.0005 * wander)) / 10;
        s.voltage_v = std::round(2300 + 6 * wander) / 10;
        s.power_factor = 0.97;
        samples.push_back(s);
      }
      record::LogPart part{0, test_id, "live", {}, 0, 1, a_part, record::pack_samples(samples)};
      e.add(part);
    }
  });
  return test_id;
}

/// A log of a day opened: read from the lab book, unpacked, and its page painted.
void open_a_day_at_one_hertz(benchmark::State& state) {
  Bench& b = the_bench();
  static const record::Id test = add_day_log(b.window->desk().book());
  for (auto _ : state) {
    state.PauseTiming();
    open_and_wait(*b.window, b.typed_test, Stage::WarmUp);
    QApplication::processEvents();
    state.ResumeTiming();
    open_and_wait(*b.window, test, Stage::WarmUp);
    QApplication::processEvents();
  }
}
BENCHMARK(open_a_day_at_one_hertz)
    ->Unit(benchmark::kMillisecond)
    ->Iterations(1)
    ->Repetitions(21)
    ->ReportAggregatesOnly();

/// One frame of its traces, while they are panned by keys; the argument is how many times they are zoomed in.
void frame_of_a_day_at_one_hertz(benchmark::State& state) {
  Bench& b = the_bench();
  static const record::Id test = add_day_log(b.window->desk().book());
  open_and_wait(*b.window, test, Stage::WarmUp);
  QApplication::processEvents();
  auto* traces = b.window->findChild<TraceChart*>();
  for (int i = 0; i < state.range(0); ++i) QTest::keyClick(traces, Qt::Key_Plus);
  QImage canvas(1280, 400, QImage::Format_ARGB32_Premultiplied);
  Qt::Key way = Qt::Key_Right;
  for (auto _ : state) {
    const double before = traces->from_s();
    QTest::keyClick(traces, way);
    if (before == traces->from_s()) way = way == Qt::Key_Right ? Qt::Key_Left : Qt::Key_Right;
    traces->render(&canvas);
  }
}
BENCHMARK(frame_of_a_day_at_one_hertz)->ArgName("zoomed")->Arg(0)->Arg(1)->Arg(4)->Unit(benchmark::kMillisecond);

/// The strip of Line-up with 2,000 fixtures: a step down the rows and its frame, with the words beside it.
void frame_of_two_thousand(benchmark::State& state) {
  QTemporaryDir folder;
  const auto file = folder.filePath("many.sunbreak").toStdString();
  bench::make_many_tests(file, 2000);
  MainWindow window(std::move(book::Book::open(file).value()));
  window.resize(1280, 800);
  window.show();
  open_and_wait(window, 1, Stage::LineUp);
  auto* work = window.findChild<LineUpWork*>();
  while (work->working() || !work->shown()) QApplication::processEvents(QEventLoop::WaitForMoreEvents, 100);
  auto* strip = window.findChild<LineUpStrip*>();
  for (auto _ : state) {
    strip->step(strip->chosen() == strip->in_order().back() ? -2000 : 7);
    strip->viewport()->repaint();
  }
}
BENCHMARK(frame_of_two_thousand)->Name("line-up-frame-2000")->Unit(benchmark::kMillisecond)->Iterations(300);

}  // namespace

int main(int argc, char** argv) {
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication app(argc, argv);
  QApplication::setOrganizationName("Sunbreak bench");
  QApplication::setApplicationName("Sunbreak bench");
  load_fonts();
  apply_look(app, LookChoice::Paper);
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
  the_bench().window.reset();
  return 0;
}
