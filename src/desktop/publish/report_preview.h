#pragma once

#include <QAbstractScrollArea>
#include <QImage>
#include <map>
#include <memory>

#include "desktop/desk/background.h"
#include "desktop/desk/whole_test.h"
#include "report/html_report.h"

namespace sunbreak::desktop {

/// A page and its figures as SVG documents, by the N of their "figure:N".
struct PreviewedPage {
  std::string html;
  std::vector<std::string> figures;
};
/// The page of a test, with what it takes beside its evaluation.
PreviewedPage page_of(const WholeTest& whole, report::ReportOptions options);

/// Shows a report as it will look. The page is made, laid out and drawn off the interface thread, a strip at a time as
/// it comes into sight; a late answer to a stale question is dropped.
class ReportPreview : public QAbstractScrollArea {
  Q_OBJECT
 public:
  explicit ReportPreview(QWidget* parent = nullptr);

  /// Prepares another state of the report and puts it in place of the present one, keeping the place that was read.
  /// `whole` gets hold of the test, on another thread.
  void show_report(std::function<WholeTest()> whole, const report::ReportOptions& options);
  /// What stands in place of the report while there is none; empty where there is one.
  QString words() const;
  /// Scrolls a page up (−1) or down (+1).
  void page(int by);

 signals:
  /// The strips in sight are drawn.
  void shown();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void scrollContentsBy(int dx, int dy) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  class Page;
  void lay_out();
  void put_in_place(std::shared_ptr<Page> page);
  void adjust_scroll_bar();
  void draw_next();

  Background layout_, drawing_;  ///< on one thread
  std::function<WholeTest()> whole_;
  report::ReportOptions options_;
  std::shared_ptr<Page> page_;
  std::map<int, QImage> strips_;  ///< by their place from the top
  int laid_out_for_ = 0;          ///< width
};

}  // namespace sunbreak::desktop
