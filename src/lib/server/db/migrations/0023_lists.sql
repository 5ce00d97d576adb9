CREATE TABLE `document_labels` (
	`document_id` integer NOT NULL,
	`label` text NOT NULL,
	PRIMARY KEY(`document_id`, `label`),
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `document_labels_by_label` ON `document_labels` (`label`,`document_id`);--> statement-breakpoint
ALTER TABLE `many_runs` ADD `options` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
CREATE INDEX `payments_by_date` ON `payments` (`date`,`id`);--> statement-breakpoint
CREATE INDEX `mails_by_time` ON `mails` (`created_at`,`id`);--> statement-breakpoint
CREATE INDEX `texts_by_time` ON `texts` (`created_at`,`id`);