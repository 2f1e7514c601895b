CREATE TABLE `signature` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`visit_id` int NOT NULL,
	`name` varchar(80) NOT NULL,
	`attachment_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `signature_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `attachment` ADD `stage` varchar(12);--> statement-breakpoint
ALTER TABLE `signature` ADD CONSTRAINT `signature_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `signature` ADD CONSTRAINT `signature_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `signature` ADD CONSTRAINT `signature_attachment_id_attachment_id_fk` FOREIGN KEY (`attachment_id`) REFERENCES `attachment`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `signature_order` ON `signature` (`order_id`);