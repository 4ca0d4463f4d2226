"""One file a format and a direction. Writers know cut plans; readers know files; neither knows the other."""
