CREATE TABLE `breathing_spaces` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`customer_id` integer NOT NULL,
	`from` text NOT NULL,
	`to` text NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `breathing_spaces_key_unique` ON `breathing_spaces` (`key`);--> statement-breakpoint
CREATE INDEX `breathing_spaces_by_customer` ON `breathing_spaces` (`customer_id`,`from`);