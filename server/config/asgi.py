"""The server's entry for uvicorn."""

import gc
import os
import threading

from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
application = get_asgi_application()


def _warm_up() -> None:
    """Imports what the first edit would wait for; then takes all that out of the collector's rounds.

    A full round over the imported libraries takes 60 ms, which an edit of a large job would otherwise meet.
    """
    import ezdxf  # noqa: F401
    import lxml.etree  # noqa: F401
    import shapely  # noqa: F401
    from lean_notch.lettering import FONTS, glyph

    for font in FONTS:
        glyph(font, "A", 10.0)
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 100)


threading.Thread(target=_warm_up, daemon=True).start()
