"""The base of every piece of the scene document: strict, bounded, and frozen."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field, StringConstraints


class Part(BaseModel):
    """A piece of the document: unknown fields, text for numbers and endless numbers are refused."""

    model_config = ConfigDict(
        extra="forbid", strict=True, frozen=True, allow_inf_nan=False, validate_default=True
    )


Name = Annotated[str, StringConstraints(min_length=1, max_length=80, strip_whitespace=True)]
"""A name that people read."""

Key = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$")]
"""A short name that the document uses to point at something: small letters, digits, hyphens."""

Note = Annotated[str, StringConstraints(max_length=2000)]
"""Free words."""


def bounded(title: str, unit: str, ge: float, le: float, **more: Any) -> Any:
    """A numeric field with the words, the unit and the range that its messages name."""
    return Field(title=title, ge=ge, le=le, json_schema_extra={"unit": unit}, **more)
