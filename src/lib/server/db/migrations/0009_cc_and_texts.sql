ALTER TABLE `mails` ADD `cc` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `texts` ADD `document_id` integer REFERENCES documents(id);--> statement-breakpoint
CREATE INDEX `texts_by_document` ON `texts` (`document_id`);