CREATE TABLE `purchases` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`kind` text NOT NULL,
	`supplier_id` integer,
	`number` text DEFAULT '' NOT NULL,
	`description` text NOT NULL,
	`date` text NOT NULL,
	`paid_on` text,
	`net` integer NOT NULL,
	`vat` integer DEFAULT 0 NOT NULL,
	`reclaim` integer DEFAULT false NOT NULL,
	`private_share` text DEFAULT '' NOT NULL,
	`category` text NOT NULL,
	`miles` text DEFAULT '' NOT NULL,
	`job_id` integer,
	`cost_id` integer,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`removed_at` integer,
	FOREIGN KEY (`supplier_id`) REFERENCES `suppliers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`cost_id`) REFERENCES `job_costs`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE UNIQUE INDEX `purchases_key_unique` ON `purchases` (`key`);--> statement-breakpoint
CREATE INDEX `purchases_by_date` ON `purchases` (`date`,`id`);--> statement-breakpoint
CREATE INDEX `purchases_by_supplier` ON `purchases` (`supplier_id`,`number`);--> statement-breakpoint
CREATE INDEX `purchases_by_job` ON `purchases` (`job_id`);--> statement-breakpoint
CREATE TABLE `suppliers` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`vat_number` text DEFAULT '' NOT NULL,
	`subcontractor` integer DEFAULT false NOT NULL,
	`category` text,
	`archived_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `suppliers_name` ON `suppliers` (lower("name"));--> statement-breakpoint
CREATE TABLE `files` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer,
	`customer_id` integer,
	`document_id` integer,
	`purchase_id` integer,
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
	CONSTRAINT "files_of_one" CHECK(("files"."job_id" is not null) + ("files"."customer_id" is not null) + ("files"."document_id" is not null) + ("files"."purchase_id" is not null) = 1)
);
--> statement-breakpoint
CREATE UNIQUE INDEX `files_of_job` ON `files` (`job_id`,`sha256`);--> statement-breakpoint
CREATE UNIQUE INDEX `files_of_customer` ON `files` (`customer_id`,`sha256`);--> statement-breakpoint
CREATE UNIQUE INDEX `files_of_document` ON `files` (`document_id`,`sha256`);--> statement-breakpoint
CREATE UNIQUE INDEX `files_of_purchase` ON `files` (`purchase_id`,`sha256`);--> statement-breakpoint
CREATE INDEX `files_by_stored` ON `files` (`stored`);