#pragma once

#include <QDialog>
#include <vector>

#include "book/book.h"

class QListWidget;

namespace sunbreak::desktop {

/// Which fixture is to be measured next by a plan that was walked before: the same once more, another from the shelf,
/// or a new one. Bench, meters, grid, heights and settings stay, so that results compare.
class DuplicateDialog : public QDialog {
 public:
  DuplicateDialog(const book::Book& book, const record::Test& test, QWidget* parent = nullptr);
  /// The fixture chosen; 0 for a new one.
  record::Id fixture_id() const;

 private:
  QListWidget* list_;
  std::vector<record::Id> fixtures_;
};

}  // namespace sunbreak::desktop
