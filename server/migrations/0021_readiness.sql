CREATE TABLE `space_readiness` (
	`place_id` int NOT NULL,
	`state` varchar(16) NOT NULL,
	`note` varchar(200),
	`at` datetime(3) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`order_id` int,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `space_readiness_place_id` PRIMARY KEY(`place_id`)
);
--> statement-breakpoint
ALTER TABLE `space_readiness` ADD CONSTRAINT `space_readiness_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `space_readiness` ADD CONSTRAINT `space_readiness_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;