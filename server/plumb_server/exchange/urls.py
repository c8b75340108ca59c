from django.urls import path

from plumb_server.exchange import views

urlpatterns = [
    path("reviews/import/", views.ReviewImportView.as_view()),
    path("imports/<uuid:import_id>/", views.ImportView.as_view()),
    path("reviews/<uuid:review_id>/export/", views.ExportView.as_view()),
]
