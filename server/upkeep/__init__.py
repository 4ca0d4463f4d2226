"""Keeping a workshop’s data sound: backups, checks, health, and what is done each hour and each day."""
