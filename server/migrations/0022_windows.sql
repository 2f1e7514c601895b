CREATE TABLE `time_offer` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`order_id` int NOT NULL,
	`name` varchar(120) NOT NULL,
	`email` varchar(190) NOT NULL,
	`times` json NOT NULL,
	`note` varchar(300),
	`state` varchar(12) NOT NULL,
	`chosen_from` datetime(3),
	`answer` varchar(300),
	`asked_at` datetime(3) NOT NULL,
	`asked_by` int,
	`asked_by_name` varchar(120) NOT NULL,
	`answered_at` datetime(3),
	`nonce` varchar(32) NOT NULL,
	`token_hash` varchar(64) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `time_offer_id` PRIMARY KEY(`id`),
	CONSTRAINT `time_offer_token` UNIQUE(`token_hash`)
);
--> statement-breakpoint
ALTER TABLE `work_order` ADD `window_from` datetime(3);--> statement-breakpoint
ALTER TABLE `work_order` ADD `window_until` datetime(3);--> statement-breakpoint
ALTER TABLE `work_order` ADD `window_with` varchar(120);--> statement-breakpoint
ALTER TABLE `time_offer` ADD CONSTRAINT `time_offer_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `time_offer` ADD CONSTRAINT `time_offer_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `time_offer` ADD CONSTRAINT `time_offer_asked_by_account_id_fk` FOREIGN KEY (`asked_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `time_offer_order` ON `time_offer` (`order_id`);