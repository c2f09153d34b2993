"""Makes the figure's meshes anew from their fields: `python scripts/make_bodies.py`. Takes a quarter of an hour."""

from __future__ import annotations

from pathlib import Path

import numpy as np
from bodies.builds import BUILDS
from bodies.figure import KINDS, pieces_of
from bodies.kept import kept, kept_outlines, kept_sight
from bodies.outlines import outlines
from bodies.sight import sight

FIGURE = Path(__file__).parent.parent / "src/ausblick/core/figure/bodies"
PLAIN = ("head", "plain coat", "plain moving sleeve", "plain hand", "plain moving hand", "legs", "shoes")


def main() -> None:
    FIGURE.mkdir(exist_ok=True)
    for build in BUILDS:
        pieces = pieces_of(build)
        seen = {}
        for names, around in assemblies():
            found = sight([pieces[name] for name in names], [pieces[name] for name in around])
            seen |= dict(zip(names, found, strict=True))
        whole = {}
        for name, mesh in pieces.items():
            whole |= kept(name, mesh, seen[name])
        for kind in KINDS:
            (under,) = sight([pieces["head"]], [pieces[f"hair {kind}"], pieces["plain coat"]])
            whole |= kept_sight(f"head under {kind}", under)
        ahead = [(name, outline) for name, mesh in pieces.items() for outline in outlines(mesh)]
        np.savez_compressed(FIGURE / f"{build.name}_outlines.npz", **kept_outlines(ahead))
        path = FIGURE / f"{build.name}.npz"
        np.savez_compressed(path, **whole)
        print(build.name, sum(len(m.triangles) for m in pieces.values()), "triangles", path.stat().st_size, "bytes")


def assemblies() -> list[tuple[tuple[str, ...], tuple[str, ...]]]:
    """Pieces that are looked at together, and what else stands round them."""
    holding = ("holding coat", "holding moving sleeve", "holding hand", "holding moving hand")
    reaching = ("reaching coat", "reaching moving sleeve", "reaching hand", "reaching moving hand")
    return [
        (PLAIN, ()),
        (holding, ("head", "legs", "shoes")),
        (("seated legs", "seated shoes"), ("plain coat", "plain hand")),
        (reaching, ()),
        (("hair smooth",), ("head", "plain coat")),
        (("hair fine",), ("head", "plain coat")),
        (("hair curly",), ("head", "plain coat")),
    ]


if __name__ == "__main__":
    main()
