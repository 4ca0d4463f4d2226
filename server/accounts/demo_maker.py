"""The demo's own maker. They exist only where the demo was seeded."""

DEMO_NAME = "Wren"
DEMO_PASSWORD = "reedmere-demo"
