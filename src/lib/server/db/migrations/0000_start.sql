CREATE TABLE `business` (
	`id` integer PRIMARY KEY NOT NULL,
	`trading_name` text DEFAULT '' NOT NULL,
	`owner_name` text NOT NULL,
	`address` text NOT NULL,
	`email` text DEFAULT '' NOT NULL,
	`phone` text DEFAULT '' NOT NULL,
	`utr` text DEFAULT '' NOT NULL,
	`cis_subcontractor` integer DEFAULT false NOT NULL,
	`bank_account_name` text DEFAULT '' NOT NULL,
	`bank_sort_code` text DEFAULT '' NOT NULL,
	`bank_account_number` text DEFAULT '' NOT NULL,
	`terms_days` integer DEFAULT 14 NOT NULL,
	`terms_end_of_month` integer DEFAULT false NOT NULL,
	`invoice_note` text DEFAULT '' NOT NULL,
	`copy_to_self` integer DEFAULT true NOT NULL,
	`updated_at` integer NOT NULL,
	CONSTRAINT "one_business" CHECK("business"."id" = 1)
);
--> statement-breakpoint
CREATE TABLE `number_series` (
	`kind` text PRIMARY KEY NOT NULL,
	`pattern` text NOT NULL,
	`next` integer NOT NULL,
	`starts` text DEFAULT '[]' NOT NULL
);
--> statement-breakpoint
CREATE TABLE `owners` (
	`id` integer PRIMARY KEY NOT NULL,
	`password_hash` text NOT NULL,
	CONSTRAINT "one_owner" CHECK("owners"."id" = 1)
);
--> statement-breakpoint
CREATE TABLE `sessions` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`created_at` integer NOT NULL,
	`expires_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sign_in_failures` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`source` text NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `sign_in_failures_by_source` ON `sign_in_failures` (`source`,`at`);--> statement-breakpoint
CREATE TABLE `vat_statuses` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`from` text NOT NULL,
	`registered` integer NOT NULL,
	`number` text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `vat_statuses_from_unique` ON `vat_statuses` (`from`);--> statement-breakpoint
CREATE TABLE `contacts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`customer_id` integer NOT NULL,
	`name` text NOT NULL,
	`role` text DEFAULT '' NOT NULL,
	`email` text DEFAULT '' NOT NULL,
	`phone` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `contacts_by_customer` ON `contacts` (`customer_id`);--> statement-breakpoint
CREATE TABLE `customers` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`kind` text NOT NULL,
	`name` text NOT NULL,
	`email` text DEFAULT '' NOT NULL,
	`phone` text DEFAULT '' NOT NULL,
	`address` text DEFAULT '' NOT NULL,
	`bill_to_id` integer,
	`terms_days` integer,
	`terms_end_of_month` integer DEFAULT false NOT NULL,
	`order_number_required` integer DEFAULT false NOT NULL,
	`private_note` text DEFAULT '' NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer,
	FOREIGN KEY (`bill_to_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `customers_by_name` ON `customers` (`name`);--> statement-breakpoint
CREATE TABLE `sites` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`customer_id` integer NOT NULL,
	`name` text NOT NULL,
	`address` text DEFAULT '' NOT NULL,
	`access_notes` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `sites_by_customer` ON `sites` (`customer_id`);--> statement-breakpoint
CREATE TABLE `tax_standings` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`customer_id` integer NOT NULL,
	`from` text NOT NULL,
	`vat_registered` integer DEFAULT false NOT NULL,
	`vat_number` text DEFAULT '' NOT NULL,
	`cis_registered` integer DEFAULT false NOT NULL,
	`cis_rate` text,
	`verification_number` text DEFAULT '' NOT NULL,
	`end_user` integer DEFAULT false NOT NULL,
	`end_user_statement` text DEFAULT '' NOT NULL,
	`end_user_date` text,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `tax_standings_by_customer` ON `tax_standings` (`customer_id`,`from`);--> statement-breakpoint
CREATE TABLE `document_files` (
	`document_id` integer PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`sha256` text NOT NULL,
	`content` blob NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `document_lines` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`document_id` integer NOT NULL,
	`position` integer NOT NULL,
	`kind` text NOT NULL,
	`description` text NOT NULL,
	`quantity` text NOT NULL,
	`unit` text NOT NULL,
	`unit_price` text NOT NULL,
	`vat` text,
	`cost` integer,
	`net` integer NOT NULL,
	`document_discount` integer NOT NULL,
	`retention` integer NOT NULL,
	`taxable` integer NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `document_lines_position` ON `document_lines` (`document_id`,`position`);--> statement-breakpoint
CREATE TABLE `documents` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`kind` text NOT NULL,
	`state` text NOT NULL,
	`key` text NOT NULL,
	`customer_id` integer,
	`version` integer DEFAULT 1 NOT NULL,
	`sheet` text NOT NULL,
	`corrects_id` integer,
	`number` text,
	`running` integer,
	`issue_date` text,
	`sort_date` text DEFAULT '9999-12-31' NOT NULL,
	`tax_point` text,
	`due_date` text,
	`token` text,
	`frozen` text,
	`customer_name` text DEFAULT '' NOT NULL,
	`net` integer DEFAULT 0 NOT NULL,
	`vat_charged` integer DEFAULT 0 NOT NULL,
	`vat_reverse_charged` integer DEFAULT 0 NOT NULL,
	`total` integer DEFAULT 0 NOT NULL,
	`deduction` integer,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`issued_at` integer,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE set null,
	FOREIGN KEY (`corrects_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `documents_key_unique` ON `documents` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `documents_token_unique` ON `documents` (`token`);--> statement-breakpoint
CREATE INDEX `documents_by_state` ON `documents` (`state`);--> statement-breakpoint
CREATE INDEX `documents_in_order` ON `documents` (`sort_date`,`id`);--> statement-breakpoint
CREATE INDEX `documents_by_customer` ON `documents` (`customer_id`);--> statement-breakpoint
CREATE INDEX `documents_by_corrected` ON `documents` (`corrects_id`);--> statement-breakpoint
CREATE UNIQUE INDEX `documents_number` ON `documents` (`kind`,`number`);--> statement-breakpoint
CREATE TABLE `rehearsals` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`document_id` integer NOT NULL,
	`token` text NOT NULL,
	`frozen` text NOT NULL,
	`pdf` blob NOT NULL,
	`created_at` integer NOT NULL,
	`paid_at` integer,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `rehearsals_token_unique` ON `rehearsals` (`token`);--> statement-breakpoint
CREATE TABLE `trail` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`document_id` integer NOT NULL,
	`at` integer NOT NULL,
	`who` text NOT NULL,
	`what` text NOT NULL,
	`detail` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `trail_by_document` ON `trail` (`document_id`,`id`);--> statement-breakpoint
CREATE TABLE `allocations` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`payment_id` integer NOT NULL,
	`document_id` integer NOT NULL,
	`amount` integer NOT NULL,
	`withheld_stated` integer,
	FOREIGN KEY (`payment_id`) REFERENCES `payments`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `allocations_by_document` ON `allocations` (`document_id`);--> statement-breakpoint
CREATE UNIQUE INDEX `allocations_once` ON `allocations` (`payment_id`,`document_id`);--> statement-breakpoint
CREATE TABLE `journal_entries` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`event` text NOT NULL,
	`date` text NOT NULL,
	`document_id` integer,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `journal_entries_key_unique` ON `journal_entries` (`key`);--> statement-breakpoint
CREATE TABLE `journal_lines` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`entry_id` integer NOT NULL,
	`account` text NOT NULL,
	`amount` integer NOT NULL,
	`document_id` integer,
	`customer_id` integer,
	FOREIGN KEY (`entry_id`) REFERENCES `journal_entries`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `journal_lines_by_entry` ON `journal_lines` (`entry_id`);--> statement-breakpoint
CREATE INDEX `journal_lines_by_document` ON `journal_lines` (`document_id`,`account`);--> statement-breakpoint
CREATE INDEX `journal_lines_by_account` ON `journal_lines` (`account`);--> statement-breakpoint
CREATE TABLE `open_items` (
	`document_id` integer PRIMARY KEY NOT NULL,
	`customer_id` integer NOT NULL,
	`issue_date` text NOT NULL,
	`due_date` text NOT NULL,
	`total` integer NOT NULL,
	`deduction` integer,
	`cash` integer DEFAULT 0 NOT NULL,
	`withheld` integer DEFAULT 0 NOT NULL,
	`credited` integer DEFAULT 0 NOT NULL,
	`written_off` integer DEFAULT 0 NOT NULL,
	`outstanding` integer NOT NULL,
	`overpaid` integer DEFAULT 0 NOT NULL,
	`state` text NOT NULL,
	`settled_on` text,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `open_items_by_state` ON `open_items` (`state`,`due_date`);--> statement-breakpoint
CREATE INDEX `open_items_by_customer` ON `open_items` (`customer_id`,`state`);--> statement-breakpoint
CREATE TABLE `payment_reversals` (
	`payment_id` integer PRIMARY KEY NOT NULL,
	`reason` text DEFAULT '' NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`payment_id`) REFERENCES `payments`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `payments` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`date` text NOT NULL,
	`amount` integer NOT NULL,
	`way` text NOT NULL,
	`reference` text DEFAULT '' NOT NULL,
	`fee` integer DEFAULT 0 NOT NULL,
	`recorded_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `payments_key_unique` ON `payments` (`key`);--> statement-breakpoint
CREATE TABLE `refunds` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`document_id` integer NOT NULL,
	`date` text NOT NULL,
	`amount` integer NOT NULL,
	`way` text NOT NULL,
	`reference` text DEFAULT '' NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `refunds_key_unique` ON `refunds` (`key`);--> statement-breakpoint
CREATE INDEX `refunds_by_document` ON `refunds` (`document_id`);--> statement-breakpoint
CREATE TABLE `checkouts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`document_id` integer,
	`rehearsal_id` integer,
	`amount` integer NOT NULL,
	`processor_id` text NOT NULL,
	`state` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`rehearsal_id`) REFERENCES `rehearsals`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `checkouts_key_unique` ON `checkouts` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `checkouts_processor_id_unique` ON `checkouts` (`processor_id`);--> statement-breakpoint
CREATE INDEX `checkouts_by_document` ON `checkouts` (`document_id`);--> statement-breakpoint
CREATE TABLE `mails` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`kind` text NOT NULL,
	`document_id` integer,
	`rehearsal_id` integer,
	`to` text NOT NULL,
	`bcc` text DEFAULT '' NOT NULL,
	`subject` text NOT NULL,
	`text` text NOT NULL,
	`html` text NOT NULL,
	`attach_pdf` integer DEFAULT false NOT NULL,
	`message_id` text NOT NULL,
	`state` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`next_attempt_at` integer NOT NULL,
	`last_error` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`sent_at` integer,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`rehearsal_id`) REFERENCES `rehearsals`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `mails_key_unique` ON `mails` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `mails_message_id_unique` ON `mails` (`message_id`);--> statement-breakpoint
CREATE INDEX `mails_by_state` ON `mails` (`state`,`next_attempt_at`);--> statement-breakpoint
CREATE INDEX `mails_by_document` ON `mails` (`document_id`);--> statement-breakpoint
CREATE TABLE `webhook_events` (
	`id` text PRIMARY KEY NOT NULL,
	`type` text NOT NULL,
	`received_at` integer NOT NULL,
	`body` text NOT NULL
);
