#pragma once

#include <memory>

#include "desktop/desk/background.h"
#include "desktop/lineup/lineup_page.h"

namespace sunbreak::desktop {

/// Page, workbook, table and stills of a line-up, written into the folder that Publish writes to.
class LineUpWriting {
 public:
  /// `owner` outlives it.
  LineUpWriting(Desk& desk, QObject* owner) : desk_(desk), work_(owner) {}
  /// Begins to write what is shown, side by side the two that are chosen; nothing while it still writes.
  void write(std::shared_ptr<const ShownLineUp> shown, const ChosenTwo& chosen);
  bool working() const { return work_.working(); }
  /// Leaves no file half written.
  void stop() { work_.drop(); }

 private:
  Desk& desk_;
  Background work_;
};

}  // namespace sunbreak::desktop
