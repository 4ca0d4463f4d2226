"""One file a joint: an edge and its measures in; what each member keeps out."""
