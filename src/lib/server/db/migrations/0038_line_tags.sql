CREATE TABLE `line_tags` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sort` text NOT NULL,
	`name` text NOT NULL,
	`archived_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `line_tags_name` ON `line_tags` (`sort`,lower("name"));--> statement-breakpoint
ALTER TABLE `purchases` ADD `centre` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `price_items` ADD `income` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `job_lines` ADD `income` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `job_lines` ADD `centre` text DEFAULT '' NOT NULL;