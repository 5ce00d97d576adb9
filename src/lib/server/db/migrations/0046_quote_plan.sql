CREATE TABLE `quote_plan` (
	`id` integer PRIMARY KEY NOT NULL,
	`steps` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `quotes` ADD `quiet` integer DEFAULT false NOT NULL;