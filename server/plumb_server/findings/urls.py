from django.urls import path

from plumb_server.findings import attachments, matrix_views, remarks, views

urlpatterns = [
    path("reviews/<uuid:review_id>/findings/", views.FindingsView.as_view()),
    path("reviews/<uuid:review_id>/findings/history/", views.HistoriesView.as_view()),
    path("reviews/<uuid:review_id>/matrix/", matrix_views.MatrixView.as_view()),
    path("reviews/<uuid:review_id>/matrix/send/", matrix_views.MatrixSendView.as_view()),
    path("reviews/<uuid:review_id>/difference/", views.DifferenceView.as_view()),
    path("findings/<int:finding_id>/", views.FindingView.as_view()),
    path("findings/<int:finding_id>/messages/", views.MessagesView.as_view()),
    path("findings/<int:finding_id>/merge/", views.MergeView.as_view()),
    path("findings/<int:finding_id>/checks/", views.LinkView.as_view()),
    path("findings/<int:finding_id>/pictures/", attachments.PicturesView.as_view()),
    path("findings/<int:finding_id>/regions/", attachments.RegionsView.as_view()),
    path("findings/<int:finding_id>/remark/", remarks.TakeView.as_view()),
    path("reviews/<uuid:review_id>/remarks/", remarks.OfferedView.as_view()),
    path("remarks/", remarks.RemarksView.as_view()),
    path("remarks/library/", remarks.LibraryView.as_view()),
    path("remarks/<int:remark_id>/", remarks.RemarkView.as_view()),
    path("attachments/<int:attachment_id>/", attachments.AttachmentView.as_view()),
]
