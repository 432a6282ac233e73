#pragma once

#include <QString>
#include <QStringList>
#include <vector>

class QWidget;

namespace sunbreak::desktop {

/// One way on from a question.
struct Answer {
  enum Weight { Plain, Leads };
  QString words;
  const char* name;  ///< of its button
  Weight weight = Plain;
};

/// A question, or a message that asks what to do about it: what there is to know, and a button for each answer. The
/// first one has the keyboard.
struct Question {
  QString title, text;
  QStringList details{};
  const char* name = "question";  ///< of its window
  std::vector<Answer> answers;
};

/// Asks and waits; the place of the answer, or none (−1) where the question was closed.
int ask(QWidget* parent, const Question& question);

}  // namespace sunbreak::desktop
