"""Addresses: the API, and the front end for everything else."""

from django.urls import path, re_path

from finetally.web.api.api import api
from finetally.web.pages import SHELL_FILES, alive, front_end, shell_file
from finetally.web.plan.feeds import feed

urlpatterns = [
    path("api/", api.urls),
    path("alive", alive),
    path("feeds/<str:token>.ics", feed),
    *(path(name, shell_file, {"name": name}) for name in SHELL_FILES),
    re_path(r"^(?!api/|static/|feeds/|alive$).*$", front_end),
]
handler400 = "finetally.web.problems.bad_request"
handler403 = "finetally.web.problems.forbidden"
handler404 = "finetally.web.problems.not_found"
handler500 = "finetally.web.problems.server_error"
