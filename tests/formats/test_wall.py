"""Lists for the wall speak more languages than one."""

from reportlab.lib.styles import ParagraphStyle

from umber_pebble.formats import wall
from umber_pebble.formats.wall import Block, has_letters, write_list


def test_names_of_many_languages_print_and_others_are_told_by_number(monkeypatch) -> None:  # type: ignore[no-untyped-def]
    for name in ("Łucja żółć", "Ирина", "Σοφία", "naïve 25 °C ½"):
        assert has_letters(name), name
    assert not has_letters("薫")
    said: list[str] = []

    class Spy(wall.Paragraph):
        def __init__(self, text: str, style: ParagraphStyle) -> None:
            said.append(text)
            super().__init__(text, style)

    monkeypatch.setattr(wall, "Paragraph", Spy)
    made = write_list("Łucja żółć", "薫", [Block("薫 12 g", ("Ирина", "b"), [("薫", "Σοφία")])])
    assert made.startswith(b"%PDF") and b"DejaVuSansCondensed" in made
    assert said[:7] == [
        "Łucja żółć",
        "see screen, no. 1",
        "see screen, no. 2 (12 g)",
        "Ирина",
        "b",
        "see screen, no. 1",
        "Σοφία",
    ]
