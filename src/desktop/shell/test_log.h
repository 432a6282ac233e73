#pragma once

#include <QObject>
#include <QTimer>
#include <map>
#include <memory>
#include <optional>

#include "book/log_edits.h"
#include "evaluation/settling.h"

namespace sunbreak::desktop {

class Desk;

/// The log of the test on the desk: all of it in memory, what is being recorded, and what it says of settling, worked
/// out on another thread.
class TestLog : public QObject {
  Q_OBJECT
 public:
  explicit TestLog(Desk& desk, QObject* parent = nullptr);
  ~TestLog() override;

  const evaluation::WallLog& log() const { return log_; }
  /// What the log says now; the latest answer where a newer one is on its way.
  const evaluation::Settling& settling() const { return settling_; }
  std::optional<double> settled_since_s() const { return settled_since_s_; }
  /// How a sweep was walked; nothing while that is not known yet.
  const evaluation::WalkedState* walked(record::Id sweep_id) const;
  evaluation::LampState lamp() const;
  /// The published fall of light from switch-on to settled, as a share.
  std::optional<double> fall() const { return fall_; }

  /// Recording: samples go into a part of their own and are on disk every ten seconds.
  bool recording() const { return recorder_ != nullptr; }
  bool start(const std::string& source);
  void stop();
  void add(const record::LogSample& sample);

 signals:
  /// There are new samples.
  void grown();
  /// settling() or walked() has a new answer.
  void judged();

 private:
  struct Answer {
    evaluation::Settling settling;
    std::optional<double> settled_since_s, fall;
    std::map<record::Id, evaluation::WalkedState> walked;
  };
  void reload();
  void keep();
  void judge();

  Desk& desk_;
  record::Id test_id_ = 0;
  evaluation::UnpackedParts unpacked_;
  evaluation::WallLog log_;
  std::unique_ptr<book::LogRecorder> recorder_;
  QTimer keep_, judge_;
  evaluation::Settling settling_;
  std::optional<double> settled_since_s_, settled_since_of_, fall_;
  std::map<record::Id, evaluation::WalkedState> walked_;
  std::map<record::Id, int> asked_of_;  ///< stations read when a sweep was last asked about
  std::string loaded_records_;          ///< what of the book log_ was read from
  std::string judged_records_;          ///< what of the book walked_ was worked out from
  bool judging_ = false, again_ = false;
};

}  // namespace sunbreak::desktop
