#pragma once

#include <QDialog>
#include <optional>

#include "desktop/desk/desk.h"
#include "record/claim_kinds.h"

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QPlainTextEdit;

namespace sunbreak::desktop {

/// One claim, field by field: those that its kind may have. Nothing is kept before it can stand.
class ClaimDialog : public QDialog {
 public:
  ClaimDialog(Desk& desk, const record::Claim& claim, QWidget* parent = nullptr);

  /// As it was put together; of use after it was accepted.
  const record::Claim& claim() const { return claim_; }
  /// Fills the map from a table that was pasted or brought in; false, and told in words, where it is none.
  bool take_map(const std::string& bytes);

 private:
  void show_kind();
  void fill();
  void keep();
  std::optional<record::Claim> put_together();
  bool refuse(QWidget* field, const QString& words);
  const record::ClaimKind& kind() const;
  void show_row(QWidget* field, bool shown);

  Desk& desk_;
  record::Claim claim_;
  QFormLayout* form_;
  QComboBox *kind_, *unit_, *says_, *stage_, *walls_, *presence_, *grid_;
  QLineEdit *value_, *to_, *lamp_, *size_, *height_, *percent_, *source_, *stated_on_, *words_;
  QPlainTextEdit* map_;
  QLabel *map_words_, *trouble_;
};

}  // namespace sunbreak::desktop
