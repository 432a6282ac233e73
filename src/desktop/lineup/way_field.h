#pragma once

#include <QComboBox>
#include <string>
#include <vector>

#include "core/quantity/display.h"
#include "core/result.h"

namespace sunbreak::desktop {

/// A line-up's way in words, chosen from a list or typed. What stands in it is rounded to the units it is shown in;
/// what it gives is the way that was meant.
class WayField : public QComboBox {
  Q_OBJECT
 public:
  explicit WayField(QWidget* parent);
  /// Shows the way that is asked for, over those that are offered; both by their ids.
  void show_ways(const std::string& asked, const std::vector<std::string>& offered, UnitSystem units);
  bool is_typed_in() const;
  /// Takes the keyboard, ready for another way to be typed.
  void begin();

 signals:
  void chosen(const std::string& way_id);
  /// What was typed is no way.
  void refused(const sunbreak::Problem& problem);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void take(const QString& typed);

  std::string asked_;
  QString asked_text_;
};

}  // namespace sunbreak::desktop
