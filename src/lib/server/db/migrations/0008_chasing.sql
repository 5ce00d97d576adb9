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
ALTER TABLE `business` ADD `pass_on_card_fees` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `bank_lines` ADD `tied` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `bank_lines` ADD `payout_id` integer REFERENCES payouts(id);--> statement-breakpoint
CREATE INDEX `bank_lines_by_payment` ON `bank_lines` (`payment_id`);--> statement-breakpoint
ALTER TABLE `payments` ADD `fee_on_top` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `checkouts` ADD `way` text DEFAULT 'card' NOT NULL;--> statement-breakpoint
ALTER TABLE `mails` ADD `chase_message_id` integer REFERENCES chase_messages(id);--> statement-breakpoint
CREATE INDEX `mails_by_chase` ON `mails` (`chase_message_id`);