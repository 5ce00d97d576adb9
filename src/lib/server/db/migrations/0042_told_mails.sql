ALTER TABLE `mails` ADD `told_id` integer REFERENCES told(id);--> statement-breakpoint
CREATE INDEX `mails_by_told` ON `mails` (`told_id`);