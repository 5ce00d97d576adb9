CREATE TABLE `transfer_reversals` (
	`transfer_id` integer PRIMARY KEY NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`transfer_id`) REFERENCES `transfers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
DROP INDEX `open_items_overpaid`;--> statement-breakpoint
ALTER TABLE `open_items` ADD `in_hand` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `open_items_in_hand` ON `open_items` (`payer_id`,`in_hand`) WHERE in_hand > 0;--> statement-breakpoint
PRAGMA foreign_keys=OFF;--> statement-breakpoint
CREATE TABLE `__new_retentions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`document_id` integer NOT NULL,
	`job_id` integer,
	`amount` integer NOT NULL,
	`due_on` text NOT NULL,
	`released_by_id` integer,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`released_by_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_retentions`("document_id", "job_id", "amount", "due_on", "released_by_id")
SELECT r."document_id", l."job_id", sum(l."retention"), r."due_on", r."released_by_id" FROM `retentions` r
JOIN `document_lines` l ON l."document_id" = r."document_id" WHERE l."retention" > 0 GROUP BY r."document_id", l."job_id";--> statement-breakpoint
DROP TABLE `retentions`;--> statement-breakpoint
ALTER TABLE `__new_retentions` RENAME TO `retentions`;--> statement-breakpoint
PRAGMA foreign_keys=ON;--> statement-breakpoint
CREATE INDEX `retentions_by_job` ON `retentions` (`job_id`);--> statement-breakpoint
CREATE INDEX `retentions_by_document` ON `retentions` (`document_id`);--> statement-breakpoint
CREATE INDEX `retentions_by_due` ON `retentions` (`released_by_id`,`due_on`);--> statement-breakpoint
ALTER TABLE `journal_lines` ADD `paid_on` text;--> statement-breakpoint
ALTER TABLE `refunds` ADD `withheld_stated` integer;--> statement-breakpoint
ALTER TABLE `transfers` ADD `withheld` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `transfers` ADD `paid_on` text;
--> statement-breakpoint
UPDATE `open_items` SET `in_hand` = max(0, min(`overpaid`, `cash` - max(0, `total` - `credited` - coalesce(`deduction`, 0)))) WHERE `overpaid` > 0;
--> statement-breakpoint
CREATE TRIGGER transfer_reversals_no_update BEFORE UPDATE ON transfer_reversals
BEGIN SELECT RAISE(ABORT, 'what went back never changes'); END;
--> statement-breakpoint
CREATE TRIGGER transfer_reversals_no_delete BEFORE DELETE ON transfer_reversals
BEGIN SELECT RAISE(ABORT, 'what went back never changes'); END;
