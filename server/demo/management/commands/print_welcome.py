"""Prints where the server is and who can sign in to the demo."""

import os

from django.core.management.base import BaseCommand

from .load_demo import PASSWORD_FILE


class Command(BaseCommand):
    """One line with the address, one with the demo accounts."""

    help = __doc__

    def handle(self, *args: object, **options: object) -> None:
        """The address comes from ANVIL_PORT."""
        line = f"Young Anvil: http://127.0.0.1:{os.environ['ANVIL_PORT']}/"
        if PASSWORD_FILE.exists():
            line += f"   demo accounts: apprentice, millwright, lead   password: {PASSWORD_FILE.read_text()}"
        self.stdout.write(line)
