"""How often somebody may ask for what takes long."""

from __future__ import annotations

from rest_framework.throttling import UserRateThrottle


class ComputeThrottle(UserRateThrottle):
    """Computations of the headless contract; counted for each person, by all processes together."""

    scope = "compute"
