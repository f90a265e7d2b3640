"""One step of a format a file; what a step adds lies beside in `data/`, as it was when the step was made."""
