"""The card as PDF: A4 or letter, one page for an ordinary session; type gets smaller before it runs over."""

from __future__ import annotations

from importlib import resources
from typing import Literal

from fpdf import FPDF

from finetally.core.board.values import measured_text
from finetally.core.card.card import Card, CardBlock, KitLine
from finetally.core.measures import Units
from finetally.core.words import clock_text

Paper = Literal["a4", "letter"]
MARGIN = 12.0
CLOCK_WIDTH, SCORE_WIDTH, GAP = 34.0, 26.0, 3.0
SCALES = (1.0, 0.93, 0.86, 0.79, 0.72)
"""From comfortable to the smallest that is still read from a metre away; a longer session takes more pages."""

MOST_TO_SHRINK = 2

FONTS = (
    ("head", "", "BarlowCondensed-SemiBold"),
    ("text", "", "SourceSans3-Regular"),
    ("text", "B", "SourceSans3-SemiBold"),
)


def card_pdf(card: Card, paper: Paper = "a4") -> bytes:
    """Draw the card. What is on it is the card's; nothing is left out for want of room."""
    made = _Sheet(card, paper, SCALES[0])
    # The smallest type takes half the room: what is over two pages does not get onto one.
    for scale in SCALES[1:] if made.pages_count == MOST_TO_SHRINK else ():
        if made.pages_count == 1:
            break
        made = _Sheet(card, paper, scale)
    return bytes(made.output())


def minutes_text(seconds: float) -> str:
    """45 min, or 41:50 where it is not whole minutes."""
    return f"{round(seconds / 60)} min" if round(seconds) % 60 == 0 else clock_text(seconds)


def kit_text(card: Card) -> str:
    """14 × kettlebell 16 kg, 28 × dumbbell 12 kg."""
    return ", ".join(_kit_line(one, card["units"]) for one in card["kit"])


def _kit_line(one: KitLine, units: Units) -> str:
    weight = f" {measured_text(one['kg'], 'kg', units)}" if one["kg"] else ""
    short = f" (only {one['there']} there)" if one["there"] is not None and one["there"] < one["count"] else ""
    return f"{one['count']} × {one['kit']}{weight}{short}"


def others_text(card: Card) -> str:
    """Bram, Ines: step-up for box jump; …"""
    return "; ".join(f"{', '.join(one['names'])}: {one['option']} for {one['movement']}" for one in card["others"])


class _Sheet(FPDF):
    def __init__(self, card: Card, paper: Paper, scale: float) -> None:
        super().__init__(format=paper, unit="mm")
        self._scale = scale
        fonts = resources.files("finetally").joinpath("data/fonts")
        for family, style, name in FONTS:
            with resources.as_file(fonts.joinpath(f"{name}.ttf")) as path:
                self.add_font(family, style, path)
        self.set_title(card["title"])
        self.set_margins(MARGIN, MARGIN, MARGIN)
        self.set_auto_page_break(True, MARGIN)
        self.add_page()
        self._head(card)
        for block in card["blocks"]:
            self._block(block)
        self._foot(card)

    def _font(self, family: str, size: float, style: Literal["", "B"] = "") -> float:
        self.set_font(family, style, size * self._scale)
        return size * self._scale * 0.48

    def _text(self, x: float, width: float, text: str, line: float, align: str = "L") -> None:
        self.set_x(x)
        self.multi_cell(width, line, text, align=align, new_x="LMARGIN", new_y="NEXT")

    def _head(self, card: Card) -> None:
        line = self._font("head", 24)
        self._text(MARGIN, self.epw, card["title"], line)
        line = self._font("text", 10.5)
        told = [] if card["announced_s"] is None else [f"told {minutes_text(card['announced_s'])}"]
        people = [] if card["people"] is None else [f"{card['people']} people"]
        says = [*told, f"comes to {clock_text(card['timetable_s'])}", *people]
        self._text(MARGIN, self.epw, " · ".join(says), line)
        if card["kit"]:
            self._text(MARGIN, self.epw, f"Put out: {kit_text(card)}", line)
        if card["others"]:
            self._text(MARGIN, self.epw, f"Otherwise: {others_text(card)}", line)
        for note in card["notes"]:
            self._text(MARGIN, self.epw, note, line)
        self.ln(1.5)

    def _block(self, block: CardBlock) -> None:
        needed = 8 + 4.6 * self._scale * max(len(block["lines"]) + 2, len(block["marks"]))
        if self.get_y() + min(needed, 60) > self.h - MARGIN:
            self.add_page()
        top, page = self.get_y(), self.page
        self.set_draw_color(27, 39, 51)
        self.line(MARGIN, top, self.w - MARGIN, top)
        self.set_y(top + 1)
        self._marks(block)
        bottom = self.get_y() if self.page == page else top
        self.set_y(top + 1)
        self._says(block)
        bottom = max(bottom, self.get_y()) if self.page == page else self.get_y()
        if block["score"] and self.page == page:
            x = self.w - MARGIN - SCORE_WIDTH
            self.set_xy(x, top + 1.5)
            line = self._font("text", 8)
            self.multi_cell(SCORE_WIDTH, line, "score", new_x="LMARGIN", new_y="NEXT")
            self.rect(x, top + 2 + line, SCORE_WIDTH, 10)
            bottom = max(bottom, top + 13 + line)
        self.set_y(bottom + 1.2)

    def _marks(self, block: CardBlock) -> None:
        for index, mark in enumerate(block["marks"]):
            line = self._font("text", 10 if index == 0 else 9, "B" if index == 0 else "")
            self.set_x(MARGIN)
            about = "~" if mark["about"] else ""
            self.cell(13, line, about + clock_text(mark["at_s"]), align="R")
            self._text(MARGIN + 14, CLOCK_WIDTH - 14, mark["what"], line)

    def _says(self, block: CardBlock) -> None:
        x = MARGIN + CLOCK_WIDTH + GAP
        width = self.epw - CLOCK_WIDTH - GAP - (SCORE_WIDTH + GAP if block["score"] else 0)
        line = self._font("head", 14)
        optional = {"exit": " (or stop here)", "skip": " (optional)"}.get(block["optional"] or "", "")
        self._text(x, width, f"{block['part'].upper()}   {block['title']}{optional}", line)
        line = self._font("text", 10)
        self._text(x, width, block["says"], line)
        for note in block["notes"]:
            self._text(x, width, note, line)
        line = self._font("text", 11, "B")
        for text in block["lines"]:
            indent = (len(text) - len(text.lstrip()) - 2) * 1.6
            self._text(x + indent, width - indent, text.strip(), line)
        line = self._font("text", 9)
        if block["calls"]:
            self._text(x, width, f"call: {'; '.join(block['calls'])}", line)
        if block["rest_after_s"] > 0:
            self._text(x, width, f"then rest {clock_text(block['rest_after_s'])}", line)

    def _foot(self, card: Card) -> None:
        self.line(MARGIN, self.get_y(), self.w - MARGIN, self.get_y())
        self.ln(1)
        line = self._font("text", 8.5)
        self._text(MARGIN, self.epw, " ".join(card["cautions"]), line)
