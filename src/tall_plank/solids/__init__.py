"""Parts, units and rooms as solids, boxes and prisms: what the model, the drawings and the files look at."""
