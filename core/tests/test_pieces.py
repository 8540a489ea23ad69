"""Pieces and the stock they come out of, against sorting by hand and against trying everything."""

from __future__ import annotations

from ascent import tables
from ascent.buying.packs import enough_of, least, sheets_in, whole_from
from ascent.buying.pieces import Piece, lengths_of, pieces_of
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.plan.structure import Planting

from tests.support import NearTestCase, site


class StockTest(NearTestCase):
    def test_enough_and_the_least_over(self):
        self.assertEqual(enough_of((1.2, 1.8, 2.4), 1.5), [1.8, 2.4])
        self.assertEqual(enough_of((1.2, 1.8, 2.4), 3.0), [2.4])
        # two of 1.1 m: one of 2.4 m leaves 0.2, two of 1.2 m leave 0.2 as well: the shorter is carried home
        self.assertEqual(least((1.2, 2.4), lambda stock: whole_from(1.1, 2, stock)), (1.2, 2))
        self.assertEqual(least((1.8, 2.4), lambda stock: whole_from(1.2, 2, stock)), (2.4, 1))

    def test_sheets_meet_posts(self):
        """Common practice, no source: sheets of 4.88 m over bays of 1.22 m join at every fourth post; over
        1.8 m two bays each; a bay longer than a sheet is spanned by what is cut.
        """
        self.assertEqual(sheets_in([1.22] * 8, 4.88), 2)
        self.assertEqual(sheets_in([1.22] * 9, 4.88), 3)
        self.assertEqual(sheets_in([1.8] * 4, 4.88), 2)
        self.assertEqual(sheets_in([1.8] * 5, 4.88), 3)
        self.assertEqual(sheets_in([6.0, 6.0], 4.88), 3)

    def test_joined_lengths_add_up(self):
        lap = tables.constant("joint_lap")
        for length in (0.9, 2.1, 2.14, 3.7, 4.8, 11.3):
            piece = Piece(tables.item("posts", "cane_12"), "joined", "rail", length)
            lengths = lengths_of(piece, 2.1)
            self.assertAlmostEqual(sum(lengths) - lap * (len(lengths) - 1), length)
            self.assertLessEqual(max(lengths), 2.1 + 0.05)


class PiecesTest(NearTestCase):
    def test_every_member_of_every_family_is_a_piece_and_every_supply_is_counted(self):
        where = site("firm_loam", "ordinary")
        for family in FAMILIES.values():
            with self.subTest(family.key):
                proposal = family.propose(Need("tom-slicer", None, "both", "pruned"), where)
                grown = (Planting(key="a", crop="tom-slicer", count=8, spacing=0.4, planted="05-10"),)
                geometry = family.geometry(proposal.options, grown, where)
                pieces = pieces_of([geometry])
                bought = {member.key for member in geometry.members if member.table in tables.ITEM_TABLES}
                self.assertEqual({piece.member for piece in pieces} - {""}, bought)
                for supply in geometry.supplies:
                    given = sum(p.count for p in pieces if not p.member and p.item.key == supply.item)
                    self.assertGreaterEqual(given, supply.count)
                for piece in pieces:
                    self.assertEqual(tables.item(piece.item.table, piece.item.key), piece.item)
