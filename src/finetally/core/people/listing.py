"""A list of people as it is brought: names, each with groups; what a line says, what is odd about it."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable
from dataclasses import dataclass

from finetally.core.session.cleaning import cleaned, formula_again, one_line
from finetally.core.session.problems import DocumentError, Problem, shown

MAX_PEOPLE = 500
"""People of one list, and of a squad."""
LONGEST_NAME, LONGEST_GROUP = 120, 40
COLUMN_WORDS = {
    "name": "name",
    "names": "name",
    "person": "name",
    "group": "group",
    "groups": "group",
    "team": "group",
}
"""Words that a head line may have over its columns."""
OTHER_HEADINGS = frozenset(
    word.strip()
    for word in """
    surname, last name, lastname, family name, first name, firstname, forename, given name, full name
    student, pupil, athlete, member, player, coach, squad, class, form, year, position, number, no, no., nr, id
    notes, email, e-mail, mail, phone, mobile, address, date of birth, dob, birthday, born, age, sex, gender
    vorname, nachname, klasse, gruppe, geburtsdatum, nom, prénom, groupe, nombre, apellido, apellidos, grupo
    voornaam, achternaam, groep, fornavn, efternavn, etternavn, navn, förnamn, efternamn, namn, grupp
    """.strip()
    .replace("\n", ",")
    .split(",")
)
"""Headings of lists from elsewhere, that are nobody's name (house assumption)."""
EXPECTED = "the headings “name” and “group”, or a name and its groups on each line"


@dataclass(frozen=True, slots=True)
class ListedPerson:
    """A line of the list: where it stands, a name, its groups. `known`: somebody of that name is there already."""

    line: int
    name: str
    groups: tuple[str, ...]
    known: bool = False


def read_people(data: str, known: Iterable[str] = ()) -> list[ListedPerson]:
    """Read a list: `name` or `name, group`, parted by comma, semicolon or tab; a head line may stand above.

    Groups in one cell are parted by `+` or `/`. A list with other headings, or with more columns than a name and
    its groups, is refused: nobody is called “Surname”. The same name twice is one person in all their groups; names
    that are `known` (any case) are marked. Raises DocumentError; places are `line 3, name`.
    """
    text = cleaned(data).lstrip("\ufeff")
    rows = _rows(text)
    columns = _head(rows[0][1]) if rows else None
    if columns is not None:
        rows = rows[1:]
    elif rows:
        _refuse_other_headings(rows)
    problems: list[Problem] = []
    found: dict[str, ListedPerson] = {}
    there = {one.casefold() for one in known}
    for line, row in rows:
        one = _person(line, row, columns or {"name": 0, "group": 1}, problems)
        if one is None:
            continue
        key = one.name.casefold()
        groups = (*found[key].groups, *one.groups) if key in found else one.groups
        first = found.get(key, one)
        found[key] = ListedPerson(first.line, first.name, tuple(dict.fromkeys(groups)), key in there)
    if not rows or (not found and not problems):
        problems.append(Problem("(list)", "nothing", "a name on each line", "empty"))
    if len(found) > MAX_PEOPLE:
        problems.append(Problem("(list)", f"{len(found)} people", f"up to {MAX_PEOPLE}", "too_many"))
    if problems:
        raise DocumentError(problems)
    return list(found.values())


def _rows(text: str) -> list[tuple[int, list[str]]]:
    """The lines that say something, each with its number from 1, parted into cells."""
    first = next((line for line in text.splitlines() if line.strip()), "")
    sign = max(",;\t", key=first.count)
    try:
        read = csv.reader(io.StringIO(text), delimiter=sign, strict=True, skipinitialspace=True)
        return [(read.line_num, row) for row in read if any(cell.strip() for cell in row)]
    except csv.Error as error:
        raise DocumentError([Problem("(list)", str(error), "lines of name, group", "not_csv")]) from None


def _head(row: list[str]) -> dict[str, int] | None:
    """Which column says what, if the first line is a head line."""
    named = {COLUMN_WORDS.get(cell.strip().casefold(), ""): index for index, cell in reversed(list(enumerate(row)))}
    return named if "name" in named else None


def _refuse_other_headings(rows: list[tuple[int, list[str]]]) -> None:
    """Raises DocumentError where a list without our headings has others, or columns that no heading names."""
    line, first = rows[0]
    # Only the first cell: a group may well be called “Coach”.
    over_names = first[0].strip().casefold().strip(":*")
    wide = next(((at, row) for at, row in rows if sum(bool(cell.strip()) for cell in row) > 2), None)
    if over_names in OTHER_HEADINGS:
        raise DocumentError([Problem(f"line {line}", shown(", ".join(first)), EXPECTED, "headings")])
    if wide is not None:
        found = f"{len(wide[1])} columns without headings"
        raise DocumentError([Problem(f"line {wide[0]}", found, EXPECTED, "headings")])


def _person(line: int, row: list[str], columns: dict[str, int], problems: list[Problem]) -> ListedPerson | None:
    def cell(what: str) -> str:
        index = columns.get(what, len(row))
        return formula_again(one_line(row[index])) if index < len(row) else ""

    name = cell("name")
    if not name:
        problems.append(Problem(f"line {line}, name", "no name", "a name", "missing"))
        return None
    if len(name) > LONGEST_NAME:
        problems.append(Problem(f"line {line}, name", shown(name), f"up to {LONGEST_NAME} characters", "too_long"))
        return None
    groups = [part.strip() for part in cell("group").replace("/", "+").split("+") if part.strip()]
    for group in groups:
        if len(group) > LONGEST_GROUP:
            allowed = f"up to {LONGEST_GROUP} characters"
            problems.append(Problem(f"line {line}, group", shown(group), allowed, "too_long"))
    return ListedPerson(line, name, tuple(groups))


def short_name(name: str, taken: Iterable[str] = ()) -> str:
    """A name for the wall: the first name, with as many letters of the last one as tell it from those taken."""
    words = name.split()
    first, rest = (words[0], " ".join(words[1:])) if words else (name, "")
    others = {one.casefold() for one in taken}
    candidates = [first, *(f"{first} {rest[:length]}" for length in range(1, len(rest) + 1))]
    return next((one for one in candidates if one.casefold() not in others), name)[:SHORT_NAME]


SHORT_NAME = 20
"""Characters of a name that are read at ten metres."""
