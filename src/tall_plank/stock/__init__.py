"""What can be bought: boards, edging, fittings, finishes, appliances, and price books; models and loading."""

from tall_plank.stock.library import Stock, load_stock, shipped_stock
from tall_plank.stock.models import Appliance, Board, Edging, Finish, Fitting, PriceBook, PriceRow, Profile

__all__ = [
    "Appliance",
    "Board",
    "Edging",
    "Finish",
    "Fitting",
    "PriceBook",
    "PriceRow",
    "Profile",
    "Stock",
    "load_stock",
    "shipped_stock",
]
