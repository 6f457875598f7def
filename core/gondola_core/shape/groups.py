"""Stretches of neighbouring columns that touch, gathered into groups."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

Array = NDArray[np.float64]
Whole = NDArray[np.int64]


def touching(nx: int, first: Whole, members: Whole, low: Array, top: Array) -> tuple[list[Whole], Whole]:
    """Groups of stretches that overlap in height with one of a neighbouring column.

    nx       columns in a row
    first    (columns + 1,) first stretch of each column
    members  (n,) which stretches take part, rising
    low, top (stretches,) what of each takes part
    returns  indices into `members`, a group each; (n,) column of each member
    """
    if not len(members):
        return [], members
    place = np.full(len(low), -1)
    place[members] = np.arange(len(members))
    group, column = _groups(nx, first, members, place, low, top)
    ends = np.cumsum(np.bincount(group))
    return np.split(np.argsort(group, kind="stable"), ends[:-1]), column


@njit(nogil=True, cache=True)
def _root(parent, at):  # type: ignore[no-untyped-def]
    while parent[at] != at:
        parent[at] = parent[parent[at]]
        at = parent[at]
    return at


@njit(nogil=True, cache=True)
def _groups(nx, first, members, place, low, top):  # type: ignore[no-untyped-def]
    """Number of the group of each member, by their first members, and its column."""
    count = members.shape[0]
    parent, column_of = np.arange(count), np.empty(count, np.int64)
    columns = first.shape[0] - 1
    column = 0
    for at in range(count):
        s = members[at]
        while first[column + 1] <= s:
            column += 1
        column_of[at] = column
        for step in (1, nx):
            beside = column + step
            if beside >= columns or (step == 1 and beside % nx == 0):
                continue
            for t in range(first[beside], first[beside + 1]):
                if place[t] >= 0 and min(top[s], top[t]) > max(low[s], low[t]):
                    a, b = _root(parent, at), _root(parent, place[t])
                    if a != b:
                        parent[max(a, b)] = min(a, b)
    group, groups = np.empty(count, np.int64), 0
    for at in range(count):
        root = _root(parent, at)
        if root == at:
            group[at] = groups
            groups += 1
        else:
            group[at] = group[root]
    return group, column_of
