CREATE TABLE `bank_imports` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`format` text NOT NULL,
	`state` text NOT NULL,
	`content` blob,
	`added` integer DEFAULT 0 NOT NULL,
	`known` integer DEFAULT 0 NOT NULL,
	`unread` integer DEFAULT 0 NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `bank_lines` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`import_id` integer NOT NULL,
	`account` text NOT NULL,
	`date` text NOT NULL,
	`amount` integer NOT NULL,
	`text` text NOT NULL,
	`payer` text NOT NULL,
	`reversal` integer DEFAULT false NOT NULL,
	`state` text NOT NULL,
	`payment_id` integer,
	`times` integer DEFAULT 0 NOT NULL,
	`proposal` text,
	`decided_at` integer,
	FOREIGN KEY (`import_id`) REFERENCES `bank_imports`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`payment_id`) REFERENCES `payments`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `bank_lines_key_unique` ON `bank_lines` (`key`);--> statement-breakpoint
CREATE INDEX `bank_lines_by_state` ON `bank_lines` (`state`,`date`);--> statement-breakpoint
CREATE TABLE `csv_layouts` (
	`headings` text PRIMARY KEY NOT NULL,
	`layout` text NOT NULL,
	`account` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `payer_names` (
	`name` text PRIMARY KEY NOT NULL,
	`payer_id` integer NOT NULL,
	`learned_at` integer NOT NULL,
	FOREIGN KEY (`payer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
