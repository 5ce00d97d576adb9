CREATE TABLE `links` (
	`token` text PRIMARY KEY NOT NULL,
	`now` text,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `links_now_unique` ON `links` (`now`);