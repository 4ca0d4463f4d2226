"""Benchmarks use the app and the browser that browser tests use too."""

from browser_fixtures import app, browser, page, tray  # noqa: F401
