"""Cells of a table that other programs open."""

FORMULA = ("=", "+", "-", "@", "\t", "\r")


def plain_cell(text: str) -> str:
    """A text that no program takes for a formula: one that begins like one gets a quote before it [text]. Source: common-practice"""
    return f"'{text}" if text.startswith(FORMULA) else text
