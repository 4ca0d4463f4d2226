"""Flat boards as solids in a binary STL file (the format of 1988: 80 bytes, a count, 50 bytes a triangle), lengths in mm."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from ..geometry.segments import Floats
from ..geometry.space import Frame

if TYPE_CHECKING:
    import shapely


@dataclass(frozen=True)
class Slab:
    """An area flat in its own frame, `thickness` mm deep behind the frame's face."""

    frame: Frame
    shape: shapely.Polygon
    thickness: float


def write_stl(slabs: Sequence[Slab], title: str) -> bytes:
    """One solid after the other; every edge of a slab has just two triangles."""
    found = [_triangles(slab) for slab in slabs]
    triangles = np.concatenate(found) if found else np.zeros((0, 3, 3))
    normals = np.cross(triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0])
    normals /= np.maximum(np.linalg.norm(normals, axis=1, keepdims=True), 1e-12)
    rows = np.zeros(len(triangles), np.dtype([("n", "<f4", 3), ("v", "<f4", (3, 3)), ("more", "<u2")]))
    rows["n"], rows["v"] = normals, triangles
    head = title.encode("ascii", "replace")[:70].ljust(80)
    return head + np.uint32(len(rows)).tobytes() + rows.tobytes()


def _triangles(slab: Slab) -> Floats:
    """Triangles in space, counter-clockwise as seen from outside."""
    import shapely

    shape = shapely.orient_polygons(slab.shape)
    flat = shapely.orient_polygons(shapely.get_parts(shapely.constrained_delaunay_triangles(shape)))
    caps = shapely.get_coordinates(flat).reshape(-1, 4, 2)[:, :3]
    walls = []
    for ring in (shape.exterior, *shape.interiors):
        ends = np.stack([shapely.get_coordinates(ring)[:-1], shapely.get_coordinates(ring)[1:]], axis=1)
        walls.append(ends)
    edges = np.concatenate(walls)
    front, back = np.zeros((len(caps), 3, 1)), np.full((len(caps), 3, 1), slab.thickness)
    a, b = edges[:, 0], edges[:, 1]
    top, deep = np.zeros((len(edges), 1)), np.full((len(edges), 1), slab.thickness)
    quads = np.concatenate(
        [
            np.stack([np.hstack([a, top]), np.hstack([a, deep]), np.hstack([b, deep])], axis=1),
            np.stack([np.hstack([a, top]), np.hstack([b, deep]), np.hstack([b, top])], axis=1),
        ]
    )
    local = np.concatenate([np.dstack([caps, front]), np.dstack([caps[:, ::-1], back]), quads])
    frame = slab.frame
    axes = np.array([frame.u, frame.v, tuple(-part for part in frame.n)])
    placed: Floats = local @ axes + np.array(frame.origin)
    # A part that is turned over has its frame's hand the other way round.
    return placed if np.dot(np.cross(frame.u, frame.v), frame.n) > 0 else placed[:, ::-1]
