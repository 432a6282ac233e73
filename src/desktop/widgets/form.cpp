#include "desktop/widgets/form.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QStyle>
#include <QVBoxLayout>
#include <algorithm>

#include "desktop/widgets/elided_combo.h"
#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {
namespace {

/// From its beginning: a long text in a short field is read from the left.
void show_text(QLineEdit* edit, const QString& text) {
  edit->setText(text);
  edit->setCursorPosition(0);
}

void mark_wrong(QLineEdit* edit, QLabel* problem, const QString& words) {
  problem->setText(words);
  problem->setVisible(!words.isEmpty());
  if (edit->property("wrong").toBool() == !words.isEmpty()) return;
  edit->setProperty("wrong", !words.isEmpty());
  edit->style()->unpolish(edit);
  edit->style()->polish(edit);
}

bool offers(const QComboBox& box, const std::vector<Choice>& choices) {
  if (box.count() != std::ssize(choices)) return false;
  for (int i = 0; i < box.count(); ++i) {
    const Choice& choice = choices[static_cast<std::size_t>(i)];
    if (box.itemText(i) != choice.text || box.itemData(i) != choice.value) return false;
  }
  return true;
}

}  // namespace

Form::Form(QWidget* parent) : QWidget(parent), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(0);
  begin_part({}, {});
}

void Form::begin_part(const QString& title, const QString& key) {
  Part part{title, key};
  if (!key.isEmpty()) {
    part.name = new QPushButton(this);
    part.name->setObjectName("part_" + key);
    part.name->setProperty("part", true);
    column_->addWidget(part.name);
  }
  part.body = new QWidget(this);
  part.grid = new QGridLayout(part.body);
  part.grid->setContentsMargins(0, 0, 0, key.isEmpty() ? 8 : 12);
  part.grid->setHorizontalSpacing(8);
  part.grid->setVerticalSpacing(4);
  part.grid->setColumnStretch(1, 1);
  column_->addWidget(part.body);
  parts_.push_back(part);
}

void Form::section(const QString& title, const QString& key, Begins as) {
  begin_part(title, key);
  const Part part = parts_.back();
  const QString setting = "parts open/" + key;
  show_part(part, QSettings().value(setting, as == Begins::Open).toBool());
  const std::size_t place = parts_.size() - 1;
  connect(part.name, &QPushButton::clicked, this, [this, place, setting] {
    const bool open = parts_[place].body->isHidden();
    QSettings().setValue(setting, open);
    show_part(parts_[place], open);
  });
}

void Form::show_part(const Part& part, bool open) {
  part.body->setVisible(open);
  name_part(part);
}

void Form::name_part(const Part& part) {
  const auto filled = std::count_if(part.editors.begin(), part.editors.end(), [](const QWidget* editor) {
    if (const auto* edit = qobject_cast<const QLineEdit*>(editor)) return !edit->text().isEmpty();
    const auto* box = qobject_cast<const QComboBox*>(editor);
    return box && box->currentData() != QVariant("") && box->currentData() != QVariant(-1);
  });
  const bool open = !part.body->isHidden();
  part.name->setText(tr("%1 %2: %3 of %4 filled")
                         .arg(open ? QStringLiteral("−") : QStringLiteral("+"), part.title)
                         .arg(filled)
                         .arg(part.editors.size()));
  part.name->setToolTip(open ? tr("Fold it away") : tr("Show its %1 fields").arg(part.editors.size()));
  part.name->setAccessibleName(tr("%1, %2 of %3 filled, %4")
                                   .arg(part.title)
                                   .arg(filled)
                                   .arg(part.editors.size())
                                   .arg(open ? tr("open") : tr("folded")));
}

bool Form::reveal(const QString& object_name) {
  for (const Part& part : parts_)
    for (QWidget* editor : part.editors)
      if (editor->objectName() == object_name) {
        if (part.body->isHidden()) show_part(part, true);
        editor->setFocus(Qt::ShortcutFocusReason);
        if (auto* edit = qobject_cast<QLineEdit*>(editor)) edit->selectAll();
        return true;
      }
  return false;
}

void Form::heading(const QString& text) {
  const int row = grid()->rowCount();
  if (row > 1) grid()->setRowMinimumHeight(row, 16);
  grid()->addWidget(heading_label(text, body()), row + 1, 0, 1, 3);
}

void Form::note(const Show& text, const char* tone) {
  auto* label = wrapped_label({}, body());
  if (*tone)
    set_tone(label, tone);
  else
    label->setProperty("quiet", true);
  grid()->addWidget(label, grid()->rowCount(), 0, 1, 3);
  refreshers_.push_back([=] {
    label->setText(text());
    label->setVisible(!label->text().isEmpty());
  });
  refreshers_.back()();
}

/// The fields of all parts stand under one another.
void Form::align_columns() {
  const auto widest = [](const std::vector<QLabel*>& labels, int least) {
    for (const QLabel* label : labels) least = std::max(least, label->sizeHint().width());
    return least;
  };
  const int name = widest(names_, 136), unit = widest(units_, 56);
  for (const Part& part : parts_) {
    part.grid->setColumnMinimumWidth(0, name);
    part.grid->setColumnMinimumWidth(2, unit);
  }
}

int Form::add_row(const QString& name, QWidget* shown, const std::vector<QWidget*>& editors, const Show& unit) {
  const int row = grid()->rowCount();
  auto* label = quiet_label(name, body());
  label->setBuddy(editors.front());
  for (QWidget* editor : editors)
    if (editor->accessibleName().isEmpty()) editor->setAccessibleName(name);
  grid()->addWidget(label, row, 0);
  grid()->addWidget(shown, row, 1, 1, unit ? 1 : 2);
  names_.push_back(label);
  if (unit) {
    auto* unit_label = quiet_label(unit(), body());
    grid()->addWidget(unit_label, row, 2);
    refreshers_.push_back([=] { unit_label->setText(unit()); });
    units_.push_back(unit_label);
  }
  for (QWidget* editor : editors) {
    editors_.push_back(editor);
    parts_.back().editors.push_back(editor);
  }
  align_columns();
  return row;
}

/// Where a refusal of what stands in a row is told.
QLabel* Form::problem_under(int row) {
  auto* problem = wrapped_label({}, body());
  set_tone(problem, "bad");
  problem->hide();
  grid()->addWidget(problem, row + 1, 1, 1, 2);
  return problem;
}

void Form::commit(QLineEdit* edit, const Show& show, const Take& take, QLabel* problem) {
  if (edit->isReadOnly()) return;
  if (edit->text() == show()) return mark_wrong(edit, problem, {});
  mark_wrong(edit, problem, take(edit->text().trimmed()));
  if (problem->text().isEmpty()) show_text(edit, show());
}

QLineEdit* Form::line(const QString& name, const Show& show, const Take& take, const Show& unit, const QString& hint,
                      Preview preview) {
  auto* edit = new QLineEdit(body());
  edit->setPlaceholderText(hint);
  work_line(edit, problem_under(add_row(name, edit, {edit}, unit)), show, take, preview);
  return edit;
}

void Form::work_line(QLineEdit* edit, QLabel* problem, const Show& show, const Take& take, Preview preview) {
  connect(edit, &QLineEdit::editingFinished, this, [=, this] { commit(edit, show, take, problem); });
  if (on_typing && preview == Preview::On)
    connect(edit, &QLineEdit::textEdited, this,
            [=, this](const QString& text) { on_typing([=] { return take(text.trimmed()); }); });
  droppers_.push_back([=] {
    if (!edit->property("wrong").toBool()) return;
    mark_wrong(edit, problem, {});
    show_text(edit, show());
  });
  refreshers_.push_back([=] {
    if (edit->hasFocus() && edit->isModified()) return;
    if (edit->property("wrong").toBool()) return;
    if (const QString text = show(); edit->text() != text) show_text(edit, text);
  });
  refreshers_.back()();
}

QComboBox* Form::choice(const QString& name, const std::function<std::vector<Choice>()>& options,
                        const std::function<QVariant()>& show, const std::function<QString(const QVariant&)>& take) {
  auto* box = new ElidedCombo(12, body());
  work_box(box, problem_under(add_row(name, box, {box}, {})), options, show, take);
  return box;
}

void Form::work_box(QComboBox* box, QLabel* problem, const std::function<std::vector<Choice>()>& options,
                    const std::function<QVariant()>& show, const std::function<QString(const QVariant&)>& take) {
  const auto fill = [=] {
    const QSignalBlocker quiet(box);
    const std::vector<Choice> choices = options();
    if (!offers(*box, choices)) {
      box->clear();
      for (const Choice& c : choices) box->addItem(c.text, c.value);
    }
    box->setCurrentIndex(std::max(0, box->findData(show())));
  };
  connect(box, &QComboBox::activated, this, [=](int index) {
    const QString words = take(box->itemData(index));
    problem->setText(words);
    problem->setVisible(!words.isEmpty());
    fill();
  });
  refreshers_.push_back(fill);
  droppers_.push_back([=] { problem->hide(); });
  fill();
}

void Form::pair_heads(const QString& first, const QString& second) {
  auto* line = new QHBoxLayout;
  line->setSpacing(8);
  for (const QString& head : {first, second}) line->addWidget(quiet_label(head, body()), 1);
  grid()->addLayout(line, grid()->rowCount(), 1);
}

void Form::pair(const QString& name, const Cell& first, const Cell& second, const Show& unit) {
  auto* both = new QWidget(body());
  auto* line = new QHBoxLayout(both);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(8);
  std::vector<QWidget*> editors;
  for (const Cell* cell : {&first, &second}) {
    QWidget* editor = nullptr;
    if (cell->choices.empty()) {
      auto* edit = new QLineEdit(both);
      edit->setPlaceholderText(cell->hint);
      editor = edit;
    } else {
      editor = new ElidedCombo(6, both);
    }
    editor->setObjectName(cell->object);
    editor->setAccessibleName(name + ", " + cell->name);
    line->addWidget(editor, 1);
    editors.push_back(editor);
  }
  QLabel* problem = problem_under(add_row(name, both, editors, unit));
  for (std::size_t i = 0; i < editors.size(); ++i) {
    const Cell& cell = i == 0 ? first : second;
    if (auto* edit = qobject_cast<QLineEdit*>(editors[i]))
      work_line(edit, problem, cell.show, cell.take, Preview::Off);
    else
      work_box(
          qobject_cast<QComboBox*>(editors[i]), problem, [choices = cell.choices] { return choices; },
          [show = cell.show] { return QVariant(show()); },
          [take = cell.take](const QVariant& v) { return take(v.toString()); });
  }
}

void Form::button_row(const std::vector<std::pair<QString, std::function<void()>>>& buttons) {
  auto* line = new QHBoxLayout;
  line->setSpacing(8);
  for (const auto& [text, act] : buttons) {
    auto* button = new QPushButton(text, body());
    connect(button, &QPushButton::clicked, this, [act = act] { act(); });
    line->addWidget(button);
    editors_.push_back(button);
  }
  line->addStretch();
  grid()->addLayout(line, grid()->rowCount(), 0, 1, 3);
}

void Form::refresh() {
  for (const auto& refresher : refreshers_) refresher();
  for (const Part& part : parts_)
    if (part.name) name_part(part);
}

void Form::drop_refusals() {
  for (const auto& drop : droppers_) drop();
}

void Form::set_editable(bool editable) {
  for (QWidget* editor : editors_)
    if (auto* edit = qobject_cast<QLineEdit*>(editor))
      edit->setReadOnly(!editable);
    else
      editor->setEnabled(editable);
}

}  // namespace sunbreak::desktop
