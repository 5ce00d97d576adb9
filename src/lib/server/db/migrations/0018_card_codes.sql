CREATE TABLE `card_codes` (
	`customer_id` integer PRIMARY KEY NOT NULL,
	`code_hash` text NOT NULL,
	`made_at` integer NOT NULL,
	`tries` integer DEFAULT 0 NOT NULL,
	FOREIGN KEY (`customer_id`) REFERENCES `customers`(`id`) ON UPDATE no action ON DELETE cascade
);
