CREATE TABLE `job_sheets` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`job_id` integer NOT NULL,
	`n` integer NOT NULL,
	`token` text NOT NULL,
	`state` text NOT NULL,
	`written` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`number` text,
	`frozen` text,
	`finished_on` text,
	`pdf` blob,
	`sha256` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `job_sheets_key_unique` ON `job_sheets` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `job_sheets_token_unique` ON `job_sheets` (`token`);--> statement-breakpoint
CREATE UNIQUE INDEX `job_sheets_of_job` ON `job_sheets` (`job_id`,`n`);--> statement-breakpoint
CREATE UNIQUE INDEX `job_sheets_written` ON `job_sheets` (`job_id`) WHERE state = 'draft';--> statement-breakpoint
CREATE TABLE `signatures` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`document_id` integer,
	`sheet_id` integer,
	`what` text NOT NULL,
	`name` text NOT NULL,
	`position` text DEFAULT '' NOT NULL,
	`drawn` blob,
	`way` text NOT NULL,
	`at` integer NOT NULL,
	`address` text DEFAULT '' NOT NULL,
	`agent` text DEFAULT '' NOT NULL,
	`of_sha256` text NOT NULL,
	`record` blob,
	`record_sha256` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`sheet_id`) REFERENCES `job_sheets`(`id`) ON UPDATE no action ON DELETE no action,
	CONSTRAINT "signatures_of_one" CHECK(("signatures"."document_id" is not null) + ("signatures"."sheet_id" is not null) = 1)
);
--> statement-breakpoint
CREATE UNIQUE INDEX `signatures_key_unique` ON `signatures` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `signatures_document_id_unique` ON `signatures` (`document_id`);--> statement-breakpoint
CREATE UNIQUE INDEX `signatures_sheet_id_unique` ON `signatures` (`sheet_id`);--> statement-breakpoint
CREATE INDEX `signatures_to_draw` ON `signatures` (`id`) WHERE record is null;--> statement-breakpoint
ALTER TABLE `mails` ADD `sheet_id` integer REFERENCES job_sheets(id);--> statement-breakpoint
CREATE INDEX `mails_by_sheet` ON `mails` (`sheet_id`);--> statement-breakpoint
CREATE TRIGGER job_sheets_no_update BEFORE UPDATE ON job_sheets WHEN OLD.state = 'finished'
BEGIN SELECT RAISE(ABORT, 'a finished job sheet never changes'); END;
--> statement-breakpoint
CREATE TRIGGER signatures_no_update BEFORE UPDATE OF key, document_id, sheet_id, what, name, position, drawn, way, at, of_sha256 ON signatures
BEGIN SELECT RAISE(ABORT, 'what was signed never changes'); END;
--> statement-breakpoint
CREATE TRIGGER signatures_record_once BEFORE UPDATE OF record, record_sha256 ON signatures WHEN OLD.record IS NOT NULL
BEGIN SELECT RAISE(ABORT, 'the record of a signature never changes'); END;
--> statement-breakpoint
CREATE TRIGGER signatures_no_delete BEFORE DELETE ON signatures
BEGIN SELECT RAISE(ABORT, 'what was signed never changes'); END;
--> statement-breakpoint
CREATE TRIGGER job_sheets_no_delete BEFORE DELETE ON job_sheets WHEN OLD.state = 'finished'
BEGIN SELECT RAISE(ABORT, 'a finished job sheet never changes'); END;
--> statement-breakpoint
DROP TRIGGER quote_versions_no_delete;
--> statement-breakpoint
CREATE TRIGGER quote_versions_no_delete BEFORE DELETE ON quote_versions
WHEN NOT EXISTS (SELECT 1 FROM quotes q JOIN removals r ON r.customer_id = q.customer_id WHERE q.id = OLD.quote_id AND q.state NOT IN ('accepted', 'cancelled'))
BEGIN SELECT RAISE(ABORT, 'a quote that was sent never changes'); END;
