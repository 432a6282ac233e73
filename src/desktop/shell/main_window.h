#pragma once

#include <QMainWindow>
#include <memory>
#include <optional>
#include <vector>

#include "desktop/desk/background.h"
#include "desktop/desk/desk.h"
#include "desktop/desk/stage.h"

class QLabel;
class QStackedWidget;
class QToolButton;

namespace sunbreak::desktop {

class HomeView;
class InstrumentHub;
class Mast;
class SensorStrip;
class StageView;
class TestLog;
class WorkLine;

/// The frame: work line, mast, stage, sensor strip. Owns the desk and with it the lab book.
class MainWindow : public QMainWindow {
 public:
  explicit MainWindow(std::unique_ptr<book::Book> book, QWidget* parent = nullptr);
  ~MainWindow() override;

  Desk& desk() { return *desk_; }
  InstrumentHub& instruments() { return *hub_; }
  TestLog& log() { return *log_; }
  void show_home();
  void show_stage(Stage stage);
  /// At a stage, or at the one that its state suggests; `then` once it is there.
  void open_test(record::Id id, std::optional<Stage> stage = {}, const std::function<void()>& then = {});
  /// Opens the test that was on the desk when a window on this lab book was closed last, at its stage.
  void reopen_last_test();
  /// Lab books that were opened lately, the latest first, whether they are there or not.
  static QStringList remembered_books();
  /// Takes in a file of readings or a data package; what it is goes by its content.
  void bring_in_file(const QString& path);
  /// The same for several at once: tables find their heights and settings by their names, to be confirmed.
  void bring_in_files(const QStringList& paths);

 protected:
  void closeEvent(QCloseEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void build_frame();
  void build_stages();
  void build_menu();
  void add_key(const QKeySequence& keys, const std::function<void()>& act);
  void bring_in_table(std::string bytes, const QString& origin, const std::string& source);
  bool taken_as_altered(const QString& path, const std::string& altered);
  void choose_file();
  void open_book(const QString& path);
  void choose_book();
  void new_book();
  QStringList recent_books() const;
  void remember_book();
  void remember_test();
  void paste();
  void copy();
  void plan_like_this_sweep();
  void show_instruments();
  void toggle_look();
  void set_arms_length(bool on);
  void refresh();
  void show_notices();
  /// Looks on another thread whether the lab book's file is as it was written, and says where it is not.
  void check_file();
  StageView* front() const;

  std::unique_ptr<Desk> desk_;
  std::unique_ptr<InstrumentHub> hub_;
  std::unique_ptr<TestLog> log_;
  WorkLine* work_line_;
  QWidget *top_, *strip_;
  Mast* mast_;
  QStackedWidget* stack_;
  QLabel *book_name_, *notice_;
  QToolButton *menu_, *units_;
  HomeView* home_;
  std::vector<StageView*> views_;  ///< in the order of stages()
  std::optional<Stage> stage_;
  std::uint64_t checked_at_ = 0;  ///< the lab book's revision that was looked at last
  std::string damage_;            ///< what in the lab book's file is not as it was written, once that was looked at
  Background file_check_{this};
};

}  // namespace sunbreak::desktop
