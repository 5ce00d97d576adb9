INSERT INTO `files` (`id`, `job_id`, `name`, `type`, `size`, `sha256`, `stored`, `content`, `thumbnail`, `added_at`)
SELECT `id`, `job_id`, `name`, `type`, 0, `sha256`, `stored`, `content`, `thumbnail`, `added_at` FROM `job_files`;--> statement-breakpoint
DROP TABLE `job_files`;--> statement-breakpoint
ALTER TABLE `mails` ADD `file_ids` text DEFAULT '[]' NOT NULL;