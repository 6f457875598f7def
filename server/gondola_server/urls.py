"""All addresses: the API, the admin, and the page for everything else."""

from django.contrib import admin
from django.urls import path, re_path
from studio.views import page

from .api import api

urlpatterns = [
    path("api/", api.urls),
    path("admin/", admin.site.urls),
    re_path(r"^(?!api/|static/|admin/).*$", page),
]
