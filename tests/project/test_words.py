"""One vocabulary over all texts of the interface and all sentences of the core: docs/words.md is the list."""

import ast
import json
import re
import subprocess
from functools import cache
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
MOST_WORDS = 45
SPOKEN = ("core", "api", "store", "archive", "formats", "devices")  # whose sentences a reader sees
Text = tuple[str, str]


@cache
def of_interface() -> tuple[Text, ...]:
    """Texts a reader sees or hears, with where they stand; found by the compiler's own parser."""
    ran = subprocess.run(["node", "scripts/texts.mjs"], cwd=ROOT / "web", capture_output=True, text=True, check=True)
    return tuple((f"{f}:{n}", text) for f, n, text in map(json.loads, ran.stdout.splitlines()))


def _docstrings(tree: ast.Module) -> set[int]:
    found = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef | ast.AsyncFunctionDef):
            first = node.body[0] if node.body else None
            if isinstance(first, ast.Expr) and isinstance(first.value, ast.Constant):
                found.add(id(first.value))
    return found


def _said(node: ast.AST) -> str | None:
    if isinstance(node, ast.JoinedStr):
        return "".join(str(v.value) if isinstance(v, ast.Constant) else "{}" for v in node.values)
    return node.value if isinstance(node, ast.Constant) and isinstance(node.value, str) else None


def texts_in(source: str, name: str) -> list[Text]:
    """Strings of a module that read as words; docstrings are not among them."""
    tree = ast.parse(source)
    inside = {id(v) for n in ast.walk(tree) if isinstance(n, ast.JoinedStr) for v in n.values} | _docstrings(tree)
    found = []
    for node in ast.walk(tree):
        text = None if id(node) in inside else _said(node)
        if text and " " in text.strip() and re.search(r"[a-z]{3}", text):
            found.append((f"{name}:{getattr(node, 'lineno', 0)}", text))
    return found


@cache
def of_core() -> tuple[Text, ...]:
    src = ROOT / "src" / "fenwa"
    paths = [p for layer in SPOKEN for p in (src / layer).rglob("*.py") if "migrations" not in p.parts]
    return tuple(t for p in paths for t in texts_in(p.read_text("utf-8"), str(p.relative_to(src))))


@cache
def not_said() -> tuple[str, ...]:
    """The phrases under “Not” of every table."""
    rows = re.findall(r"^\|[^|]+\|[^|]+\|([^|]+)\|$", (ROOT / "docs" / "words.md").read_text("utf-8"), re.MULTILINE)
    return tuple(w.strip() for row in rows for w in row.split(",") if w.strip() not in ("Not", "") and "---" not in w)


def found_in(texts: tuple[Text, ...], verbs: bool = True) -> list[str]:
    """Phrases that are not said, with their text; ``verbs``: those of buttons too."""
    said = [p for p in not_said() if verbs or not p[0].isupper()]
    # a verb begins with a capital and is looked for as it stands: it names a button or begins a sentence
    either = "|".join(rf"\b{re.escape(p)}\b" if p[0].isupper() else rf"(?i:\b{re.escape(p)}\b)" for p in said)
    banned = re.compile(either)
    return [f"{where}: {hit[0]!r} in {text[:100]!r}" for where, text in texts if (hit := banned.search(text))]


def test_the_list_is_read() -> None:
    assert {"Keep it", "Back out", "Let it go", "Put aside", "roof"} <= set(not_said())
    assert found_in((("here", "Press Back out to leave"),)), "a phrase in a text is found"
    assert texts_in('"""Keep it."""\nX = f"Keep it {1} now"\n', "m") == [("m:2", "Keep it {} now")]


def test_texts_of_the_interface_use_the_vocabulary() -> None:
    texts = of_interface()
    assert len(texts) > 2000
    assert found_in(texts) == []


def test_sentences_of_the_core_use_the_vocabulary() -> None:
    texts = of_core()
    assert len(texts) > 2000
    assert found_in(texts, verbs=False) == []


@pytest.mark.parametrize("texts", [of_interface, of_core], ids=["interface", "core"])
def test_a_sentence_says_one_thought_and_is_punctuated(texts) -> None:  # type: ignore[no-untyped-def]
    wrong = []
    for where, text in texts():
        if re.search(r"SELECT |PRAGMA|\n|^0 0|,\{\},|µS/cm,,", text):  # of the database, a style, an example file
            continue
        longest = max(len(s.split()) for s in re.split(r"[.?!:;]\s", text))
        if longest > MOST_WORDS or re.search(r"\?\.|\.\.(?!\.)(?<!\.\.\.)|,,| ,|!$", text):
            wrong.append(f"{where}: {text[:120]}")
    assert wrong == []


def test_a_form_is_saved_by_a_standard_verb() -> None:
    verbs = (
        "Save|Add|Edit|Import|Export|Delete|Archive|Begin|Plan|Send|Close|Count|Print|Log|Undo|Divide|Repot|Move|Merge"
    )
    source = [(p, p.read_text("utf-8")) for p in (ROOT / "web" / "src").rglob("*.tsx") if ".test." not in p.name]
    labels = [(p.name, label) for p, text in source for label in re.findall(r'submit="([^"]+)"', text)]
    assert len(labels) > 20
    assert [x for x in labels if not re.match(rf"({verbs})\b", x[1])] == []


QUANTITY = re.compile(r"uS_cm|night_C|minimum_C|volume_L|left_L")
UNIT = re.compile(r"(?:(?: to | and | or | against | of at most ){})*(?: (?:µS/cm|mS/cm|°C|L\b|mL\b)| °C)")


def unsaid(path: Path) -> list[str]:
    """Quantities with a unit of the reader's choice that a sentence of this module states without one."""
    out = []
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        values = node.values if isinstance(node, ast.JoinedStr) else []
        for i, value in enumerate(values):
            if not isinstance(value, ast.FormattedValue) or value.format_spec is None:
                continue
            rest = "".join(str(x.value) if isinstance(x, ast.Constant) else "{}" for x in values[i + 1 :])
            said = ast.unparse(value.value)
            scaled = re.search(r"[*/]", said)  # a share or millilitres: not the quantity itself
            if QUANTITY.search(said) and not scaled and not UNIT.match(rest):
                out.append(f"{path.name}:{node.lineno} {said}")
    return out


@pytest.mark.parametrize(
    "path", [p for package in SPOKEN for p in sorted((ROOT / "src" / "fenwa" / package).rglob("*.py"))], ids=str
)
def test_a_quantity_in_a_sentence_carries_its_unit(path: Path) -> None:
    """Without it the reader's own unit is not put in its place: 0.5 mS/cm would stand beside 300."""
    assert unsaid(path) == []


@pytest.mark.parametrize(
    ("line", "found"),
    [
        ("f'over {x.ceiling_uS_cm:.0f}.'", 1),
        ("f'over {x.ceiling_uS_cm:.0f} µS/cm.'", 0),
        ("f'{a_uS_cm:.0f} to {b_uS_cm:.0f} of at most {c_uS_cm:.0f} µS/cm'", 0),
        ("f'{a_uS_cm:.0f}, of {b_uS_cm:.0f} µS/cm'", 1),
        ("f'{1000 * x.volume_L:.0f} mL'", 0),
    ],
)
def test_a_quantity_without_its_unit_is_found(tmp_path: Path, line: str, found: int) -> None:
    module = tmp_path / "said.py"
    module.write_text(line, "utf-8")
    assert len(unsaid(module)) == found
