"""The structure that is promised: imports point one way, and the core is pure."""

from importlinter.cli import lint_imports


def test_imports_point_one_way() -> None:
    assert lint_imports(config_filename="pyproject.toml", no_cache=True) == 0
