CREATE TABLE `permit` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`visit_id` int NOT NULL,
	`kind` varchar(16) NOT NULL,
	`number` varchar(40) NOT NULL,
	`from_at` datetime(3) NOT NULL,
	`until_at` datetime(3) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `permit_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `visit` ADD `hazards_read` text;--> statement-breakpoint
ALTER TABLE `visit` ADD `hazards_read_at` datetime(3);--> statement-breakpoint
ALTER TABLE `permit` ADD CONSTRAINT `permit_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `permit` ADD CONSTRAINT `permit_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `permit_order` ON `permit` (`order_id`);