"""Barcodes as modules: Code 128 (ISO/IEC 15417), encoded by reportlab, and QR (ISO/IEC 18004), encoded by
segno."""

from __future__ import annotations

from tall_plank.measure.remembered import remembered

QUIET = 10
"""Modules left free on either side of a Code 128 symbol (ISO/IEC 15417)."""


@remembered(4096)
def code128(text: str) -> tuple[int, ...]:
    """Widths of bars and spaces in modules, a bar first.

    Raises
    ------
    ValueError for characters that the code does not hold
    """
    from reportlab.graphics.barcode.code128 import Code128

    if not text or any(not 32 <= ord(c) < 127 for c in text):
        raise ValueError("a barcode holds plain characters only")
    code = Code128(text)
    code.validate()
    code.encode()
    code.decompose()
    return tuple("abcdefgh".index(letter.lower()) + 1 for letter in code.decomposed)


def code128_values(text: str) -> tuple[int, ...]:
    """Symbol values with start, check symbol and stop."""
    from reportlab.graphics.barcode.code128 import Code128

    code = Code128(text)
    code.validate()
    code.encode()
    return tuple(code.encoded)


@remembered(4096)
def qr(text: str) -> tuple[tuple[bool, ...], ...]:
    """Rows of a QR symbol, dark modules true; error correction M."""
    import segno

    code = segno.make_qr(text, error="m", boost_error=False)
    return tuple(tuple(bool(m) for m in row) for row in code.matrix)
