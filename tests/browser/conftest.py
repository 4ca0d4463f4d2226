"""Browser tests use the app and the browser that benchmarks use too."""

from browser_fixtures import app, browser, page, tray  # noqa: F401
