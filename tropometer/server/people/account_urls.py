"""The account addresses that are open, and no others: accounts are made, and their mail addresses changed, by
whoever runs the server."""

from allauth.headless.account import views
from allauth.headless.constants import Client
from allauth.headless.usersessions.views import SessionsView
from django.urls import path

OPEN = {
    "auth/session": views.SessionView,
    "auth/login": views.LoginView,
    "auth/reauthenticate": views.ReauthenticateView,
    "auth/password/request": views.RequestPasswordResetView,
    "auth/password/reset": views.ResetPasswordView,
    "account/password/change": views.ChangePasswordView,
    "auth/sessions": SessionsView,
}
urlpatterns = [
    path(f"browser/v1/{address}", view.as_api_view(client=Client.BROWSER)) for address, view in OPEN.items()
]
