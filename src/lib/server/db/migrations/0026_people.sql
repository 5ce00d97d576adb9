CREATE TABLE `people` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`email` text DEFAULT '' NOT NULL,
	`role` text NOT NULL,
	`sees_prices` integer DEFAULT false NOT NULL,
	`password_hash` text,
	`invited_hash` text,
	`invited_until` integer,
	`factor` text,
	`factor_step` integer,
	`recovery` text DEFAULT '[]' NOT NULL,
	`created_at` integer NOT NULL,
	`removed_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `people_invited_hash_unique` ON `people` (`invited_hash`);--> statement-breakpoint
CREATE UNIQUE INDEX `people_email` ON `people` (lower("email")) WHERE removed_at is null and email <> '';--> statement-breakpoint
DROP INDEX `time_entries_running`;--> statement-breakpoint
ALTER TABLE `time_entries` ADD `person_id` integer REFERENCES people(id);--> statement-breakpoint
CREATE UNIQUE INDEX `time_entries_running` ON `time_entries` ((1)) WHERE minutes is null and person_id is null;--> statement-breakpoint
CREATE UNIQUE INDEX `time_entries_running_by` ON `time_entries` (`person_id`) WHERE minutes is null;--> statement-breakpoint
ALTER TABLE `job_trail` ADD `person_id` integer;--> statement-breakpoint
ALTER TABLE `visits` ADD `person_id` integer REFERENCES people(id);--> statement-breakpoint
CREATE INDEX `visits_by_person` ON `visits` (`person_id`,`date`);