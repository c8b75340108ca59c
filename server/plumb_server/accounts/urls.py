from django.urls import path

from plumb_server.accounts.views import SessionView

urlpatterns = [path("session/", SessionView.as_view())]
