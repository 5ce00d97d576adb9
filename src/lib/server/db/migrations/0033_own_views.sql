DROP INDEX `list_views_name`;--> statement-breakpoint
ALTER TABLE `list_views` ADD `person_id` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `list_views` ADD `shared` integer DEFAULT true NOT NULL;--> statement-breakpoint
CREATE UNIQUE INDEX `list_views_name` ON `list_views` (`list`,`person_id`,`name`);