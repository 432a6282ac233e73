#include "publishing/site.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/markup.h"
#include "core/visible.h"
#include "exchange/files/digest.h"
#include "exchange/files/new_file.h"
#include "exchange/files/read_file.h"
#include "record/json.h"
#include "record/kinds.h"

namespace sunbreak::publishing {
namespace {

namespace fs = std::filesystem;

constexpr const char* kept_name = "site.json";

std::string escaped(const std::string& words) { return markup_text(visible(words)); }

record::Json kept_beside(const fs::path& folder) {
  const auto text = exchange::read_back(folder / kept_name);
  return record::json_of(text ? text.value() : std::string());
}

/// Check sums of what was written last, by path; empty where there is none that can be read.
std::map<std::string, std::string> kept_sums(const fs::path& folder) {
  const record::Json j = kept_beside(folder);
  std::map<std::string, std::string> sums;
  const record::Json& files = j["files"];
  for (std::size_t i = 0; i < files.names().size(); ++i) {
    const std::string& path = files.names()[i];
    // Only what can be a file of ours within the folder.
    if (files[i].is_text() && !path.empty() && path.front() != '/' && path.find("..") == std::string::npos)
      sums[path] = files[i].text();
  }
  return sums;
}

/// All values of a record, whatever its kinds are.
void add_record(std::string& text, const record::TestRecord& test) {
  for (const record::TableRows& rows : record::tables_of(test))
    for (std::size_t i = 0; i < rows.size(); ++i) {
      text += fmt::format("\n{}", rows.kind().name());
      for (const record::Column& column : rows.kind().columns)
        std::visit(
            [&](const auto& v) {
              using Held = std::decay_t<decltype(v)>;
              if constexpr (std::is_same_v<Held, std::monostate>)
                text += "\t";
              else
                text += fmt::format("\t{}", v);
            },
            column.get(rows.at(i)));
    }
}

}  // namespace

SiteMemory remembered(const fs::path& folder) {
  const record::Json j = kept_beside(folder);
  SiteMemory memory;
  const record::Json& tests = j["tests"];
  for (std::size_t i = 0; i < tests.names().size(); ++i) {
    const record::Json& of = tests[i];
    const std::string& page = tests.names()[i];
    if (of.is_object())
      memory[page] = {of["token"].text(),
                      {of["id"].text(), of["title"].text(), page, of["summary"].text(), of["updated_on"].text()}};
  }
  return memory;
}

std::string token_of(const Publication& p) {
  std::string text =
      fmt::format("{}\n{}\n{}", exchange::digest_of_file("/proc/self/exe"), static_cast<int>(p.units), p.line_up_link);
  add_record(text, *p.whole);
  for (const record::CropTarget& t : p.targets)
    text += fmt::format("\n{}\t{}\t{}\t{}\t{}\t{}\t{}", t.set_name, t.reason, t.name, t.by_daily_light, t.low, t.high,
                        t.photoperiod_h);
  return exchange::sha256_digits(text);
}

std::string atom_feed(const std::string& title, std::vector<FeedEntry> entries, std::string address) {
  if (!address.empty() && address.back() != '/') address += '/';
  std::ranges::stable_sort(entries, std::greater(), &FeedEntry::updated_on);
  const auto moment = [](const FeedEntry& e) {
    return (e.updated_on.empty() ? "1970-01-01" : e.updated_on) + "T00:00:00Z";
  };
  std::string xml = fmt::format(
      "<?xml version=\"1.0\" encoding=\"utf-8\"?>\n<feed xmlns=\"http://www.w3.org/2005/Atom\">\n<title>{}</title>\n"
      "<id>urn:sunbreak:site:{}</id>\n<updated>{}</updated>\n<author><name>{}</name></author>\n",
      escaped(title), exchange::sha256_digits(title).substr(0, 32),
      entries.empty() ? "1970-01-01T00:00:00Z" : moment(entries.front()), escaped(title));
  if (!address.empty())
    xml += fmt::format("<link rel=\"self\" href=\"{0}feed.xml\"/>\n<link href=\"{0}index.html\"/>\n", escaped(address));
  for (const FeedEntry& e : entries)
    xml += fmt::format(
        "<entry>\n<title>{}</title>\n<id>urn:sunbreak:test:{}</id>\n<link href=\"{}\"/>\n<updated>{}</updated>\n"
        "<summary>{}</summary>\n</entry>\n",
        escaped(e.title), escaped(e.id), escaped(address + e.page), moment(e), escaped(e.summary));
  return xml + "</feed>\n";
}

SiteWritten write_site(const SiteFiles& files, const fs::path& folder, const std::set<std::string>& kept,
                       const SiteMemory& memory) {
  SiteWritten outcome;
  const auto before = kept_sums(folder);
  std::map<std::string, std::string> now;
  const auto keep = [&] {
    record::Json tests = record::Json::object();
    for (const auto& [page, of] : memory)
      tests.add(page, {{"token", of.token},
                       {"id", of.feed.id},
                       {"title", of.feed.title},
                       {"summary", of.feed.summary},
                       {"updated_on", of.feed.updated_on}});
    record::Json sums = record::Json::object();
    for (const auto& [path, sum] : now) sums.add(path, sum);
    const record::Json j{{"made_by", "Sunbreak"}, {"files", sums}, {"tests", tests}};
    if (const auto problem =
            exchange::write_new_file(folder / kept_name, record::json_text(j, 1) + "\n", exchange::Existing::Replace);
        problem && !outcome.problem)
      outcome.problem = problem;
  };
  std::error_code error;
  fs::create_directories(folder, error);
  if (error) {
    outcome.problem = exchange::cannot_write(folder, error.value());
    return outcome;
  }
  for (const std::string& path : kept)
    if (const auto known = before.find(path); known != before.end()) {
      now.insert(*known);
      if (exchange::digest_of_file(folder / path) == known->second)
        ++outcome.unchanged;
      else
        outcome.left_alone.push_back(path);
    }
  for (const auto& [path, content] : files) {
    if (now.contains(path)) continue;
    const fs::path file = folder / path;
    const std::string sum = exchange::sha256_digits(content);
    const bool there = fs::exists(fs::symlink_status(file, error));
    const std::string found = there ? exchange::digest_of_file(file) : std::string();
    if (there && found == sum) {
      ++outcome.unchanged;
      now[path] = sum;
      continue;
    }
    const auto known = before.find(path);
    if (there && (known == before.end() || known->second != found)) {
      outcome.left_alone.push_back(path);
      if (known != before.end()) now[path] = known->second;
      continue;
    }
    fs::create_directories(file.parent_path(), error);
    if (const auto problem = exchange::write_new_file(file, content, exchange::Existing::Replace)) {
      outcome.problem = problem;
      for (const auto& [old, old_sum] : before) now.try_emplace(old, old_sum);
      keep();
      return outcome;
    }
    outcome.written.push_back(path);
    now[path] = sum;
  }
  for (const auto& [path, sum] : before) {
    if (files.contains(path) || now.contains(path)) continue;
    const fs::path file = folder / path;
    if (!fs::exists(fs::symlink_status(file, error))) continue;
    if (exchange::digest_of_file(file) != sum) {
      outcome.left_alone.push_back(path);
    } else if (fs::remove(file, error)) {
      outcome.removed.push_back(path);
    }
  }
  keep();
  return outcome;
}

}  // namespace sunbreak::publishing
