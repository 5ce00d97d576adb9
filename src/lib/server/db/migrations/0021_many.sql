CREATE TABLE `many_rows` (
	`run_id` integer NOT NULL,
	`row_id` integer NOT NULL,
	`state` text NOT NULL,
	`why` text DEFAULT '' NOT NULL,
	PRIMARY KEY(`run_id`, `row_id`),
	FOREIGN KEY (`run_id`) REFERENCES `many_runs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `many_rows_by_state` ON `many_rows` (`run_id`,`state`,`row_id`);--> statement-breakpoint
CREATE TABLE `many_runs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`list` text NOT NULL,
	`view` text,
	`action` text,
	`state` text NOT NULL,
	`created_at` integer NOT NULL,
	`ended_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `many_runs_key_unique` ON `many_runs` (`key`);--> statement-breakpoint
CREATE INDEX `many_runs_by_state` ON `many_runs` (`state`);