INSERT INTO `people` (`id`, `name`, `email`, `role`, `password_hash`, `created_at`)
SELECT 1, coalesce((SELECT `owner_name` FROM `business`), ''), coalesce((SELECT `email` FROM `business`), ''), 'owner', `password_hash`, 0 FROM `owners`;--> statement-breakpoint
DROP TABLE `owners`;