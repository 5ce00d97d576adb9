CREATE TABLE `watched_changes` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` integer NOT NULL,
	`what` text NOT NULL,
	`detail` text NOT NULL,
	`device` text NOT NULL
);
