CREATE TABLE `card_disputes` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`dispute` text NOT NULL,
	`checkout` text NOT NULL,
	`document_id` integer,
	`amount` integer NOT NULL,
	`reason` text NOT NULL,
	`respond_by` text NOT NULL,
	`state` text NOT NULL,
	`opened_at` integer NOT NULL,
	`ended_at` integer,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `card_disputes_dispute_unique` ON `card_disputes` (`dispute`);--> statement-breakpoint
CREATE INDEX `card_disputes_by_document` ON `card_disputes` (`document_id`);--> statement-breakpoint
CREATE INDEX `card_disputes_by_state` ON `card_disputes` (`state`);