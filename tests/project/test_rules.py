"""The rules of the house, read from the tree itself."""

import ast
import re
import subprocess
import sys
import tomllib
from graphlib import TopologicalSorter
from pathlib import Path

import pytest

import fenwa
from fenwa.core.errors import DomainError
from fenwa.store.models import Base

ROOT = Path(__file__).parents[2]
SRC = ROOT / "src" / "fenwa"
MODULES = sorted(SRC.rglob("*.py"))
WEB = [p for p in sorted((ROOT / "web" / "src").rglob("*.ts*")) if "generated" not in p.parts]
ALLOWED = {
    "core": {"core"},
    "store": {"store", "core"},
    "formats": {"formats", "core"},
    "devices": {"devices", "formats", "core"},
    "demo": {"demo", "store", "core", "formats", "devices"},
    "archive": {"archive", "store", "core", "formats"},
    "api": {"api", "archive", "store", "core", "formats", "devices"},
    "cli_data.py": {"api", "archive", "store", "core"},
    "cli_network.py": {"api", "cli_data"},
    "cli.py": {"api", "cli_data", "cli_network", "store", "core", "demo", "devices", "bench", "bench_large"},
    "bench.py": {
        "api",
        "store",
        "core",
        "demo",
        "bench_pages",
        "bench_plain",
        "bench_answers",
        "bench_pots",
        "bench_scroll",
        "bench_rows",
    },
    "bench_honesty.py": {"core"},
    "bench_answers.py": {"api", "store", "bench_honesty", "bench_pages", "bench_rows", "bench_scroll"},
    "bench_pots.py": {"core", "bench_pages"},
    "bench_scroll.py": {"api", "store", "demo", "bench_rows", "bench_served"},
    "bench_served.py": {"bench_rows"},
    "bench_phone.py": {"store", "demo", "bench_machine", "bench_rows", "bench_served"},
    "bench_pages.py": {"api", "store", "bench_rows"},
    "bench_rows.py": {"store", "core", "demo"},
    "bench_plain.py": {"core", "bench_pages"},
    "bench_large.py": {
        "store",
        "bench_machine",
        "bench_plain",
        "bench_rows",
        "bench_schema",
        "bench_served",
        "bench_phone",
    },
    "bench_machine.py": set(),
    "bench_schema.py": {"store"},
}
OUTSIDE_OF_CORE = {"numpy", "scipy"} | set(sys.stdlib_module_names)


def imports(path: Path) -> set[str]:
    found = set()
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.module:
            found.add(node.module)
    return found


@pytest.mark.parametrize(
    "path", [m for m in MODULES if m.parent != SRC or m.name in ALLOWED], ids=lambda p: str(p.relative_to(SRC))
)
def test_arrows_between_layers_go_one_way(path: Path) -> None:
    layer = path.relative_to(SRC).parts[0]
    for name in imports(path):
        parts = name.split(".")
        if parts[0] == "fenwa" and len(parts) > 1:
            assert parts[1] in ALLOWED[layer], f"{path} imports {name}"
        elif layer == "core":
            checks = {"pydantic"} if path.parent.name in ("data", "library") else set()  # of data files
            assert parts[0] in OUTSIDE_OF_CORE | {"fenwa"} | checks, f"core imports {name}"


# from the ground up; a layer knows those before it
CORE_LAYERS = (
    "data",
    "climate",
    "water",
    "pot",
    "mix",
    "library",
    "leaf",
    "care",
    "evidence",
    "diagnosis",
    "units",
    "writing",
    "calculations",
)


@pytest.mark.parametrize("path", [m for m in MODULES if m.is_relative_to(SRC / "core")], ids=lambda p: p.name)
def test_layers_of_the_core_know_only_those_below(path: Path) -> None:
    own = path.relative_to(SRC / "core").with_suffix("").parts[0]
    known = CORE_LAYERS[: CORE_LAYERS.index(own) + 1] if own in CORE_LAYERS else ()
    for name in imports(path):
        parts = name.split(".")
        if parts[:2] == ["fenwa", "core"] and len(parts) > 2 and parts[2] in CORE_LAYERS:
            assert parts[2] in known, f"{path.name} imports {name}"


def test_no_module_imports_itself_by_way_of_others() -> None:
    names = {".".join(p.relative_to(SRC.parent).with_suffix("").parts): p for p in MODULES}
    sorter = TopologicalSorter({name: imports(path) & set(names) for name, path in names.items()})
    sorter.prepare()  # CycleError names the circle


def is_router(path: Path) -> bool:
    return "APIRouter(" in path.read_text("utf-8")


@pytest.mark.parametrize("path", [m for m in MODULES if m.is_relative_to(SRC / "api")], ids=lambda p: p.stem)
def test_routers_know_no_router_and_write_no_sql(path: Path) -> None:
    found = imports(path)
    assert "sqlalchemy" not in found, "a select belongs to the store"
    assert not re.search(r"session\.(scalars|scalar|execute|query)\(", path.read_text("utf-8"))
    if path.name not in ("routes.py", "app.py"):
        routers = {m for m in MODULES if m.is_relative_to(SRC / "api") and is_router(m)}
        named = {".".join(m.relative_to(SRC.parent).with_suffix("").parts) for m in routers}
        assert not found & named


def test_core_reads_no_clock_and_only_data_reads_files() -> None:
    for path in (SRC / "core").rglob("*.py"):
        text = path.read_text("utf-8")
        assert not re.search(r"\.today\(\)|\.now\(|time\.time|random\.", text), path
        if path.parent.name != "data":
            assert not re.search(r"\bopen\(|read_text|Path\(", text), path


@pytest.mark.parametrize("path", [*MODULES, *WEB], ids=lambda p: p.name)
def test_files_stay_small_and_named_for_what_they_hold(path: Path) -> None:
    assert path.stem not in {"utils", "helpers", "common", "misc"}
    lines = [line for line in path.read_text("utf-8").splitlines() if line.strip()]
    if path.name != "0001_first_schema.py":
        assert len(lines) <= 400, f"{path.name} has {len(lines)} lines"
    if path.suffix == ".tsx" and not path.name.endswith(".test.tsx"):  # a component; a test is a module
        assert len(lines) <= 150, f"{path.name} has {len(lines)} lines"


def test_every_calculation_is_registered_wherever_the_program_starts() -> None:
    """A module not listed registers only if something else happens to import it."""
    listed = imports(SRC / "core" / "calculations.py")
    for path in (SRC / "core").rglob("*.py"):
        if re.search(r"^@calculation\(", path.read_text("utf-8"), re.M):
            assert ".".join(path.relative_to(SRC.parent).with_suffix("").parts) in listed


def test_each_error_has_its_own_code() -> None:
    def all_of(kind: type[DomainError]) -> list[type[DomainError]]:
        return [kind, *[k for sub in kind.__subclasses__() for k in all_of(sub)]]

    codes = [k.code for k in all_of(DomainError)]
    assert len(codes) == len(set(codes))


def test_requirements_are_pinned_and_name_no_address() -> None:
    for name in ("requirements.txt", "requirements-dev.txt"):
        rows = [r for r in (ROOT / name).read_text().splitlines() if r and not r.startswith(("#", "-r"))]
        packages = "\n".join(rows).replace(" \\\n    ", " ").splitlines()
        assert all(re.fullmatch(r"[\w.-]+==[\w.]+( --hash=sha256:[0-9a-f]{64})+", p) for p in packages)
    package = (ROOT / "web" / "package.json").read_text()
    assert not re.search(r'"\^|"~|https?://', package)
    assert '"resolved"' not in (ROOT / "web" / "package-lock.json").read_text()


def test_version_is_the_same_everywhere() -> None:
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]["version"]
    assert project == fenwa.__version__
    assert f"## {project}" in (ROOT / "CHANGELOG.md").read_text()


def test_readme_links_every_picture_and_its_commands_exist() -> None:
    readme = (ROOT / "README.md").read_text("utf-8")
    pictures = sorted((ROOT / "docs" / "screenshots").glob("*.png"))
    assert 0 < len(pictures) < 20
    assert all(p.name in readme for p in pictures)
    for link in re.findall(r"\]\(((?!http)[^)#]+)\)", readme):
        assert (ROOT / link).exists(), link
    known = (ROOT / "fenwa").read_text()
    for command in re.findall(r"\./fenwa (\w+)", readme):
        assert re.search(rf"^  (?:\w+ \| )*{command}(?: \| \w+)*\)$", known, re.M), command


def test_no_rule_of_the_job_is_in_typescript() -> None:
    """No chemistry, salt balance or limit is computed in the interface; it may draw, format and sort."""
    drawn = {"ramp.ts"}  # colours along a logarithmic axis, held against the package for axes
    for path in WEB:
        text = path.read_text("utf-8")
        assert not re.search(r"0\.0191|0\.4364|0\.8302|50\.04", text), path.name
        assert path.name in drawn or not re.search(r"Math\.(exp|log|pow)\b", text), path.name


def test_interface_asks_nobody_else() -> None:
    for path in [*WEB, ROOT / "web" / "index.html"]:
        assert not re.search(r"https?://(?!127\.0\.0\.1|www\.w3\.org)", path.read_text("utf-8")), path.name


def test_the_typeface_that_ships_has_every_sign_of_the_interface_and_of_the_data() -> None:
    """A machine without another typeface, a small board for one, shows a box for a sign it lacks."""
    sheet = (ROOT / "web/node_modules/@fontsource-variable/hanken-grotesk/wght.css").read_text("utf-8")
    spans = [re.split("-", span) for span in re.findall(r"U\+([0-9A-F]+(?:-[0-9A-F]+)?)", sheet)]
    data = [p for p in sorted((SRC / "core" / "data").rglob("*")) if p.suffix in {".toml", ".json"}]
    for path in [*WEB, *data]:
        for sign in {c for c in path.read_text("utf-8") if ord(c) > 0x7E}:
            assert any(int(s[0], 16) <= ord(sign) <= int(s[-1], 16) for s in spans), (path.name, sign)


def test_interface_types_follow_from_the_api(tmp_path: Path) -> None:
    """Fails when the API changed and ./fenwa types was not run."""
    import json

    from fenwa.api.app import openapi_document
    from fenwa.api.document import for_interface

    web = ROOT / "web"
    (tmp_path / "openapi.json").write_text(
        json.dumps(for_interface(openapi_document(tmp_path / "empty.sqlite")), ensure_ascii=False)
    )
    tool = web / "node_modules" / ".bin" / "openapi-typescript"
    made = subprocess.run(
        [str(tool), str(tmp_path / "openapi.json"), "-o", str(tmp_path / "schema.ts")],
        capture_output=True,
        text=True,
        cwd=web,
    )
    assert made.returncode == 0, made.stderr
    assert (tmp_path / "schema.ts").read_text() == (web / "src" / "api" / "generated" / "schema.ts").read_text()


def test_the_interface_is_typed_from_what_it_calls_and_nothing_else(tmp_path: Path) -> None:
    from fenwa.api.app import openapi_document
    from fenwa.api.document import NOT_CALLED, for_interface

    whole = openapi_document(tmp_path / "empty.sqlite")
    text = "".join(path.read_text("utf-8") for path in WEB if ".test." not in path.name)
    called = set(re.findall(r"[\"`](/api/[^\"`$?]+)", text))
    assert set(for_interface(whole)["paths"]) <= called
    assert set(NOT_CALLED) <= set(whole["paths"])


def test_every_kept_table_is_archived_and_not_deleted() -> None:
    kept = {t.name for t in Base.metadata.sorted_tables if "archived_at" in t.columns}
    assert {"pour", "look", "reading", "batch", "pot", "plant", "water", "product", "decision"} <= kept
    for path in MODULES:
        if "demo" not in path.parts:
            assert not re.search(r"session\.delete\(|\.delete\(\)", path.read_text("utf-8")), path.name


def test_each_equation_named_stands_in_the_docs_and_each_there_is_used() -> None:
    number = re.compile(r"\bE\d\.\d+[a-c]?\b")
    listed = re.findall(r"^\| (E\d\.\d+[a-c]?) \|", (ROOT / "docs" / "equations.md").read_text("utf-8"), re.M)
    used = {e for path in MODULES for e in number.findall(path.read_text("utf-8"))}
    used |= {f"{lo}" for lo in number.findall((ROOT / "tests" / "core" / "test_pot_balance.py").read_text("utf-8"))}
    assert len(listed) == len(set(listed))
    assert used - set(listed) == set(), "named, and nowhere written down"
    assert set(listed) - used == set(), "written down, and nowhere used"
