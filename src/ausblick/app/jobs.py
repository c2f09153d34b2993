"""Work that takes longer than a breath: done beside the requests, with progress and cancel, a few results kept."""

from __future__ import annotations

import logging
import secrets
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field
from threading import Event, Lock, Thread
from typing import Any, Literal

log = logging.getLogger(__name__)
State = Literal["running", "done", "failed", "cancelled"]
KEPT = 8
AT_ONCE = 2
PATIENCE = 60.0
"""Seconds that an ending server waits for a step of a job to come to its end."""


class Cancelled(Exception):
    """Raised inside a job when somebody no longer wants it."""


class TooMany(Exception):
    """More jobs than this machine should do at once."""


@dataclass
class Job:
    """`step` says what is being done; `result` whatever the work gave so far."""

    id: str
    state: State = "running"
    step: str = "waiting"
    problem: str = ""
    result: dict[str, Any] = field(default_factory=dict)
    _stop: Event = field(default_factory=Event)
    _thread: Thread | None = None

    def at(self, step: str) -> None:
        """Note what begins; raises Cancelled when the job is no longer wanted."""
        if self._stop.is_set():
            raise Cancelled
        self.step = step

    def cancel(self) -> None:
        self._stop.set()

    def join(self) -> None:
        if self._thread is not None:
            self._thread.join(PATIENCE)


class Jobs:
    """At most two at once; the last few stay readable."""

    def __init__(self) -> None:
        self._jobs: OrderedDict[str, Job] = OrderedDict()
        self._lock = Lock()

    def start(self, work: Callable[[Job], None]) -> Job:
        """Raises TooMany."""
        with self._lock:
            if sum(job.state == "running" for job in self._jobs.values()) >= AT_ONCE:
                raise TooMany
            job = Job(secrets.token_hex(8))
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

    def close(self) -> None:
        """Cancel whatever runs and wait for it: a thread inside compiled code takes an ending Python down with it."""
        with self._lock:
            jobs = list(self._jobs.values())
        for job in jobs:
            job.cancel()
        for job in jobs:
            job.join()

    @staticmethod
    def _run(job: Job, work: Callable[[Job], None]) -> None:
        try:
            work(job)
            job.state = "done"
        except Cancelled:
            job.state = "cancelled"
        except ValueError as err:
            job.problem, job.state = str(err), "failed"
        except Exception:
            log.exception("job %s at %r", job.id, job.step)
            job.problem, job.state = "The server met an error it did not expect.", "failed"
        else:
            log.info("job %s done", job.id)
