"""Flat parts as solids of a general-purpose library (Manifold, by its Python package)."""

from __future__ import annotations

import manifold3d
import numpy as np
import shapely
from lean_notch.geometry import flatten
from lean_notch.making import Build


def solid(shape: shapely.Geometry, frame, thickness: float) -> manifold3d.Manifold:
    """A flat shape extruded into the material behind its frame's face."""
    rings = [np.asarray(ring.coords)[:-1] for ring in (shape.exterior, *shape.interiors)]
    section = manifold3d.CrossSection(rings, manifold3d.FillRule.EvenOdd)
    u, v, n, origin = (np.asarray(one) for one in (frame.u, frame.v, frame.n, frame.origin))
    # From the local axes to the room's: the extrusion's z runs from the back to the face.
    plain = np.column_stack([u, v, n, origin - thickness * n])
    if np.linalg.det(plain[:, :3]) > 0:
        return section.extrude(thickness).transform(plain)
    return section.extrude(thickness).transform(np.column_stack([u, v, -n, origin]))


def flat(region) -> shapely.Polygon:
    outer, *holes = (flatten(ring.segments, 0.001) for ring in region.rings)
    return shapely.Polygon(outer, holes)


def solids(build: Build, shapes, thickness=None):
    return {one.placement: solid(shapes[one.part], one.frame, thickness or one.thickness) for one in build.standings}


def common(solids):
    names = sorted(solids)
    pairs = [(a, b) for i, a in enumerate(names) for b in names[i + 1 :]]
    return {pair: (solids[pair[0]] ^ solids[pair[1]]).volume() for pair in pairs}
