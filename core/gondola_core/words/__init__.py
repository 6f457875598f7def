"""Every sentence that Gondola says, under an id; numbers come in with their quantity and are said in the
reader's units."""

from .quantities import METRIC, QUANTITIES, US, ReaderUnits, in_reader_units, said_quantity
from .said import Words, sentence_ids, speaker_of, words

__all__ = [
    "METRIC",
    "QUANTITIES",
    "US",
    "ReaderUnits",
    "Words",
    "in_reader_units",
    "said_quantity",
    "sentence_ids",
    "speaker_of",
    "words",
]
