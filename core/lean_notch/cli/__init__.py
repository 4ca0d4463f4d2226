"""The command line: thin callers of the core, files and JSON in, files and JSON out."""
