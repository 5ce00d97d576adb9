ALTER TABLE `texts` ADD `told_id` integer REFERENCES told(id);--> statement-breakpoint
CREATE INDEX `texts_by_told` ON `texts` (`told_id`);