ALTER TABLE `business` ADD `vat_stagger` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `business` ADD `vat_cash_from` text;