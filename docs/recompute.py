#!/usr/bin/env python3
"""Recomputes mean PPFD and canopy efficacy of each sweep from a data package's readings, without Sunbreak.
Argument: the package. Prints sweep, mean [µmol/m²/s], efficacy [µmol/J] and what the package states."""
import csv, io, sys, zipfile

package = zipfile.ZipFile(sys.argv[1])
table = lambda name: list(csv.DictReader(io.TextIOWrapper(package.open(name + ".csv"), "utf-8", newline="")))
bench, stations, figures = table("bench")[0], table("stations"), table("figures")
stated = {(f["sweep_id"], f["figure"]): float(f["value"]) for f in figures}
for sweep in table("sweep"):
    read = [s for s in stations if s["sweep_id"] == sweep["id"] and s["ppfd_umol_m2_s"]]
    if not read or sweep["grid_kind"] not in ("cells", "nodes"):
        continue  # spots and insets have areas of their own: docs/method.md
    edge = lambda at, size: 0.5 if sweep["grid_kind"] == "nodes" and min(at, size - at) < 1e-9 else 1.0
    width, depth = float(bench["width_m"]), float(bench["depth_m"])
    weight = [edge(float(s["x_m"]), width) * edge(float(s["y_m"]), depth) for s in read]
    mean = sum(w * float(s["ppfd_umol_m2_s"]) for w, s in zip(weight, read)) / sum(weight)
    efficacy = mean * width * depth / float(sweep["power_w"]) if sweep["power_w"] else float("nan")
    print(sweep["id"], f"{mean:.9g}", f"{efficacy:.9g}", stated.get((sweep["id"], "mean_ppfd")),
          stated.get((sweep["id"], "canopy_efficacy_umol_j")))
