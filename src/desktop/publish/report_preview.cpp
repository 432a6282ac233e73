#include "desktop/publish/report_preview.h"

#include <QAbstractTextDocumentLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QScrollBar>
#include <QSvgRenderer>
#include <QTextDocument>
#include <cmath>

#include "desktop/theme/theme.h"
#include "drawing/svg_canvas.h"

namespace sunbreak::desktop {
namespace {

constexpr int strip_px = 480, line_px = 48, least_width_px = 800;
constexpr std::size_t strips_kept = 24;

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

PreviewedPage page_of(const WholeTest& whole, report::ReportOptions options) {
  options.figures_apart = true;
  options.pictures = whole.pictures;
  options.earlier = whole.earlier;
  options.audits = whole.audits(whole.evaluations, options.units);
  options.standing = whole.line_up();
  const report::HtmlReport made = report::html_report(whole.evaluations, options);
  PreviewedPage page{made.html, {}};
  for (const drawing::Drawing& figure : made.figures) page.figures.push_back(drawing::svg_of(figure, options.palette));
  return page;
}

/// A report laid out; narrower than its tables need it is made smaller as a whole. Made, drawn and taken apart by one
/// thread.
class ReportPreview::Page : public QTextDocument {
 public:
  Page(PreviewedPage page, const QFont& font, int width) : figures_(std::move(page.figures)) {
    setDefaultFont(font);
    setDocumentMargin(8);
    setHtml(QString::fromUtf8(in_shipped_font(page.html)));
    setTextWidth(std::max(width, least_width_px));
    scale_ = width / textWidth();
    height_ = static_cast<int>(std::ceil(scale_ * size().height()));
  }
  int height() const { return height_; }

  QImage strip(int top, int width, double ratio, const QPalette& palette) {
    QImage image(QSizeF(width * ratio, strip_px * ratio).toSize(), QImage::Format_ARGB32_Premultiplied);
    image.setDevicePixelRatio(ratio);
    image.fill(palette.color(QPalette::Base));
    QPainter p(&image);
    p.translate(0, -top);
    p.scale(scale_, scale_);
    QAbstractTextDocumentLayout::PaintContext context;
    context.palette = palette;
    context.clip = QRectF(0, top / scale_, width / scale_, strip_px / scale_);
    p.setClipRect(context.clip);
    documentLayout()->draw(&p, context);
    return image;
  }

 protected:
  QVariant loadResource(int type, const QUrl& name) override {
    const auto number = static_cast<std::size_t>(name.path().toInt());
    if (name.scheme() == "data") return QTextDocument::loadResource(type, name);
    if (type != QTextDocument::ImageResource || name.scheme() != "figure" || number >= figures_.size()) return {};
    const QImage image = drawn(figures_[number]);
    addResource(type, name, image);
    return image;
  }

 private:
  std::vector<std::string> figures_;
  int height_ = 0;
  double scale_ = 1;
};

ReportPreview::ReportPreview(QWidget* parent) : QAbstractScrollArea(parent), layout_(this), drawing_(this, layout_) {
  setAccessibleName(tr("Preview of the report"));
  setFocusPolicy(Qt::StrongFocus);
  setFrameShape(QFrame::NoFrame);
  setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOn);  // so that the width does not change with what is shown
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  verticalScrollBar()->setSingleStep(line_px);
}

void ReportPreview::show_report(std::function<WholeTest()> whole, const report::ReportOptions& options) {
  whole_ = std::move(whole);
  options_ = options;
  lay_out();
}

void ReportPreview::lay_out() {
  if (!whole_) return;
  laid_out_for_ = viewport()->width();
  layout_.ask(
      [whole = whole_, options = options_, font = text_font(14), width = laid_out_for_, keeper = layout_.keeper()](
          auto) { return keeper.keep(std::make_unique<Page>(page_of(whole(), options), font, width)); },
      [this](std::shared_ptr<Page> page) { put_in_place(std::move(page)); }, [this] { put_in_place(nullptr); });
  viewport()->update();
}

void ReportPreview::put_in_place(std::shared_ptr<Page> page) {
  drawing_.drop();
  page_ = std::move(page);
  strips_.clear();
  adjust_scroll_bar();
  viewport()->update();
  draw_next();
}

QString ReportPreview::words() const {
  if (page_) return {};
  return layout_.working() || !whole_
             ? tr("Preparing the preview…")
             : tr("There is no preview: the message below says why. Come back to this stage to try again.");
}

void ReportPreview::page(int by) {
  verticalScrollBar()->triggerAction(by < 0 ? QAbstractSlider::SliderPageStepSub : QAbstractSlider::SliderPageStepAdd);
}

void ReportPreview::adjust_scroll_bar() {
  verticalScrollBar()->setPageStep(viewport()->height());
  verticalScrollBar()->setRange(0, page_ ? std::max(0, page_->height() - viewport()->height()) : 0);
}

/// Draws the next strip that is in sight and not there yet; then those just out of sight.
void ReportPreview::draw_next() {
  if (!page_ || drawing_.working()) return;
  const int top = verticalScrollBar()->value(), bottom = top + viewport()->height();
  const auto missing = [&](int from, int until) -> std::optional<int> {
    for (int at = std::max(0, from / strip_px * strip_px); at < std::min(until, page_->height()); at += strip_px)
      if (!strips_.contains(at)) return at;
    return {};
  };
  std::optional<int> next = missing(top, bottom);
  const bool in_sight = next.has_value();
  if (!in_sight) emit shown();
  if (!next) next = missing(top - strip_px, bottom + strip_px);
  if (!next) return;
  drawing_.ask([page = page_, at = *next, width = viewport()->width(), ratio = devicePixelRatioF(),
                palette = palette()](auto) { return page->strip(at, width, ratio, palette); },
               [this, at = *next, top](QImage image) {
                 if (strips_.size() >= strips_kept) {
                   const bool first_is_farther = top - strips_.begin()->first > strips_.rbegin()->first - top;
                   strips_.erase(first_is_farther ? strips_.begin() : std::prev(strips_.end()));
                 }
                 strips_[at] = std::move(image);
                 viewport()->update();
                 draw_next();
               });
}

void ReportPreview::paintEvent(QPaintEvent*) {
  QPainter p(viewport());
  p.fillRect(viewport()->rect(), palette().color(QPalette::Base));
  if (!page_) {
    p.setPen(theme().quiet);
    p.setFont(text_font(14));
    p.drawText(viewport()->rect().adjusted(16, 16, -16, -16), Qt::AlignTop | Qt::AlignLeft | Qt::TextWordWrap, words());
    return;
  }
  for (const auto& [at, image] : strips_) p.drawImage(QPointF(0, at - verticalScrollBar()->value()), image);
}

void ReportPreview::resizeEvent(QResizeEvent*) {
  adjust_scroll_bar();
  if (viewport()->width() != laid_out_for_)
    lay_out();
  else
    draw_next();
}

void ReportPreview::scrollContentsBy(int, int) {
  viewport()->update();
  draw_next();
}

void ReportPreview::keyPressEvent(QKeyEvent* event) {
  QScrollBar* bar = verticalScrollBar();
  if (event->key() == Qt::Key_Home)
    bar->triggerAction(QAbstractSlider::SliderToMinimum);
  else if (event->key() == Qt::Key_End)
    bar->triggerAction(QAbstractSlider::SliderToMaximum);
  else
    QAbstractScrollArea::keyPressEvent(event);
}

}  // namespace sunbreak::desktop
