#pragma once

#include <QComboBox>
#include <QLineEdit>
#include <QWidget>
#include <functional>
#include <vector>

class QGridLayout;
class QLabel;

namespace sunbreak::desktop {

struct Choice {
  QString text;
  QVariant value;
};

/// A column of named fields over some record. Each field reads its text from the book and hands back what was typed; a
/// refusal is shown under the field in words, and what was typed stays there.
class Form : public QWidget {
  Q_OBJECT
 public:
  using Show = std::function<QString()>;
  using Take = std::function<QString(const QString&)>;  ///< empty where taken, else why not

  explicit Form(QWidget* parent = nullptr);

  void heading(const QString& text);
  void note(const Show& text, const char* tone = "");
  /// Whether what is typed into a line may be tried before it is kept; not where keeping it does more than change the
  /// book.
  enum class Preview { On, Off };
  QLineEdit* line(const QString& name, const Show& show, const Take& take, const Show& unit = {},
                  const QString& hint = {}, Preview preview = Preview::On);
  QComboBox* choice(const QString& name, const std::function<std::vector<Choice>()>& options,
                    const std::function<QVariant()>& show, const std::function<QString(const QVariant&)>& take);
  void button_row(const std::vector<std::pair<QString, std::function<void()>>>& buttons);

  /// Called while a line is typed, with the change that keeping it would make; set before lines are added.
  std::function<void(const std::function<QString()>& change)> on_typing;

  /// Reads every field anew; a field being typed in, or with a refusal under it, keeps its text.
  void refresh();
  /// Forgets refusals and what they refused: the record they were about is another one, or as it was before.
  void drop_refusals();
  void set_editable(bool editable);

 private:
  int add_row(const QString& name, QWidget* editor, const Show& unit);
  void commit(QLineEdit* edit, const Show& show, const Take& take, QLabel* problem);

  QGridLayout* grid_;
  std::vector<std::function<void()>> refreshers_, droppers_;
  std::vector<QWidget*> editors_;
};

}  // namespace sunbreak::desktop
