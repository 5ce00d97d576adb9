CREATE TABLE `acceptances` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`quote_id` integer NOT NULL,
	`version_id` integer NOT NULL,
	`way` text NOT NULL,
	`name` text NOT NULL,
	`position` text DEFAULT '' NOT NULL,
	`order_number` text DEFAULT '' NOT NULL,
	`picked` text NOT NULL,
	`signature` blob,
	`at` integer NOT NULL,
	`agreed_on` text NOT NULL,
	`address` text DEFAULT '' NOT NULL,
	`agent` text DEFAULT '' NOT NULL,
	`law` text NOT NULL,
	`total` integer NOT NULL,
	`deposit` integer NOT NULL,
	`record` blob,
	`record_sha256` text DEFAULT '' NOT NULL,
	`received_on` text,
	`cancelled_on` text,
	`cancelled_how` text DEFAULT '' NOT NULL,
	`cancelled_at` integer,
	FOREIGN KEY (`quote_id`) REFERENCES `quotes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`version_id`) REFERENCES `quote_versions`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `acceptances_key_unique` ON `acceptances` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `acceptances_quote_id_unique` ON `acceptances` (`quote_id`);--> statement-breakpoint
CREATE TABLE `deposit_requests` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`quote_id` integer NOT NULL,
	`job_id` integer NOT NULL,
	`payer_id` integer NOT NULL,
	`amount` integer NOT NULL,
	`state` text NOT NULL,
	`asked_at` integer NOT NULL,
	`payment_id` integer,
	`document_id` integer,
	FOREIGN KEY (`quote_id`) REFERENCES `quotes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`payer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`payment_id`) REFERENCES `payments`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `deposit_requests_quote_id_unique` ON `deposit_requests` (`quote_id`);--> statement-breakpoint
CREATE INDEX `deposit_requests_by_state` ON `deposit_requests` (`state`);--> statement-breakpoint
CREATE TABLE `quote_questions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`quote_id` integer NOT NULL,
	`at` integer NOT NULL,
	`question` text NOT NULL,
	`answer` text DEFAULT '' NOT NULL,
	`answered_at` integer,
	FOREIGN KEY (`quote_id`) REFERENCES `quotes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `quote_questions_key_unique` ON `quote_questions` (`key`);--> statement-breakpoint
CREATE INDEX `quote_questions_by_quote` ON `quote_questions` (`quote_id`);--> statement-breakpoint
CREATE TABLE `quote_trail` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`quote_id` integer NOT NULL,
	`at` integer NOT NULL,
	`person_id` integer,
	`what` text NOT NULL,
	`detail` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`quote_id`) REFERENCES `quotes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `quote_trail_by_quote` ON `quote_trail` (`quote_id`,`id`);--> statement-breakpoint
CREATE TABLE `quote_versions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`quote_id` integer NOT NULL,
	`n` integer NOT NULL,
	`frozen` text NOT NULL,
	`valid_until` text NOT NULL,
	`total` integer NOT NULL,
	`name` text NOT NULL,
	`sha256` text NOT NULL,
	`content` blob NOT NULL,
	`sent_at` integer NOT NULL,
	FOREIGN KEY (`quote_id`) REFERENCES `quotes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `quote_versions_once` ON `quote_versions` (`quote_id`,`n`);--> statement-breakpoint
CREATE TABLE `quotes` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`number` text,
	`running` integer,
	`state` text NOT NULL,
	`customer_id` integer,
	`customer_name` text DEFAULT '' NOT NULL,
	`title` text DEFAULT '' NOT NULL,
	`work_kind_id` integer,
	`for_job_id` integer,
	`job_id` integer,
	`sheet` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`sent` integer DEFAULT 0 NOT NULL,
	`sent_at` integer,
	`token` text NOT NULL,
	`valid_until` text,
	`opened_at` integer,
	`answered_at` integer,
	`reason` text DEFAULT '' NOT NULL,
	`total` integer DEFAULT 0 NOT NULL,
	`lowest` integer,
	`highest` integer,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE set null,
	FOREIGN KEY (`work_kind_id`) REFERENCES `work_kinds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`for_job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `quotes_key_unique` ON `quotes` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `quotes_number_unique` ON `quotes` (`number`);--> statement-breakpoint
CREATE UNIQUE INDEX `quotes_token_unique` ON `quotes` (`token`);--> statement-breakpoint
CREATE INDEX `quotes_by_state` ON `quotes` (`state`,`sent_at`);--> statement-breakpoint
CREATE INDEX `quotes_by_customer` ON `quotes` (`customer_id`);--> statement-breakpoint
CREATE INDEX `quotes_by_job` ON `quotes` (`job_id`);--> statement-breakpoint
CREATE INDEX `quotes_for_job` ON `quotes` (`for_job_id`);--> statement-breakpoint
CREATE TABLE `stage_plans` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`position` integer NOT NULL,
	`title` text NOT NULL,
	`amount` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `stage_plans_by_job` ON `stage_plans` (`job_id`,`position`);--> statement-breakpoint
ALTER TABLE `checkouts` ADD `deposit_id` integer REFERENCES deposit_requests(id);--> statement-breakpoint
ALTER TABLE `mails` ADD `quote_id` integer REFERENCES quotes(id);--> statement-breakpoint
CREATE INDEX `mails_by_quote` ON `mails` (`quote_id`);--> statement-breakpoint
INSERT INTO number_series (kind, pattern, next, starts) SELECT 'quote', 'Q-{nnnn}', 1, '[]' WHERE EXISTS (SELECT 1 FROM number_series) AND NOT EXISTS (SELECT 1 FROM number_series WHERE kind = 'quote');
--> statement-breakpoint
CREATE TRIGGER quote_versions_no_update BEFORE UPDATE ON quote_versions
BEGIN SELECT RAISE(ABORT, 'a quote that was sent never changes'); END;
--> statement-breakpoint
CREATE TRIGGER quote_versions_no_delete BEFORE DELETE ON quote_versions
BEGIN SELECT RAISE(ABORT, 'a quote that was sent never changes'); END;
--> statement-breakpoint
CREATE TRIGGER acceptances_no_update BEFORE UPDATE OF quote_id, version_id, way, name, position, order_number, picked, signature, at, agreed_on, law, total, deposit ON acceptances
BEGIN SELECT RAISE(ABORT, 'what was accepted never changes'); END;
--> statement-breakpoint
CREATE TRIGGER acceptances_record_once BEFORE UPDATE OF record ON acceptances WHEN OLD.record IS NOT NULL
BEGIN SELECT RAISE(ABORT, 'the record of an acceptance never changes'); END;
--> statement-breakpoint
CREATE TRIGGER acceptances_no_delete BEFORE DELETE ON acceptances
BEGIN SELECT RAISE(ABORT, 'what was accepted never changes'); END;
