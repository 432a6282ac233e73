#pragma once

#include <QDialog>
#include <string>

class QLabel;
class QTableWidget;

namespace sunbreak::desktop {

/// Asks what an index of the user's own weighs, and how much.
class OwnIndexDialog : public QDialog {
 public:
  /// With the weights of the index that a line-up is by now, if it is by one.
  explicit OwnIndexDialog(const std::string& figure, QWidget* parent = nullptr);
  /// The index as a line-up's figure.
  const std::string& figure() const { return figure_; }
  void accept() override;

 private:
  QTableWidget* table_;
  QLabel* problem_;
  std::string figure_;
};

}  // namespace sunbreak::desktop
