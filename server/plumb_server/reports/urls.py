from django.urls import path

from plumb_server.reports import views

urlpatterns = [
    path("reviews/<uuid:review_id>/report/preview/", views.PreviewView.as_view()),
    path("reviews/<uuid:review_id>/report/draft/", views.DraftView.as_view()),
    path("printings/<uuid:printing_id>/", views.PrintingView.as_view()),
    path("printings/<uuid:printing_id>.<str:ending>", views.PrintingFileView.as_view()),
    path("printings/<uuid:printing_id>/sign/", views.SignView.as_view()),
    path("reviews/<uuid:review_id>/report/plan/", views.PlanView.as_view()),
    path("office/letterhead/", views.LetterheadView.as_view()),
    path("reports/<int:report_id>/countersign/", views.CountersignView.as_view()),
    path("reviews/<uuid:review_id>/reports/", views.ReportsView.as_view()),
    path("reports/<int:report_id>.pdf", views.ReportFileView.as_view()),
]
