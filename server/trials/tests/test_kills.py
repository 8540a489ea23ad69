"""The server killed twenty times while four clients write; ./ascent bench --kills N does it longer."""

from __future__ import annotations

import unittest

from trials.killing import kill_while_writing


class KillsTest(unittest.TestCase):
    def test_no_acknowledged_change_is_lost_and_the_data_file_stays_sound(self):
        tally = kill_while_writing(20)
        print(f"\nkills: {tally.kills} in {tally.seconds:.0f} s, {tally.acknowledged} changes acknowledged")
        self.assertEqual((tally.kills, tally.lost, tally.damaged), (20, [], []))
        self.assertGreater(tally.acknowledged, 20)
