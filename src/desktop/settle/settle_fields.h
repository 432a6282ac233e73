#pragma once

#include <QWidget>

#include "desktop/settle/settle_work.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;

namespace sunbreak::desktop {

class BandSlider;

/// What is asked: target, rule, area, how sure, and the limits. Each is kept with the test.
class SettleFields : public QWidget {
 public:
  SettleFields(Desk& desk, SettleWork& work, QWidget* parent = nullptr);
  void refresh();

 private:
  QLineEdit* number_field(const char* object, const QString& name);
  void choose_target();
  void choose_band(double low_ppfd, double high_ppfd);
  void take_rule();
  void take_area();
  void take_limit(QLineEdit* edit, std::optional<double> record::Settling::*member, bool length);
  void refuse(QWidget* at, const QString& why);
  void accept(QWidget* at);

  Desk& desk_;
  SettleWork& work_;
  QComboBox *target_, *rule_, *area_, *sure_;
  QLineEdit *rule_value_, *hours_, *low_height_, *high_height_, *most_watts_, *most_ppfd_;
  QLabel *rule_unit_, *length_unit_, *problem_;
  BandSlider* band_;
  QCheckBox* beyond_;
  std::pair<record::Id, record::Id> shown_;  ///< test and configuration
};

}  // namespace sunbreak::desktop
