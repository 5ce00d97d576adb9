CREATE TABLE `passkeys` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` integer NOT NULL,
	`name` text NOT NULL,
	`public_key` blob NOT NULL,
	`counter` integer NOT NULL,
	`transports` text DEFAULT '[]' NOT NULL,
	`created_at` integer NOT NULL,
	`used_at` integer,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `passkeys_by_person` ON `passkeys` (`person_id`);