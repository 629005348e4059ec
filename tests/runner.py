"""Django's runner, closing with one plain line that counts."""

import logging
import pickle
import traceback
from types import TracebackType
from typing import Any
from unittest import TestCase, TestSuite
from unittest.runner import TextTestResult

from django.test.runner import DiscoverRunner, ParallelTestSuite, RemoteTestResult, RemoteTestRunner
from django.test.utils import override_settings

# Real hashing is slow on purpose, and hundreds of made-up instructors would wait for it.
QUICK_HASHING = override_settings(PASSWORD_HASHERS=["django.contrib.auth.hashers.MD5PasswordHasher"])


Caught = tuple[type[BaseException], BaseException, TracebackType | None]


def portable(caught: Caught) -> Caught:
    """An error that can be told from one process to another: as it is, else its words."""
    try:
        pickle.loads(pickle.dumps(caught))
    except Exception:
        return AssertionError, AssertionError("".join(traceback.format_exception(*caught))), None
    return caught


class ToldResult(RemoteTestResult):
    """Counts a test whose error cannot leave its process as that one failed, not the whole run."""

    def addError(self, test: TestCase, err: Any) -> None:
        super().addError(test, portable(err))

    def addFailure(self, test: TestCase, err: Any) -> None:
        super().addFailure(test, portable(err))

    def addSubTest(self, test: TestCase, subtest: Any, err: Any) -> None:
        """A part that failed is told as its test, in words: a browser it holds cannot leave its process."""
        if err:
            words = "".join(traceback.format_exception(*err))
            self.addFailure(test, (AssertionError, AssertionError(f"{subtest}\n{words}"), None))


class ToldRunner(RemoteTestRunner):
    resultclass = ToldResult


WITH_BROWSER = ("tests.browser", "tests.server.test_endure")


class OneBrowserSuite(ParallelTestSuite):
    """All that drives a browser after each other in one process: two that draw video starve each other.

    What is tagged slow begins beside it, so that nothing long is left over for one process at the end.
    """

    runner_class = ToldRunner

    def __init__(self, subsuites: list[TestSuite], *args: Any, **kwargs: Any) -> None:
        browser, others = TestSuite(), []
        for suite in subsuites:
            tests = list(suite)
            if type(tests[0]).__module__.startswith(WITH_BROWSER):
                browser.addTests(tests)
            else:
                others.append(suite)
        first = [browser] if browser.countTestCases() else []
        others.sort(key=lambda suite: "slow" not in getattr(next(iter(suite)), "tags", ()))
        super().__init__(first + others, *args, **kwargs)


class CountingRunner(DiscoverRunner):
    """Ends with 'N passed, N failed' alone on a line, and never calls an empty run a success."""

    parallel_test_suite = OneBrowserSuite
    closing_line = "0 passed, 1 failed"  # stands when the suite never came to run

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        if "bench" not in self.tags:
            self.exclude_tags = {*self.exclude_tags, "bench"}

    def suite_result(self, suite: TestSuite, result: TextTestResult, **kwargs: Any) -> int:
        """Count each test once, whatever went wrong in it or around it."""
        failed_tests: set[str] = set()
        failed_setups: set[str] = set()
        for case, _ in [*result.failures, *result.errors]:
            test = getattr(case, "test_case", case)  # a subTest counts for its test
            # what breaks in setUpClass is not among the tests that ran
            (failed_setups if type(test).__name__ == "_ErrorHolder" else failed_tests).add(test.id())
        failed_tests |= {test.id() for test in result.unexpectedSuccesses}
        skipped = len(result.skipped)
        failed = len(failed_tests) + len(failed_setups)
        passed = max(0, result.testsRun - len(failed_tests) - skipped)
        if result.testsRun == 0 and failed == 0:
            failed = 1
        self.closing_line = f"{passed} passed, {failed} failed" + (f", {skipped} skipped" if skipped else "")
        return max(super().suite_result(suite, result, **kwargs), int(failed > 0))

    def run_tests(self, *args: Any, **kwargs: Any) -> int:
        """Say the closing line last, after the databases are gone."""
        logging.getLogger("tropometer").setLevel(logging.WARNING)  # a line for each request is no news here
        try:
            with QUICK_HASHING:
                return super().run_tests(*args, **kwargs)
        finally:
            print(self.closing_line, flush=True)
