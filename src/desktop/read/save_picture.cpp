#include "desktop/read/save_picture.h"

#include <QBuffer>
#include <QComboBox>
#include <QDir>
#include <QGridLayout>
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QSettings>
#include <QSvgGenerator>

#include "desktop/theme/theme.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "exchange/files/new_file.h"

namespace sunbreak::desktop {
namespace {

constexpr int least_px = 200, most_px = 12000;
/// Pictures are laid out as the screen is and enlarged, so that figures grow with them.
constexpr double layout_width = 720;

void draw_svg(const DrawPicture& draw, const QSize& size, QIODevice& out) {
  QSvgGenerator svg;
  svg.setOutputDevice(&out);
  svg.setSize(size);
  const double scale = size.width() / layout_width;
  svg.setViewBox(QRectF(0, 0, layout_width, size.height() / scale));
  svg.setTitle(QObject::tr("Map of a sweep"));
  QPainter p(&svg);
  const QRectF room(0, 0, layout_width, size.height() / scale);
  p.fillRect(room, theme().ground);
  draw(p, room, true);
}

}  // namespace

QImage picture(const DrawPicture& draw, const QSize& size) {
  QImage image(size, QImage::Format_RGB32);
  image.fill(theme().ground);
  QPainter p(&image);
  const double scale = size.width() / layout_width;
  p.scale(scale, scale);
  draw(p, QRectF(0, 0, layout_width, size.height() / scale), false);
  return image;
}

std::optional<Problem> write_picture(const DrawPicture& draw, const QSize& size, const QString& file) {
  QBuffer out;
  out.open(QIODevice::WriteOnly);
  if (file.endsWith(".svg", Qt::CaseInsensitive))
    draw_svg(draw, size, out);
  else
    picture(draw, size).save(&out, "PNG");
  return exchange::write_new_file(text_of(file), out.data().toStdString(), exchange::Existing::Replace);
}

SavePicture::SavePicture(DrawPicture draw, const QString& name, QWidget* parent)
    : QDialog(parent), draw_(std::move(draw)), name_(name) {
  setObjectName("savePicture");
  setWindowTitle(tr("Save the picture"));
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(24, 20, 24, 20);
  grid->setSpacing(10);
  kind_ = new QComboBox(this);
  kind_->addItem(tr("PNG, pixels"), "png");
  kind_->addItem(tr("SVG, lines and text that stay sharp"), "svg");
  kind_->setAccessibleName(tr("Kind"));
  width_ = new QLineEdit(QString::number(QSettings().value("picture/width", 1600).toInt()), this);
  height_ = new QLineEdit(QString::number(QSettings().value("picture/height", 1600).toInt()), this);
  width_->setObjectName("pictureWidth");
  height_->setObjectName("pictureHeight");
  problem_ = wrapped_label({}, this);
  set_tone(problem_, "bad");
  int row = 0;
  for (const auto& [text, widget] :
       {std::pair<QString, QWidget*>{tr("Kind"), kind_}, {tr("Width, px"), width_}, {tr("Height, px"), height_}}) {
    grid->addWidget(quiet_label(text, this), row, 0);
    grid->addWidget(widget, row++, 1);
    if (widget->accessibleName().isEmpty()) widget->setAccessibleName(text);
  }
  grid->addWidget(problem_, row++, 0, 1, 2);
  auto* save = primary_button(tr("Save…"), this);
  save->setObjectName("pictureSave");
  save->setDefault(true);
  connect(save, &QPushButton::clicked, this, &SavePicture::save);
  grid->addWidget(save, row, 1, Qt::AlignRight);
}

void SavePicture::save() {
  bool wide = false, high = false;
  const QSize size(width_->text().toInt(&wide), height_->text().toInt(&high));
  if (!wide || !high || size.width() < least_px || size.height() < least_px || size.width() > most_px ||
      size.height() > most_px)
    return problem_->setText(
        tr("Width and height are whole numbers of pixels from %1 to %2.").arg(least_px).arg(most_px));
  const QString kind = kind_->currentData().toString();
  const QString folder = QSettings().value("picture/folder", QDir::homePath()).toString();
  const QString file = file_to_save(this, windowTitle(), folder + "/" + name_ + "." + kind, "*." + kind);
  if (file.isEmpty()) return;
  const QString named = file.endsWith("." + kind, Qt::CaseInsensitive) ? file : file + "." + kind;
  if (const auto problem = write_picture(draw_, size, named)) return problem_->setText(text_of(problem->sentence()));
  QSettings().setValue("picture/width", size.width());
  QSettings().setValue("picture/height", size.height());
  QSettings().setValue("picture/folder", QFileInfo(named).path());
  accept();
}

}  // namespace sunbreak::desktop
