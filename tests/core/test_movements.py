"""Movements as they are shown: the chain of one, what a definition changes, where documents name them."""

from __future__ import annotations

from typing import Any

from finetally.core.movements.chain import MOST_STEPS, chain_of
from finetally.core.movements.changes import changed_fields
from finetally.core.movements.library import Library
from finetally.core.movements.used import defined_in, movements_named, with_another
from finetally.core.session.movement import MovementDef
from finetally.shipped import shipped_library


def library(**chains: dict[str, Any]) -> Library:
    return Library(MovementDef(key=key, patterns={"squat": 1.0}, **more) for key, more in chains.items())


def test_a_chain_goes_from_the_easiest_to_the_hardest() -> None:
    known = library(a={"harder": ["b"]}, b={}, c={"easier": "b", "harder": ["d", "e"]}, d={}, e={})
    chain = chain_of("b", known)
    assert chain["columns"] == [["a"], ["b"], ["c"], ["d", "e"]]
    assert chain["place"] == 1
    assert {(one["easier"], one["harder"]) for one in chain["links"]} == {
        ("a", "b"), ("b", "c"), ("c", "d"), ("c", "e"),
    }  # fmt: skip


def test_a_chain_that_turns_back_or_names_nobody_ends() -> None:
    known = library(a={"harder": ["b", "no-such"]}, b={"harder": ["a"], "easier": ["a"]})
    chain = chain_of("a", known)
    assert sorted(key for column in chain["columns"] for key in column) == ["a", "b"]
    assert chain_of("b", library(b={})) == {"columns": [["b"]], "place": 0, "links": []}


def test_each_shipped_movement_has_a_chain_of_itself_once() -> None:
    known = shipped_library()
    for key in known:
        chain = chain_of(key, known)
        all_of_it = [one for column in chain["columns"] for one in column]
        assert len(all_of_it) == len(set(all_of_it))
        assert chain["columns"][chain["place"]] == [key]
        assert len(chain["columns"]) <= 2 * MOST_STEPS + 1
        # Whatever stands beside the middle hangs together with what is nearer to it.
        linked = {one for link in chain["links"] for one in link.values()}
        assert set(all_of_it) - {key} <= linked


def test_what_a_definition_changes_is_told_field_by_field() -> None:
    before = shipped_library()["push-up"]
    after = before.model_copy(update={"pace_s": 2.5, "aliases": ["press-up", "floor press"], "kit": ["handles"]})
    assert changed_fields(before, after) == [
        {"field": "aliases", "was": "; ".join(before.aliases or []), "becomes": "press-up; floor press"},
        {"field": "pace_s", "was": "2", "becomes": "2.5"},
        {"field": "kit", "was": "", "becomes": "handles"},
    ]
    assert changed_fields(before, before) == []
    assert [one["becomes"] for one in changed_fields(None, MovementDef(key="x", name="X")) if one["becomes"]] == [
        "X"
    ]


DOCUMENT: dict[str, Any] = {
    "title": "gate-run",
    "movements": [{"key": "own-thing"}],
    "blocks": [
        {"steps": [{"movement": "gate-run", "options": [{"label": "gate-run", "movement": "walk"}]}]},
        {
            "blocks": [
                {
                    "steps": [{"movement": "own-thing"}, {"movement": "gate-run", "rest_as": "walk"}],
                    "note": "gate-run",
                }
            ]
        },
    ],
}


def test_where_a_document_names_movements() -> None:
    assert movements_named(DOCUMENT) == {"gate-run": 2, "walk": 2, "own-thing": 1}
    assert defined_in(DOCUMENT) == {"own-thing"}
    made = with_another(DOCUMENT, "gate-run", "run")
    assert movements_named(made) == {"run": 2, "walk": 2, "own-thing": 1}
    assert (made["title"], made["movements"]) == ("gate-run", DOCUMENT["movements"]), (
        "nothing but the naming changes"
    )
    assert "run" not in movements_named(DOCUMENT), "the document itself stays"
    assert str(made).count("gate-run") == 3
