#pragma once

#include <QTableWidget>
#include <memory>

#include "desktop/desk/desk.h"
#include "evaluation/audit/audit.h"

namespace sunbreak::desktop {

/// The verdict in words, a sentence a row, each beside the figure it is tied to. A sentence can be written over, struck
/// out, and drafted again.
class WordsTable : public QTableWidget {
 public:
  explicit WordsTable(Desk& desk, QWidget* parent = nullptr);
  void show_words(std::shared_ptr<const evaluation::Audit> audit);
  /// The chosen sentence as it is drafted, in place of the tester's own.
  void draft_again();
  /// Strikes the chosen sentence out, or takes it in again.
  void strike();
  void edit_chosen();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  const evaluation::VerdictWords* chosen() const;
  void take_cell(int row, int column);
  /// Puts a sentence on record for a slot; none takes it away.
  void keep(const evaluation::VerdictWords& words, const std::optional<std::string>& sentence);

  Desk& desk_;
  std::shared_ptr<const evaluation::Audit> audit_;
  bool filling_ = false;
};

}  // namespace sunbreak::desktop
