#!/usr/bin/python3
"""The network of `core-bench --benchmark_filter=yardstick` as a plain SciPy script: a tank that fills four bags of
constant area for ten seconds, each bag's pressure set by its load. A yardstick for speed, and for the tank's pressure.
Debian: python3-scipy.
"""
import time

import numpy as np
from scipy.integrate import solve_ivp

R, cp, cv = 287.05, 1004.675, 717.625
p0, T0 = 101325.0, 293.15
C, b = 2e-9, 0.3
A, V0, load, low, high = 0.012, 0.0002, 3600.0, 0.06, 0.24
tank_V, tank_wall, bag_wall = 0.019, 2.0, 1.0


def flow(p1, p2, T1):
    r = p2 / p1
    full = C * p1 * 1.185 * np.sqrt(293.15 / T1)
    share = lambda x: 1.0 if x <= b else np.sqrt(max(0.0, 1 - ((x - b) / (1 - b)) ** 2))
    return full * share(r) if r <= 0.999 else full * share(0.999) * (1 - r) / 0.001


def rates(_, y):
    """Tank: mass and energy. Bag: mass and height times its constant pressure's worth, here as m and V."""
    m, U = y[0], y[1]
    T = U / (m * cv)
    p = m * R * T / tank_V
    out = np.zeros_like(y)
    out[1] = tank_wall * (T0 - T)
    for i in range(4):
        mb, Ub = y[2 + 2 * i], y[3 + 2 * i]
        Tb = Ub / (mb * cv)
        # The load keeps its pressure until the stop, where the volume stays.
        V = min(mb * R * Tb / (load / A + p0), V0 + A * high)
        free = V < V0 + A * high
        pb = mb * R * Tb / V
        kg = flow(p, pb, T) if p >= pb else -flow(pb, p, Tb)
        heat = kg * cp * (T if kg > 0 else Tb)
        out[0] -= kg
        out[1] -= heat
        out[2 + 2 * i] = kg
        q = heat + bag_wall * (T0 - Tb)
        # At one pressure what comes in is shared between warmth and lifting: dU = dQ − p·dV, p·V = U·R/cv.
        out[3 + 2 * i] = q * (cv / cp if free else 1.0)
    return out


def once():
    pb = load / A + p0
    V = V0 + A * 0.10
    y = [(10e5 + p0) * tank_V / (R * T0), (10e5 + p0) * tank_V / R * cv]
    for _ in range(4):
        y += [pb * V / (R * T0), pb * V / R * cv]
    return solve_ivp(rates, (0, 10), y, method="BDF", rtol=1e-7, atol=[1e-9, 1e-3] * 5)


best = min((lambda t: (once(), time.perf_counter() - t)[1])(time.perf_counter()) for _ in range(5))
end = once()
m, U = end.y[0, -1], end.y[1, -1]
print(f"{best * 1e3:.1f} ms; tank {U / cv * R / tank_V - p0:.0f} Pa; {end.t.size} steps")
