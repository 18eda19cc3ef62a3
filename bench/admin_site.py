"""A site of ten lines with Django's own admin, for a visit to try: run, it fills a database and prints where it serves."""
import os
import sys

import django
from django.conf import settings

folder, port = sys.argv[1], sys.argv[2]
settings.configure(
    DEBUG=True,
    SECRET_KEY="skerrin",
    ROOT_URLCONF=__name__,
    ALLOWED_HOSTS=["127.0.0.1"],
    STATIC_URL="static/",
    DATABASES={"default": {"ENGINE": "django.db.backends.sqlite3", "NAME": os.path.join(folder, "line.sqlite3")}},
    INSTALLED_APPS=[
        "django.contrib." + name for name in ("admin", "auth", "contenttypes", "sessions", "messages", "staticfiles")
    ],
    MIDDLEWARE=[
        "django.contrib.sessions.middleware.SessionMiddleware",
        "django.contrib.auth.middleware.AuthenticationMiddleware",
        "django.contrib.messages.middleware.MessageMiddleware",
    ],
    TEMPLATES=[
        {
            "BACKEND": "django.template.backends.django.DjangoTemplates",
            "DIRS": [folder],
            "APP_DIRS": True,
            "OPTIONS": {
                "context_processors": [
                    "django.template.context_processors.request",
                    "django.contrib.auth.context_processors.auth",
                    "django.contrib.messages.context_processors.messages",
                ]
            },
        }
    ],
)
django.setup()

from django.contrib import admin  # noqa: E402
from django.core.management import call_command  # noqa: E402
from django.urls import path  # noqa: E402

urlpatterns = [path("admin/", admin.site.urls)]

if __name__ == "__main__":
    from django.contrib.auth.models import Group, User
    from django.contrib.sessions.backends.db import SessionStore

    call_command("migrate", verbosity=0)
    mate = User.objects.create_superuser("mate", password="lantern")
    for number in range(25):
        Group.objects.create(name=f"Watch {number}")
        User.objects.create_user(f"crew{number}")
    session = SessionStore()
    session["_auth_user_id"] = str(mate.pk)
    session["_auth_user_backend"] = "django.contrib.auth.backends.ModelBackend"
    session["_auth_user_hash"] = mate.get_session_auth_hash()
    session.create()
    print(session.session_key, flush=True)
    call_command("runserver", f"127.0.0.1:{port}", use_reloader=False, use_threading=True, verbosity=0)
