"""The fit of whole light by SciPy over plain NumPy sums: the peer of compare_whole_light.

Reads one line with the path of a file of arrays and numbers, and answers each further line with one JSON line: the
seconds that one cold fit took, and the whole PPF that it found. The same unknowns, beliefs and weights as ours: lobes by
non-negative least squares inside, all else by least_squares outside, its slopes by differences."""
import json
import sys
import time

import numpy as np
from scipy.linalg import cho_factor, cho_solve
from scipy.optimize import least_squares, nnls


def rotation(roll, pitch):
    r, p = np.radians(roll), np.radians(pitch)
    about_y = np.array([[np.cos(r), 0, np.sin(r)], [0, 1, 0], [-np.sin(r), 0, np.cos(r)]])
    about_x = np.array([[1, 0, 0], [0, np.cos(p), np.sin(p)], [0, -np.sin(p), np.cos(p)]])
    return about_x @ about_y


def direct(sources, turn, points, normals, lobes, peaks):
    """A row a point, a column a lobe."""
    total = np.zeros((len(points), len(lobes)))
    for source in sources:
        to = points - source
        d2 = np.einsum("ij,ij->i", to, to)
        d = np.sqrt(d2)
        local = to @ turn
        cosine = np.maximum(-local[:, 2] / d, 0)
        x2, y2 = local[:, 0] ** 2 / d2, local[:, 1] ** 2 / d2
        arriving = np.maximum(-np.einsum("ij,ij->i", to, normals) / d, 0) / d2
        side = {0: np.ones_like(x2), 1: x2, 2: y2, 3: x2 * x2, 4: y2 * y2}
        for k, (shape, exponent) in enumerate(lobes):
            total[:, k] += cosine ** exponent * side[shape] * arriving
    return total * peaks / len(sources)


class Fit:
    def __init__(self, numbers, a):
        self.n, self.a = numbers, a
        self.heights = np.array(numbers["heights"])
        self.read = a["read"]
        self.stations = a["stations"]
        self.up = np.tile([0.0, 0.0, 1.0], (len(self.stations), 1))
        self.lobes = [tuple(lobe) for lobe in numbers["lobes"]]
        self.peaks = np.array(numbers["peaks"])
        self.flux = None

    def columns(self, v):
        a, n = self.a, len(self.heights)
        x, y, datum, shifts, roll, pitch, span = v[0], v[1], v[2], v[3:3 + n], v[3 + n], v[4 + n], v[5 + n]
        sides = v[6 + n:]
        fine, coarse = sides[a["side_of_fine"]], sides[a["side_of_coarse"]]
        count = len(coarse)
        system = np.diag(a["coarse_areas"] / coarse) - a["mutual"]
        factored = cho_factor(system)
        turn = rotation(roll, pitch)
        rows = []
        for height, shift in zip(self.heights, shifts):
            middle = np.array([0.6 + x, 0.6 + y, height + datum + shift])
            sources = middle + (turn @ (span * a["emitters"]).T).T
            seen = direct(sources, turn, self.stations, self.up, self.lobes, self.peaks)
            points = direct(sources, turn, a["points"], a["normals"], self.lobes, self.peaks)
            received = points.reshape(-1, 4, points.shape[1]).mean(axis=1)
            flux = np.zeros((count, points.shape[1]))
            np.add.at(flux, a["coarse_of_fine"], received * a["fine_areas"][:, None])
            later = cho_solve(factored, flux) - coarse[:, None] * flux / a["coarse_areas"][:, None]
            rows.append(seen + a["gathering_fine"] @ (fine[:, None] * received) + a["gathering_coarse"] @ later)
        return np.vstack(rows)

    def residuals(self, v):
        by_lobe = self.columns(v) / self.a["sd"][:, None]
        first = self.n["round_lobes"]
        part = 1 / (0.15 * self.n["usual_flux"])
        alone = np.zeros((by_lobe.shape[1] - first, by_lobe.shape[1]))
        alone[:, first:] = np.eye(alone.shape[0]) * part
        together = np.zeros((1, by_lobe.shape[1]))
        together[0, first:] = part
        stacked = np.vstack([by_lobe, alone, together])
        wanted = np.concatenate([self.read / self.a["sd"], np.zeros(len(alone) + 1)])
        self.flux, _ = nnls(stacked, wanted, maxiter=2000)
        beliefs = (v - self.n["believed"]) / self.n["belief_sd"]
        walls = v[self.n["first_side"]:self.n["first_side"] + 4]
        return np.concatenate([stacked @ self.flux - wanted, beliefs, (walls - walls.mean()) / 0.035])


def main():
    numbers = json.loads(sys.stdin.readline())
    a, offset = {}, 0
    raw = np.fromfile(numbers["file"], dtype=np.uint8)
    for name, kind, shape in numbers["arrays"]:
        size = int(np.prod(shape)) * np.dtype(kind).itemsize
        a[name] = raw[offset:offset + size].view(kind).reshape(shape)
        offset += size
    for name in ("believed", "belief_sd"):
        numbers[name] = np.array(numbers[name])
    for _ in sys.stdin:
        begun = time.perf_counter()
        fit = Fit(numbers, a)
        found = least_squares(fit.residuals, numbers["believed"], x_scale=numbers["belief_sd"], diff_step=3e-3,
                              max_nfev=numbers["rounds"])
        fit.residuals(found.x)
        print(json.dumps({"s": time.perf_counter() - begun, "ppf": float(fit.flux.sum())}), flush=True)


main()
