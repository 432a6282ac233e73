#pragma once

#include <filesystem>
#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/result.h"
#include "publishing/forms.h"

namespace sunbreak::publishing {

/// A site's files by their paths within it ("tests/x.html").
using SiteFiles = std::map<std::string, std::string>;

/// A test as a feed tells it.
struct FeedEntry {
  std::string id;  ///< one for the test for ever
  std::string title, page, summary;
  std::string updated_on;  ///< ISO 8601 date; entries without one are told as of 1970
  bool operator==(const FeedEntry&) const = default;
};

/// An Atom feed (RFC 4287) of the tests, the latest first. `address` is where the site will be on the web, for links
/// that hold wherever the feed is read; where that is not known they are relative to the feed.
std::string atom_feed(const std::string& title, std::vector<FeedEntry> entries, std::string address = {});

/// What a site remembers of a test between two writings: one that is the same need not be made again.
struct TestMemory {
  std::string token;  ///< of all that its files are made from
  FeedEntry feed;
  bool operator==(const TestMemory&) const = default;
};
/// By the path of a test's page.
using SiteMemory = std::map<std::string, TestMemory>;

/// What the site in a folder remembers; nothing where there is none, or none that can be read.
SiteMemory remembered(const std::filesystem::path& folder);

/// A token for all that the page and package of a test that is held against no other one are made from: the test, the
/// targets, and the program that makes them.
std::string token_of(const Publication& publication);

/// What writing a site came to.
struct SiteWritten {
  std::vector<std::string> written, removed;
  int unchanged = 0;
  /// Files that somebody else changed or put there: left as they are.
  std::vector<std::string> left_alone;
  std::optional<Problem> problem;  ///< what ended it early; what is there by then is whole
};

/// Makes a folder hold the site: files whose content is new are written, each whole; those that the site no longer has
/// go; all others are not touched. site.json in the folder keeps the check sums of what was written, by which what
/// somebody else changed is told and left alone.
/// Files of the site that are in `kept` stay as they were written, whatever is in `files`; `memory` is what it
/// remembers from now on.
SiteWritten write_site(const SiteFiles& files, const std::filesystem::path& folder,
                       const std::set<std::string>& kept = {}, const SiteMemory& memory = {});

}  // namespace sunbreak::publishing
