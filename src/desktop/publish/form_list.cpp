#include "desktop/publish/form_list.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include "desktop/publish/publish_log.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

FormList::FormList(QWidget* parent) : QScrollArea(parent) {
  setObjectName("formList");
  setWidgetResizable(true);
  setFrameShape(QFrame::NoFrame);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setFocusPolicy(Qt::NoFocus);
  auto* inside = new QWidget(viewport());
  inside->setAutoFillBackground(false);
  viewport()->setAutoFillBackground(false);
  auto* column = new QVBoxLayout(inside);
  column->setContentsMargins(0, 0, 6, 0);
  column->setSpacing(2);
  for (const publishing::Form& form : publishing::forms()) {
    auto* line = new QHBoxLayout;
    auto* tick = new QCheckBox(text_of(form.label), inside);
    const QString id = text_of(form.id);
    tick->setObjectName("form-" + id);
    tick->setChecked(QSettings().value("publish/ticked/" + id, true).toBool());
    connect(tick, &QCheckBox::toggled, this, [id](bool on) { QSettings().setValue("publish/ticked/" + id, on); });
    line->addWidget(tick, 1);
    auto* write = new QPushButton(tr("Write"), inside);
    write->setProperty("plain", true);
    write->setObjectName("write" + id.left(1).toUpper() + id.mid(1));
    write->setAccessibleName(tr("Write: %1").arg(text_of(form.label)));
    connect(write, &QPushButton::clicked, this, [this, form = &form] { emit wanted(form); });
    line->addWidget(write);
    column->addLayout(line);
    auto* words = wrapped_label(text_of(form.meant_for), inside);
    words->setProperty("quiet", true);
    words->setObjectName("standing-" + id);
    words->setContentsMargins(24, 0, 0, 4);
    column->addWidget(words);
    rows_.push_back({&form, tick, words, write});
  }
  column->addStretch();
  setWidget(inside);
}

std::vector<const publishing::Form*> FormList::ticked() const {
  std::vector<const publishing::Form*> forms;
  for (const Row& row : rows_)
    if (row.tick->isChecked() && row.tick->isEnabled()) forms.push_back(row.form);
  return forms;
}

void FormList::show_standing(const PublishLog& log, const record::TestRecord& test) {
  for (const Row& row : rows_) {
    const bool can = !row.form->needs || row.form->needs(test);
    row.tick->setEnabled(can);
    row.write->setEnabled(can);
    row.words->setToolTip(text_of(row.form->meant_for));
    const PublishLog::Standing standing = can ? log.standing(text_of(row.form->id)) : PublishLog::Standing{};
    row.words->setText(!can                       ? text_of(row.form->lacks)
                       : standing.words.isEmpty() ? text_of(row.form->meant_for)
                                                  : standing.words);
    set_tone(row.words, standing.words.isEmpty() ? "" : standing.current ? "good" : "attention");
  }
}

}  // namespace sunbreak::desktop
