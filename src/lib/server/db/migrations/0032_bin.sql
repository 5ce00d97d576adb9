CREATE TABLE `bin` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`what` text NOT NULL,
	`row` text NOT NULL,
	`person_id` integer NOT NULL,
	`at` integer NOT NULL
);
