CREATE TABLE `moved_rows` (
	`moving_id` integer NOT NULL,
	`what` text NOT NULL,
	`row_id` integer NOT NULL,
	PRIMARY KEY(`what`, `row_id`),
	FOREIGN KEY (`moving_id`) REFERENCES `movings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `movings` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`kind` text NOT NULL,
	`name` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `movings_key_unique` ON `movings` (`key`);--> statement-breakpoint
CREATE TABLE `taken_back` (
	`what` text NOT NULL,
	`row_id` integer NOT NULL,
	`name` text NOT NULL,
	`person_id` integer,
	`at` integer NOT NULL,
	PRIMARY KEY(`what`, `row_id`)
);
--> statement-breakpoint
-- What was brought in from other books may be taken back; nothing else ever.
CREATE TRIGGER taken_back_brought_in BEFORE INSERT ON taken_back
WHEN NOT CASE NEW.what
	WHEN 'document' THEN EXISTS (SELECT 1 FROM documents WHERE id = NEW.row_id AND origin = 'opening')
	WHEN 'payment' THEN EXISTS (SELECT 1 FROM payments WHERE id = NEW.row_id AND source = 'opening')
	WHEN 'entry' THEN EXISTS (SELECT 1 FROM journal_entries e JOIN documents d ON e.key = 'issue:' || d.id WHERE e.id = NEW.row_id AND d.origin = 'opening')
		OR EXISTS (SELECT 1 FROM journal_entries e JOIN payments p ON e.key = 'payment:' || p.id WHERE e.id = NEW.row_id AND p.source = 'opening')
	ELSE 0 END
BEGIN SELECT RAISE(ABORT, 'only what was brought in is taken back'); END;
--> statement-breakpoint
CREATE TRIGGER taken_back_no_update BEFORE UPDATE ON taken_back
BEGIN SELECT RAISE(ABORT, 'what was taken back stays so'); END;
--> statement-breakpoint
CREATE TRIGGER taken_back_no_delete BEFORE DELETE ON taken_back
BEGIN SELECT RAISE(ABORT, 'what was taken back stays so'); END;
--> statement-breakpoint
DROP TRIGGER documents_issued_no_delete;
--> statement-breakpoint
CREATE TRIGGER documents_issued_no_delete BEFORE DELETE ON documents WHEN OLD.state = 'issued'
	AND NOT EXISTS (SELECT 1 FROM taken_back WHERE what = 'document' AND row_id = OLD.id)
BEGIN SELECT RAISE(ABORT, 'an issued document is never deleted'); END;
--> statement-breakpoint
DROP TRIGGER document_lines_no_delete;
--> statement-breakpoint
CREATE TRIGGER document_lines_no_delete BEFORE DELETE ON document_lines
WHEN NOT EXISTS (SELECT 1 FROM taken_back WHERE what = 'document' AND row_id = OLD.document_id)
BEGIN SELECT RAISE(ABORT, 'the lines of a document are never deleted'); END;
--> statement-breakpoint
DROP TRIGGER document_files_no_delete;
--> statement-breakpoint
CREATE TRIGGER document_files_no_delete BEFORE DELETE ON document_files
WHEN NOT EXISTS (SELECT 1 FROM taken_back WHERE what = 'document' AND row_id = OLD.document_id)
BEGIN SELECT RAISE(ABORT, 'a stored document is never deleted'); END;
--> statement-breakpoint
DROP TRIGGER tax_points_no_delete;
--> statement-breakpoint
CREATE TRIGGER tax_points_no_delete BEFORE DELETE ON tax_points
WHEN NOT EXISTS (SELECT 1 FROM taken_back WHERE what = 'document' AND row_id = OLD.document_id)
BEGIN SELECT RAISE(ABORT, 'an issued document never changes'); END;
--> statement-breakpoint
DROP TRIGGER journal_entries_no_delete;
--> statement-breakpoint
CREATE TRIGGER journal_entries_no_delete BEFORE DELETE ON journal_entries
WHEN NOT EXISTS (SELECT 1 FROM taken_back WHERE what = 'entry' AND row_id = OLD.id)
BEGIN SELECT RAISE(ABORT, 'the journal is only added to'); END;
--> statement-breakpoint
DROP TRIGGER journal_lines_no_delete;
--> statement-breakpoint
CREATE TRIGGER journal_lines_no_delete BEFORE DELETE ON journal_lines
WHEN NOT EXISTS (SELECT 1 FROM taken_back WHERE what = 'entry' AND row_id = OLD.entry_id)
BEGIN SELECT RAISE(ABORT, 'the journal is only added to'); END;
--> statement-breakpoint
DROP TRIGGER payments_no_delete;
--> statement-breakpoint
CREATE TRIGGER payments_no_delete BEFORE DELETE ON payments
WHEN NOT EXISTS (SELECT 1 FROM taken_back WHERE what = 'payment' AND row_id = OLD.id)
BEGIN SELECT RAISE(ABORT, 'a recorded payment is never deleted'); END;
--> statement-breakpoint
DROP TRIGGER allocations_no_delete;
--> statement-breakpoint
CREATE TRIGGER allocations_no_delete BEFORE DELETE ON allocations
WHEN NOT EXISTS (SELECT 1 FROM taken_back WHERE what = 'payment' AND row_id = OLD.payment_id)
BEGIN SELECT RAISE(ABORT, 'what a payment settles never changes'); END;
