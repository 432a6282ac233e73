#pragma once

#include <QDialog>

#include "report/page_parts.h"

namespace sunbreak::desktop {

/// Which parts the page has, as chosen last on this machine.
report::PageParts chosen_parts();
void keep_parts(const report::PageParts& parts);

/// A tick for each part that the page may leave out; what it says is told at once, so that the preview goes along.
class PartsDialog : public QDialog {
  Q_OBJECT
 public:
  explicit PartsDialog(const report::PageParts& parts, QWidget* parent = nullptr);

 signals:
  void changed(const report::PageParts& parts);

 private:
  report::PageParts parts_;
};

}  // namespace sunbreak::desktop
