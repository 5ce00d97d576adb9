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
CREATE TABLE `reference_rates` (
	`from` text PRIMARY KEY NOT NULL,
	`rate` text NOT NULL
);
--> statement-breakpoint
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
DROP INDEX `allocations_once`;--> statement-breakpoint
ALTER TABLE `allocations` ADD `applied_on` text;--> statement-breakpoint
ALTER TABLE `allocations` ADD `key` text;--> statement-breakpoint
CREATE UNIQUE INDEX `allocations_key_unique` ON `allocations` (`key`);--> statement-breakpoint
CREATE INDEX `allocations_by_payment` ON `allocations` (`payment_id`);--> statement-breakpoint
ALTER TABLE `open_items` ADD `payer_id` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `open_items_by_payer` ON `open_items` (`payer_id`,`state`);--> statement-breakpoint
ALTER TABLE `payments` ADD `payer_id` integer REFERENCES customers(id);--> statement-breakpoint
CREATE INDEX `payments_by_payer` ON `payments` (`payer_id`);--> statement-breakpoint
UPDATE open_items SET payer_id = coalesce(
	(SELECT json_extract(frozen, '$.customer.billTo.id') FROM documents WHERE documents.id = open_items.document_id),
	customer_id);
--> statement-breakpoint
DROP TRIGGER payments_no_update;
--> statement-breakpoint
UPDATE payments SET payer_id = (
	SELECT o.payer_id FROM allocations a JOIN open_items o ON o.document_id = a.document_id WHERE a.payment_id = payments.id LIMIT 1);
--> statement-breakpoint
CREATE TRIGGER payments_no_update BEFORE UPDATE ON payments
BEGIN SELECT RAISE(ABORT, 'a recorded payment never changes'); END;
--> statement-breakpoint
CREATE TRIGGER allocations_no_update BEFORE UPDATE ON allocations
BEGIN SELECT RAISE(ABORT, 'what a payment settles never changes'); END;
--> statement-breakpoint
CREATE TRIGGER allocations_no_delete BEFORE DELETE ON allocations
BEGIN SELECT RAISE(ABORT, 'what a payment settles never changes'); END;
--> statement-breakpoint
CREATE TRIGGER transfers_no_update BEFORE UPDATE ON transfers
BEGIN SELECT RAISE(ABORT, 'applied credit never changes'); END;
--> statement-breakpoint
CREATE TRIGGER transfers_no_delete BEFORE DELETE ON transfers
BEGIN SELECT RAISE(ABORT, 'applied credit never changes'); END;
--> statement-breakpoint
CREATE TRIGGER write_offs_no_update BEFORE UPDATE ON write_offs
BEGIN SELECT RAISE(ABORT, 'a write-off never changes'); END;
--> statement-breakpoint
CREATE TRIGGER write_offs_no_delete BEFORE DELETE ON write_offs
BEGIN SELECT RAISE(ABORT, 'a write-off never changes'); END;
--> statement-breakpoint
INSERT INTO reference_rates ("from", rate) VALUES
	('2024-01-01', '5.25'), ('2024-07-01', '5.25'), ('2025-01-01', '4.75'), ('2025-07-01', '4.25'), ('2026-01-01', '3.75');
