CREATE TABLE `tax_points` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`document_id` integer NOT NULL,
	`date` text NOT NULL,
	`rule` text NOT NULL,
	`because` text NOT NULL,
	`net` integer NOT NULL,
	`vat_charged` integer NOT NULL,
	`vat_reverse_charged` integer NOT NULL,
	`vat` integer NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tax_points_by_date` ON `tax_points` (`date`);--> statement-breakpoint
CREATE UNIQUE INDEX `tax_points_day` ON `tax_points` (`document_id`,`date`);--> statement-breakpoint
ALTER TABLE `journal_lines` ADD `tax_point` text;--> statement-breakpoint
-- Documents from before: one record each, on the tax point they have.
INSERT INTO tax_points (document_id, date, rule, because, net, vat_charged, vat_reverse_charged, vat)
SELECT id, tax_point, 'work', 'invoice', net, vat_charged, vat_reverse_charged,
	coalesce(json_extract(frozen, '$.seller.vatRegistered'), 0)
FROM documents WHERE state = 'issued' AND tax_point IS NOT NULL;
--> statement-breakpoint
CREATE TRIGGER tax_points_no_insert BEFORE INSERT ON tax_points
WHEN (SELECT state FROM documents WHERE id = NEW.document_id) = 'issued'
BEGIN SELECT RAISE(ABORT, 'an issued document never changes'); END;
--> statement-breakpoint
CREATE TRIGGER tax_points_no_update BEFORE UPDATE ON tax_points
BEGIN SELECT RAISE(ABORT, 'an issued document never changes'); END;
--> statement-breakpoint
CREATE TRIGGER tax_points_no_delete BEFORE DELETE ON tax_points
BEGIN SELECT RAISE(ABORT, 'an issued document never changes'); END;
