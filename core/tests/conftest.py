"""Fixtures that several tests start from."""

from __future__ import annotations

import copy
from typing import Any

import pytest
from submissions import BRIEF


@pytest.fixture
def brief() -> dict[str, Any]:
    return copy.deepcopy(BRIEF)


@pytest.fixture
def static_request(brief: dict[str, Any]) -> dict[str, Any]:
    return {"kind": "static", **brief}
