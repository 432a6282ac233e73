#include <gtest/gtest.h>

#include <cmath>

#include "evaluation/evaluation.h"
#include "evaluation/spectrum_words.h"
#include "record/spectrum_samples.h"
#include "report/html_report.h"

namespace sunbreak::report {
namespace {

record::TestRecord with_spectrum() {
  record::TestRecord record;
  record.test.id = 1;
  Spectrum s;
  for (int nm = 380; nm <= 780; nm += 5) {
    s.wavelengths_nm.push_back(nm);
    s.values.push_back(std::exp(-std::pow((nm - 560) / 60.0, 2)));
  }
  record::MeasuredSpectrum row;
  row.id = 1, row.test_id = 1, row.name = "under <b>", row.percent = 75;
  record::put_spectrum(row, s);
  record.spectra = {row};
  return record;
}

std::string page_of(const record::TestRecord& record, const ReportOptions& options = {}) {
  return html_report({evaluation::evaluate(record)}, options).html;
}

TEST(SpectrumSectionTest, APageShowsTheFiguresThatTheSpectrumHas) {
  const record::TestRecord record = with_spectrum();
  const std::string html = page_of(record);
  EXPECT_NE(html.find("id=\"spectrum\""), std::string::npos);
  EXPECT_NE(html.find("under &lt;b&gt; · 75 %"), std::string::npos);
  EXPECT_EQ(html.find("under <b>"), std::string::npos);
  const auto figures = spectrum_figures(SpectralCurve(record::spectrum_of(record.spectra[0]).value()));
  for (const evaluation::SpectrumRow& row : evaluation::spectrum_rows(figures))
    EXPECT_NE(html.find("<b>" + row.value + "</b>"), std::string::npos) << row.id << ' ' << row.value;
}

TEST(SpectrumSectionTest, ThePartMayBeLeftOutAndIsNotThereWithoutASpectrum) {
  ReportOptions options;
  options.parts.reset(static_cast<std::size_t>(PagePart::Spectrum));
  EXPECT_EQ(page_of(with_spectrum(), options).find("id=\"spectrum\""), std::string::npos);
  record::TestRecord none = with_spectrum();
  none.spectra.clear();
  EXPECT_EQ(page_of(none).find("id=\"spectrum\""), std::string::npos);
}

TEST(MetersOnAPage, SayByWhatAndHowTheLightWasToldAndNoMeterThatOnlyReadTheSameLamp) {
  record::TestRecord record = with_spectrum();
  record.meters = {{1, "lux", "LX-T", "2026-01-02"}, {2, "quantum", "QS-OTHER", "2026-01-02"}};
  record.test.sensor_id = 1;
  record.rungs = {{1, 1, 0.5}};
  record.stops = {{1, 1, 100}};
  record.sweeps = {{1, 1, 1, 1, "cells", 2, 2}};
  record::Sweep& s = record.sweeps[0];
  s.lux_k = 0.017, s.lux_k_expanded = 0.0004, s.calibration_factor = 0.017;
  s.moved_factor = 1.02, s.moved_uncertainty_pct = 0.25;
  for (int i = 0; i < 4; ++i) {
    record.readings.push_back({i + 1, 1, i, 20000.0 + 100 * i, "typed", ""});
    record.placements.push_back({i + 1, 1, i, i + 1, ""});
  }
  const std::string html = page_of(record);
  EXPECT_NE(html.find("k = 0.01700 ± 0.00040 µmol/m²/s per lx, found under another light"), std::string::npos);
  EXPECT_NE(html.find("× 1.02 ± 0.5 %"), std::string::npos);
  EXPECT_NE(html.find("A lux meter weighs light as the eye does"), std::string::npos);
  EXPECT_NE(html.find("LX-T"), std::string::npos);
  EXPECT_EQ(html.find("QS-OTHER"), std::string::npos) << "it walked nothing here";
}

}  // namespace
}  // namespace sunbreak::report
