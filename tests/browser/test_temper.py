"""Dark couverture tempered by seed, one act at a time, a smear, and a cooling curve read; in a real browser."""

import re
from collections.abc import Callable
from pathlib import Path

import numpy as np
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server
from tests.core.temper.test_curve import cup

OpenPage = Callable[..., Page]


def test_a_bowl_is_brought_into_temper_act_by_act(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/work-out/temper")
    now = page.get_by_test_id("now")
    expect(now).to_have_text(re.compile("^Stir, let it cool to 35"))
    page.get_by_role("textbox", name="The melt is at").fill("40")
    page.get_by_role("radio", name="not yet").click()
    expect(now).to_have_text(re.compile("^Melt on"))
    # a melt that has been through is never sent back to the heat
    page.get_by_role("radio", name="yes", exact=True).click()
    expect(now).to_have_text(re.compile("^Stir, let it cool to 35"))
    page.get_by_role("textbox", name="The melt is at").fill("34.5")
    expect(now).to_have_text(re.compile(r"^Stir in \d+.g seed$"))
    page.get_by_role("textbox", name="Seed stirred in").fill("56")
    page.get_by_role("textbox", name="It now reads").fill("33.5")
    expect(now).to_have_text("Keep stirring")
    page.get_by_role("textbox", name="It now reads").fill("31.5")
    expect(now).to_have_text(re.compile("^In its window"))
    page.get_by_role("textbox", name="It now reads").fill("29")
    expect(now).to_have_text(re.compile("^Warm it a little"))
    # seed too warm, no melt: said where it is, the rest stays
    page.get_by_role("textbox", name="The seed is at").fill("31")
    expect(page.get_by_role("alert").first).to_be_visible()
    page.get_by_role("textbox", name="The seed is at").fill("20")
    expect(now).to_have_text(re.compile("^Warm it a little"))
    page.get_by_role("button", name="Smear laid on").click()
    expect(page.get_by_text("Still wet is right", exact=False)).to_be_visible()


def test_a_cooling_curve_is_read_and_one_with_a_gap_is_not(
    demo: Server, open_page: OpenPage, tmp_path: Path
) -> None:
    times, temps = cup(0.005, 80.0)
    noisy = temps + np.random.default_rng(5).normal(0, 0.03, temps.size)
    lines = [f"{t:.0f},{y * 1.8 + 32:.2f},F" for t, y in zip(times, noisy, strict=True)]
    good, gap, other = tmp_path / "good.csv", tmp_path / "gap.csv", tmp_path / "other.csv"
    good.write_text("\n".join(["time,temperature,unit", *lines]))
    gap.write_text("\n".join(["time,temperature,unit", *lines[:100], *lines[160:]]))
    other.write_text("when,what\n1,2")
    page = open_page(demo.base + "/work-out/temper")
    page.get_by_label("Cooling curve as CSV").set_input_files(other)
    expect(page.get_by_text("the first line must be", exact=False)).to_be_visible()
    page.get_by_label("Cooling curve as CSV").set_input_files(gap)
    expect(page.get_by_text("nothing was read for", exact=False)).to_be_visible()
    page.get_by_label("Cooling curve as CSV").set_input_files(good)
    expect(page.get_by_label("Test").get_by_role("status")).to_have_text(re.compile("^well tempered"))
    expect(page.get_by_role("img", name=re.compile("^Cooling curve, turns at"))).to_be_visible()
