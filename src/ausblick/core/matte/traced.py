"""What of the figure is seen in a window: how much of each pixel it covers, and which places of it fill them."""

from __future__ import annotations

from collections.abc import Hashable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import cached_property

import cv2
import numpy as np
from scipy.sparse import csr_matrix

from ..camera.view import View, view_key
from ..figure.solid_body import SolidBody
from ..geometry.channels import threefold
from ..geometry.raster import depth_picture, in_window, triangle_picture
from ..geometry.vectors import Bytes, Floats32, Ints32, crossed, put_rows
from ..plan import Sensor
from ..remembered.shelf import Shelf
from .pixel_window import PixelWindow

EDGES = 2
"""Times the samples of what is seen, along each way of a pixel, for how much of it is covered."""
NEAREST = 0.1
"""What is nearer to the lens than this, m, is not drawn."""
MOST_SAMPLES = 40_000_000
"""A window that would need more samples for its edges gets fewer a pixel."""


@dataclass(frozen=True, eq=False)
class Traced:
    """Cover (h, w) over the rows and columns of `box`. Of the samples that meet the body (N,): their number in the
    box's grid of samples, the three corners (N, 3) of the triangle and their weights (N, 3), the part of the body.
    `key`: what it is remembered by; `seen`: samples along each way of a pixel."""

    key: Hashable
    seen: int
    box: tuple[slice, slice]
    cover: Floats32
    sample: Ints32
    corners: Ints32
    weights: Floats32
    part: Bytes

    @property
    def nbytes(self) -> int:
        return sum(a.nbytes for a in (self.cover, self.sample, self.corners, self.weights, self.part))

    def at(self, values: Floats32) -> Floats32:
        """Values (V, C) of the body's places at the samples (N, C)."""
        starts = np.arange(0, self.corners.size + 1, 3, dtype=np.int32)
        between = csr_matrix((self.weights.ravel(), self.corners.ravel(), starts), (len(self.corners), len(values)))
        return np.asarray(between @ values)

    @cached_property
    def filled(self) -> Floats32:
        """Share (h, w) of a pixel's samples that meet the body."""
        return self._means(np.ones((len(self.sample), 1), dtype=np.float32)).reshape(self.cover.shape)

    def averaged(self, values: Floats32) -> Floats32:
        """Values (N, C) of the samples as means (h, w, C) over pixels; a pixel that no sample fell in takes its
        neighbours'."""
        return self.evened(self._means(values).reshape(*self.cover.shape, -1))

    @cached_property
    def pixel(self) -> Ints32:
        """In which pixel (N,) of the box each sample is, row by row."""
        wide = self.cover.shape[1] * self.seen
        row, column = np.divmod(self.sample, wide)
        return np.asarray((row // self.seen) * self.cover.shape[1] + column // self.seen, dtype=np.int32)

    def evened(self, sums: Floats32) -> Floats32:
        """Means over all samples of each pixel (h, w, C), in which those that miss the body count as nothing, as
        means over those that meet it."""
        count = self.filled
        empty = (count <= 0.0) & (self.cover > 0.0)
        if empty.any():
            sums, count = sums.copy(), count.copy()
            for size in (3, 7):
                left = empty & (count <= 1e-6)
                for picture in (sums, count):
                    blurred = cv2.blur(picture, (size, size), borderType=cv2.BORDER_CONSTANT)
                    picture[left] = blurred.reshape(picture.shape)[left]
        count = np.maximum(count, np.float32(1e-6))
        return np.asarray(sums / (threefold(count) if sums.shape[2] == 3 else count[..., None]))

    def _means(self, values: Floats32) -> Floats32:
        (h, w), seen = self.cover.shape, self.seen
        grid: Floats32 = np.zeros((h * seen * w * seen, values.shape[1]), dtype=np.float32)
        put_rows(grid, self.sample, values)
        return np.asarray(cv2.resize(grid.reshape(h * seen, w * seen, -1), (w, h), interpolation=cv2.INTER_AREA))


_KEPT: Shelf[Traced | None] = Shelf(12, 16 * 2**20, size=lambda made: 0 if made is None else made.nbytes)


def traced(body: SolidBody, moving: bool, view: View, sensor: Sensor, window: PixelWindow) -> Traced | None:
    """Of the part that moves, or of the rest; None where none of it is in the window."""
    key = (body.key, moving, view_key(view), sensor.px_w, sensor.px_h, window)
    return _KEPT.get(key, lambda: _traced(key, body, moving, view, sensor, window))


def _traced(
    key: Hashable, body: SolidBody, moving: bool, view: View, sensor: Sensor, window: PixelWindow
) -> Traced | None:
    triangles = body.shape.moving if moving else body.shape.still
    local = ((body.places - view.lens) @ view.axes.T).astype(np.float32)
    focal = sensor.px_w / (2.0 * window.scale * view.tan_h), sensor.px_h / (2.0 * window.scale * view.tan_v)
    middle = (0.5 * sensor.px_w - window.x) / window.scale, (0.5 * sensor.px_h - window.y) / window.scale
    depth = np.maximum(local[:, 2], NEAREST)
    column = np.asarray(middle[0] + focal[0] * local[:, 0] / depth, dtype=np.float32)
    row = np.asarray(middle[1] - focal[1] * local[:, 1] / depth, dtype=np.float32)
    triangles = _toward_lens(local, _reaching(triangles, local[:, 2], column, row, window))
    if not len(triangles):
        return None
    used = np.zeros(len(local), dtype=bool)
    used[triangles] = True
    box = _box(column[used], row[used], window)
    if box is None:
        return None
    rows, columns = box
    h, w = rows.stop - rows.start, columns.stop - columns.start
    squeezed = in_window(local, focal, (middle[0] - columns.start, middle[1] - rows.start), (h, w))
    near, far = 0.95 * float(local[used, 2].min()), 1.05 * float(local[used, 2].max())
    edges_too = h * w * (EDGES * window.seen) ** 2 <= MOST_SAMPLES
    fine = EDGES * window.seen if edges_too else window.seen
    with ThreadPoolExecutor(1) as beside:
        edges = beside.submit(depth_picture, squeezed, triangles, (h * fine, w * fine), 1.0, near, far)
        which = triangle_picture(squeezed, triangles, (h * window.seen, w * window.seen), 1.0, near, far)
        sample, corners, weights = _sampled(which, squeezed, triangles)
        met = (edges.result() < 0.999 * far).astype(np.float32)
    cover = np.asarray(cv2.resize(met, (w, h), interpolation=cv2.INTER_AREA), dtype=np.float32)
    return Traced(key, window.seen, box, cover, sample, corners, weights, body.shape.part[corners[:, 0]])


def _reaching(triangles: Ints32, depth: Floats32, column: Floats32, row: Floats32, window: PixelWindow) -> Ints32:
    """Those (K, 3) before the lens that may lie in the window: their corners are `depth` ahead of it, in m, and in a
    column and row of pixels each (V,)."""
    a, b, c = triangles.T.copy()
    inside = np.minimum(np.minimum(depth[a], depth[b]), depth[c]) > NEAREST
    for places, size in ((column, window.width), (row, window.height)):
        one, two, three = places[a], places[b], places[c]
        inside &= np.maximum(np.maximum(one, two), three) > 0.0
        inside &= np.minimum(np.minimum(one, two), three) < size
    return np.asarray(triangles[inside])


def _toward_lens(local: Floats32, triangles: Ints32) -> Ints32:
    """Those that face the lens: of a closed body none that it sees first faces away. Right, up and ahead are the axes
    of a left-handed system: what is counter-clockwise in the set is clockwise here."""
    a, b, c = (local.take(triangles[:, i], axis=0).T.copy() for i in range(3))
    x, y, z = crossed(b - a, c - a)
    return np.ascontiguousarray(triangles[a[0] * x + a[1] * y + a[2] * z > 0.0])


def _sampled(which: Ints32, local: Floats32, triangles: Ints32) -> tuple[Ints32, Ints32, Floats32]:
    """Of the samples of a picture `which` (H, W) of triangles that meet one (N,): their number in it, the triangle's
    corners (N, 3), and the weights (N, 3) of those."""
    high, wide = which.shape
    sample = np.flatnonzero(which >= 0)
    found, (rows, columns) = which.ravel().take(sample), np.divmod(sample, wide)
    ray_x = ((columns + 0.5 - wide / 2.0) * (2.0 / high)).astype(np.float32)
    ray_y = (-(rows + 0.5 - high / 2.0) * (2.0 / high)).astype(np.float32)
    met = np.zeros(len(triangles), dtype=bool)
    met[found] = True
    among = np.cumsum(met) - 1
    a, b, c = (local.take(triangles[met, i], axis=0).T.copy() for i in range(3))
    shares = np.empty((3, len(found)), dtype=np.float32)
    for share, (one, two) in zip(shares, ((b, c), (c, a), (a, b)), strict=True):
        # How much of the corner opposite: the triple product with the ray.
        x, y, z = (each.take(among[found]) for each in crossed(one, two))
        np.subtract(ray_x * x + ray_y * y, z, out=share)
    shares /= shares[0] + shares[1] + shares[2]
    return sample.astype(np.int32), triangles.take(found, axis=0), np.ascontiguousarray(shares.T)


def _box(column: Floats32, row: Floats32, window: PixelWindow) -> tuple[slice, slice] | None:
    low = max(0, int(np.floor(column.min())) - 1), max(0, int(np.floor(row.min())) - 1)
    high = min(window.width, int(np.ceil(column.max())) + 1), min(window.height, int(np.ceil(row.max())) + 1)
    if high[0] <= low[0] or high[1] <= low[1]:
        return None
    return slice(low[1], high[1]), slice(low[0], high[0])
