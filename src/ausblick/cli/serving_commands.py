"""Commands round the data folder: serve it, fill it with the demo, back it up, bring it back."""

from __future__ import annotations

import logging
from pathlib import Path
from typing import Any

import click

from .commands import FILE, BadInput, app

data_option = click.option("--data", type=FILE, metavar="DIR", help="Where set-ups and frames are kept.")
port_option = click.option(
    "--port", type=click.IntRange(0, 65535), default=8642, show_default=True, help="0 takes a free one."
)


watch_option = click.option(
    "--watch",
    "roots",
    type=FILE,
    multiple=True,
    metavar="DIR",
    help="Under which folders new frames may be watched for; may be given several times. "
    "Without it: the person's own Pictures, Movies and Videos.",
)
lan_option = click.option("--lan", is_flag=True, help="Let devices of this network in, by passcode; off by default.")
cert_option = click.option("--cert", type=FILE, metavar="FILE", help="A certificate of your own for --lan, PEM.")
key_option = click.option("--key", type=FILE, metavar="FILE", help="Its key.")
log_option = click.option(
    "--log",
    "level",
    type=click.Choice(["debug", "info", "warning", "error"]),
    default="warning",
    show_default=True,
    help="What is written on standard error. Names of people, plans and files are in none of it.",
)


def write_log(level: str) -> None:
    logging.basicConfig(level=level.upper(), format="%(asctime)s %(levelname)s %(name)s: %(message)s")


def _wishes(roots: tuple[Path, ...], lan: bool, cert: Path | None, key: Path | None) -> Any:
    from ausblick.web.serving import Wishes

    if (cert is None) != (key is None):
        raise BadInput("--cert and --key belong together")
    for file in (cert, key):
        if file is not None and not file.is_file():
            raise BadInput(f"{file}: is no file")
    return Wishes(roots, lan, None if cert is None or key is None else (cert, key))


@app.command()
@data_option
@port_option
@watch_option
@lan_option
@cert_option
@key_option
@log_option
def serve(data: Path | None, port: int, level: str, **wishes: Any) -> int:
    """Serve the web application on this machine."""
    write_log(level)
    from ausblick.web.serving import run

    return run(data, port, _wishes(**wishes))


@app.command()
@data_option
@port_option
@watch_option
@lan_option
@cert_option
@key_option
@log_option
def demo(data: Path | None, port: int, level: str, **wishes: Any) -> int:
    """Serve the web application with the demo data: the Fern House."""
    write_log(level)
    from ausblick.demo.fill import fill_demo_apart
    from ausblick.store.data_folder import demo_dir
    from ausblick.web.serving import run

    return run(data or demo_dir(), port, _wishes(**wishes), fill_demo_apart)


@app.command()
@click.argument("file", metavar="FILE", type=FILE)
@data_option
def backup(file: Path, data: Path | None) -> int:
    """Keep all set-ups, their states, frames, keys and plates in one archive. A server may be running."""
    from ausblick.store.backups import back_up
    from ausblick.store.data_folder import data_dir
    from ausblick.store.trouble import StoreTrouble

    try:
        count = back_up(data or data_dir(), file)
    except StoreTrouble as err:
        raise BadInput(str(err)) from None
    print(f"{file}: {count} files, {file.stat().st_size / 1e6:.1f} MB")
    return 0


@app.command()
@click.argument("file", metavar="FILE", type=FILE)
@data_option
def restore(file: Path, data: Path | None) -> int:
    """Bring back what `backup` kept, or one of the copies under backups/. What is there now is kept beside them."""
    from ausblick.store.backups import restore as bring_back
    from ausblick.store.data_folder import data_dir
    from ausblick.store.trouble import StoreTrouble

    place = data or data_dir()
    try:
        place.mkdir(parents=True, exist_ok=True)
        kept = bring_back(place, file)
    except StoreTrouble as err:
        raise BadInput(str(err)) from None
    except OSError as err:
        raise BadInput(f"{place}: {(err.strerror or 'cannot be written').lower()}") from None
    print(f"{place}: restored from {file}" + (f"; what was there is kept as {kept}" if kept else ""))
    return 0
