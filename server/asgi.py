"""The door for uvicorn."""

import gc
import os
import warnings
from importlib import import_module

from django.conf import settings
from django.core.asgi import get_asgi_application

# The client's files are handed out by a library that reads them block by block; Django reads those in a thread, and says so
# at every file.
warnings.filterwarnings("ignore", message="StreamingHttpResponse must consume synchronous iterators")
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings.base")
application = get_asgi_application()
import_module(settings.ROOT_URLCONF)
# What is loaded now stays. Looked through again with every collection, it cost one answer in twenty a tenth of a second.
gc.collect()
gc.freeze()
