#include "desktop/walk/sweep_table_text.h"

#include <QClipboard>
#include <QCoreApplication>
#include <QGuiApplication>
#include <QStringList>

#include "exchange/package/csv_writer.h"

namespace sunbreak::desktop {

QString sweep_table_text(const evaluation::SweepView& view) {
  const auto cell = [&](std::size_t i) { return QString::fromStdString(exchange::number_cell(view.ppfd[i])); };
  QStringList lines;
  const Layout& layout = view.layout;
  if (layout.is_lattice()) {
    for (int row = layout.rows - 1; row >= 0; --row) {
      QStringList cells;
      for (int column = 0; column < layout.columns; ++column) cells << cell(layout.index(column, row));
      lines << cells.join('\t');
    }
  } else {
    lines << QStringLiteral("x m\ty m\tPPFD");
    for (std::size_t i = 0; i < layout.stations.size(); ++i)
      lines << QStringList{QString::number(layout.stations[i].x_m), QString::number(layout.stations[i].y_m), cell(i)}
                   .join('\t');
  }
  return lines.join('\n') + '\n';
}

QString copy_sweep_table(const evaluation::SweepView* view) {
  if (!view || view->read() == 0) return {};
  QGuiApplication::clipboard()->setText(sweep_table_text(*view));
  return QCoreApplication::translate("sweep table", "The sweep is on the clipboard as a table, far row first.");
}

}  // namespace sunbreak::desktop
