"""What chance chooses in a run of the tests goes by the commit, and needs no git."""

import subprocess

import pytest

from launcher import checks


@pytest.mark.parametrize(("said", "seed"), [("0000002a\n", 42), ("", 0)])
def test_the_seed_is_the_commit_or_0_where_nothing_says_which(monkeypatch, said, seed):
    monkeypatch.setattr(subprocess, "run", lambda *_, **__: subprocess.CompletedProcess([], 0, said))
    assert checks._seed_of_the_commit() == seed


def test_a_machine_without_git_tests_all_the_same(monkeypatch, tmp_path):
    monkeypatch.setenv("PATH", str(tmp_path))
    assert checks._seed_of_the_commit() == 0
