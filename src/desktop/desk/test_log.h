#pragma once

#include <QObject>
#include <QTimer>
#include <map>
#include <memory>
#include <optional>

#include "book/log_edits.h"
#include "desktop/desk/background.h"
#include "evaluation/stabilization.h"

namespace sunbreak::desktop {

class Desk;

/// The log of the test on the desk: all of it in memory, what is being recorded, and what it says of settling, worked
/// out on another thread.
class TestLog : public QObject {
  Q_OBJECT
 public:
  explicit TestLog(Desk& desk, QObject* parent = nullptr);
  ~TestLog() override;

  const evaluation::WallLog& log() const { return *log_; }
  /// What the log says now; the latest answer where a newer one is on its way.
  const evaluation::Stabilization& stabilization() const { return stabilization_; }
  std::optional<double> stabilized_since_s() const { return stabilized_since_s_; }
  evaluation::LampState lamp() const;
  /// The published fall of light from switch-on to stabilized, as a share.
  std::optional<double> fall() const { return fall_; }

  /// Recording: samples go into a part of their own and are on disk every ten seconds.
  bool recording() const { return recorder_ != nullptr; }
  bool start(const std::string& source);
  void stop();
  void add(const record::LogSample& sample);

 signals:
  /// There are new samples.
  void grown();
  /// settling() has a new answer.
  void judged();

 private:
  struct Answer {
    evaluation::Stabilization stabilization;
    std::optional<double> stabilized_since_s, fall;
  };
  void reload();
  void keep();
  void judge();
  void hand_over();
  evaluation::WallLog& own_log();

  Desk& desk_;
  std::pair<record::Id, record::Id> shown_;  ///< test and configuration
  evaluation::UnpackedParts unpacked_;
  std::shared_ptr<evaluation::WallLog> log_ = std::make_shared<evaluation::WallLog>();  ///< others may look at it too
  std::unique_ptr<book::LogRecorder> recorder_;
  QTimer keep_, judge_;
  evaluation::Stabilization stabilization_;
  std::optional<double> stabilized_since_s_, stabilized_since_of_, fall_;
  std::string loaded_records_;  ///< what of the book log_ was read from
  Background background_;
  bool again_ = false;
};

}  // namespace sunbreak::desktop
