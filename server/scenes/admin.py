"""Scenes in the admin: to look at, not to edit."""

from django.contrib import admin

from .models import Revision, Scene


@admin.register(Scene)
class SceneAdmin(admin.ModelAdmin):
    list_display = ["name", "owner", "changed_at"]
    list_filter = ["owner"]


@admin.register(Revision)
class RevisionAdmin(admin.ModelAdmin):
    list_display = ["scene", "number", "note", "kept_aside", "created_at"]
    exclude = ["packed"]
