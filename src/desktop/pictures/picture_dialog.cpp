#include "desktop/pictures/picture_dialog.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "desktop/pictures/picture_image.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

constexpr int large_width_px = 860, large_height_px = 520;

}  // namespace

PictureDialog::PictureDialog(Desk& desk, const KeptPicture& picture, QWidget* parent)
    : QDialog(parent), background_(this) {
  setObjectName("pictureDialog");
  setWindowTitle(picture.caption.empty() ? tr("Picture") : text_of(picture.caption));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(10);
  picture_ = new QLabel(tr("Drawing it…"), this);
  picture_->setMinimumSize(large_width_px, large_height_px);
  picture_->setAlignment(Qt::AlignCenter);
  column->addWidget(picture_, 1);
  auto* row = new QHBoxLayout;
  row->setSpacing(8);
  row->addWidget(quiet_label(tr("Caption"), this));
  auto* caption = new QLineEdit(text_of(picture.caption), this);
  caption->setObjectName("keptCaption");
  caption->setAccessibleName(tr("Caption"));
  caption->setReadOnly(desk.read_only());
  row->addWidget(caption, 1);
  row->addWidget(quiet_label(tr("%1 · %2 × %3 px · %4 MB")
                                 .arg(text_of(picture.kind))
                                 .arg(picture.width_px)
                                 .arg(picture.height_px)
                                 .arg(picture.size_bytes / double(1 << 20), 0, 'f', 1),
                             this));
  auto* done = primary_button(tr("Done"), this);
  done->setObjectName("pictureDone");
  row->addWidget(done);
  column->addLayout(row);
  connect(done, &QPushButton::clicked, this, [this, &desk, picture, caption] {
    const std::string words = text_of(caption->text().trimmed());
    if (words == picture.caption || describe_picture(desk, picture, picture.kind, words)) accept();
  });
  background_.ask(
      [file = desk.book().file(), digest = picture.digest](auto) { return kept_image(file, digest, large_width_px); },
      [this](const QImage& image) {
        if (image.isNull())
          return picture_->setText(
              tr("The picture's file is damaged or missing. Nothing else is: attach it again from where it came."));
        picture_->setPixmap(QPixmap::fromImage(
            image.scaled(large_width_px, large_height_px, Qt::KeepAspectRatio, Qt::SmoothTransformation)));
      });
}

}  // namespace sunbreak::desktop
