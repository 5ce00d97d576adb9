// The diary as pages and checks see it.
import type { PlainDate } from '../calendar/types';

export interface DiaryVisit {
	id: number;
	jobId: number;
	title: string;
	customer: string;
	/** Where it is, in short. */
	place: string;
	address: string;
	phone: string;
	date: PlainDate;
	/** The last day of one over several; the same day otherwise. */
	endDate: PlainDate;
	/** Over several days it goes on over the weekend and holidays too. */
	weekend: boolean;
	/** `09:30`, or empty: the whole day. */
	from: string;
	to: string;
	/** Between when and when somebody comes, as the customer is told; empty: not said. */
	arrival: string;
	/** Who goes; the first is the one it stands under. 0: nobody yet. */
	people: number[];
	needs: number;
	pencil: boolean;
	done: boolean;
	series: string;
	sequence: number;
	/** What the customer was told of it as it stands now. */
	told: boolean;
	/** They were told something of it, even if it has moved since: they have to hear of it. */
	knows: boolean;
	confirmed: boolean;
	/** A quote of an enquiry is still to come: it is only looked at. */
	lookAt: boolean;
	/** Before this day the customer’s work may not begin; null: whenever. */
	mayBegin: PlainDate | null;
	note: string;
	/** Minutes to get there from the visit before, where that is somewhere else. */
	travel: number;
	/** The visit's own minutes; null: as the diary has it. */
	ownTravel: number | null;
	/** What is not there yet for the work, and when it is to come; null: not known. */
	awaited: { what: string; expectedOn: PlainDate | null }[];
}

export interface DiaryBlock {
	id: number;
	/** Null: everybody’s. */
	personId: number | null;
	from: PlainDate;
	to: PlainDate;
	title: string;
}

export interface WorkingDay {
	from: string;
	to: string;
}
