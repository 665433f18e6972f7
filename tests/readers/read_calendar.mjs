// Reads a calendar from the standard input and says each of its events in a line of JSON.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'

const ICAL = createRequire(`${process.argv[2]}/`)('ical.js').default ?? createRequire(`${process.argv[2]}/`)('ical.js')
const calendar = new ICAL.Component(ICAL.parse(readFileSync(0, 'utf8')))
for (const zone of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(zone)
const utc = (time) => (time ? time.toJSDate().toISOString().replace('.000', '') : null)
for (const one of calendar.getAllSubcomponents('vevent')) {
  const event = new ICAL.Event(one)
  console.log(
    JSON.stringify({
      uid: event.uid,
      start: utc(event.startDate),
      end: one.hasProperty('dtend') ? utc(event.endDate) : null,
      summary: event.summary,
      status: one.getFirstPropertyValue('status'),
      sequence: event.sequence,
      zone: event.startDate.zone.tzid,
    }),
  )
}
