"""Papers written beside the window: the message line shows the file in work with a Stop; what is written stays."""

from __future__ import annotations

from datetime import date
from pathlib import Path

from tall_plank.desk.app.messages import MessageLine
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.tasks import InThread, Tell
from tall_plank.files.record import of_others
from tall_plank.job import Job
from tall_plank.workings import Workings


def run_package(document: Document, message: MessageLine, folder: Path) -> InThread:
    """Start writing every paper of the job into a folder."""
    from tall_plank import package  # not before it is asked for: the window is up sooner

    works = Workings(document.job, document.machines)

    def work(tell: Tell) -> int:
        count = 0

        def progress(name: str) -> bool:
            nonlocal count
            going = tell(name)
            # What is told of a file in work is no further file.
            count += going and ": " not in name
            return going

        return max(count, len(package.write_package(works, folder, progress, date.today().isoformat())))

    task = InThread(work, document)
    question = message.ask(tr("Writing the package"), {tr("Stop"): task.stop})
    task.told.connect(lambda name: message.go_on(question, f"{tr('Writing')} {name}"))

    def end(text: str, level: str) -> None:
        message.answered(question)
        message.tell(text, level)

    def written(count: int) -> None:
        told = f"{count} {tr('files written into')} {folder.name}"
        end(". ".join(filter(None, (told, of_others(folder, works.title)))), "note")

    task.ended.connect(written)
    task.failed.connect(lambda why: end(why, "wrong"))
    task.start()
    return task


def settle_bars(job: Job) -> InThread:
    """Look for the least bars of a job; what is found is remembered by what is worked out from the job."""

    def work(_: Tell) -> object:
        return Workings(job).bars

    return InThread(work)
