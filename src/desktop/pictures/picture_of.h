#pragma once

#include <QString>
#include <string>
#include <vector>

#include "desktop/desk/desk.h"
#include "pictures/clean_picture.h"

namespace sunbreak::desktop {

/// What a picture is of: a fixture, or something of the test on the desk.
struct PictureOf {
  record::Id fixture_id = 0;  ///< 0: of the test
  std::optional<record::Id> sweep_id{}, temperature_id{}, growth_note_id{};
  std::string check_rule{};

  static PictureOf fixture(record::Id id) { return {id}; }
  static PictureOf test() { return {}; }
  static PictureOf sweep(record::Id id) { return {0, id}; }
  static PictureOf temperature(record::Id id) { return {0, {}, id}; }
  static PictureOf note(record::Id id) { return {0, {}, {}, id}; }
  static PictureOf check(std::string rule, std::optional<record::Id> sweep) {
    return {0, sweep, {}, {}, std::move(rule)};
  }
  bool operator==(const PictureOf&) const = default;
};

/// A picture on record, whichever kind of record it is.
struct KeptPicture {
  record::Id id = 0;
  bool of_fixture = false;
  std::string digest, caption, kind, origin;
  int width_px = 0, height_px = 0, size_bytes = 0;
  bool operator==(const KeptPicture&) const = default;
};

/// The pictures of one thing, in the order they were attached.
std::vector<KeptPicture> pictures_of(const Desk& desk, const PictureOf& of);

/// Everything that a picture can be attached to now, with its name.
std::vector<std::pair<PictureOf, QString>> picture_owners(const Desk& desk);

/// Attaches a picture as one edit; false where it was not kept.
bool attach_picture(Desk& desk, const PictureOf& of, const pictures::CleanPicture& picture, const std::string& kind,
                    const std::string& caption, const std::string& origin);

bool describe_picture(Desk& desk, const KeptPicture& picture, const std::string& kind, const std::string& caption);
bool take_picture_out(Desk& desk, const KeptPicture& picture);

}  // namespace sunbreak::desktop
