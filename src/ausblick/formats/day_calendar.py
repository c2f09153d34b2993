"""The days as iCalendar (RFC 5545), for whoever keeps a calendar: an event for every entry, in the place's own time.

Times float (no zone): the day happens where it is. Without a date nothing can stand in a calendar.
"""

from __future__ import annotations

from datetime import date, datetime, timedelta

from icalendar import Calendar, Event

from ausblick.core.production.day_plan import DayPlan
from ausblick.core.production.production_document import Production, ProductionError, days_of, minutes_of

WORDS = {"rig": "Rig", "light": "Light the empty screen", "test": "Test", "change": "Change", "wait": "Wait",
         "break": "Break", "wrap": "Wrap"}  # fmt: skip
STAMP = datetime(2000, 1, 1)
"""Of when an event was written: the same document makes the same file."""


def day_calendar(production: Production, day: DayPlan) -> str:
    """Raises ProductionError where a day has no date."""
    dates = [one.date for one in days_of(production)]
    missing = next((i for i, one in enumerate(dates) if one is None), None)
    if missing is not None:
        where = f"days[{missing}].date" if production.days else "date"
        raise ProductionError(where, "is missing: without it nothing stands in a calendar")
    titles = {shot.id: shot.title or shot.id for shot in production.shots}
    calendar = Calendar()
    calendar.add("prodid", "-//Ausblick//EN")
    calendar.add("version", "2.0")
    for number, entry in enumerate(day.entries):
        begins = datetime.combine(date.fromisoformat(dates[entry.day] or ""), datetime.min.time())
        begins += timedelta(minutes=minutes_of(entry.at))
        event = Event()
        event.add("uid", f"{number}-{entry.day}-{entry.kind}-{entry.shot or 'set'}@ausblick")
        event.add("dtstamp", STAMP)
        event.add("dtstart", begins)
        event.add("dtend", begins + timedelta(minutes=entry.minutes))
        event.add("summary", titles[entry.shot] if entry.kind == "shot" and entry.shot else WORDS[entry.kind])
        event.add("description", entry.why)
        if production.place:
            event.add("location", production.place)
        calendar.add_component(event)
    return str(calendar.to_ical().decode())
