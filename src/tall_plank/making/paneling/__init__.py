"""What covers walls, as parts: boards, frames and panels, slats, battens."""
