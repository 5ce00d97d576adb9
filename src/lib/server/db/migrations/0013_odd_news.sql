CREATE TABLE `odd_news` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`event_id` text NOT NULL,
	`type` text NOT NULL,
	`amount` integer NOT NULL,
	`why` text NOT NULL,
	`body` text NOT NULL,
	`received_at` integer NOT NULL,
	`decision` text,
	`decided_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `odd_news_event_id_unique` ON `odd_news` (`event_id`);