CREATE TABLE `kit_parts` (
	`kit_id` integer NOT NULL,
	`position` integer NOT NULL,
	`item_id` integer NOT NULL,
	`quantity` text NOT NULL,
	PRIMARY KEY(`kit_id`, `position`),
	FOREIGN KEY (`kit_id`) REFERENCES `price_items`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`item_id`) REFERENCES `price_items`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `kit_parts_by_item` ON `kit_parts` (`item_id`);--> statement-breakpoint
CREATE TABLE `price_items` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`code` text DEFAULT '' NOT NULL,
	`name` text NOT NULL,
	`text` text DEFAULT '' NOT NULL,
	`kind` text NOT NULL,
	`unit` text DEFAULT '' NOT NULL,
	`unit_price` text DEFAULT '' NOT NULL,
	`cost` text DEFAULT '' NOT NULL,
	`vat` text DEFAULT 'standard' NOT NULL,
	`vat_reason` text DEFAULT '' NOT NULL,
	`category` text DEFAULT '' NOT NULL,
	`kit` text,
	`used` integer DEFAULT 0 NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `price_items_by_code` ON `price_items` (`code`) WHERE code <> '';--> statement-breakpoint
CREATE INDEX `price_items_by_name` ON `price_items` (`name`);--> statement-breakpoint
CREATE INDEX `price_items_by_category` ON `price_items` (`category`,`name`);--> statement-breakpoint
CREATE TABLE `price_pictures` (
	`item_id` integer PRIMARY KEY NOT NULL,
	`type` text NOT NULL,
	`content` blob NOT NULL,
	FOREIGN KEY (`item_id`) REFERENCES `price_items`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `billed_parts` (
	`type` text NOT NULL,
	`part_id` integer NOT NULL,
	`job_id` integer NOT NULL,
	`document_id` integer NOT NULL,
	PRIMARY KEY(`type`, `part_id`),
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `billed_parts_by_document` ON `billed_parts` (`document_id`);--> statement-breakpoint
CREATE INDEX `billed_parts_by_job` ON `billed_parts` (`job_id`);--> statement-breakpoint
CREATE TABLE `job_costs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`job_id` integer NOT NULL,
	`visit_id` integer,
	`date` text NOT NULL,
	`kind` text NOT NULL,
	`description` text NOT NULL,
	`quantity` text NOT NULL,
	`unit` text DEFAULT '' NOT NULL,
	`unit_cost` text NOT NULL,
	`mark_up` text DEFAULT '' NOT NULL,
	`unit_price` text DEFAULT '' NOT NULL,
	`vat` text DEFAULT 'standard' NOT NULL,
	`vat_reason` text DEFAULT '' NOT NULL,
	`chargeable` integer NOT NULL,
	`item_id` integer,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`visit_id`) REFERENCES `visits`(`id`) ON UPDATE no action ON DELETE set null,
	FOREIGN KEY (`item_id`) REFERENCES `price_items`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE UNIQUE INDEX `job_costs_key_unique` ON `job_costs` (`key`);--> statement-breakpoint
CREATE INDEX `job_costs_by_job` ON `job_costs` (`job_id`,`date`);--> statement-breakpoint
CREATE TABLE `job_files` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`name` text NOT NULL,
	`type` text NOT NULL,
	`sha256` text NOT NULL,
	`content` blob NOT NULL,
	`thumbnail` blob,
	`added_at` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `job_files_once` ON `job_files` (`job_id`,`sha256`);--> statement-breakpoint
CREATE TABLE `job_lines` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`position` integer NOT NULL,
	`kind` text NOT NULL,
	`description` text NOT NULL,
	`quantity` text NOT NULL,
	`unit` text DEFAULT '' NOT NULL,
	`unit_price` text NOT NULL,
	`vat` text DEFAULT 'standard' NOT NULL,
	`vat_reason` text DEFAULT '' NOT NULL,
	`discount` text DEFAULT '' NOT NULL,
	`cost` text DEFAULT '' NOT NULL,
	`extra` integer DEFAULT false NOT NULL,
	`item_id` integer,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`item_id`) REFERENCES `price_items`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE INDEX `job_lines_by_job` ON `job_lines` (`job_id`,`position`);--> statement-breakpoint
CREATE TABLE `job_trail` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`at` integer NOT NULL,
	`what` text NOT NULL,
	`detail` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `job_trail_by_job` ON `job_trail` (`job_id`,`id`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`number` text NOT NULL,
	`title` text NOT NULL,
	`customer_id` integer NOT NULL,
	`site_id` integer,
	`bill_to_id` integer,
	`contract` text,
	`contract_reason` text DEFAULT '' NOT NULL,
	`description` text DEFAULT '' NOT NULL,
	`private_note` text DEFAULT '' NOT NULL,
	`labels` text DEFAULT '[]' NOT NULL,
	`state` text NOT NULL,
	`fixed_price` integer DEFAULT true NOT NULL,
	`prices_include_vat` integer DEFAULT false NOT NULL,
	`hourly_rate` text DEFAULT '' NOT NULL,
	`hourly_cost` text DEFAULT '' NOT NULL,
	`retention` text DEFAULT '' NOT NULL,
	`retention_due` text,
	`finished_on` text,
	`worked` integer DEFAULT 0 NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`site_id`) REFERENCES `sites`(`id`) ON UPDATE no action ON DELETE set null,
	FOREIGN KEY (`bill_to_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `jobs_key_unique` ON `jobs` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `jobs_number_unique` ON `jobs` (`number`);--> statement-breakpoint
CREATE INDEX `jobs_by_state` ON `jobs` (`state`,`finished_on`);--> statement-breakpoint
CREATE INDEX `jobs_by_customer` ON `jobs` (`customer_id`);--> statement-breakpoint
CREATE TABLE `retentions` (
	`document_id` integer PRIMARY KEY NOT NULL,
	`job_id` integer,
	`amount` integer NOT NULL,
	`due_on` text NOT NULL,
	`released_by_id` integer,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`released_by_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `retentions_by_job` ON `retentions` (`job_id`);--> statement-breakpoint
CREATE INDEX `retentions_by_due` ON `retentions` (`released_by_id`,`due_on`);--> statement-breakpoint
CREATE TABLE `stage_parts` (
	`stage_id` integer NOT NULL,
	`line_id` integer NOT NULL,
	`amount` integer NOT NULL,
	`cost` integer,
	PRIMARY KEY(`stage_id`, `line_id`),
	FOREIGN KEY (`stage_id`) REFERENCES `stages`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`line_id`) REFERENCES `job_lines`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `stage_parts_by_line` ON `stage_parts` (`line_id`);--> statement-breakpoint
CREATE TABLE `stages` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`job_id` integer NOT NULL,
	`kind` text NOT NULL,
	`basis` text NOT NULL,
	`state` text NOT NULL,
	`application_number` text,
	`applied_on` text,
	`document_id` integer,
	`amount` integer NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `stages_key_unique` ON `stages` (`key`);--> statement-breakpoint
CREATE INDEX `stages_by_job` ON `stages` (`job_id`,`id`);--> statement-breakpoint
CREATE INDEX `stages_by_document` ON `stages` (`document_id`);--> statement-breakpoint
CREATE TABLE `time_entries` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`job_id` integer NOT NULL,
	`visit_id` integer,
	`date` text NOT NULL,
	`person` text DEFAULT '' NOT NULL,
	`started_at` integer,
	`minutes` integer,
	`rate` text DEFAULT '' NOT NULL,
	`hourly_cost` text DEFAULT '' NOT NULL,
	`chargeable` integer NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`visit_id`) REFERENCES `visits`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE UNIQUE INDEX `time_entries_key_unique` ON `time_entries` (`key`);--> statement-breakpoint
CREATE INDEX `time_entries_by_job` ON `time_entries` (`job_id`,`date`);--> statement-breakpoint
CREATE UNIQUE INDEX `time_entries_running` ON `time_entries` ((1)) WHERE minutes is null;--> statement-breakpoint
CREATE TABLE `visits` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`date` text NOT NULL,
	`from` text DEFAULT '' NOT NULL,
	`to` text DEFAULT '' NOT NULL,
	`person` text DEFAULT '' NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`done` integer DEFAULT false NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `visits_by_date` ON `visits` (`date`,`from`);--> statement-breakpoint
CREATE INDEX `visits_by_job` ON `visits` (`job_id`,`date`);--> statement-breakpoint
CREATE TABLE `bill_run_steps` (
	`run_id` integer NOT NULL,
	`position` integer NOT NULL,
	`customer_id` integer NOT NULL,
	`customer_name` text NOT NULL,
	`job_ids` text NOT NULL,
	`worked` text NOT NULL,
	`total` integer NOT NULL,
	`sheet` text NOT NULL,
	`state` text NOT NULL,
	`document_id` integer,
	`note` text DEFAULT '' NOT NULL,
	PRIMARY KEY(`run_id`, `position`),
	FOREIGN KEY (`run_id`) REFERENCES `bill_runs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE TABLE `bill_runs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`action` text NOT NULL,
	`state` text NOT NULL,
	`choice` text NOT NULL,
	`created_at` integer NOT NULL,
	`ended_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `bill_runs_key_unique` ON `bill_runs` (`key`);--> statement-breakpoint
CREATE TABLE `repeat_changes` (
	`repeat_id` integer NOT NULL,
	`from` text NOT NULL,
	`sheet` text NOT NULL,
	PRIMARY KEY(`repeat_id`, `from`),
	FOREIGN KEY (`repeat_id`) REFERENCES `repeats`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `repeat_occurrences` (
	`repeat_id` integer NOT NULL,
	`nominal` text NOT NULL,
	`date` text NOT NULL,
	`document_id` integer,
	`state` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`next_attempt_on` text,
	`note` text DEFAULT '' NOT NULL,
	PRIMARY KEY(`repeat_id`, `nominal`),
	FOREIGN KEY (`repeat_id`) REFERENCES `repeats`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE INDEX `repeat_occurrences_by_state` ON `repeat_occurrences` (`state`,`next_attempt_on`);--> statement-breakpoint
CREATE TABLE `repeats` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`name` text NOT NULL,
	`customer_id` integer NOT NULL,
	`job_id` integer,
	`rule` text NOT NULL,
	`sheet` text NOT NULL,
	`action` text NOT NULL,
	`state` text NOT NULL,
	`skipped` text DEFAULT '[]' NOT NULL,
	`made_from` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `repeats_key_unique` ON `repeats` (`key`);--> statement-breakpoint
CREATE INDEX `repeats_by_state` ON `repeats` (`state`);--> statement-breakpoint
CREATE TABLE `saved_cards` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`customer_id` integer NOT NULL,
	`token` text NOT NULL,
	`last_digits` text NOT NULL,
	`consent_at` integer NOT NULL,
	`revoked_at` integer,
	`revoked_by` text,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `saved_cards_by_customer` ON `saved_cards` (`customer_id`,`revoked_at`);--> statement-breakpoint
CREATE UNIQUE INDEX `saved_cards_token` ON `saved_cards` (`token`);--> statement-breakpoint
CREATE TABLE `starting_points` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`sheet` text NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `starting_points_name_unique` ON `starting_points` (`name`);--> statement-breakpoint
ALTER TABLE `customers` ADD `labels` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `sites` ADD `bill_to_id` integer REFERENCES customers(id);--> statement-breakpoint
ALTER TABLE `document_lines` ADD `without_vat` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `document_lines` ADD `job_id` integer;--> statement-breakpoint
ALTER TABLE `document_lines` ADD `tax_point` text;--> statement-breakpoint
CREATE INDEX `document_lines_by_job` ON `document_lines` (`job_id`);--> statement-breakpoint
ALTER TABLE `journal_lines` ADD `job_id` integer;--> statement-breakpoint
CREATE INDEX `journal_lines_by_job` ON `journal_lines` (`job_id`);