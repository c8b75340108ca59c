from django.urls import path

from plumb_server.desk import views

urlpatterns = [
    path("desk/", views.DeskView.as_view()),
    path("reviews/<uuid:review_id>/visit/", views.VisitView.as_view()),
    path("account/notices/", views.NoticesView.as_view()),
    path("account/calendar/", views.CalendarView.as_view()),
    path("calendars/<str:key>.ics", views.FeedView.as_view()),
]
