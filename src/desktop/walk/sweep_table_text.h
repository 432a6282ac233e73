#pragma once

#include <QString>

#include "evaluation/sweep_view.h"

namespace sunbreak::desktop {

/// A sweep as tab-separated text for a spreadsheet: far row first, unread stations empty; spots one a line with their
/// place.
QString sweep_table_text(const evaluation::SweepView& view);

}  // namespace sunbreak::desktop
