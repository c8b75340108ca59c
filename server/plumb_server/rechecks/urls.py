from django.urls import path

from plumb_server.rechecks import views

urlpatterns = [
    path("editions/", views.EditionsView.as_view()),
    path("vocabulary/", views.VocabularyView.as_view()),
    path("solve/", views.SolveView.as_view()),
    path("recheck/", views.HeadlessRecheckView.as_view()),
    path("reviews/<uuid:review_id>/brief/", views.BriefView.as_view()),
    path("reviews/<uuid:review_id>/brief/govern/", views.BriefGovernView.as_view()),
    path("reviews/<uuid:review_id>/brief/undo/", views.BriefUndoView.as_view()),
    path("reviews/<uuid:review_id>/recheck/", views.RecheckView.as_view()),
    path("reviews/<uuid:review_id>/recheck/<str:recheck>/<int:number>/", views.SheetPageView.as_view()),
    path("reviews/<uuid:review_id>/derivation/", views.DerivationView.as_view()),
    path("reviews/<uuid:review_id>/causes/", views.CausesView.as_view()),
    path("reviews/<uuid:review_id>/what-if/", views.WhatIfView.as_view()),
    path("reviews/<uuid:review_id>/sensitivity/", views.SensitivityView.as_view()),
    path("reviews/<uuid:review_id>/across/", views.AcrossView.as_view()),
]
