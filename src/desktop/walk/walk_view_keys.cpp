#include <QApplication>
#include <QClipboard>
#include <QKeyEvent>
#include <QLineEdit>

#include "desktop/instruments/instrument_hub.h"
#include "desktop/walk/film_view.h"
#include "desktop/walk/walk_side.h"
#include "desktop/walk/walk_view.h"
#include "desktop/widgets/field_parsers.h"

/// The keys of Walk.
namespace sunbreak::desktop {

bool WalkView::letter_key(int key) {
  switch (key) {
    case Qt::Key_C:
      go_to_next_check();
      return true;
    case Qt::Key_F:
      if (desk_.view() && course_.go_to_reference(desk_.sweep_on_walk())) follow_course();
      return true;
    case Qt::Key_H:
      if (!taker_.hands_free() && desk_.view() && desk_.view()->complete()) {
        side_->show_mode(false, tones_.silenced(), desk_.test()->test.samples_a_reading);
        say(tr("Every station of this sweep is read: hands-free has nothing to do. Space reads the one at hand again."),
            "attention");
        return true;
      }
      taker_.set_hands_free(!taker_.hands_free() && !desk_.read_only());
      side_->show_mode(taker_.hands_free(), tones_.silenced(), desk_.test()->test.samples_a_reading);
      if (taker_.hands_free())
        say(tr("Hands-free: a value that holds still is taken, and the next station is shown. H stops."), "good");
      follow_course(true);
      return true;
    case Qt::Key_L:
      list_checks();
      return true;
    case Qt::Key_M:
      side_->value->setText({});
      if (course_.turn() != Turn::Station) return skip(), true;
      if (current() >= 0 && desk_.edits().declare_missing(current())) {
        say(tr("Kept as a missing station: the figures will say so."), "attention");
        advance();
      }
      return true;
    case Qt::Key_N:
      skip();
      return true;
    case Qt::Key_P:
      set_filmed(film_->isHidden());
      return true;
    case Qt::Key_R:
      if (current() < 0) return true;
      if (course_.toggle_repeat(desk_.sweep_on_walk()))
        follow_course(true);
      else
        say(tr("This station has no reading yet: a repeat is of one that has."), "attention");
      return true;
    case Qt::Key_T:
      tones_.silence(!tones_.silenced());
      side_->show_mode(taker_.hands_free(), tones_.silenced(), desk_.test()->test.samples_a_reading);
      say(tones_.silenced() ? tr("Tones are silent.") : tr("Tones sound where there is a sound device."), "good");
      tones_.play(Tone::Kept);
      return true;
    case Qt::Key_V:
      set_arms_length(!arms_length_);
      return true;
    case Qt::Key_W:
      set_arms_length(false);
      side_->watts->setFocus(Qt::ShortcutFocusReason);
      side_->watts->selectAll();
      return true;
    default:
      return false;
  }
}

bool WalkView::edit_key(QKeyEvent* key) {
  const bool empty = side_->value->text().isEmpty();
  const auto move_by = [this](int columns, int rows) {
    went_there_ = true;
    if (desk_.view()) course_.go_by(desk_.view()->layout, columns, rows), follow_course();
    return true;
  };
  switch (key->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
      accept_typed();
      return true;
    case Qt::Key_Space:
      if (!empty) {
        say(tr("A value is being typed: Enter keeps it, Escape takes it away; then Space takes the live one."),
            "attention");
        return true;
      }
      accept_live();
      return true;
    case Qt::Key_Left:
      return move_by(-1, 0);
    case Qt::Key_Right:
      return move_by(1, 0);
    case Qt::Key_Up:
      return move_by(0, 1);
    case Qt::Key_Down:
      return move_by(0, -1);
    case Qt::Key_BraceLeft:
      desk_.step_configuration(-1);
      return true;
    case Qt::Key_BraceRight:
      desk_.step_configuration(1);
      return true;
    case Qt::Key_BracketLeft:
      desk_.step_stop(-1);
      return true;
    case Qt::Key_BracketRight:
      desk_.step_stop(1);
      return true;
    case Qt::Key_Delete:
      if (!empty) return false;
      if (current() >= 0) desk_.edits().clear_station(current());
      return true;
    case Qt::Key_Backspace:
      if (!empty) return false;
      went_there_ = true;
      if (desk_.view()) course_.go_back(desk_.sweep_on_walk()), follow_course();
      return true;
    case Qt::Key_Escape:
      if (empty && !film_->isHidden())
        set_filmed(false);
      else if (empty)
        set_arms_length(false);
      side_->value->setText({});
      return true;
    default:
      break;
  }
  if (key->matches(QKeySequence::Paste)) {
    const QString text = QApplication::clipboard()->text();
    if (!text.trimmed().contains('\t') && !text.trimmed().contains('\n')) return false;
    emit pasted(text);
    return true;
  }
  // In the middle of a number a letter is a slip, seen in the field and told at Enter, and no command.
  return empty && !(key->modifiers() & ~Qt::ShiftModifier) && letter_key(key->key());
}

bool WalkView::watts_key(QKeyEvent* key) {
  switch (key->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
      take_watts(Kept::ByEnter);
      if (goes_on_from_watts_ && desk_.sweep() && desk_.sweep()->power_w) {
        side_->value->setFocus(Qt::OtherFocusReason);
        go_on();
        return true;
      }
      break;
    case Qt::Key_Space: {
      const auto live = hub_.channel(instruments::Measures::Power).live();
      if (!live) {
        say(tr("There are no live watts to take: no wall meter is connected, or it is silent. Type them, or connect it "
               "with Ctrl+I."),
            "attention");
        return true;
      }
      side_->watts->setText(QString::number(*live, 'f', 1));
      take_watts(Kept::ByEnter);
      break;
    }
    case Qt::Key_BraceLeft:
    case Qt::Key_BraceRight:
    case Qt::Key_BracketLeft:
    case Qt::Key_BracketRight:
      return edit_key(key);
    case Qt::Key_Escape:
      side_->watts->setText(desk_.sweep() ? show_number(desk_.sweep()->power_w) : QString());
      break;
    default: {
      // Where nothing is typed a letter is what it is in the field of readings.
      const QString present = desk_.sweep() ? show_number(desk_.sweep()->power_w) : QString();
      const bool untouched = side_->watts->text() == present || stands_offered();
      if (!untouched || key->key() == Qt::Key_W || key->modifiers() & ~Qt::ShiftModifier) return false;
      if (key->key() < Qt::Key_A || key->key() > Qt::Key_Z) return false;
      side_->value->setFocus(Qt::OtherFocusReason);
      return letter_key(key->key());
    }
  }
  side_->value->setFocus(Qt::OtherFocusReason);
  return true;
}

std::vector<KeyHint> WalkView::keys() const {
  return {
      {tr("Enter"), tr("keep the typed value and go to the next station; on a sweep that is read, to the next one")},
      {tr("Space"), tr("take the sensor's live value, or the mean of as many as Rig says, and go on; a doubtful "
                       "one is looked at longer, "
                       "and Space takes it as it is")},
      {tr("H"), tr("hands-free: take what holds still, and go on")},
      {tr("Arrows"), tr("another station")},
      {tr("N"), tr("skip: the next unread station; this one comes again at the end")},
      {tr("Backspace"), tr("the station before, where nothing is typed")},
      {tr("R"), tr("read the same station again, for repeatability")},
      {tr("F"), tr("read the reference station again, for drift")},
      {tr("C"), tr("go to the next station that is worth a look")},
      {tr("L"), tr("list all checks; set one aside with a reason")},
      {tr("M"), tr("declare the station missing: it cannot be read")},
      {tr("Delete"), tr("take the station's reading back")},
      {tr("W"), tr("the watts at the wall: Enter keeps what is typed, Space takes the meter's live value")},
      {tr("V"), tr("arm's length: full screen, readable from two meters; Escape ends it")},
      {tr("P"), tr("made to be filmed: value, station and map, nothing else; Escape ends it")},
      {tr("T"), tr("tones on or off")},
      {tr("Ctrl+V"), tr("bring in a block of cells from a spreadsheet")},
      {tr("Ctrl+C"), tr("copy the sweep as a table, far row first")}};
}

}  // namespace sunbreak::desktop
