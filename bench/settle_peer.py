"""The field of Settle by NumPy: the peer of compare_settle.

Reads one line with the path of a file of arrays, and answers each further line with one JSON line: the milliseconds that
the whole field took, a height at a time so that it stays in the cache, and the sums of its figures."""
import json
import sys
import time

import numpy as np

from peer_arrays import read_arrays


def field(arrays, low, high):
    factors = arrays["factors"]
    shape = (len(arrays["cells"]), len(factors))
    out = {name: np.empty(shape) for name in ("mean", "edge", "lowest", "highest", "in_band", "even")}
    for h in range(shape[0]):
        light = arrays["cells"][h][None, :] * factors[:, None]
        stations = arrays["stations"][h][None, :] * factors[:, None]
        out["mean"][h] = stations @ arrays["mean"]
        out["edge"][h] = stations @ arrays["edge"]
        out["lowest"][h] = stations.min(axis=1)
        out["highest"][h] = stations.max(axis=1)
        out["in_band"][h] = ((light >= low) & (light <= high)).mean(axis=1)
        out["even"][h] = out["lowest"][h] / out["mean"][h]
    return out


def main():
    numbers = json.loads(sys.stdin.readline())
    arrays = read_arrays(numbers)
    for _ in sys.stdin:
        begun = time.perf_counter()
        out = field(arrays, numbers["low"], numbers["high"])
        spent = 1000 * (time.perf_counter() - begun)
        print(json.dumps({"ms": spent, "sums": {k: float(v.sum()) for k, v in out.items()}}), flush=True)


main()
