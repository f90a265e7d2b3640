"""Paper and spruce: colors by role in a light and a dark variant, the typeface, the style sheet."""

from __future__ import annotations

from dataclasses import dataclass, fields

from PyQt6.QtGui import QColor, QFont, QFontDatabase, QPalette
from PyQt6.QtWidgets import QApplication, QWidget

from tall_plank import assets
from tall_plank.measure.remembered import lasting

FAMILY = "Source Sans 3"


@dataclass(frozen=True)
class Colors:
    """sRGB by role. Text roles hold 4.5:1 on paper and sheet (WCAG 2.2)."""

    paper: str
    sheet: str
    ink: str
    quiet: str
    rule: str
    spruce: str
    spruce_pale: str
    on_spruce: str
    brass: str
    oxide: str
    oxide_pale: str
    moss: str
    hover: str
    model: str


LIGHT = Colors(
    paper="#F5F2EC",
    sheet="#FFFFFF",
    ink="#23282B",
    quiet="#636A6E",
    rule="#D9D3C7",
    spruce="#2E6A5A",
    spruce_pale="#E5EFE9",
    on_spruce="#FFFFFF",
    brass="#8F6114",
    oxide="#A8402E",
    oxide_pale="#F7E6E1",
    moss="#45722F",
    hover="#ECE7DC",
    model="#ECEAE4",
)
DARK = Colors(
    paper="#23282B",
    sheet="#1B1F22",
    ink="#ECE8DF",
    quiet="#A9B0B3",
    rule="#42494D",
    spruce="#7CC0A8",
    spruce_pale="#2A3F39",
    on_spruce="#15201C",
    brass="#D9A54A",
    oxide="#E89480",
    oxide_pale="#43302C",
    moss="#97C27F",
    hover="#2E3438",
    model="#2A2E31",
)

TONES_DARK = {
    "wall": "#24292C", "masonry": "#4A4A45", "floor": "#1B1F22", "opening": "#30363A", "glass": "#3A4A52",
    "door": "#3A3833", "inside": "#35322B", "unit": "#2C3134", "appliance": "#34383A", "basin": "#35424A",
    "ink": "#0F1112", "board": "#5A4F3A", "offcut": "#2D2B27", "column": "#34342F", "niche": "#2A2C2C",
    "ceiling": "#2B2E2E", "fault": "#7A4034",
}  # fmt: skip


class Theme:
    """The colors in force. One object for the program; `apply` switches it."""

    colors: Colors = LIGHT
    dark: bool = False
    roles: dict[str, QColor] = {}
    """Role -> its color; never changed, only copied."""

    @classmethod
    def put(cls, colors: Colors, *, dark: bool) -> None:
        """Put colors in force."""
        cls.colors, cls.dark = colors, dark
        cls.roles = {field.name: QColor(getattr(colors, field.name)) for field in fields(Colors)}

    @classmethod
    def color(cls, role: str) -> QColor:
        """A new color of a role, so that a caller may change its alpha."""
        return QColor(cls.roles[role])


Theme.put(LIGHT, dark=False)


def load_fonts() -> None:
    """Load the shipped face, so that no system font is needed."""
    for path in (assets.REGULAR, assets.SEMIBOLD, assets.BOLD, assets.ITALIC):
        QFontDatabase.addApplicationFont(str(path))


@lasting
def font(pixels: int = 13, *, bold: bool = False, italic: bool = False) -> QFont:
    """The face at a size; figures are tabular so that columns line up."""
    made = QFont(FAMILY)
    made.setPixelSize(pixels)
    made.setItalic(italic)
    if bold:
        made.setWeight(QFont.Weight.DemiBold)
    made.setFeature(QFont.Tag("tnum"), 1)
    return made


def apply(app: QApplication, *, dark: bool) -> None:
    """Put a variant in force."""
    Theme.put(DARK if dark else LIGHT, dark=dark)
    c = Theme.colors
    app.setStyle("Fusion")
    app.setFont(font())
    palette = QPalette()
    for role, color in (
        (QPalette.ColorRole.Window, c.paper),
        (QPalette.ColorRole.Base, c.sheet),
        (QPalette.ColorRole.AlternateBase, c.paper),
        (QPalette.ColorRole.Button, c.paper),
        (QPalette.ColorRole.Text, c.ink),
        (QPalette.ColorRole.WindowText, c.ink),
        (QPalette.ColorRole.ButtonText, c.ink),
        (QPalette.ColorRole.ToolTipBase, c.sheet),
        (QPalette.ColorRole.ToolTipText, c.ink),
        (QPalette.ColorRole.PlaceholderText, c.quiet),
        (QPalette.ColorRole.Highlight, c.spruce),
        (QPalette.ColorRole.HighlightedText, c.on_spruce),
        (QPalette.ColorRole.Link, c.spruce),
    ):
        palette.setColor(role, QColor(color))
    app.setPalette(palette)
    sheet = style_sheet(c)
    if app.styleSheet() != sheet:  # every widget of every window is dressed again, which takes a while
        app.setStyleSheet(sheet)


def style_sheet(c: Colors) -> str:
    """The style sheet of a variant; `@role` stands for a color."""
    text = SHEET
    for item in sorted(fields(c), key=lambda f: -len(f.name)):
        text = text.replace(f"@{item.name}", getattr(c, item.name))
    return text.replace("ICONS", assets.ICONS.as_posix())


SHEET = """
QWidget { color: @ink; }
QMainWindow, QDialog { background: @paper; }
QMenuBar { background: @paper; border-bottom: 1px solid @rule; padding: 0 6px; }
QMenuBar::item { padding: 3px 9px; background: transparent; border-radius: 3px; }
QMenuBar::item:selected { background: @hover; }
QMenu { background: @sheet; border: 1px solid @rule; padding: 4px; }
QMenu::item { padding: 4px 24px 4px 14px; border-radius: 3px; }
QMenu::item:selected { background: @spruce_pale; }
QMenu::item:disabled { color: @quiet; }
QMenu::separator { height: 1px; background: @rule; margin: 4px 8px; }
QToolTip { background: @sheet; color: @ink; border: 1px solid @rule; padding: 4px; }
QLineEdit, QPlainTextEdit { background: @sheet; border: 1px solid @rule; border-radius: 4px; padding: 3px 7px;
  selection-background-color: @spruce; selection-color: @on_spruce; }
QLineEdit:focus { border: 1px solid @spruce; }
#columnsButton::menu-indicator { image: none; width: 0; }
QLineEdit[wrong="true"] { border: 1px solid @oxide; background: @oxide_pale; }
QPushButton { background: @sheet; border: 1px solid @rule; border-radius: 4px; padding: 4px 12px; }
QPushButton:hover { background: @hover; }
QPushButton:focus { border: 1px solid @spruce; }
QPushButton:default { border: 1px solid @spruce; }
QPushButton:disabled { color: @quiet; }
#jobBar { background: @paper; border-bottom: 1px solid @rule; }
#jobName { font-weight: 600; font-size: 16px; border: 0; background: transparent; padding: 2px 4px; }
#roomName { color: @quiet; border: 0; background: transparent; padding: 3px 4px; }
QCheckBox { min-height: 24px; }
#roomName:hover, #jobName:hover { background: @hover; }
#stage { border: 0; border-bottom: 3px solid transparent; border-radius: 0; background: transparent;
  padding: 9px 15px 7px 15px; color: @quiet; }
#stage:focus { outline: 0; }
#stage:hover { color: @ink; background: transparent; }
#stage:focus { color: @ink; }
#stage:checked { color: @ink; font-weight: 600; border-bottom: 3px solid @spruce; }
#shelf, #shelfBody { background: @paper; border: 0; }
#shelf QListView { background: @paper; border: 0; outline: 0; font-size: 12px; }
#shelf QListView::item { padding: 0; border-radius: 4px; }
#shelf QListView::item:selected { background: @spruce_pale; color: @ink; }
#shelf QListView::item:hover { background: @hover; }
#shelfHead { color: @quiet; font-size: 12px; font-weight: 600; padding: 6px 0 1px 2px; }
#listing { background: @paper; border: 0; outline: 0; }
#listing::item { padding: 5px 8px; border-radius: 4px; }
#listing::item:selected { background: @spruce_pale; color: @ink; }
#listing::item:hover { background: @hover; }
#words { background: @sheet; border: 1px solid @rule; outline: 0; padding: 3px; }
#words::item { padding: 4px 9px; min-height: 18px; border-radius: 3px; }
#words::item:selected { background: @spruce_pale; color: @ink; }
#spec { background: @sheet; border: 0; }
#specBody { background: @sheet; }
#specTitle { font-size: 16px; font-weight: 600; }
#specSub { color: @quiet; font-size: 12px; }
#specGroup { color: @quiet; font-size: 11px; font-weight: 600; border-bottom: 1px solid @rule; padding: 9px 0 2px 0; }
#specLabel { color: @ink; }
#specNote { color: @quiet; font-size: 12px; }
#specSub[wrong="true"] { color: @oxide; }
#specError { color: @oxide; font-size: 12px; }
#boxError { color: @oxide; background: @oxide_pale; border: 1px solid @oxide; border-radius: 4px; font-size: 12px;
  padding: 3px 6px; }
#specValue { border: 1px solid transparent; background: transparent; padding: 1px 5px; border-radius: 3px; }
#specValue:hover { border: 1px solid @rule; background: @sheet; }
#specValue:focus { border: 1px solid @spruce; background: @sheet; }
#specValue[origin="own"] { border: 1px solid @spruce; background: @sheet; }
#specValue[origin="inherited"] { color: @quiet; font-style: italic; }
#specValue[origin="various"] { color: @brass; font-style: italic; }
#specValue[wrong="true"] { border: 1px solid @oxide; background: @oxide_pale; color: @ink; }
QPushButton#specValue { text-align: right; padding: 1px 8px 1px 4px; }
QPushButton#specValue::menu-indicator { image: none; width: 9px; }
#revert { border: 0; color: @spruce; background: transparent; padding: 0 2px; }
#revert:hover { background: @hover; }
#tally { background: @paper; border-top: 1px solid @rule; }
#tallyFigure { border: 0; background: transparent; padding: 4px 9px; border-radius: 4px; }
#tallyFigure:hover { background: @hover; }
#tallyFigure:focus { background: @hover; border: 0; }
#message { border-top: 1px solid @rule; background: @sheet; }
#message[level="wrong"] { background: @oxide_pale; }
#message QLabel { color: @ink; }
#message[level="wrong"] QLabel { color: @oxide; }
#pane { background: @sheet; }
#paneName { color: @quiet; background: transparent; }
#runText { background: @spruce_pale; border-top: 1px solid @rule; }
QTableView { background: @sheet; border: 0; gridline-color: transparent; outline: 0;
  selection-background-color: @spruce_pale; selection-color: @ink; alternate-background-color: @sheet; }
QTableView::item { padding: 3px 8px; border-bottom: 1px solid @rule; }
QHeaderView::section { background: @sheet; color: @quiet; font-weight: 600; border: 0;
  border-bottom: 1px solid @ink; padding: 4px 8px; }
QScrollBar:vertical { background: transparent; width: 10px; }
QScrollBar:horizontal { background: transparent; height: 10px; }
QScrollBar::handle { background: @rule; border-radius: 4px; min-height: 24px; min-width: 24px; margin: 2px; }
QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
QScrollBar::add-page, QScrollBar::sub-page { background: transparent; }
QScrollArea { border: 0; background: transparent; }
QDialogButtonBox { dialogbuttonbox-buttons-have-icons: 0; }
QComboBox::drop-down { border: 0; width: 22px; }
QComboBox::down-arrow { image: url(ICONS/down.svg); width: 12px; height: 12px; }
QComboBox { background: @sheet; border: 1px solid @rule; border-radius: 4px; padding: 3px 8px; }
QComboBox QAbstractItemView { background: @sheet; border: 1px solid @rule; selection-background-color: @spruce_pale;
  selection-color: @ink; }
QCheckBox:disabled, QRadioButton:disabled { color: @quiet; }
"""


def restyle(widget: QWidget) -> None:
    """Let the style sheet see a changed property."""
    style = widget.style()
    assert style is not None
    style.unpolish(widget)
    style.polish(widget)
