"""The rows of the data tables, SI; a column’s unit stands in the name it has in the file."""

from .base import Certainty, Constant, Item, Row, Source
from .building import Joint, JointStroke, StepText, Tool, WorkRate
from .choosing import Divide, RemarkRow, Trait
from .crops import Crop, CropCalendar, FaceCap, HarvestMeasure, Score, Scout, Suit
from .items import Anchor, Cage, Cover, Fitting, Host, Mesh, Post, Tie, Twine, Wire
from .materials import Material, MeshMaterial, Section, Uncertainty
from .place import DragPoint, Exposure, FeatureKind, FrostClass, Monsoon, Rain, Soil, Water, WindClimate
from .season import Job, LogKind, StormMove

__all__ = [
    "Anchor",
    "Cage",
    "Certainty",
    "Constant",
    "Cover",
    "Crop",
    "CropCalendar",
    "Divide",
    "DragPoint",
    "Exposure",
    "FaceCap",
    "FeatureKind",
    "Fitting",
    "FrostClass",
    "HarvestMeasure",
    "Host",
    "Item",
    "Job",
    "Joint",
    "JointStroke",
    "LogKind",
    "Material",
    "Mesh",
    "MeshMaterial",
    "Monsoon",
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
    "WindClimate",
    "Wire",
    "WorkRate",
]
