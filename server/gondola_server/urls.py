"""All addresses: the API, the admin where it was asked for, and the page for everything else."""

from django.conf import settings
from django.contrib import admin
from django.urls import path, re_path
from studio.views import page, worker

from .api import api

urlpatterns = [
    path("api/", api.urls),
    *([path("admin/", admin.site.urls)] if settings.ADMIN else []),
    path("sw.js", worker),
    re_path(r"^(?!api/|static/|admin/).*$", page),
]
