"""Gardens, their beds and structures."""

from django.apps import AppConfig


class GardensConfig(AppConfig):
    """Gardens; its system check reads all tables of the core."""

    name = "gardens"

    def ready(self) -> None:
        """Register the checks and the signals."""
        from . import checks, signals  # noqa: F401, PLC0415 - registered once the apps are loaded
