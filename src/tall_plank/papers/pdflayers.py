"""Layers of a PDF (optional content, PDF 1.5): what belongs to one kind of thing can be switched off in a reader. Our
PDF library has pages and bookmarks but no layers; this adds the few objects that they need."""

from __future__ import annotations

from typing import Any


class Layers:
    """The layers of one file, made as they are first drawn on.

    Parameters
    ----------
    canvas : a reportlab canvas, before its first page
    """

    def __init__(self, canvas: Any) -> None:
        from reportlab.pdfbase import pdfdoc

        self.canvas, self.pdf = canvas, pdfdoc
        self.references: dict[str, Any] = {}
        self._now = ""
        self._add_page = canvas._doc.addPage
        canvas._doc.addPage = self._with_layers

    def draw_on(self, layer: str) -> None:
        """What is drawn from here on belongs to a layer; empty: to none."""
        if layer == self._now:
            return
        if self._now:
            self.canvas._code.append("EMC")
        self._now = layer
        if layer:
            self.canvas._code.append(f"/OC /{self._key(layer)} BDC")

    def _key(self, layer: str) -> str:
        if layer not in self.references:
            group = self.pdf.PDFDictionary(
                {"Type": self.pdf.PDFName("OCG"), "Name": self.pdf.PDFString(layer.capitalize())}
            )
            self.references[layer] = self.canvas._doc.Reference(group)
        return f"L{list(self.references).index(layer)}"

    def _with_layers(self, page: Any) -> Any:
        """A page whose resources name the layers, and its images as usual."""
        resources = self.pdf.PDFResourceDictionary()
        resources.basicFonts()
        resources.allProcs() if page.hasImages else resources.basicProcs()
        if page.XObjects:
            resources.XObject = page.XObjects
        resources.Properties = {self._key(layer): ref for layer, ref in self.references.items()}
        page.Resources = resources
        return self._add_page(page)

    def close(self) -> None:
        """Name the layers for the file as a whole: all of them are shown."""
        catalog = self.canvas._doc.Catalog
        every = self.pdf.PDFArray(list(self.references.values()))
        shown = self.pdf.PDFDictionary({"Order": every, "ON": every, "Name": self.pdf.PDFString("All")})
        catalog.OCProperties = self.pdf.PDFDictionary({"OCGs": every, "D": shown})
        catalog.__NoDefault__ = [*catalog.__NoDefault__, "OCProperties"]
