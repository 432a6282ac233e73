#include "desktop/publish/report_preview.h"

#include <QPainter>
#include <QScrollBar>
#include <QSvgRenderer>

#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {

/// The page names the font as its readers may have it; on this screen the shipped one stands in.
QByteArray in_shipped_font(const std::string& text) {
  return QByteArray::fromStdString(text).replace("B612,", "'Sunbreak Sans',");
}

QImage drawn(const std::string& svg) {
  QSvgRenderer renderer(in_shipped_font(svg));
  QImage image(renderer.defaultSize() * 2, QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::transparent);
  QPainter p(&image);
  renderer.render(&p);
  p.end();
  image.setDevicePixelRatio(2);
  return image;
}

}  // namespace

ReportPreview::ReportPreview(QWidget* parent) : QTextBrowser(parent), background_(this) {
  setOpenLinks(false);
  setAccessibleName(tr("Preview of the report"));
}

void ReportPreview::show_report(std::shared_ptr<const evaluation::Evaluation> evaluation,
                                const report::ReportOptions& options) {
  if (document()->isEmpty()) setPlainText(tr("Preparing the preview…"));
  background_.ask(
      [=, home = thread(), font = text_font(14), width = viewport()->width()](auto) {
        report::HtmlReport report = report::html_report(*evaluation, options);
        auto page = std::make_shared<Page>();
        page->figures = std::move(report.figures);
        page->document = std::make_unique<QTextDocument>();
        page->document->setDefaultFont(font);
        page->document->setDocumentMargin(8);
        page->document->setHtml(QString::fromUtf8(in_shipped_font(report.html)));
        page->document->setTextWidth(width);
        page->document->moveToThread(home);
        return page;
      },
      [this](const std::shared_ptr<Page>& page) { put_in_place(page); });
}

void ReportPreview::put_in_place(const std::shared_ptr<Page>& page) {
  const int place = verticalScrollBar()->value();
  figures_ = std::move(page->figures);
  page->document->setParent(this);
  setDocument(page->document.release());  // deletes the one before, which is this widget's child
  verticalScrollBar()->setValue(place);
  emit shown();
}

QVariant ReportPreview::loadResource(int type, const QUrl& name) {
  const auto number = static_cast<std::size_t>(name.path().toInt());
  if (type != QTextDocument::ImageResource || name.scheme() != "figure" || number >= figures_.size()) return {};
  const QImage image = drawn(figures_[number]);
  document()->addResource(type, name, image);
  return image;
}

}  // namespace sunbreak::desktop
