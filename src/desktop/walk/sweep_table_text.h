#pragma once

#include <QString>

#include "evaluation/sweep_view.h"

namespace sunbreak::desktop {

/// A sweep as tab-separated text for a spreadsheet: far row first, unread stations empty; spots one a line with their
/// place.
QString sweep_table_text(const evaluation::SweepView& view);

/// Puts it on the clipboard and says so; empty where nothing is read.
QString copy_sweep_table(const evaluation::SweepView* view);

}  // namespace sunbreak::desktop
