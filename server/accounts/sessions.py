"""Sessions kept in the database and at hand in memory; where nothing can be written, in memory alone: who signs in then can look."""

from __future__ import annotations

from django.contrib.sessions.backends import cached_db
from django.db import DatabaseError


class SessionStore(cached_db.SessionStore):
    def save(self, must_create: bool = False) -> None:
        try:
            super().save(must_create)
        except DatabaseError:
            self._cache.set(self.cache_key, self._session, self.get_expiry_age())
