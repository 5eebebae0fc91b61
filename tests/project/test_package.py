"""One wheel with the interface inside: installed into an empty environment it starts, with no Node and no net."""

import configparser
import re
import subprocess
import sys
import sysconfig
import urllib.request
import venv
import zipfile
from pathlib import Path

import pytest

import fenwa

ROOT = Path(__file__).parents[2]


@pytest.fixture(scope="module")
def wheel(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Built here, from the interface that stands built in web/dist."""
    assert (ROOT / "web" / "dist" / "index.html").is_file(), "build the interface first: ./fenwa package does"
    to = tmp_path_factory.mktemp("wheel")
    hatchling = Path(sys.executable).with_name("hatchling")
    subprocess.run([hatchling, "build", "-t", "wheel", "-d", to], cwd=ROOT, check=True, capture_output=True)
    (made,) = to.glob("*.whl")
    return made


def test_the_wheel_holds_what_is_served_and_asks_for_what_is_pinned(wheel: Path) -> None:
    with zipfile.ZipFile(wheel) as pack:
        names = set(pack.namelist())
        told = pack.read(next(n for n in names if n.endswith("METADATA"))).decode()
    sources = ROOT / "src"
    kept = {str(p.relative_to(sources)) for p in (sources / "fenwa").rglob("*") if p.is_file() and p.suffix != ".pyc"}
    assert kept <= names
    built = {f"fenwa/interface/{p.relative_to(ROOT / 'web' / 'dist')}" for p in (ROOT / "web/dist").rglob("*.js*")}
    assert any(name.endswith(".js.br") for name in built)
    assert built <= names
    asked = set(re.findall(r"^Requires-Dist: (\S+)$", told, flags=re.MULTILINE))
    assert asked == set((ROOT / "requirements.in").read_text("utf-8").split())
    assert f"\nVersion: {fenwa.__version__}\n" in told
    assert not [n for n in names if "tests" in n.split("/") or n.endswith((".sqlite", ".pyc"))]


def test_installed_into_an_empty_environment_the_demonstration_starts(wheel: Path, tmp_path: Path) -> None:
    home = tmp_path / "empty"
    venv.create(home, with_pip=True)
    offline = {"PATH": str(home / "bin"), "HOME": str(tmp_path), "PIP_NO_INDEX": "1", "LANG": "C.UTF-8"}
    install = [home / "bin" / "pip", "install", "--quiet", "--no-deps", "--disable-pip-version-check", wheel]
    subprocess.run(install, check=True, env=offline, capture_output=True)
    # the packages it asks for are not fetched: those of these tests stand in, Fenwa's own sources do not
    (site,) = home.glob("lib/python3*/site-packages")
    (site / "packages.pth").write_text(sysconfig.get_path("purelib") + "\n")
    where = [home / "bin" / "python", "-c", "import fenwa; print(fenwa.__file__)"]
    assert str(site) in subprocess.run(where, env=offline, capture_output=True, text=True, check=True).stdout
    command = [
        home / "bin" / "fenwa",
        "demo",
        "--port",
        "0",
        "--today",
        "2026-11-23",
        "--database",
        tmp_path / "d.sqlite",
    ]
    with subprocess.Popen(command, env=offline, stdout=subprocess.PIPE, text=True, cwd=tmp_path) as server:
        try:
            assert server.stdout is not None
            found = re.search(r"http://\S+:\d+", server.stdout.readline())
            assert found
            with urllib.request.urlopen(found[0]) as page:
                text = page.read().decode()
            scripts = re.findall(r'(?:src|href)="(/assets/[^"]+\.js)"', text)
            sizes = []
            for script in scripts:
                with urllib.request.urlopen(found[0] + script) as answer:
                    sizes.append(len(answer.read()))
            assert sum(sizes) > 50_000
            with urllib.request.urlopen(found[0] + "/api/pots") as answer:
                assert b'"code"' in answer.read()
        finally:
            server.terminate()
            assert server.wait(timeout=30) == 0


def test_the_unit_starts_the_command_of_the_wheel_closed_to_everybody_else() -> None:
    unit = configparser.ConfigParser(strict=False, interpolation=None)
    unit.optionxform = str  # type: ignore[assignment,method-assign]
    unit.read(ROOT / "packaging" / "fenwa.service", encoding="utf-8")
    service = unit["Service"]
    assert service["ExecStart"].split()[0].endswith("/bin/fenwa")
    assert service["ExecStart"].split()[1] == "serve"
    assert "--lan" not in service["ExecStart"]
    for name in ("DynamicUser", "NoNewPrivileges", "ProtectHome", "PrivateTmp", "PrivateDevices"):
        assert service[name] == "yes", name
    assert service["ProtectSystem"] == "strict"
    assert service["StateDirectoryMode"] == "0700"
    readme = (ROOT / "README.md").read_text("utf-8")
    assert "packaging/fenwa.service" in readme
