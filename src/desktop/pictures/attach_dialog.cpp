#include "desktop/pictures/attach_dialog.h"

#include <QApplication>
#include <QBuffer>
#include <QClipboard>
#include <QComboBox>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QPushButton>
#include <QSettings>
#include <QUrl>
#include <QVBoxLayout>

#include "desktop/pictures/picture_image.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "exchange/files/read_file.h"

namespace sunbreak::desktop {
namespace {

constexpr int preview_px = 300;

/// What was in the file and is not kept.
QString told_words(const pictures::CleanPicture& picture) {
  if (picture.told_place && picture.told_device)
    return QObject::tr("The file told where and with what it was taken: that is not kept, and not published.");
  if (picture.told_place) return QObject::tr("The file told where it was taken: that is not kept, and not published.");
  if (picture.told_device)
    return QObject::tr("The file told with what it was taken: that is not kept, and not published.");
  return QObject::tr("What a camera or a program wrote beside the picture is not kept.");
}

bool attach_bytes(Desk& desk, const std::string& bytes, const QString& origin, const PictureOf& of, QWidget* parent) {
  auto clean = pictures::clean_picture(bytes);
  if (!clean) {
    desk.warn(origin + ": " + text_of(clean.problem().sentence()));
    return false;
  }
  return AttachDialog(desk, std::move(clean.value()), origin, of, parent).exec() == QDialog::Accepted;
}

}  // namespace

AttachDialog::AttachDialog(Desk& desk, pictures::CleanPicture picture, const QString& origin, const PictureOf& of,
                           QWidget* parent)
    : QDialog(parent),
      desk_(desk),
      picture_(std::move(picture)),
      origin_(origin),
      owners_(picture_owners(desk)),
      background_(this) {
  setObjectName("attachDialog");
  setWindowTitle(tr("Attach a picture"));
  resize(640, 380);
  const bool listed = std::any_of(owners_.begin(), owners_.end(), [&](const auto& o) { return o.first == of; });
  if (!listed) owners_.insert(owners_.begin(), {of, of.fixture_id != 0 ? tr("the fixture") : tr("the test")});
  auto* outer = new QVBoxLayout(this);
  outer->setContentsMargins(24, 20, 24, 16);
  outer->setSpacing(12);
  auto* middle = new QHBoxLayout;
  middle->setSpacing(20);
  preview_ = new QLabel(tr("Drawing it…"), this);
  preview_->setFixedSize(preview_px, 260);
  preview_->setAlignment(Qt::AlignCenter);
  middle->addWidget(preview_);
  auto* fields = new QGridLayout;
  fields->setVerticalSpacing(8);
  fields->setHorizontalSpacing(8);
  const auto put = [&](int row, const QString& name, QWidget* field, const char* object) {
    field->setObjectName(object);
    field->setAccessibleName(name);
    fields->addWidget(quiet_label(name, this), row, 0);
    fields->addWidget(field, row, 1);
  };
  caption_ = new QLineEdit(this);
  caption_->setPlaceholderText(tr("what it shows"));
  put(0, tr("Caption"), caption_, "pictureCaption");
  kind_ = new QComboBox(this);
  kind_->addItem(tr("photograph"), "photograph");
  kind_->addItem(tr("thermal picture"), "thermal");
  kind_->addItem(tr("spectrum"), "spectrum");
  if (of.temperature_id) kind_->setCurrentIndex(1);
  put(1, tr("Kind"), kind_, "pictureKind");
  of_ = new QComboBox(this);
  for (const auto& [owner, words] : owners_) of_->addItem(words);
  for (std::size_t i = 0; i < owners_.size(); ++i)
    if (owners_[i].first == of) of_->setCurrentIndex(static_cast<int>(i));
  put(2, tr("Of"), of_, "pictureOf");
  auto* size = quiet_label(tr("%1, %2 × %3 pixels, %4 MB")
                               .arg(origin)
                               .arg(picture_.width_px)
                               .arg(picture_.height_px)
                               .arg(static_cast<double>(picture_.bytes.size()) / (1 << 20), 0, 'f', 1),
                           this);
  size->setWordWrap(true);
  fields->addWidget(size, 3, 0, 1, 2);
  told_ = wrapped_label(told_words(picture_), this);
  told_->setObjectName("pictureTold");
  if (picture_.told_place || picture_.told_device) set_tone(told_, "good");
  fields->addWidget(told_, 4, 0, 1, 2);
  fields->setRowStretch(5, 1);
  fields->setColumnStretch(1, 1);
  middle->addLayout(fields, 1);
  outer->addLayout(middle, 1);
  auto* row = new QHBoxLayout;
  row->addStretch();
  auto* leave = new QPushButton(tr("Leave it"), this);
  leave->setAutoDefault(false);
  auto* take = primary_button(tr("Attach"), this);
  take->setObjectName("attachPicture");
  take->setDefault(true);
  row->addWidget(leave);
  row->addWidget(take);
  outer->addLayout(row);
  connect(leave, &QPushButton::clicked, this, &QDialog::reject);
  connect(take, &QPushButton::clicked, this, &AttachDialog::attach);
  caption_->setFocus();
  background_.ask([bytes = picture_.bytes](auto) { return image_of(bytes, preview_px); },
                  [this](const QImage& image) {
                    if (!image.isNull())
                      return preview_->setPixmap(QPixmap::fromImage(
                          image.scaled(preview_->size(), Qt::KeepAspectRatio, Qt::SmoothTransformation)));
                    preview_->setText(tr("It cannot be drawn: it is damaged."));
                    findChild<QPushButton*>("attachPicture")->setEnabled(false);
                  });
}

void AttachDialog::attach() {
  const auto at = static_cast<std::size_t>(of_->currentIndex());
  if (at >= owners_.size()) return reject();
  if (!attach_picture(desk_, owners_[at].first, picture_, text_of(kind_->currentData().toString()),
                      text_of(caption_->text().trimmed()), text_of(QFileInfo(origin_).fileName())))
    return;
  accept();
  desk_.say(tr("The picture is with %1. Ctrl+Z takes it out again.").arg(owners_[at].second));
}

bool is_picture_file(const QString& path) {
  const std::string first = exchange::first_bytes(text_of(path), 4);
  return first.starts_with("\x89PNG") || first.starts_with("\xFF\xD8\xFF");
}

bool attach_files(Desk& desk, const QStringList& paths, const PictureOf& of, QWidget* parent) {
  bool any = false;
  for (const QString& path : paths) {
    const auto bytes = exchange::read_file(text_of(path), pictures::largest_bytes);
    if (!bytes) {
      desk.warn(text_of(bytes.problem().sentence()));
      continue;
    }
    any = attach_bytes(desk, bytes.value(), QFileInfo(path).fileName(), of, parent) || any;
  }
  return any;
}

bool attach_from_file(Desk& desk, const PictureOf& of, QWidget* parent) {
  const QStringList paths =
      files_to_open(parent, QObject::tr("Pictures to attach"), QSettings().value("pictures/folder").toString(),
                    QObject::tr("Pictures (*.png *.jpg *.jpeg);;All files (*)"));
  if (paths.isEmpty()) return false;
  QSettings().setValue("pictures/folder", QFileInfo(paths.first()).absolutePath());
  return attach_files(desk, paths, of, parent);
}

bool clipboard_holds_picture() {
  const QMimeData* held = QApplication::clipboard()->mimeData();
  if (!held) return false;
  if (held->hasImage()) return true;
  const QList<QUrl> urls = held->urls();
  return !urls.isEmpty() && urls.first().isLocalFile() && is_picture_file(urls.first().toLocalFile());
}

bool clipboard_holds_only_picture() {
  const QMimeData* held = QApplication::clipboard()->mimeData();
  return clipboard_holds_picture() && (!held->hasText() || held->hasUrls());
}

bool attach_from_clipboard(Desk& desk, const PictureOf& of, QWidget* parent) {
  const QMimeData* held = QApplication::clipboard()->mimeData();
  if (!clipboard_holds_picture()) {
    desk.say(QObject::tr("The clipboard holds no picture."));
    return false;
  }
  if (!held->hasImage()) {
    QStringList paths;
    for (const QUrl& url : held->urls())
      if (url.isLocalFile()) paths << url.toLocalFile();
    return attach_files(desk, paths, of, parent);
  }
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  qvariant_cast<QImage>(held->imageData()).save(&buffer, "PNG");
  return attach_bytes(desk, bytes.toStdString(), QObject::tr("the clipboard"), of, parent);
}

}  // namespace sunbreak::desktop
