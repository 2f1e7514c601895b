CREATE TABLE `downtime` (
	`id` int AUTO_INCREMENT NOT NULL,
	`asset_id` int NOT NULL,
	`order_id` int,
	`visit_id` int,
	`mark` varchar(36) NOT NULL,
	`from_at` datetime(3) NOT NULL,
	`until_at` datetime(3),
	`reason` varchar(200) NOT NULL DEFAULT '',
	`said_by` varchar(120) NOT NULL,
	CONSTRAINT `downtime_id` PRIMARY KEY(`id`),
	CONSTRAINT `downtime_mark` UNIQUE(`asset_id`,`mark`)
);
--> statement-breakpoint
CREATE TABLE `meter` (
	`id` int AUTO_INCREMENT NOT NULL,
	`asset_id` int NOT NULL,
	`name` varchar(60) NOT NULL,
	`unit` varchar(16) NOT NULL,
	`rolls_at` decimal(14,3),
	`retired_at` datetime(3),
	CONSTRAINT `meter_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `reading` (
	`id` int AUTO_INCREMENT NOT NULL,
	`meter_id` int NOT NULL,
	`value` decimal(14,3) NOT NULL,
	`at` datetime(3) NOT NULL,
	`anew` boolean NOT NULL DEFAULT false,
	`read_by` varchar(120) NOT NULL,
	`order_id` int,
	`visit_id` int,
	`struck_at` datetime(3),
	`struck_by` varchar(120),
	`struck_reason` text,
	CONSTRAINT `reading_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `downtime` ADD CONSTRAINT `downtime_asset_id_asset_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `downtime` ADD CONSTRAINT `downtime_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `downtime` ADD CONSTRAINT `downtime_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `meter` ADD CONSTRAINT `meter_asset_id_asset_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reading` ADD CONSTRAINT `reading_meter_id_meter_id_fk` FOREIGN KEY (`meter_id`) REFERENCES `meter`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reading` ADD CONSTRAINT `reading_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reading` ADD CONSTRAINT `reading_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `downtime_asset` ON `downtime` (`asset_id`,`from_at`);--> statement-breakpoint
CREATE INDEX `meter_asset` ON `meter` (`asset_id`);--> statement-breakpoint
CREATE INDEX `reading_meter` ON `reading` (`meter_id`,`at`);--> statement-breakpoint
CREATE INDEX `reading_visit` ON `reading` (`visit_id`);