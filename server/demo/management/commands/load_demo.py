"""Loads Quillmere Maltings, once."""

import secrets

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from django.utils import timezone

from server.accounts.models import Site
from server.demo.build import SITE, build_demo

PASSWORD_FILE = settings.STATE / "demo.password"


class Command(BaseCommand):
    """The demo's password is made here, on first use, and kept outside the repository."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """`--first-start-only` leaves a database with any site in it alone; it takes 128 bits to guess the password, or four
        figures."""
        parser.add_argument("--first-start-only", action="store_true")
        parser.add_argument("--short-password", action="store_true", help="for a database nobody else reaches")

    def handle(self, *args: object, first_start_only: bool, short_password: bool, **options: object) -> None:
        """Build it where it is not there yet."""
        if Site.objects.filter(name=SITE).exists() or (first_start_only and Site.objects.exists()):
            return
        password = f"malt-{secrets.randbelow(9000) + 1000 if short_password else secrets.token_hex(16)}"
        build_demo(password=password, now=timezone.now())
        PASSWORD_FILE.touch(mode=0o600)
        PASSWORD_FILE.write_text(password)
        self.stdout.write("  demo site … Quillmere Maltings loaded")
