#pragma once

#include <QComboBox>
#include <QLineEdit>
#include <QWidget>
#include <functional>
#include <vector>

class QGridLayout;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace sunbreak::desktop {

struct Choice {
  QString text;
  QVariant value;
};

/// A column of named fields over some record. Each field reads its text from the book and hands back what was typed; a
/// refusal is shown under the field in words, and what was typed stays there.
class Form : public QWidget {
 public:
  using Show = std::function<QString()>;
  using Take = std::function<QString(const QString&)>;  ///< empty where taken, else why not

  explicit Form(QWidget* parent = nullptr);

  void heading(const QString& text);
  /// Begins a part that folds: what is added from here on stands under its name, which says how much of it is filled.
  /// Whether it is open is remembered under `key`.
  enum class Begins { Folded, Open };
  void section(const QString& title, const QString& key, Begins as = Begins::Folded);
  /// Opens the part that a field stands in and puts the keyboard into the field; false where there is no such field.
  bool reveal(const QString& object_name);
  void note(const Show& text, const char* tone = "");
  /// Whether what is typed into a line may be tried before it is kept; not where keeping it does more than change the
  /// book.
  enum class Preview { On, Off };
  QLineEdit* line(const QString& name, const Show& show, const Take& take, const Show& unit = {},
                  const QString& hint = {}, Preview preview = Preview::On);
  QComboBox* choice(const QString& name, const std::function<std::vector<Choice>()>& options,
                    const std::function<QVariant()>& show, const std::function<QString(const QVariant&)>& take);
  /// Two editors of one thing side by side, such as what is stated of it and what was found: lines, or choices where
  /// there are any.
  struct Cell {
    QString name;  ///< what screen readers say after the row's name
    QString object;
    Show show;
    Take take;
    QString hint{};
    std::vector<Choice> choices{};
  };
  /// What the two columns of the pairs below it are.
  void pair_heads(const QString& first, const QString& second);
  void pair(const QString& name, const Cell& first, const Cell& second, const Show& unit = {});
  void button_row(const std::vector<std::pair<QString, std::function<void()>>>& buttons);

  /// Called while a line is typed, with the change that keeping it would make; set before lines are added.
  std::function<void(const std::function<QString()>& change)> on_typing;

  /// Reads every field anew; a field being typed in, or with a refusal under it, keeps its text.
  void refresh();
  /// Forgets refusals and what they refused: the record they were about is another one, or as it was before.
  void drop_refusals();
  void set_editable(bool editable);

 private:
  /// What stands under one name.
  struct Part {
    QString title, key;
    QPushButton* name = nullptr;  ///< none for what stands before the first part
    QWidget* body = nullptr;
    QGridLayout* grid = nullptr;
    std::vector<QWidget*> editors{};
  };

  void begin_part(const QString& title, const QString& key);
  QGridLayout* grid() { return parts_.back().grid; }
  QWidget* body() { return parts_.back().body; }
  void show_part(const Part& part, bool open);
  void name_part(const Part& part);
  void align_columns();
  int add_row(const QString& name, QWidget* shown, const std::vector<QWidget*>& editors, const Show& unit);
  QLabel* problem_under(int row);
  void work_line(QLineEdit* edit, QLabel* problem, const Show& show, const Take& take, Preview preview);
  void work_box(QComboBox* box, QLabel* problem, const std::function<std::vector<Choice>()>& options,
                const std::function<QVariant()>& show, const std::function<QString(const QVariant&)>& take);
  void commit(QLineEdit* edit, const Show& show, const Take& take, QLabel* problem);

  QVBoxLayout* column_;
  std::vector<Part> parts_;
  std::vector<QLabel*> names_, units_;
  std::vector<std::function<void()>> refreshers_, droppers_;
  std::vector<QWidget*> editors_;
};

}  // namespace sunbreak::desktop
