CREATE TABLE `method_edition` (
	`id` int AUTO_INCREMENT NOT NULL,
	`method_id` int NOT NULL,
	`edition` int NOT NULL,
	`content` json NOT NULL,
	`note` varchar(200),
	`at` datetime(3) NOT NULL,
	`by` int,
	CONSTRAINT `method_edition_id` PRIMARY KEY(`id`),
	CONSTRAINT `method_edition_once` UNIQUE(`method_id`,`edition`)
);
--> statement-breakpoint
CREATE TABLE `method` (
	`id` int AUTO_INCREMENT NOT NULL,
	`code` varchar(16) NOT NULL,
	`name` varchar(120) NOT NULL,
	`kind` varchar(12),
	`trade_id` int,
	`category_id` int,
	`class_code` varchar(8),
	`leaves` varchar(16),
	`note` varchar(4000),
	`edition` int NOT NULL DEFAULT 0,
	`search_text` varchar(400) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`retired_at` datetime(3),
	CONSTRAINT `method_id` PRIMARY KEY(`id`),
	CONSTRAINT `method_code_unique` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `order_method` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`method_id` int NOT NULL,
	`edition` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`by` int,
	CONSTRAINT `order_method_id` PRIMARY KEY(`id`),
	CONSTRAINT `order_method_once` UNIQUE(`order_id`,`method_id`)
);
--> statement-breakpoint
CREATE TABLE `order_plan` (
	`order_id` int NOT NULL,
	`labour` json NOT NULL,
	`parts` json NOT NULL,
	`tools` json NOT NULL,
	`hazards` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `order_plan_order_id` PRIMARY KEY(`order_id`)
);
--> statement-breakpoint
CREATE TABLE `order_step` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`applied_id` int,
	`position` smallint NOT NULL,
	`text` varchar(300) NOT NULL,
	`kind` varchar(8) NOT NULL,
	`unit` varchar(16),
	`least` decimal(14,4),
	`most` decimal(14,4),
	`choices` json NOT NULL,
	`first` boolean NOT NULL,
	`after_id` int,
	`assignee_id` int,
	`state` varchar(4) NOT NULL,
	`value` varchar(60),
	`outside` boolean NOT NULL,
	`note` varchar(500),
	`photo_id` int,
	`done_by` int,
	`done_at` datetime(3),
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `order_step_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `method_edition` ADD CONSTRAINT `method_edition_method_id_method_id_fk` FOREIGN KEY (`method_id`) REFERENCES `method`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `method_edition` ADD CONSTRAINT `method_edition_by_account_id_fk` FOREIGN KEY (`by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `method` ADD CONSTRAINT `method_trade_id_trade_id_fk` FOREIGN KEY (`trade_id`) REFERENCES `trade`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `method` ADD CONSTRAINT `method_category_id_category_id_fk` FOREIGN KEY (`category_id`) REFERENCES `category`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_method` ADD CONSTRAINT `order_method_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_method` ADD CONSTRAINT `order_method_method_id_method_id_fk` FOREIGN KEY (`method_id`) REFERENCES `method`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_method` ADD CONSTRAINT `order_method_by_account_id_fk` FOREIGN KEY (`by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_plan` ADD CONSTRAINT `order_plan_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_step` ADD CONSTRAINT `order_step_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_step` ADD CONSTRAINT `order_step_applied_id_order_method_id_fk` FOREIGN KEY (`applied_id`) REFERENCES `order_method`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_step` ADD CONSTRAINT `order_step_assignee_id_account_id_fk` FOREIGN KEY (`assignee_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_step` ADD CONSTRAINT `order_step_photo_id_attachment_id_fk` FOREIGN KEY (`photo_id`) REFERENCES `attachment`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_step` ADD CONSTRAINT `order_step_done_by_account_id_fk` FOREIGN KEY (`done_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `order_method_method` ON `order_method` (`method_id`);--> statement-breakpoint
CREATE INDEX `order_step_order` ON `order_step` (`order_id`,`position`);--> statement-breakpoint
CREATE INDEX `order_step_assignee` ON `order_step` (`assignee_id`,`state`);--> statement-breakpoint
ALTER TABLE `own_value` ADD FULLTEXT INDEX `own_value_words` (`text`);
