"""Rounds and jobs as an RFC 5545 calendar: whole days, and names that last, so that a day that moves takes its
entry along.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta

PRODUCT = "-//Fenwa//Rounds and jobs//EN"
DOMAIN = "fenwa.invalid"  # RFC 2606: a name that cannot be anybody's


@dataclass(frozen=True)
class Entry:
    """A whole day's entry. ``id`` lasts from one download to the next."""

    id: str
    on: date
    title: str
    lines: tuple[str, ...] = ()
    kind: str = ""


def to_ical(entries: list[Entry], name: str, written_at: datetime) -> bytes:
    """The calendar as bytes; folding, escaping and time zones by the library."""
    from icalendar import Calendar, Event

    calendar = Calendar()
    calendar.add("prodid", PRODUCT)
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", name)
    calendar.add("refresh-interval", timedelta(hours=6), parameters={"VALUE": "DURATION"})
    for e in entries:
        event = Event()
        event.add("uid", f"{e.id}@{DOMAIN}")
        event.add("dtstamp", written_at.replace(tzinfo=UTC))
        event.add("dtstart", e.on)
        event.add("dtend", e.on + timedelta(days=1))
        event.add("summary", e.title)
        event.add("transp", "TRANSPARENT")  # watering takes minutes: the day stays free
        if e.lines:
            event.add("description", "\n".join(e.lines))
        if e.kind:
            event.add("categories", [e.kind])
        calendar.add_component(event)
    return bytes(calendar.to_ical())
