"""The field of Settle by NumPy: the peer of compare_settle.

Reads one line with the path of a file of arrays, and answers each further line with one JSON line: the milliseconds that
the whole field took, a height at a time so that it stays in the cache, and the sums of its figures."""
import json
import sys
import time

import numpy as np

from peer_arrays import read_arrays


def field(cells, edge, factors, low, high):
    shape = (len(cells), len(factors))
    out = {name: np.empty(shape) for name in ("mean", "edge", "lowest", "highest", "in_band", "even")}
    for h in range(len(cells)):
        light = cells[h][None, :] * factors[:, None]
        border = edge[h][None, :] * factors[:, None]
        out["mean"][h] = light.mean(axis=1)
        out["edge"][h] = border.mean(axis=1)
        out["lowest"][h] = np.minimum(light.min(axis=1), border.min(axis=1))
        out["highest"][h] = np.maximum(light.max(axis=1), border.max(axis=1))
        out["in_band"][h] = ((light >= low) & (light <= high)).mean(axis=1)
        out["even"][h] = out["lowest"][h] / out["mean"][h]
    return out


def main():
    numbers = json.loads(sys.stdin.readline())
    arrays = read_arrays(numbers)
    for _ in sys.stdin:
        begun = time.perf_counter()
        out = field(arrays["cells"], arrays["edge"], arrays["factors"], numbers["low"], numbers["high"])
        spent = 1000 * (time.perf_counter() - begun)
        print(json.dumps({"ms": spent, "sums": {k: float(v.sum()) for k, v in out.items()}}), flush=True)


main()
