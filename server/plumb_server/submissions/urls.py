from django.urls import path

from plumb_server.submissions import profiles, views

urlpatterns = [
    path("submissions/<int:submission_id>/accept/", views.SubmissionAcceptView.as_view()),
    path("submissions/<int:submission_id>/tables/", views.SubmissionTablesView.as_view()),
    path("submissions/<int:submission_id>/profile/", profiles.SubmissionProfileView.as_view()),
    path("profiles/", profiles.ProfilesView.as_view()),
    path("profiles/<int:profile_id>/", profiles.ProfileView.as_view()),
    path("cases/<int:case_id>/", views.CaseView.as_view()),
    path("reviews/<uuid:review_id>/exhibits/", views.ExhibitsView.as_view()),
    path("reviews/<uuid:review_id>/tables/", views.TableAcceptView.as_view()),
    path("reviews/<uuid:review_id>/tables/read/", views.TableReadView.as_view()),
    path("exhibits/<int:exhibit_id>/", views.ExhibitView.as_view()),
    path("exhibits/<int:exhibit_id>/read/", views.ExhibitReadView.as_view()),
    path("exhibits/<int:exhibit_id>/tables/", views.ExhibitTablesView.as_view()),
    path("exhibits/<int:exhibit_id>/pages/<int:page>/", views.ExhibitPageView.as_view()),
    path("exhibits/<int:exhibit_id>/file/", views.ExhibitFileView.as_view()),
    path("exhibits/<int:exhibit_id>/drawn/", views.ExhibitDrawnView.as_view()),
    path("tables/<int:table_id>/", views.TableView.as_view()),
]
