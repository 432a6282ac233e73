"""Ranks with intervals by NumPy: the peer of compare_line_up.

Reads one line with the path of a file of arrays, and answers each further line with one JSON line: the milliseconds that
the ranking took, pair by pair as whole arrays, and the sums of both ends of the ranks."""
import json
import sys
import time

import numpy as np

from peer_arrays import read_arrays


def ranks(value, own, bias, shared):
    variance = own + (shared**2).sum(axis=1)
    pair = variance[:, None] + variance[None, :] - 2 * shared @ shared.T
    off = np.abs(value[:, None] - value[None, :]) - np.abs(bias[:, None] - bias[None, :])
    beyond = (off > 0) & (off > 2 * np.sqrt(np.maximum(pair, 0)))
    better = value[:, None] > value[None, :]
    wins = beyond & better
    low = 1 + wins.sum(axis=0)
    high = len(value) - wins.sum(axis=1)
    return low, high


def main():
    numbers = json.loads(sys.stdin.readline())
    arrays = read_arrays(numbers)
    for _ in sys.stdin:
        begun = time.perf_counter()
        low, high = ranks(arrays["value"], arrays["own"], arrays["bias"], arrays["shared"])
        spent = 1000 * (time.perf_counter() - begun)
        print(json.dumps({"ms": spent, "low": int(low.sum()), "high": int(high.sum())}), flush=True)


main()
