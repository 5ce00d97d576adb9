CREATE TABLE `text_replies` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`event_id` text NOT NULL,
	`from` text NOT NULL,
	`text` text NOT NULL,
	`at` integer NOT NULL,
	`customer_id` integer,
	`text_id` integer,
	`seen_at` integer,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE set null,
	FOREIGN KEY (`text_id`) REFERENCES `texts`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `text_replies_event_id_unique` ON `text_replies` (`event_id`);--> statement-breakpoint
CREATE INDEX `text_replies_by_seen` ON `text_replies` (`seen_at`,`id`);--> statement-breakpoint
CREATE INDEX `text_replies_by_customer` ON `text_replies` (`customer_id`);--> statement-breakpoint
CREATE TABLE `text_stops` (
	`number` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `job_materials` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`job_id` integer NOT NULL,
	`what` text NOT NULL,
	`expected_on` text,
	`here_on` text,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `job_materials_key_unique` ON `job_materials` (`key`);--> statement-breakpoint
CREATE INDEX `job_materials_by_job` ON `job_materials` (`job_id`);--> statement-breakpoint
CREATE TABLE `quote_trials` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`quote_id` integer NOT NULL,
	`token` text NOT NULL,
	`frozen` text NOT NULL,
	`valid_until` text NOT NULL,
	`pdf` blob NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`quote_id`) REFERENCES `quotes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `quote_trials_token_unique` ON `quote_trials` (`token`);--> statement-breakpoint
CREATE INDEX `quote_trials_by_quote` ON `quote_trials` (`quote_id`);--> statement-breakpoint
ALTER TABLE `business` ADD `text_price` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `sites` ADD `contact_name` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `sites` ADD `contact_email` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `sites` ADD `contact_phone` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `mails` ADD `quote_trial_id` integer REFERENCES quote_trials(id);--> statement-breakpoint
ALTER TABLE `texts` ADD `round` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `texts_by_number` ON `texts` (`to`,`id`);--> statement-breakpoint
ALTER TABLE `visits` ADD `travel` integer;--> statement-breakpoint
ALTER TABLE `deposit_requests` ADD `deduction` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `diary_settings` ADD `travel_minutes` integer DEFAULT 15 NOT NULL;