"""Third-party notices into the built page: whose work is in it, under which terms, with their texts.

python scripts/write_notices.py     after the page is built; the file goes where the page's assets are
"""

from __future__ import annotations

import importlib.metadata
import json
import re
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
TARGET = ROOT / "src/ausblick/web/static/assets/third-party-notices.txt"
LICENCE_FILE = re.compile(r"(?i)(un)?licen[cs]e|notice|copying")
IN_PAGE = (
    "@fontsource-variable/archivo",
    "@lucide/svelte",
    "d3-array",
    "d3-color",
    "d3-format",
    "d3-interpolate",
    "d3-path",
    "d3-scale",
    "d3-shape",
    "d3-time",
    "d3-time-format",
    "daisyui",
    "internmap",
    "openapi-fetch",
    "regexparam",
    "svelte",
    "svelte-spa-router",
    "tailwindcss",
)
"""What the built page has parts of."""
CODECS = """\
The package av (PyAV) brings FFmpeg and codec libraries in its wheels: among them x264 and x265, which are under
the GNU General Public License, version 2 or later, and LAME, Opus, libvpx, dav1d, SVT-AV1 and others under
terms of their own. This program is used with them as they are installed from the package registry; it does not
contain them. Whoever bundles this program together with those wheels passes on a work with GPL parts and has to
meet that licence (offer the sources, keep the notices), and looks after the patents on H.264 and H.265 where
they are in force; or builds PyAV against an FFmpeg without x264 and x265 (clips are still read then, H.264
recordings of the stand-in are not written). OpenCV's wheels likewise bring FFmpeg (LGPL) and others; their
texts are in the package."""


def main() -> None:
    parts = ["Third-party notices of Ausblick", "", "Codec libraries", "---------------", CODECS, ""]
    for name, version, terms, texts in (*_page(), *_fonts(), *_python()):
        parts += [f"{name} {version}", "=" * (len(name) + len(version) + 1), terms, "", *texts, ""]
    TARGET.parent.mkdir(parents=True, exist_ok=True)
    TARGET.write_text("\n".join(parts), encoding="utf-8")


def _page() -> Iterator[tuple[str, str, str, list[str]]]:
    for name in IN_PAGE:
        folder = ROOT / "web/node_modules" / name
        about = json.loads((folder / "package.json").read_text("utf-8"))
        files = sorted(
            file for file in folder.iterdir() if re.match(r"(?i)(un)?licen[cs]e|notice|copying", file.name)
        )
        texts = [file.read_text("utf-8").strip() for file in files]
        if not texts:
            # Some packages name their licence and its holder only in their description.
            texts = [f"Copyright: {_holder(about.get('author'))}"]
        yield name, about["version"], f"Licence: {about.get('license', 'see below')}", texts


def _fonts() -> Iterator[tuple[str, str, str, list[str]]]:
    """What the set sheet is printed with; a part of each font's characters is in the package."""
    text = (ROOT / "src/ausblick/formats/paper/fonts/LICENSE.txt").read_text("utf-8").strip()
    yield (
        "DejaVu Sans Condensed",
        "2.37",
        "Licence: Bitstream Vera and Arev font licences; changes public domain",
        [text],
    )


def _holder(author: object) -> str:
    return str(author.get("name", "")) if isinstance(author, dict) else str(author or "its authors")


def _python() -> Iterator[tuple[str, str, str, list[str]]]:
    pinned = re.findall(r"^([a-z0-9_.-]+)==", (ROOT / "requirements.txt").read_text("utf-8"), re.MULTILINE)
    for name in sorted(pinned):
        found = importlib.metadata.distribution(name)
        about = found.metadata
        terms = about.get("License-Expression") or about.get("License") or "see below"
        texts = []
        for file in found.files or ():
            if "dist-info" in str(file) and LICENCE_FILE.match(file.name):
                texts.append(Path(str(found.locate_file(file))).read_text("utf-8", errors="replace").strip())
        yield name, found.version, f"Licence: {terms.splitlines()[0]}", texts


if __name__ == "__main__":
    main()
