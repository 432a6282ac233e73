#include "desktop/home/shelf_list.h"

#include <QDialog>
#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QShortcut>
#include <QToolButton>
#include <QVBoxLayout>

#include "book/shelf.h"
#include "desktop/meters/agreement_dialog.h"
#include "desktop/meters/check_lamp_dialog.h"
#include "desktop/meters/lux_factor_dialog.h"
#include "desktop/meters/sensor_light_fields.h"
#include "desktop/pictures/picture_strip.h"
#include "desktop/shelf/record_fields.h"
#include "desktop/shelf/sheet_dialog.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/lux_walk.h"

namespace sunbreak::desktop {
namespace {

enum ShelfRole { ShelfKind = Qt::UserRole, RecordId };

/// The factors of a lux meter, each with the way off the shelf.
void add_lux_factors(Form& form, Desk& desk, const WhichId& id) {
  form.heading(QObject::tr("Its factors"));
  const auto factors = desk.book().all<record::FittedLuxFactor>("WHERE meter_id = ? ORDER BY id", id());
  if (factors.empty()) form.note([] { return QObject::tr("None yet: Lux factor on Home finds them."); });
  for (const record::FittedLuxFactor& f : factors) {
    form.note([&desk, id = f.id]() -> QString {
      const auto now = desk.book().find<record::FittedLuxFactor>(id);
      const auto expanded = now ? evaluation::whole_k_expanded(*now) : std::nullopt;
      return now ? QObject::tr("%1: k = %2 %3, %4 to %5 lx (%6)")
                       .arg(text_of(now->name))
                       .arg(now->k, 0, 'f', 5)
                       .arg(expanded ? QObject::tr("± %1").arg(*expanded, 0, 'f', 5) : QObject::tr("(± not stated)"))
                       .arg(now->lowest_lux, 0, 'f', 0)
                       .arg(now->highest_lux, 0, 'f', 0)
                       .arg(text_of(now->made_on))
                 : QObject::tr("Taken out; Ctrl+Z on Home brings it back.");
    });
    form.button_row({{QObject::tr("Take %1 out").arg(text_of(f.name)), [&desk, id = f.id] {
                        const auto used = desk.book().all<record::Test>("WHERE lux_factor_id = ?", id);
                        desk.edits().make(QObject::tr("take a lux factor out"), [&](book::Edit& e) {
                          for (record::Test test : used) {
                            test.lux_factor_id = std::nullopt;
                            e.save(test);
                          }
                          e.erase<record::FittedLuxFactor>(id);
                        });
                      }}});
  }
}

void edit_record(QWidget* parent, Desk& desk, const QString& kind, record::Id id) {
  QDialog dialog(parent);
  dialog.setObjectName("recordDialog");
  dialog.setWindowTitle(kind == "fixture" ? QObject::tr("Fixture")
                        : kind == "bench" ? QObject::tr("Bench")
                                          : QObject::tr("Meter"));
  auto* form = new Form(&dialog);
  const auto which = [id] { return id; };
  if (kind == "fixture") {
    add_fixture_name(*form, desk, which, QObject::tr("Name"));
    add_fixture_details(*form, desk, which);
    form->heading(QObject::tr("What its maker claims"));
    add_claim_fields(*form, desk, which);
    add_sheet_fields(*form, desk, which);
  } else if (kind == "bench") {
    add_bench_details(*form, desk, which);
    add_bench_size(*form, desk, which);
  } else {
    add_meter_fields(*form, desk, which, text_of(kind));
    if (kind == "quantum") add_sensor_light_fields(*form, desk, which, &dialog);
    if (kind == "lux") add_lux_factors(*form, desk, which);
  }
  form->refresh();
  form->set_editable(!desk.read_only());
  QObject::connect(&desk, &Desk::changed, form, &Form::refresh);
  auto* page = new QWidget(&dialog);
  auto* page_layout = new QVBoxLayout(page);
  page_layout->addWidget(form);
  if (kind == "fixture") {
    page_layout->addWidget(heading_label(QObject::tr("Pictures of the fixture"), page));
    page_layout->addWidget(new PictureStrip(desk, PictureOf::fixture(id), page));
  }
  page_layout->addStretch();
  auto* scroll = new QScrollArea(&dialog);
  scroll->setWidgetResizable(true);
  scroll->setFocusPolicy(Qt::NoFocus);
  scroll->setWidget(page);
  auto* buttons = new QDialogButtonBox(&dialog);
  auto* done = primary_button(QObject::tr("Done"), &dialog);
  done->setAutoDefault(false);
  buttons->addButton(done, QDialogButtonBox::AcceptRole);
  QObject::connect(buttons, &QDialogButtonBox::accepted, &dialog, &QDialog::accept);
  auto* layout = new QVBoxLayout(&dialog);
  layout->addWidget(scroll);
  layout->addWidget(buttons);
  dialog.resize(kind == "fixture" ? 600 : 480, kind == "bench" ? 460 : 620);
  dialog.exec();
}

}  // namespace

ShelfList::ShelfList(Desk& desk, InstrumentHub& hub, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("shelf");
  setAttribute(Qt::WA_StyledBackground);
  setFixedWidth(240);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(16, 12, 8, 12);
  auto* head = new QHBoxLayout;
  head->addWidget(heading_label(tr("Shelf"), this));
  head->addStretch();
  auto* add_button = new QToolButton(this);
  add_button->setText(tr("Add"));
  add_button->setPopupMode(QToolButton::InstantPopup);
  auto* menu = new QMenu(add_button);
  for (const auto& [words, kind] : {std::pair{tr("Fixture"), "fixture"},
                                    {tr("Bench"), "bench"},
                                    {tr("Quantum sensor"), "quantum"},
                                    {tr("Spectrometer"), "spectrometer"},
                                    {tr("Lux meter"), "lux"},
                                    {tr("Wall meter"), "wall"}})
    menu->addAction(words, this, [this, kind = std::string(kind)] { add(kind); });
  add_button->setMenu(menu);
  head->addWidget(add_button);
  layout->addLayout(head);
  list_ = new QListWidget(this);
  list_->setObjectName("shelfList");
  list_->setAccessibleName(tr("Fixtures, benches and meters"));
  list_->setToolTip(tr("Enter opens one, Delete takes it off the shelf"));
  layout->addWidget(list_, 1);
  layout->addWidget(heading_label(tr("Meters, held against each other"), this));
  const auto way = [&]<typename Dialog>(const QString& words, const char* keys, const char* object,
                                        std::type_identity<Dialog>) {
    auto* button = new QPushButton(words, this);
    button->setObjectName(object);
    button->setToolTip(QString::fromLatin1(keys));
    layout->addWidget(button);
    connect(button, &QPushButton::clicked, this, [this, &hub] { Dialog(desk_, hub, window()).exec(); });
    // Anywhere on Home, whatever has the keyboard.
    auto* shortcut = new QShortcut(QKeySequence(QString::fromLatin1(keys)), parent ? parent : this);
    shortcut->setContext(Qt::WidgetWithChildrenShortcut);
    connect(shortcut, &QShortcut::activated, button, &QPushButton::click);
  };
  way(tr("Check lamp…"), "Ctrl+K", "checkLamp", std::type_identity<CheckLampDialog>{});
  way(tr("Lux factor…"), "Ctrl+U", "luxFactorDialogButton", std::type_identity<LuxFactorDialog>{});
  way(tr("Two sensors…"), "Ctrl+T", "twoSensors", std::type_identity<AgreementDialog>{});
  connect(list_, &QListWidget::itemActivated, this, &ShelfList::open_chosen);
  auto* remove = new QShortcut(QKeySequence::Delete, list_);
  remove->setContext(Qt::WidgetShortcut);
  connect(remove, &QShortcut::activated, this, &ShelfList::take_off);
}

void ShelfList::fill() {
  const int row = list_->currentRow();
  list_->clear();
  const auto section = [&](const QString& title) {
    auto* item = new QListWidgetItem(title, list_);
    item->setFlags(Qt::NoItemFlags);
    item->setForeground(theme().quiet);
    item->setSizeHint({0, 28});
  };
  const auto entry = [&](const std::string& name, const QString& kind, record::Id id, const QString& detail) {
    auto* item = new QListWidgetItem(text_of(name), list_);
    item->setData(ShelfKind, kind);
    item->setData(RecordId, QVariant::fromValue<qlonglong>(id));
    item->setToolTip(detail);
    item->setSizeHint({0, 24});
  };
  section(tr("Fixtures"));
  for (const auto& f : book::on_shelf<record::Fixture>(desk_.book())) entry(f.name, "fixture", f.id, text_of(f.kind));
  section(tr("Benches"));
  for (const auto& b : book::on_shelf<record::Bench>(desk_.book()))
    entry(b.name, "bench", b.id, text_of(size_text(b.width_m, b.depth_m, desk_.units())));
  section(tr("Meters"));
  for (const auto& m : book::on_shelf<record::Meter>(desk_.book()))
    entry(m.name, text_of(m.kind), m.id,
          m.calibrated_on.empty() ? tr("calibration not stated") : tr("calibrated %1").arg(text_of(m.calibrated_on)));
  list_->setCurrentRow(row);
}

void ShelfList::open_chosen() {
  const QListWidgetItem* item = list_->currentItem();
  if (item && item->data(RecordId).toLongLong())
    edit_record(window(), desk_, item->data(ShelfKind).toString(), item->data(RecordId).toLongLong());
}

void ShelfList::take_off() {
  const QListWidgetItem* item = list_->currentItem();
  if (!item || !item->data(RecordId).toLongLong()) return;
  const QString kind = item->data(ShelfKind).toString(), name = item->text();
  const record::Id id = item->data(RecordId).toLongLong();
  const bool kept =
      kind == "fixture"
          ? store_member(desk_, id, &record::Fixture::removed, true, tr("take %1 off the shelf").arg(name)).isEmpty()
      : kind == "bench"
          ? store_member(desk_, id, &record::Bench::removed, true, tr("take %1 off the shelf").arg(name)).isEmpty()
          : store_member(desk_, id, &record::Meter::removed, true, tr("take %1 off the shelf").arg(name)).isEmpty();
  if (kept) desk_.say(tr("%1 is off the shelf; tests that use it keep it. Ctrl+Z puts it back.").arg(name));
}

void ShelfList::add(const std::string& kind) {
  record::Id id = 0;
  desk_.edits().make(tr("new entry on the shelf"), [&](book::Edit& e) {
    if (kind == "fixture") {
      record::Fixture f;
      f.name = "New fixture";
      id = e.add(f);
    } else if (kind == "bench") {
      record::Bench b;
      b.name = "New bench";
      id = e.add(b);
    } else {
      record::Meter m;
      m.kind = kind;
      m.name = record::new_meter_name(kind);
      id = e.add(m);
    }
  });
  if (id) edit_record(window(), desk_, text_of(kind), id);
}

}  // namespace sunbreak::desktop
