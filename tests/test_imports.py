"""The direction of imports: web, cli -> store, formats -> core; the core knows nothing of the rest."""

from __future__ import annotations

import ast
from pathlib import Path

ROOT = Path(__file__).parent.parent / "src/ausblick"
MAY = {
    "core": {"core"},
    "formats": {"core", "formats"},
    "store": {"core", "store"},
    "web": {"core", "formats", "store", "web"},
    "demo": {"core", "formats", "store", "web", "demo"},
}
CORE_ORDER = [
    "arrays",
    "plan",
    "optics",
    "light",
    "signal",
    "measure",
    "key",
    "results",
    "explaining",
    "screen_reading",
    "evaluate",
    "rules",
    "testkey",
    "kit",
    "propose",
    "asbuilt",
    "plate",
]
"""Inside the core each package may use those before it (measure.compare reads evaluations)."""
FOREIGN_TO_CORE = {
    "flask",
    "sqlalchemy",
    "alembic",
    "pathlib",
    "os",
    "time",
    "OpenImageIO",
    "av",
    "click",
}


def imported(path: Path) -> list[str]:
    """Absolute names of everything a module imports."""
    package = ["ausblick", *path.relative_to(ROOT).parts[:-1]]
    names = []
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.Import):
            names += [alias.name for alias in node.names]
        elif isinstance(node, ast.ImportFrom):
            base = package[: len(package) - node.level + 1] if node.level else []
            names.append(".".join([*base, node.module or ""]).strip("."))
    return names


def test_packages_import_only_what_lies_below_them() -> None:
    wrong = []
    for path in ROOT.rglob("*.py"):
        top = path.relative_to(ROOT).parts[0]
        for name in imported(path):
            parts = name.split(".")
            if top in MAY and parts[0] == "ausblick" and len(parts) > 1 and parts[1] not in MAY[top]:
                wrong.append(f"{path.relative_to(ROOT)} imports {name}")
    assert wrong == []


def test_core_is_free_of_web_database_files_and_clock() -> None:
    wrong = [
        f"{path.relative_to(ROOT)} imports {name}"
        for path in (ROOT / "core").rglob("*.py")
        for name in imported(path)
        if name.split(".")[0] in FOREIGN_TO_CORE
    ]
    wrong += [str(p) for p in (ROOT / "core").rglob("*.py") if "now(" in p.read_text("utf-8")]
    assert wrong == []


def test_core_packages_keep_their_order() -> None:
    allowed_up = {("measure", "evaluate"), ("measure", "results")}
    wrong = []
    for path in (ROOT / "core").rglob("*.py"):
        here = path.relative_to(ROOT / "core").parts[0].removesuffix(".py")
        for name in imported(path):
            parts = name.split(".")
            if (
                parts[:2] != ["ausblick", "core"]
                or len(parts) < 3
                or here not in CORE_ORDER
                or parts[2] not in CORE_ORDER
            ):
                continue
            if CORE_ORDER.index(parts[2]) > CORE_ORDER.index(here) and (here, parts[2]) not in allowed_up:
                wrong.append(f"{path.relative_to(ROOT)} imports {name}")
    assert wrong == []


def test_no_module_grows_past_400_lines() -> None:
    long = {
        str(p.relative_to(ROOT)): n for p in ROOT.rglob("*.py") if (n := len(p.read_text("utf-8").splitlines())) > 400
    }
    assert long == {}
