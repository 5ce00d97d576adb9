CREATE TABLE `backup_settings` (
	`id` integer PRIMARY KEY NOT NULL,
	`folder` text DEFAULT '' NOT NULL,
	`sealed` integer DEFAULT false NOT NULL,
	`updated_at` integer NOT NULL,
	CONSTRAINT "one_backup_settings" CHECK("backup_settings"."id" = 1)
);
--> statement-breakpoint
CREATE TABLE `backups` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`started_at` integer NOT NULL,
	`ended_at` integer,
	`why` text NOT NULL,
	`name` text NOT NULL,
	`bytes` integer DEFAULT 0 NOT NULL,
	`files` integer DEFAULT 0 NOT NULL,
	`found` integer DEFAULT 0 NOT NULL,
	`problem` text DEFAULT '' NOT NULL,
	`second_at` integer,
	`second_problem` text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE TABLE `removals` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`customer_id` integer NOT NULL,
	`at` integer NOT NULL,
	`what` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `restores` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`made_at` integer NOT NULL,
	`restored_at` integer NOT NULL,
	`started_at` integer,
	`missing` text DEFAULT '[]' NOT NULL
);
--> statement-breakpoint
CREATE TABLE `secrets` (
	`name` text PRIMARY KEY NOT NULL,
	`sealed` blob NOT NULL
);
--> statement-breakpoint
PRAGMA foreign_keys=OFF;--> statement-breakpoint
CREATE TABLE `__new_job_files` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`name` text NOT NULL,
	`type` text NOT NULL,
	`sha256` text NOT NULL,
	`stored` text,
	`content` blob,
	`thumbnail` blob,
	`added_at` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
INSERT INTO `__new_job_files`("id", "job_id", "name", "type", "sha256", "stored", "content", "thumbnail", "added_at") SELECT "id", "job_id", "name", "type", "sha256", NULL, "content", "thumbnail", "added_at" FROM `job_files`;--> statement-breakpoint
DROP TABLE `job_files`;--> statement-breakpoint
ALTER TABLE `__new_job_files` RENAME TO `job_files`;--> statement-breakpoint
PRAGMA foreign_keys=ON;--> statement-breakpoint
CREATE UNIQUE INDEX `job_files_once` ON `job_files` (`job_id`,`sha256`);