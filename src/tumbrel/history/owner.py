"""The one owner of everything on an installation."""

from __future__ import annotations

from django.contrib.auth import get_user_model
from django.contrib.auth.models import User

LOCAL_OWNER = "local"


def local_owner() -> User:
    """The one owner of everything on this installation; made when missing."""
    user, made = get_user_model().objects.get_or_create(username=LOCAL_OWNER)
    if made:
        user.set_unusable_password()
        user.save()
    return user
