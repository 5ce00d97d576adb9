CREATE TABLE `letterheads` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`name` text NOT NULL,
	`look` text NOT NULL,
	`standard` integer DEFAULT false NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `letterheads_key_unique` ON `letterheads` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `letterheads_standard` ON `letterheads` (`standard`) WHERE standard = 1;--> statement-breakpoint
CREATE TABLE `logos` (
	`hash` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`content` blob NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `work_kinds` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`letterhead_id` integer,
	`archived_at` integer,
	FOREIGN KEY (`letterhead_id`) REFERENCES `letterheads`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `work_kinds_name` ON `work_kinds` (lower("name"));--> statement-breakpoint
ALTER TABLE `customers` ADD `letterhead_id` integer REFERENCES letterheads(id);--> statement-breakpoint
ALTER TABLE `documents` ADD `work_kind_id` integer REFERENCES work_kinds(id);--> statement-breakpoint
ALTER TABLE `jobs` ADD `work_kind_id` integer REFERENCES work_kinds(id);