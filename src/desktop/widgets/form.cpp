#include "desktop/widgets/form.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QStyle>

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

}  // namespace

Form::Form(QWidget* parent) : QWidget(parent), grid_(new QGridLayout(this)) {
  grid_->setContentsMargins(0, 0, 0, 0);
  grid_->setHorizontalSpacing(8);
  grid_->setVerticalSpacing(4);
  grid_->setColumnMinimumWidth(0, 136);
  grid_->setColumnStretch(1, 1);
  grid_->setColumnMinimumWidth(2, 56);
}

void Form::heading(const QString& text) {
  const int row = grid_->rowCount();
  if (row > 1) grid_->setRowMinimumHeight(row, 16);
  auto* label = heading_label(text, this);
  grid_->addWidget(label, row + 1, 0, 1, 3);
}

void Form::note(const Show& text, const char* tone) {
  auto* label = wrapped_label({}, this);
  if (*tone)
    set_tone(label, tone);
  else
    label->setProperty("quiet", true);
  grid_->addWidget(label, grid_->rowCount(), 0, 1, 3);
  refreshers_.push_back([=] {
    label->setText(text());
    label->setVisible(!label->text().isEmpty());
  });
  refreshers_.back()();
}

int Form::add_row(const QString& name, QWidget* editor, const Show& unit) {
  const int row = grid_->rowCount();
  auto* label = quiet_label(name, this);
  label->setBuddy(editor);
  editor->setAccessibleName(name);
  grid_->addWidget(label, row, 0);
  grid_->addWidget(editor, row, 1, 1, unit ? 1 : 2);
  if (unit) {
    auto* unit_label = quiet_label(unit(), this);
    grid_->addWidget(unit_label, row, 2);
    refreshers_.push_back([=] { unit_label->setText(unit()); });
  }
  editors_.push_back(editor);
  return row;
}

void Form::commit(QLineEdit* edit, const Show& show, const Take& take, QLabel* problem) {
  if (edit->isReadOnly()) return;
  if (edit->text() == show()) return mark_wrong(edit, problem, {});
  mark_wrong(edit, problem, take(edit->text().trimmed()));
  if (problem->text().isEmpty()) show_text(edit, show());
}

QLineEdit* Form::line(const QString& name, const Show& show, const Take& take, const Show& unit, const QString& hint,
                      Preview preview) {
  auto* edit = new QLineEdit(this);
  edit->setPlaceholderText(hint);
  const int row = add_row(name, edit, unit);
  auto* problem = wrapped_label({}, this);
  set_tone(problem, "bad");
  problem->hide();
  grid_->addWidget(problem, row + 1, 1, 1, 2);
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
  return edit;
}

QComboBox* Form::choice(const QString& name, const std::function<std::vector<Choice>()>& options,
                        const std::function<QVariant()>& show, const std::function<QString(const QVariant&)>& take) {
  auto* box = new QComboBox(this);
  box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  box->setMinimumContentsLength(12);
  const int row = add_row(name, box, {});

  auto* problem = wrapped_label({}, this);
  set_tone(problem, "bad");
  problem->hide();
  grid_->addWidget(problem, row + 1, 1, 1, 2);
  const auto fill = [=] {
    const QSignalBlocker quiet(box);
    box->clear();
    for (const Choice& c : options()) box->addItem(c.text, c.value);
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
  return box;
}

void Form::button_row(const std::vector<std::pair<QString, std::function<void()>>>& buttons) {
  auto* line = new QHBoxLayout;
  line->setSpacing(8);
  for (const auto& [text, act] : buttons) {
    auto* button = new QPushButton(text, this);
    connect(button, &QPushButton::clicked, this, [act = act] { act(); });
    line->addWidget(button);
    editors_.push_back(button);
  }
  line->addStretch();
  grid_->addLayout(line, grid_->rowCount(), 0, 1, 3);
}

void Form::refresh() {
  for (const auto& refresher : refreshers_) refresher();
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
