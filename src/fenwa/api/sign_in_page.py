"""The one page the home network sees before the passphrase: no script, no picture, nothing of the collection."""

from __future__ import annotations

from html import escape

_PAGE = """<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Sign in · Fenwa</title>
<style>
:root {{ color-scheme: light dark; --bg: #f2f5f4; --panel: #fff; --fg: #15252b; --muted: #4b5f64; --line: #7f9295;
  --stop: #a11d1d; }}
@media (prefers-color-scheme: dark) {{
  :root {{ --bg: #10181b; --panel: #182327; --fg: #eef4f3; --muted: #b3c3c4; --line: #7c9196; --stop: #ffa8a0; }}
}}
body {{ margin: 0; background: var(--bg); color: var(--fg); font: 17px/1.45 sans-serif; }}
main {{ max-width: 440px; margin: 0 auto; padding: 32px 20px; }}
form {{ background: var(--panel); border: 1px solid var(--line); border-radius: 8px; padding: 20px; }}
label, input, button {{ display: block; width: 100%; box-sizing: border-box; font: inherit; }}
input {{ margin: 6px 0 16px; min-height: 52px; padding: 0 12px; border: 1px solid var(--line); border-radius: 6px;
background: var(--bg); color: inherit; }}
button {{ min-height: 60px; border: 0; border-radius: 6px; background: var(--fg); color: var(--panel); font-weight:
600; }}
:focus-visible {{ outline: 3px solid var(--fg); outline-offset: 2px; }}
p {{ color: var(--muted); }} .stop {{ color: var(--stop); }}
</style>
</head>
<body>
<main>
<h1>fenwa</h1>
<form method="post" action="/sign-in">
{problem}
<label for="passphrase">Passphrase of this house</label>
<input id="passphrase" name="passphrase" type="password" autocomplete="current-password" required autofocus>
<button type="submit">Come in</button>
</form>
<p>{note}</p>
</main>
</body>
</html>
"""


def sign_in_page(note: str, problem: str = "") -> str:
    """The page with a sentence below and, after a wrong guess, one above."""
    said = f'<p class="stop" role="alert">{escape(problem)}</p>' if problem else ""
    return _PAGE.format(problem=said, note=escape(note))
