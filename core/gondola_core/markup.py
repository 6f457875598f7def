"""Words of a person, as drawings may hold them."""

from __future__ import annotations

from xml.sax.saxutils import escape


def printable(text: str) -> str:
    """Without control characters and halves of signs, which break the lines of a drawing.

    >>> printable("a\\x00 post\\n")
    'a post'
    """
    return "".join(one for one in text if one.isprintable())


def as_xml(text: str) -> str:
    """The same, well-formed between tags of SVG."""
    return escape(printable(text))
