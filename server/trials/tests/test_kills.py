"""The server killed again and again while four clients write and three devices log; ./ascent bench --kills N
does it longer.
"""

from __future__ import annotations

import unittest

from tests.support import some

from trials.killing import kill_while_writing


class KillsTest(unittest.TestCase):
    def test_no_acknowledged_change_is_lost_and_the_data_file_stays_sound(self):
        kills = some(20, 2)
        tally = kill_while_writing(kills)
        print(f"\n{tally}")
        self.assertEqual((tally.kills, tally.lost, tally.damaged), (kills, [], []))
        self.assertGreater(tally.acknowledged, kills)
        self.assertGreater(tally.logged, 0)
