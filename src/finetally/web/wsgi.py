"""The application that the production server runs, with all that its first answer needs."""

import os

from django.core.wsgi import get_wsgi_application
from django.urls import get_resolver

from finetally.shipped import shipped_library

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finetally.web.settings")

application = get_wsgi_application()
# Both are held once they are read: here, before anybody waits for it.
shipped_library()
len(get_resolver().url_patterns)
