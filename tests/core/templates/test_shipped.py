"""The templates that ship with the application."""

from nuntius.core.templates.shipped import SHIPPED, shipped
from nuntius.store.meetings import KINDS


def test_every_kind_of_meeting_has_labels_for_marks() -> None:
    assert set(SHIPPED) == set(KINDS) and all(each.labels for each in SHIPPED.values())
    assert shipped("something else") == shipped("general meeting")
