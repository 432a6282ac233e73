#include "desktop/audit/audit_work.h"

#include "desktop/desk/whole_test.h"

namespace sunbreak::desktop {

AuditWork::AuditWork(Desk& desk, QObject* parent) : QObject(parent), desk_(desk), background_(this) {
  connect(&desk_, &Desk::changed, this, &AuditWork::follow);
  // Targets are of the shelf: a change there changes no test.
  connect(&desk_, &Desk::book_changed, this, [this](const book::Change&) { made_for_.reset(); });
}

void AuditWork::set_in_sight(bool in_sight) {
  in_sight_ = in_sight;
  if (in_sight) follow();
}

void AuditWork::follow() {
  if (!in_sight_) return;
  const auto evaluation = desk_.worked_out().evaluation();
  if (desk_.shown() != shown_) {
    shown_ = desk_.shown();
    audit_.reset(), made_for_.reset();
  }
  if (!evaluation || (made_for_ == evaluation && units_ == desk_.units())) return;
  made_for_ = evaluation, units_ = desk_.units();
  missed_ = false;
  background_.ask([evaluation, audited = auditing(desk_, desk_.units())](
                      std::stop_token stop) { return audited(evaluation, stop); },
                  [this, shown = shown_](std::shared_ptr<const evaluation::Audit> audit) {
                    if (!audit || desk_.shown() != shown) return;
                    audit_ = std::move(audit);
                    emit changed();
                  },
                  [this] {
                    made_for_.reset();
                    missed_ = true;
                    emit changed();
                  });
  emit changed();
}

}  // namespace sunbreak::desktop
