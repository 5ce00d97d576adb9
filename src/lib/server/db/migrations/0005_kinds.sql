DROP INDEX `documents_number`;--> statement-breakpoint
CREATE UNIQUE INDEX `documents_self_billed` ON `documents` (`customer_id`,`number`) WHERE origin = 'selfBilled';--> statement-breakpoint
CREATE UNIQUE INDEX `documents_number` ON `documents` (`kind`,`number`) WHERE origin <> 'selfBilled';