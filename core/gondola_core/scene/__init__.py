"""The scene document: its parts, its version, and how it is read."""

from .bed import Bed
from .brief import Brief, Room, Units
from .document import FORMAT, VERSION, Scene
from .figure import Box, Capsule, Ellipsoid, Figure, Place, Solid
from .migrate import migrate
from .pour import Dose, Finish, Pour
from .reading import LARGEST_FILE, problems_of, read_scene, scene_from
from .tank import Base, Seal, Tank, Wall

__all__ = [
    "FORMAT",
    "LARGEST_FILE",
    "VERSION",
    "Base",
    "Bed",
    "Box",
    "Brief",
    "Capsule",
    "Dose",
    "Ellipsoid",
    "Figure",
    "Finish",
    "Place",
    "Pour",
    "Room",
    "Scene",
    "Seal",
    "Solid",
    "Tank",
    "Units",
    "Wall",
    "migrate",
    "problems_of",
    "read_scene",
    "scene_from",
]
