#include "desktop/read/pictures_page.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <set>

#include "desktop/pictures/picture_strip.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

PicturesPage::PicturesPage(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("picturesPage");
  QVBoxLayout* column = scrolled_column(this);
  column->setSpacing(10);
  const auto strip = [&](const char* object) {
    auto* made = new PictureStrip(desk_, PictureOf::test(), this);
    made->setObjectName(object);
    column->addWidget(made);
    return made;
  };
  of_sweep_ = heading_label({}, this);
  column->addWidget(of_sweep_);
  sweep_ = strip("sweepPictures");
  column->addWidget(heading_label(tr("The test as a whole"), this));
  test_ = strip("testPictures");
  of_check_ = heading_label(tr("Checks"), this);
  column->addWidget(of_check_);
  check_strips_ = new QWidget(this);
  auto* strips = new QVBoxLayout(check_strips_);
  strips->setContentsMargins(0, 0, 0, 0);
  column->addWidget(check_strips_);
  column->addWidget(heading_label(tr("The fixture, in all its tests"), this));
  fixture_ = strip("fixturePictures");
  build_notes(column);
  column->addStretch();
}

void PicturesPage::build_notes(QVBoxLayout* column) {
  column->addWidget(thin_rule(this));
  column->addWidget(heading_label(tr("What grew under it"), this));
  auto* about = wrapped_label(
      tr("Dated lines, printed in the report as they are. One plant under one fixture proves nothing, and none is "
         "claimed."),
      this);
  about->setProperty("quiet", true);
  column->addWidget(about);
  note_rows_ = new QWidget(this);
  auto* rows = new QVBoxLayout(note_rows_);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(8);
  column->addWidget(note_rows_);
  auto* row = new QHBoxLayout;
  auto* add = new QPushButton(tr("Add a note"), this);
  add->setObjectName("addNote");
  connect(add, &QPushButton::clicked, this, &PicturesPage::add_note);
  row->addWidget(add);
  row->addStretch();
  column->addLayout(row);
}

void PicturesPage::add_note() {
  if (!desk_.test()) return;
  record::Id id = 0;
  desk_.edits().make(tr("note of what grew"), [&](book::Edit& e) {
    record::GrowthNote note;
    note.test_id = desk_.test()->test.id;
    note.noted_on = book::utc_now().substr(0, 10);
    id = e.add(note);
  });
  refresh();
  for (const NoteRow& note : notes_)
    if (note.id == id) note.words->setFocus(Qt::OtherFocusReason);
}

PicturesPage::NoteRow PicturesPage::note_row(record::Id id) {
  NoteRow note;
  note.id = id;
  note.row = new QWidget(note_rows_);
  auto* column = new QVBoxLayout(note.row);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  auto* line = new QHBoxLayout;
  line->setSpacing(8);
  note.on = new QLineEdit(note.row);
  note.on->setObjectName("noteDay");
  note.on->setAccessibleName(tr("Day of the note"));
  note.on->setFixedWidth(104);
  note.words = new QLineEdit(note.row);
  note.words->setObjectName("noteWords");
  note.words->setAccessibleName(tr("What was seen"));
  note.words->setPlaceholderText(tr("what was seen"));
  auto* remove = new QPushButton(tr("Take it out"), note.row);
  remove->setObjectName("takeNoteOut");
  line->addWidget(note.on);
  line->addWidget(note.words, 1);
  line->addWidget(remove);
  column->addLayout(line);
  note.problem = wrapped_label({}, note.row);
  set_tone(note.problem, "bad");
  note.problem->hide();
  column->addWidget(note.problem);
  column->addWidget(new PictureStrip(desk_, PictureOf::note(id), note.row));
  for (QLineEdit* edit : {note.on, note.words})
    connect(edit, &QLineEdit::editingFinished, this, [this, note] { store_note(note); });
  connect(remove, &QPushButton::clicked, this, [this, id] {
    if (desk_.edits().make(tr("take out a note"), [&](book::Edit& e) { e.erase<record::GrowthNote>(id); }))
      desk_.say(tr("The note is out. Ctrl+Z brings it back."));
  });
  note_rows_->layout()->addWidget(note.row);
  return note;
}

void PicturesPage::store_note(const NoteRow& row) {
  auto note = desk_.book().find<record::GrowthNote>(row.id);
  if (!note) return;
  const QString problem = parse_date_field([&](const QString& day) {
    const std::string on = text_of(day), words = text_of(row.words->text().trimmed());
    if (on == note->noted_on && words == note->words) return QString();
    note->noted_on = on;
    note->words = words;
    return desk_.edits().make(tr("note of what grew"), [&](book::Edit& e) { e.save(*note); }) ? QString()
                                                                                              : tr("Not kept.");
  })(row.on->text().trimmed());
  row.problem->setText(problem);
  row.problem->setVisible(!problem.isEmpty());
}

void PicturesPage::show_notes() {
  const auto& notes = desk_.test()->growth_notes;
  const bool same = std::ranges::equal(notes, notes_, {}, &record::GrowthNote::id, &NoteRow::id);
  if (!same) {
    for (const NoteRow& row : notes_) row.row->deleteLater();
    notes_.clear();
    for (const record::GrowthNote& note : notes) notes_.push_back(note_row(note.id));
  }
  for (std::size_t i = 0; i < notes.size(); ++i) {
    const auto show = [this](QLineEdit* edit, const QString& text) {
      edit->setReadOnly(desk_.read_only());
      if (!(edit->hasFocus() && edit->isModified()) && edit->text() != text) edit->setText(text);
    };
    show(notes_[i].on, text_of(notes[i].noted_on));
    show(notes_[i].words, text_of(notes[i].words));
  }
}

void PicturesPage::refresh() {
  if (!desk_.test()) return;
  const record::TestRecord& test = *desk_.test();
  const record::Sweep* sweep = desk_.sweep();
  of_sweep_->setText(
      sweep ? tr("This sweep, %1 at %2 %")
                  .arg(text_of(length_text(desk_.rung()->height_m, desk_.units())), show_number(desk_.stop()->percent))
            : tr("This sweep is not begun"));
  sweep_->setVisible(sweep != nullptr);
  if (sweep) sweep_->show_of(PictureOf::sweep(sweep->id));
  fixture_->show_of(PictureOf::fixture(test.fixture.id));
  std::vector<PictureOf> checks;
  for (const record::Picture& p : test.pictures) {
    const PictureOf of = PictureOf::check(p.check_rule, p.sweep_id);
    if (!p.check_rule.empty() && std::ranges::find(checks, of) == checks.end()) checks.push_back(of);
  }
  of_check_->setVisible(!checks.empty());
  check_strips_->setVisible(!checks.empty());
  while (checks_.size() < checks.size()) {
    checks_.push_back(new PictureStrip(desk_, PictureOf::test(), check_strips_));
    check_strips_->layout()->addWidget(checks_.back());
  }
  for (std::size_t i = 0; i < checks_.size(); ++i) {
    checks_[i]->setVisible(i < checks.size());
    if (i < checks.size()) checks_[i]->show_of(checks[i]);
  }
  findChild<QPushButton*>("addNote")->setEnabled(!desk_.read_only());
  show_notes();
}

}  // namespace sunbreak::desktop
