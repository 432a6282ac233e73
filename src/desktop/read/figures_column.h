#pragma once

#include <QWidget>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/figures/figure_table.h"
#include "desktop/desk/desk.h"

class QGridLayout;
class QLabel;
class QScrollArea;
class QVBoxLayout;

namespace sunbreak::desktop {

class AreaCurveChart;
class FigureRow;
class Form;
class RingsChart;

/// The figures of the chosen sweep, each with its definition a hover or a Tab away, the rings, the area curve, the
/// target and how much of the footprint lies in its band.
class FiguresColumn : public QWidget {
 public:
  explicit FiguresColumn(Desk& desk, QWidget* parent = nullptr);
  void refresh();
  /// Grade and uncertainties anew, the figures being what they were.
  void show_judgement();

 protected:
  void resizeEvent(QResizeEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void show_definition(const QString& words);
  void define_nothing();
  void place_definition();
  void define(QWidget* widget, const char* id);
  void build(QVBoxLayout* column);
  void choose_lead(int index);
  QHBoxLayout* add_section(QVBoxLayout* column, const QString& title);
  void add_rows(QVBoxLayout* column, Figure::Group group);
  FigureRow* make_row(const Figure& figure, bool large);
  void build_target(QVBoxLayout* column);
  void show_figures(const SweepFigures& f);
  void order_evenness();
  void show_coverage(const SweepFigures& f);
  void show_nominal(const SweepFigures& f);
  void add_nominal_row();
  void show_uncertainty(const SweepFigures& f);
  void show_value(const Figure& figure, FigureRow& row, const FigureSource& source, const Told& shown);
  void show_warnings(const SweepFigures& figures);
  void show_grade();
  void show_reduced();

  Desk& desk_;
  std::vector<std::pair<const Figure*, FigureRow*>> rows_;
  RingsChart* rings_;
  AreaCurveChart* curve_;
  QLabel *definition_, *coverage_words_, *warning_, *grade_, *assumed_, *reduced_, *rings_unit_, *nominal_rule_;
  QWidget *content_, *empty_, *rings_box_, *field_box_;
  QScrollArea* scroll_;
  struct NominalRow {
    QLabel *size, *edge, *day, *inside, *share, *verdict;
  };
  QGridLayout* nominal_;
  QWidget* nominal_box_;
  QLabel* nominal_none_;
  std::vector<NominalRow> nominal_rows_;
  std::optional<std::string> leads_;  ///< the ratio that stands first; none before the first test
  std::shared_ptr<const evaluation::SweepView> reduced_of_;  ///< what the words of a coarser grid are of
  Form *target_, *own_sizes_;
  QComboBox* lead_;
  QVBoxLayout* evenness_;
};

}  // namespace sunbreak::desktop
