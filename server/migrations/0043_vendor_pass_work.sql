CREATE TABLE `vendor_part` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`visit_id` int NOT NULL,
	`name` varchar(120) NOT NULL,
	`quantity` decimal(12,3) NOT NULL,
	`unit` varchar(16) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `vendor_part_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `vendor_pass` ADD `renewed_at` datetime(3);--> statement-breakpoint
ALTER TABLE `vendor_bill` ADD `attachment_id` int;--> statement-breakpoint
ALTER TABLE `order_step` ADD `done_by_name` varchar(120);--> statement-breakpoint
ALTER TABLE `vendor_part` ADD CONSTRAINT `vendor_part_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_part` ADD CONSTRAINT `vendor_part_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `vendor_part_order` ON `vendor_part` (`order_id`);--> statement-breakpoint
CREATE INDEX `vendor_part_visit` ON `vendor_part` (`visit_id`);--> statement-breakpoint
ALTER TABLE `vendor_bill` ADD CONSTRAINT `vendor_bill_attachment_id_attachment_id_fk` FOREIGN KEY (`attachment_id`) REFERENCES `attachment`(`id`) ON DELETE no action ON UPDATE no action;