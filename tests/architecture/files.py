#!/usr/bin/env python3
"""Fails where a file is opened, written, moved or taken away by any way around the one writer and the one reader.

Argument: the source folder. What may do more is listed with what it does."""
import pathlib
import re
import sys

source = pathlib.Path(sys.argv[1])
writing = (r"\bofstream\b|\bfstream\b|\bfopen\s*\(|\bfreopen\s*\(|\bO_(?:WRONLY|RDWR|CREAT|TMPFILE)\b|\bmkstemp\b|\bmkdtemp\b|"
           r"QSaveFile|QTemporaryFile|\bQFile\b|\bcreat\s*\(|\.save\s*\(\s*(?!&)(?:file|path|name|text_of)|"
           r"fs::(?:rename|copy|copy_file|resize_file|remove|remove_all|create_hard_link|create_symlink)\s*\(|"
           r"filesystem::(?:rename|copy|copy_file|resize_file|remove|remove_all)\s*\(|(?<!\w)::(?:rename|unlink|link|truncate)\s*\(|"
           r"\.save\s*\(\s*[^&)][^)]*,\s*\"(?:PNG|JPG|JPEG|SVG)\"|grab\(\)\.save\s*\(\s*[^&]|"
           r"workbook_new|cairo_(?:pdf|svg|ps)_surface_create\s*\(|write_to_png\s*\(|zip_open\s*\(|SQLite::OPEN_(?:CREATE|READWRITE)|sqlite3_open")
reading = r"\bifstream\b|\bstd::getline\s*\(\s*std::cin|\bfread\s*\(|(?<!\w)::open\s*\(|\bistreambuf_iterator\b"
# The one writer and the one reader, and what SQLite, libzip, the system's devices and the demo of a bench do themselves.
may = {
    "exchange/files/new_file.cpp": "writes files",
    "exchange/files/read_file.cpp": "reads files",
    "book/book.cpp": "how the lab book is opened, and its lock",
    "book/connection.cpp": "a database in memory",
    "book/backup.cpp": "copies of the lab book, by SQLite, and the oldest ones taken away",
    "gathering/entry_cache.cpp": "what is kept beside a lab book, by SQLite",
    "exchange/package/zip_archive.cpp": "reads packages, by libzip",
    "workbook/book_writer.cpp": "a workbook in a folder of its own for temporary files",
    "instruments/transport.cpp": "devices and logs that are followed",
    "instruments/simulator/bench_server.cpp": "the simulated bench's terminal and log",
    "instruments/simulator/bench_server.h": "the simulated bench's log",
    "publishing/site.cpp": "takes away pages that it wrote itself, as their sums tell",
    "book/schema.cpp": "a database in memory",
    "desktop/theme/theme.cpp": "what the program carries in itself",
}
faults, used = [], set()
for file in sorted(source.rglob("*")):
    if file.suffix not in (".cpp", ".h"):
        continue
    name = str(file.relative_to(source))
    for number, line in enumerate(file.read_text().splitlines(), 1):
        code = re.sub(r"//.*", "", line)
        if re.match(r"\s*#include", code):
            continue
        if re.search(writing + "|" + reading, code):
            used.add(name)
            if name not in may:
                faults.append(f"{name}:{number}: {line.strip()}")
for name in may.keys() - used:
    faults.append(f"{name}: is allowed what it does not do")
print("\n".join(faults))
sys.exit(bool(faults))
