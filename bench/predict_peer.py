"""The optical model's sums in plain NumPy and SciPy: the peer of compare_predict.

Reads one line with the path of a file of arrays and answers each further line with one JSON line: the milliseconds that one
prediction took, and the PPFD at the stations."""
import json
import sys
import time

import numpy as np
from scipy.linalg import cho_factor, cho_solve


def direct(emitters, places, normals):
    """Adds up emitter by emitter: in-cache vectors are faster here than one large broadcast."""
    total = np.zeros(len(places))
    for x, y, z, nx, ny, nz, ppf, m in emitters:
        to = places - (x, y, z)
        d2 = np.einsum("ij,ij->i", to, to)
        d = np.sqrt(d2)
        leaving = np.maximum(to @ (nx, ny, nz) / d, 0)
        arriving = np.maximum(-np.einsum("ij,ij->i", to, normals) / d, 0)
        total += ppf * (m + 1) / (2 * np.pi) * leaving ** m * arriving / d2
    return total


def predict(a, exchange):
    seen = direct(a["emitters"], a["stations"], a["station_normals"])
    received = direct(a["emitters"], a["middles"], a["normals"])
    count = len(a["coarse_areas"])
    coarse_received = np.bincount(a["coarse_of_fine"], weights=received * a["areas"], minlength=count)
    radiosity = cho_solve(exchange, coarse_received)
    exchanged = radiosity / a["coarse_reflectances"] - coarse_received / a["coarse_areas"]
    fine = a["reflectances"] * (received + (exchanged[a["neighbors"]] * a["weights"]).sum(axis=1))
    return seen + a["factors"] @ fine.astype(np.float32)


def main():
    header = json.loads(sys.stdin.readline())
    a, offset = {}, 0
    raw = np.fromfile(header["file"], dtype=np.uint8)
    for name, kind, shape in header["arrays"]:
        size = int(np.prod(shape)) * np.dtype(kind).itemsize
        a[name] = raw[offset:offset + size].view(kind).reshape(shape)
        offset += size
    exchange = cho_factor(a["exchange"])
    for _ in sys.stdin:
        begun = time.perf_counter()
        ppfd = predict(a, exchange)
        spent = 1000 * (time.perf_counter() - begun)
        print(json.dumps({"ms": spent, "ppfd": ppfd.tolist()}), flush=True)


main()
