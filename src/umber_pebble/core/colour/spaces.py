"""Spectra to colours: XYZ, Lab, sRGB, and how far two colours are apart."""

import math
from functools import cache
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.materials.load import table

Array = NDArray[np.float64]
LIGHTS = ("daylight", "warm")


class Observer(NamedTuple):
    """Weights of a light and the observer: [3, wavelength], normed to Y = 1 for a perfect white."""

    weights: Array
    white: Array


@cache
def wavelengths_nm() -> Array:
    """Wavelengths of every spectrum here [nm]. Source: cie-015-2018"""
    return np.array(table("observer")["wavelengths_nm"], dtype=np.float64)


@cache
def observer(light: str) -> Observer:
    """The 2 degree observer under a light.

    Args:
        light: "daylight" (D65) or "warm" (A)
    Raises: OutOfRange: another light.
    Source: cie-015-2018
    """
    if light not in LIGHTS:
        raise OutOfRange("no such light", path="light", got=light, limits={"one_of": list(LIGHTS)})
    rows = table("observer")
    weights = np.array([rows[axis] for axis in ("x", "y", "z")]) * np.array(rows[light])
    weights /= weights[1].sum()
    return Observer(weights, weights.sum(axis=1))


def lab_of_xyz(xyz: Array, white: Array) -> Array:
    """CIE Lab of XYZ against a white, along the last axis [L 0 to 100]. Source: cie-015-2018"""
    ratio = np.maximum(xyz / white, 0.0)
    f = np.where(ratio > 216 / 24389, np.cbrt(ratio), (24389 / 27 * ratio + 16) / 116)
    return np.stack((116 * f[..., 1] - 16, 500 * (f[..., 0] - f[..., 1]), 200 * (f[..., 1] - f[..., 2])), axis=-1)


def lab_of_spectrum(spectrum: Array, light: str = "daylight") -> Array:
    """Lab of reflected or transmitted light, along the last axis [frac in, Lab out]. Source: cie-015-2018"""
    seen = observer(light)
    return lab_of_xyz(spectrum @ seen.weights.T, seen.white)


def xyz_of_lab(lab: Array) -> Array:
    """XYZ of one Lab against the white of daylight [frac]. Source: cie-015-2018"""
    f = np.array([(lab[0] + 16) / 116] * 3) + np.array([lab[1] / 500, 0.0, -lab[2] / 200])
    return np.asarray(np.where(f > 6 / 29, f**3, (116 * f - 16) * 27 / 24389) * observer("daylight").white)


_TO_RGB = np.array(
    [[3.2404542, -1.5371385, -0.4985314], [-0.9692660, 1.8760108, 0.0415560], [0.0556434, -0.2040259, 1.0572252]]
)


def hex_of_lab(lab: Array, light: str = "daylight") -> str:
    """The nearest sRGB colour of a Lab seen under its own white, as #rrggbb.

    Args:
        lab: one colour
        light: whose white it was reckoned against; the screen's stands for it
    Source: iec-61966-2-1
    """
    linear = np.clip(_TO_RGB @ xyz_of_lab(lab), 0.0, 1.0)
    rgb = np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * linear ** (1 / 2.4) - 0.055)
    return "#" + "".join(f"{round(float(v) * 255):02x}" for v in rgb)


def lab_of_hex(text: str) -> Array:
    """Lab of an sRGB colour #rrggbb [L 0 to 100].

    Raises: OutOfRange: not such a text.
    Source: iec-61966-2-1
    """
    digits = text.removeprefix("#")
    if len(digits) != 6 or any(c not in "0123456789abcdefABCDEF" for c in digits):
        raise OutOfRange("write a colour as # and six digits or letters a to f", path="wanted", got=text[:20])
    rgb = np.array([int(digits[i : i + 2], 16) for i in (0, 2, 4)]) / 255
    linear = np.where(rgb <= 0.04045, rgb / 12.92, ((rgb + 0.055) / 1.055) ** 2.4)
    return lab_of_xyz(np.linalg.solve(_TO_RGB, linear), observer("daylight").white)


def delta_e_2000(one: Array, other: Array) -> Array:
    """How far two colours are apart, along the last axis [CIEDE2000; 1 is just seen side by side].

    Args:
        one, other: Lab
    Source: sharma-2005
    """
    return np.asarray(np.sqrt((delta_parts_2000(one, other) ** 2).sum(axis=-1)))


def delta_parts_2000(one: Array, other: Array) -> Array:
    """The same as three numbers whose squares add up to its square: lightness, chroma, hue with what both share [CIEDE2000].

    Args:
        one, other: Lab, along the last axis
    Source: sharma-2005
    """
    l1, a1, b1 = np.moveaxis(np.asarray(one, dtype=np.float64), -1, 0)
    l2, a2, b2 = np.moveaxis(np.asarray(other, dtype=np.float64), -1, 0)
    c_mean = (np.hypot(a1, b1) + np.hypot(a2, b2)) / 2
    g = 0.5 * (1 - np.sqrt(c_mean**7 / (c_mean**7 + 25.0**7)))
    a1, a2 = (1 + g) * a1, (1 + g) * a2
    c1, c2 = np.hypot(a1, b1), np.hypot(a2, b2)
    h1, h2 = np.degrees(np.arctan2(b1, a1)) % 360, np.degrees(np.arctan2(b2, a2)) % 360
    grey = c1 * c2 == 0
    turn = h2 - h1
    turn = np.where(grey, 0.0, np.where(turn > 180, turn - 360, np.where(turn < -180, turn + 360, turn)))
    d_l, d_c, d_h = l2 - l1, c2 - c1, 2 * np.sqrt(c1 * c2) * np.sin(np.radians(turn / 2))
    l_mean, c_mean = (l1 + l2) / 2, (c1 + c2) / 2
    apart = np.abs(h1 - h2) > 180
    total = h1 + h2
    h_mean = np.where(grey, total, np.where(apart, np.where(total < 360, total + 360, total - 360), total) / 2)
    h = np.radians(h_mean)
    t = 1 - 0.17 * np.cos(h - math.radians(30)) + 0.24 * np.cos(2 * h)
    t += 0.32 * np.cos(3 * h + math.radians(6)) - 0.20 * np.cos(4 * h - math.radians(63))
    s_l = 1 + 0.015 * (l_mean - 50) ** 2 / np.sqrt(20 + (l_mean - 50) ** 2)
    s_c, s_h = 1 + 0.045 * c_mean, 1 + 0.015 * c_mean * t
    r_t = -2 * np.sqrt(c_mean**7 / (c_mean**7 + 25.0**7))
    r_t = r_t * np.sin(np.radians(60 * np.exp(-(((h_mean - 275) / 25) ** 2))))
    light, chroma, hue = d_l / s_l, d_c / s_c, d_h / s_h
    # c^2 + h^2 + r c h is (c + r h / 2)^2 + (1 - r^2 / 4) h^2
    own = np.sqrt(np.maximum(1.0 - r_t**2 / 4.0, 0.0)) * hue
    return np.stack((light, chroma + r_t * hue / 2.0, own), axis=-1)
