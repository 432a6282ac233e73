#pragma once

#include <QDialog>

#include "desktop/shelf/record_fields.h"

namespace sunbreak::desktop {

class PictureStrip;

/// The sheet of a fixture: what the box says of it beside what was found, under headings that fold, and its pictures.
class SheetDialog : public QDialog {
 public:
  SheetDialog(Desk& desk, record::Id fixture_id, QWidget* parent = nullptr);
};

/// Adds the sheet's fields to a form, a part for each heading.
void add_sheet_fields(Form& form, Desk& desk, const WhichId& fixture_id);

}  // namespace sunbreak::desktop
