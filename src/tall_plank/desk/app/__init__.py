"""The application: window, commands, menus, messages, job bar, tally."""
