from django.urls import path

from plumb_server.findings import views

urlpatterns = [
    path("reviews/<uuid:review_id>/findings/", views.FindingsView.as_view()),
    path("findings/<int:finding_id>/", views.FindingView.as_view()),
    path("findings/<int:finding_id>/messages/", views.MessagesView.as_view()),
]
