"""What the window works on, apart from any view: the open job with its selection, long tasks, what a sheet says."""
