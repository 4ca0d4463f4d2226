"""A job’s ways out and back in: its files, what is in them, their proof, its papers, and the job itself packed."""
