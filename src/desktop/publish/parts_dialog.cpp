#include "desktop/publish/parts_dialog.h"

#include <QCheckBox>
#include <QSettings>
#include <QVBoxLayout>

#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {
constexpr const char* left_out_key = "publish/leftOut";
}

report::PageParts chosen_parts() {
  report::PageParts parts = report::all_parts;
  for (const QString& id : QSettings().value(left_out_key).toStringList())
    if (const auto part = report::part_named(text_of(id))) parts.reset(static_cast<std::size_t>(*part));
  return parts;
}

void keep_parts(const report::PageParts& parts) {
  QStringList left_out;
  for (const report::PartName& name : report::page_parts())
    if (!has(parts, name.part)) left_out << text_of(name.id);
  QSettings().setValue(left_out_key, left_out);
}

PartsDialog::PartsDialog(const report::PageParts& parts, QWidget* parent) : QDialog(parent), parts_(parts) {
  setObjectName("partsDialog");
  setWindowTitle(tr("What the page has"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 16, 24, 16);
  column->setSpacing(8);
  column->addWidget(wrapped_label(
      tr("What comes first, the sweeps at a glance, notes and the disclosure are always there. The preview follows."),
      this));
  for (const report::PartName& name : report::page_parts()) {
    auto* box = new QCheckBox(text_of(name.label), this);
    box->setObjectName(QStringLiteral("part_") + text_of(name.id));
    box->setChecked(has(parts_, name.part));
    connect(box, &QCheckBox::toggled, this, [this, part = name.part](bool on) {
      parts_.set(static_cast<std::size_t>(part), on);
      emit changed(parts_);
    });
    column->addWidget(box);
  }
  auto* done = primary_button(tr("Done"), this);
  done->setDefault(true);
  connect(done, &QPushButton::clicked, this, &QDialog::accept);
  column->addWidget(done, 0, Qt::AlignRight);
}

}  // namespace sunbreak::desktop
