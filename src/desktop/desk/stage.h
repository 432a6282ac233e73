#pragma once

#include <QString>
#include <functional>

class QWidget;

namespace sunbreak::desktop {

class Desk;
class InstrumentHub;
class StageView;
class TestLog;

/// The stages of a test, as ways to them name them.
enum class Stage { Rig, WarmUp, Walk, Read, Settle, Audit, LineUp, Publish };

/// How far a stage of the test on the desk is.
enum class StageMark { Untouched, Begun, Done, NeedsLook };

/// What the frame lends to its stages; all of it outlives them.
struct StageTools {
  Desk& desk;
  InstrumentHub& hub;
  TestLog& log;
};

/// One stage as the frame knows it. Each stage's folder gives one; shell/stages lists them.
struct StageKind {
  Stage stage = Stage::Rig;
  QString name;
  std::function<StageView*(const StageTools& tools, QWidget* parent)> make;
  /// Its mark for the test on the desk, which there is.
  StageMark (*mark)(const Desk& desk) = nullptr;
};

}  // namespace sunbreak::desktop
