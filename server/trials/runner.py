"""The test runner: says at the end how many passed and failed, and never hangs."""

from __future__ import annotations

import faulthandler
import os
import tempfile
import unittest
from pathlib import Path
from typing import Any

from django.contrib.contenttypes.management import create_contenttypes
from django.db import connection
from django.db.models.signals import post_migrate
from django.test.runner import DiscoverRunner

from trials.served import MADE_ONCE

_LONGEST = 20 * 60


class CountingResult(unittest.TextTestResult):
    """Counts real successes."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.passed = 0

    def addSuccess(self, test: unittest.TestCase) -> None:
        super().addSuccess(test)
        self.passed += 1


class Runner(DiscoverRunner):
    """Django's runner with a closing line that machines can read."""

    def get_resultclass(self) -> type[unittest.TextTestResult]:
        return CountingResult

    def setup_databases(self, **kwargs: Any) -> Any:
        """Forget what an earlier run left: a journal beside a fresh copy of the database would be read into
        it. Kinds of rows and rights to them, for which nobody here asks, are not written anew each time.
        """
        post_migrate.disconnect(create_contenttypes)
        post_migrate.disconnect(dispatch_uid="django.contrib.auth.management.create_permissions")
        name = Path(connection.settings_dict["TEST"]["NAME"])
        for left in name.parent.glob(f"{name.stem}*{name.suffix}*"):
            left.unlink()
        return super().setup_databases(**kwargs)

    def run_suite(self, suite: unittest.TestSuite, **kwargs: Any) -> CountingResult:
        faulthandler.dump_traceback_later(_LONGEST, exit=True)
        result = super().run_suite(suite, **kwargs)
        assert isinstance(result, CountingResult)  # noqa: S101 - get_resultclass says so
        self._counts = (
            result.passed,
            len({str(t) for t, _ in (*result.failures, *result.errors)}),
            len(result.skipped),
        )
        return result

    def run_tests(self, *args: Any, **kwargs: Any) -> int:
        with tempfile.TemporaryDirectory() as folder:
            os.environ[MADE_ONCE] = folder
            failures = super().run_tests(*args, **kwargs)
        faulthandler.cancel_dump_traceback_later()
        passed, failed, skipped = self._counts
        print(f"{passed} passed, {failed} failed" + (f", {skipped} skipped" if skipped else ""))
        return failures or (1 if passed == 0 else 0)
