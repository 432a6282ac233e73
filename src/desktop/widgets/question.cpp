#include "desktop/widgets/question.h"

#include <QDialog>
#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {
namespace {
constexpr int text_width = 480, most_height = 240;
}

int ask(QWidget* parent, const Question& question) {
  QDialog dialog(parent);
  dialog.setObjectName(question.name);
  dialog.setWindowTitle(question.title);
  dialog.setAccessibleDescription(question.text);
  auto* column = new QVBoxLayout(&dialog);
  column->setContentsMargins(24, 16, 24, 16);
  column->setSpacing(12);
  auto* text = wrapped_label(question.text, &dialog);
  text->setObjectName("questionText");
  text->setFixedWidth(text_width);
  text->setTextInteractionFlags(Qt::TextSelectableByMouse);
  column->addWidget(text);
  if (!question.details.isEmpty()) {
    auto* details = wrapped_label(QStringLiteral("· ") + question.details.join("\n· "), &dialog);
    details->setObjectName("questionDetails");
    auto* scroll = new QScrollArea(&dialog);
    scroll->setWidget(details);
    scroll->setWidgetResizable(true);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setMinimumHeight(std::min(most_height, details->heightForWidth(text_width) + 8));
    column->addWidget(scroll);
  }
  auto* row = new QHBoxLayout;
  row->setSpacing(8);
  row->addStretch();
  int chosen = -1;
  for (int i = 0; i < static_cast<int>(question.answers.size()); ++i) {
    const Answer& answer = question.answers[static_cast<std::size_t>(i)];
    auto* button =
        answer.weight == Answer::Leads ? primary_button(answer.words, &dialog) : new QPushButton(answer.words, &dialog);
    button->setObjectName(answer.name);
    button->setAutoDefault(true);
    QObject::connect(button, &QPushButton::clicked, &dialog, [&, i] {
      chosen = i;
      dialog.accept();
    });
    row->addWidget(button);
    if (i == 0) {
      button->setDefault(true);
      button->setFocus();
    }
  }
  column->addLayout(row);
  dialog.exec();
  return chosen;
}

}  // namespace sunbreak::desktop
