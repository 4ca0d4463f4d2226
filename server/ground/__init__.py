"""What every app of the server stands on: problems, failures, logs, the data folder, threads, and what the process may hold."""
