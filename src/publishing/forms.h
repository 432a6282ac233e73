#pragma once

#include <functional>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/display.h"
#include "core/result.h"
#include "evaluation/audit/audit.h"
#include "evaluation/configurations.h"
#include "evaluation/lineup/lineup.h"
#include "evaluation/once.h"
#include "record/picture_files.h"
#include "report/page_parts.h"

namespace sunbreak::publishing {

enum class Paper { A4, Letter };

/// A test as it is told: what every form of it is made from.
struct Publication {
  std::shared_ptr<const record::TestRecord> whole;  ///< with its readings
  evaluation::Evaluations evaluations;              ///< of all configurations, the fixture as it comes first
  /// How to audit evaluations, in their order and told in units; takes a second or two. None: claims stand without
  /// verdicts.
  std::function<std::vector<evaluation::Audit>(const evaluation::Evaluations&, UnitSystem)> audit;
  record::PictureSource pictures;
  std::shared_ptr<const evaluation::Evaluation> earlier;  ///< the test that it repeats, where that is at hand
  std::vector<record::Id> sweeps;                         ///< that the page prints; all where empty
  report::PageParts parts = report::all_parts;            ///< of the page
  std::vector<record::CropTarget> targets{};              ///< the shelf's lists; those that ship where empty
  UnitSystem units = UnitSystem::Metric;                  ///< those that the evaluations were made with
  Paper paper = Paper::A4;
  /// How to get the line-up that the test stands in, with its declared way; may give none.
  std::function<evaluation::StandingLineUp()> line_up{};
  std::string line_up_link{};  ///< from the page to a line-up that the test stands in

  /// Asked for when a form first wants it, by whichever thread.
  const evaluation::StandingLineUp& standing() const {
    return *standing_->get([this] { return line_up ? line_up() : evaluation::StandingLineUp{}; });
  }
  /// The data package as it is written, made when a form first asks, by whichever thread: the same to the byte in
  /// whatever units the other forms are told.
  const Result<std::string>& package() const;

  const record::TestRecord& record() const { return evaluations.front()->record(); }
  /// Audited when a form first asks, by whichever thread.
  const std::vector<evaluation::Audit>& audits() const {
    return *audits_->get([this] { return audit ? audit(evaluations, units) : std::vector<evaluation::Audit>(); });
  }

 private:
  std::shared_ptr<evaluation::Once<std::vector<evaluation::Audit>>> audits_ =
      std::make_shared<evaluation::Once<std::vector<evaluation::Audit>>>();
  std::shared_ptr<evaluation::Once<evaluation::StandingLineUp>> standing_ =
      std::make_shared<evaluation::Once<evaluation::StandingLineUp>>();
  std::shared_ptr<evaluation::Once<Result<std::string>>> package_ =
      std::make_shared<evaluation::Once<Result<std::string>>>();
};

/// One file of a form.
struct Part {
  std::string ending;  ///< of its name, which begins with the test's; may lead into a folder ("-stills/alt-texts.txt")
  std::string content;
};
using Parts = std::vector<Part>;

/// One of the forms that a test can be written in.
struct Form {
  std::string_view id;  ///< as the command line names it
  std::string_view label, meant_for;
  /// Whether the test has what it takes, which null always has; `lacks` says what it does not.
  bool (*needs)(const record::TestRecord&) = nullptr;
  std::string_view lacks = {};
  bool begins_alone = false;  ///< has something to do before it asks for the audits, or never does
  /// Its files. May take seconds; safe on any thread.
  Result<Parts> (*make)(const Publication&) = nullptr;
};

/// All of them, in the order they are offered in.
std::span<const Form> forms();
/// Null where there is none of that id.
const Form* form_named(std::string_view id);

/// The beginning of a test's file names: letters, digits and dashes of its title, 80 bytes at most.
std::string file_stem(const std::string& title);

}  // namespace sunbreak::publishing
