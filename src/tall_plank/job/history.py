"""Undo and redo: the list of jobs with the names of the steps. A drag is one step."""

from __future__ import annotations

from dataclasses import dataclass

from tall_plank.job.job import Job


@dataclass(frozen=True)
class Step:
    """A job and the name of the step that led to it."""

    name: str
    job: Job


class History:
    """The steps of one job. The only mutable thing of the core; holds values that are never changed."""

    def __init__(self, job: Job) -> None:
        self._steps = [Step("", job)]
        self._at = 0
        self._saved: Job | None = job
        self._open: str | None = None
        self._redo_kept: list[Step] = []

    @property
    def job(self) -> Job:
        return self._steps[self._at].job

    @property
    def can_undo(self) -> bool:
        return self._at > 0

    @property
    def can_redo(self) -> bool:
        return self._at + 1 < len(self._steps)

    @property
    def undo_name(self) -> str:
        return self._steps[self._at].name if self.can_undo else ""

    @property
    def redo_name(self) -> str:
        return self._steps[self._at + 1].name if self.can_redo else ""

    @property
    def names(self) -> tuple[str, ...]:
        """Names of all steps that can be undone, oldest first."""
        return tuple(step.name for step in self._steps[1 : self._at + 1])

    @property
    def is_saved(self) -> bool:
        return self._saved is self.job or self._saved == self.job

    def mark_saved(self) -> None:
        self._saved = self.job

    def mark_unsaved(self) -> None:
        """The job has no file that holds it, as after a recovery."""
        self._saved = None

    def do(self, name: str, job: Job) -> bool:
        """Record a step; a step that changes nothing is not recorded. Inside a drag it replaces the drag's step."""
        if self._open is not None:
            self._steps[self._at] = Step(name, job)
            return True
        if job == self.job:
            return False
        del self._steps[self._at + 1 :]
        self._steps.append(Step(name, job))
        self._at += 1
        return True

    def begin(self, name: str) -> Job:
        """Start a drag: all steps until `end` count as one. Returns the job it starts from."""
        if self._open is None:
            start = self.job
            self._redo_kept = self._steps[self._at + 1 :]
            del self._steps[self._at + 1 :]
            self._steps.append(Step(name, start))
            self._at += 1
            self._open = name
        return self._steps[self._at - 1].job

    def end(self, *, keep: bool = True) -> None:
        """End a drag; one that changed nothing, or is not kept, leaves no step and keeps what could be redone."""
        if self._open is None:
            return
        self._open = None
        if not keep or self._steps[self._at].job == self._steps[self._at - 1].job:
            self._steps.pop()
            self._at -= 1
            self._steps.extend(self._redo_kept)
        self._redo_kept = []

    def undo(self) -> str:
        """Go one step back; returns the name of the step undone, empty where there is none."""
        self.end()
        name = self.undo_name
        if self.can_undo:
            self._at -= 1
        return name

    def redo(self) -> str:
        """Go one step forward; returns its name, empty where there is none."""
        self.end()
        name = self.redo_name
        if self.can_redo:
            self._at += 1
        return name
