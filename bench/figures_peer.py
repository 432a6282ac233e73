"""The figures of sweeps in plain NumPy and SciPy, as a careful user would script them: the peer of compare_figures and,
for a lattice of sweeps with several targets, of compare_lattice.

Reads one JSON line with the sweep or sweeps, then for each further line computes everything once and answers with one JSON line:
the milliseconds it took, and the figures."""
import json
import sys
import time

import numpy as np
from scipy.interpolate import RegularGridInterpolator



def knots(lines, start, end):
    inner = lines[(lines > start + 1e-9) & (lines < end - 1e-9)]
    return np.concatenate([[start], inner, [end]])


def field_interpolator(xs, ys, grid):
    return RegularGridInterpolator((ys, xs), grid, bounds_error=False, fill_value=None)


def field_at(interpolator, xs, ys, x, y):
    yy, xx = np.meshgrid(np.clip(y, ys[0], ys[-1]), np.clip(x, xs[0], xs[-1]), indexing="ij")
    return interpolator(np.stack([yy.ravel(), xx.ravel()], axis=1)).reshape(yy.shape)


def largest_rectangle(inside):
    rows, columns = inside.shape
    heights = np.zeros(columns, dtype=int)
    best, size = 0, (0, 0)
    for row in range(rows):
        heights = np.where(inside[row], heights + 1, 0)
        stack = []
        line = heights.tolist() + [0]
        for column, height in enumerate(line):
            start = column
            while stack and stack[-1][1] >= height:
                start, tall = stack.pop()
                area = tall * (column - start)
                if area > best:
                    best, size = area, (column - start, tall)
            stack.append((start, height))
    return size


def centered_rectangle(inside):
    rows, columns = inside.shape
    half_columns, half_rows = (columns + 1) // 2, (rows + 1) // 2
    both = inside[: rows // 2 + rows % 2][::-1] & inside[rows // 2:]
    both = both[:, : columns // 2 + columns % 2][:, ::-1] & both[:, columns // 2:]
    runs = np.where(both.all(axis=1), half_columns, np.argmin(both, axis=1))
    widths = np.minimum.accumulate(runs)
    full_widths = np.where(widths == 0, 0, 2 * widths - columns % 2)
    full_rows = 2 * np.arange(1, half_rows + 1) - rows % 2
    best = int(np.argmax(full_widths * full_rows))
    if full_widths[best] == 0:
        return 0, 0
    return int(full_widths[best]), int(full_rows[best])


def centered_circle(inside, width, depth):
    rows, columns = inside.shape
    sx, sy = width / columns, depth / rows
    dx = np.maximum(0, np.abs((np.arange(columns) + 0.5) * sx - width / 2) - sx / 2)
    dy = np.maximum(0, np.abs((np.arange(rows) + 0.5) * sy - depth / 2) - sy / 2)
    distance2 = dx[None, :] ** 2 + dy[:, None] ** 2
    reach = min(width, depth) / 2
    out = distance2[~inside]
    nearest2 = min(reach ** 2, out.min()) if out.size else reach ** 2
    return 2 * float(np.sqrt(nearest2))


def coverage(raster, low, high, width, depth):
    rows, columns = raster.shape
    inside = (raster >= low) & (raster <= high)
    rectangle, centered = largest_rectangle(inside), centered_rectangle(inside)
    sx, sy = width / columns, depth / rows
    circle = centered_circle(inside, width, depth) if inside.any() else 0
    return {"in_band_share": inside.mean(), "too_dim_share": (raster < low).mean(), "too_bright_share": (raster > high).mean(),
            "largest_rectangle_m": [rectangle[0] * sx, rectangle[1] * sy],
            "largest_centred_rectangle_m": [centered[0] * sx, centered[1] * sy], "largest_centred_circle_m": circle}


def figures(s):
    columns, rows, width, depth = s["columns"], s["rows"], s["width_m"], s["depth_m"]
    grid = np.asarray(s["ppfd"]).reshape(rows, columns)
    xs = (np.arange(columns) + 0.5) * width / columns
    ys = (np.arange(rows) + 0.5) * depth / rows
    values = grid.ravel()
    mean, area, power = values.mean(), width * depth, s["power_w"]
    p5, median, p95 = np.percentile(values, [5, 50, 95])
    low, high = values.min(), values.max()
    ring_index = np.minimum(np.minimum(np.arange(columns)[None, :], np.arange(columns)[::-1][None, :]),
                            np.minimum(np.arange(rows)[:, None], np.arange(rows)[::-1][:, None]))
    rings = [grid[ring_index == i].mean() for i in range(ring_index.max() + 1)]
    xx, yy = np.meshgrid(xs, ys)
    distance = np.hypot(xx - width / 2, yy - depth / 2)
    center = grid[distance < distance.min() + 1e-6].mean()
    left, right = grid[xx < width / 2 - 1e-9].mean(), grid[xx > width / 2 + 1e-9].mean()
    front, back = grid[yy < depth / 2 - 1e-9].mean(), grid[yy > depth / 2 + 1e-9].mean()

    interpolator = field_interpolator(xs, ys, grid)
    nx, ny = round(width / 0.01), round(depth / 0.01)
    raster = field_at(interpolator, xs, ys, (np.arange(nx) + 0.5) * width / nx, (np.arange(ny) + 0.5) * depth / ny)
    bands = s.get("bands") or [[s["low"], s["high"]]]
    covered = [coverage(raster, low, high, width, depth) for low, high in bands]
    low_end, high_end = bands[0]
    nominal = []
    for w, d in s["sizes"]:
        if w > width + 0.001 or d > depth + 0.001:
            continue
        x0, y0 = (width - w) / 2, (depth - d) / 2
        cx, cy = max(1, round(w / 0.01)), max(1, round(d / 0.01))
        px, py = x0 + (np.arange(cx) + 0.5) / cx * w, y0 + (np.arange(cy) + 0.5) / cy * d
        part = field_at(interpolator, xs, ys, px, py)
        # Straight between stations: sums over the stations' lines are exact. The edge is read half a cell inside.
        kx, ky = knots(xs, x0, x0 + w), knots(ys, y0, y0 + d)
        mean = np.trapz(np.trapz(field_at(interpolator, xs, ys, kx, ky), kx, axis=1), ky) / (w * d)
        ex, ey = (xs[1] - xs[0]) / 2, (ys[1] - ys[0]) / 2
        kx, ky = knots(xs, x0 + ex, x0 + w - ex), knots(ys, y0 + ey, y0 + d - ey)
        along_x = np.trapz(field_at(interpolator, xs, ys, kx, ky[[0, -1]]), kx, axis=1).sum()
        along_y = np.trapz(field_at(interpolator, xs, ys, kx[[0, -1]], ky), ky, axis=0).sum()
        edge = (along_x + along_y) / (2 * (kx[-1] - kx[0] + ky[-1] - ky[0]))
        nominal += [mean, edge, ((part >= low_end) & (part <= high_end)).mean()]
    ascending = np.sort(raster, axis=None)
    at_or_above = ascending.size - np.searchsorted(ascending, s["levels"], side="left")
    return {
        "mean_ppfd": mean, "lowest_ppfd": low, "highest_ppfd": high, "median_ppfd": median, "p5_ppfd": p5, "p95_ppfd": p95,
        "sd_ppfd": values.std(), "cv": values.std() / mean, "ppf_umol_s": mean * area, "canopy_efficacy_umol_j": mean * area / power,
        "ppfd_per_watt": mean / power, "power_density_w_m2": power / area, "lowest_over_mean": low / mean,
        "lowest_over_highest": low / high, "highest_over_lowest": high / low, "p5_over_mean": p5 / mean, "rings": rings,
        "centre_ppfd": center, "left_right_pct": 100 * (right - left) / mean, "front_back_pct": 100 * (back - front) / mean,
        "centroid_m": [(values * xx.ravel()).sum() / values.sum() - xx.mean(), (values * yy.ravel()).sum() / values.sum() - yy.mean()],
        "dli_mean_mol_m2_d": mean * 3600 * s["photoperiod_h"] / 1e6, **covered[0], "covered": covered, "nominal": nominal,
        "area_curve_m2": at_or_above * (width / nx) * (depth / ny),
    }


def lattice(s):
    """Every figure of each sweep, with the coverage of all targets; answered as sums."""
    sums = dict.fromkeys(["mean", "lowest_over_mean", "in_band", "rectangles_m2", "centered_m2", "circles_m", "areas_m2"], 0.0)
    for ppfd in s["sweeps"]:
        f = figures({**s, "ppfd": ppfd})
        sums["mean"] += f["mean_ppfd"]
        sums["lowest_over_mean"] += f["lowest_over_mean"]
        sums["areas_m2"] += f["area_curve_m2"].sum()
        for c in f["covered"]:
            sums["in_band"] += c["in_band_share"]
            sums["rectangles_m2"] += np.prod(c["largest_rectangle_m"])
            sums["centered_m2"] += np.prod(c["largest_centred_rectangle_m"])
            sums["circles_m"] += c["largest_centred_circle_m"]
    return sums


def main():
    sweep = json.loads(sys.stdin.readline())
    for _ in sys.stdin:
        begun = time.perf_counter()
        result = lattice(sweep) if "sweeps" in sweep else figures(sweep)
        spent = 1000 * (time.perf_counter() - begun)
        result.pop("covered", None)
        print(json.dumps({"ms": spent, "figures": result}, default=lambda v: v.tolist()), flush=True)


main()
