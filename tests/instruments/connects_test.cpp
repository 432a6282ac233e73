#include <QDir>

#include "bench_process.h"

using namespace sunbreak::instruments;

/// Connects to the simulated bench and leaves it again a thousand times. Built with the sanitizers too, whose leak
/// check judges the memory; the open files are counted here.
TEST(Connects, AThousandLeaveNothingBehind) {
  BenchProcess bench;
  const auto open_files = [] {
    return QDir("/proc/self/fd").entryList(QDir::NoDotAndDotDot | QDir::AllEntries | QDir::System).size();
  };
  const auto connect_once = [&] {
    InstrumentSettings settings = impatient(bench.port("sensor"));
    settings.poll_ms = 1;
    Listener sensor(settings);
    ASSERT_TRUE(QTest::qWaitFor([&] { return !sensor.values.empty(); }, 60000));
    sensor.instrument.stop();
  };
  for (int i = 0; i < 10; ++i) connect_once();
  const auto before = open_files();
  for (int i = 0; i < 1000; ++i) ASSERT_NO_FATAL_FAILURE(connect_once()) << i;
  EXPECT_LE(open_files(), before + 2);
}
