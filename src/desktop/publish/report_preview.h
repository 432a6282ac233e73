#pragma once

#include <QTextBrowser>
#include <memory>
#include <string>
#include <vector>

#include "desktop/desk/background.h"
#include "report/html_report.h"

namespace sunbreak::desktop {

/// Shows a report as it will look. The page is made and laid out off the interface thread, a late answer to a stale
/// question is dropped, and figures are drawn when they come into sight.
class ReportPreview : public QTextBrowser {
  Q_OBJECT
 public:
  explicit ReportPreview(QWidget* parent = nullptr);

  /// Prepares another state of the report and puts it in place of the present one, keeping the place that was read.
  void show_report(std::shared_ptr<const evaluation::Evaluation> evaluation, const report::ReportOptions& options);

 signals:
  void shown();

 protected:
  QVariant loadResource(int type, const QUrl& name) override;

 private:
  struct Page {
    std::unique_ptr<QTextDocument> document;
    std::vector<std::string> figures;
  };
  void put_in_place(const std::shared_ptr<Page>& page);

  Background background_;
  std::vector<std::string> figures_;
};

}  // namespace sunbreak::desktop
