"""The one rule for text that comes from outside: no control characters, no halves of characters."""

from __future__ import annotations

import re

from finetally.core.session.json_value import JsonValue

UNCLEAN = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\u2028\u2029\ud800-\udfff\ufffe\uffff]")
"""Control characters (tab and line ends apart), line ends of other alphabets, lone surrogates, what is none:
they break spreadsheets, calendars, databases and answers in UTF-8."""


def cleaned(text: str) -> str:
    """Text without what UNCLEAN lists; a lone surrogate becomes the mark for what cannot be shown."""
    if not UNCLEAN.search(text):
        return text
    return UNCLEAN.sub(lambda found: "\ufffd" if "\ud800" <= found[0] <= "\udfff" else "", text)


UNSEEN = re.compile(
    "[\u00ad\u061c\u180e\u200b\u200e\u200f\u202a-\u202e\u2060-\u2064\u2066-\u206f\ufeff\U000e0000-\U000e007f]"
    "|(?<![^\x00-\u02ff])[\u200c\u200d]|[\u200c\u200d](?![^\x00-\u02ff])"
)
"""Signs that are not seen, or turn the direction of others: two names that look the same must be the same. Joiners
stay between letters of alphabets that need them."""


def one_line(text: str) -> str:
    """Text for one line: cleaned, without unseen signs, line ends and runs of blanks as single blanks."""
    return " ".join(UNSEEN.sub("", cleaned(text)).split())


def cleaned_tree(value: JsonValue) -> JsonValue:
    """The same JSON value with every text cleaned, keys too. Nesting must be known to be shallow."""
    if isinstance(value, str):
        return cleaned(value)
    if isinstance(value, list):
        return [cleaned_tree(one) for one in value]
    if isinstance(value, dict):
        return {cleaned(key): cleaned_tree(one) for key, one in value.items()}
    return value


FORMULA_SIGNS = ("=", "+", "-", "@", "\t", "\r")
"""What spreadsheets take for the beginning of a formula."""


def no_formula(text: str) -> str:
    """Text that no spreadsheet takes for a formula."""
    # What begins with signs behind quotes is quoted, too: else one that was typed would be taken for ours.
    return f"'{text}" if text.lstrip("'").startswith(FORMULA_SIGNS) else text


def formula_again(text: str) -> str:
    """What `no_formula` was given."""
    return text[1:] if text[:1] == "'" and text.lstrip("'").startswith(FORMULA_SIGNS) else text
