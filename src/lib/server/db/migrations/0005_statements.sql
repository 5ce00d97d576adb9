CREATE TABLE `statement_runs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`options` text NOT NULL,
	`action` text NOT NULL,
	`state` text NOT NULL,
	`created_at` integer NOT NULL,
	`finished_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `statement_runs_key_unique` ON `statement_runs` (`key`);--> statement-breakpoint
CREATE TABLE `statements` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`run_id` integer NOT NULL,
	`payer_id` integer NOT NULL,
	`state` text NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`token` text,
	`view` text,
	`balance` integer DEFAULT 0 NOT NULL,
	`pdf` blob,
	`made_at` integer,
	`opened_at` integer,
	FOREIGN KEY (`run_id`) REFERENCES `statement_runs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`payer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `statements_token_unique` ON `statements` (`token`);--> statement-breakpoint
CREATE INDEX `statements_by_run` ON `statements` (`run_id`,`state`);--> statement-breakpoint
CREATE INDEX `statements_by_payer` ON `statements` (`payer_id`,`made_at`);--> statement-breakpoint
ALTER TABLE `checkouts` ADD `payer_id` integer REFERENCES customers(id);--> statement-breakpoint
ALTER TABLE `checkouts` ADD `statement_id` integer REFERENCES statements(id);--> statement-breakpoint
ALTER TABLE `checkouts` ADD `shares` text;--> statement-breakpoint
ALTER TABLE `mails` ADD `statement_id` integer REFERENCES statements(id);