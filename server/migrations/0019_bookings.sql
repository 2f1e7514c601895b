CREATE TABLE `booking` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`equipment_id` int NOT NULL,
	`order_id` int NOT NULL,
	`from_at` datetime(3) NOT NULL,
	`until_at` datetime(3) NOT NULL,
	`state` varchar(12) NOT NULL,
	`out_at` datetime(3),
	`out_by` int,
	`out_to` varchar(120),
	`back_at` datetime(3),
	`note` varchar(300),
	`told_late` boolean NOT NULL DEFAULT false,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `booking_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
INSERT INTO `booking` (`site_id`, `equipment_id`, `order_id`, `from_at`, `until_at`, `state`, `out_at`, `back_at`)
SELECT e.`site_id`, l.`equipment_id`, l.`order_id`, l.`from_at`, COALESCE(l.`until_at`, DATE_ADD(l.`from_at`, INTERVAL 1 DAY)), IF(l.`until_at` IS NULL, 'out', 'back'), l.`from_at`, l.`until_at`
FROM `equipment_loan` l JOIN `equipment` e ON e.`id` = l.`equipment_id`;--> statement-breakpoint
DROP TABLE `equipment_loan`;--> statement-breakpoint
ALTER TABLE `equipment` ADD `place_id` int;--> statement-breakpoint
ALTER TABLE `equipment` ADD `inspected_until` date;--> statement-breakpoint
ALTER TABLE `booking` ADD CONSTRAINT `booking_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `booking` ADD CONSTRAINT `booking_equipment_id_equipment_id_fk` FOREIGN KEY (`equipment_id`) REFERENCES `equipment`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `booking` ADD CONSTRAINT `booking_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `booking` ADD CONSTRAINT `booking_out_by_account_id_fk` FOREIGN KEY (`out_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `booking_equipment` ON `booking` (`equipment_id`,`from_at`);--> statement-breakpoint
CREATE INDEX `booking_order` ON `booking` (`order_id`);--> statement-breakpoint
CREATE INDEX `booking_late` ON `booking` (`state`,`told_late`,`until_at`);--> statement-breakpoint
ALTER TABLE `equipment` ADD CONSTRAINT `equipment_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;