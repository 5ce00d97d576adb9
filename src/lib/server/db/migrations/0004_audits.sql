CREATE TABLE `audits` (
	`day` text PRIMARY KEY NOT NULL,
	`ran_at` integer NOT NULL,
	`found` integer NOT NULL,
	`words` text NOT NULL
);
