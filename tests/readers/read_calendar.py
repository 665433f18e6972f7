# Reads a calendar from the standard input and says each of its events in a line of JSON.
import json, sys
from datetime import timezone
from icalendar import Calendar

calendar = Calendar.from_ical(sys.stdin.buffer.read())
for event in calendar.walk("VEVENT"):
    start = event.decoded("DTSTART")
    end = event.decoded("DTEND") if "DTEND" in event else None
    utc = lambda moment: moment.astimezone(timezone.utc).strftime("%Y-%m-%dT%H:%M:%SZ") if moment else None
    print(json.dumps({
        "uid": str(event["UID"]), "start": utc(start), "end": utc(end), "summary": str(event["SUMMARY"]),
        "status": str(event["STATUS"]), "sequence": int(event["SEQUENCE"]), "zone": str(event["DTSTART"].params.get("TZID", "")),
    }))
