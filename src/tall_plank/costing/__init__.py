"""What the job costs, and from cost to price. Money is Decimal; rounding is half up to the cent, line by line."""

from tall_plank.costing.cost import CostLine, Costs, job_costs
from tall_plank.costing.price import Price, job_price

__all__ = ["CostLine", "Costs", "Price", "job_costs", "job_price"]
