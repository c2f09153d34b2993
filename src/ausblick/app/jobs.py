"""Work that takes longer than a breath: done beside the requests, with progress and cancel, a few results kept."""

from __future__ import annotations

import logging
import secrets
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field
from threading import Event, Lock, Thread
from typing import Any, Literal

from ausblick.store.setups import NotFound

from .turns import Busy, Turns
from .wanted import NoLongerWanted, still_wanted, wanted_until

log = logging.getLogger(__name__)
State = Literal["running", "done", "failed", "cancelled"]
KEPT = 4
AT_ONCE = 2
PATIENCE = 60.0
"""Seconds that an ending server waits for a step of a job to come to its end."""
UNEXPECTED = "The server met an error it did not expect; nothing stored was changed."


class TooMany(Exception):
    """More jobs than this machine should do at once."""


@dataclass
class Job:
    """`step` says what is being done; `result` whatever the work gave so far."""

    id: str
    turns: Turns
    state: State = "running"
    step: str = "waiting"
    problem: str = ""
    result: dict[str, Any] = field(default_factory=dict)
    _stop: Event = field(default_factory=Event)
    _thread: Thread | None = None

    def at(self, step: str) -> None:
        """Note what begins; raises NoLongerWanted. Between two steps whoever waits for a turn goes first."""
        still_wanted()
        self.turns.pass_on()
        self.step = step

    def cancel(self) -> None:
        self._stop.set()

    def join(self) -> None:
        if self._thread is not None:
            self._thread.join(PATIENCE)


class Jobs:
    """At most two at once, in turns with what requests compute; the last few stay readable."""

    def __init__(self, turns: Turns | None = None) -> None:
        self._turns = turns or Turns(AT_ONCE, AT_ONCE)
        self._jobs: OrderedDict[str, Job] = OrderedDict()
        self._lock = Lock()

    def start(self, work: Callable[[Job], None]) -> Job:
        """Raises TooMany."""
        with self._lock:
            if sum(job.state == "running" for job in self._jobs.values()) >= AT_ONCE:
                raise TooMany
            job = Job(secrets.token_hex(8), self._turns)
            self._jobs[job.id] = job
            while len(self._jobs) > KEPT:
                oldest = next(key for key, value in self._jobs.items() if value.state != "running")
                del self._jobs[oldest]
            job._thread = Thread(target=self._run, args=(job, work), daemon=True)
            job._thread.start()
        return job

    def get(self, ident: str) -> Job | None:
        with self._lock:
            return self._jobs.get(ident)

    def cancel(self) -> None:
        """Tell whatever runs that it is no longer wanted."""
        for job in list(self._jobs.values()):
            job.cancel()

    def close(self) -> None:
        """Cancel and wait: a thread inside compiled code takes an ending Python down with it."""
        self.cancel()
        for job in list(self._jobs.values()):
            job.join()

    @staticmethod
    def _run(job: Job, work: Callable[[Job], None]) -> None:
        try:
            with wanted_until(job._stop), job.turns.taken():
                work(job)
            job.state = "done"
        except NoLongerWanted:
            job.state = "cancelled"
        except Busy as err:
            job.problem, job.state = f"Too much is being worked on; {err}.", "failed"
        except NotFound:
            job.problem, job.state = "What it was for was removed meanwhile; nothing was changed.", "failed"
        except Exception as err:
            said = _said(err)
            if not said:
                log.exception("job %s at %r", job.id, job.step)
            job.problem, job.state = said or UNEXPECTED, "failed"
        else:
            log.info("job %s done", job.id)


def _said(err: Exception) -> str:
    """An error in its own words where they are ours, for whoever gave the plan or the file; a library's are not."""
    ours = isinstance(err, ValueError) and type(err).__module__.partition(".")[0] == __name__.partition(".")[0]
    return str(err) if ours else ""
