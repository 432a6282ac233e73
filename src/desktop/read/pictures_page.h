#pragma once

#include <QWidget>
#include <vector>

#include "desktop/desk/desk.h"

class QLabel;
class QVBoxLayout;

namespace sunbreak::desktop {

class PictureStrip;

/// The pictures of the sweep at hand, of the test, its checks and its fixture; and what grew under it, as dated notes
/// with pictures.
class PicturesPage : public QWidget {
 public:
  explicit PicturesPage(Desk& desk, QWidget* parent = nullptr);
  void refresh();

 private:
  /// A dated note, to be typed over.
  struct NoteRow {
    record::Id id = 0;
    QWidget* row = nullptr;
    QLineEdit *on = nullptr, *words = nullptr;
    QLabel* problem = nullptr;
  };
  void build_notes(QVBoxLayout* column);
  void add_note();
  void show_notes();
  NoteRow note_row(record::Id id);
  void store_note(const NoteRow& note);

  Desk& desk_;
  QLabel *of_sweep_, *of_check_;
  PictureStrip *sweep_, *test_, *fixture_;
  std::vector<PictureStrip*> checks_;
  QWidget *check_strips_, *note_rows_;
  std::vector<NoteRow> notes_;
};

}  // namespace sunbreak::desktop
