"""The rows of the data tables, SI; a column’s unit stands in the name it has in the file."""

from .base import Certainty, Constant, Item, Row, Source
from .building import Joint, JointStroke, StepText, Tool, Work
from .choosing import Divide, RemarkRow, Trait
from .crops import Calendar, Crop, FaceCap, Measure, Score, Scout, Suit
from .items import Anchor, Cage, Cover, Fitting, Host, Mesh, Post, Tie, Twine, Wire
from .materials import Material, MeshMaterial, Section, Uncertainty
from .place import Climate, DragPoint, Exposure, FeatureKind, FrostClass, Rain, Soil, Water
from .season import Job, LogKind, StormMove

__all__ = [
    "Anchor",
    "Cage",
    "Calendar",
    "Certainty",
    "Climate",
    "Constant",
    "Cover",
    "Crop",
    "Divide",
    "DragPoint",
    "Exposure",
    "FaceCap",
    "FeatureKind",
    "Fitting",
    "FrostClass",
    "Host",
    "Item",
    "Job",
    "Joint",
    "JointStroke",
    "LogKind",
    "Material",
    "Measure",
    "Mesh",
    "MeshMaterial",
    "Post",
    "Rain",
    "RemarkRow",
    "Row",
    "Score",
    "Scout",
    "Section",
    "Soil",
    "Source",
    "StepText",
    "StormMove",
    "Suit",
    "Tie",
    "Tool",
    "Trait",
    "Twine",
    "Uncertainty",
    "Water",
    "Wire",
    "Work",
]
