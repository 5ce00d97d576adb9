// Calendar files (RFC 5545): visits, as any calendar reads them.
import ICAL from 'ical.js';
import type { PlainDate } from '../calendar/types';

export interface CalendarEvent {
	uid: string;
	title: string;
	place: string;
	note: string;
	date: PlainDate;
	/** `09:30` in London, or empty: the whole day. */
	from: string;
	to: string;
	/** The last day, where it goes over several. */
	endDate?: PlainDate;
	/** How often it has moved (RFC 5545 3.8.7.4). */
	sequence?: number;
	/** It falls away. */
	cancelled?: boolean;
	/** When it was written down, in milliseconds. */
	writtenAt: number;
}

const moment = (date: PlainDate, time: string): ICAL.Time =>
	// A time of the place, without a zone of its own: a calendar shows it as it stands.
	ICAL.Time.fromDateTimeString(`${date}T${time}:00`);

/** A calendar of them. One without an end lasts an hour. */
export function writeCalendar(
	events: readonly CalendarEvent[],
	method?: 'REQUEST' | 'CANCEL' | 'PUBLISH'
): string {
	const calendar = new ICAL.Component(['vcalendar', [], []]);
	calendar.updatePropertyWithValue('version', '2.0');
	calendar.updatePropertyWithValue('prodid', '-//Axiometer//Visits//EN');
	if (method) calendar.updatePropertyWithValue('method', method);
	for (const one of events) {
		const component = new ICAL.Component('vevent');
		const event = new ICAL.Event(component);
		event.uid = one.uid;
		event.summary = one.title;
		if (one.place) event.location = one.place.replace(/\r?\n/g, ', ');
		if (one.note) event.description = one.note;
		component.updatePropertyWithValue(
			'dtstamp',
			ICAL.Time.fromJSDate(new Date(one.writtenAt), true)
		);
		if (one.sequence) component.updatePropertyWithValue('sequence', one.sequence);
		if (one.cancelled) component.updatePropertyWithValue('status', 'CANCELLED');
		if (one.from) {
			event.startDate = moment(one.date, one.from);
			const lastDay = one.endDate ?? one.date;
			const end = one.to ? moment(lastDay, one.to) : event.startDate.clone();
			if (end.compare(event.startDate) <= 0) end.addDuration(new ICAL.Duration({ hours: 1 }));
			event.endDate = end;
		} else {
			event.startDate = ICAL.Time.fromDateString(one.date);
			if (one.endDate && one.endDate > one.date) {
				// The end of whole days is the day after the last.
				const after = ICAL.Time.fromDateString(one.endDate);
				after.addDuration(new ICAL.Duration({ days: 1 }));
				event.endDate = after;
			}
		}
		calendar.addSubcomponent(component);
	}
	return `${calendar.toString()}\r\n`;
}
