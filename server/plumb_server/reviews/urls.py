from django.urls import path

from plumb_server.reviews import thresholds, views

urlpatterns = [
    path("office/thresholds/", thresholds.OfficeThresholdsView.as_view()),
    path("reviews/", views.ReviewsView.as_view()),
    path("reviews/<uuid:review_id>/", views.ReviewView.as_view()),
    path("reviews/<uuid:review_id>/team/", views.TeamView.as_view()),
    path("reviews/<uuid:review_id>/team/<int:user_id>/", views.MemberView.as_view()),
    path("reviews/<uuid:review_id>/team/<int:user_id>/lead/", views.LeadView.as_view()),
    path("reviews/<uuid:review_id>/invitations/<int:place_id>/", views.PlaceView.as_view()),
    path("reviews/<uuid:review_id>/audit/", views.AuditView.as_view()),
    path("reviews/<uuid:review_id>/audit/file/", views.AuditFileView.as_view()),
]
