"""The light that surfaces send each other, solved directly: E = D + F rho E, with E = (1 - F rho)^-1 D.

Most patches of a room are neutral: they return three channels alike, and what goes on among them is solved once for
all three. Coloured ones, the screen above all, are then solved for each channel, with the neutral ones between them
counted in (a Schur complement). Nothing is approximated; a room where nothing is neutral is all of the second step.

Less light leaves a patch than arrives, so that the systems are far from singular. Source: Goral et al. (SIGGRAPH
1984) for the equation; Golub and Van Loan, Matrix Computations, 3.2.11, for the elimination by blocks.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats, Floats32, Ints

SMALLEST_HALF = 24


@dataclass(frozen=True, eq=False)
class AmongNeutral:
    """What a set's geometry and its neutral patches (`neutral`, G of them) make of light: `solved` (G, G) is all
    light on them of one lux of direct light on each. Of one lux that leaves each of the `coloured` patches (S of
    them): `onto_neutral` (G, S) is the light on the neutral ones, `onto_coloured` (S, S) on the coloured ones, by all
    ways that meet none of these. `returned` (S, G): what one lux on neutral patches sends straight to coloured ones.
    """

    neutral: Ints
    coloured: Ints
    solved: Floats32
    onto_neutral: Floats32
    onto_coloured: Floats32
    returned: Floats32


@dataclass(frozen=True, eq=False)
class Exchange:
    """The same with the inks (3, S) of the coloured patches, and `solved` (3, S, S) of these."""

    among: AmongNeutral
    ink: Floats32
    solved: Floats32

    def incident(self, direct: Floats) -> Floats:
        """All light (N, 3) in lux on the patches from the direct light, in three channels (N, 3) or alike in all of
        them (N, 1), which among neutral patches is a third of the work."""
        among, given = self.among, direct.astype(np.float32)
        own = among.solved @ given[among.neutral]
        seen = given[among.coloured] + among.returned @ own
        lit = (self.solved @ np.ascontiguousarray(seen.T)[..., None])[..., 0].T
        found = np.empty((len(direct), 3))
        found[among.coloured] = lit
        found[among.neutral] = own + among.onto_neutral @ (self.ink.T * lit)
        return found


def neutral_inks(reflectance: Floats) -> Floats:
    """What (N,) of each patch's reflectance (N, 3) is alike in three channels; NaN for a coloured one."""
    alike = (reflectance == reflectance[:, :1]).all(axis=1)
    return np.where(alike, reflectance[:, 0], np.nan)


def among_neutral(factors: Floats32, inks: Floats) -> AmongNeutral:
    """factors (N, N): which share of the light that leaves each patch arrives at another; `inks` (N,) as above."""
    coloured = np.isnan(inks)
    g, s = np.flatnonzero(~coloured), np.flatnonzero(coloured)
    ink = inks[g].astype(np.float32)
    solved = _inverse(_system(factors[np.ix_(g, g)], ink))
    onto_neutral = solved @ factors[np.ix_(g, s)]
    returned = factors[np.ix_(s, g)] * ink
    return AmongNeutral(g, s, solved, onto_neutral, factors[np.ix_(s, s)] + returned @ onto_neutral, returned)


def exchange_of(among: AmongNeutral, reflectance: Floats) -> Exchange:
    """The same with the inks of the coloured patches: reflectance (N, 3)."""
    ink = np.ascontiguousarray(reflectance[among.coloured].T, dtype=np.float32)
    return Exchange(among, ink, _inverse(_system(among.onto_coloured, ink)))


def _system(factors: Floats32, ink: Floats32) -> Floats32:
    """1 - F rho: (..., N, N) of factors (N, N) and inks (..., N)."""
    system = factors * -ink[..., None, :]
    diagonal = np.arange(len(factors))
    system[..., diagonal, diagonal] += 1.0
    return np.asarray(system)


def _inverse(system: Floats32) -> Floats32:
    """The inverse of one or several systems (..., N, N) by halves, nearly all of it products of matrices. No pivots
    are needed: in 1 - F rho a row's own place outweighs the others as long as less light leaves than arrives, and so
    it is with what is left of a half. Even in a room that returns all light it is within 1e-6 of one with pivots."""
    half = system.shape[-1] // 2
    if half < SMALLEST_HALF:
        return np.asarray(np.linalg.inv(system))
    one, two = slice(half), slice(half, None)
    first = _inverse(system[..., one, one])
    down, right = system[..., two, one] @ first, first @ system[..., one, two]
    second = _inverse(np.asarray(system[..., two, two] - down @ system[..., one, two], dtype=np.float32))
    found = np.empty_like(system)
    found[..., two, two], found[..., one, two], found[..., two, one] = second, -right @ second, -second @ down
    found[..., one, one] = first - right @ found[..., two, one]
    return found
