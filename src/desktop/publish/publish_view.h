#pragma once

#include <deque>
#include <filesystem>

#include "desktop/desk/background.h"
#include "desktop/desk/desk.h"
#include "desktop/desk/stage_view.h"
#include "report/html_report.h"

class QCheckBox;
class QLabel;
class QPushButton;
class QLineEdit;

namespace sunbreak::desktop {

class ReportPreview;

/// Publish: the report as it will look, what the disclosure still lacks, and the files that go out.
class PublishView : public StageView {
  Q_OBJECT
 public:
  explicit PublishView(Desk& desk, QWidget* parent = nullptr);
  void arrive() override;
  bool page(int by) override;
  std::vector<KeyHint> keys() const override;

 private:
  QWidget* build_side();
  void refresh();
  report::ReportOptions chosen_options() const;
  void write(const QString& ending, std::function<std::string()> make);
  void go_on_writing();
  void write_page();
  void write_package();
  void write_table();

  Desk& desk_;
  ReportPreview* preview_;
  QLineEdit* folder_;
  QCheckBox *all_sweeps_, *readings_;
  QLabel *gaps_, *written_;
  QPushButton* fill_gaps_;
  QString first_gap_;  ///< the field of Rig that the first thing not stated goes into
  struct Job {
    QString ending;
    std::function<std::string()> make;
  };
  std::deque<Job> waiting_;  ///< to be written after the one under way
  Background writing_;
};

}  // namespace sunbreak::desktop
