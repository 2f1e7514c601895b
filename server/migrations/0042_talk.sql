CREATE TABLE `order_message` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`visit_id` int,
	`mark` varchar(36) NOT NULL,
	`speaker` varchar(8) NOT NULL,
	`audience` varchar(8) NOT NULL,
	`account_id` int,
	`author_name` varchar(120) NOT NULL,
	`text` text NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `order_message_id` PRIMARY KEY(`id`),
	CONSTRAINT `order_message_mark` UNIQUE(`order_id`,`mark`)
);
--> statement-breakpoint
ALTER TABLE `attachment` ADD `message_id` int;--> statement-breakpoint
ALTER TABLE `comment` ADD `message_id` int;--> statement-breakpoint
ALTER TABLE `order_message` ADD CONSTRAINT `order_message_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_message` ADD CONSTRAINT `order_message_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_message` ADD CONSTRAINT `order_message_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `order_message_order` ON `order_message` (`order_id`,`id`);