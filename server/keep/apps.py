"""The keep app."""

from django.apps import AppConfig


class KeepConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.keep"
    label = "keep"

    def ready(self) -> None:
        """What is due follows from a record as soon as it is closed, and from a line as soon as it is changed."""
        from django.db.models.signals import post_save

        from server.instruments.models import Bracket, Gauge, Wrench
        from server.jobs.models import Job
        from server.plant.models import Line, LineLook

        from .due import summary

        post_save.connect(summary.on_job, sender=Job, dispatch_uid="what is due after a record")
        post_save.connect(summary.on_line, sender=Line, dispatch_uid="what is due on a line")
        post_save.connect(summary.on_look, sender=LineLook, dispatch_uid="what is due after a round")
        for kind in (Bracket, Gauge, Wrench):
            post_save.connect(summary.on_instrument, sender=kind, dispatch_uid=f"calibration of a {kind.__name__}")
