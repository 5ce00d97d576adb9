CREATE TABLE `exchange_rates` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`currency` text NOT NULL,
	`from` text NOT NULL,
	`to` text NOT NULL,
	`rate` text NOT NULL,
	`source` text NOT NULL,
	`recorded_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `exchange_rates_day` ON `exchange_rates` (`currency`,`from`);--> statement-breakpoint
ALTER TABLE `business` ADD `bank_iban` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `business` ADD `bank_bic` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `customers` ADD `currency` text DEFAULT 'GBP' NOT NULL;--> statement-breakpoint
ALTER TABLE `documents` ADD `net_sterling` integer GENERATED ALWAYS AS ((case when currency = 'GBP' then net else coalesce(json_extract(frozen, '$.exchange.net'), 0) end)) VIRTUAL;--> statement-breakpoint
ALTER TABLE `documents` ADD `vat_charged_sterling` integer GENERATED ALWAYS AS ((case when currency = 'GBP' then vat_charged else coalesce(json_extract(frozen, '$.exchange.vatCharged'), 0) end)) VIRTUAL;--> statement-breakpoint
ALTER TABLE `open_items` ADD `outstanding_sterling` integer GENERATED ALWAYS AS ((case when currency = 'GBP' or total = 0 then outstanding else (2 * outstanding * total_sterling + total) / (2 * total) end)) VIRTUAL;--> statement-breakpoint
ALTER TABLE `open_items` ADD `overpaid_sterling` integer GENERATED ALWAYS AS ((case when currency = 'GBP' or total = 0 then overpaid else (2 * overpaid * total_sterling + total) / (2 * total) end)) VIRTUAL;--> statement-breakpoint
ALTER TABLE `open_items` ADD `to_pay_sterling` integer GENERATED ALWAYS AS ((case when currency = 'GBP' or total = 0 then to_pay else (2 * to_pay * total_sterling + total) / (2 * total) end)) VIRTUAL;--> statement-breakpoint
ALTER TABLE `refunds` ADD `amount_sterling` integer;--> statement-breakpoint
UPDATE `documents` SET `total_sterling` = `total` WHERE `state` <> 'issued';
