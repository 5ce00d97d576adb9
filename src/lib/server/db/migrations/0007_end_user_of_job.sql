ALTER TABLE `jobs` ADD `end_user_statement` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `end_user_date` text;