"""A cast in its mould's wall by finite elements (scikit-fem 12.0), alone in still air: what the engine is compared with.

Linear triangles on a mesh that follows wall and floor, backward Euler in small steps, Avrami's law node by node. Of the product only
the coefficients of the faces are used, so that what differs is the conduction and the setting.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from scipy.sparse import diags
from scipy.sparse.linalg import splu
from skfem import Basis, BilinearForm, ElementTriP0, ElementTriP1, LinearForm, MeshTri
from skfem.helpers import dot, grad

from umber_pebble.core.heat.convection import h_convection_w_m2k, h_radiation_w_m2k

ACROSS, IN_WALL, STEP = 12, 4, 0.015
LIKELY = np.vectorize(
    lambda t, air, size, facing, e: h_convection_w_m2k(t, air, size, facing) + h_radiation_w_m2k(t, air, e)
)


@dataclass
class Body:
    """Mesh, which of its elements are cast, and the height of its open surface [m]."""

    mesh: MeshTri
    cast: np.ndarray
    depth_m: float


def _lines(*parts: tuple[float, float, int]) -> np.ndarray:
    return np.unique(np.concatenate([np.linspace(a, b, n + 1) for a, b, n in parts]).round(12))


def cup(radius: float, depth: float, wall: float) -> Body:
    r = _lines((0, radius, ACROSS), (radius, radius + wall, IN_WALL))
    z = _lines((-wall, 0, IN_WALL), (0, depth, ACROSS))
    mesh = MeshTri.init_tensor(r, z)
    middle = mesh.p[:, mesh.t].mean(axis=1)
    return Body(mesh, (middle[0] < radius) & (middle[1] > 0), depth)


def dome(radius: float, wall: float) -> Body:
    away = _lines((1e-4 * radius, radius, ACROSS), (radius, radius + wall, IN_WALL))
    mesh = MeshTri.init_tensor(away, np.linspace(0, math.pi / 2, 2 * ACROSS + 1))
    rho, angle = mesh.p
    bent = np.array([rho * np.sin(angle), radius - rho * np.cos(angle)])
    return Body(MeshTri(bent, mesh.t), mesh.p[0, mesh.t].mean(axis=0) < radius, radius)


@BilinearForm
def _conducts(u, v, p):  # type: ignore[no-untyped-def]
    return 2 * math.pi * p.x[0] * p["k"] * dot(grad(u), grad(v))


@LinearForm
def _holds(v, p):  # type: ignore[no-untyped-def]
    return 2 * math.pi * p.x[0] * p["share"] * v


def _faces_m2(body: Body) -> np.ndarray:
    """What each node has of open cast, open wall, sides and underside [4, node]."""
    mesh, area = body.mesh, np.zeros((4, body.mesh.p.shape[1]))
    for facet in mesh.boundary_facets():
        a, b = mesh.facets[:, facet]
        (r0, z0), (r1, z1) = mesh.p[:, a], mesh.p[:, b]
        length = math.hypot(r1 - r0, z1 - z0)
        if max(r0, r1) < 1e-3 * mesh.p[0].max():
            continue
        if min(z0, z1) > body.depth_m - 1e-9:
            kind = 0 if body.cast[mesh.f2t[0, facet]] else 1
        else:
            kind = 3 if abs(r1 - r0) > length * math.sqrt(0.5) else 2
        area[kind, a] += 2 * math.pi * length * (2 * r0 + r1) / 6
        area[kind, b] += 2 * math.pi * length * (r0 + 2 * r1) / 6
    return area


State = Callable[[np.ndarray, np.ndarray], bool]


def times_s(
    body: Body,
    melt: dict[str, float],
    wall: dict[str, float],
    air_pour: tuple[float, float],
    faces: list[tuple[float, int, float]],
    states: dict[str, State],
    avrami: tuple[float, ...] | None = None,
) -> dict[str, float]:
    """When each state is reached [s]: air and pour in degC; states take the temperatures and shares set of the cast's nodes; faces are length, facing and
    emissivity of open cast, open wall, sides and underside."""
    mesh, (air, pour) = body.mesh, air_pour
    basis = Basis(mesh, ElementTriP1())
    flat = basis.with_element(ElementTriP0())
    cast_m3, wall_m3 = (
        _holds.assemble(basis, share=flat.interpolate(of)) for of in (1.0 * body.cast, 1.0 - body.cast)
    )
    area, of_wall = _faces_m2(body), wall_m3 * wall["density"] * wall["cp"]
    warm = cast_m3 * melt["density"] * melt["cp_melt"]
    t, x = (warm * pour + of_wall * air) / (warm + of_wall), np.full(warm.size, melt.get("start", 0.0))
    inside, found, now = cast_m3 > 1e-3 * cast_m3.max(), dict[str, float](), 0.0
    while len(found) < len(states):
        dt = max(0.25, STEP * now)
        if avrami:
            done = x / avrami[2]
            cp = melt["cp_melt"] + (melt["cp_set"] - melt["cp_melt"]) * done
            k = (melt["k_melt"] + (melt["k"] - melt["k_melt"]) * done)[mesh.t].mean(axis=0)
        else:
            cp = melt["cp_set"] + (melt["cp_melt"] - melt["cp_set"]) * np.clip((t - melt["turn"] + 5) / 10, 0, 1)
            k = np.full(mesh.t.shape[1], melt["k"])
        heat = cast_m3 * melt["density"] * cp + of_wall
        lost = sum(m2 * LIKELY(t, air, size, facing, e) for m2, (size, facing, e) in zip(area, faces, strict=True))
        k = flat.interpolate(np.where(body.cast, k, wall["k"]))
        t = splu((diags(heat / dt + lost) + _conducts.assemble(basis, k=k)).tocsc()).solve(
            heat / dt * t + lost * air
        )
        if avrami:
            t, x = _sets(t, x, dt, cast_m3 * melt["density"] * melt["latent"] / heat, avrami)
        now += dt
        found |= {name: now for name, holds in states.items() if name not in found and holds(t[inside], x[inside])}
    return found


def _sets(t: np.ndarray, x: np.ndarray, dt: float, warms: np.ndarray, avrami: tuple[float, ...], parts: int = 4):  # type: ignore[no-untyped-def]
    melts, width, most, n, rate, slope = avrami
    for _ in range(parts):
        rest = most / (1 + np.exp(np.clip((t - melts) / width, -50, 50)))
        under = np.maximum(melts - t, 1e-2)
        done = (-np.log(np.clip(1 - x / np.maximum(rest, 1e-12), 1e-12, 1))) ** (1 / n)
        grown = rest * (1 - np.exp(-((done + rate * np.exp(-slope / under) * dt / parts) ** n)))
        back = rest + (x - rest) * np.exp(-dt / parts / 5)
        after = np.where(x >= rest, back, np.where(under > 1e-2, grown, x))
        t, x = t + warms * (after - x), after
    return t, x
