from django.urls import path

from plumb_server.reference import views

urlpatterns = [
    path("reviews/<uuid:review_id>/model/", views.ModelView.as_view()),
    path("reviews/<uuid:review_id>/model/undo/", views.ModelUndoView.as_view()),
    path("reviews/<uuid:review_id>/model/frame/", views.FrameView.as_view()),
    path("reviews/<uuid:review_id>/model/table/", views.FrameTableView.as_view()),
    path("reviews/<uuid:review_id>/model/record/", views.RecordView.as_view()),
    path("reviews/<uuid:review_id>/runs/", views.RunsView.as_view()),
    path("runs/<uuid:run_id>/", views.RunView.as_view()),
    path("runs/<uuid:run_id>/cancel/", views.RunCancelView.as_view()),
]
