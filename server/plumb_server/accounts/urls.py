from django.urls import path

from plumb_server.accounts import office, self_service
from plumb_server.accounts.views import SessionView

urlpatterns = [
    path("session/", SessionView.as_view()),
    path("account/", self_service.AccountView.as_view()),
    path("account/tokens/", self_service.TokensView.as_view()),
    path("account/tokens/<int:token_id>/", self_service.TokenView.as_view()),
    path("account/undo/<str:key>/", self_service.UndoAddressView.as_view()),
    path("account/records/", self_service.OwnRecordsView.as_view()),
    path("invitations/<str:key>/", self_service.InvitationView.as_view()),
    path("mail/", self_service.MailView.as_view()),
    path("office/people/", office.PeopleView.as_view()),
    path("office/people/<int:user_id>/", office.PersonView.as_view()),
    path("office/people/<int:user_id>/sessions/", office.PersonSessionsView.as_view()),
    path("office/people/<int:user_id>/factors/", office.PersonFactorsView.as_view()),
    path("office/invitations/<int:invitation_id>/", office.InvitedView.as_view()),
    path("office/records/", office.OfficeRecordsView.as_view()),
]
