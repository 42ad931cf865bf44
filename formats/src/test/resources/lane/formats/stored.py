"""Makes stored.vtkhdf: arrays in the ways in which HDF5 can store them, and links. Needs h5py; run beside the file."""
import h5py
import numpy as np

n = 4
nodes = np.array([[i, j, k] for k in range(n) for j in range(n) for i in range(n)], dtype="f8")
cells = [
    [a := i + n * (j + n * k), a + 1, a + 1 + n, a + n, a + n * n, a + 1 + n * n, a + 1 + n + n * n, a + n + n * n]
    for k in range(n - 1) for j in range(n - 1) for i in range(n - 1)
]
with h5py.File("stored.vtkhdf", "w") as f:
    g = f.create_group("VTKHDF")
    g.attrs["Version"] = np.array([2, 0], dtype="i8")
    g.attrs.create("Type", b"UnstructuredGrid", dtype="S16")
    g["NumberOfPoints"] = np.array([len(nodes)], dtype="i8")
    g["NumberOfCells"] = np.array([len(cells)], dtype="i8")
    g["NumberOfConnectivityIds"] = np.array([8 * len(cells)], dtype="i8")
    g.create_dataset("Points", data=nodes, chunks=(7, 2), compression="gzip", shuffle=True)
    g["Connectivity"] = np.array(cells, dtype="i8").ravel()
    g["Offsets"] = np.arange(0, 8 * len(cells) + 1, 8, dtype="i8")
    g["Types"] = np.full(len(cells), 12, dtype="u1")
    p = g.create_group("PointData")
    count = len(nodes)
    humidity = p.create_dataset("humidity", (count,), "f8", chunks=(16,), fillvalue=-7.5, compression="gzip")
    humidity[0:16] = np.arange(16)
    humidity[32:48] = np.arange(32, 48)
    draught = p.create_dataset("draught", (count, 3), ">f4", chunks=(10, 2), compression="gzip", shuffle=True, fletcher32=True)
    draught[:] = np.arange(3 * count).reshape(count, 3)
    p.create_dataset("never", (count,), ">i4", chunks=(5,), fillvalue=12)
    p.create_dataset("reserved", (count,), "f8", fillvalue=3.25)
    p.create_dataset("zero", (count,), "f8", chunks=(8,))
    p["alias"] = h5py.SoftLink("/VTKHDF/PointData/humidity")
    p["near"] = h5py.SoftLink("draught")
    p["ring"] = h5py.SoftLink("gnir")
    p["gnir"] = h5py.SoftLink("/VTKHDF/PointData/ring")
    p["lost"] = h5py.SoftLink("/nowhere")
    p["away"] = h5py.ExternalLink("other.h5", "/T")
