"""The direction of imports: web, cli -> store, formats -> core; the core knows nothing of the rest."""

from __future__ import annotations

import ast
from collections import Counter
from functools import cache
from graphlib import CycleError, TopologicalSorter
from pathlib import Path

ROOT = Path(__file__).parent.parent / "src/ausblick"
MAY = {
    "core": {"core"},
    "formats": {"core", "formats"},
    "store": {"core", "store"},
    "app": {"core", "formats", "store", "app"},
    "demo": {"core", "formats", "store", "app", "demo"},
    "web": {"core", "formats", "store", "app", "web"},
    "cli": {"core", "formats", "store", "app", "web", "demo", "cli"},
}
CORE_ORDER = [
    "remembered",
    "sentences",
    "standards",
    "geometry",
    "colour",
    "plan",
    "kit",
    "camera",
    "figure",
    "light",
    "damage",
    "rig",
    "frames",
    "evaluation",
    "plate",
    "advice",
    "matte",
    "diagnosis",
    "standin",
    "paper",
    "start",
    "production",
    "takes",
    "handover",
]
"""Inside the core each room may use those before it."""
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


@cache
def nodes(path: Path) -> tuple[ast.AST, ...]:
    return tuple(ast.walk(ast.parse(path.read_text("utf-8"))))


@cache
def imported(path: Path) -> list[str]:
    """Absolute names of everything a module imports."""
    package = ["ausblick", *path.relative_to(ROOT).parts[:-1]]
    names = []
    for node in nodes(path):
        if isinstance(node, ast.Import):
            names += [alias.name for alias in node.names]
        elif isinstance(node, ast.ImportFrom):
            base = package[: len(package) - node.level + 1] if node.level else []
            module = ".".join([*base, node.module or ""]).strip(".")
            names += [module, *(f"{module}.{alias.name}" for alias in node.names)]
    return names


def test_packages_import_only_what_lies_below_them() -> None:
    wrong = []
    for path in ROOT.rglob("*.py"):
        top = path.relative_to(ROOT).parts[0]
        for name in imported(path):
            parts = name.split(".")
            if (
                top in MAY
                and parts[0] == "ausblick"
                and len(parts) > 1
                and not parts[1].startswith("__")
                and parts[1] not in MAY[top]
            ):
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


def test_rooms_of_the_core_keep_their_order() -> None:
    rooms = {p.name for p in (ROOT / "core").iterdir() if p.is_dir() and p.name != "__pycache__"}
    assert rooms == set(CORE_ORDER)
    wrong = []
    for path in (ROOT / "core").rglob("*.py"):
        here = path.relative_to(ROOT / "core").parts[0]
        for name in imported(path):
            parts = name.split(".")
            up = parts[:2] == ["ausblick", "core"] and len(parts) > 2 and here in CORE_ORDER
            if up and CORE_ORDER.index(parts[2]) > CORE_ORDER.index(here):
                wrong.append(f"{path.relative_to(ROOT)} imports {name}")
    assert wrong == []


def test_every_package_is_a_known_room() -> None:
    packages = {p.name for p in ROOT.iterdir() if p.is_dir() and p.name != "__pycache__"}
    assert packages == set(MAY)


def test_no_two_modules_and_no_two_classes_share_a_name() -> None:
    modules = Counter(p.stem for p in ROOT.rglob("*.py") if p.stem != "__init__")
    classes = Counter(
        node.name for path in ROOT.rglob("*.py") for node in nodes(path) if isinstance(node, ast.ClassDef)
    )
    assert [name for name, count in (modules + classes).items() if count > 1] == []


def test_no_modules_import_each_other_in_a_circle() -> None:
    known = {".".join(p.relative_to(ROOT.parent).with_suffix("").parts): p for p in ROOT.rglob("*.py")}
    below = {name: {target for target in imported(path) if target in known} for name, path in known.items()}
    try:
        tuple(TopologicalSorter(below).static_order())
    except CycleError as err:
        raise AssertionError(f"a circle of imports: {err.args[1]}") from None


def test_rules_leave_moving_things_to_moves() -> None:
    """A lamp moved by a rule of its own forgot the walls, and a mark moved so left its key behind."""
    own = {"position", "aim", "subject.x", "subject.z"}
    wrong = []
    for path in (ROOT / "core/advice/rules").glob("*.py"):
        for node in nodes(path):
            if isinstance(node, ast.Call):
                called = ast.unparse(node.func)
                if called.startswith("edit.") and (called.rsplit(".", 1)[1] in own or called[5:] in own):
                    wrong.append(f"{path.name}:{node.lineno} {called}")
    assert wrong == []


def test_paths_of_the_plan_are_written_in_one_module() -> None:
    """Elsewhere in the core a change is made by a typed edit."""
    wrong = [
        f"{path.relative_to(ROOT)}:{node.lineno}"
        for path in (ROOT / "core").rglob("*.py")
        if path.parent.name != "plan"
        for node in nodes(path)
        if isinstance(node, ast.Call) and ast.unparse(node.func) == "Change"
    ]
    assert wrong == []


PAGE = ROOT.parents[1] / "web/src"


def test_no_module_grows_past_400_lines() -> None:
    written = [*ROOT.rglob("*.py"), *PAGE.rglob("*.svelte"), *PAGE.rglob("*.ts")]
    lines = {str(p): len(p.read_text("utf-8").splitlines()) for p in written if "generated" not in p.name}
    assert {name: count for name, count in lines.items() if count > 400} == {}
    assert len(lines) > 300
