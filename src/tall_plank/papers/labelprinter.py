"""A simulated label printer: a folder that it prints pictures into, one a label, in the order they are asked for."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from tall_plank.formats.writing import put
from tall_plank.measure import PlankError
from tall_plank.measure.filenames import file_name
from tall_plank.papers.labels import Label, label_picture


class LabelPrinter:
    """Prints into a folder, and counts on from what lies there."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder

    def print_labels(self, labels: Sequence[Label]) -> list[Path]:
        """Print labels.

        Raises
        ------
        PlankError where the folder cannot be written
        """
        try:
            self.folder.mkdir(parents=True, exist_ok=True)
            start = 1 + max((int(p.stem[:5]) for p in self.folder.glob("*.png") if p.stem[:5].isdigit()), default=0)
            done = []
            for number, label in enumerate(labels, start):
                path = self.folder / f"{number:05d} {file_name(label.part)}.png"
                put(path, label_picture(label))
                done.append(path)
        except OSError as error:
            what = f"The labels cannot be printed ({error.strerror})."
            raise PlankError(what, str(self.folder), "Choose another folder.") from None
        return done
