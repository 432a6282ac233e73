"""Arrays that the peers' other side wrote into a file (array_file.h)."""
import numpy as np


def read_arrays(header):
    """The arrays that a header names, by their names."""
    kinds = {"f8": np.float64, "f4": np.float32, "i4": np.int32}
    arrays = {}
    with open(header["file"], "rb") as file:
        for name, kind, shape in header["arrays"]:
            arrays[name] = np.fromfile(file, kinds[kind], int(np.prod(shape))).reshape(shape)
    return arrays
