CREATE TABLE `wordings` (
	`kind` text PRIMARY KEY NOT NULL,
	`subject` text NOT NULL,
	`text` text NOT NULL,
	`version` integer NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE `customers` ADD `salutation` text DEFAULT '' NOT NULL;