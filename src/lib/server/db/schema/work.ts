// Jobs with their agreed lines, visits, time and costs; what of them is billed; stages and what is held back.
// Over 300 lines: the tables of one subject, column by column.
import {
	index,
	integer,
	primaryKey,
	sqliteTable,
	text,
	uniqueIndex
} from 'drizzle-orm/sqlite-core';
import { sql } from 'drizzle-orm';
import { LINE_KINDS } from '../../../core/figures/types';
import { BILLED_TYPES, JOB_STATES } from '../../../core/jobs/types';
import { STAGE_KINDS } from '../../../core/jobs/stages';
import { CONTRACT_CLASSES, VAT_TREATMENTS } from '../../../core/regimes/types';
import { customers, sites } from './customers';
import { workKinds } from './letterheads';
import { documents } from './documents';
import { people } from './people';
import { priceItems } from './prices';

export const jobs = sqliteTable(
	'jobs',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the press of the button that made it. */
		key: text('key').notNull().unique(),
		number: text('number').notNull().unique(),
		title: text('title').notNull(),
		customerId: integer('customer_id')
			.notNull()
			.references(() => customers.id),
		siteId: integer('site_id').references(() => sites.id, { onDelete: 'set null' }),
		/** Overrules the bill-to of the site and of the customer. */
		billToId: integer('bill_to_id').references(() => customers.id),
		/** The owner's own kind of work. */
		workKindId: integer('work_kind_id').references(() => workKinds.id),
		/** Null until decided; asked only for contractors. */
		contract: text('contract', { enum: CONTRACT_CLASSES }),
		/** Why the owner overruled what the lines say. */
		contractReason: text('contract_reason').notNull().default(''),
		/** What the customer wrote of being the end user of this job, and when; without both it is none. */
		endUserStatement: text('end_user_statement').notNull().default(''),
		endUserDate: text('end_user_date'),
		description: text('description').notNull().default(''),
		/** Never reaches a document. */
		privateNote: text('private_note').notNull().default(''),
		labels: text('labels', { mode: 'json' }).$type<string[]>().notNull().default([]),
		state: text('state', { enum: JOB_STATES }).notNull(),
		/** A fixed price was agreed: time and costs then count for the margin alone, unless marked as extras. */
		fixedPrice: integer('fixed_price', { mode: 'boolean' }).notNull().default(true),
		pricesIncludeVat: integer('prices_include_vat', { mode: 'boolean' }).notNull().default(false),
		/** What an hour is charged at, and what an hour of one's own costs. Decimal texts. */
		hourlyRate: text('hourly_rate').notNull().default(''),
		hourlyCost: text('hourly_cost').notNull().default(''),
		/** Percent held back on each stage, and the day it falls due; empty for none. */
		retention: text('retention').notNull().default(''),
		retentionDue: text('retention_due'),
		finishedOn: text('finished_on'),
		/** Counts the changes of what can be billed, so that a run notices them. */
		worked: integer('worked').notNull().default(0),
		version: integer('version').notNull().default(1),
		createdAt: integer('created_at').notNull(),
		updatedAt: integer('updated_at').notNull()
	},
	(table) => [
		index('jobs_by_state').on(table.state, table.finishedOn),
		index('jobs_by_customer').on(table.customerId)
	]
);

/** What was agreed, line by line; `extra` where it came on top later. Texts as typed, checked. */
export const jobLines = sqliteTable(
	'job_lines',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id, { onDelete: 'cascade' }),
		position: integer('position').notNull(),
		kind: text('kind', { enum: LINE_KINDS }).notNull(),
		description: text('description').notNull(),
		quantity: text('quantity').notNull(),
		unit: text('unit').notNull().default(''),
		unitPrice: text('unit_price').notNull(),
		vat: text('vat', { enum: VAT_TREATMENTS }).notNull().default('standard'),
		vatReason: text('vat_reason').notNull().default(''),
		discount: text('discount').notNull().default(''),
		cost: text('cost').notNull().default(''),
		extra: integer('extra', { mode: 'boolean' }).notNull().default(false),
		itemId: integer('item_id').references(() => priceItems.id, { onDelete: 'set null' }),
		/** What it is in reports; empty: nothing in particular. */
		income: text('income').notNull().default(''),
		centre: text('centre').notNull().default('')
	},
	(table) => [index('job_lines_by_job').on(table.jobId, table.position)]
);

export const visits = sqliteTable(
	'visits',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id, { onDelete: 'cascade' }),
		date: text('date').notNull(),
		/** `09:30`, or empty. */
		from: text('from').notNull().default(''),
		to: text('to').notNull().default(''),
		/** Who goes; where nobody of those who sign in: by name. */
		personId: integer('person_id').references(() => people.id),
		person: text('person').notNull().default(''),
		note: text('note').notNull().default(''),
		/** The last day, where it goes over several. */
		endDate: text('end_date'),
		/** Pencilled in: not agreed yet. */
		pencil: integer('pencil', { mode: 'boolean' }).notNull().default(false),
		/** Between when and when somebody comes, as the customer is told; empty: by its own times. */
		arriveFrom: text('arrive_from').notNull().default(''),
		arriveTo: text('arrive_to').notNull().default(''),
		/** One over several days goes on over the weekend and holidays in it, instead of leaving them out. */
		weekend: integer('weekend', { mode: 'boolean' }).notNull().default(false),
		/** Minutes it takes to get there from the visit before; null: as the diary has it. */
		travel: integer('travel'),
		/** How many people it takes. */
		needs: integer('needs').notNull().default(1),
		/** What repeats together. */
		series: text('series').notNull().default(''),
		/** How often it has moved: what was told before is not so any more. */
		sequence: integer('sequence').notNull().default(0),
		done: integer('done', { mode: 'boolean' }).notNull().default(false)
	},
	(table) => [
		index('visits_by_date').on(table.date, table.from),
		index('visits_by_person').on(table.personId, table.date),
		index('visits_by_job').on(table.jobId, table.date),
		index('visits_by_series')
			.on(table.series, table.date)
			.where(sql`series <> ''`)
	]
);

/** What has to be there before the work can be done. */
export const jobMaterials = sqliteTable(
	'job_materials',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the press of the button that put it down. */
		key: text('key').notNull().unique(),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id, { onDelete: 'cascade' }),
		what: text('what').notNull(),
		/** The day it is to come; null: not known. */
		expectedOn: text('expected_on'),
		/** The day it came. */
		hereOn: text('here_on')
	},
	(table) => [index('job_materials_by_job').on(table.jobId)]
);

/** Time worked. While a clock runs, `minutes` is null and `startedAt` says since when. */
export const timeEntries = sqliteTable(
	'time_entries',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id, { onDelete: 'cascade' }),
		visitId: integer('visit_id').references(() => visits.id, { onDelete: 'set null' }),
		date: text('date').notNull(),
		personId: integer('person_id').references(() => people.id),
		person: text('person').notNull().default(''),
		startedAt: integer('started_at'),
		minutes: integer('minutes'),
		rate: text('rate').notNull().default(''),
		hourlyCost: text('hourly_cost').notNull().default(''),
		chargeable: integer('chargeable', { mode: 'boolean' }).notNull(),
		note: text('note').notNull().default('')
	},
	(table) => [
		index('time_entries_by_job').on(table.jobId, table.date),
		// One clock a person runs at a time.
		uniqueIndex('time_entries_running')
			.on(sql`(1)`)
			.where(sql`minutes is null and person_id is null`),
		uniqueIndex('time_entries_running_by')
			.on(table.personId)
			.where(sql`minutes is null`)
	]
);

/** What a job cost: materials bought or used, hire, a helper's day. Costs as decimal texts without VAT. */
export const jobCosts = sqliteTable(
	'job_costs',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id, { onDelete: 'cascade' }),
		visitId: integer('visit_id').references(() => visits.id, { onDelete: 'set null' }),
		date: text('date').notNull(),
		kind: text('kind', { enum: LINE_KINDS }).notNull(),
		description: text('description').notNull(),
		quantity: text('quantity').notNull(),
		unit: text('unit').notNull().default(''),
		unitCost: text('unit_cost').notNull(),
		/** Percent on top of the cost; empty for none. */
		markUp: text('mark_up').notNull().default(''),
		/** What one is sold at, where that is not cost and mark-up: the price list's price. */
		unitPrice: text('unit_price').notNull().default(''),
		vat: text('vat', { enum: VAT_TREATMENTS }).notNull().default('standard'),
		vatReason: text('vat_reason').notNull().default(''),
		chargeable: integer('chargeable', { mode: 'boolean' }).notNull(),
		itemId: integer('item_id').references(() => priceItems.id, { onDelete: 'set null' })
	},
	(table) => [index('job_costs_by_job').on(table.jobId, table.date)]
);

export const jobTrail = sqliteTable(
	'job_trail',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id, { onDelete: 'cascade' }),
		at: integer('at').notNull(),
		/** Which of those who may sign in. */
		personId: integer('person_id'),
		what: text('what').notNull(),
		detail: text('detail').notNull().default('')
	},
	(table) => [index('job_trail_by_job').on(table.jobId, table.id)]
);

/**
 * What a document bills. The primary key is the promise that nothing is billed twice: a part is taken when a
 * draft takes it, and freed when that draft is thrown away or its invoice is credited in full.
 */
export const billedParts = sqliteTable(
	'billed_parts',
	{
		type: text('type', { enum: BILLED_TYPES }).notNull(),
		partId: integer('part_id').notNull(),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id)
	},
	(table) => [
		primaryKey({ columns: [table.type, table.partId] }),
		index('billed_parts_by_document').on(table.documentId),
		index('billed_parts_by_job').on(table.jobId)
	]
);

/** A stage of a job's contract: what of each line it bills, in pence. */
export const stages = sqliteTable(
	'stages',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id),
		kind: text('kind', { enum: STAGE_KINDS }).notNull(),
		/** What was asked for, in words: `10 % of 12,345.67`. */
		basis: text('basis').notNull(),
		/** An application asks first; the invoice follows when it is approved or paid. */
		state: text('state', { enum: ['applied', 'invoiced', 'dropped'] }).notNull(),
		applicationNumber: text('application_number'),
		appliedOn: text('applied_on'),
		documentId: integer('document_id').references(() => documents.id),
		amount: integer('amount').notNull(),
		createdAt: integer('created_at').notNull()
	},
	(table) => [
		index('stages_by_job').on(table.jobId, table.id),
		index('stages_by_document').on(table.documentId)
	]
);

export const stageParts = sqliteTable(
	'stage_parts',
	{
		stageId: integer('stage_id')
			.notNull()
			.references(() => stages.id, { onDelete: 'cascade' }),
		lineId: integer('line_id')
			.notNull()
			.references(() => jobLines.id),
		amount: integer('amount').notNull(),
		/** Its part of the line's cost, in pence; null where the line has none. */
		cost: integer('cost')
	},
	(table) => [
		primaryKey({ columns: [table.stageId, table.lineId] }),
		index('stage_parts_by_line').on(table.lineId)
	]
);

/** What an issued invoice held back, and the document that releases it. */
export const retentions = sqliteTable(
	'retentions',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		/** Whose lines it was held back from; null where they bill no job. */
		jobId: integer('job_id').references(() => jobs.id),
		amount: integer('amount').notNull(),
		dueOn: text('due_on').notNull(),
		releasedById: integer('released_by_id').references(() => documents.id)
	},
	(table) => [
		index('retentions_by_job').on(table.jobId),
		index('retentions_by_document').on(table.documentId),
		index('retentions_by_due').on(table.releasedById, table.dueOn)
	]
);
