CREATE TABLE `enquiries` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`state` text NOT NULL,
	`came` text NOT NULL,
	`customer_id` integer,
	`name` text NOT NULL,
	`email` text DEFAULT '' NOT NULL,
	`phone` text DEFAULT '' NOT NULL,
	`place` text DEFAULT '' NOT NULL,
	`what` text NOT NULL,
	`wanted` text DEFAULT '' NOT NULL,
	`source` text DEFAULT '' NOT NULL,
	`work_kind_id` integer,
	`answers` text DEFAULT '[]' NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`job_id` integer,
	`reason` text DEFAULT '' NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`moved_at` integer NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`work_kind_id`) REFERENCES `work_kinds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `enquiries_key_unique` ON `enquiries` (`key`);--> statement-breakpoint
CREATE INDEX `enquiries_by_state` ON `enquiries` (`state`,`moved_at`);--> statement-breakpoint
CREATE INDEX `enquiries_by_customer` ON `enquiries` (`customer_id`);--> statement-breakpoint
CREATE INDEX `enquiries_by_job` ON `enquiries` (`job_id`);--> statement-breakpoint
CREATE TABLE `enquiry_page` (
	`id` integer PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`on` integer NOT NULL,
	`intro` text DEFAULT '' NOT NULL,
	`next` text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `enquiry_page_token_unique` ON `enquiry_page` (`token`);--> statement-breakpoint
CREATE TABLE `enquiry_questions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`work_kind_id` integer,
	`position` integer NOT NULL,
	`question` text NOT NULL,
	`kind` text NOT NULL,
	`unit` text DEFAULT '' NOT NULL,
	`options` text DEFAULT '[]' NOT NULL,
	FOREIGN KEY (`work_kind_id`) REFERENCES `work_kinds`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
PRAGMA foreign_keys=OFF;--> statement-breakpoint
CREATE TABLE `__new_files` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer,
	`customer_id` integer,
	`document_id` integer,
	`purchase_id` integer,
	`quote_id` integer,
	`enquiry_id` integer,
	`name` text NOT NULL,
	`type` text NOT NULL,
	`size` integer DEFAULT 0 NOT NULL,
	`sha256` text NOT NULL,
	`stored` text,
	`content` blob,
	`thumbnail` blob,
	`goes_out` integer DEFAULT false NOT NULL,
	`added_at` integer NOT NULL,
	`removed_at` integer,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`purchase_id`) REFERENCES `purchases`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`quote_id`) REFERENCES `quotes`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`enquiry_id`) REFERENCES `enquiries`(`id`) ON UPDATE no action ON DELETE cascade,
	CONSTRAINT "files_of_one" CHECK(("__new_files"."job_id" is not null) + ("__new_files"."customer_id" is not null) + ("__new_files"."document_id" is not null) + ("__new_files"."purchase_id" is not null) + ("__new_files"."quote_id" is not null) + ("__new_files"."enquiry_id" is not null) = 1)
);
--> statement-breakpoint
INSERT INTO `__new_files`("id", "job_id", "customer_id", "document_id", "purchase_id", "quote_id", "enquiry_id", "name", "type", "size", "sha256", "stored", "content", "thumbnail", "goes_out", "added_at", "removed_at") SELECT "id", "job_id", "customer_id", "document_id", "purchase_id", NULL, NULL, "name", "type", "size", "sha256", "stored", "content", "thumbnail", "goes_out", "added_at", "removed_at" FROM `files`;--> statement-breakpoint
DROP TABLE `files`;--> statement-breakpoint
ALTER TABLE `__new_files` RENAME TO `files`;--> statement-breakpoint
PRAGMA foreign_keys=ON;--> statement-breakpoint
CREATE UNIQUE INDEX `files_of_job` ON `files` (`job_id`,`sha256`);--> statement-breakpoint
CREATE UNIQUE INDEX `files_of_customer` ON `files` (`customer_id`,`sha256`);--> statement-breakpoint
CREATE UNIQUE INDEX `files_of_document` ON `files` (`document_id`,`sha256`);--> statement-breakpoint
CREATE UNIQUE INDEX `files_of_purchase` ON `files` (`purchase_id`,`sha256`);--> statement-breakpoint
CREATE UNIQUE INDEX `files_of_quote` ON `files` (`quote_id`,`sha256`);--> statement-breakpoint
CREATE UNIQUE INDEX `files_of_enquiry` ON `files` (`enquiry_id`,`sha256`);--> statement-breakpoint
CREATE INDEX `files_by_stored` ON `files` (`stored`);--> statement-breakpoint
ALTER TABLE `quotes` ADD `enquiry_id` integer REFERENCES enquiries(id);--> statement-breakpoint
CREATE INDEX `quotes_by_enquiry` ON `quotes` (`enquiry_id`);