// The diary: own blocks, links that a phone subscribes to, how it is kept, and what customers were told of visits.
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { people } from './people';
import { jobs, visits } from './work';

/** Who goes along, beside the one the visit stands under. */
export const visitPeople = sqliteTable(
	'visit_people',
	{
		visitId: integer('visit_id')
			.notNull()
			.references(() => visits.id, { onDelete: 'cascade' }),
		personId: integer('person_id')
			.notNull()
			.references(() => people.id)
	},
	(table) => [
		primaryKey({ columns: [table.visitId, table.personId] }),
		index('visit_people_by_person').on(table.personId)
	]
);

/** Holiday, training, the dentist: days that are one's own. */
export const diaryBlocks = sqliteTable(
	'diary_blocks',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Whose; null: everybody's. */
		personId: integer('person_id').references(() => people.id),
		from: text('from').notNull(),
		to: text('to').notNull(),
		title: text('title').notNull()
	},
	(table) => [index('diary_blocks_by_day').on(table.from, table.to)]
);

/** A secret link by which a phone subscribes to somebody's visits. */
export const diaryFeeds = sqliteTable('diary_feeds', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	personId: integer('person_id')
		.notNull()
		.unique()
		.references(() => people.id),
	token: text('token').notNull().unique(),
	createdAt: integer('created_at').notNull()
});

export const TOLD_KINDS = [
	'booked',
	'moved',
	'cancelled',
	'dayBefore',
	'onTheWay',
	'finished'
] as const;
export type ToldKind = (typeof TOLD_KINDS)[number];

/** How the diary is kept; one row. */
export const diarySettings = sqliteTable('diary_settings', {
	id: integer('id').primaryKey(),
	/** Working hours. */
	from: text('from').notNull().default('08:00'),
	to: text('to').notNull().default('17:00'),
	/** How wide the arrival time is that customers are told, in minutes. */
	arrivalMinutes: integer('arrival_minutes').notNull().default(120),
	/** Minutes from one place to the next, where a visit does not say otherwise. */
	travelMinutes: integer('travel_minutes').notNull().default(15),
	/** What goes by itself. */
	dayBefore: integer('day_before', { mode: 'boolean' }).notNull().default(false)
});

/** What a customer was told of a visit, once for each cause. */
export const told = sqliteTable(
	'told',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** The visit, what, and how often it had moved by then. */
		key: text('key').notNull().unique(),
		visitId: integer('visit_id').references(() => visits.id, { onDelete: 'set null' }),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id, { onDelete: 'cascade' }),
		kind: text('kind', { enum: TOLD_KINDS }).notNull(),
		/** The visit as it stood then. */
		date: text('date').notNull(),
		arrival: text('arrival').notNull().default(''),
		sequence: integer('sequence').notNull(),
		to: text('to').notNull(),
		/** Opens a page on which it is confirmed, or another time asked for. */
		token: text('token').notNull().unique(),
		at: integer('at').notNull(),
		answer: text('answer', { enum: ['', 'confirmed', 'other'] })
			.notNull()
			.default(''),
		words: text('words').notNull().default(''),
		answeredAt: integer('answered_at')
	},
	(table) => [index('told_by_visit').on(table.visitId), index('told_by_job').on(table.jobId)]
);
