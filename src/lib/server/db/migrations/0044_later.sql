DROP TABLE `document_signatures`;--> statement-breakpoint
DROP TABLE `job_sheets`;