"""Gondola's core: what will happen when a scene is cast in clear resin. No interface code."""

__version__ = "0.1.0"
