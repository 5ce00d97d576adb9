CREATE TABLE `transfer_reversals` (
	`transfer_id` integer PRIMARY KEY NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`transfer_id`) REFERENCES `transfers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
DROP INDEX `open_items_overpaid`;--> statement-breakpoint
ALTER TABLE `open_items` ADD `in_hand` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `open_items_in_hand` ON `open_items` (`payer_id`,`in_hand`) WHERE in_hand > 0;--> statement-breakpoint
ALTER TABLE `journal_lines` ADD `paid_on` text;--> statement-breakpoint
ALTER TABLE `refunds` ADD `withheld_stated` integer;--> statement-breakpoint
ALTER TABLE `transfers` ADD `withheld` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `transfers` ADD `paid_on` text;--> statement-breakpoint
UPDATE `open_items` SET `in_hand` = max(0, min(`overpaid`, `cash` - max(0, `total` - `credited` - coalesce(`deduction`, 0)))) WHERE `overpaid` > 0;
--> statement-breakpoint
CREATE TRIGGER transfer_reversals_no_update BEFORE UPDATE ON transfer_reversals
BEGIN SELECT RAISE(ABORT, 'what went back never changes'); END;
--> statement-breakpoint
CREATE TRIGGER transfer_reversals_no_delete BEFORE DELETE ON transfer_reversals
BEGIN SELECT RAISE(ABORT, 'what went back never changes'); END;
