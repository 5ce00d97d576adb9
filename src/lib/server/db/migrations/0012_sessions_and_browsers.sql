CREATE TABLE `known_browsers` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`used_at` integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE `sessions` ADD `seen_at` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `sessions` ADD `device` text DEFAULT '' NOT NULL;