"""Every named step a user can take, as a function from job to job. None changes what it is given."""

from tall_plank.edits.change import Change

__all__ = ["Change"]
