CREATE TABLE `diary_blocks` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`person_id` integer,
	`from` text NOT NULL,
	`to` text NOT NULL,
	`title` text NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `diary_blocks_by_day` ON `diary_blocks` (`from`,`to`);--> statement-breakpoint
CREATE TABLE `diary_feeds` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`person_id` integer NOT NULL,
	`token` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `diary_feeds_person_id_unique` ON `diary_feeds` (`person_id`);--> statement-breakpoint
CREATE UNIQUE INDEX `diary_feeds_token_unique` ON `diary_feeds` (`token`);--> statement-breakpoint
CREATE TABLE `diary_settings` (
	`id` integer PRIMARY KEY NOT NULL,
	`from` text DEFAULT '08:00' NOT NULL,
	`to` text DEFAULT '17:00' NOT NULL,
	`arrival_minutes` integer DEFAULT 120 NOT NULL,
	`day_before` integer DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE `document_signatures` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`document_id` integer NOT NULL,
	`what` text NOT NULL,
	`name` text NOT NULL,
	`signature` blob,
	`at` integer NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `document_signatures_key_unique` ON `document_signatures` (`key`);--> statement-breakpoint
CREATE INDEX `document_signatures_by_document` ON `document_signatures` (`document_id`);--> statement-breakpoint
CREATE TABLE `job_sheets` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`job_id` integer NOT NULL,
	`made_on` text NOT NULL,
	`with_prices` integer NOT NULL,
	`signed_by` text DEFAULT '' NOT NULL,
	`signature` blob,
	`signed_at` integer,
	`pdf` blob NOT NULL,
	`sent_to` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `job_sheets_key_unique` ON `job_sheets` (`key`);--> statement-breakpoint
CREATE INDEX `job_sheets_by_job` ON `job_sheets` (`job_id`);--> statement-breakpoint
CREATE TABLE `told` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`visit_id` integer,
	`job_id` integer NOT NULL,
	`kind` text NOT NULL,
	`date` text NOT NULL,
	`arrival` text DEFAULT '' NOT NULL,
	`sequence` integer NOT NULL,
	`to` text NOT NULL,
	`token` text NOT NULL,
	`at` integer NOT NULL,
	`answer` text DEFAULT '' NOT NULL,
	`words` text DEFAULT '' NOT NULL,
	`answered_at` integer,
	FOREIGN KEY (`visit_id`) REFERENCES `visits`(`id`) ON UPDATE no action ON DELETE set null,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `told_key_unique` ON `told` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `told_token_unique` ON `told` (`token`);--> statement-breakpoint
CREATE INDEX `told_by_visit` ON `told` (`visit_id`);--> statement-breakpoint
CREATE INDEX `told_by_job` ON `told` (`job_id`);--> statement-breakpoint
CREATE TABLE `visit_people` (
	`visit_id` integer NOT NULL,
	`person_id` integer NOT NULL,
	PRIMARY KEY(`visit_id`, `person_id`),
	FOREIGN KEY (`visit_id`) REFERENCES `visits`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `visit_people_by_person` ON `visit_people` (`person_id`);--> statement-breakpoint
ALTER TABLE `visits` ADD `end_date` text;--> statement-breakpoint
ALTER TABLE `visits` ADD `pencil` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `visits` ADD `arrive_from` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `visits` ADD `arrive_to` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `visits` ADD `needs` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `visits` ADD `series` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `visits` ADD `sequence` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `visits_by_series` ON `visits` (`series`,`date`) WHERE series <> '';