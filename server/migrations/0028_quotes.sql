CREATE TABLE `quote` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`order_id` int NOT NULL,
	`vendor_id` int NOT NULL,
	`state` varchar(12) NOT NULL,
	`wanted` text NOT NULL,
	`asked_at` datetime(3) NOT NULL,
	`asked_by` int,
	`asked_by_name` varchar(120) NOT NULL,
	`due_at` datetime(3) NOT NULL,
	`net_minor` int,
	`tax_bp` int,
	`earliest_at` datetime(3),
	`valid_until` date,
	`answer` varchar(1000),
	`answered_at` datetime(3),
	`remind_at` datetime(3),
	`tell_at` datetime(3),
	`nonce` varchar(32) NOT NULL,
	`token_hash` varchar(64) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `quote_id` PRIMARY KEY(`id`),
	CONSTRAINT `quote_token` UNIQUE(`token_hash`)
);
--> statement-breakpoint
ALTER TABLE `quote` ADD CONSTRAINT `quote_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `quote` ADD CONSTRAINT `quote_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `quote` ADD CONSTRAINT `quote_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `quote` ADD CONSTRAINT `quote_asked_by_account_id_fk` FOREIGN KEY (`asked_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `quote_order` ON `quote` (`order_id`);--> statement-breakpoint
CREATE INDEX `quote_vendor` ON `quote` (`vendor_id`);--> statement-breakpoint
CREATE INDEX `quote_remind` ON `quote` (`remind_at`);--> statement-breakpoint
CREATE INDEX `quote_tell` ON `quote` (`tell_at`);