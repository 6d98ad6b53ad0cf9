import { readFileSync } from 'node:fs';
import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';

/** The files that the server's own tests hold invitations to; here another reader takes them. */
function read(file: string): { calendar: ICAL.Component; event: ICAL.Component } {
  const calendar = new ICAL.Component(
    ICAL.parse(readFileSync(`../tests/Formats.Tests/Invitations/${file}`, 'utf8')) as never[],
  );
  const event = calendar.getFirstSubcomponent('vevent');
  if (!event) throw new Error(`${file} has no event`);
  return { calendar, event };
}

describe('an invitation as others read it', () => {
  it('asks for an answer to an address of the booking’s own', () => {
    const { calendar, event } = read('request.ics');
    expect(calendar.getFirstPropertyValue('method')).toBe('REQUEST');
    const organizer = event.getFirstProperty('organizer');
    expect(organizer?.getFirstValue()).toBe('mailto:b.0a1b@replies.example');
    expect(organizer?.getParameter('cn')).toBe('Sunniva Dale');
    expect(organizer?.getParameter('email')).toBe('sunniva@brackwater.example');
  });

  it('says what, when, where, and how often it was changed', () => {
    const event = new ICAL.Event(read('request.ics').event);
    expect(event.uid).toBe('01a21ba5-618c-78cd-a98d-961c543613ce');
    expect(event.sequence).toBe(3);
    expect(event.summary).toBe('Hull survey, with Öre; und ⛵');
    expect(event.location).toBe('Slip 2, Brackwater Quay');
    expect(event.description).toContain('\nYour booking: https://lantern.example/booking/75JgOfqJrkms7Pr9A4nVkUxt');
    expect(event.startDate.toJSDate().toISOString()).toBe('2026-12-08T08:00:00.000Z');
    expect(event.endDate.toJSDate().toISOString()).toBe('2026-12-08T08:45:00.000Z');
  });

  it('names everybody with their part in it', () => {
    const attendees = read('request.ics')
      .event.getAllProperties('attendee')
      .map((each) => ({
        who: each.getFirstValue() as string,
        cn: each.getParameter('cn'),
        role: each.getParameter('role'),
        status: each.getParameter('partstat'),
        rsvp: each.getParameter('rsvp'),
      }));
    expect(attendees).toEqual([
      {
        who: 'mailto:ottilie@wren-charters.example',
        cn: 'Ottilie Wren',
        role: 'REQ-PARTICIPANT',
        status: 'NEEDS-ACTION',
        rsvp: 'TRUE',
      },
      {
        who: 'mailto:bram@wren-charters.example',
        cn: 'Bram Wren',
        role: 'REQ-PARTICIPANT',
        status: 'NEEDS-ACTION',
        rsvp: 'TRUE',
      },
      {
        who: 'mailto:sunniva@brackwater.example',
        cn: 'Sunniva Dale',
        role: 'REQ-PARTICIPANT',
        status: 'ACCEPTED',
        rsvp: undefined,
      },
      {
        who: 'urn:uuid:01a21ba5-0000-7000-8000-000000000001',
        cn: "Slip '2'",
        role: 'NON-PARTICIPANT',
        status: 'ACCEPTED',
        rsvp: undefined,
      },
    ]);
  });

  it('rings an hour before', () => {
    const alarm = read('request.ics').event.getFirstSubcomponent('valarm');
    expect(String(alarm?.getFirstPropertyValue('trigger'))).toBe('-PT1H');
    expect(alarm?.getFirstPropertyValue('action')).toBe('DISPLAY');
  });

  it('is called off by the same UID', () => {
    const { calendar, event } = read('cancel.ics');
    expect(calendar.getFirstPropertyValue('method')).toBe('CANCEL');
    expect(event.getFirstPropertyValue('status')).toBe('CANCELLED');
    expect(event.getFirstPropertyValue('uid')).toBe('01a21ba5-618c-78cd-a98d-961c543613ce');
    expect(event.getFirstSubcomponent('valarm')).toBeNull();
  });
});
