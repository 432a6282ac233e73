#pragma once

#include "desktop/desk/stage_view.h"
#include "record/claim_kinds.h"

class QLabel;
class QLineEdit;
class QPushButton;

namespace sunbreak::desktop {

class AuditWork;
class ClaimList;
class Desk;
class FiguresTable;
class LightMaps;
class WordsTable;

/// Audit: what the maker claims, held against what was measured; the maker's map beside ours; the verdict in words.
class AuditView : public StageView {
 public:
  explicit AuditView(Desk& desk, QWidget* parent = nullptr);

  void arrive() override;
  bool take_keyboard() override;
  std::vector<KeyHint> keys() const override;
  QString copy() override;
  bool take_table(const std::string& bytes, const QString& origin, const std::string& source) override;

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  void refresh();
  void show_chosen();
  /// Reads what was typed as the box has it, and keeps the claims it states.
  void take_sentence();
  void edit_chosen();
  void add_claim(record::Claim claim, const std::string* map = nullptr);
  void split_chosen();
  void erase_chosen();

  Desk& desk_;
  AuditWork* work_;
  QLineEdit* sentence_;
  QLabel *state_, *detail_head_, *detail_, *map_words_;
  QPushButton *edit_, *split_, *erase_;
  ClaimList* claims_;
  LightMaps* maps_;
  FiguresTable* watts_;
  WordsTable* words_;
};

}  // namespace sunbreak::desktop
