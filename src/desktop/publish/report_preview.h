#pragma once

#include <QFutureWatcher>
#include <QTextBrowser>
#include <memory>
#include <string>
#include <vector>

#include "report/html_report.h"

namespace sunbreak::desktop {

/// Shows a report as it will look. The page is made and laid out off the interface thread, a late answer to a stale
/// question is dropped, and figures are drawn when they come into sight.
class ReportPreview : public QTextBrowser {
  Q_OBJECT
 public:
  explicit ReportPreview(QWidget* parent = nullptr);
  ~ReportPreview() override;

  /// Prepares another state of the report and puts it in place of the present one, keeping the place that was read.
  void show_report(const record::TestRecord& bundle, const report::ReportOptions& options);

 signals:
  void shown();

 protected:
  QVariant loadResource(int type, const QUrl& name) override;

 private:
  struct Page {
    std::unique_ptr<QTextDocument> document;
    std::vector<std::string> figures;
  };
  void put_in_place();

  QFutureWatcher<std::shared_ptr<Page>> watcher_;
  std::vector<std::string> figures_;
};

}  // namespace sunbreak::desktop
