"""What board and tool ask of a design before anything is cut: parts as built in, findings out."""
