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
	`pass_on_card_fees` integer DEFAULT false NOT NULL,
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
	`person_id` integer DEFAULT 1 NOT NULL,
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
CREATE TABLE `bank_imports` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`format` text NOT NULL,
	`state` text NOT NULL,
	`content` blob,
	`added` integer DEFAULT 0 NOT NULL,
	`known` integer DEFAULT 0 NOT NULL,
	`unread` integer DEFAULT 0 NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `bank_lines` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`import_id` integer NOT NULL,
	`account` text NOT NULL,
	`date` text NOT NULL,
	`amount` integer NOT NULL,
	`text` text NOT NULL,
	`payer` text NOT NULL,
	`reversal` integer DEFAULT false NOT NULL,
	`state` text NOT NULL,
	`payment_id` integer,
	`tied` integer DEFAULT false NOT NULL,
	`payout_id` integer,
	`times` integer DEFAULT 0 NOT NULL,
	`proposal` text,
	`decided_at` integer,
	FOREIGN KEY (`import_id`) REFERENCES `bank_imports`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`payment_id`) REFERENCES `payments`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`payout_id`) REFERENCES `payouts`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `bank_lines_key_unique` ON `bank_lines` (`key`);--> statement-breakpoint
CREATE INDEX `bank_lines_by_state` ON `bank_lines` (`state`,`date`);--> statement-breakpoint
CREATE INDEX `bank_lines_by_payment` ON `bank_lines` (`payment_id`);--> statement-breakpoint
CREATE TABLE `csv_layouts` (
	`headings` text PRIMARY KEY NOT NULL,
	`layout` text NOT NULL,
	`account` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `payer_names` (
	`name` text PRIMARY KEY NOT NULL,
	`payer_id` integer NOT NULL,
	`learned_at` integer NOT NULL,
	FOREIGN KEY (`payer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `call_notes` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`customer_id` integer NOT NULL,
	`at` integer NOT NULL,
	`text` text NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `call_notes_key_unique` ON `call_notes` (`key`);--> statement-breakpoint
CREATE INDEX `call_notes_by_customer` ON `call_notes` (`customer_id`,`at`);--> statement-breakpoint
CREATE TABLE `chase_done` (
	`document_id` integer NOT NULL,
	`step_id` text NOT NULL,
	`offset` integer NOT NULL,
	`how` text NOT NULL,
	`message_id` integer,
	`at` integer NOT NULL,
	PRIMARY KEY(`document_id`, `step_id`),
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`message_id`) REFERENCES `chase_messages`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `chase_done_by_message` ON `chase_done` (`message_id`);--> statement-breakpoint
CREATE TABLE `chase_messages` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`payer_id` integer NOT NULL,
	`plan_id` integer,
	`step_id` text NOT NULL,
	`tone` text NOT NULL,
	`channel` text NOT NULL,
	`day` text NOT NULL,
	`who` text NOT NULL,
	`to` text NOT NULL,
	`subject` text NOT NULL,
	`text` text NOT NULL,
	`amount` integer NOT NULL,
	`items` text NOT NULL,
	`token` text NOT NULL,
	`state` text NOT NULL,
	`pdf` blob,
	`created_at` integer NOT NULL,
	`opened_at` integer,
	FOREIGN KEY (`payer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`plan_id`) REFERENCES `chase_plans`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `chase_messages_key_unique` ON `chase_messages` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `chase_messages_token_unique` ON `chase_messages` (`token`);--> statement-breakpoint
CREATE INDEX `chase_messages_by_payer` ON `chase_messages` (`payer_id`,`day`);--> statement-breakpoint
CREATE INDEX `chase_messages_by_state` ON `chase_messages` (`state`);--> statement-breakpoint
CREATE TABLE `chase_plans` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`about` text DEFAULT 'invoice' NOT NULL,
	`steps` text NOT NULL,
	`labels` text DEFAULT '[]' NOT NULL,
	`standard` integer DEFAULT false NOT NULL,
	`charge_after` integer,
	`version` integer DEFAULT 1 NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer
);
--> statement-breakpoint
CREATE TABLE `chase_settings` (
	`id` integer PRIMARY KEY NOT NULL,
	`on` integer DEFAULT false NOT NULL,
	`hours_from` integer DEFAULT 540 NOT NULL,
	`hours_to` integer DEFAULT 1020 NOT NULL,
	`quiet_hours` integer DEFAULT 24 NOT NULL,
	`gap_days` integer DEFAULT 4 NOT NULL,
	CONSTRAINT "one_chase_settings" CHECK("chase_settings"."id" = 1)
);
--> statement-breakpoint
CREATE TABLE `chase_wordings` (
	`payer_id` integer NOT NULL,
	`step_id` text NOT NULL,
	`subject` text NOT NULL,
	`text` text NOT NULL,
	PRIMARY KEY(`payer_id`, `step_id`),
	FOREIGN KEY (`payer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `customer_chasing` (
	`customer_id` integer PRIMARY KEY NOT NULL,
	`plan_id` integer,
	`never` integer DEFAULT false NOT NULL,
	`on_hold` integer DEFAULT false NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`plan_id`) REFERENCES `chase_plans`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `holds` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`document_id` integer NOT NULL,
	`kind` text NOT NULL,
	`until` text,
	`note` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`ended_at` integer,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `holds_by_document` ON `holds` (`document_id`,`ended_at`);--> statement-breakpoint
CREATE TABLE `late_terms` (
	`customer_id` integer PRIMARY KEY NOT NULL,
	`fee` integer DEFAULT 0 NOT NULL,
	`rate` text,
	`after_days` integer DEFAULT 0 NOT NULL,
	`terms` text NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `reference_rates` (
	`from` text PRIMARY KEY NOT NULL,
	`rate` text NOT NULL
);
--> statement-breakpoint
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
	`labels` text DEFAULT '[]' NOT NULL,
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
	`bill_to_id` integer,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`bill_to_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
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
	`without_vat` integer DEFAULT 0 NOT NULL,
	`job_id` integer,
	`tax_point` text,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `document_lines_by_job` ON `document_lines` (`job_id`);--> statement-breakpoint
CREATE UNIQUE INDEX `document_lines_position` ON `document_lines` (`document_id`,`position`);--> statement-breakpoint
CREATE TABLE `documents` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`kind` text NOT NULL,
	`state` text NOT NULL,
	`key` text NOT NULL,
	`customer_id` integer,
	`version` integer DEFAULT 1 NOT NULL,
	`sheet` text NOT NULL,
	`origin` text NOT NULL,
	`about_id` integer,
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
	`currency` text DEFAULT 'GBP' NOT NULL,
	`net` integer DEFAULT 0 NOT NULL,
	`vat_charged` integer DEFAULT 0 NOT NULL,
	`vat_reverse_charged` integer DEFAULT 0 NOT NULL,
	`total` integer DEFAULT 0 NOT NULL,
	`total_sterling` integer DEFAULT 0 NOT NULL,
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
CREATE INDEX `documents_by_state` ON `documents` (`state`,`updated_at`,`id`);--> statement-breakpoint
CREATE INDEX `documents_by_kind` ON `documents` (`kind`,`state`,`sort_date`);--> statement-breakpoint
CREATE INDEX `documents_in_order` ON `documents` (`sort_date`,`id`);--> statement-breakpoint
CREATE INDEX `documents_by_customer` ON `documents` (`customer_id`,`sort_date`,`id`);--> statement-breakpoint
CREATE INDEX `documents_by_corrected` ON `documents` (`corrects_id`);--> statement-breakpoint
CREATE INDEX `documents_by_origin` ON `documents` (`origin`,`about_id`);--> statement-breakpoint
CREATE UNIQUE INDEX `documents_number` ON `documents` (`kind`,`number`);--> statement-breakpoint
CREATE TABLE `tallies` (
	`name` text PRIMARY KEY NOT NULL,
	`n` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `trail` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`document_id` integer NOT NULL,
	`at` integer NOT NULL,
	`who` text NOT NULL,
	`person_id` integer,
	`what` text NOT NULL,
	`detail` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `trail_by_document` ON `trail` (`document_id`,`id`);--> statement-breakpoint
CREATE TABLE `trials` (
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
CREATE UNIQUE INDEX `trials_token_unique` ON `trials` (`token`);--> statement-breakpoint
CREATE TABLE `allocations` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`payment_id` integer NOT NULL,
	`document_id` integer NOT NULL,
	`amount` integer NOT NULL,
	`withheld_stated` integer,
	`applied_on` text,
	`key` text,
	FOREIGN KEY (`payment_id`) REFERENCES `payments`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `allocations_key_unique` ON `allocations` (`key`);--> statement-breakpoint
CREATE INDEX `allocations_by_payment` ON `allocations` (`payment_id`);--> statement-breakpoint
CREATE INDEX `allocations_by_document` ON `allocations` (`document_id`);--> statement-breakpoint
CREATE TABLE `credit_returns` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`payment_id` integer NOT NULL,
	`date` text NOT NULL,
	`amount` integer NOT NULL,
	`way` text NOT NULL,
	`reference` text DEFAULT '' NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`payment_id`) REFERENCES `payments`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `credit_returns_key_unique` ON `credit_returns` (`key`);--> statement-breakpoint
CREATE INDEX `credit_returns_by_payment` ON `credit_returns` (`payment_id`);--> statement-breakpoint
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
	`currency` text DEFAULT 'GBP' NOT NULL,
	`sterling` integer NOT NULL,
	`document_id` integer,
	`customer_id` integer,
	`job_id` integer,
	FOREIGN KEY (`entry_id`) REFERENCES `journal_entries`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `journal_lines_by_job` ON `journal_lines` (`job_id`);--> statement-breakpoint
CREATE INDEX `journal_lines_by_entry` ON `journal_lines` (`entry_id`);--> statement-breakpoint
CREATE INDEX `journal_lines_by_document` ON `journal_lines` (`document_id`,`account`);--> statement-breakpoint
CREATE INDEX `journal_lines_by_account` ON `journal_lines` (`account`);--> statement-breakpoint
CREATE TABLE `open_items` (
	`document_id` integer PRIMARY KEY NOT NULL,
	`customer_id` integer NOT NULL,
	`payer_id` integer DEFAULT 0 NOT NULL,
	`issue_date` text NOT NULL,
	`due_date` text NOT NULL,
	`currency` text DEFAULT 'GBP' NOT NULL,
	`total` integer NOT NULL,
	`total_sterling` integer NOT NULL,
	`deduction` integer,
	`cash` integer DEFAULT 0 NOT NULL,
	`withheld` integer DEFAULT 0 NOT NULL,
	`credited` integer DEFAULT 0 NOT NULL,
	`written_off` integer DEFAULT 0 NOT NULL,
	`outstanding` integer NOT NULL,
	`to_pay` integer NOT NULL,
	`reached` integer DEFAULT false NOT NULL,
	`overpaid` integer DEFAULT 0 NOT NULL,
	`state` text NOT NULL,
	`settled_on` text,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `open_items_by_state` ON `open_items` (`state`,`issue_date`,`document_id`);--> statement-breakpoint
CREATE INDEX `open_items_open` ON `open_items` (`due_date`,`document_id`,`payer_id`,`to_pay`) WHERE state in ('open', 'partPaid');--> statement-breakpoint
CREATE INDEX `open_items_unsent` ON `open_items` (`reached`,`state`,`to_pay`);--> statement-breakpoint
CREATE INDEX `open_items_overpaid` ON `open_items` (`overpaid`) WHERE overpaid > 0;--> statement-breakpoint
CREATE INDEX `open_items_by_customer` ON `open_items` (`customer_id`,`state`);--> statement-breakpoint
CREATE INDEX `open_items_by_payer` ON `open_items` (`payer_id`,`state`);--> statement-breakpoint
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
	`payer_id` integer,
	`date` text NOT NULL,
	`currency` text DEFAULT 'GBP' NOT NULL,
	`amount` integer NOT NULL,
	`amount_sterling` integer NOT NULL,
	`way` text NOT NULL,
	`source` text NOT NULL,
	`reference` text DEFAULT '' NOT NULL,
	`fee` integer DEFAULT 0 NOT NULL,
	`fee_on_top` integer DEFAULT 0 NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`payer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `payments_key_unique` ON `payments` (`key`);--> statement-breakpoint
CREATE INDEX `payments_by_payer` ON `payments` (`payer_id`);--> statement-breakpoint
CREATE INDEX `payments_by_reference` ON `payments` (`reference`);--> statement-breakpoint
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
CREATE TABLE `transfers` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`from_id` integer NOT NULL,
	`to_id` integer NOT NULL,
	`date` text NOT NULL,
	`amount` integer NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`from_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`to_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `transfers_key_unique` ON `transfers` (`key`);--> statement-breakpoint
CREATE INDEX `transfers_by_from` ON `transfers` (`from_id`);--> statement-breakpoint
CREATE INDEX `transfers_by_to` ON `transfers` (`to_id`);--> statement-breakpoint
CREATE TABLE `write_offs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`document_id` integer NOT NULL,
	`date` text NOT NULL,
	`amount` integer NOT NULL,
	`reason` text NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `write_offs_key_unique` ON `write_offs` (`key`);--> statement-breakpoint
CREATE INDEX `write_offs_by_document` ON `write_offs` (`document_id`);--> statement-breakpoint
CREATE TABLE `checkouts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`document_id` integer,
	`trial_id` integer,
	`payer_id` integer,
	`statement_id` integer,
	`shares` text,
	`amount` integer NOT NULL,
	`way` text DEFAULT 'card' NOT NULL,
	`processor_id` text NOT NULL,
	`state` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`trial_id`) REFERENCES `trials`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`payer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`statement_id`) REFERENCES `statements`(`id`) ON UPDATE no action ON DELETE no action
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
	`trial_id` integer,
	`statement_id` integer,
	`chase_message_id` integer,
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
	FOREIGN KEY (`trial_id`) REFERENCES `trials`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`statement_id`) REFERENCES `statements`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`chase_message_id`) REFERENCES `chase_messages`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `mails_key_unique` ON `mails` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `mails_message_id_unique` ON `mails` (`message_id`);--> statement-breakpoint
CREATE INDEX `mails_by_state` ON `mails` (`state`,`next_attempt_at`);--> statement-breakpoint
CREATE INDEX `mails_by_document` ON `mails` (`document_id`);--> statement-breakpoint
CREATE INDEX `mails_by_chase` ON `mails` (`chase_message_id`);--> statement-breakpoint
CREATE TABLE `payout_parts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`payout_id` integer NOT NULL,
	`checkout` text NOT NULL,
	`type` text NOT NULL,
	`amount` integer NOT NULL,
	`fee` integer NOT NULL,
	FOREIGN KEY (`payout_id`) REFERENCES `payouts`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `payout_parts_by_payout` ON `payout_parts` (`payout_id`);--> statement-breakpoint
CREATE INDEX `payout_parts_by_checkout` ON `payout_parts` (`checkout`);--> statement-breakpoint
CREATE TABLE `payouts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`processor_id` text NOT NULL,
	`date` text NOT NULL,
	`amount` integer NOT NULL,
	`reference` text NOT NULL,
	`seen_on` text,
	`recorded_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `payouts_processor_id_unique` ON `payouts` (`processor_id`);--> statement-breakpoint
CREATE TABLE `texts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`chase_message_id` integer,
	`to` text NOT NULL,
	`text` text NOT NULL,
	`state` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`next_attempt_at` integer NOT NULL,
	`last_error` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`sent_at` integer,
	FOREIGN KEY (`chase_message_id`) REFERENCES `chase_messages`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `texts_key_unique` ON `texts` (`key`);--> statement-breakpoint
CREATE INDEX `texts_by_state` ON `texts` (`state`,`next_attempt_at`);--> statement-breakpoint
CREATE INDEX `texts_by_chase` ON `texts` (`chase_message_id`);--> statement-breakpoint
CREATE TABLE `webhook_events` (
	`id` text PRIMARY KEY NOT NULL,
	`type` text NOT NULL,
	`received_at` integer NOT NULL,
	`body` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `kit_parts` (
	`kit_id` integer NOT NULL,
	`position` integer NOT NULL,
	`item_id` integer NOT NULL,
	`quantity` text NOT NULL,
	PRIMARY KEY(`kit_id`, `position`),
	FOREIGN KEY (`kit_id`) REFERENCES `price_items`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`item_id`) REFERENCES `price_items`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `kit_parts_by_item` ON `kit_parts` (`item_id`);--> statement-breakpoint
CREATE TABLE `price_items` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`code` text DEFAULT '' NOT NULL,
	`name` text NOT NULL,
	`text` text DEFAULT '' NOT NULL,
	`kind` text NOT NULL,
	`unit` text DEFAULT '' NOT NULL,
	`unit_price` text DEFAULT '' NOT NULL,
	`cost` text DEFAULT '' NOT NULL,
	`vat` text DEFAULT 'standard' NOT NULL,
	`vat_reason` text DEFAULT '' NOT NULL,
	`category` text DEFAULT '' NOT NULL,
	`kit` text,
	`used` integer DEFAULT 0 NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `price_items_by_code` ON `price_items` (`code`) WHERE code <> '';--> statement-breakpoint
CREATE INDEX `price_items_by_name` ON `price_items` (`name`);--> statement-breakpoint
CREATE INDEX `price_items_by_category` ON `price_items` (`category`,`name`);--> statement-breakpoint
CREATE TABLE `price_pictures` (
	`item_id` integer PRIMARY KEY NOT NULL,
	`type` text NOT NULL,
	`content` blob NOT NULL,
	FOREIGN KEY (`item_id`) REFERENCES `price_items`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `deduction_statements` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`contractor_id` integer NOT NULL,
	`month_end` text NOT NULL,
	`gross` integer NOT NULL,
	`materials` integer DEFAULT 0 NOT NULL,
	`deduction` integer NOT NULL,
	`reference` text DEFAULT '' NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`contractor_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `deduction_statements_once` ON `deduction_statements` (`contractor_id`,`month_end`);--> statement-breakpoint
CREATE TABLE `relief_claims` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`document_id` integer NOT NULL,
	`date` text NOT NULL,
	`vat` integer NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `relief_claims_key_unique` ON `relief_claims` (`key`);--> statement-breakpoint
CREATE INDEX `relief_claims_by_document` ON `relief_claims` (`document_id`);--> statement-breakpoint
CREATE TABLE `billed_parts` (
	`type` text NOT NULL,
	`part_id` integer NOT NULL,
	`job_id` integer NOT NULL,
	`document_id` integer NOT NULL,
	PRIMARY KEY(`type`, `part_id`),
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `billed_parts_by_document` ON `billed_parts` (`document_id`);--> statement-breakpoint
CREATE INDEX `billed_parts_by_job` ON `billed_parts` (`job_id`);--> statement-breakpoint
CREATE TABLE `job_costs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`job_id` integer NOT NULL,
	`visit_id` integer,
	`date` text NOT NULL,
	`kind` text NOT NULL,
	`description` text NOT NULL,
	`quantity` text NOT NULL,
	`unit` text DEFAULT '' NOT NULL,
	`unit_cost` text NOT NULL,
	`mark_up` text DEFAULT '' NOT NULL,
	`unit_price` text DEFAULT '' NOT NULL,
	`vat` text DEFAULT 'standard' NOT NULL,
	`vat_reason` text DEFAULT '' NOT NULL,
	`chargeable` integer NOT NULL,
	`item_id` integer,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`visit_id`) REFERENCES `visits`(`id`) ON UPDATE no action ON DELETE set null,
	FOREIGN KEY (`item_id`) REFERENCES `price_items`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE UNIQUE INDEX `job_costs_key_unique` ON `job_costs` (`key`);--> statement-breakpoint
CREATE INDEX `job_costs_by_job` ON `job_costs` (`job_id`,`date`);--> statement-breakpoint
CREATE TABLE `job_files` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`name` text NOT NULL,
	`type` text NOT NULL,
	`sha256` text NOT NULL,
	`content` blob NOT NULL,
	`thumbnail` blob,
	`added_at` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `job_files_once` ON `job_files` (`job_id`,`sha256`);--> statement-breakpoint
CREATE TABLE `job_lines` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`position` integer NOT NULL,
	`kind` text NOT NULL,
	`description` text NOT NULL,
	`quantity` text NOT NULL,
	`unit` text DEFAULT '' NOT NULL,
	`unit_price` text NOT NULL,
	`vat` text DEFAULT 'standard' NOT NULL,
	`vat_reason` text DEFAULT '' NOT NULL,
	`discount` text DEFAULT '' NOT NULL,
	`cost` text DEFAULT '' NOT NULL,
	`extra` integer DEFAULT false NOT NULL,
	`item_id` integer,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`item_id`) REFERENCES `price_items`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE INDEX `job_lines_by_job` ON `job_lines` (`job_id`,`position`);--> statement-breakpoint
CREATE TABLE `job_trail` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`at` integer NOT NULL,
	`what` text NOT NULL,
	`detail` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `job_trail_by_job` ON `job_trail` (`job_id`,`id`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`number` text NOT NULL,
	`title` text NOT NULL,
	`customer_id` integer NOT NULL,
	`site_id` integer,
	`bill_to_id` integer,
	`contract` text,
	`contract_reason` text DEFAULT '' NOT NULL,
	`description` text DEFAULT '' NOT NULL,
	`private_note` text DEFAULT '' NOT NULL,
	`labels` text DEFAULT '[]' NOT NULL,
	`state` text NOT NULL,
	`fixed_price` integer DEFAULT true NOT NULL,
	`prices_include_vat` integer DEFAULT false NOT NULL,
	`hourly_rate` text DEFAULT '' NOT NULL,
	`hourly_cost` text DEFAULT '' NOT NULL,
	`retention` text DEFAULT '' NOT NULL,
	`retention_due` text,
	`finished_on` text,
	`worked` integer DEFAULT 0 NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`site_id`) REFERENCES `sites`(`id`) ON UPDATE no action ON DELETE set null,
	FOREIGN KEY (`bill_to_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `jobs_key_unique` ON `jobs` (`key`);--> statement-breakpoint
CREATE UNIQUE INDEX `jobs_number_unique` ON `jobs` (`number`);--> statement-breakpoint
CREATE INDEX `jobs_by_state` ON `jobs` (`state`,`finished_on`);--> statement-breakpoint
CREATE INDEX `jobs_by_customer` ON `jobs` (`customer_id`);--> statement-breakpoint
CREATE TABLE `retentions` (
	`document_id` integer PRIMARY KEY NOT NULL,
	`job_id` integer,
	`amount` integer NOT NULL,
	`due_on` text NOT NULL,
	`released_by_id` integer,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`released_by_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `retentions_by_job` ON `retentions` (`job_id`);--> statement-breakpoint
CREATE INDEX `retentions_by_due` ON `retentions` (`released_by_id`,`due_on`);--> statement-breakpoint
CREATE TABLE `stage_parts` (
	`stage_id` integer NOT NULL,
	`line_id` integer NOT NULL,
	`amount` integer NOT NULL,
	`cost` integer,
	PRIMARY KEY(`stage_id`, `line_id`),
	FOREIGN KEY (`stage_id`) REFERENCES `stages`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`line_id`) REFERENCES `job_lines`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `stage_parts_by_line` ON `stage_parts` (`line_id`);--> statement-breakpoint
CREATE TABLE `stages` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`job_id` integer NOT NULL,
	`kind` text NOT NULL,
	`basis` text NOT NULL,
	`state` text NOT NULL,
	`application_number` text,
	`applied_on` text,
	`document_id` integer,
	`amount` integer NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `stages_key_unique` ON `stages` (`key`);--> statement-breakpoint
CREATE INDEX `stages_by_job` ON `stages` (`job_id`,`id`);--> statement-breakpoint
CREATE INDEX `stages_by_document` ON `stages` (`document_id`);--> statement-breakpoint
CREATE TABLE `time_entries` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`job_id` integer NOT NULL,
	`visit_id` integer,
	`date` text NOT NULL,
	`person` text DEFAULT '' NOT NULL,
	`started_at` integer,
	`minutes` integer,
	`rate` text DEFAULT '' NOT NULL,
	`hourly_cost` text DEFAULT '' NOT NULL,
	`chargeable` integer NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`visit_id`) REFERENCES `visits`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE UNIQUE INDEX `time_entries_key_unique` ON `time_entries` (`key`);--> statement-breakpoint
CREATE INDEX `time_entries_by_job` ON `time_entries` (`job_id`,`date`);--> statement-breakpoint
CREATE UNIQUE INDEX `time_entries_running` ON `time_entries` ((1)) WHERE minutes is null;--> statement-breakpoint
CREATE TABLE `visits` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`date` text NOT NULL,
	`from` text DEFAULT '' NOT NULL,
	`to` text DEFAULT '' NOT NULL,
	`person` text DEFAULT '' NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`done` integer DEFAULT false NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `visits_by_date` ON `visits` (`date`,`from`);--> statement-breakpoint
CREATE INDEX `visits_by_job` ON `visits` (`job_id`,`date`);--> statement-breakpoint
CREATE TABLE `bill_run_steps` (
	`run_id` integer NOT NULL,
	`position` integer NOT NULL,
	`customer_id` integer NOT NULL,
	`customer_name` text NOT NULL,
	`job_ids` text NOT NULL,
	`worked` text NOT NULL,
	`total` integer NOT NULL,
	`sheet` text NOT NULL,
	`state` text NOT NULL,
	`document_id` integer,
	`note` text DEFAULT '' NOT NULL,
	PRIMARY KEY(`run_id`, `position`),
	FOREIGN KEY (`run_id`) REFERENCES `bill_runs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE TABLE `bill_runs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`action` text NOT NULL,
	`state` text NOT NULL,
	`choice` text NOT NULL,
	`created_at` integer NOT NULL,
	`ended_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `bill_runs_key_unique` ON `bill_runs` (`key`);--> statement-breakpoint
CREATE TABLE `repeat_changes` (
	`repeat_id` integer NOT NULL,
	`from` text NOT NULL,
	`sheet` text NOT NULL,
	PRIMARY KEY(`repeat_id`, `from`),
	FOREIGN KEY (`repeat_id`) REFERENCES `repeats`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `repeat_occurrences` (
	`repeat_id` integer NOT NULL,
	`nominal` text NOT NULL,
	`date` text NOT NULL,
	`document_id` integer,
	`state` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`next_attempt_on` text,
	`note` text DEFAULT '' NOT NULL,
	PRIMARY KEY(`repeat_id`, `nominal`),
	FOREIGN KEY (`repeat_id`) REFERENCES `repeats`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE INDEX `repeat_occurrences_by_state` ON `repeat_occurrences` (`state`,`next_attempt_on`);--> statement-breakpoint
CREATE TABLE `repeats` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`name` text NOT NULL,
	`customer_id` integer NOT NULL,
	`job_id` integer,
	`rule` text NOT NULL,
	`sheet` text NOT NULL,
	`action` text NOT NULL,
	`state` text NOT NULL,
	`skipped` text DEFAULT '[]' NOT NULL,
	`made_from` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `repeats_key_unique` ON `repeats` (`key`);--> statement-breakpoint
CREATE INDEX `repeats_by_state` ON `repeats` (`state`);--> statement-breakpoint
CREATE TABLE `saved_cards` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`customer_id` integer NOT NULL,
	`token` text NOT NULL,
	`last_digits` text NOT NULL,
	`consent_at` integer NOT NULL,
	`revoked_at` integer,
	`revoked_by` text,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `saved_cards_by_customer` ON `saved_cards` (`customer_id`,`revoked_at`);--> statement-breakpoint
CREATE UNIQUE INDEX `saved_cards_token` ON `saved_cards` (`token`);--> statement-breakpoint
CREATE TABLE `starting_points` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`sheet` text NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `starting_points_name_unique` ON `starting_points` (`name`);--> statement-breakpoint
CREATE TABLE `statement_runs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`options` text NOT NULL,
	`action` text NOT NULL,
	`state` text NOT NULL,
	`created_at` integer NOT NULL,
	`finished_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `statement_runs_key_unique` ON `statement_runs` (`key`);--> statement-breakpoint
CREATE TABLE `statements` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`run_id` integer NOT NULL,
	`payer_id` integer NOT NULL,
	`state` text NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`token` text,
	`view` text,
	`balance` integer DEFAULT 0 NOT NULL,
	`pdf` blob,
	`made_at` integer,
	`opened_at` integer,
	FOREIGN KEY (`run_id`) REFERENCES `statement_runs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`payer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `statements_token_unique` ON `statements` (`token`);--> statement-breakpoint
CREATE INDEX `statements_by_run` ON `statements` (`run_id`,`state`);--> statement-breakpoint
CREATE INDEX `statements_by_payer` ON `statements` (`payer_id`,`made_at`);