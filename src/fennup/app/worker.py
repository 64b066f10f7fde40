"""The worker: a process of its own beside the server, for what takes longer than one waits.

It is told over its standard input that there is something to do, and ends when that is closed: with the server.
"""

import logging
import signal
import subprocess
import sys
import threading
import time
from contextlib import suppress
from pathlib import Path
from typing import Any

from fennup.app.models.store import Store, Trouble, attach_store
from fennup.app.services import jobs
from fennup.app.services.work import WORK

LEAST_SECONDS = 0.1  # between two reports of how far it is
LOG = logging.getLogger("fennup.worker")


class NotWanted(Exception):
    """The job was cancelled."""


class Worker:
    """The process, as the server holds it: begun when something is first asked for, and again when it broke off."""

    def __init__(self, database: Path, store: Store) -> None:
        self._database, self._store = database, store
        self._ended, self._beginning = threading.Event(), threading.Lock()
        self._process: subprocess.Popen[bytes] | None = None
        with store.writing() as session:
            jobs.recover(session)  # a server that was killed took its worker with it
            waits = jobs.is_waiting(session)
        if waits:
            self.wake()

    @property
    def pid(self) -> int | None:
        """The process that is at work now; None until something is asked for."""
        return self._process.pid if self._process else None

    def wake(self) -> None:
        """Tell it that something was asked for."""
        with self._beginning:
            if self._process is None:
                self._process = self._begin()
                threading.Thread(target=self._watch, daemon=True).start()
                return
        assert self._process.stdin
        with suppress(OSError, ValueError):  # it broke off: the next one looks for itself
            self._process.stdin.write(b"\n")
            self._process.stdin.flush()

    def close(self) -> None:
        """End it."""
        self._ended.set()
        if self._process is None:
            return
        if self._process.stdin:
            self._process.stdin.close()
        try:
            self._process.wait(2.0)
        except subprocess.TimeoutExpired:
            self._process.kill()
            self._process.wait()

    def _begin(self) -> "subprocess.Popen[bytes]":
        return subprocess.Popen([sys.executable, "-m", "fennup.app.worker", str(self._database)], stdin=subprocess.PIPE)

    def _watch(self) -> None:
        """Begin it again whenever it ends unasked."""
        while self._process:
            self._process.wait()
            if self._ended.is_set():
                return
            with suppress(OSError):
                if self._process.stdin:
                    self._process.stdin.close()
            time.sleep(LEAST_SECONDS)
            try:
                with self._store.writing() as session:
                    jobs.recover(session)
                self._process = self._begin()
            except Trouble:
                LOG.warning("the worker cannot be begun again")
                return


def work(store: Store) -> bool:
    """Do the newest job that waits; whether there was one."""
    with store.reading() as session:
        if not jobs.is_waiting(session):
            return False
    with store.writing() as session:
        job = jobs.take_next(session)
    if job is None:
        return False
    said = [0.0]

    def report(progress: float, result: dict[str, Any] | None = None) -> None:
        if result is None and time.monotonic() - said[0] < LEAST_SECONDS:
            return
        said[0] = time.monotonic()
        with store.writing() as session:
            wanted = jobs.report(session, job.id, progress, result)
        if not wanted:
            raise NotWanted

    result = None
    try:
        result = WORK[job.type](job.given or {}, report)
    except NotWanted:
        return True
    except Exception:
        LOG.exception("job %s broke off", job.id)
    with store.writing() as session:
        jobs.finish(session, job.id, result)
    return True


def main(database: str) -> None:
    """Work until standard input is closed."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # Ctrl-C is meant for the server, with which it ends
    store, asked, ended = attach_store(Path(database)), threading.Event(), threading.Event()

    def listen() -> None:
        while sys.stdin.buffer.read(1):
            asked.set()
        ended.set()
        asked.set()

    threading.Thread(target=listen, daemon=True).start()
    while not ended.is_set():
        try:
            busy = work(store)
        except Trouble:
            busy = False
            ended.wait(1.0)
        if not busy:
            asked.wait(5.0)
            asked.clear()


if __name__ == "__main__":
    main(sys.argv[1])
