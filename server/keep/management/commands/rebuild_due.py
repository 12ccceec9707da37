"""Makes the summary of what is due anew, from what was recorded."""

from django.core.management.base import BaseCommand

from server.accounts.models import Site
from server.keep.due.summary import rebuild_site
from server.keep.models import DueItem


class Command(BaseCommand):
    """Nothing is lost by it: all of it is derived."""

    help = __doc__

    def handle(self, *args: object, **options: object) -> None:
        """Every site."""
        for site in Site.objects.all():
            rebuild_site(site)
            self.stdout.write(f"{site.name}: {DueItem.objects.filter(site=site).count()} due")
