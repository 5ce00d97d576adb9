CREATE TABLE `pack_links` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`token_hash` text NOT NULL,
	`from` text NOT NULL,
	`to` text NOT NULL,
	`basis` text NOT NULL,
	`sent_to` text NOT NULL,
	`person_id` integer,
	`created_at` integer NOT NULL,
	`until` integer NOT NULL,
	`taken_at` integer,
	`revoked_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `pack_links_key_unique` ON `pack_links` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `pack_links_token_hash_unique` ON `pack_links` (`token_hash`);