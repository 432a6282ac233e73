#pragma once

#include "desktop/desk/stage_view.h"

namespace sunbreak::desktop {

/// A stage that is still to come: says in one line what will be there.
class LaterStage : public StageView {
  Q_OBJECT
 public:
  explicit LaterStage(const QString& name, const QString& what, QWidget* parent = nullptr);
};

}  // namespace sunbreak::desktop
