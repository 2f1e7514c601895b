CREATE TABLE `purchase_line` (
	`id` int AUTO_INCREMENT NOT NULL,
	`purchase_id` int NOT NULL,
	`part_id` int NOT NULL,
	`quantity` decimal(12,3) NOT NULL,
	`price_minor` int,
	`received` decimal(12,3) NOT NULL,
	`order_id` int,
	CONSTRAINT `purchase_line_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `purchase` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`number` varchar(16) NOT NULL,
	`state` varchar(12) NOT NULL,
	`vendor_id` int,
	`store_id` int NOT NULL,
	`note` varchar(1000),
	`expected_on` date,
	`asked_at` datetime(3) NOT NULL,
	`asked_by` int NOT NULL,
	`ordered_at` datetime(3),
	`ordered_by` int,
	`file_id` int,
	`bill_number` varchar(40),
	`billed_on` date,
	`bill_minor` int,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `purchase_id` PRIMARY KEY(`id`),
	CONSTRAINT `purchase_number_unique` UNIQUE(`number`),
	CONSTRAINT `purchase_bill` UNIQUE(`vendor_id`,`bill_number`)
);
--> statement-breakpoint
ALTER TABLE `mail` ADD `file_id` int;--> statement-breakpoint
ALTER TABLE `mail` ADD `file_name` varchar(160);--> statement-breakpoint
ALTER TABLE `work_order` ADD `outgrown_minor` int;--> statement-breakpoint
ALTER TABLE `part` ADD `vendor_id` int;--> statement-breakpoint
ALTER TABLE `part` ADD `lead_days` smallint;--> statement-breakpoint
ALTER TABLE `stock_movement` ADD `charge_minor` int;--> statement-breakpoint
ALTER TABLE `stock_movement` ADD `purchase_line_id` int;--> statement-breakpoint
ALTER TABLE `order_plan` ADD `agreed` json;--> statement-breakpoint
ALTER TABLE `purchase_line` ADD CONSTRAINT `purchase_line_purchase_id_purchase_id_fk` FOREIGN KEY (`purchase_id`) REFERENCES `purchase`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `purchase_line` ADD CONSTRAINT `purchase_line_part_id_part_id_fk` FOREIGN KEY (`part_id`) REFERENCES `part`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `purchase_line` ADD CONSTRAINT `purchase_line_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `purchase` ADD CONSTRAINT `purchase_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `purchase` ADD CONSTRAINT `purchase_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `purchase` ADD CONSTRAINT `purchase_store_id_store_id_fk` FOREIGN KEY (`store_id`) REFERENCES `store`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `purchase` ADD CONSTRAINT `purchase_asked_by_account_id_fk` FOREIGN KEY (`asked_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `purchase` ADD CONSTRAINT `purchase_ordered_by_account_id_fk` FOREIGN KEY (`ordered_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `purchase` ADD CONSTRAINT `purchase_file_id_stored_file_id_fk` FOREIGN KEY (`file_id`) REFERENCES `stored_file`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `purchase_line_purchase` ON `purchase_line` (`purchase_id`);--> statement-breakpoint
CREATE INDEX `purchase_line_part` ON `purchase_line` (`part_id`);--> statement-breakpoint
CREATE INDEX `purchase_site` ON `purchase` (`site_id`,`state`,`id`);--> statement-breakpoint
ALTER TABLE `mail` ADD CONSTRAINT `mail_file_id_stored_file_id_fk` FOREIGN KEY (`file_id`) REFERENCES `stored_file`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `part` ADD CONSTRAINT `part_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stock_movement` ADD CONSTRAINT `stock_movement_purchase_line_id_purchase_line_id_fk` FOREIGN KEY (`purchase_line_id`) REFERENCES `purchase_line`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `stock_movement_demand` ON `stock_movement` (`part_id`,`kind`,`at`,`store_id`,`quantity`);--> statement-breakpoint
INSERT IGNORE INTO `numbering` (`site_id`, `series`, `prefix`, `next`, `digits`)
SELECT `site_id`, 'purchase', CONCAT(LEFT(REPLACE(`prefix`, 'R', 'P'), 7), IF(`prefix` LIKE '%R%', '', 'P')), 1, 5 FROM `numbering` WHERE `series` = 'request';
