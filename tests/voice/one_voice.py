#!/usr/bin/env python3
"""Holds together all that Sunbreak says of the same thing: of a sweep, a target, a claim, a rank.

It has the programs write a lab book of the sample and of tests drawn anew, has the window tell its accessible texts and
the command line write every form, reads them with nothing of Sunbreak's own, and lists what two surfaces say
differently. In centimeters and in inches.

    one_voice.py FOLDER_OF_PROGRAMS [--slice | --random COUNT]
"""
import argparse
import collections
import csv
import html.parser
import io
import json
import pathlib
import re
import subprocess
import sys
import tempfile
import xml.etree.ElementTree
import zipfile

METERS = {"cm": 0.01, "in": 0.0254}
SQUARE_FOOT_M2 = 0.3048**2


def plain(text):
    return re.sub(r"\s+", " ", text.replace("\u2212", "-").replace("\u00a0", " ")).strip()


class Said:
    """One thing that one surface says: words, or a number with its ±, as told or as a machine has it."""

    def __init__(self, surface, words=None, value=None, sure=None, number=None, expanded=None, allows=None):
        self.surface, self.words, self.value, self.sure = surface, words, value, sure
        self.number, self.expanded, self.allows = number, expanded, allows

    def __str__(self):
        if self.words is not None or self.allows is not None:
            return f"{self.surface}: {self.words or self.allows.__doc__}"
        if self.number is not None:
            return f"{self.surface}: {self.number!r}" + (f" ± {self.expanded!r}" if self.expanded is not None else "")
        return f"{self.surface}: {self.value}" + (f" ± {self.sure}" if self.sure else "")


def shows(text, number):
    """Whether a text with its decimals is what a number is rounded to."""
    if number is None:
        return True
    decimals = len(text.partition(".")[2])
    told = float(text)
    return abs(told - number) <= 0.5 * 10**-decimals * (1 + 1e-6) + 1e-12


class Voices:
    def __init__(self):
        self.said = collections.defaultdict(list)
        self.surfaces = collections.Counter()

    def add(self, subject, said):
        self.said[subject].append(said)
        self.surfaces[said.surface] += 1

    def words(self, subject, surface, words):
        self.add(subject, Said(surface, words=plain(words)))

    def told(self, subject, surface, value, sure=None):
        value = plain(value).lstrip("+")
        if re.fullmatch(r"-?\d+(\.\d+)?", value):
            self.add(subject, Said(surface, value=value, sure=plain(sure).lstrip("± ") if sure else None))
        elif value not in ("", "–"):
            self.words(subject, surface, value)

    def number(self, subject, surface, number, expanded=None):
        if number is not None:
            self.add(subject, Said(surface, number=number, expanded=expanded))

    def share(self, subject, surface, share, served, in_part):
        """What a machine has of a target: words have to say it."""

        def allows(words):
            if in_part and words == "not known":
                return not served and shows("0", 100 * share)
            told = re.fullmatch(r"(under |over |at least )?(\d+) %(, served)?", words)
            if not told or bool(told[3]) != served or (told[1] == "at least ") != in_part:
                return False
            if told[1] and not in_part:
                return share > 0 and share < 0.01 if told[1] == "under " else share < 1 and share > 0.99
            return shows(told[2], 100 * share)

        allows.__doc__ = f"{share!r}, {'served' if served else 'not served'}"
        self.add(subject, Said(surface, allows=allows))

    def contradictions(self):
        found = []
        for subject, all_said in sorted(self.said.items(), key=lambda item: str(item[0])):
            words = {s.words for s in all_said if s.words is not None}
            told = [s for s in all_said if s.value is not None]
            refused = any(s.allows and not all(map(s.allows, words)) for s in all_said)
            if len(words) > 1 or (words and told) or refused:
                found.append((subject, all_said))
                continue
            values = {s.value for s in told}
            sures = {s.sure for s in told if s.sure}
            wrong = len(values) > 1 or len(sures) > 1
            for machine in all_said:
                if machine.number is None:
                    continue
                wrong = wrong or any(not shows(value, machine.number) for value in values)
                wrong = wrong or any(not shows(sure, machine.expanded) for sure in sures)
            if wrong:
                found.append((subject, all_said))
        return found


# ---- what a page says


class Page(html.parser.HTMLParser):
    """A page as a list of (tag, classes, id, text) of what stands in it, tables as rows of cells."""

    BLOCKS = {"h1", "h2", "h3", "p", "li", "title"}

    def __init__(self):
        super().__init__(convert_charrefs=True)
        self.blocks, self.skipping, self.text, self.table, self.row, self.cell = [], 0, None, None, None, None

    def handle_starttag(self, tag, attributes):
        attributes = dict(attributes)
        if tag in ("style", "svg", "script"):
            self.skipping += 1
        if self.skipping:
            return
        if tag == "table" and self.table is None:
            self.table = (attributes.get("class", ""), [])
        elif tag == "tr" and self.table is not None:
            self.row = []
        elif tag in ("td", "th") and self.row is not None:
            self.cell = [attributes.get("class", ""), ""]
        elif tag == "br" and self.cell is not None:
            self.cell[1] += "\n"
        elif tag == "br" and self.text is not None:
            self.text[3] += " "
        elif tag in self.BLOCKS and self.cell is None:
            self.text = [tag, attributes.get("class", ""), attributes.get("id", ""), ""]
        elif tag == "p" and self.cell is not None:
            self.cell[1] += "\n"

    def handle_endtag(self, tag):
        if tag in ("style", "svg", "script"):
            self.skipping -= 1
        if self.skipping:
            return
        if tag in ("td", "th") and self.cell is not None:
            self.row.append(tuple(self.cell))
            self.cell = None
        elif tag == "tr" and self.row is not None:
            self.table[1].append(self.row)
            self.row = None
        elif tag == "table" and self.table is not None:
            self.blocks.append(("table", self.table[0], "", self.table[1]))
            self.table = None
        elif self.text is not None and tag == self.text[0]:
            self.blocks.append((self.text[0], self.text[1], self.text[2], plain(self.text[3])))
            self.text = None

    def handle_data(self, data):
        if self.skipping:
            return
        if self.cell is not None:
            self.cell[1] += data
        elif self.text is not None:
            self.text[3] += data


NUMBER = r"[+-]?\d+(?:\.\d+)?"
HEIGHT = r"(\d+(?:\.\d+)?) (cm|in)"
PLACE = re.compile(HEIGHT + r",? (?:·|and)? ?(\d+(?:\.\d+)?) %")


def place_of(text):
    """ "60 cm · 100 %" as meters to the half centimeter and percent."""
    found = PLACE.search(plain(text))
    return found and sweep_key(float(found[1]) * METERS[found[2]], float(found[3]))


def sweep_key(height_m, percent):
    return (round(200 * height_m), round(percent, 1))


def value_and_unit(text):
    found = re.match(rf"({NUMBER})\s*(.*)$", plain(text))
    return (found[1], found[2]) if found else (plain(text), "")


ALIASES = {"PPF on footprint": "PPF on the footprint"}


def listen_to_page(voices, test, surface, text):
    page = Page()
    page.feed(text)
    section, place, sentences, configurations = "", None, [], 0
    several = sum("configuration" in classes for tag, classes, _, _ in page.blocks if tag == "h2") > 1
    for tag, classes, id_, content in page.blocks:
        if tag == "h2" and "configuration" in classes:
            configurations += 1
        # Of a fixture in several states the window tells one at a time: the first.
        if configurations > 1 and id_ != "line-up" and section != "line-up" or several and section in ("glance", "targets") and tag == "table":
            section = "" if configurations > 1 else section
            continue
        if tag == "h2":
            section = id_ or section
            place = place_of(content) if id_.startswith("sweep-") else None
        elif tag == "p" and place and content.startswith("Evidence:"):
            voices.words(("grade", test, place), surface, content.split()[1])
        elif tag == "li" and section == "verdict":
            sentences.append(content)
        elif tag == "table":
            listen_to_table(voices, test, surface, section, classes, content, place)
    if sentences:
        voices.words(("verdict in words", test), surface, " | ".join(sorted(sentences)))
    for sentence in sentences:
        listen_to_sentence(voices, test, surface, sentence)


def listen_to_sentence(voices, test, surface, sentence):
    sentence = plain(sentence)
    mean = re.search(rf"mean of ({NUMBER}) ± ({NUMBER}) µmol/m²/s to .* at {HEIGHT} and ({NUMBER}) %, for ({NUMBER}) W", sentence)
    if mean and "estimated" not in sentence:
        key = sweep_key(float(mean[3]) * METERS[mean[4]], float(mean[5]))
        voices.told(("sweep", test, key, "Mean PPFD"), surface + ", in words", mean[1], mean[2])
    whole = re.search(rf"gives ({NUMBER}) ± ({NUMBER}) µmol per joule at the wall, ({NUMBER}) ± ({NUMBER}) µmol/s", sentence)
    if whole:
        voices.told(("light", test, "Whole efficacy"), surface + ", in words", whole[1], whole[2])
        voices.told(("light", test, "Whole PPF"), surface + ", in words", whole[3], whole[4])
    claim = re.match(rf"(.+?) (?:is as claimed|falls short of the claim|is over the claim|is not as claimed): (.+?) measured", sentence)
    if claim:
        voices.words(("claim measured", test, claim[1]), surface + ", in words", claim[2])


def listen_to_table(voices, test, surface, section, classes, rows, place):
    head = [plain(cell[1].split("\n")[0]) for cell in rows[0]] if rows else []
    if place and head[:2] == ["Figure", "Value"]:
        for row in rows[1:]:
            label, (value, _) = plain(row[0][1]), value_and_unit(row[1][1])
            voices.told(("sweep", test, place, label), surface, value, row[2][1])
    elif section == "glance" and head[:1] == ["Height"]:
        labels = [re.sub(r" (µmol.*|W|in band.*)$", "", plain(cell[1].replace("\n", " "))) for cell in rows[0]]
        for row in rows[1:]:
            key = place_of(row[0][1] + " " + row[1][1])
            for label, cell in zip(labels[3:], row[3:]):
                label = ALIASES.get(label, label)
                if label.startswith("In band"):
                    label = "In band"
                found = re.match(rf"({NUMBER})(?: ± ({NUMBER}))?", plain(cell[1]))
                about = "estimated" if "estimated" in row[2][1] and label != "Wall power" else "sweep"
                if found:
                    voices.told((about, test, key, label), surface + ", at a glance", found[1], found[2])
    elif section == "targets" and head[:1] == ["Height"]:
        names = [plain(cell[1].split("\n")[0]) for cell in rows[0]]
        for row in rows[1:]:
            key = place_of(row[0][1] + " " + row[1][1])
            for name, cell in zip(names[2:], row[2:]):
                voices.words(("target", test, key, name), surface,
                             plain(cell[1]) + (", served" if cell[0].split()[:1] == ["n"] else ""))
    elif "claims" in classes or classes == "audit":
        for row in rows[1:]:
            if len(row) != 4 and len(row) != 3:
                continue
            cells = [cell[1] for cell in row]
            if classes == "audit":
                label, _, claimed = cells[0].partition("\n")
                claimed = claimed.split(" · ")[0]
                cells = [label, claimed, cells[2], cells[3]]
            elif len(cells) == 3:
                cells.insert(1, "")
            label, claimed, measured, verdict = map(plain, cells)
            name = surface + (", claims" if classes == "audit" else ", first of all")
            voices.words(("claim verdict", test, label, claimed), name, verdict)
            if measured not in ("", "–"):
                voices.words(("claim measured", test, label, claimed), name, measured)
    elif section == "light" and head[:1] == ["Found"]:
        for row in rows[1:]:
            found = re.match(rf"({NUMBER}) ± ({NUMBER})", plain(row[1][1]))
            if found:
                voices.told(("light", test, plain(row[0][1])), surface, found[1], found[2])
    elif "card" in classes.split():
        listen_to_card(voices, test, surface + ", card", [[cell[1] for cell in row] for row in rows[1:]])
    elif section == "line-up" and head[:2] == ["Rank", "Test"]:
        figure = plain(rows[0][2][1])
        for row in rows[1:]:
            voices.words(("rank", test, figure, plain(row[1][1])), surface, plain(row[0][1]))
            found = re.match(rf"({NUMBER})(?: ± ({NUMBER}))?", plain(row[2][1]))
            voices.told(("standing", test, figure, plain(row[1][1])), surface, found[1], found[2])


CARD_COLUMNS = {5: "watts", 6: "mean", 7: "edge", 8: "daily light", 9: "in band", 10: "kWh a day", 12: "chance"}


def listen_to_card(voices, test, surface, rows):
    """Both cards have the same columns; units stand in the heads of one and behind the values of the other."""
    for row in rows:
        stage = plain(row[0].split("\n")[0])
        for at, name in CARD_COLUMNS.items():
            if at >= len(row):
                continue
            text = plain(row[at]).lstrip("◣ ")
            text = text if name == "chance" else re.sub(r" (%|W|kWh|[A-Z]{3})$", "", text)
            if text not in ("", "–"):
                voices.words(("card", test, stage, name), surface, text)


# ---- what the window says


def listen_to_window(voices, lines, labels):
    for line in lines:
        test, where = line["title"], line["where"]
        told = line["told"]
        place = sweep_key(line["height_m"], line["dimmer_pct"]) if "height_m" in line else None
        if where == "read":
            for name, label, description, _ in told:
                if name in labels and description:
                    found = re.match(rf"({NUMBER})(?: ± ({NUMBER}))?", plain(description))
                    labels[name] = label
                    if found:
                        voices.told(("sweep", test, place, label), "window", found[1], found[2])
        elif where == "sure":
            for name, label, _, _ in told:
                if name == "evidenceGrade":
                    voices.words(("grade", test, place), "window", re.sub(r"^\W+", "", label).split()[0])
        elif where == "audit":
            for name, _, description, _ in told:
                if name == "claimList":
                    listen_to_claim(voices, test, description)
            words = line["tables"].get("verdictWords")
            if words:
                voices.words(("verdict in words", test), "window", " | ".join(sorted(plain(row[1]) for row in words[1:])))
                for row in words[1:]:
                    listen_to_sentence(voices, test, "window", row[1])
        elif where == "settle":
            listen_to_settle(voices, test, told, line["tables"])
        elif where == "card":
            listen_to_card(voices, test, "window, card", line["tables"].get("cardTable", [])[1:])
        elif where == "line-up":
            listen_to_line_up(voices, test, told)
        elif where == "light":
            for row in line["tables"].get("lightFigures", [])[1:]:
                found = re.match(rf"({NUMBER}) ± ({NUMBER})", plain(row[1]))
                if found:
                    voices.told(("light", test, plain(row[0])), "window", found[1], found[2])


def listen_to_targets(voices, lines, sweeps):
    """The table has a row a sweep, in the order of heights and settings."""
    for line in lines:
        if line["where"] != "targets" or "targetFits" not in line["tables"]:
            continue
        rows, keys = line["tables"]["targetFits"], sweeps[line["title"]]
        if len(rows) - 1 != len(keys):
            continue
        for key, row in zip(keys, rows[1:]):
            for name, cell in zip(rows[0], row):
                title = plain(re.split(r"\n(?=[\d.]+–)", name)[0].replace("\n", " "))
                cell = plain(cell)
                share = cell.lstrip("● ")
                voices.words(("target", line["title"], key, title), "window",
                             share + (", served" if cell.startswith("●") else ""))


def listen_to_claim(voices, test, description):
    found = re.match(r"(.+?), (.+?): ([^:]+?)(?:, measured (.+))?$", plain(description))
    if not found:
        return
    label, claimed, verdict, measured = found.groups()
    voices.words(("claim verdict", test, label, claimed), "window", verdict)
    if measured:
        voices.words(("claim measured", test, label, claimed), "window", measured)


SETTLE_NAMES = {name: name for name in ("Mean PPFD", "Edge", "Center", "Lowest", "Highest", "lowest ÷ mean")}


def listen_to_settle(voices, test, told, tables):
    texts = {name: label for name, label, _, _ in told}
    map_words = plain(texts.get("settleMap", ""))
    place = place_of(map_words)
    if place and "as walked" in map_words:
        for row in tables.get("settleFigures", [])[1:]:
            label, (value, _) = SETTLE_NAMES.get(plain(row[0])), value_and_unit(row[1])
            if label:
                voices.told(("sweep", test, place, label), "window, Settle", value, row[2])
    for text in texts.values():
        found = re.search(r"holds with a chance of (.+? ?%)", plain(text))
        if found:
            voices.words(("chance at the point", test), "window, Settle", found[1])


def listen_to_line_up(voices, test, told):
    figure = next((value or label for name, label, _, value in told if name == "lineupFigure"), "")
    for name, _, description, _ in told:
        if name == "lineupStrip":
            found = re.match(rf"(.+): ({NUMBER})(?: ± ({NUMBER}))?[^,]*, rank (.+?)(?:, .*)?$", plain(description))
            if found:
                voices.words(("rank", test, plain(figure), found[1]), "window", found[4])
                voices.told(("standing", test, plain(figure), found[1]), "window", found[2], found[3])


# ---- what machines read


def number_of(text):
    return float(text) if text not in ("", None) else None


def in_unit(figure, number, units):
    """What a figure in SI is in the unit that people see."""
    if number is None or units == "cm" and not figure.startswith("centroid"):
        return number
    if figure.startswith("centroid"):
        return number / METERS[units]
    return number * SQUARE_FOOT_M2 if figure == "power_density_w_m2" else number


PERCENT = {"cv", "coverage"}


def shown(figure, number, units):
    number = in_unit(figure, number, units)
    return 100 * number if number is not None and figure in PERCENT else number


def rows_of(archive, name):
    if name not in archive.namelist():
        return []
    return list(csv.DictReader(io.StringIO(archive.read(name).decode())))


def listen_to_package(voices, test, labels, units, bytes_):
    archive = zipfile.ZipFile(io.BytesIO(bytes_))
    rungs = {row["id"]: float(row["height_m"]) for row in rows_of(archive, "rung.csv")}
    stops = {row["id"]: float(row["percent"]) for row in rows_of(archive, "stop.csv")}
    configurations = sorted({row["configuration_id"] for row in rows_of(archive, "rung.csv")})
    first = {row["id"] for row in rows_of(archive, "rung.csv") if row["configuration_id"] == configurations[0]}
    keys = {row["id"]: sweep_key(rungs[row["rung_id"]], stops[row["stop_id"]]) for row in rows_of(archive, "sweep.csv")
            if row["rung_id"] in first}
    for row in rows_of(archive, "figures.csv"):
        label = labels.get(row["figure"])
        if label and row["sweep_id"] in keys:
            voices.number(("sweep", test, keys[row["sweep_id"]], label), "package",
                          shown(row["figure"], number_of(row["value"]), units),
                          shown(row["figure"], number_of(row["expanded_k2"]), units))
    sentences = [plain(row["sentence"]) for row in rows_of(archive, "verdict.csv") if row["configuration_id"] == configurations[0]]
    if sentences and units == "cm":
        voices.words(("verdict in words", test), "package", " | ".join(sorted(sentences)))
    for row in rows_of(archive, "whole_light.csv"):
        label = {"ppf": "Whole PPF", "efficacy": "Whole efficacy"}.get(row["quantity"])
        if label and row["configuration_id"] == configurations[0] and row["height_m"] == "":
            voices.number(("light", test, label), "package", number_of(row["value"]), number_of(row["expanded_k2"]))
    return keys


def listen_to_read_json(voices, test, labels, units, read):
    for sweep in read["sweeps"]:
        if sweep["configuration"] != "as it comes":
            continue
        key = sweep_key(sweep["height_m"], sweep["dimmer_pct"])
        for figure, label in labels.items():
            number = sweep["figures"].get(figure)
            if figure == "coverage":
                number = (number or {}).get("in_band_share")
            if isinstance(number, (int, float)) and label:
                expanded = (sweep.get("uncertainty", {}).get(figure) or {}).get("expanded_k2")
                voices.number(("sweep", test, key, label), "JSON", shown(figure, number, units),
                              shown(figure, expanded, units))
        for figure, whole in sweep.get("estimated_whole", {}).items():
            if labels.get(figure):
                voices.number(("estimated", test, key, labels[figure]), "JSON", shown(figure, whole["value"], units),
                              shown(figure, whole["expanded_k2"], units))
        voices.words(("grade", test, key), "JSON", sweep["evidence"]["grade"])


def listen_to_targets_json(voices, test, read, lines):
    """All lists stand in it, where the window tells one; of a fixture in several states the window tells one, too."""
    lists = {value for line in lines if line["where"] == "targets" for name, _, _, value in line["told"] if name == "targetSet"}
    if len({sweep["configuration"] for sweep in read["sweeps"]}) > 1:
        return
    for sweep in read["sweeps"]:
        for target in [t for t in sweep["targets"] if t["set"] in lists]:
            subject = ("target", test, sweep_key(sweep["height_m"], sweep["dimmer_pct"]), target["name"])
            if subject in voices.said:
                voices.share(subject, "JSON", target["in_band_share"], target["passes"], target["unread_share"] > 0.1)


def listen_to_audit_json(voices, test, audit, labels_of_claims):
    for claim in audit["claims"]:
        label = labels_of_claims.get((test, plain(claim["claimed_words"])))
        if not label:
            continue
        voices.words(("claim verdict", test, label, plain(claim["claimed_words"])), "JSON", claim["verdict_words"])
        if claim.get("measured_words"):
            voices.words(("claim measured", test, label, plain(claim["claimed_words"])), "JSON", claim["measured_words"])


def listen_to_line_up_json(voices, lines_up, titles):
    for line_up in lines_up:
        for row in line_up["rows"]:
            if row["rank_of"] is None:
                continue
            low, high, of = row["rank_low"], row["rank_high"], row["rank_of"]
            rank = f"{low} of {of}" if low == high else f"{low} to {high} of {of}"
            for title in titles:
                voices.words(("rank", title, line_up["label"], plain(row["test"])), "JSON", rank)
                voices.number(("standing", title, line_up["label"], plain(row["test"])), "JSON", row["value"],
                              row["expanded_k2"])


def listen_to_alt_texts(voices, test, text):
    for line in text.splitlines():
        place = re.search(rf": .* at {HEIGHT}, ({NUMBER}) %: map of PPFD", plain(line))
        if place:
            key = sweep_key(float(place[1]) * METERS[place[2]], float(place[3]))
            for label, value, sure in re.findall(rf"([A-Za-z][^.:]*?(?:, estimated)?)(?:, (?!estimated)[^:,]+)?: ({NUMBER})(?: ± ({NUMBER}))?\. ", plain(line) + " "):
                subject = ("estimated", plain(label).removesuffix(", estimated")) if ", estimated" in label else ("sweep", plain(label))
                voices.told((subject[0], test, key, subject[1]), "stills", value, sure)


def sheets_of(bytes_):
    """The sheets of a workbook by their names: rows of cells by column."""
    archive = zipfile.ZipFile(io.BytesIO(bytes_))
    space = {"m": "http://schemas.openxmlformats.org/spreadsheetml/2006/main"}
    shared = []
    if "xl/sharedStrings.xml" in archive.namelist():
        root = xml.etree.ElementTree.fromstring(archive.read("xl/sharedStrings.xml"))
        shared = ["".join(t.text or "" for t in item.iter(f"{{{space['m']}}}t")) for item in root]
    names = [sheet.get("name") for sheet in
             xml.etree.ElementTree.fromstring(archive.read("xl/workbook.xml")).iter(f"{{{space['m']}}}sheet")]
    sheets = {}
    for at, name in enumerate(names, 1):
        rows = sheets[name] = []
        for row in xml.etree.ElementTree.fromstring(archive.read(f"xl/worksheets/sheet{at}.xml")).iter(f"{{{space['m']}}}row"):
            cells = {}
            for cell in row:
                column = re.match(r"[A-Z]+", cell.get("r"))[0]
                value = cell.find("m:v", space)
                if value is not None:
                    cells[column] = shared[int(value.text)] if cell.get("t") == "s" else value.text
            rows.append(cells)
    return sheets


def listen_to_workbook(voices, test, labels, units, bytes_):
    sheets = sheets_of(bytes_)
    listen_to_claims_sheet(voices, test, sheets.get("Claims", []))
    listen_to_figures_sheet(voices, test, labels, next(iter(sheets.values())))


def listen_to_claims_sheet(voices, test, rows):
    heads = next((row for row in rows if row.get("A") == "claim"), None)
    for row in rows[rows.index(heads) + 1 :] if heads else []:
        subject = (test, plain(row.get("A", "")), plain(row.get("B", "")))
        voices.words(("claim verdict", *subject), "workbook, claims", row.get("H", ""))
        if row.get("C", "") not in ("", "–"):
            voices.words(("claim measured", *subject), "workbook, claims", row["C"])


def listen_to_figures_sheet(voices, test, labels, rows):
    """A row a figure, two columns a sweep; of a fixture in several states heads are not unique."""
    heads = next((row for row in rows if row.get("A") == "Figure"), {})
    columns = list(heads)
    places = {column: place_of(head) for column, head in heads.items() if place_of(head)}
    if len(set(places.values())) < len(places):
        return
    ids = {label: figure for figure, label in labels.items() if label}
    for row in rows[rows.index(heads) + 1 :] if heads else []:
        label = row.get("A") or ""
        about = "estimated" if label.endswith(", estimated") else "sweep"
        label = label.removesuffix(", estimated")
        if label not in ids:
            continue
        scale = 100 if ids[label] in PERCENT and row.get("B") != "%" else 1
        for column, place in places.items():
            beside = columns[columns.index(column) + 1]
            try:
                number, expanded = float(row[column]), float(row[beside]) if beside in row else None
            except (KeyError, ValueError):
                continue
            voices.number((about, test, place, label), "workbook", scale * number,
                          scale * expanded if expanded is not None else None)


# ---- the run


def run(*arguments, **more):
    done = subprocess.run([str(a) for a in arguments], capture_output=True, text=True, **more)
    if done.returncode != 0:
        sys.exit(f"{' '.join(map(str, arguments))} ended with {done.returncode}: {done.stderr[-2000:]}")
    return done.stdout


def figure_ids(cli_read):
    ids = set()
    for sweep in cli_read["sweeps"]:
        ids |= set(sweep["figures"]) | {"centroid_x_m", "centroid_y_m"}
    return ids


def listen(programs, book, tests, units, folder):
    voices = Voices()
    lines = [json.loads(line) for line in
             run(programs / "tell_window", book, units, *[number for number, _ in tests]).splitlines() if line.startswith("{")]
    imperial = ["--imperial"] if units == "in" else []
    for number, title in tests:
        read = json.loads(run(programs / "sunbreak-cli", "read", book, "--test", number, "--json"))
        labels = dict.fromkeys(figure_ids(read))
        of_test = [line for line in lines if line["test"] == number]
        title = of_test[0]["title"]
        listen_to_window(voices, of_test, labels)
        out = folder / f"{book.stem}-{units}-{number}"
        run(programs / "sunbreak-cli", "publish", book, "--test", number, "-o", out, *imperial)
        if "-settings-card.html" in {path.name[len(common_stem(out)):] for path in out.iterdir()}:
            listen_to_page(voices, title, "settings card", (out / (common_stem(out) + "-settings-card.html")).read_text())
        files = {path.name[len(stem):] if (stem := common_stem(out)) and path.name.startswith(stem) else path.name: path
                 for path in out.iterdir()}
        listen_to_page(voices, title, "page", files[".html"].read_text())
        listen_to_page(voices, title, "page to explore", files["-explore.html"].read_text())
        keys = listen_to_package(voices, title, labels, units, files[".zip"].read_bytes())
        listen_to_targets(voices, of_test, {title: sorted(keys.values(), key=lambda key: (-key[0], -key[1]))})
        listen_to_read_json(voices, title, labels, units, read)
        listen_to_targets_json(voices, title, read, of_test)
        claims = {(test, claimed): label for kind, test, label, claimed in
                  [s for s in voices.said if s[0] == "claim verdict"]}
        if units == "cm":
            audit = json.loads(run(programs / "sunbreak-cli", "audit", book, "--test", number, "--json"))
            listen_to_audit_json(voices, title, audit, claims)
        listen_to_alt_texts(voices, title, (files["-stills"] / "alt-texts.txt").read_text())
        listen_to_workbook(voices, title, labels, units, files[".xlsx"].read_bytes())
        listen_to_table_of_stations(voices, title, files[".csv"].read_text())
        listen_to_paper(voices, title, files[".pdf"])
    # In the way that a line-up begins with, by the figure that it begins with.
    figure = {subject[2] for subject in voices.said if subject[0] == "rank"}
    if figure == {"Canopy efficacy"}:
        line_up = json.loads(run(programs / "sunbreak-cli", "line-up", book, "--by", "canopy_efficacy_umol_j", "--json"))
        listen_to_line_up_json(voices, [line_up], {subject[1] for subject in voices.said if subject[0] == "rank"})
    return voices


def common_stem(folder):
    return next(path.name[: -len(".html")] for path in folder.iterdir()
                if path.name.endswith(".html") and not path.name.endswith(("-explore.html", "-settings-card.html")))


def listen_to_table_of_stations(voices, test, text):
    """Its lowest and highest light of a sweep are the sweep's. A place is told in the unit of the file's other columns."""
    light = collections.defaultdict(list)
    for row in csv.DictReader(io.StringIO(text)):
        height_m = float(row["height_cm"]) / 100 if "height_cm" in row else float(row["height_in"]) * METERS["in"]
        if row["state"] == "read" and not row.get("configuration"):
            light[sweep_key(height_m, float(row["dimmer_pct"]))].append(float(row["ppfd_umol_m2_s"]))
    for key, values in light.items():
        voices.number(("sweep", test, key, "Lowest"), "table", min(values))
        voices.number(("sweep", test, key, "Highest"), "table", max(values))


def listen_to_paper(voices, test, file):
    """What the page says of sweeps and in words has to stand on paper, too."""
    flowing = subprocess.run(["pdftotext", file, "-"], capture_output=True, text=True).stdout
    letters = re.sub(r"\s", "", plain(flowing))
    for subject in [s for s in voices.said if s[0] == "verdict in words" and s[1] == test]:
        for sentence in voices.said[subject][0].words.split(" | "):
            if re.sub(r"\s", "", sentence) not in letters:
                voices.words(subject, "paper", f"lacks: {sentence}")
    for subject in [s for s in voices.said if s[0] in ("claim verdict", "claim measured") and s[1] == test]:
        for said in [s for s in voices.said[subject] if s.surface.startswith("page") and s.words]:
            voices.words(subject, "paper", said.words if re.sub(r"\s", "", said.words) in letters else "not told")
    text = plain(subprocess.run(["pdftotext", "-layout", file, "-"], capture_output=True, text=True).stdout)
    for subject, all_said in list(voices.said.items()):
        if subject[0] != "sweep" or subject[1] != test:
            continue
        for said in [s for s in all_said if s.surface == "page" and s.value is not None]:
            pattern = re.escape(subject[3]) + r" \+?" + re.escape(said.value) + r"\b"
            if not re.search(pattern, text):
                voices.words(subject, "paper", "not told")


def main():
    parser = argparse.ArgumentParser()
    parser.add_argument("programs", type=pathlib.Path)
    parser.add_argument("--slice", action="store_true")
    parser.add_argument("--random", type=int, default=60)
    parser.add_argument("--first", type=int, default=1)
    a = parser.parse_args()
    contradictions = subjects = repeated = 0
    with tempfile.TemporaryDirectory() as name:
        folder = pathlib.Path(name)
        sample, random = folder / "sample.sunbreak", folder / "random.sunbreak"
        run(a.programs / "sunbreak-cli", "demo", sample)
        numbers = run(a.programs / "random_tests", random, a.first, 2 if a.slice else a.random).split()
        of_sample = [int(line.split()[0]) for line in run(a.programs / "sunbreak-cli", "list", sample).splitlines()
                     if line.split()[:1] and line.split()[0].isdigit()]
        jobs = [(sample, [(n, "") for n in (of_sample[:1] if a.slice else of_sample)], units)
                for units in (["cm"] if a.slice else ["cm", "in"])]
        of_random = [(int(n), "") for n in numbers]
        jobs += [(random, of_random[:1], "cm"), (random, of_random[1:], "in")] if a.slice else [
            (random, of_random, "cm"), (random, of_random, "in")]
        for book, tests, units in jobs:
            voices = listen(a.programs, book, tests, units, folder)
            found = voices.contradictions()
            contradictions += len(found)
            subjects += len(voices.said)
            repeated += sum(len({s.surface for s in said}) > 1 for said in voices.said.values())
            print(f"{book.stem}, {units}: {len(tests)} tests, {len(voices.said)} things said by "
                  + ", ".join(f"{surface} ({count})" for surface, count in sorted(voices.surfaces.items())))
            for subject, said in found:
                print("  " + " · ".join(map(str, subject)))
                for one in said:
                    print(f"      {one}")
    print(f"{subjects} things, {repeated} of them said by two surfaces or more; {contradictions} said differently")
    if repeated < 100:
        sys.exit("too little was heard")
    sys.exit(1 if contradictions else 0)


if __name__ == "__main__":
    main()
