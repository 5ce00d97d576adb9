CREATE TABLE `deduction_statements` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`contractor_id` integer NOT NULL,
	`month_end` text NOT NULL,
	`gross` integer NOT NULL,
	`materials` integer DEFAULT 0 NOT NULL,
	`deduction` integer NOT NULL,
	`reference` text DEFAULT '' NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`contractor_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `deduction_statements_once` ON `deduction_statements` (`contractor_id`,`month_end`);