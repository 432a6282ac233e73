#pragma once

#include <deque>
#include <filesystem>

#include "desktop/desk/background.h"
#include "desktop/desk/desk.h"
#include "desktop/desk/stage_view.h"
#include "publishing/publish.h"
#include "report/html_report.h"

class QCheckBox;
class QLabel;
class QPushButton;
class QLineEdit;

namespace sunbreak::desktop {

class FormList;
class ReportPreview;
struct LastWritten;

/// Publish: the report as it will look, what the disclosure still lacks, and the files that go out.
class PublishView : public StageView {
 public:
  explicit PublishView(Desk& desk, QWidget* parent = nullptr);
  void arrive() override;
  bool take_keyboard() override;
  bool page(int by) override;
  std::vector<KeyHint> keys() const override;

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QWidget* build_side();
  void refresh();
  report::ReportOptions chosen_options() const;
  void choose_parts();
  void write(const std::vector<const publishing::Form*>& forms);
  void go_on_writing();
  QString written_so_far() const;
  void take_written(int job, record::Id test, const publishing::Written& written, const LastWritten& as);
  void stop_writing();
  void show_last();

  Desk& desk_;
  ReportPreview* preview_;
  QLineEdit* folder_;
  QCheckBox* all_sweeps_;
  QLabel *gaps_, *written_;
  QPushButton *parts_, *fill_gaps_, *write_all_, *stop_;
  QWidget* after_;  ///< what can be done with the file written last
  FormList* forms_;
  QString first_gap_;  ///< the field of Rig that the first thing not stated goes into
  std::deque<const publishing::Form*> waiting_;
  int job_ = 0, to_write_ = 0, done_ = 0;  ///< forms
  int files_ = 0;                          ///< written of them
  QStringList troubles_;
  std::filesystem::path last_file_;
  Background writing_;
};

}  // namespace sunbreak::desktop
