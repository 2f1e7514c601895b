CREATE TABLE `reservation` (
	`order_id` int NOT NULL,
	`part_id` int NOT NULL,
	`store_id` int NOT NULL,
	`quantity` decimal(12,3) NOT NULL,
	`at` datetime(3) NOT NULL,
	`by` int,
	CONSTRAINT `reservation_order_id_part_id_store_id_pk` PRIMARY KEY(`order_id`,`part_id`,`store_id`)
);
--> statement-breakpoint
ALTER TABLE `stock_movement` ADD `reason` varchar(200);--> statement-breakpoint
ALTER TABLE `reservation` ADD CONSTRAINT `reservation_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reservation` ADD CONSTRAINT `reservation_part_id_part_id_fk` FOREIGN KEY (`part_id`) REFERENCES `part`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reservation` ADD CONSTRAINT `reservation_store_id_store_id_fk` FOREIGN KEY (`store_id`) REFERENCES `store`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reservation` ADD CONSTRAINT `reservation_by_account_id_fk` FOREIGN KEY (`by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `reservation_level` ON `reservation` (`store_id`,`part_id`);