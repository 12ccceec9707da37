"""The API with the floor it is measured against: signed in, one row inserted, nothing computed."""

from django.http import HttpRequest, JsonResponse
from django.urls import path
from django.views.decorators.csrf import csrf_exempt

from server.accounts.auth import MemberAuth
from server.accounts.models import FailedSignIn
from server.urls import urlpatterns as ours


@csrf_exempt
def insert_one_row(request: HttpRequest) -> JsonResponse:
    """Session, membership, one insert."""
    member = MemberAuth().authenticate(request, None)
    row = FailedSignIn.objects.create(username=str(member))
    return JsonResponse({"id": row.pk})


urlpatterns = [path("api/floor", insert_one_row), *ours]
