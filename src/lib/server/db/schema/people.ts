// Who may sign in. The owner comes first; the last one cannot go.
import { sql } from 'drizzle-orm';
import { blob, index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { ROLES } from '../../../core/people/roles';

export const people = sqliteTable(
	'people',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		name: text('name').notNull(),
		email: text('email').notNull().default(''),
		role: text('role', { enum: ROLES }).notNull(),
		/** On site: sees what is charged for the work. */
		seesPrices: integer('sees_prices', { mode: 'boolean' }).notNull().default(false),
		/** Null until the invitation is taken. */
		passwordHash: text('password_hash'),
		/** The hash of what the link of the invitation carries, and until when it holds. */
		invitedHash: text('invited_hash').unique(),
		invitedUntil: integer('invited_until'),
		/** The secret of the second factor, sealed; null: none. */
		factor: text('factor'),
		/** The step of the code that was used last: no code holds twice. */
		factorStep: integer('factor_step'),
		/** Hashes of the recovery codes that are left. */
		recovery: text('recovery', { mode: 'json' }).$type<string[]>().notNull().default([]),
		createdAt: integer('created_at').notNull(),
		removedAt: integer('removed_at')
	},
	(table) => [
		uniqueIndex('people_email')
			.on(sql`lower(${table.email})`)
			.where(sql`removed_at is null and email <> ''`)
	]
);

/** A key that a phone, a laptop or a stick keeps, with which somebody signs in without a password. */
export const passkeys = sqliteTable(
	'passkeys',
	{
		/** As the device names it. */
		id: text('id').primaryKey(),
		personId: integer('person_id')
			.notNull()
			.references(() => people.id),
		name: text('name').notNull(),
		publicKey: blob('public_key', { mode: 'buffer' }).notNull(),
		/** Counts its uses, where the device does: one that goes back has been copied. */
		counter: integer('counter').notNull(),
		transports: text('transports', { mode: 'json' }).$type<string[]>().notNull().default([]),
		createdAt: integer('created_at').notNull(),
		usedAt: integer('used_at')
	},
	(table) => [index('passkeys_by_person').on(table.personId)]
);
