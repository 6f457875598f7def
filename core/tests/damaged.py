"""Files as they may come: sound ones that were cut, spliced, overwritten, or hold numbers that nobody would write."""

from __future__ import annotations

import copy
import json
import re
import struct
import zlib
from typing import Any

from hypothesis import strategies as st

NUMBER = re.compile(rb"-?\d+(\.\d+)?")
ODD_WORDS = [
    b"nan", b"inf", b"-inf", b"1e308", b"-1e308", b"1e-320", b"-1", b"0", b"999999999", b"9" * 400, b"1,5", b"1.2.3",
    b"0x10", b"", b'"', b";", b"\xef\xbb\xbf", "٣".encode(), "\ud800".encode("utf-8", "surrogatepass"), b"\x00",
]
"""Put where a file of text holds a number."""
ODD_BYTES = [
    *(struct.pack("<I", one) for one in (0, 1, 2**16, 2**31 - 1, 2**31, 2**32 - 1)),
    *(struct.pack("<f", one) for one in (float("nan"), float("inf"), -1e38, 1e-40)),
    *(struct.pack(">I", one) for one in (1, 30_000, 2**31 - 1)),
]
"""Written over four bytes of a file: counts, lengths and coordinates."""
ODD_VALUES: list[Any] = [
    None, True, -1, 0, 1, 3, 5121, 5126, 2**31, 2**63, 1e308, -0.5, "", "x", "\u0000", [], {}, [[]], [1, 2, 3],
    {"bufferView": 0}, "data:;base64,AAAA", "../../etc/passwd",
]
"""Put where a file of JSON holds anything."""
CHUNK_OF_JSON = 0x4E4F534A


@st.composite
def damaged(draw: st.DrawFn, sound: list[bytes]) -> bytes:
    """One of the sound files after one to three damages."""
    content = draw(st.sampled_from(sound))
    for _ in range(draw(st.integers(1, 3))):
        content = draw(st.sampled_from(DAMAGES))(draw, content)
    return content


def _place(draw: st.DrawFn, content: bytes) -> int:
    """Anywhere, its first hundred bytes as often as all the others."""
    return draw(st.integers(0, min(len(content), 100)) | st.integers(0, len(content)))


def _cut(draw: st.DrawFn, content: bytes) -> bytes:
    return content[:_place(draw, content)]


def _overwritten(draw: st.DrawFn, content: bytes) -> bytes:
    at, odd = _place(draw, content), draw(st.sampled_from(ODD_BYTES) | st.binary(min_size=1, max_size=4))
    return content[:at] + odd + content[at + len(odd):]


def _put_in(draw: st.DrawFn, content: bytes) -> bytes:
    at = _place(draw, content)
    return content[:at] + draw(st.sampled_from(ODD_WORDS) | st.binary(max_size=12)) + content[at:]


def _repeated(draw: st.DrawFn, content: bytes) -> bytes:
    first, last = sorted((_place(draw, content), _place(draw, content)))
    return content[:last] + content[first:last] * draw(st.integers(1, 20)) + content[last:]


def _other_number(draw: st.DrawFn, content: bytes) -> bytes:
    found = [one.span() for one in NUMBER.finditer(content[:20_000])]
    if not found:
        return content
    first, last = draw(st.sampled_from(found))
    return content[:first] + draw(st.sampled_from(ODD_WORDS)) + content[last:]


def _other_ends(draw: st.DrawFn, content: bytes) -> bytes:
    old, new = draw(st.permutations([b"\n", b",", b";", b"\r", b"\t", b" "]))[:2]
    return content.replace(old, new)


DAMAGES = [_cut, _overwritten, _overwritten, _put_in, _repeated, _other_number, _other_number, _other_ends]


@st.composite
def damaged_glb(draw: st.DrawFn, sound: list[bytes]) -> bytes:
    """A GLB whose description says one to four things that nobody would write, its lengths as they should be."""
    content = draw(st.sampled_from(sound))
    length = struct.unpack_from("<I", content, 12)[0]
    packed, rest = _odd(draw, content[20:20 + length]), content[20 + length:]
    packed += b" " * (-len(packed) % 4)
    head = struct.pack("<4sIIII", b"glTF", 2, 20 + len(packed) + len(rest), len(packed), CHUNK_OF_JSON)
    return head + packed + rest


@st.composite
def odd_json(draw: st.DrawFn, sound: list[bytes]) -> bytes:
    """A file of JSON that says one to four things that nobody would write."""
    return _odd(draw, draw(st.sampled_from(sound)))


def _odd(draw: st.DrawFn, content: bytes) -> bytes:
    told = json.loads(content)
    for _ in range(draw(st.integers(1, 4))):
        holder, key = draw(st.sampled_from(list(_spots(told))))
        holder[key] = copy.deepcopy(draw(st.sampled_from(ODD_VALUES)))
    return json.dumps(told).encode()


@st.composite
def damaged_inside(draw: st.DrawFn, sound: list[bytes]) -> bytes:
    """A packed file whose content is damaged, packed as it should be."""
    return zlib.compress(draw(damaged([zlib.decompress(one) for one in sound])), 1)


def _spots(told: Any) -> Any:
    for key, one in list(told.items() if isinstance(told, dict) else enumerate(told)):
        yield told, key
        if isinstance(one, dict | list):
            yield from _spots(one)
