CREATE TABLE `list_views` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`list` text NOT NULL,
	`name` text NOT NULL,
	`address` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `list_views_name` ON `list_views` (`list`,`name`);