"""Sessions kept in the database and at hand in memory; where nothing can be written, in memory alone: who signs in then can look."""

from __future__ import annotations

from typing import Any

from django.contrib.sessions.backends import cached_db
from django.contrib.sessions.backends.base import UpdateError
from django.db import OperationalError


class SessionStore(cached_db.SessionStore):
    _cache: Any
    _session: Any

    def save(self, must_create: bool = False) -> None:
        try:
            super().save(must_create)
        except (OperationalError, UpdateError) as error:
            if isinstance(error, UpdateError) and not isinstance(error.__context__, OperationalError):
                raise  # it was ended meanwhile
            self._cache.set(self.cache_key, self._session, self.get_expiry_age())
