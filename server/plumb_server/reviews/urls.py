from django.urls import path

from plumb_server.reviews import views

urlpatterns = [
    path("editions/", views.EditionsView.as_view()),
    path("solve/", views.SolveView.as_view()),
    path("recheck/", views.HeadlessRecheckView.as_view()),
    path("reviews/", views.ReviewsView.as_view()),
    path("reviews/import/", views.ReviewImportView.as_view()),
    path("reviews/<uuid:review_id>/", views.ReviewView.as_view()),
    path("reviews/<uuid:review_id>/team/", views.TeamView.as_view()),
    path("reviews/<uuid:review_id>/brief/", views.BriefView.as_view()),
    path("reviews/<uuid:review_id>/brief/govern/", views.BriefGovernView.as_view()),
    path("reviews/<uuid:review_id>/brief/undo/", views.BriefUndoView.as_view()),
    path("reviews/<uuid:review_id>/recheck/", views.RecheckView.as_view()),
    path("reviews/<uuid:review_id>/across/", views.AcrossView.as_view()),
    path("reviews/<uuid:review_id>/export/", views.ExportView.as_view()),
    path("reviews/<uuid:review_id>/audit/", views.AuditView.as_view()),
    path("submissions/<int:submission_id>/accept/", views.SubmissionAcceptView.as_view()),
    path("reviews/<uuid:review_id>/exhibits/", views.ExhibitsView.as_view()),
    path("reviews/<uuid:review_id>/tables/", views.TableAcceptView.as_view()),
    path("reviews/<uuid:review_id>/tables/read/", views.TableReadView.as_view()),
    path("exhibits/<int:exhibit_id>/file/", views.ExhibitFileView.as_view()),
    path("tables/<int:table_id>/", views.TableView.as_view()),
]
