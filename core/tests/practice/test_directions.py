"""Which way each thing that a grower does moves a structure: what holds more than what.

Facts are common practice, no source. Each is asked of the demo's own structure, in moist soil, in its worst
week.
"""

from __future__ import annotations

import unittest
from functools import cache
from typing import Any

import numpy as np
from ascent.analysis.design import design_of
from ascent.families import FAMILIES
from ascent.plan.structure import Structure
from ascent.site import Site

from tests.support import demo

MORE = 1.03  # times the gust, or it is no difference worth saying

# structure, option, holds less, holds more
HOLDS_MORE: tuple[tuple[str, str, Any, Any], ...] = (
    ("Quay Fence", "post_spacing", 2.0, 1.0),
    ("Quay Fence", "depth", 0.3, 0.6),
    ("Quay Fence", "mesh_height", 1.8, 1.2),
    ("Quay Fence", "setting", "tamped", "driven"),
    ("Quay Fence", "post", "post_sw_stake_25", "post_round_75"),
    ("Quay Fence", "tie", "twine_jute_3_loop", "clip_tpost"),
    ("Lantern Row", "woven", "front", "none"),
    ("Weavers", "depth", 0.6, 0.85),
    ("Weavers", "post_spacing", 2.4, 1.2),
    ("Weavers", "ends", "plain", "double"),
    ("Weavers", "twine", "jute_2", "masons_nylon_1.5"),
    ("Weavers", "post", "post_sw_stake_38", "post_hw_stake_38"),
    ("Pea Thicket", "in_soil", 0.2, 0.38),
    ("Pea Thicket", "stick_length", 1.4, 0.9),
    ("Pea Thicket", "stick_spacing", 0.4, 0.2),
    ("Pea Thicket", "tied", "none", "string"),
    ("Pea Thicket", "season", 3, 1),
    ("Pea Thicket", "pattern", "upright", "crossed"),
    ("Pepper Line", "stake", "cane_12", "cane_20"),
    ("Pepper Line", "depth", 0.225, 0.45),
    ("Pepper Line", "tie_step", 0.5, 0.25),
    ("Pepper Line", "stem_tie", "twine_cotton_loop", "twine_sisal_loop"),
    ("Lantern Arch", "panel_length", 5.5, 4.88),
    ("Lantern Arch", "depth", 0.35, 0.6),
    ("Lantern Arch", "foot", "block", "posts"),
    ("Lantern Arch", "hold", "free", "held"),
    ("Lantern Arch", "cover", "sheet", "none"),
    ("Lantern Arch", "sling", "sling_stocking", "sling_cloth"),
    ("Corn Block", "rows", 1, 4),
    ("Corn Block", "backup", "none", "strings"),
    ("Corn Block", "mix", "alternate", "one"),
    ("Corn Block", "host_spacing", 0.5, 0.3),
    ("Twine Beam", "top_height", 3.0, 2.1),
    ("Twine Beam", "footing", "bed", "soil"),
    ("Twine Beam", "screw_gap", 0.1, 0.3),
    ("Twine Beam", "string", "jute_3", "pp_baler_9600"),
    ("Paste Raft", "link", "none", "diagonal"),
    ("Paste Raft", "stakes", 0, 1),
    ("Paste Raft", "stakes", 1, 2),
    ("Paste Raft", "depth", 0.3, 0.6),
    ("Gull Frame", "foot", "none", "stake"),
    ("Gull Frame", "foot", "stake", "anchor"),
    ("Gull Frame", "rail_spacing", 1.2, 0.6),
    ("Gull Frame", "spread", 0.6, 1.05),
    ("Gull Frame", "hinge", "hinge_butt_75", "hinge_strap_150"),
    ("Gull Frame", "frame_wood", "post_sw_stake_25", "post_sw_stake_38"),
    ("Gull Frame", "filled", "slats", "mesh"),
    ("Barrel Tripod", "legs", 3, 4),
    ("Barrel Tripod", "held", "soil", "rim"),
    ("Barrel Tripod", "radius", 0.14, 0.25),
    ("Barrel Tripod", "crossing", "lashed", "notched"),
    ("Barrel Tripod", "binding", "jute_2", "sisal_2.5"),
    ("Barrel Tripod", "pole_length", 2.7, 2.1),
    ("Barrel Tripod", "centre", "none", "stake"),
    ("Chandler’s Wire", "depth", 0.3, 0.6),
    ("Chandler’s Wire", "top_height", 2.4, 1.8),
    ("Chandler’s Wire", "ends", "plain", "lean"),
    ("Chandler’s Wire", "ends", "plain", "guy"),
    ("Chandler’s Wire", "wire", "wire_soft_14", "wire_ht_14"),
    ("Chandler’s Wire", "post_spacing", 4.5, 3.0),
    ("Chandler’s Wire", "anchor", "anchor_screw_15x3", "anchor_screw_30x4"),
    ("Chandler’s Wire", "seat", "staple_fence", "nails_bent"),
    ("Store Wall", "state", "tired", "sound"),
    ("Store Wall", "state", "rotten", "tired"),
    ("Store Wall", "wires", 2, 6),
    ("Store Wall", "eye", "vine_eye_tired", "vine_eye_80"),
    ("Runner Row", "pole", "cane_12", "cane_20"),
    ("Runner Row", "pair_spacing", 0.6, 0.3),
    ("Runner Row", "spread", 0.4, 0.9),
    ("Runner Row", "in_soil", 0.2, 0.45),
    ("Runner Row", "pole_length", 3.0, 2.4),
    ("Runner Row", "tail", 0.05, 0.4),
    ("Marrow Frame", "sides", "one", "both"),
    ("Marrow Frame", "crossbar", "none", "top"),
    ("Marrow Frame", "screw_gap", 0.05, 0.15),
    ("Marrow Frame", "post", "cane_25", "post_sw_stake_38"),
    ("Marrow Frame", "height", 2.1, 1.5),
    ("Cove Hoops", "held", "soil", "stakes"),
    ("Cove Hoops", "foot_depth", 0.3, 0.6),
    ("Cove Hoops", "push_in", 0.1, 0.4),
    ("Cove Hoops", "hoop_spacing", 1.5, 0.9),
    ("Cove Hoops", "arc", 3.5, 3.05),
    ("Cove Hoops", "span", 1.2, 1.5),
)

# structure, option, without, with: nobody's structure gets weaker by it
NEVER_LESS: tuple[tuple[str, str, Any, Any], ...] = (
    ("Cove Hoops", "brace", "none", "stake"),
    ("Cove Hoops", "brace", "none", "diagonal"),
    ("Cove Hoops", "brace", "none", "neighbour"),
    ("Runner Row", "ridge", "none", "pole"),
    ("Runner Row", "crossing", "lashed", "coupled"),
    ("Marrow Frame", "crossbar", "top", "top-mid"),
    ("Marrow Frame", "infill", "none", "strings"),
    ("Paste Raft", "link", "none", "row"),
    ("Paste Raft", "link", "row", "grid"),
    ("Pea Thicket", "tied", "string", "cane"),
    ("Quay Fence", "bottom_gap", 0.5, 0.15),
    ("Twine Beam", "beam", "tube_emt_15", "tube_scaffold_48"),
    ("Gull Frame", "anchor", "anchor_screw_15x3", "anchor_screw_30x4"),
)


@cache
def _standing() -> dict[str, tuple[Site, Structure]]:
    garden = demo()
    return {one.name: (Site(garden=garden, bed=bed), one) for bed in garden.beds for one in bed.structures}


@cache
def _holds(name: str, option: str, value: Any) -> tuple[float, float, dict[str, float]]:
    """Return the limit gust of the whole, and how far each link is used in the gust asked and in the working
    wind.
    """
    at, structure = _standing()[name]
    found = design_of(at, structure.model_copy(update={"options": {**structure.options, option: value}}))
    uses = {
        link.key: float(np.max(np.broadcast_to(link.utilisation, (2, found.season.weeks, 3))[0]))
        for link in found.links
    }
    return float(np.min(found.limit[0])), max(uses.values()), uses


class DirectionsTest(unittest.TestCase):
    def test_what_holds_more(self):
        """Of the whole, or, where another link decides that, of the link that it strengthens, the others
        being no worse.
        """
        for name, option, less, more in HOLDS_MORE:
            with self.subTest(name, option=option, less=less, more=more):
                (before, _, used), (after, _, uses) = _holds(name, option, less), _holds(name, option, more)
                if after > MORE * before:
                    continue
                self.assertGreaterEqual(after, 0.99 * before)
                gone, both = set(used) - set(uses), set(used) & set(uses)
                self.assertTrue(
                    gone or any(uses[key] * MORE < used[key] for key in both), "some link is used less"
                )

    def test_what_never_holds_less(self):
        for name, option, without, with_it in NEVER_LESS:
            with self.subTest(name, option=option, without=without, with_it=with_it):
                self.assertGreaterEqual(
                    _holds(name, option, with_it)[0], 0.99 * _holds(name, option, without)[0]
                )

    def test_every_kind_is_asked(self):
        self.assertEqual({_standing()[name][1].family for name, *_ in HOLDS_MORE}, set(FAMILIES))
