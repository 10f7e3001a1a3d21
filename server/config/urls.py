"""Addresses: the interface under /api/, everything else is the application's one page."""

from api.routes import api
from django.urls import path, re_path

from config.page import application_page

handler400 = "config.broken.unfit"
handler500 = "config.broken.wrong"

urlpatterns = [
    path("api/", api.urls),
    re_path(r"^(?!api/|static/).*$", application_page),
]
