// Words of messages that the owner changed.
import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { WORDING_KINDS } from '../../../core/wordings/kinds';

export const wordings = sqliteTable('wordings', {
	kind: text('kind', { enum: WORDING_KINDS }).primaryKey(),
	/** Empty of a text message. */
	subject: text('subject').notNull(),
	/** With fields in braces, filled when a message is made. */
	text: text('text').notNull(),
	version: integer('version').notNull(),
	updatedAt: integer('updated_at').notNull()
});
