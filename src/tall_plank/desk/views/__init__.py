"""What draws and is worked on by hand: strip, plan, model, run lines, tables, the picking shelf."""
