"""The API under random requests, a bounded number of them; ./ascent bench --fuzz N sends more."""

from __future__ import annotations

import os

from gardens.tests.support import ApiTestCase
from tests.support import some

from .fuzzing import Fuzz

EXAMPLES = int(os.environ.get("ASCENT_FUZZ", some(3, 3)))


class FuzzTest(ApiTestCase):
    def test_no_fault_of_ours_and_every_answer_fits_its_schema(self):
        ids = {
            "garden_id": self.garden.pk,
            "structure_id": self.structure.pk,
            "bed": self.bed.key,
            "number": 0,
            "what": "beds",
        }
        fuzz = Fuzz(self.client, ids, EXAMPLES)
        operations = fuzz.operations()
        self.assertGreater(len(operations), 40)
        for operation in operations:
            with self.subTest(f"{operation.method} {operation.path}"):
                fuzz.run(operation)
        print(
            f"\nfuzz: {sum(fuzz.counts.values())} requests to {len(operations)} operations:"
            f" {dict(sorted(fuzz.counts.items()))}"
        )
        self.assertGreater(fuzz.counts[200], 50)
        self.assertGreater(fuzz.counts[422], some(100, 2))
